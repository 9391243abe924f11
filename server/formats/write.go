package formats

import (
	"fmt"
	"regexp"
	"strings"

	"mabbin/core/balance"
)

// File is a card as it is given away.
type File struct {
	Name      string
	MediaType string
	Content   string
}

var notInNames = regexp.MustCompile(`[^\p{L}\p{N}]+`)

// Write writes a card in one of the forms. All but plain text keep Mabbin's own fields without loss.
func Write(f Format, c Card) (File, error) {
	a, err := balance.Solve(c.Request)
	if err != nil {
		return File{}, err
	}
	name := strings.ToLower(strings.Trim(notInNames.ReplaceAllString(c.Name, "-"), "-"))
	if name == "" {
		name = "card"
	}
	var out File
	switch f {
	case JSONLD:
		out = File{Name: name + ".json", MediaType: "application/ld+json"}
		out.Content, err = WriteJSONLD(c, a)
	case HTML:
		out = File{Name: name + ".html", MediaType: "text/html"}
		out.Content, err = WriteHTML(c, a)
	case CSV:
		out = File{Name: name + ".csv", MediaType: "text/csv"}
		out.Content, err = WriteCSV(c, a)
	case Text:
		out = File{Name: name + ".txt", MediaType: "text/plain", Content: WriteText(c, a)}
	default:
		return out, fmt.Errorf("there is no format %q", f)
	}
	return out, err
}
