package recipe

import (
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/measure"
	"mabbin/core/message"
)

// AsWritten is the request that a recipe comes to, made exactly as it is written in a dish: nothing is solved for. What
// can't be taken over is a fault.Faults or a *fault.NotYet.
func AsWritten(
	rows []Row,
	style string,
	d dish.Dish,
	by measure.Conventions,
	own *larder.Own,
) (balance.Request, error) {
	w := written{
		req:     balance.Request{Dish: d, Style: style, Cup: by.Cup, Spoon: by.Spoon, Eggs: by.Eggs, Own: own},
		topping: map[string]float64{},
	}
	for _, r := range rows {
		if r.Ingredient == nil || r.G == nil || r.Out || *r.G <= 0 {
			continue
		}
		w.take(r, *r.Ingredient, *r.G)
		for _, a := range r.Also {
			w.take(Row{Bowl: r.Bowl}, a.Ingredient, a.G)
		}
	}
	return w.finish()
}

// written gathers a recipe's bowls.
type written struct {
	req     balance.Request
	fruits  []balance.FruitAsked // shares in grams
	thick   []balance.Asked
	sugarG  float64
	topping map[string]float64
	keys    []string // of the topping, in the order written
	base    bool
}

func (w *written) take(r Row, key string, g float64) {
	switch r.Bowl {
	case Topping:
		if _, ok := w.req.Own.Ingredient(key); ok {
			if _, twice := w.topping[key]; !twice {
				w.keys = append(w.keys, key)
			}
			w.topping[key] += g
		}
	case Base:
		w.base = true
	case Filling:
		w.takeFilling(r, key, g)
	}
}

func (w *written) takeFilling(r Row, key string, g float64) {
	if f, ok := w.req.Own.Fruit(key); ok {
		if r.AsBought {
			g *= f.Yield(true)
		}
		w.fruits = append(w.fruits, balance.FruitAsked{Key: key, Share: g, Frozen: r.Frozen})
		return
	}
	i, _ := w.req.Own.Ingredient(key)
	_, thickens := larder.Thickeners.Get(key)
	switch {
	case thickens:
		w.thick = append(w.thick, balance.Asked{Key: key, G: g})
	case i.Role == "sugar":
		w.sugarG += g
	case i.Role == "crumb":
		w.req.CrumbLayerG += g
	case i.Role == "liquid", i.Role == "syrup", i.Role == "acid":
		w.req.Liquids = append(w.req.Liquids, balance.Asked{Key: key, G: g})
	default:
		w.req.Extras = append(w.req.Extras, balance.Asked{Key: key, G: g})
	}
}

// finish makes the request out of what was gathered.
func (w *written) finish() (balance.Request, error) {
	var f fault.Faults
	r := &w.req
	if w.base {
		return *r, &fault.NotYet{
			Pointer: "/lines",
			Detail:  message.New("a base under the fruit is not calculated yet: put its lines out, or into the topping"),
		}
	}
	total := 0.0
	for _, x := range w.fruits {
		total += x.Share
	}
	if total < 10 {
		f.Add("/lines", message.New("there is no fruit in the filling: give at least 10 g, or move a line there"))
	}
	if len(w.topping) == 0 {
		f.Add("/lines", message.New("there is nothing in the topping: move a line there"))
	}
	if err := f.Err(); err != nil {
		return *r, err
	}
	for i := range w.fruits {
		w.fruits[i].Share /= total
	}
	r.Fruits, r.WeighedFruitG, r.SugarG = w.fruits, &total, &w.sugarG
	r.Thickener = &balance.ThickenerAsked{Key: "cornflour", G: new(float64)}
	if len(w.thick) > 0 {
		slices.SortStableFunc(w.thick, func(a, b balance.Asked) int { return int(math.Copysign(1, b.G-a.G)) })
		r.Thickener = &balance.ThickenerAsked{Key: w.thick[0].Key, G: &w.thick[0].G, With: w.thick[1:]}
	}
	t, err := w.nearestTopping()
	if err != nil {
		return *r, err
	}
	r.Topping = t
	return *r, balance.Check(*r)
}

// nearestTopping writes the topping as the table's topping that is nearest to it, with every percentage changed to what
// was written.
func (w *written) nearestTopping() (balance.ToppingAsked, error) {
	sum := 0.0
	for _, g := range w.topping {
		sum += g
	}
	var families []string
	for _, s := range balance.Styles() {
		if s.Key == w.req.Style {
			families = s.Families
		}
	}
	var best larder.Topping
	least := math.Inf(1)
	for _, t := range larder.Toppings.All() {
		if off := apart(t, w.topping, sum); slices.Contains(families, t.Family) && off < least {
			best, least = t, off
		}
	}
	// Without the flour that the others are measured against, what there is most of among the dry things takes its place.
	hundred := w.topping[best.Parts[0].Key]
	if hundred <= 0 {
		for _, k := range w.keys {
			if i, _ := w.req.Own.Ingredient(k); dry[i.Role] {
				hundred = max(hundred, w.topping[k])
			}
		}
	}
	if hundred <= 0 {
		return balance.ToppingAsked{}, &fault.NotYet{
			Pointer: "/lines",
			Detail: message.New(
				"a topping of {parts} has no like in the tables for a {style}: it needs flour, oats, nuts or crumbs",
				message.And(w.names()...),
				message.Word(w.req.Style),
			),
		}
	}
	pct := map[string]float64{}
	for _, p := range best.Parts {
		if want := 100 * w.topping[p.Key] / hundred; want != p.Pct {
			pct[p.Key] = want
		}
	}
	for _, k := range w.keys {
		if !slices.ContainsFunc(best.Parts, func(p larder.Part) bool { return p.Key == k }) {
			pct[k] = 100 * w.topping[k] / hundred
		}
	}
	area := w.req.Dish.Measure().RimAreaCM2
	return balance.ToppingAsked{
		Key:         best.Key,
		ThicknessMM: 10 * sum / (area * best.Coverage * best.Layers * best.DensityGPerML),
		BakersPct:   pct,
	}, nil
}

// dry are the roles that a dough can be measured against.
var dry = map[string]bool{"flour": true, "oat": true, "nut": true, "seed": true, "crumb": true}

func (w *written) names() (out []message.Message) {
	for _, k := range w.keys {
		i, _ := w.req.Own.Ingredient(k)
		out = append(out, message.Value(message.Name(larder.Plain(i.Name))))
	}
	return out
}

// apart is how far a table's topping is from written grams: the sum of the differences of their shares.
func apart(t larder.Topping, written map[string]float64, sum float64) float64 {
	all, off := 0.0, 0.0
	for _, p := range t.Parts {
		all += p.Pct
	}
	seen := map[string]bool{}
	for _, p := range t.Parts {
		off += math.Abs(p.Pct/all - written[p.Key]/sum)
		seen[p.Key] = true
	}
	for k, g := range written {
		if !seen[k] {
			off += g / sum
		}
	}
	return off
}
