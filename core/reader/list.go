package reader

import (
	"strings"

	"mabbin/core/parse"
)

// part is where in a text with a list of ingredients a line stands.
type part int

const (
	beforeList part = iota
	inList
	inMethod
	afterMethod
)

// lister parts a text that has a list of ingredients.
type lister struct {
	*document
	p         *parse.Vocabulary
	rows      []row
	part      part
	bullets   bool // the ingredients have bullets
	equipment bool // under a heading for what is needed to bake it
	listed    int  // ingredients so far
	blank     bool // the line above was empty
	para      string
}

// countIngredients counts the lines that ask for something, and known names under a heading for ingredients.
// said counts the lines that say something.
func countIngredients(rows []row, p *parse.Vocabulary) (n, said int) {
	under := false
	for _, w := range rows {
		if w.clean != "" {
			said++
		}
		switch {
		case listHead.MatchString(w.clean):
			under = true
		case w.ingredient, under && knownName(w.clean, p):
			n++
		case len(w.clean) > 60:
			under = false
		}
	}
	return n, said
}

func (l *lister) read() {
	bullets := 0
	for _, w := range l.rows {
		if w.ingredient && bullet.MatchString(w.read) {
			bullets++
		}
	}
	l.bullets = bullets > 2
	for i, w := range l.rows {
		if w.clean == "" {
			l.flush()
			l.blank = true
			continue
		}
		l.row(i, w)
		l.blank = false
	}
	l.flush()
}

// flush ends a paragraph of the method.
func (l *lister) flush() {
	if l.para != "" {
		l.method = append(l.method, l.para)
		l.para = ""
	}
}

// next is the first line below the i-th that says something.
func (l *lister) next(i int) row {
	for _, w := range l.rows[i+1:] {
		if w.clean != "" && !clutter.MatchString(w.clean) {
			return w
		}
	}
	return row{}
}

// row reads one line by the part of the text that it stands in.
func (l *lister) row(i int, w row) {
	switch {
	case l.part == afterMethod && !noteLine.MatchString(w.clean):
		l.notes = append(l.notes, w.read)
		if methodHead.MatchString(w.clean) {
			l.part = inMethod
		}
	case l.part == inMethod && (notesHead.MatchString(w.clean) || noteLine.MatchString(w.clean)):
		l.flush()
		l.part = afterMethod
		l.notes = append(l.notes, w.read)
	case methodHead.MatchString(w.clean):
		l.flush()
		if l.listed > 0 {
			l.part = inMethod
		}
	case l.part == beforeList && listHead.MatchString(w.clean):
		l.part = inList
	case l.part != inMethod && l.listed > 0 && equipHead.MatchString(w.clean):
		l.equipment = true
		l.add(w, HeadingLine)
	case l.part == beforeList && !l.begins(i, w):
	case l.part == inMethod:
		if numbered.MatchString(w.clean) || numberedRaw.MatchString(w.read) || bullet.MatchString(w.read) {
			l.flush()
		}
		l.para = strings.TrimSpace(l.para + " " + w.read)
	default:
		l.part = inList
		l.listRow(i, w)
	}
}

// listRow reads a line among the ingredients.
func (l *lister) listRow(i int, w row) {
	c := w.clean
	step := !w.ingredient && (numbered.MatchString(c) && isSentence(numbered.ReplaceAllString(c, "")) ||
		numberedRaw.MatchString(w.read) || isSentence(c))
	switch {
	case step && l.listed > 0 && lineKind(c) != EquipmentLine:
		l.part = inMethod
		l.para = w.read
	case l.equipment:
		l.add(w, EquipmentLine)
	case clutter.MatchString(c):
		l.add(w, NoteLine)
	case !l.blank && l.continues(c):
		last := &l.lines[len(l.lines)-1]
		if cut, ok := strings.CutSuffix(last.clean, "-"); ok {
			last.clean = cut + c
		} else {
			last.clean += " " + c
		}
		last.text += "\n" + w.shown
	case !w.ingredient && l.isHeading(w, l.next(i)):
		l.add(w, HeadingLine)
	case !w.ingredient && timeLine.MatchString(c):
		l.meta = append(l.meta, w.read)
	default:
		l.add(w, lineKind(c))
		l.listed++
	}
}

// begins looks at a line above the ingredients; it is true for the first of them.
func (l *lister) begins(i int, w row) bool {
	next := l.next(i)
	c := w.clean
	switch {
	case w.ingredient && !timeLine.MatchString(c) && (l.title != "" || !strings.HasPrefix(next.clean, "prep")):
		return true
	case mailHead.MatchString(c):
		if m := subject.FindString(w.read); m != "" {
			l.title = strings.TrimSpace(w.read[len(m):])
		}
		return false
	case clutter.MatchString(c):
		return false
	case l.title != "" && !timeLine.MatchString(c) && l.isHeading(w, next) && !isSentence(c):
		return true
	}
	l.meta = append(l.meta, w.read)
	if l.title == "" && !chatLine.MatchString(w.read) && !timeLine.MatchString(c) {
		l.title = titleOf(w.read)
	}
	return false
}

// isHeading is whether a line heads the ingredients under it: short, without an amount of its own.
func (l *lister) isHeading(w, next row) bool {
	c := w.clean
	if len(strings.Fields(c)) > 8 || sentenceEnd.MatchString(c) {
		return false
	}
	colon := strings.HasSuffix(c, ":")
	if _, _, ok := parse.StartsWithAmount(c); ok && !colon {
		return false
	}
	switch {
	case serveLine.MatchString(c) && strings.Contains(strings.TrimSuffix(c, ":"), ":"):
		return false
	case !colon && isSentence(next.clean) && !next.ingredient:
		return false
	case colon, strings.HasPrefix(c, "for the "), c == "for on top", c == "to serve", c == "to finish":
		return true
	case strings.Contains(c, ","):
		return false
	case l.bullets && w.bulleted():
		return false // its neighbours have bullets as well
	}
	if _, _, amount := parse.StartsWithAmount(next.clean); !amount && !next.ingredient && !knownName(next.clean, l.p) {
		return false
	}
	if knownName(c, l.p) {
		return l.bullets || strings.ToUpper(w.read) == w.read && strings.ToLower(w.read) != w.read
	}
	return true
}

// continues is whether a line goes on with the one above it, as printed columns break them.
func (l *lister) continues(c string) bool {
	if len(l.lines) == 0 {
		return false
	}
	last := l.lines[len(l.lines)-1]
	if _, _, ok := parse.StartsWithAmount(
		c,
	); ok || last.kind != IngredientLine || isSentence(c) ||
		strings.HasSuffix(c, ":") {
		return false
	}
	switch {
	case strings.HasSuffix(last.clean, "-"):
		return true
	case strings.HasSuffix(last.clean, ","):
		return !knownName(c, l.p)
	}
	for _, joins := range []string{"and ", "or ", "with ", "("} {
		if rest, ok := strings.CutPrefix(c, joins); ok {
			return !knownName(rest, l.p) && !strings.HasPrefix(c, "and at the end")
		}
	}
	rest, _, ok := parse.StartsWithAmount(last.clean)
	return ok && parse.NoThing(rest)
}
