package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/recipe"

	"golang.org/x/net/html"
)

// cardField is where Mabbin keeps its card whole in a schema.org Recipe.
const cardField = "mabbin:card"

func noRecipe(what message.Message) error {
	return fault.Faults{
		{
			Pointer: "/content",
			Detail: message.New(
				"{what} contains no schema.org Recipe: paste the ingredients as text instead, one per line",
				message.Part(what),
			),
		},
	}
}

// readJSONLD reads a schema.org Recipe: alone, in a list or in a graph.
func readJSONLD(content string) (*recipe.Document, error) {
	var tree any
	if err := strict(content, &tree); err != nil {
		return nil, err
	}
	r := findRecipe(tree, 0)
	if r == nil {
		return nil, noRecipe(message.New("the JSON"))
	}
	d, err := fromRecipe(r)
	if d != nil {
		d.Format = recipe.FormatJSONLD
	}
	return d, err
}

// findRecipe looks for the first Recipe in a tree of JSON.
func findRecipe(tree any, depth int) map[string]any {
	const deepest = 12
	if depth > deepest {
		return nil
	}
	switch x := tree.(type) {
	case []any:
		for _, y := range x {
			if r := findRecipe(y, depth+1); r != nil {
				return r
			}
		}
	case map[string]any:
		for _, t := range texts(x["@type"]) {
			if t == "Recipe" || strings.HasSuffix(t, "schema.org/Recipe") {
				return x
			}
		}
		for _, k := range []string{"@graph", "mainEntity", "mainEntityOfPage", "itemListElement"} {
			if r := findRecipe(x[k], depth+1); r != nil {
				return r
			}
		}
	}
	return nil
}

func fromRecipe(r map[string]any) (*recipe.Document, error) {
	d := &recipe.Document{Name: first(texts(r["name"])), Yield: first(texts(r["recipeYield"]))}
	lines := texts(r["recipeIngredient"])
	if len(lines) == 0 {
		lines = texts(r["ingredients"]) // the older name
	}
	for _, l := range lines {
		d.Lines = append(d.Lines, recipe.DocumentLine{Text: l})
	}
	d.Method = steps(r["recipeInstructions"], 0)
	own, ok := r[cardField]
	if !ok {
		return d, nil
	}
	b, err := json.Marshal(own)
	if err != nil {
		return nil, err
	}
	c, err := decodeCard(b, cardField)
	if err != nil {
		return nil, err
	}
	d.Card, d.Name = c, c.Name
	return d, nil
}

// decodeCard reads Mabbin's own card, and refuses one that can't be calculated.
func decodeCard(b []byte, at string) (*recipe.Card, error) {
	var c recipe.Card
	dec := json.NewDecoder(bytes.NewReader(b))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&c); err != nil {
		return nil, fault.Faults{
			{
				Pointer: "/content",
				Detail:  message.New("its {part} can't be read: {why}", message.Text(at), message.Text(err.Error())),
			},
		}
	}
	if err := balance.Check(c.Request); err != nil {
		return nil, fault.Faults{
			{
				Pointer: "/content",
				Detail:  message.New("its {part} is wrong: {why}", message.Text(at), message.Text(err.Error())),
			},
		}
	}
	return &c, nil
}

// texts are the strings of a value that may be one or a list of them.
func texts(v any) []string {
	switch x := v.(type) {
	case string:
		return []string{x}
	case float64:
		return []string{fmt.Sprint(x)}
	case []any:
		var out []string
		for _, y := range x {
			if s, ok := y.(string); ok {
				out = append(out, s)
			}
		}
		return out
	}
	return nil
}

func first(s []string) string {
	if len(s) == 0 {
		return ""
	}
	return s[0]
}

// steps are the texts of instructions: strings, steps, or sections of steps.
func steps(v any, depth int) []string {
	const deepest = 6
	if depth > deepest {
		return nil
	}
	switch x := v.(type) {
	case string:
		return strings.Split(x, "\n")
	case []any:
		var out []string
		for _, y := range x {
			out = append(out, steps(y, depth+1)...)
		}
		return out
	case map[string]any:
		if s, ok := x["text"].(string); ok {
			return []string{s}
		}
		return steps(x["itemListElement"], depth+1)
	}
	return nil
}

// readHTML reads a page that carries a Recipe, as JSON-LD or in its marks.
func readHTML(content string) (*recipe.Document, error) {
	page, err := html.Parse(strings.NewReader(content))
	if err != nil {
		return nil, fault.Faults{
			{Pointer: "/content", Detail: message.New("can't be read as HTML: {why}", message.Text(err.Error()))},
		}
	}
	var found *recipe.Document
	var wrong error
	marked := &recipe.Document{}
	scripts := 0
	for n := range page.Descendants() {
		if n.Type != html.ElementNode {
			continue
		}
		if n.Data == "script" && attr(n, "type") == "application/ld+json" && found == nil && scripts < mostScripts {
			scripts++
			var tree any
			if json.Unmarshal([]byte(inner(n, len(content))), &tree) != nil {
				continue // pages have broken ones among them
			}
			if r := findRecipe(tree, 0); r != nil {
				found, wrong = fromRecipe(r)
			}
		}
		most := mostMarked
		if len(marked.Lines) > MaxLines || len(marked.Method) > MaxLines {
			most = 1 // it is refused for their number
		}
		switch attr(n, "itemprop") {
		case "recipeIngredient", "ingredients":
			marked.Lines = append(marked.Lines, recipe.DocumentLine{Text: inner(n, most)})
		case "name":
			if marked.Name == "" {
				marked.Name = inner(n, mostMarked)
			}
		case "recipeInstructions":
			marked.Method = append(marked.Method, inner(n, most))
		}
	}
	if wrong != nil {
		return nil, wrong
	}
	if found == nil {
		if len(marked.Lines) == 0 {
			return nil, noRecipe(message.New("the page"))
		}
		found = marked
	}
	found.Format = recipe.FormatHTML
	return found, nil
}

func attr(n *html.Node, name string) string {
	for _, a := range n.Attr {
		if a.Key == name {
			return strings.TrimSpace(a.Val)
		}
	}
	return ""
}

// The limits of what is looked at in a page: scripts with data, nodes within one that is marked, and their text, bytes.
const (
	mostScripts = 50
	mostNodes   = 5000
	mostMarked  = 20_000
)

// inner is the text within a node, up to so many bytes.
func inner(n *html.Node, most int) string {
	var b strings.Builder
	nodes := 0
	for c := range n.Descendants() {
		if nodes++; nodes > mostNodes || b.Len() >= most {
			break
		}
		if c.Type == html.TextNode {
			b.WriteString(c.Data[:min(len(c.Data), most-b.Len())])
		}
	}
	return strings.ToValidUTF8(b.String(), "")
}

// asRecipe is a card as a schema.org Recipe, with the whole card in addition to what others read.
func asRecipe(c recipe.Card, a *balance.Answer) map[string]any {
	ingredients, instructions := []string{}, []map[string]string{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			ingredients = append(ingredients, ingredient(l))
		}
	}
	for _, s := range method(c, a) {
		instructions = append(instructions, map[string]string{"@type": "HowToStep", "text": s})
	}
	r := map[string]any{
		"@context":           []any{"https://schema.org", map[string]string{"mabbin": "urn:mabbin:"}},
		"@type":              "Recipe",
		"name":               c.Name,
		"recipeYield":        yield(a),
		"recipeIngredient":   ingredients,
		"recipeInstructions": instructions,
		cardField:            c,
	}
	if c.Minutes > 0 {
		r["cookTime"] = fmt.Sprintf("PT%.0fM", c.Minutes)
	}
	return r
}

// WriteJSONLD writes a card as a schema.org Recipe. Mabbin's own fields are in it whole.
func WriteJSONLD(c recipe.Card, a *balance.Answer) (string, error) {
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "  ")
	err := enc.Encode(asRecipe(c, a))
	return b.String(), err
}

// page is a card to be read and printed, with its data inside.
var page = template.Must(
	template.New("card").Funcs(template.FuncMap{"ingredient": ingredient, "heading": headingOf}).Parse(`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>{{.Card.Name}}</title>
<style>
body{font:17px/1.4 sans-serif;max-width:44em;margin:2em auto;padding:0 1em}
h2{margin-bottom:.2em}ul{margin-top:0}
</style>
<script type="application/ld+json">{{.Recipe}}</script>
</head>
<body>
<h1>{{.Card.Name}}</h1>
<p>{{.Yield}}</p>
{{range .Ticket}}<h2>{{heading .}}</h2>
<ul>{{range .Lines}}
<li>{{ingredient .}}{{if .Spoons}} ({{.Spoons}}){{end}}</li>{{end}}
</ul>
{{end}}<h2>Method</h2>
<ol>{{range .Method}}
<li>{{.}}</li>{{end}}
</ol>
{{with .Card.Original}}<h2>As it was written</h2>
{{if .Serves}}<p>{{.Serves}}</p>
{{end}}{{range .Method}}<p>{{.}}</p>
{{end}}{{end}}{{if .Card.Note}}<p>{{.Card.Note}}</p>
{{end}}</body>
</html>
`),
)

// WriteHTML writes a card as a page.
func WriteHTML(c recipe.Card, a *balance.Answer) (string, error) {
	var b bytes.Buffer
	err := page.Execute(
		&b,
		map[string]any{"Card": c, "Recipe": asRecipe(c, a), "Yield": yield(a), "Ticket": a.Ticket, "Method": method(c, a)},
	)
	return b.String(), err
}
