package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/recipe"
	"mabbin/server/render"
)

// WriteWritten writes a mended recipe in its writer's order and units: as text, as a schema.org Recipe, or as a page to
// be printed.
func WriteWritten(f recipe.Format, w recipe.Written, read render.Reading) (File, error) {
	name := fileName(w.Title, "recipe")
	changes := make([]string, len(w.Changes))
	for i, c := range w.Changes {
		changes[i] = read.Text(c)
	}
	switch f {
	case recipe.FormatText:
		return File{Name: name + ".txt", MediaType: "text/plain", Content: writtenText(w, changes)}, nil
	case recipe.FormatJSONLD:
		content, err := writtenData(w, changes)
		return File{Name: name + ".json", MediaType: "application/ld+json", Content: content}, err
	case recipe.FormatHTML:
		var b bytes.Buffer
		err := writtenPage.Execute(&b, map[string]any{"Recipe": w, "Changes": changes})
		return File{Name: name + ".html", MediaType: "text/html", Content: b.String()}, err
	}
	return File{}, fault.Faults{{Pointer: "/format", Detail: fault.NotOneOf(string(f), "text", "jsonld", "html")}}
}

func writtenText(w recipe.Written, changes []string) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", w.Title)
	if w.Yield != "" {
		fmt.Fprintf(&b, "%s\n", w.Yield)
	}
	for _, p := range w.Parts {
		b.WriteByte('\n')
		if p.Heading != "" {
			fmt.Fprintf(&b, "%s\n", p.Heading)
		}
		for _, l := range p.Lines {
			fmt.Fprintf(&b, "%s\n", l)
		}
	}
	if len(w.Method) > 0 {
		b.WriteString("\nMethod\n")
	}
	for _, m := range w.Method {
		fmt.Fprintf(&b, "%s\n", m)
	}
	if len(changes) > 0 {
		b.WriteString("\nNotes\nChanged with Mabbin:\n")
		for _, c := range changes {
			fmt.Fprintf(&b, "- %s\n", c)
		}
	}
	return b.String()
}

func writtenData(w recipe.Written, changes []string) (string, error) {
	lines, steps := []string{}, []map[string]string{}
	for _, p := range w.Parts {
		if p.Heading != "" {
			lines = append(lines, strings.TrimSuffix(p.Heading, ":")+":")
		}
		lines = append(lines, p.Lines...)
	}
	for _, m := range w.Method {
		steps = append(steps, map[string]string{"@type": "HowToStep", "text": m})
	}
	r := map[string]any{
		"@context": "https://schema.org", "@type": "Recipe", "name": w.Title, "recipeIngredient": lines,
		"recipeInstructions": steps,
	}
	if w.Yield != "" {
		r["recipeYield"] = w.Yield
	}
	if len(changes) > 0 {
		r["description"] = "Changed with Mabbin: " + strings.Join(changes, "; ")
	}
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	err := enc.Encode(r)
	return b.String(), err
}

// writtenPage is a mended recipe to be printed.
var writtenPage = template.Must(template.New("recipe").Parse(`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>{{.Recipe.Title}}</title>
<style>
body{font:17px/1.45 serif;max-width:40em;margin:2em auto;padding:0 1em}
h2{margin-bottom:.2em;font-size:1.1em}ul{margin-top:0}
</style>
</head>
<body>
<h1>{{.Recipe.Title}}</h1>
{{with .Recipe.Yield}}<p>{{.}}</p>{{end}}
{{range .Recipe.Parts}}{{with .Heading}}<h2>{{.}}</h2>{{end}}
<ul>{{range .Lines}}
<li>{{.}}</li>{{end}}
</ul>
{{end}}{{if .Recipe.Method}}<h2>Method</h2>
{{range .Recipe.Method}}<p>{{.}}</p>
{{end}}{{end}}{{if .Changes}}<h2>Changed with Mabbin</h2>
<ul>{{range .Changes}}
<li>{{.}}</li>{{end}}
</ul>
{{end}}</body>
</html>
`))
