package main

import (
	"regexp"
	"strings"
)

var opening = regexp.MustCompile(`(?m)^<(script|template)[^>]*>`)

var exported = regexp.MustCompile(
	`(?m)^export (?:default )?(?:async )?(?:const|function|class|interface|type|enum) (\w+)`,
)

// readTypeScript returns the strings, comments and exported names of a script.
func readTypeScript(name string, src []byte) ([]Text, error) { return script(name, src, 0, src), nil }

// readVue returns the strings and comments of a component: those of its script and of its template.
func readVue(name string, src []byte) ([]Text, error) {
	var texts []Text
	from := 0
	for from < len(src) {
		open := opening.FindSubmatchIndex(src[from:])
		if open == nil {
			break
		}
		tag := string(src[from+open[2] : from+open[3]])
		start := from + open[1]
		end := strings.Index(string(src[start:]), "\n</"+tag+">")
		if end < 0 {
			break
		}
		if tag == "script" {
			texts = append(texts, script(name, src, start, src[start:start+end])...)
		} else {
			texts = append(texts, template(name, src, start, string(src[start:start+end]))...)
		}
		from = start + end
	}
	return texts, nil
}

// script reads part of a file, which begins at an offset in it, as TypeScript.
func script(name string, file []byte, offset int, part []byte) []Text {
	var texts []Text
	for _, m := range exported.FindAllSubmatchIndex(part, -1) {
		texts = append(texts, Text{name, lineAt(file, offset+m[2]), Names, string(part[m[2]:m[3]])})
	}
	eachLiteral(string(part), func(at int, kind Kind, text string) {
		if kind == Comments || isProse(text) {
			texts = append(texts, Text{name, lineAt(file, offset+at), kind, text})
		}
	})
	return texts
}

// eachLiteral calls f for every string and comment of a piece of TypeScript. What a template literal puts in is "{}"
// in its text, and is read on its own.
func eachLiteral(s string, f func(at int, kind Kind, text string)) {
	before := byte('(') // the last character that was no space: tells a regular expression from a division
	for i := 0; i < len(s); {
		switch c := s[i]; {
		case strings.HasPrefix(s[i:], "//"):
			n := strings.IndexByte(s[i:]+"\n", '\n')
			f(i, Comments, strings.TrimSpace(s[i+2:i+n]))
			i += n
		case strings.HasPrefix(s[i:], "/*"):
			n := strings.Index(s[i:]+"*/", "*/")
			f(i, Comments, strings.TrimSpace(strings.Trim(s[i+2:i+n], "* ")))
			i += min(n+2, len(s)-i)
		case c == '/' && strings.IndexByte("(,=:[!&|?{};", before) >= 0:
			i++
			for class := false; i < len(s) && s[i] != '\n' && (class || s[i] != '/'); i++ {
				switch s[i] {
				case '\\':
					i++
				case '[':
					class = true
				case ']':
					class = false
				}
			}
			i, before = i+1, ')'
		case c == '\'' || c == '"':
			j := i + 1
			for j < len(s) && s[j] != c && s[j] != '\n' {
				if s[j] == '\\' {
					j++
				}
				j++
			}
			f(i, Strings, strings.ReplaceAll(s[i+1:min(j, len(s))], `\`, ""))
			i, before = j+1, ')'
		case c == '`':
			i, before = templateLiteral(s, i, f), ')'
		default:
			if c != ' ' && c != '\n' {
				before = c
			}
			i++
		}
	}
}

// templateLiteral reads a template literal that begins at i, and returns where it ends.
func templateLiteral(s string, i int, f func(int, Kind, string)) int {
	var text strings.Builder
	start := i
	for i++; i < len(s) && s[i] != '`'; {
		switch {
		case s[i] == '\\':
			i += 2
		case strings.HasPrefix(s[i:], "${"):
			end := closing(s, i+1)
			eachLiteral(s[i+2:end], func(at int, kind Kind, inner string) { f(i+2+at, kind, inner) })
			text.WriteString("{}")
			i = end + 1
		default:
			text.WriteByte(s[i])
			i++
		}
	}
	f(start, Strings, text.String())
	return i + 1
}

// closing returns where the bracket that is open at i is closed.
func closing(s string, i int) int {
	depth := 0
	for ; i < len(s); i++ {
		switch s[i] {
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 {
				return i
			}
		case '`':
			i = templateLiteral(s, i, func(int, Kind, string) {}) - 1
		}
	}
	return len(s)
}

var (
	remark    = regexp.MustCompile(`(?s)<!--.*?-->`)
	tag       = regexp.MustCompile(`(?s)<[/a-zA-Z](?:[^>"']|"[^"]*"|'[^']*')*>`)
	attribute = regexp.MustCompile(`(?s)([:@#\w.-]+(?:\[[^\]]*\])?)="([^"]*)"`)
	mustache  = regexp.MustCompile(`(?s){{(.*?)}}`)
	unspoken  = regexp.MustCompile(
		`^(class|style|d|viewBox|id|to|type|key|ref|name|width|height|for|href|src|rel|is|fill|transform|points|x|y)$`,
	)
)

// template reads part of a component, which begins at an offset in its file, as a template.
func template(name string, file []byte, offset int, part string) []Text {
	var texts []Text
	literals := func(at int, kind Kind, text string) {
		if isProse(text) {
			texts = append(texts, Text{name, lineAt(file, offset+at), kind, text})
		}
	}
	part = remark.ReplaceAllStringFunc(part, blanked)
	for _, m := range tag.FindAllStringIndex(part, -1) {
		for _, a := range attribute.FindAllStringSubmatchIndex(part[m[0]:m[1]], -1) {
			key, value, at := part[m[0]+a[2]:m[0]+a[3]], part[m[0]+a[4]:m[0]+a[5]], m[0]+a[4]
			switch {
			case strings.HasPrefix(key, ":"),
				strings.HasPrefix(key, "@"),
				strings.HasPrefix(key, "v-"),
				strings.HasPrefix(key, "#"):
				eachLiteral(value, func(i int, kind Kind, text string) { literals(at+i, kind, text) })
			case !unspoken.MatchString(key):
				literals(at, Strings, value)
			}
		}
	}
	at := 0
	for _, m := range append(tag.FindAllStringIndex(part, -1), []int{len(part), len(part)}) {
		text := part[at:m[0]]
		for _, x := range mustache.FindAllStringSubmatchIndex(text, -1) {
			eachLiteral(text[x[2]:x[3]], func(i int, kind Kind, inner string) { literals(at+x[2]+i, kind, inner) })
		}
		if plain := strings.Join(strings.Fields(mustache.ReplaceAllString(text, "{}")), " "); letters.MatchString(plain) {
			first := strings.IndexFunc(text, func(r rune) bool { return r > ' ' })
			texts = append(texts, Text{name, lineAt(file, offset+at+max(first, 0)), Strings, plain})
		}
		at = m[1]
	}
	return texts
}

// blanked returns a text of the same length that has its line breaks and no letters.
func blanked(s string) string {
	b := []byte(s)
	for i := range b {
		if b[i] != '\n' {
			b[i] = ' '
		}
	}
	return string(b)
}
