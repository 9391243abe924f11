package formats

import (
	"encoding/csv"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/recipe"
)

// csvHead is a first line that names columns.
var csvHead = regexp.MustCompile(`^"?(bowl|ingredient|name|amount|grams|g|quantity|text)"?[,;\t]`)

// columns are the names that a table of ingredients may give its columns.
var columns = map[string]string{
	"bowl": "bowl", "section": "bowl", "part": "bowl", "group": "bowl",
	"ingredient": "name", "name": "name", "item": "name", "what": "name",
	"grams": "grams", "g": "grams", "weight": "grams", "weight (g)": "grams",
	"amount": "amount", "quantity": "amount", "qty": "amount", "unit": "unit", "units": "unit",
	"text": "text", "line": "text", "note": "note", "notes": "note", "key": "key", "value": "value", "spoons": "spoons",
}

// cardRow is the bowl of the rows that hold Mabbin's own card: a JSON pointer and its value each.
const cardRow = "card"

// readCSV reads a table with a line of names above: an ingredient, with its grams or its amount and unit, its bowl if
// there is one. Commas, semicolons and tabs part the columns.
func readCSV(content string) (*Found, error) {
	r := csv.NewReader(strings.NewReader(content))
	r.FieldsPerRecord = -1
	r.TrimLeadingSpace = true
	head, _, _ := strings.Cut(content, "\n")
	for _, c := range []rune{';', '\t'} {
		if strings.ContainsRune(head, c) && !strings.ContainsRune(head, ',') {
			r.Comma = c
		}
	}
	d := &Found{}
	var names []string
	bowl := ""
	card := map[string]any{}
	for n := 0; ; n++ {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			line := n + 1
			var p *csv.ParseError
			if errors.As(err, &p) {
				line, err = p.Line, p.Err
			}
			return nil, fault.Faults{
				{
					Pointer: "",
					Detail:  message.New("line {n}: is not CSV: {why}", message.Count(line), message.Text(err.Error())),
				},
			}
		}
		if names == nil {
			for _, c := range row {
				names = append(names, columns[strings.ToLower(strings.TrimSpace(c))])
			}
			if !slices.Contains(names, "name") && !slices.Contains(names, "text") {
				return nil, fault.Faults{
					{
						Pointer: "",
						Detail:  message.New("line 1: no column for the ingredient: call one name, ingredient or text"),
					},
				}
			}
			continue
		}
		if n > 4*MaxLines {
			return nil, fault.Faults{
				{
					Pointer: "",
					Detail: message.New(
						"has more than {rows} rows: at most {most} lines of ingredients are read",
						message.Count(4*MaxLines),
						message.Count(MaxLines),
					),
				},
			}
		}
		cells := map[string]string{}
		for i, c := range row {
			if i < len(names) && names[i] != "" {
				cells[names[i]] = asTyped(strings.TrimSpace(c))
			}
		}
		if cells["bowl"] == cardRow {
			if err := put(card, cells["key"], cells["value"]); err != nil {
				line, _ := r.FieldPos(0)
				return nil, fault.Faults{
					{Pointer: "", Detail: message.New("line {n}: {why}", message.Count(line), message.Text(err.Error()))},
				}
			}
			continue
		}
		l := lineFrom(cells)
		if l == "" {
			continue
		}
		if b := headingsByBowl[strings.ToLower(cells["bowl"])]; b != bowl && b != "" {
			bowl = b
			d.Source.Ingredients = append(d.Source.Ingredients, b)
		}
		d.Source.Ingredients = append(d.Source.Ingredients, l)
	}
	if len(card) == 0 {
		return d, nil
	}
	b, err := json.Marshal(listed(card))
	if err != nil {
		return nil, err
	}
	if d.Card, err = decodeCard(b, "card"); err != nil {
		return nil, err
	}
	d.Source.Title = d.Card.Name
	return d, nil
}

// headingsByBowl are the bowls that a table may name, Mabbin's own among them, as headings of a list.
var headingsByBowl = map[string]string{
	"filling": "For the filling:", "fruit": "For the filling:", "dry": "For the filling:", "crumbs": "For the filling:",
	"topping": "For the topping:", "base": "For the base:", "finish": "To finish:",
}

// lineFrom writes a row as a baker would.
func lineFrom(cells map[string]string) string {
	if cells["text"] != "" {
		return cells["text"]
	}
	amount := strings.TrimSpace(cells["amount"] + " " + cells["unit"])
	if g := cells["grams"]; g != "" {
		amount = g
		if _, err := strconv.ParseFloat(strings.ReplaceAll(g, ",", "."), 64); err == nil {
			amount += " g"
		}
	}
	text := strings.TrimSpace(amount + " " + cells["name"])
	if note := cells["note"]; note != "" && cells["name"] != "" {
		text += ", " + note
	}
	return text
}

// WriteCSV writes a card as a table: what to weigh, and below it every field of the card, so that nothing is lost.
func WriteCSV(c recipe.Card, a *balance.Answer) (string, error) {
	var b strings.Builder
	w := csv.NewWriter(&b)
	rows := [][]string{{"bowl", "key", "name", "grams", "spoons", "value"}}
	for _, bowl := range a.Ticket {
		for _, l := range bowl.Lines {
			rows = append(rows, []string{
				bowl.Key, harmless(l.Key), harmless(larder.Plain(string(l.Name))), l.Shown, harmless(l.Spoons), "",
			})
		}
	}
	doc, err := json.Marshal(c)
	if err != nil {
		return "", err
	}
	var tree any
	if err := json.Unmarshal(doc, &tree); err != nil {
		return "", err
	}
	flatten("", tree, func(pointer, value string) {
		rows = append(rows, []string{cardRow, harmless(pointer), "", "", "", harmless(value)})
	})
	err = w.WriteAll(rows)
	return b.String(), err
}

// flatten visits the leaves of a tree of JSON with their pointers, in order.
func flatten(at string, tree any, leaf func(pointer, value string)) {
	switch x := tree.(type) {
	case map[string]any:
		keys := make([]string, 0, len(x))
		for k := range x {
			keys = append(keys, k)
		}
		slices.Sort(keys)
		for _, k := range keys {
			flatten(at+"/"+escape.Replace(k), x[k], leaf)
		}
		if len(x) == 0 {
			leaf(at, "{}")
		}
	case []any:
		for i, y := range x {
			flatten(at+"/"+strconv.Itoa(i), y, leaf)
		}
		if len(x) == 0 {
			leaf(at, "[]")
		}
	default:
		b, _ := json.Marshal(x)
		leaf(at, string(b))
	}
}

var (
	escape   = strings.NewReplacer("~", "~0", "/", "~1")
	unescape = strings.NewReplacer("~1", "/", "~0", "~")
)

// put sets one leaf in a tree of maps; listed makes lists of those whose keys count from 0.
func put(tree map[string]any, pointer, value string) error {
	var v any
	if err := json.Unmarshal([]byte(value), &v); err != nil {
		return fmt.Errorf("%q is not a JSON value", clip(value, 40))
	}
	path := strings.Split(strings.TrimPrefix(pointer, "/"), "/")
	const deepest = 8
	if !strings.HasPrefix(pointer, "/") || len(path) > deepest {
		return fmt.Errorf("%q is not a pointer to a field of a card", clip(pointer, 40))
	}
	for i, k := range path {
		k = unescape.Replace(k)
		if i == len(path)-1 {
			tree[k] = v
			return nil
		}
		next, ok := tree[k].(map[string]any)
		if !ok {
			next = map[string]any{}
			tree[k] = next
		}
		tree = next
	}
	return nil
}

func listed(tree any) any {
	m, ok := tree.(map[string]any)
	if !ok {
		return tree
	}
	list := make([]any, 0, len(m))
	for i := range len(m) {
		if x, ok := m[strconv.Itoa(i)]; ok {
			list = append(list, listed(x))
		}
	}
	if len(m) > 0 && len(list) == len(m) {
		return list
	}
	for k, x := range m {
		m[k] = listed(x)
	}
	return m
}
