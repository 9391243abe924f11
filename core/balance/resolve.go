package balance

import (
	"fmt"
	"maps"
	"slices"

	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
	"mabbin/core/units"
)

// dessert is a checked request with its rows looked up.
type dessert struct {
	req       Request
	style     larder.Style
	geo       dish.Geometry
	material  larder.Material
	filling   filling.Filling
	shareSum  float64
	thickener larder.Thickener
	beside    []filling.Dose
	sugar     larder.Ingredient
	givenG    *float64 // of the thickener
	wanted    topping.Spec
	base      larder.Base
	late      []topping.Spec
	custard   []filling.Weighed // egg, sugar, flour and salt, in that order
	finishes  []larder.Finish
}

// Check finds every wrong field of a request. It is nil, fault.Faults or a *fault.NotYet.
func Check(r Request) error {
	_, err := resolve(r)
	return err
}

func resolve(r Request) (dessert, error) {
	var f fault.Faults
	d := dessert{req: r}
	r.Own.Check("/own", &f)
	d.material = CheckDish(r.Dish, "/dish", &f)
	d.resolveStyle(&f)
	d.resolveFruit(&f)
	d.resolveBowl(&f)
	d.resolveThickener(&f)
	d.resolveTopping(&f)
	d.resolveFinish(&f)
	f.AmongOrNone("", "/portion", r.Portion, PortionSizes)
	f.AmongOrNone("", "/cup", string(r.Cup), units.Cups)
	f.AmongOrNone("", "/spoon", string(r.Spoon), units.Spoons)
	f.AmongOrNone("", "/eggs", string(r.Eggs), units.EggSizes)
	if err := f.Err(); err != nil {
		return d, err
	}
	d.geo = r.Dish.Measure()
	d.makeCustard()
	return d, nil
}

// CheckDish notes what is wrong with a dish and its material, under the pointer prefix at.
func CheckDish(d dish.Dish, at string, f *fault.Faults) larder.Material {
	d.Check(at, f)
	return row(larder.Materials, d.Material, at, "/material", "dish material", f)
}

// row looks a key up in a table and notes an unknown one.
func row[T any](t larder.Table[T], key, at, field, what string, f *fault.Faults) T {
	x, ok := t.Get(key)
	return known(x, ok, key, at, field, what, f)
}

func known[T any](x T, ok bool, key, at, field, what string, f *fault.Faults) T {
	if !ok {
		f.Add(at+field, fault.NoSuch(message.New(what), key))
	}
	return x
}

func optional(p *float64, at string, lo, hi float64, unit string, f *fault.Faults) {
	if p != nil {
		f.Range(at, *p, lo, hi, unit)
	}
}

func (d *dessert) resolveStyle(f *fault.Faults) {
	s, ok := larder.Styles.Get(d.req.Style)
	if !ok {
		f.Among("", "/style", d.req.Style, StyleNames)
	}
	d.style = s
	if d.req.Base != nil {
		d.base = row(larder.Bases, d.req.Base.Key, "", "/base/key", "base", f)
		if mm := d.req.Base.ThicknessMM; mm != 0 {
			f.Range("/base/thickness_mm", mm, 1, 40, "mm")
			d.base.ThicknessMM = mm
		}
		d.checkPct(d.req.Base.BakersPct, d.base.Parts, "/base", f)
	}
}

func (d *dessert) resolveFruit(f *fault.Faults) {
	const most = 12
	if !f.Length("", "/fruits", len(d.req.Fruits), 1, most) {
		return
	}
	pieces := make([]filling.Piece, len(d.req.Fruits))
	for i, a := range d.req.Fruits {
		at := fmt.Sprintf("/fruits/%d", i)
		fruit, ok := d.req.Own.Fruit(a.Key)
		pieces[i] = filling.Piece{
			Fruit:   known(fruit, ok, a.Key, at, "/key", "fruit", f),
			Share:   a.Share,
			Frozen:  a.Frozen,
			CutMM:   a.CutMM,
			Release: a.MeasuredRelease,
		}
		if a.MeasuredRelease != 0 {
			f.RangeAt(at, "/measured_release", a.MeasuredRelease, 0.02, 0.95, "of the fruit's water")
		}
		f.RangeAt(at, "/share", a.Share, 0, 1000, "")
		if a.CutMM != 0 {
			f.RangeAt(at, "/cut_mm", a.CutMM, 1, 80, "mm")
		}
		f.RangeAt(at, "/loss_pct", a.LossPct, 0, 90, "%")
		f.AmongOrNone(at, "/size", a.Size, FruitSizes)
		d.shareSum += a.Share
	}
	if d.shareSum <= 0 {
		f.Add("/fruits", message.New("the shares add up to 0: enter a share above 0 for at least one fruit"))
		return
	}
	for i := range pieces {
		pieces[i].Share /= d.shareSum
	}
	d.filling.Pieces = pieces
}

// resolveBowl checks what else is done to the fruit and goes in with it.
func (d *dessert) resolveBowl(f *fault.Faults) {
	r := d.req
	d.filling.Washed, d.filling.CrumbG = r.Washed, r.CrumbLayerG
	if p := r.Precook; p != nil {
		f.Range("/precook/minutes", p.Minutes, 0, 180, "min")
		f.AmongOrNone("", "/precook/where", p.Where, PrecookPlaces)
		if p.Open && p.Where == microwave {
			f.Add("/precook/open", message.New("in a microwave little water boils off: it counts as covered"))
		}
		d.filling.Precook = filling.Precook{Minutes: p.Minutes, Open: p.Open}
		d.resolveCookedFirst(p.Fruits, f)
	}
	if m := r.Macerate; m != nil {
		f.Range("/macerate/minutes", m.Minutes, 0, 2880, "min")
		f.AmongOrNone("", "/macerate/juice", m.Juice, filling.Macerated)
		d.filling.Macerate = filling.Maceration{Minutes: m.Minutes, Juice: m.Juice, WithThickener: m.WithThickener}
	}
	d.filling.Liquids = d.weighed(r.Liquids, "/liquids", f)
	d.filling.Extras = d.weighed(r.Extras, "/extras", f)
	f.Range("/crumb_layer_g", r.CrumbLayerG, 0, 2000, "g")
	optional(r.WeighedFruitG, "/weighed_fruit_g", leastFruitG, mostFruitG, "g", f)
	optional(r.BoughtFruitG, "/bought_fruit_g", leastFruitG, mostFruitG, "g", f)
	if r.WeighedFruitG != nil && r.BoughtFruitG != nil {
		f.Add("/bought_fruit_g", message.New("was entered as bought and as prepared weight: enter one of the two"))
	}
	optional(r.SugarG, "/sugar_g", 0, 20000, "g", f)
	optional(r.SteamedOffG, "/steamed_off_g", 0, 20000, "g", f)
	d.resolveSugar(f)
	f.AmongOrNone("", "/sweetness", r.Sweetness, Sweetnesses)
	d.filling = filling.New(d.filling)
}

// resolveSugar looks up which sugar sweetens the fruit.
func (d *dessert) resolveSugar(f *fault.Faults) {
	key := d.req.SugarKey
	if key == "" {
		key = defaultSugar
	}
	i, ok := d.req.Own.Ingredient(key)
	d.sugar = known(i, ok, key, "", "/sugar_key", "ingredient", f)
	if ok && i.Role != "sugar" {
		f.Add("/sugar_key", message.New(
			"{name} is not a sugar: choose a sugar, and add syrups as liquids", message.Name(larder.Plain(i.Name)),
		))
	}
}

// resolveCookedFirst notes which fruits of the mixture stay raw while the named ones are cooked.
func (d *dessert) resolveCookedFirst(keys []string, f *fault.Faults) {
	for i, key := range keys {
		if !slices.ContainsFunc(d.req.Fruits, func(x FruitInput) bool { return x.Key == key }) {
			f.Add(fmt.Sprintf("/precook/fruits/%d", i), message.New(
				"{key} is not among the fruit: choose one that is, or cook all the fruit first",
				message.Text(key),
			))
		}
	}
	for i := range d.filling.Pieces {
		d.filling.Pieces[i].Raw = len(keys) > 0 && !slices.Contains(keys, d.filling.Pieces[i].Fruit.Key)
	}
}

func (d *dessert) weighed(asked []Quantity, at string, f *fault.Faults) []filling.Weighed {
	const most = 20
	if !f.Length(at, "", len(asked), 0, most) {
		return nil
	}
	out := make([]filling.Weighed, len(asked))
	for i, a := range asked {
		here := fmt.Sprintf("%s/%d", at, i)
		f.RangeAt(here, "/g", a.G, 0, 10000, "g")
		ingredient, ok := d.req.Own.Ingredient(a.Key)
		out[i] = filling.Weighed{Ingredient: known(ingredient, ok, a.Key, here, "/key", "ingredient", f), G: a.G}
	}
	return out
}

func (d *dessert) resolveThickener(f *fault.Faults) {
	asked := d.req.Thickener
	if asked == nil {
		asked = &ThickenerInput{Key: defaultThickener}
	}
	th, ok := d.req.Own.Thickener(asked.Key)
	d.thickener = known(th, ok, asked.Key, "", "/thickener/key", "thickener", f)
	optional(asked.G, "/thickener/g", 0, 2000, "g", f)
	d.givenG = asked.G
	for i, a := range asked.With {
		at := fmt.Sprintf("/thickener/with/%d", i)
		f.RangeAt(at, "/g", a.G, 0, 2000, "g")
		th, ok := d.req.Own.Thickener(a.Key)
		d.beside = append(d.beside, filling.Dose{Thickener: known(th, ok, a.Key, at, "/key", "thickener", f), G: a.G})
	}
	optional(d.req.SetTarget, "/set_target", 0, filling.ScaleEnd, "", f)
}

func (d *dessert) resolveTopping(f *fault.Faults) {
	d.wanted = d.oneTopping(d.req.Topping, "/topping", f)
	const mostLate = 3
	if !f.Length("", "/late", len(d.req.Late), 0, mostLate) {
		return
	}
	for i, a := range d.req.Late {
		d.late = append(d.late, d.oneTopping(a, fmt.Sprintf("/late/%d", i), f))
	}
}

// oneTopping looks a topping up.
func (d *dessert) oneTopping(asked ToppingInput, where string, f *fault.Faults) topping.Spec {
	t := row(larder.Toppings, asked.Key, where, "/key", "topping", f)
	f.AmongOrNone(where, "/amount", string(asked.Amount), topping.Amounts)
	if asked.ThicknessMM != 0 {
		f.RangeAt(where, "/thickness_mm", asked.ThicknessMM, 1, 80, "mm")
	}
	d.checkPct(asked.BakersPct, t.Parts, where, f)
	if n := float64(asked.Layers); n != 0 && t.Layers > 0 {
		f.RangeAt(where, "/layers", n, 1, 4, "layers")
		t.ThicknessMM *= t.Layers / n // of the same weight
		t.Layers = n
	}
	w := topping.Spec{
		Topping:     t,
		Amount:      asked.Amount,
		ThicknessMM: asked.ThicknessMM,
		BakersPct:   asked.BakersPct,
		Own:         d.req.Own,
	}
	if asked.Fat != "" {
		fat, ok := d.req.Own.Ingredient(asked.Fat)
		w.Fat = known(fat, ok, asked.Fat, where, "/fat", "ingredient", f)
		if ok && fat.Role != "fat" {
			f.Add(
				where+"/fat",
				message.New(
					"{name} is not a fat: choose butter, a plant-based block, an oil or shortening",
					message.Name(larder.Plain(fat.Name)),
				),
			)
		}
	}
	f.AmongOrNone(where, "/fat_state", asked.FatState, FatStates)
	f.AmongOrNone(where, "/crumb", asked.Crumb, Crumbs)
	f.AmongOrNone(where, "/colour", asked.Colour, TopColours)
	f.AmongOrNone(where, "/tool", asked.Tool, Tools)
	f.RangeAt(where, "/bowl_ml", asked.BowlML, 0, 30000, "ml")
	optional(asked.GapShare, where+"/gap_share", 0, 0.9, "", f)
	w.Liquids = d.resolveLiquids(asked.Liquids, where+"/liquids", f)
	if asked.HydrationPct != 0 {
		f.RangeAt(where, "/hydration_pct", asked.HydrationPct, 10, 250, "%")
		w.HydrationPct = asked.HydrationPct
	}
	return w
}

// checkPct notes what is wrong with changes to a recipe.
func (d *dessert) checkPct(changed map[string]float64, recipe []larder.Part, where string, f *fault.Faults) {
	const most = 20
	if !f.Length(where, "/bakers_pct", len(changed), 0, most) {
		return
	}
	for _, key := range slices.Sorted(maps.Keys(changed)) {
		at, pct := where+"/bakers_pct/"+fault.Key(key), changed[key]
		i, ok := d.req.Own.Ingredient(key)
		known(i, ok, key, at, "", "ingredient", f)
		f.Range(at, pct, 0, 1000, "%")
		if len(recipe) > 0 && key == recipe[0].Key && pct != 100 && pct != 0 {
			f.Add(
				at,
				message.New("is the 100 % that all others relate to: change the others, or set it to 0 to leave it out"),
			)
		}
	}
}

func (d *dessert) resolveLiquids(asked []LiquidInput, where string, f *fault.Faults) []topping.Liquid {
	const most = 6
	if !f.Length(where, "", len(asked), 0, most) {
		return nil
	}
	sum := 0.0
	out := make([]topping.Liquid, len(asked))
	for i, a := range asked {
		at := fmt.Sprintf("%s/%d", where, i)
		ingredient, ok := d.req.Own.Ingredient(a.Key)
		out[i] = topping.Liquid{
			Ingredient: known(ingredient, ok, a.Key, at, "/key", "ingredient", f),
			Share:      a.Share,
		}
		if ok && ingredient.WaterPct < leastWaterPct {
			f.Add(
				at+"/key",
				message.New(
					"{name} is only {water} % water: it can't hold a dough together",
					message.Name(larder.Plain(ingredient.Name)),
					message.Number(ingredient.WaterPct, 0),
				),
			)
		}
		if f.RangeAt(at, "/share", a.Share, 0, 1000, "") {
			sum += a.Share
		}
	}
	if len(asked) > 0 && sum <= 0 {
		f.Add(where, message.New("the shares add up to 0: enter a share above 0 for at least one liquid"))
	}
	for i := range out {
		out[i].Share /= sum
	}
	return out
}

// leastWaterPct is the least water of what can make a dough up: double cream has 47 %.
const leastWaterPct = 40.0

func (d *dessert) basePct() map[string]float64 {
	if d.req.Base == nil {
		return nil
	}
	return d.req.Base.BakersPct
}
