package formats

import (
	"fmt"
	"regexp"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/recipe"
)

var (
	// sentence is a step without a number: what to do, in a whole sentence.
	sentence = regexp.MustCompile(`(?i)^(pre-?heat|heat|butter|grease|bake|mix|stir|toss|rub|combine|put|place|spread|` +
		`sprinkle|pour|serve|leave|cool|cut|peel|wash|melt|whisk|roll|line|arrange|tip|scatter|set|in an? |in the |` +
		`meanwhile)\b[^\n]*[.!]$`)
	// methodHead begins the part that is no ingredients any more.
	methodHead = regexp.MustCompile(`(?i)^\W*(method|instructions?|directions?|preparation|steps|how to( make it)?)\W*$`)
	step       = regexp.MustCompile(`^\s*(?:step\s*)?\d{1,2}[.):]\s+\S`)
	yieldLine  = regexp.MustCompile(`(?i)^(serves|makes|yield|portions)\b`)
	amountIn   = regexp.MustCompile(`[0-9½¼¾⅓⅔⅛]`)
)

// fewWords are the least of a sentence that is a step: "Butter, softened." is none.
const fewWords = 5

// readText reads pasted text: a title, if the first line is none of the ingredients, the ingredients, and the method
// after its heading or from the first numbered step on.
func readText(content string) (*recipe.Document, error) {
	d := &recipe.Document{Format: recipe.FormatText}
	inMethod := false
	for raw := range strings.Lines(content) {
		l := strings.TrimSpace(raw)
		switch {
		case l == "":
		case methodHead.MatchString(l):
			inMethod = true
		case inMethod, step.MatchString(l), sentence.MatchString(l) && len(strings.Fields(l)) >= fewWords:
			inMethod = true
			d.Method = append(d.Method, l)
		case yieldLine.MatchString(l):
			d.Yield = l
		case d.Name == "" && len(d.Lines) == 0 && !amountIn.MatchString(l) && !strings.HasSuffix(l, ":"):
			d.Name = strings.Trim(l, "#*_ ")
		default:
			d.Lines = append(d.Lines, recipe.DocumentLine{Text: l})
		}
	}
	return d, nil
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
