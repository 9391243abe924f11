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

// Write writes a card in one of the forms, with the weights of an answer. All but plain text keep Mabbin's own fields
// without loss.
func Write(f recipe.Format, c recipe.Card, a *balance.Answer) (File, error) {
	var err error
	name := strings.ToLower(strings.Trim(notInNames.ReplaceAllString(c.Name, "-"), "-"))
	if name == "" {
		name = "card"
	}
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
