package formats

import (
	"fmt"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/reader"
	"mabbin/core/recipe"
)

// readText leaves pasted text to the reader as it is.
func readText(content string) (*Found, error) {
	return &Found{Source: reader.Source{Text: content}}, nil
}

// WriteText writes a card to be read.
func WriteText(c recipe.Card, a *balance.Answer) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n%s\n", c.Name, yield(a))
	for _, bowl := range a.Ticket {
		fmt.Fprintf(&b, "\n%s:\n", headingOf(bowl))
		for _, l := range bowl.Lines {
			b.WriteString(ingredient(l))
			if note := message.Join("; ", l.Note, l.Pieces); !note.IsZero() && bowl.Key == "fruit" {
				b.WriteString(", " + note.String())
				if _, fruit := c.Request.Own.Fruit(l.Key); fruit {
					b.WriteString(", prepared weight")
				}
			}
			if l.Spoons != "" {
				b.WriteString(" (" + l.Spoons + ")")
			}
			b.WriteByte('\n')
		}
	}
	b.WriteString("\nMethod\n")
	for i, s := range method(c, a) {
		fmt.Fprintf(&b, "%d. %s\n", i+1, s)
	}
	if o := c.Original; o != nil {
		b.WriteString("\nAs it was written\n")
		if o.Serves != "" {
			b.WriteString(o.Serves + "\n")
		}
		for _, s := range o.Method {
			b.WriteString(s + "\n")
		}
	}
	if c.Note != "" {
		fmt.Fprintf(&b, "\nNote: %s\n", c.Note)
	}
	return b.String()
}

// headingOf is a bowl's heading as the reader of text understands it again.
func headingOf(b balance.Bowl) string {
	switch b.Key {
	case "fruit":
		return "For the filling, fruit bowl"
	case "dry":
		return "For the filling, dry"
	case "crumbs":
		return "For the filling, crumb layer"
	case "custard":
		return "For the filling, custard"
	case "base":
		return "For the base"
	case "seal", "before", "after", "ready":
		return "To finish"
	}
	return "For the topping"
}

func ingredient(l balance.Line) string { return l.Shown + " g " + larder.Plain(string(l.Name)) }

func yield(a *balance.Answer) string {
	return fmt.Sprintf("Serves %.0f, %.0f g each", a.Portions.Count, a.Portions.EachG)
}

// method is what to do, in the order of the work, baked as the card says.
func method(c recipe.Card, a *balance.Answer) []string {
	out := make([]string, 0, len(a.Method))
	for _, m := range a.Method {
		text := m.Text.String()
		if m.Code == "bake" && c.OvenC > 0 {
			bake := fmt.Sprintf("Bake at %.0f C", c.OvenC)
			if c.Minutes > 0 {
				bake += fmt.Sprintf(", about %.0f minutes", c.Minutes)
			}
			text = bake + ". " + text
		}
		out = append(out, text)
	}
	return out
}
