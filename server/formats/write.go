package formats

import (
	"fmt"
	"regexp"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/recipe"
)

// File is a card as it is given away.
type File struct {
	Name      string
	MediaType string
	Content   string
}

var notInNames = regexp.MustCompile(`[^\p{L}\p{N}]+`)

// fileName is a name as a file may have it, or another where nothing of it is left.
func fileName(name, instead string) string {
	if name = strings.ToLower(strings.Trim(notInNames.ReplaceAllString(name, "-"), "-")); name == "" {
		return instead
	}
	return name
}

// Write writes a card in one of the forms, with the weights of an answer. All but plain text keep Mabbin's own fields
// without loss.
func Write(f recipe.Format, c recipe.Card, a *balance.Answer) (File, error) {
	var err error
	name := fileName(c.Name, "card")
	var out File
	switch f {
	case recipe.FormatJSONLD:
		out = File{Name: name + ".json", MediaType: "application/ld+json"}
		out.Content, err = WriteJSONLD(c, a)
	case recipe.FormatHTML:
		out = File{Name: name + ".html", MediaType: "text/html"}
		out.Content, err = WriteHTML(c, a)
	case recipe.FormatCSV:
		out = File{Name: name + ".csv", MediaType: "text/csv"}
		out.Content, err = WriteCSV(c, a)
	case recipe.FormatText:
		out = File{Name: name + ".txt", MediaType: "text/plain", Content: WriteText(c, a)}
	default:
		return out, fmt.Errorf("there is no format %q", f)
	}
	return out, err
}
