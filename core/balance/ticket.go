package balance

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
	"mabbin/core/units"
)

// Bowl is one bowl of the ticket, in the order it is weighed.
type Bowl struct {
	Key          string          `json:"key"` // fruit, dry, topping
	Title        message.Message `json:"title"`
	Instructions message.Message `json:"instructions"`
	Lines        []Line          `json:"lines"`
}

// Line is one weighing.
type Line struct {
	Key       string          `json:"key"`
	Name      larder.Name     `json:"name"`
	G         float64         `json:"g"`
	Shown     string          `json:"shown"`  // grams to the scale's step
	Spoons    string          `json:"spoons"` // nearest real cups and spoons; empty where there is no density
	BakersPct float64         `json:"bakers_pct,omitempty"`
	Note      message.Message `json:"note,omitzero"`
	Pieces    message.Message `json:"pieces,omitzero"`   // eggs to crack, lemons to squeeze
	ToFeel    bool            `json:"to_feel,omitempty"` // a liquid of which some is held back
	Basis     larder.Basis    `json:"basis"`             // of its density and composition
}

// Allergens is what the tables know. It is no promise about cross-contact.
type Allergens struct {
	Contains   []string `json:"contains"`
	CheckLabel []string `json:"check_label"` // names of ingredients whose label has to be read
}

// ticketG is the least that is written on the ticket: less than the pocket scale shows.
const ticketG = 0.05

func (p *plan) conventions() units.Conventions {
	return units.Conventions{Cup: p.req.Cup, Spoon: p.req.Spoon, Eggs: p.req.Eggs}
}

// usualBowls is how many bowls there are, filled or not.
const usualBowls = 12

// ticket is what to weigh, bowl by bowl, in the order of the work.
func (p *plan) ticket(s candidate) []Bowl {
	by := p.conventions()
	bowls := append(make([]Bowl, 0, usualBowls), p.fruitBowl(by, s), p.dryBowl(by, s), p.custardBowl(by), p.crumbBowl(by))
	bowls = append(bowls, p.partsBowl(by, "base", p.base.Name, p.howBase(), p.under.Parts))
	if p.sealed() {
		seal := Bowl{Key: "seal", Title: message.New("To seal the base"), Instructions: p.howSeal(), Lines: []Line{}}
		egg, _ := p.req.Own.Ingredient(eggKey)
		seal.add(by, egg, p.sealG(), message.Message{})
		bowls = append(bowls, seal)
	}
	bowls = append(bowls, p.partsBowl(by, "topping", p.wanted.Topping.Name, p.howTopping(), p.top.Parts))
	for i, x := range p.late {
		t := p.dessert.late[i].Topping
		bowls = append(bowls, p.partsBowl(by, fmt.Sprintf("late%d", i+1), t.Name, howDough(t, x), x.Parts))
	}
	bowls = append(bowls, p.finishBowls(by)...)
	return slices.DeleteFunc(bowls, func(b Bowl) bool { return len(b.Lines) == 0 })
}

func (p *plan) fruitBowl(by units.Conventions, s candidate) Bowl {
	fruit := Bowl{
		Key:          "fruit",
		Title:        message.New("Fruit bowl"),
		Instructions: p.howFruit(),
		Lines:        make([]Line, 0, len(p.filling.Pieces)+len(p.filling.Liquids)+len(p.filling.Extras)),
	}
	for i, piece := range p.filling.Pieces {
		f := piece.Fruit
		fruit.Lines = append(fruit.Lines, newLine(by, f.Key, f.Name, s.FruitG*piece.Share,
			f.Density(), p.prepNote(i), f.CompositionBasis))
	}
	for _, w := range slices.Concat(p.filling.Liquids, p.filling.Extras) {
		if !p.inCustard(w) {
			fruit.add(by, w.Ingredient, w.G, message.Message{})
		}
	}
	return fruit
}

func (p *plan) inCustard(w filling.Weighed) bool {
	return slices.ContainsFunc(
		p.custard,
		func(c filling.Weighed) bool { return c.Ingredient.Key == w.Ingredient.Key && c.G == w.G },
	)
}

func (p *plan) dryBowl(by units.Conventions, s candidate) Bowl {
	dry := Bowl{
		Key:   "dry",
		Title: message.New("Dry, for the fruit"),
		Instructions: message.New(
			"Mix the thickener with the sugar first, so that it spreads without lumps. Toss with the fruit from below, and scrape it all into the dish.",
		),
		Lines: make([]Line, 0, 2+len(p.beside)),
	}
	if p.custard != nil {
		return dry
	}
	dry.add(by, p.sugar, s.SugarG, message.Message{})
	for _, dose := range p.doses(s.thickenerG) {
		i, _ := p.req.Own.Ingredient(dose.Thickener.Key)
		dry.add(by, i, dose.G, message.New(dose.Thickener.Method))
	}
	return dry
}

func (p *plan) custardBowl(by units.Conventions) Bowl {
	c := Bowl{
		Key:   "custard",
		Title: message.New("Custard"),
		Instructions: message.New(
			"Whisk sugar, flour and salt, then the eggs, without making froth. Put the fruit on the hot base and pour the custard over.",
		),
		Lines: []Line{},
	}
	for _, w := range p.custard {
		c.add(by, w.Ingredient, w.G, message.Message{})
	}
	if t := p.req.Thickener; p.custard != nil && t != nil {
		for _, beside := range t.With {
			i, _ := p.req.Own.Ingredient(beside.Key)
			c.add(by, i, beside.G, message.Message{})
		}
	}
	return c
}

func (p *plan) crumbBowl(by units.Conventions) Bowl {
	layer := Bowl{
		Key:          "crumbs",
		Title:        message.New("Crumb layer"),
		Instructions: message.New("Spread evenly under the fruit: it absorbs juice before the base does."),
		Lines:        []Line{},
	}
	crumbs, _ := p.req.Own.Ingredient("dry_breadcrumbs")
	layer.add(by, crumbs, p.req.CrumbLayerG, message.Message{})
	return layer
}

// partsBowl is a dough: its parts with their baker's percentages.
func (p *plan) partsBowl(by units.Conventions, key, name string, how message.Message, parts []topping.Part) Bowl {
	b := Bowl{
		Key:          key,
		Title:        p.book.New("{Name}", message.Name(name)),
		Instructions: how,
		Lines:        make([]Line, 0, len(parts)),
	}
	for _, part := range parts {
		n := len(b.Lines)
		b.add(by, part.Ingredient, part.G, message.Message{})
		if len(b.Lines) == n {
			continue
		}
		b.Lines[n].BakersPct = part.BakersPct
		if part.Liquid {
			b.Lines[n].ToFeel, b.Lines[n].Note = true, message.New("by feel: hold a fifth back")
		}
	}
	return b
}

// finishBowls are what readies the dish, and what goes on top before and after the bake.
func (p *plan) finishBowls(by units.Conventions) []Bowl {
	ready := Bowl{
		Key:          "ready",
		Title:        message.New("For the dish"),
		Instructions: greasingHow[p.greasing()],
		Lines:        []Line{},
	}
	if key, ok := greases[p.greasing()]; ok {
		i, _ := p.req.Own.Ingredient(key)
		much := filmGDM2
		if p.greasing() == greaseCoat {
			much = coatGDM2
		}
		ready.add(by, i, much*p.insideDM2(), message.New("for greasing"))
	}
	before := Bowl{
		Key:          "before",
		Title:        message.New("On top, before baking"),
		Instructions: message.New("Brush or sprinkle thinly; wipe the rim."),
		Lines:        []Line{},
	}
	after := Bowl{
		Key:          "after",
		Title:        message.New("On top, after baking"),
		Instructions: message.Message{},
		Lines:        []Line{},
	}
	for _, x := range p.finishes {
		to := &before
		if x.When == "after" {
			to = &after
			to.Instructions = p.book.Sentences(
				to.Instructions,
				p.book.New("{Finish}: {looks}.", message.Name(x.Name), message.Word(x.Looks)),
			)
		}
		g := x.GPerDM2 * p.geo.RimAreaCM2 / 100
		for _, part := range x.Parts {
			i, _ := p.req.Own.Ingredient(part.Key)
			to.add(by, i, g*part.Pct/100, message.Message{})
		}
	}
	return []Bowl{ready, before, after}
}

// greases are what is weighed for each way that takes a fat.
var greases = map[string]string{greaseButter: "butter", greaseCoat: "butter", greaseOil: "sunflower_oil"}

var greasingHow = map[string]message.Message{
	greaseButter: message.New("A film of butter, so that nothing sticks."),
	greaseCoat:   message.New("A good coat of butter, for flavour."),
	greaseOil:    message.New("Oil: nothing sticks, and it contains no milk."),
	greaseSling: message.New(
		"A sling of baking paper with two ends over the rim, to lift the dessert out whole for cutting.",
	),
}

// add appends a line, but for what no scale shows.
func (b *Bowl) add(by units.Conventions, i larder.Ingredient, g float64, note message.Message) {
	if g < ticketG {
		return
	}
	l := newLine(by, i.Key, i.Name, g, i.Density(), note, i.Basis)
	l.Pieces = pieces(by, i, g)
	b.Lines = append(b.Lines, l)
}

// pieces tells what is bought by the piece and weighed by the gram in pieces: eggs to crack, and what is left of them
// and for what; lemons to squeeze or to grate.
func pieces(by units.Conventions, i larder.Ingredient, g float64) message.Message {
	switch i.Role {
	case "egg":
		n, left := cracked(by, i, g)
		switch {
		case n == 0:
			return message.Message{}
		case left < eggLeftG:
			return message.New("crack {eggs}", counted(n, "egg"))
		}
		return message.New(
			"crack {eggs}, {much} left over: {use}",
			counted(n, "egg"),
			message.Grams(left),
			message.Part(eggUses[i.Key]),
		)
	case "acid", "flavour":
		what, _, _ := strings.Cut(i.Key, "_")
		if _, ok := several[what]; ok && i.PieceG > 0 {
			return message.New("from {fruits}", counted(max(0.5, math.Ceil(2*g/i.PieceG-0.1)/2), what))
		}
	}
	return message.Message{}
}

// eggShort is the part of an egg that nobody cracks another one for.
const eggShort = 0.08

// eggLeftG is how much of an egg is worth a word when it is left over.
const eggLeftG = 3.0

// cracked is how many eggs give so much of them, and what is left then, in g; none where an egg's weight is not known.
func cracked(by units.Conventions, i larder.Ingredient, g float64) (n, leftG float64) {
	each := i.PieceG
	if i.Key == "egg" {
		each = by.EggG("")
	}
	if each <= 0 {
		return 0, 0
	}
	n = math.Ceil(g/each - eggShort)
	return n, n*each - g
}

// eggUses is what is done with what is left of an egg.
var eggUses = map[string]message.Message{
	"egg":       message.New("beat it and brush it on"),
	"egg_white": message.New("for meringue, or whisk it for the wash; it freezes"),
	"egg_yolk":  message.New("for the wash, or for custard today"),
}

// several is what is counted, where there is more than one.
var several = map[string]string{"egg": "{n} eggs", "lemon": "{n} lemons", "orange": "{n} oranges"}

// one is what is counted, where there is one or a part of one.
var one = map[string]string{"egg": "{n} egg", "lemon": "{n} lemon", "orange": "{n} orange"}

func counted(n float64, what string) message.Arg {
	text := one[what]
	if n > 1 {
		text = several[what]
	}
	return message.Part(message.New(text, message.Text(units.Fraction(n))))
}

func newLine(
	by units.Conventions,
	key, name string,
	g float64,
	d units.Density,
	note message.Message,
	basis larder.Basis,
) Line {
	l := Line{Key: key, Name: larder.Name(name), G: g, Shown: units.Shown(g), Note: note, Basis: basis}
	if h, ok := by.Spoons(g, d); ok {
		l.Spoons = h.Text
	}
	return l
}

// folded are the roles of what a dough carries in pieces.
var folded = map[string]bool{"inclusion": true, "nut": true, "seed": true, "dried-fruit": true, "dairy": true}

// names are names of the tables as lines.
func names(of []string) []message.Message {
	out := make([]message.Message, len(of))
	for i, name := range of {
		out[i] = message.Value(message.Name(name))
	}
	return out
}

// allergens gathers what the ticket's ingredients are known to contain.
func allergens(ticket []Bowl, own *larder.Own) Allergens {
	a := Allergens{Contains: make([]string, 0, usualBowls), CheckLabel: []string{}}
	for _, b := range ticket {
		for _, l := range b.Lines {
			i, ok := own.Ingredient(l.Key)
			if !ok {
				continue
			}
			if i.AllergenOnPack {
				a.CheckLabel = append(a.CheckLabel, i.Name)
			}
			a.Contains = append(a.Contains, i.Allergens...)
		}
	}
	slices.Sort(a.Contains)
	a.Contains = slices.Compact(a.Contains)
	slices.Sort(a.CheckLabel)
	a.CheckLabel = slices.Compact(a.CheckLabel)
	return a
}
