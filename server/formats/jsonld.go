package formats

import (
	"bytes"
	"encoding/json"
	"fmt"
	"html/template"
	"regexp"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/reader"
	"mabbin/core/recipe"

	"golang.org/x/net/html"
)

// cardField is where Mabbin keeps its card whole in a schema.org Recipe.
const cardField = "mabbin:card"

func noRecipe(what message.Message) error {
	return fault.Faults{
		{
			Pointer: "",
			Detail: message.New(
				"{what} contains no schema.org Recipe: paste the ingredients as text instead, one per line",
				message.Part(what),
			),
		},
	}
}

// readJSONLD reads a schema.org Recipe: alone, in a list or in a graph.
func readJSONLD(content string) (*Found, error) {
	var tree any
	if err := strict(content, &tree); err != nil {
		return nil, err
	}
	r := findRecipe(tree, 0)
	if r == nil {
		return nil, noRecipe(message.New("the JSON"))
	}
	return fromRecipe(r)
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

func fromRecipe(r map[string]any) (*Found, error) {
	d := &Found{Source: reader.Source{
		Title: first(texts(r["name"])), Yield: longestOf(texts(r["recipeYield"])),
		Ingredients: texts(r["recipeIngredient"]), Method: steps(r["recipeInstructions"], 0),
	}}
	if len(d.Source.Ingredients) == 0 {
		d.Source.Ingredients = texts(r["ingredients"]) // the older name
	}
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
	d.Card, d.Source.Title = c, c.Name
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
				Pointer: "",
				Detail:  message.New("its {part} can't be read: {why}", message.Text(at), message.Text(err.Error())),
			},
		}
	}
	if err := balance.Check(c.Request); err != nil {
		return nil, fault.Faults{
			{
				Pointer: "",
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

// longestOf is the one that says most: "8 servings" of "8" and "8 servings".
func longestOf(s []string) (longest string) {
	for _, x := range s {
		if len(x) > len(longest) {
			longest = x
		}
	}
	return longest
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
func readHTML(content string) (*Found, error) {
	page, err := html.Parse(strings.NewReader(content))
	if err != nil {
		return nil, fault.Faults{
			{Pointer: "", Detail: message.New("can't be read as HTML: {why}", message.Text(err.Error()))},
		}
	}
	var found *Found
	var wrong error
	marked := &reader.Source{}
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
		if len(marked.Ingredients) > MaxLines || len(marked.Method) > MaxLines {
			most = 1 // it is refused for their number
		}
		switch attr(n, "itemprop") {
		case "recipeIngredient", "ingredients":
			marked.Ingredients = append(marked.Ingredients, inner(n, most))
		case "name":
			if marked.Title == "" {
				marked.Title = inner(n, mostMarked)
			}
		case "recipeYield":
			if marked.Yield == "" {
				marked.Yield = inner(n, mostMarked)
			}
		case "recipeInstructions":
			marked.Method = append(marked.Method, inner(n, most))
		}
	}
	if wrong != nil {
		return nil, wrong
	}
	switch {
	case found != nil:
		return found, nil
	case len(marked.Ingredients) > 0:
		return &Found{Source: *marked}, nil
	}
	text := visible(page)
	if !amounts.MatchString(text) {
		return nil, noRecipe(message.New("the page"))
	}
	return &Found{Source: reader.Source{Text: text}}, nil
}

var amounts = regexp.MustCompile(`(?m)^\W{0,4}[0-9½¼¾⅓⅔]`)

// Elements that begin a line, and those whose text nobody sees.
var (
	newLine = map[string]bool{
		"p":       true,
		"div":     true,
		"li":      true,
		"br":      true,
		"h1":      true,
		"h2":      true,
		"h3":      true,
		"h4":      true,
		"tr":      true,
		"section": true,
		"article": true,
		"ul":      true,
		"ol":      true,
		"table":   true,
		"header":  true,
		"footer":  true,
		"nav":     true,
		"dt":      true,
		"dd":      true,
	}
	hidden = map[string]bool{"script": true, "style": true, "head": true, "nav": true, "noscript": true, "template": true}
)

// visible is the text of a page without recipe data, a line for each block of it.
func visible(page *html.Node) string {
	var b strings.Builder
	var walk func(n *html.Node, depth int)
	walk = func(n *html.Node, depth int) {
		if depth > 200 || b.Len() > reader.MaxText {
			return
		}
		switch {
		case n.Type == html.TextNode:
			b.WriteString(strings.Join(strings.Fields(" "+n.Data+" "), " ") + " ")
		case n.Type == html.ElementNode && hidden[n.Data]:
			return
		case n.Type == html.ElementNode && newLine[n.Data]:
			b.WriteByte('\n')
		}
		for c := n.FirstChild; c != nil; c = c.NextSibling {
			walk(c, depth+1)
		}
		if n.Type == html.ElementNode && newLine[n.Data] {
			b.WriteByte('\n')
		}
	}
	walk(page, 0)
	return b.String()
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
