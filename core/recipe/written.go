package recipe

import (
	"cmp"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/reader"
)

// baseShare is how much of one dough for base and topping is pressed below. Handbook practice.
const baseShare = 2.0 / 3

// AsWritten is the request that a recipe comes to, made exactly as it is written in a dish: nothing is solved for. What
// can't be taken over is a fault.Faults or a *fault.NotYet.
func AsWritten(rows []Row, q Request) (balance.Request, error) {
	own := q.Own
	w := written{
		req:       balance.Request{Dish: *q.Dish, Style: q.Style, Cup: q.Cup, Spoon: q.Spoon, Eggs: q.Eggs, Own: own},
		topping:   dough{own: own, g: map[string]float64{}},
		late:      dough{own: own, g: map[string]float64{}},
		base:      dough{own: own, g: map[string]float64{}},
		sugars:    dough{own: own, g: map[string]float64{}},
		baseShare: baseShare,
	}
	dishes := float64(max(1, q.Dishes))
	if share := q.Split["base"]; share > 0 {
		w.baseShare = share
	}
	if q.Savoury {
		w.req.Sweetness = "savoury"
	}
	for _, r := range rows {
		if r.Ingredient == nil || r.G == nil || r.Out || *r.G <= 0 {
			continue
		}
		w.take(r, *r.Ingredient, *r.G/dishes)
		for _, a := range r.Also {
			w.take(Row{Bowl: r.Bowl, Line: parse.Line{Frozen: r.Frozen}}, a.Ingredient, a.G/dishes)
		}
	}
	return w.finish(q.Steps)
}

// written gathers a recipe's bowls.
type written struct {
	req           balance.Request
	fruits        []balance.FruitInput // shares in grams
	thick         []balance.Quantity
	sugarG        float64
	sugars        dough // the same by kind
	topping, base dough
	late          dough // of the topping, goes on during the bake
	eggG, saltG   float64
	fatState      string
	baseShare     float64
}

func (w *written) take(r Row, key string, g float64) {
	switch r.Bowl {
	case Topping:
		if r.Prepared != nil && r.Prepared.Late {
			w.late.add(key, g)
			return
		}
		w.topping.add(key, g)
		if i, _ := w.req.Own.Ingredient(key); i.Role == "fat" && r.Prepared != nil && w.fatState == "" {
			w.fatState = r.Prepared.Fat
		}
	case Base:
		w.base.add(key, g)
	case BaseAndTopping:
		w.base.add(key, g*w.baseShare)
		w.topping.add(key, g*(1-w.baseShare))
	case Filling, Pour:
		w.takeFilling(r, key, g)
	case Finish:
		w.takeFinish(key)
	}
}

func (w *written) takeFilling(r Row, key string, g float64) {
	if f, ok := w.req.Own.Fruit(key); ok {
		if r.AsBought {
			g *= f.Yield(true)
		}
		in := balance.FruitInput{Key: key, Share: g, Frozen: r.Frozen}
		if p := r.Prepared; p != nil {
			in.Peeled, in.CutMM = p.Peeled, p.CutMM
		}
		w.fruits = append(w.fruits, in)
		return
	}
	i, _ := w.req.Own.Ingredient(key)
	_, thickens := larder.Thickeners.Get(key)
	asked := balance.Quantity{Key: key, G: g}
	switch {
	case i.Role == "egg" && w.isCustard(): // it sets with the sugar and the flour
		w.eggG += g
	case i.Role == "egg": // it sets, and its water is in the filling
		w.req.Liquids = append(w.req.Liquids, asked)
		if thickens {
			w.thick = append(w.thick, asked)
		}
	case thickens:
		w.thick = append(w.thick, asked)
	case i.Role == "sugar":
		w.sugarG += g
		w.sugars.add(key, g)
	case i.Role == "crumb":
		w.req.CrumbLayerG += g
	case i.Role == "liquid", i.Role == "syrup", i.Role == "acid":
		w.req.Liquids = append(w.req.Liquids, asked)
	default:
		w.req.Extras = append(w.req.Extras, asked)
	}
}

// isCustard is whether eggs in the filling make it a custard.
func (w *written) isCustard() bool { return larder.StyleOf(w.req.Style).Custard }

// finish makes the request out of what was gathered.
func (w *written) finish(steps []reader.Step) (balance.Request, error) {
	var f fault.Faults
	r := &w.req
	total := 0.0
	for _, x := range w.fruits {
		total += x.Share
	}
	if total < 10 {
		f.Add("/lines", message.New("there is no fruit in the filling: enter at least 10 g, or move a line there"))
	}
	if err := f.Err(); err != nil {
		return *r, err
	}
	for i := range w.fruits {
		w.fruits[i].Share /= total
	}
	r.Fruits, r.SugarG = w.fruits, &w.sugarG
	r.WeighFruit(total)
	r.SugarKey = w.sugars.most()
	r.Thickener = w.thickener()
	w.makeCustard()
	if err := w.assignDoughs(); err != nil {
		return *r, err
	}
	takeSteps(r, steps)
	return *r, balance.Check(*r)
}

// makeCustard makes a custard of eggs, sugar and flour, as much as was written.
func (w *written) makeCustard() {
	if w.eggG < eggsOfCustard {
		if w.eggG > 0 {
			w.req.Liquids = append(w.req.Liquids, balance.Quantity{Key: "egg", G: w.eggG})
		}
		return
	}
	c := &balance.CustardInput{Egg: w.eggG, Sugar: w.sugarG, Salt: w.saltG}
	if t := w.req.Thickener; t != nil && t.G != nil {
		c.Flour, c.Starch = *t.G, t.Key
	}
	c.TotalG = c.Egg + c.Sugar + c.Flour + c.Salt
	w.req.Custard = c
}

// thickener is what there is most of, with the others in addition to it; an egg is always in addition to.
func (w *written) thickener() *balance.ThickenerInput {
	rank := func(a balance.Quantity) float64 {
		if a.Key == "egg" {
			return -1
		}
		return a.G
	}
	slices.SortStableFunc(w.thick, func(a, b balance.Quantity) int { return cmp.Compare(rank(b), rank(a)) })
	if len(w.thick) == 0 || w.thick[0].Key == "egg" {
		return &balance.ThickenerInput{Key: "cornflour", G: new(float64), With: w.thick}
	}
	return &balance.ThickenerInput{Key: w.thick[0].Key, G: &w.thick[0].G, With: w.thick[1:]}
}

// assignDoughs writes topping and base as those of the tables that are nearest, with every percentage changed to what
// was written.
func (w *written) assignDoughs() error {
	r := &w.req
	geo := r.Dish.Measure()
	r.Topping = balance.ToppingInput{Key: "none"}
	if len(w.topping.keys) == 0 { // all of it goes on during the bake
		w.topping, w.late = w.late, dough{own: r.Own, g: map[string]float64{}}
	}
	if len(w.topping.keys) > 0 {
		t, pct, ok := nearest(w.topping, toppingLikes(r.Style))
		if !ok {
			return w.topping.noLike("topping", r.Style)
		}
		row, _ := larder.Toppings.Get(t.key)
		r.Topping = balance.ToppingInput{
			Key:         t.key,
			ThicknessMM: 10 * w.topping.sum() / (geo.RimAreaCM2 * row.Coverage * row.Layers * row.DensityGPerML),
			BakersPct:   pct,
		}
		if row.HydrationPct > 0 { // no more liquid than was written
			r.Topping.HydrationPct = max(leastHydration, w.topping.hydration())
		}
	}
	r.Topping.FatState = w.fatState
	if err := w.addLate(geo); err != nil {
		return err
	}
	if len(w.base.keys) == 0 {
		return nil
	}
	b, pct, ok := nearest(w.base, baseLikes())
	if !ok {
		return w.base.noLike("base", r.Style)
	}
	row, _ := larder.Bases.Get(b.key)
	area := geo.FloorAreaCM2
	if row.UpTheSides {
		area += geo.PerimeterCM * geo.DepthCM
	}
	r.Base = &balance.BaseInput{
		Key: b.key, ThicknessMM: 10 * w.base.sum() / (area * row.DensityGPerML), BakersPct: pct,
	}
	return nil
}

// addLate writes what goes on during the bake as a second topping.
func (w *written) addLate(geo dish.Geometry) error {
	if len(w.late.keys) == 0 {
		return nil
	}
	t, pct, ok := nearest(w.late, toppingLikes(w.req.Style))
	if !ok {
		return w.late.noLike("topping", w.req.Style)
	}
	row, _ := larder.Toppings.Get(t.key)
	w.req.Late = []balance.ToppingInput{{
		Key:         t.key,
		ThicknessMM: 10 * w.late.sum() / (geo.RimAreaCM2 * row.Coverage * row.Layers * row.DensityGPerML),
		BakersPct:   pct,
	}}
	return nil
}
