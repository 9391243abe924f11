// Package formats reads and writes recipes in open formats: plain text, CSV, and the schema.org Recipe as JSON-LD, by
// itself or inside an HTML page. What it reads is text: nothing in a file is ever run or shown as markup.
package formats

import (
	"bytes"
	"encoding/json"
	"errors"
	"path"
	"strings"
	"unicode/utf8"

	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
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

// Read finds the recipe in a file or in pasted text. The name of the file, if there is one, helps to tell the form.
// Errors are fault.Faults that name the line.
func Read(filename, content string) (*recipe.Document, error) {
	var f fault.Faults
	switch {
	case len(content) > MaxBytes:
		f.Add(
			"/content",
			message.New(
				"is {size} MB: at most {most} MB is possible",
				message.Number(float64(len(content))/(1<<20), 1),
				message.Count(MaxBytes>>20),
			),
		)
	case !utf8.ValidString(content):
		f.Add("/content", message.New("line {n}: is not UTF-8 text: save the file as UTF-8", message.Count(badLine(content))))
	case strings.ContainsRune(content, 0):
		f.Add("/content", message.New("has zero bytes in it: it is not a text file"))
	case strings.TrimSpace(content) == "":
		f.Add("/content", message.New("is empty: paste the ingredients, one per line, or choose a file"))
	}
	if err := f.Err(); err != nil {
		return nil, err
	}
	content = strings.TrimPrefix(content, "\ufeff")
	d, err := readers[formOf(filename, content)](content)
	if err != nil {
		return nil, err
	}
	tidy(d)
	if n := len(d.Lines); n > MaxLines {
		f.Add(
			"/content",
			message.New("has {n} lines of ingredients: at most {most} are read", message.Count(n), message.Count(MaxLines)),
		)
	} else if n == 0 && d.Card == nil {
		f.Add("/content", message.New("contains no ingredients: paste them, one per line"))
	}
	return d, f.Err()
}

var readers = map[recipe.Format]func(string) (*recipe.Document, error){
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

// formOf tells the form by the content, and by the file's name where that leaves it open.
func formOf(filename, content string) recipe.Format {
	head := strings.TrimSpace(content[:min(len(content), 4096)])
	lower := strings.ToLower(head)
	switch ext := strings.ToLower(path.Ext(filename)); {
	case strings.HasPrefix(head, "{"), strings.HasPrefix(head, "[") && ext != ".txt":
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

// tidy brings what was found to plain, short lines, and reads the style and the oven out of them.
func tidy(d *recipe.Document) {
	d.Name = clip(plain(d.Name), 80)
	d.Yield = clip(plain(d.Yield), 80)
	lines := make([]recipe.DocumentLine, 0, len(d.Lines))
	for _, l := range d.Lines {
		if l.Text = clip(plain(l.Text), longest); l.Text != "" {
			lines = append(lines, l)
		}
	}
	d.Lines = lines
	steps := make([]string, 0, len(d.Method))
	for _, s := range d.Method {
		if s = clip(plain(s), longest); s != "" && len(steps) < mostSteps {
			steps = append(steps, s)
		}
	}
	d.Method = steps
	for _, s := range larder.Styles.All() {
		if strings.Contains(strings.ToLower(d.Name), s.Key) {
			d.Style = s.Key
		}
	}
	method := strings.Join(d.Method, "\n")
	d.OvenC, d.Minutes = parse.FindOven(method)
	all := make([]string, 0, len(d.Lines)+1)
	for _, l := range d.Lines {
		all = append(all, l.Text)
	}
	text := strings.Join(append(all, method), "\n")
	d.Cup, d.CupWhy = parse.WhoseCup(text)
	if found, ok := dish.Find(text); ok {
		d.Dish, d.DishSizes = &found, found.Sizes()
	}
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
				Pointer: "/content",
				Detail:  message.New("line {n}: is not JSON: {why}", message.Count(lineOf(content, at)), message.Text(err.Error())),
			},
		}
	}
	return nil
}
