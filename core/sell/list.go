package sell

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Stock is what a kitchen has in, and in what packs its shops sell.
type Stock struct {
	Items []StockItem       `json:"items"`
	Packs map[string][]Pack `json:"packs"` // the kitchen's own; left out: as shops usually sell it
	Rates Rates             `json:"rates,omitzero"`
	// Labels are what labels are printed on.
	Labels LabelPaper `json:"labels,omitzero"`
}

// StockItem is what there is of one thing.
type StockItem struct {
	Key   string  `json:"key"`
	G     float64 `json:"g"`
	Since string  `json:"since,omitempty"` // a date: it came in then
	Until string  `json:"until,omitempty"` // a date: it must be used by then
}

const mostStock = 500

// CheckStock finds every wrong field.
func CheckStock(s Stock, own *larder.Own) error {
	var f fault.Faults
	if !f.Length("", "/items", len(s.Items), 0, mostStock) {
		return f.Err()
	}
	keys := map[string]bool{}
	for i, x := range s.Items {
		Line{Key: x.Key, G: x.G}.check(fmt.Sprintf("/items/%d", i), own, &f)
		if keys[x.Key] {
			f.Add(fmt.Sprintf("/items/%d/key", i), message.New("is there twice: add the two amounts"))
		}
		keys[x.Key] = true
		for field, on := range map[string]string{"since": x.Since, "until": x.Until} {
			if _, err := time.Parse(time.DateOnly, on); on != "" && err != nil {
				f.Add(fmt.Sprintf("/items/%d/%s", i, field), message.New("is not a date: use the form 2026-10-17"))
			}
		}
	}
	s.Rates.check(&f)
	s.Labels.check(&f)
	for key, packs := range s.Packs {
		for i, p := range packs {
			at := fmt.Sprintf("/packs/%s/%d", fault.Key(key), i)
			f.RangeAt(at, "/g", p.G, finestPackG, 1e6, "g")
			f.RangeAt(at, "/minor", float64(p.Minor), 0, 1e9, "")
		}
	}
	return f.Err()
}

// CheckPurchase finds every wrong field of what was bought.
func CheckPurchase(lines []Line, own *larder.Own) error {
	var f fault.Faults
	for i, l := range lines {
		l.check(fmt.Sprintf("/lines/%d", i), own, &f)
	}
	return f.Err()
}

// Baked is a dessert that is bought for, so many times.
type Baked struct {
	Request balance.Request
	Answer  *balance.Answer
	Dishes  int
}

// ListLine is one thing to buy, in words.
type ListLine struct {
	Buy
	Name larder.Name `json:"name"`
	// Text is how it is bought: "2 × 1000 g".
	Text message.Message `json:"text"`
	// Left is what is left over, and Has what there is of it; empty: nothing worth a word.
	Left message.Message `json:"left,omitzero"`
	Has  message.Message `json:"has,omitzero"`
	// Guessed packs are as shops usually sell it, and not the kitchen's own.
	Guessed bool `json:"guessed"`
}

// Section is where in a shop things stand together.
type Section struct {
	Title message.Message `json:"title"`
	Lines []ListLine      `json:"lines"`
}

// List is what to buy for some desserts.
type List struct {
	Sections []Section `json:"sections"`
	// Minor is what all with a price comes to, and Unpriced how many things have none.
	Minor    int64 `json:"minor"`
	Unpriced int   `json:"unpriced"`
}

// Needs are the ingredients of a dessert as they are weighed, so many times.
func Needs(r balance.Request, a *balance.Answer, times float64) []Line {
	states := map[string]string{}
	for _, f := range r.Fruits {
		switch {
		case f.Frozen:
			states[f.Key] = "frozen"
		case f.Peeled != nil && !*f.Peeled:
			states[f.Key] = "unpeeled"
		default:
			states[f.Key] = "peeled"
		}
	}
	var out []Line
	at := map[string]int{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if _, fruit := r.Own.Fruit(l.Key); !fruit {
				if _, known := r.Own.Ingredient(l.Key); !known {
					continue
				}
			}
			if l.Key == waterKey { // out of the tap
				continue
			}
			i, seen := at[l.Key]
			if !seen {
				i = len(out)
				at[l.Key] = i
				out = append(out, Line{Key: l.Key, State: states[l.Key]})
			}
			out[i].G += l.G * times
		}
	}
	return out
}

// usualPacks are sizes that shops usually sell, g, by what it is. Working figures, until a kitchen has its own.
var usualPacks = []struct {
	role, key string
	g         []float64
}{
	{"flour", "", []float64{1000, 1500}},
	{"sugar", "", []float64{500, 1000}},
	{"fat", "butter", []float64{250}},
	{"oat", "", []float64{500, 1000}},
	{"nut", "", []float64{100, 200}},
	{"liquid", "cream", []float64{200, 500}},
	{"liquid", "milk", []float64{1000}},
	{"thickener", "", []float64{100, 250}},
	{"pastry", "", []float64{275, 320}},
	{"leavener", "", []float64{100}},
	{"crumb", "", []float64{400}},
}

// eggs are sold by these numbers.
var eggPacks = []float64{6, 10}

func packsOf(key string, own *larder.Own) (out []Pack) {
	i, ok := own.Ingredient(key)
	if !ok {
		return nil
	}
	price, _ := priceOf(key, own)
	add := func(g float64) { out = append(out, Pack{G: g, Minor: int64(math.Round(float64(price) * g / pricedG))}) }
	if i.Role == "egg" && i.PieceG > 0 {
		for _, n := range eggPacks {
			add(n * i.PieceG)
		}
		return out
	}
	for _, p := range usualPacks {
		if p.role == i.Role && strings.Contains(key, p.key) {
			for _, g := range p.g {
				add(g)
			}
			return out
		}
	}
	return nil
}

// priced are packs with what each costs: by the kilogram, where the pack itself has no price.
func priced(packs []Pack, key string, own *larder.Own) []Pack {
	price, _ := priceOf(key, own)
	out := slices.Clone(packs)
	for i := range out {
		if out[i].Minor == 0 {
			out[i].Minor = int64(math.Round(float64(price) * out[i].G / pricedG))
		}
	}
	return out
}

// sections are where things stand, by what they are; the last takes the rest.
var sections = []struct {
	title string
	roles []string
}{
	{"Fruit", nil},
	{"Cold: butter, cream, eggs", []string{"fat", "egg", "liquid", "pastry"}},
	{"Dry: flour, sugar, oats", []string{"flour", "sugar", "oat", "thickener", "leavener", "crumb", "syrup"}},
	{"Nuts, spices and other", nil},
}

func sectionOf(key string, own *larder.Own) int {
	if _, fruit := own.Fruit(key); fruit {
		return 0
	}
	i, _ := own.Ingredient(key)
	for n, s := range sections {
		if slices.Contains(s.roles, i.Role) {
			return n
		}
	}
	return len(sections) - 1
}

// ListFor is what to buy for desserts, less what there is. What a kitchen knows better than the tables is its own.
func ListFor(all []Baked, s Stock, own *larder.Own) (*List, error) {
	q := ShoppingRequest{Packs: map[string][]Pack{}, Own: own}
	for _, b := range all {
		q.Needs = append(q.Needs, Needs(b.Request, b.Answer, float64(b.Dishes))...)
	}
	out := &List{Sections: []Section{}}
	if len(q.Needs) == 0 {
		return out, nil
	}
	for _, x := range s.Items {
		q.Stock = append(q.Stock, Stored{x.Key, x.G})
	}
	guessed := map[string]bool{}
	for _, l := range q.Needs {
		if _, done := q.Packs[l.Key]; done {
			continue
		}
		if packs := s.Packs[l.Key]; len(packs) > 0 {
			q.Packs[l.Key] = priced(packs, l.Key, own)
		} else if packs := packsOf(l.Key, own); packs != nil {
			q.Packs[l.Key], guessed[l.Key] = packs, true
		}
	}
	bought, err := ShoppingList(q)
	if err != nil {
		return nil, err
	}
	lines := make([][]ListLine, len(sections))
	for _, b := range bought.Buy {
		price, known := priceOf(b.Key, own)
		switch {
		case b.Minor == nil && known: // loose
			minor := int64(math.Round(float64(price) * b.BoughtG / pricedG))
			b.Minor = &minor
		case !known && b.Minor != nil && *b.Minor == 0 && b.BoughtG > 0: // its packs have no price either
			b.Minor = nil
		}
		if b.Minor == nil && b.BoughtG > 0 {
			out.Unpriced++
		} else if b.Minor != nil {
			out.Minor += *b.Minor
		}
		n := sectionOf(b.Key, own)
		lines[n] = append(lines[n], b.told(guessed[b.Key], own))
	}
	for n, all := range lines {
		if len(all) > 0 {
			slices.SortStableFunc(all, func(a, b ListLine) int { return cmp.Compare(b.ShortG, a.ShortG) })
			out.Sections = append(out.Sections, Section{message.New(sections[n].title), all})
		}
	}
	return out, nil
}

// From how much on what is there, and what is left over, is worth a word, g.
const (
	worthG     = 1.0
	worthLeftG = 20.0
)

func (b Buy) told(guessed bool, own *larder.Own) ListLine {
	l := ListLine{Buy: b, Guessed: guessed}
	piece := 0.0
	if f, ok := own.Fruit(b.Key); ok {
		l.Name = larder.Name(f.Name)
	} else if i, ok := own.Ingredient(b.Key); ok {
		l.Name = larder.Name(i.Name)
		if i.Role == "egg" {
			piece = i.PieceG
		}
	}
	much := func(g float64) message.Arg {
		if piece > 0 {
			return message.Number(g/piece, 0)
		}
		return message.Grams(g)
	}
	switch {
	case b.BoughtG == 0:
		l.Text = message.New("in stock")
	case len(b.Packs) == 0:
		l.Text = message.Value(much(b.BoughtG))
	default:
		var all []message.Message
		for _, p := range b.Packs {
			all = append(all, message.New("{n} × {size}", message.Count(p.Count), much(p.G)))
		}
		l.Text = message.Join(", ", all...)
	}
	if b.LeftG >= worthLeftG && b.BoughtG > 0 {
		l.Left = message.New("{much} left over", much(b.LeftG))
		if use := useOf(b.Key, b.LeftG, own); !use.IsZero() {
			l.Left = message.New("{left}: {use}", message.Part(l.Left), message.Part(use))
		}
	}
	if b.StockG >= worthG {
		l.Has = message.New("{much} in stock", much(b.StockG))
	}
	return l
}

// uses are what is done with what is left over of what does not keep; all else waits for the next dessert.
var uses = map[string]message.Message{
	"egg":       message.New("beaten, it washes the next lid; in the fridge two days"),
	"egg_white": message.New("for meringue; it freezes"),
	"egg_yolk":  message.New("for the wash, or for custard today"),
}

var usesByRole = map[string]message.Message{
	"fat":    message.New("use it for the next topping: crumbs freeze for three months"),
	"liquid": message.New("serve it with the dessert, or use it in the next biscuit dough; keeps three days open"),
	"nut":    message.New("toast them for the top"),
	"pastry": message.New("cut it into strips and freeze them for a lattice"),
	"crumb":  message.New("dry them, and put them under the fruit next time"),
}

func useOf(key string, g float64, own *larder.Own) message.Message {
	if _, fruit := own.Fruit(key); fruit {
		return balance.UseFor(g)
	}
	if use, ok := uses[key]; ok {
		return use
	}
	i, _ := own.Ingredient(key)
	return usesByRole[i.Role]
}

// TakeIn puts what was bought on a day into the store. What is there already keeps the day since when it is there: it
// goes first.
func (s Stock) TakeIn(lines []Line, on time.Time) Stock {
	s.Items = slices.Clone(s.Items)
	for _, l := range lines {
		i := slices.IndexFunc(s.Items, func(x StockItem) bool { return x.Key == l.Key })
		if i < 0 {
			s.Items = append(s.Items, StockItem{Key: l.Key, G: l.G, Since: on.Format(time.DateOnly)})
			continue
		}
		s.Items[i].G += l.G
	}
	return s
}

// TakeOut takes what was used out of the store, as it was bought; what is used up is no longer in it.
func (s Stock) TakeOut(lines []Line, own *larder.Own) Stock {
	used := map[string]float64{}
	for _, l := range lines {
		used[l.Key] += l.bought(own)
	}
	out := s
	out.Items = []StockItem{}
	for _, x := range s.Items {
		x.G = math.Round(10*max(0, x.G-used[x.Key])) / 10
		if x.G >= worthG {
			out.Items = append(out.Items, x)
		}
	}
	return out
}
