package main

import (
	"bufio"
	"fmt"
	"io"
	"regexp"
	"strings"
	"unicode"
)

// longest is how many words a sentence has at most.
const longest = 28

// Rules are what the list of words says.
type Rules struct {
	rules      []rule
	exceptions []exception
}

type rule struct {
	pattern *regexp.Regexp
	word    string // the single word that names are searched for; "" for a pattern of several
	instead string
	kinds   string // of texts that the rule is for; "" for all
}

type exception struct {
	file, text string
	used       bool
}

// ReadRules reads the list of words. Each line is a regular expression, a tab and what to write instead; a line that
// begins with "strings:", "comments:" or "names:" is for texts of that kind alone. A line "except FILE: TEXT", a tab
// and a reason leaves out findings in texts of FILE that contain TEXT.
func ReadRules(r io.Reader) (*Rules, error) {
	rules := &Rules{}
	lines := bufio.NewScanner(r)
	for n := 1; lines.Scan(); n++ {
		line := lines.Text()
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		left, right, ok := strings.Cut(line, "\t")
		if right = strings.TrimSpace(right); !ok || right == "" {
			return nil, fmt.Errorf("docs/words.txt:%d: put a tab and what to write instead after the word", n)
		}
		if rest, ok := strings.CutPrefix(left, "except "); ok {
			file, text, _ := strings.Cut(rest, ": ")
			rules.exceptions = append(rules.exceptions, exception{file: file, text: text})
			continue
		}
		kinds := ""
		if kind, rest, ok := strings.Cut(left, ": "); ok {
			kinds, left = kind, rest
		}
		pattern, err := regexp.Compile(`(?i)(?:^|[^\p{L}\p{N}])(` + left + `)(?:$|[^\p{L}\p{N}])`)
		if err != nil {
			return nil, fmt.Errorf("docs/words.txt:%d: %w", n, err)
		}
		word := left
		if strings.ContainsAny(left, " ") {
			word = ""
		}
		rules.rules = append(rules.rules, rule{pattern, word, right, kinds})
	}
	return rules, lines.Err()
}

// Check returns a line for each text that the rules find fault with, and for each exception that no text needs.
func (r *Rules) Check(texts []Text) []string {
	var out []string
	report := func(t Text, found, instead string) {
		if !r.excepted(t) {
			out = append(out, fmt.Sprintf("%s:%d: %q: %s (%s)", t.File, t.Line, found, instead, shorten(t.Text)))
		}
	}
	for _, t := range texts {
		text := t.Text
		if t.Kind == Names {
			text = splitName(text)
		}
		for _, rule := range r.rules {
			if rule.kinds != "" && rule.kinds != string(t.Kind) || t.Kind == Names && rule.word == "" {
				continue
			}
			if m := rule.pattern.FindStringSubmatch(text); m != nil {
				report(t, m[1], rule.instead)
			}
		}
		if t.Kind == Names {
			continue
		}
		for _, s := range sentences(text) {
			if n := len(word.FindAllString(s, -1)); n > longest {
				report(t, shorten(s), fmt.Sprintf("a sentence of %d words; write two", n))
			}
		}
	}
	for _, e := range r.exceptions {
		if !e.used {
			out = append(out, fmt.Sprintf("docs/words.txt: no text needs the exception %q of %s", e.text, e.file))
		}
	}
	return out
}

func (r *Rules) excepted(t Text) bool {
	for i := range r.exceptions {
		if e := &r.exceptions[i]; strings.HasPrefix(t.File, e.file) && strings.Contains(t.Text, e.text) {
			e.used = true
			return true
		}
	}
	return false
}

// word is a word of a sentence; figures and the letters of a formula are none.
var word = regexp.MustCompile(`\p{L}{2,}`)

var ends = regexp.MustCompile(`[.:;?!]['")]?\s+|\n\s*\n|\n\s*[-*|]|\s\|\s|\n\t`)

// sentences splits a text where sentences, clauses after a colon or semicolon, and cells of tables end.
func sentences(s string) []string { return ends.Split(s, -1) }

// splitName returns the words of an identifier: "DayOrders" is "day orders".
func splitName(name string) string {
	var b strings.Builder
	runes := []rune(name)
	for i, r := range runes {
		if i > 0 && unicode.IsUpper(r) && (!unicode.IsUpper(runes[i-1]) || i+1 < len(runes) && unicode.IsLower(runes[i+1])) {
			b.WriteByte(' ')
		}
		b.WriteRune(unicode.ToLower(r))
	}
	return b.String()
}

func shorten(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if r := []rune(s); len(r) > 90 {
		return string(r[:90]) + "…"
	}
	return s
}
