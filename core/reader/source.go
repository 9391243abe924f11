package reader

import (
	"regexp"
	"strings"

	"mabbin/core/parse"
)

// document is a text parted into what its lines are.
type document struct {
	title  string
	yield  string
	meta   []string // lines around the recipe: servings, times, notes
	lines  []docLine
	method []string // paragraphs
	notes  []string // what is said after the method
	prose  bool     // no list of ingredients: lines are the method's sentences
	all    string   // the whole text in lower case
}

type docLine struct {
	text  string // as written
	clean string // in lower case, without bullets
	kind  LineKind
}

// row is one line of a text.
type row struct {
	shown      string // as written
	read       string // with a scanned page's letters mended
	clean      string // in lower case, without bullet and quote mark
	ingredient bool
}

func rowOf(shown, read string, p *parse.Vocabulary) row {
	w := row{shown: strings.TrimSpace(shown), read: strings.TrimSpace(read), clean: clean(read)}
	w.ingredient = isIngredient(w.clean, p)
	return w
}

// rowsOf are the lines of a text.
func rowsOf(text string, p *parse.Vocabulary) []row {
	raw := strings.Split(text, "\n")
	scanned := letterFor.MatchString(text) || strings.Contains(text, "l0 ")
	rows := make([]row, len(raw))
	for i, l := range raw {
		read := l
		if scanned {
			read = scannedOnes(l)
		}
		rows[i] = rowOf(l, read, p)
	}
	return rows
}

// bulleted is whether a line begins with a bullet of its own.
func (w row) bulleted() bool { return bullet.MatchString(w.read) && !strings.HasPrefix(w.read, ">") }

func (d *document) add(w row, kind LineKind) {
	d.lines = append(d.lines, docLine{text: w.shown, clean: w.clean, kind: kind})
}

var (
	bullet   = regexp.MustCompile(`^(?:\s|>|[*•·▢☐□◦‣✓●○-]|\[[ x]?\]|\[\d{1,2}:\d{2}\])+`)
	numbered = regexp.MustCompile(
		`^(?:(?:step\s*)?\d{1,2}[.):]\s+|(?:step\s+)(?:\d{1,2}|one|two|three|four|five|six|seven|eight)[.:)]?\s+|[①-⑳]\s*)`,
	)
	numberedRaw = regexp.MustCompile(`^\d{1,2}\s+[A-Z][a-z]+ `)
	methodHead  = regexp.MustCompile(
		`^\W*(?:(?:the )?method|instructions?|directions?|preparation|steps|how to (?:make|cook|do) it|what (?:you|to) do|to make)\b[\s:.]*$`,
	)
	listHead = regexp.MustCompile(
		`^\W*(?:the )?(?:ingredients?|you (?:will )?(?:need|want)|what you need|pack|shopping)\b\s*:?\s*(?:add all to shopping list)?\s*$`,
	)
	equipHead = regexp.MustCompile(`^\W*(?:you will need|equipment|dish(?:es)?|tins?|pans?|kit|also)\s*:?\s*$`)
	equipLine = regexp.MustCompile(
		`^(?:you (?:also |will )?(?:need|bring)\b|you'll (?:also )?need\b|a? ?\d+ ?[x×] ?\d+ ?cm )`,
	)
	notesHead = regexp.MustCompile(
		`^\W*(?:(?:cook's |baker's |recipe )?notes?|tips?|nutrition\b.*|reviews?\b.*|comments?|did you make this.*|you may also like.*|energy \d.*|make[- ]ahead\b.*|storage\b.*|variations?\b.*|to freeze|to store|to reheat)(?:\W.*)?$`,
	)
	noteLine = regexp.MustCompile(
		`^(?:tip|note|to freeze|to store|to reheat|to make ahead|make ahead|variation|ps|p\.s\.|freeze[sr]?|storage)\b ?:`,
	)
	clutter = regexp.MustCompile(
		`^(?:advertisement|us +metric\b.*|metric +us\b.*|buy ingredients.*|save|share|print\b.*|jump to.*|rating\b.*|★.*|home [›>].*|posted by.*|this post may.*|from this month.*|sign up.*|log in.*|\d+ comments?.*|cookie.*|subscribe.*|all measures are.*|sent from.*|--.*)$`,
	)
	timeLine = regexp.MustCompile(
		`^(?:prep|cook|total|active|hands[- ]on|ready in|takes|time|preparation|cooking|baking|oven|chill(?:ing)?|serves|makes|yield|servings|portions|feeds|cuts into|enough|for \d|freezes|difficulty|\(?\d+ (?:squares|pieces|bars|slices|portions)|\d+ ?(?:-|to) ?\d+ portions|class handout|(?:one|each) \w+ to\b)`,
	)
	mailHead   = regexp.MustCompile(`^(?:from|to|cc|date|sent|subject|re)\s*:`)
	subject    = regexp.MustCompile(`(?i)^subject:\s*(?:(?:fwd?|re):\s*)*`)
	imperative = regexp.MustCompile(
		`^(?:and |then |now |next,? |meanwhile,? |first,? |finally,? )?(?:pre-?heat|heat|set|butter|grease|line|bake|mix|stir|toss|rub|combine|put|place|spread|sprinkle|pour|serve|leave|cool|cut|peel|core|wash|melt|whisk|roll|arrange|tip|scatter|make|take|drop|dot|cover|light|rinse|crush|knead|soften|sweat|cook|warm|let|drain|chill|trim|slice|press|lay|whip|beat|prick|divide|wrap|fit|unroll|turn|brush|squeeze|layer|boil|bring|stew|simmer|fill|top|spoon|dice|halve|quarter|stone|hull|pit|fold|sift|oven|position|adjust|in an?|into|for the|working|while|when|once|with|using)\b`,
	)
	hasAmount   = regexp.MustCompile(`[0-9½¼¾⅓⅔⅛]`)
	sentenceEnd = regexp.MustCompile(`[.!?]\s*$`)
	colonAmount = regexp.MustCompile(`^[^:]{2,45}:\s*(?:[0-9½¼¾⅓⅔⅛]|a pinch)`)
	ocrOne      = regexp.MustCompile(`\bl( ?[½¼¾⅓⅔0-9]| (?:teasp|tablesp|tbsp|tsp|cup|hour|lb|oz|pint|quart|min)\b)`)
	ocrZero     = regexp.MustCompile(`\b(\d+|l)[oO]( (?:min|g|oz|cm|ml))`)
	letterFor   = regexp.MustCompile(`(?m)^l[½¼¾⅓⅔]`)
)

// clean is a line without its bullet, number and quote mark, in lower case.
func clean(text string) string {
	s := spoonLetters(strings.TrimSpace(plain(text)))
	s = strings.TrimSpace(bullet.ReplaceAllString(s, ""))
	return strings.ToLower(s)
}

var (
	bigSpoon   = regexp.MustCompile(`((?:^|[^\d])\d{1,2}|[½¼¾⅓⅔]) ?(?:T|Tb)\b\.?`)
	smallSpoon = regexp.MustCompile(`((?:^|[^\d])\d|[½¼¾⅓⅔]) ?t\b\.?`)
	cupLetter  = regexp.MustCompile(`((?:^|[^\d])\d|[½¼¾⅓⅔]) ?[cC]\.`)
)

// spoonLetters writes out the spoons and cups of index cards: a capital T is a tablespoon.
func spoonLetters(s string) string {
	if !hasAmount.MatchString(s) {
		return s
	}
	s = bigSpoon.ReplaceAllString(s, "$1 tbsp")
	s = smallSpoon.ReplaceAllString(s, "$1 tsp")
	return cupLetter.ReplaceAllString(s, "$1 cup")
}

// scannedOnes reads the letter l for the figure 1, as scanned pages have it.
func scannedOnes(s string) string {
	s = ocrZero.ReplaceAllString(s, "${1}0$2")
	s = ocrOne.ReplaceAllString(s, "1$1")
	return strings.ReplaceAll(s, "l0", "10")
}

// segment parts a source into title, servings, ingredient lines and method.
func segment(s Source, p *parse.Vocabulary) document {
	if s.Text == "" {
		d := document{title: s.Title, yield: s.Yield, method: s.Method}
		if s.Yield != "" {
			d.meta = append(d.meta, s.Yield)
		}
		for _, l := range s.Ingredients {
			switch w := rowOf(l, l, p); {
			case w.clean == "":
			case strings.HasSuffix(w.clean, ":") && !w.ingredient,
				strings.HasPrefix(w.clean, "for the ") && !hasAmount.MatchString(w.clean):
				d.add(w, HeadingLine)
			default:
				d.add(w, lineKind(w.clean))
			}
		}
		d.all = lower(strings.Join(append(append([]string{s.Title, s.Yield}, s.Ingredients...), s.Method...), "\n"))
		return d
	}
	text := strings.ReplaceAll(s.Text, "\r", "")
	rows := rowsOf(text, p)
	d := document{}
	all := make([]string, len(rows))
	for i, w := range rows {
		all[i] = w.read
	}
	d.all = lower(strings.Join(all, "\n"))
	if n, said := countIngredients(rows, p); n >= 3 || n > 0 && 2*n >= said {
		l := &lister{document: &d, p: p, rows: rows}
		l.read()
	} else {
		d.segmentProse(rows)
	}
	return d
}

// isIngredient is whether a line by itself asks for something: an amount with a name, or a known name alone.
func isIngredient(c string, p *parse.Vocabulary) bool {
	switch {
	case c == "" || len(c) > 220:
		return false
	case colonAmount.MatchString(c):
		return !timeLine.MatchString(c) && !strings.HasPrefix(c, "serv")
	case timeLine.MatchString(c) && !strings.HasPrefix(c, "for "):
		return false
	}
	rest, unit, ok := parse.StartsWithAmount(c)
	if !ok {
		return citrusLine.MatchString(c)
	}
	rest = strings.TrimSpace(rest)
	if rest == "" || strings.HasPrefix(rest, "min") || strings.HasPrefix(rest, "hour") {
		return false
	}
	if unit {
		return len(strings.Fields(c)) < 30 && (len(strings.Fields(rest)) <= 3 || !imperative.MatchString(rest))
	}
	before, _, _ := strings.Cut(rest, ".")
	return len(p.Mentions(before)) > 0 && len(strings.Fields(rest)) < 20 && !imperative.MatchString(rest)
}

var citrusLine = regexp.MustCompile(
	`^(?:the )?(?:finely )?(?:grated )?(?:juice|zest|rind)\b.{0,30}\b(?:lemon|lime|orange)`,
)

// knownName is whether a line is the name of a thing of the tables and nothing else.
func knownName(c string, p *parse.Vocabulary) bool {
	name, _, _ := strings.Cut(c, ",")
	name = strings.TrimPrefix(strings.TrimPrefix(name, "a "), "an ")
	if name == "lemon" || name == "orange" || name == "lime" {
		return true
	}
	m := p.Mentions(name)
	return len(m) == 1 && parse.NoThing(name[:m[0].Start]+" "+name[m[0].End:])
}

var serveLine = regexp.MustCompile(`(?:^|[,;] ?| )(?:to serve|for serving|served? with)\b`)

// lineKind tells an ingredient from what is served with the dessert and what is needed to bake it.
func lineKind(c string) LineKind {
	switch {
	case clutter.MatchString(c):
		return NoteLine
	case equipLine.MatchString(c) && !strings.Contains(c, " g "):
		return EquipmentLine
	case serveLine.MatchString(c):
		return ServeLine
	}
	return IngredientLine
}

// isSentence is whether a line is something to do or to know, and no ingredient.
func isSentence(c string) bool {
	n := len(strings.Fields(c))
	return n >= 5 && (sentenceEnd.MatchString(c) || strings.Contains(c, ". ")) && (imperative.MatchString(c) || n >= 9) ||
		n >= 4 && imperative.MatchString(c) && sentenceEnd.MatchString(c) || n >= 12 && !hasAmount.MatchString(c)
}

var (
	chatLine   = regexp.MustCompile(`^\[\d{1,2}:\d{2}\]`)
	titleTail  = regexp.MustCompile(`\s{3,}.*$`)
	titleMarks = "#*_= "
)

// looksLikeTitle is whether the first line of a text is its title: short, and no sentence.
func looksLikeTitle(t, c string) bool {
	return len(c) < 90 && !strings.HasSuffix(c, ":") && !strings.ContainsAny(c, "!") && !sentenceEnd.MatchString(c) &&
		!chatLine.MatchString(t)
}

func titleOf(t string) string {
	t = strings.Trim(titleTail.ReplaceAllString(t, ""), titleMarks)
	return strings.TrimLeftFunc(t, func(c rune) bool { return c > 0x2000 || c == ' ' })
}

// segmentProse parts a text without a list: every paragraph is of the method, and its sentences with amounts are lines.
func (d *document) segmentProse(rows []row) {
	d.prose = true
	para, notes := "", false
	flush := func() {
		if para == "" {
			return
		}
		if notes {
			d.notes = append(d.notes, para)
		} else {
			d.method = append(d.method, para)
		}
		para = ""
	}
	for _, w := range rows {
		t, c := w.read, w.clean
		switch {
		case c == "":
			flush()
		case mailHead.MatchString(c), clutter.MatchString(c):
		case notesHead.MatchString(c) && len(strings.Fields(c)) < 4:
			flush()
			notes = true
		case d.title == "" && len(d.method) == 0 && para == "" && looksLikeTitle(t, c):
			d.title = titleOf(t)
		default:
			if bullet.MatchString(t) {
				flush()
			}
			para = strings.TrimSpace(para + " " + t)
		}
	}
	flush()
}
