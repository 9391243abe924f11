// Package formats reads and writes recipes in open formats: plain text, CSV, and the schema.org Recipe as JSON-LD, by
// itself or inside an HTML page. What it reads is text: nothing in a file is ever run or shown as markup.
package formats

import (
	"bytes"
	"encoding/json"
	"errors"
	"math"
	"path"
	"regexp"
	"strconv"
	"strings"
	"unicode/utf8"

	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/reader"
	"mabbin/core/recipe"

	"golang.org/x/net/html"
)

// The most that is read.
const (
	MaxBytes  = 2 << 20
	MaxLines  = recipe.MaxLines
	mostSteps = 200
	longest   = 2000 // letters of one line or step that are kept
)

// Found is a recipe as it was found in a file: its parts as text to be read, and Mabbin's own card where it wrote the
// file.
type Found struct {
	Format recipe.Format
	Source reader.Source
	Card   *recipe.Card
}

// Find finds the recipe in a file or in pasted text. The name of the file, if there is one, helps to tell the form.
// Errors are fault.Faults that name the line.
func Find(filename, content string) (*Found, error) {
	var f fault.Faults
	switch {
	case len(content) > MaxBytes:
		f.Add(
			"",
			message.New(
				"is {size} MB: at most {most} MB is possible",
				message.Number(float64(len(content))/(1<<20), 1),
				message.Count(MaxBytes>>20),
			),
		)
	case !utf8.ValidString(content):
		f.Add("", message.New("line {n}: is not UTF-8 text: save the file as UTF-8", message.Count(badLine(content))))
	case strings.ContainsRune(content, 0):
		f.Add("", message.New("has zero bytes in it: it is not a text file"))
	case strings.TrimSpace(content) == "":
		f.Add("", message.New("is empty: paste the ingredients, one per line, or choose a file"))
	}
	if err := f.Err(); err != nil {
		return nil, err
	}
	form := formOf(filename, strings.TrimPrefix(content, "\ufeff"))
	d, err := readers[form](strings.TrimPrefix(content, "\ufeff"))
	if err != nil {
		return nil, err
	}
	d.Format = form
	tidy(&d.Source)
	if n := len(d.Source.Ingredients); n > MaxLines {
		f.Add(
			"",
			message.New("has {n} lines of ingredients: at most {most} are read", message.Count(n), message.Count(MaxLines)),
		)
	}
	return d, f.Err()
}

var readers = map[recipe.Format]func(string) (*Found, error){
	recipe.FormatText:   readText,
	recipe.FormatCSV:    readCSV,
	recipe.FormatJSONLD: readJSONLD,
	recipe.FormatHTML:   readHTML,
}

func badLine(s string) int {
	for i, l := range strings.Split(s, "\n") {
		if !utf8.ValidString(l) {
			return i + 1
		}
	}
	return 1
}

// jsonList is the beginning of a list in JSON, which the time of a chat message in brackets is not.
var jsonList = regexp.MustCompile(`^\[\s*[\[{"\]]`)

// formOf tells the form by the content, and by the file's name where that leaves it open.
func formOf(filename, content string) recipe.Format {
	head := strings.TrimSpace(content[:min(len(content), 4096)])
	lower := strings.ToLower(head)
	switch ext := strings.ToLower(path.Ext(filename)); {
	case strings.HasPrefix(head, "{"), jsonList.MatchString(head) && ext != ".txt":
		return recipe.FormatJSONLD
	case strings.HasPrefix(lower, "<!doctype html"),
		strings.HasPrefix(lower, "<html"),
		strings.Contains(lower, "<head"),
		strings.Contains(lower, "<script"),
		strings.Contains(lower, "<body"),
		ext == ".html",
		ext == ".htm":
		return recipe.FormatHTML
	case ext == ".csv", csvHead.MatchString(lower):
		return recipe.FormatCSV
	}
	return recipe.FormatText
}

// tidy brings the parts of a recipe to plain, short lines. Text is read as it is.
func tidy(s *reader.Source) {
	s.Title = clip(plain(s.Title), 80)
	s.Yield = clip(plain(s.Yield), 80)
	if _, err := strconv.Atoi(s.Yield); err == nil {
		s.Yield = "Serves " + s.Yield
	}
	s.Ingredients = tidied(s.Ingredients, math.MaxInt)
	s.Method = tidied(s.Method, mostSteps)
}

func tidied(lines []string, most int) []string {
	out := make([]string, 0, min(len(lines), most))
	for _, l := range lines {
		if l = clip(plain(l), longest); l != "" && len(out) < most {
			out = append(out, l)
		}
	}
	return out
}

// plain is text without markup and with its entities read: a tag in a recipe is noise, and never markup again.
func plain(s string) string {
	if strings.ContainsAny(s, "<&") {
		var b strings.Builder
		inScript := false
		for z := html.NewTokenizer(strings.NewReader(s)); ; {
			t := z.Next()
			if t == html.ErrorToken {
				break
			}
			switch {
			case t == html.TextToken && !inScript:
				b.Write(z.Text())
			case t == html.StartTagToken, t == html.EndTagToken:
				name, _ := z.TagName()
				inScript = t == html.StartTagToken && (string(name) == "script" || string(name) == "style")
				b.WriteByte(' ')
			}
		}
		s = html.UnescapeString(b.String())
	}
	return strings.Join(strings.Fields(s), " ")
}

func clip(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}

// lineOf is the line, from 1, of a byte's offset.
func lineOf(content string, offset int64) int {
	return 1 + strings.Count(content[:min(int64(len(content)), max(0, offset))], "\n")
}

// strict reads JSON into v, and names the line of what is wrong with it.
func strict(content string, v any) error {
	dec := json.NewDecoder(bytes.NewReader([]byte(content)))
	if err := dec.Decode(v); err != nil {
		at := dec.InputOffset()
		var syntax *json.SyntaxError
		if errors.As(err, &syntax) {
			at = syntax.Offset
		}
		return fault.Faults{
			{
				Pointer: "",
				Detail:  message.New("line {n}: is not JSON: {why}", message.Count(lineOf(content, at)), message.Text(err.Error())),
			},
		}
	}
	return nil
}
