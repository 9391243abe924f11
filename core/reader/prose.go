package reader

import (
	"regexp"

	"mabbin/core/parse"
)

// readProseLines makes lines of the sentences that name amounts.
func (r *recipe) readProseLines() {
	paras := r.doc.method
	r.method = r.sentences()
	body := r.method
	r.doc.method = r.doc.notes
	notes := r.sentences()
	r.doc.method = paras
	for i := range notes {
		notes[i].optional = false
	}
	was := ""
	current := Filling
	for _, s := range append(append([]sentence{}, body...), notes...) {
		if s.optional {
			continue
		}
		line := Line{Text: s.raw, Kind: IngredientLine}
		target := r.targetOf(s, 0, len(s.text))
		at := r.clauseTargets(sentence{text: s.text, mentions: s.mentions, target: target}, current)
		list := listSentence.MatchString(s.text) && amountsIn(s) >= 3
		if m := kiloOfThem.FindStringSubmatchIndex(s.text); m != nil && was != "" {
			t, _ := r.p.Get(was)
			l := r.p.ReadAs(s.text[m[2]:m[3]]+" "+t.Name, t, r.by)
			x := Item{Key: was, Name: t.Name, G: l.G, Bowl: Filling, AsBought: true, Surely: true}
			line.Items = append(line.Items, x)
		}
		for _, m := range s.mentions {
			if m.Thing.Fruit {
				was = m.Thing.Key
				if m.HasAmount {
					current = Filling
				}
			}
			if m.HasAmount && m.Citrus == "" && shareOf.MatchString(s.text[m.Start:m.End]) {
				continue
			}
			if !m.HasAmount && !bracketAfter.MatchString(s.text[m.End:]) && !amountLater.MatchString(s.text[m.End:]) {
				continue
			}
			items := r.proseItems(s, m, at(m))
			if list {
				for i := range items {
					items[i].Bowl, items[i].Surely = "", false
				}
			}
			line.Items = append(line.Items, items...)
		}
		if list {
			r.lists = append(r.lists, s.text)
		}
		if target != "" {
			current = target
		}
		if len(line.Items) > 0 {
			r.lines = append(r.lines, line)
		}
	}
	r.collectItems()
}

func amountsIn(s sentence) (n int) {
	for _, m := range s.mentions {
		if m.HasAmount {
			n++
		}
	}
	return n
}

var (
	listSentence = regexp.MustCompile(`^(?:you (?:will )?need|you'll need|ingredients:?|take|gather|for this)\b`)
	kiloOfThem   = regexp.MustCompile(
		`\b((?:a|half a|\d+(?:\.\d+)?) ?(?:kilos?|kg|g|pounds?|lb))(?: of)? (?:them|these|those)\b`,
	)
	bracketAfter = regexp.MustCompile(`^ ?\((?:about |approx\.? )?[\d.,]+ ?(?:g|kg|lb)\b[^)]*`)
	amountLater  = regexp.MustCompile(`^[^.;]{0,60}, about (\d+ ?g)\b`)
)

// proseItems are the items of one mention in running text.
func (r *recipe) proseItems(s sentence, m parse.Mention, bowl Bowl) []Item {
	text := s.text[m.Start:m.End]
	if b := bracketAfter.FindString(s.text[m.End:]); b != "" {
		text += b + ")"
	}
	if a := amountLater.FindStringSubmatch(s.text[m.End:]); a != nil {
		text = a[1] + " " + s.text[m.Name:m.End]
	}
	items := r.pieceItems(text)
	for i := range items {
		x := &items[i]
		if x.Key == "" || len(items) == 1 && m.Citrus == "" && len(x.Keys) == 0 {
			t := m.Thing
			x.Key, x.Ask = t.Key, ""
			if l := r.p.ReadAs(text, t, r.by); l.G != nil {
				x.G = l.G
			}
		}
		x.Bowl, x.Surely = bowl, bowl != ""
		if x.Bowl == "" {
			x.Bowl = Filling
		}
		if bowl == Pour {
			if t, _ := r.p.Get(x.Key); t.Role != "liquid" && t.Role != "syrup" && t.Role != "acid" {
				x.Bowl = Filling
			}
		}
	}
	return items
}
