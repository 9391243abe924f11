package larder

import (
	"fmt"
	"maps"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/parse"
)

// Own is what a kitchen knows better than the tables: figures of its own in addition to theirs, and fruits and
// ingredients that they do not have, copied from the nearest that they do. The zero value is the tables as they are.
type Own struct {
	Fruits      map[string]OwnRow `json:"fruits,omitempty"`
	Ingredients map[string]OwnRow `json:"ingredients,omitempty"`
	Thickeners  map[string]OwnRow `json:"thickeners,omitempty"`
	Toppings    map[string]OwnRow `json:"toppings,omitempty"`
}

// Kind is what sort of row of the tables something is, of those that a kitchen may have of its own.
type Kind string

// The kinds.
const (
	OfFruit      Kind = "fruit"
	OfIngredient Kind = "ingredient"
	OfThickener  Kind = "thickener"
	OfTopping    Kind = "topping"
)

// Rows are those of a kind, for writing; a kind that there is not has none.
func (o *Own) Rows(kind Kind) map[string]OwnRow {
	all := map[Kind]*map[string]OwnRow{
		OfFruit: &o.Fruits, OfIngredient: &o.Ingredients, OfThickener: &o.Thickeners, OfTopping: &o.Toppings,
	}
	rows := all[kind]
	if rows == nil {
		return map[string]OwnRow{}
	}
	if *rows == nil {
		*rows = map[string]OwnRow{}
	}
	return *rows
}

// OwnRow is one row of a kitchen's own.
type OwnRow struct {
	CopyOf string             `json:"copy_of,omitempty"` // the table's row that it starts from; left out: its own key
	Name   string             `json:"name,omitempty"`    // left out: the table's
	Values map[string]float64 `json:"values,omitempty"`  // by the column of the table, in its unit
	// Allergens are what the label of one's own says that it contains; left out: as the table has it.
	Allergens *[]string `json:"allergens,omitempty"`
}

// Figure is a column of a table that a kitchen may have a figure of its own for.
type Figure struct {
	Column string
	Name   string
	Unit   string
	Low    float64
	High   float64
	Basis  Basis // of the table's figures; empty: as the row says
}

// FruitFigures are the figures of a fruit. Release, hand-packed factor, pectin and times are working figures, the
// pieces and yields are from composition tables.
var FruitFigures = []Figure{
	{Column: "water_pct", Name: "Water", Unit: "%", Low: 20, High: 98},
	{Column: "sugar_pct", Name: "Sugar", Unit: "%", Low: 0, High: 40},
	{Column: "acid_pct", Name: "Acid", Unit: "%", Low: 0, High: 8},
	{Column: "pectin_eq_pct", Name: "Pectin, as cornflour", Unit: "%", Low: 0, High: 3, Basis: Working},
	{Column: "release_fresh", Name: "Juice released, fresh", Unit: "of its water", Low: 0.02, High: 0.95, Basis: Working},
	{
		Column: "release_frozen",
		Name:   "Juice released, frozen",
		Unit:   "of its water",
		Low:    0.02,
		High:   0.95,
		Basis:  Working,
	},
	{Column: "bulk_g_per_ml", Name: "Bulk density, loose", Unit: "g/ml", Low: 0.1, High: 1.2, Basis: Composition},
	{Column: "hand_packed_factor", Name: "Hand-packed, relative to loose", Unit: "×", Low: 1, High: 1.8, Basis: Working},
	{Column: "as_bought_small_g", Name: "Small, as bought", Unit: "g", Low: 0.2, High: 8000, Basis: Composition},
	{Column: "as_bought_medium_g", Name: "Medium, as bought", Unit: "g", Low: 0.2, High: 8000, Basis: Composition},
	{Column: "as_bought_large_g", Name: "Large, as bought", Unit: "g", Low: 0.2, High: 8000, Basis: Composition},
	{
		Column: "yield_peeled",
		Name:   "Yield, peeled",
		Unit:   "of the weight as bought",
		Low:    0.1,
		High:   1,
		Basis:  Composition,
	},
	{
		Column: "yield_unpeeled",
		Name:   "Yield, unpeeled",
		Unit:   "of the weight as bought",
		Low:    0.1,
		High:   1,
		Basis:  Composition,
	},
	{Column: "default_cut_mm", Name: "Usual cut", Unit: "mm", Low: 3, High: 80, Basis: Handbook},
	{
		Column: "tender_min_at_8mm",
		Name:   "Time to tender, 8 mm at 100 °C",
		Unit:   "min",
		Low:    0.5,
		High:   240,
		Basis:  Working,
	},
	{Column: "collapse_min_at_8mm", Name: "Time to falling apart", Unit: "min", Low: 1, High: 480, Basis: Working},
	{Column: priceColumn, Name: "Price", Unit: "a kg", Low: 0, High: 1000, Basis: Kitchen},
}

// IngredientFigures are the figures of an ingredient.
var IngredientFigures = []Figure{
	{Column: "g_per_us_cup", Name: "US cup, spooned", Unit: "g", Low: 10, High: 500},
	{Column: "g_per_us_cup_scooped", Name: "US cup, scooped", Unit: "g", Low: 10, High: 500},
	{Column: "g_per_us_cup_packed", Name: "US cup, packed", Unit: "g", Low: 10, High: 500},
	{Column: "g_per_us_tsp", Name: "US teaspoon", Unit: "g", Low: 0.2, High: 15},
	{Column: "piece_g", Name: "One piece", Unit: "g", Low: 0.2, High: 2000},
	{Column: "water_pct", Name: "Water", Unit: "%", Low: 0, High: 100},
	{Column: "fat_pct", Name: "Fat", Unit: "%", Low: 0, High: 100},
	{Column: "sugar_pct", Name: "Sugar", Unit: "%", Low: 0, High: 100},
	{Column: "starch_pct", Name: "Starch", Unit: "%", Low: 0, High: 100},
	{Column: "protein_pct", Name: "Protein", Unit: "%", Low: 0, High: 100},
	{Column: "acid_pct", Name: "Acid", Unit: "%", Low: 0, High: 100},
	{Column: priceColumn, Name: "Price", Unit: "a kg", Low: 0, High: 1000, Basis: Kitchen},
}

// ThickenerFigures are the figures of a thickener.
var ThickenerFigures = []Figure{
	{Column: "strength", Name: "Strength of 1 g (cornflour = 1)", Unit: "g", Low: 0.05, High: 5, Basis: Working},
}

// ToppingFigures are the figures of a topping.
var ToppingFigures = []Figure{
	{Column: "brown_rate", Name: "Browning speed (plain streusel = 1)", Unit: "×", Low: 0.1, High: 10, Basis: Working},
}

// kindOf is what rows of a kind may have, and which keys the tables know.
func kindOf(kind Kind) (figures []Figure, known func(string) bool) {
	switch kind {
	case OfIngredient:
		return IngredientFigures, func(k string) bool { _, ok := Ingredients.Get(k); return ok }
	case OfThickener:
		return ThickenerFigures, func(k string) bool { _, ok := Thickeners.Get(k); return ok }
	case OfTopping:
		return ToppingFigures, func(k string) bool { _, ok := Toppings.Get(k); return ok }
	}
	return FruitFigures, func(k string) bool { _, ok := Fruits.Get(k); return ok }
}

// priceColumn is no column of the tables: a price is always the kitchen's own.
const priceColumn = "price_per_kg"

// Fruit is a fruit by its key, with the kitchen's own figures.
func (o *Own) Fruit(key string) (Fruit, bool) {
	own, ok := o.fruits()[key]
	if !ok {
		return Fruits.Get(key)
	}
	f, ok := Fruits.changed(own.from(key), own.Values)
	if own.Name != "" {
		f.Name = own.Name
	}
	f.Key, f.CompositionBasis = key, Kitchen
	return f, ok
}

// Thickener is a thickener by its key, with the kitchen's own figures.
func (o *Own) Thickener(key string) (Thickener, bool) {
	if o == nil {
		return Thickeners.Get(key)
	}
	return ownRow(Thickeners, o.Thickeners, key)
}

// Topping is a topping by its key, with the kitchen's own figures.
func (o *Own) Topping(key string) (Topping, bool) {
	if o == nil {
		return Toppings.Get(key)
	}
	return ownRow(Toppings, o.Toppings, key)
}

func ownRow[T any](table Table[T], rows map[string]OwnRow, key string) (T, bool) {
	own, ok := rows[key]
	if !ok {
		return table.Get(key)
	}
	return table.changed(own.from(key), own.Values)
}

// Ingredient is an ingredient by its key, with the kitchen's own figures.
func (o *Own) Ingredient(key string) (Ingredient, bool) {
	own, ok := o.ingredients()[key]
	if !ok {
		return Ingredients.Get(key)
	}
	i, ok := Ingredients.changed(own.from(key), own.Values)
	if own.Name != "" {
		i.Name = own.Name
	}
	if own.Allergens != nil {
		i.Allergens, i.OnLabel, i.AllergenOnPack = *own.Allergens, nil, false
	}
	i.Key, i.Basis = key, Kitchen
	return i, ok
}

func (o *Own) fruits() map[string]OwnRow {
	if o == nil {
		return nil
	}
	return o.Fruits
}

func (o *Own) ingredients() map[string]OwnRow {
	if o == nil {
		return nil
	}
	return o.Ingredients
}

func (r OwnRow) from(key string) string {
	if r.CopyOf != "" {
		return r.CopyOf
	}
	return key
}

// mostOwn is the most rows of its own that a request may carry.
const mostOwn = 400

// Check notes what is wrong with a kitchen's own rows, under the pointer prefix at.
func (o *Own) Check(at string, f *fault.Faults) {
	if o == nil {
		return
	}
	if n := len(o.Fruits) + len(o.Ingredients) + len(o.Thickeners) + len(o.Toppings); !f.Length(at, "", n, 0, mostOwn) {
		return
	}
	for _, x := range []struct {
		list string
		kind Kind
		rows map[string]OwnRow
	}{
		{"fruits", OfFruit, o.Fruits},
		{"ingredients", OfIngredient, o.Ingredients},
		{"thickeners", OfThickener, o.Thickeners},
		{"toppings", OfTopping, o.Toppings},
	} {
		for _, key := range slices.Sorted(maps.Keys(x.rows)) {
			x.rows[key].Check(at+"/"+x.list+"/"+fault.Key(key), key, x.kind, f)
		}
	}
}

// Check notes what is wrong with a row of its own, of a kind.
func (r OwnRow) Check(at, key string, kind Kind, f *fault.Faults) {
	figures, known := kindOf(kind)
	if len(key) == 0 || len(key) > 60 {
		f.Add(at, message.New("its key has {n} characters: use 1 to 60", message.Count(len(key))))
	}
	if !known(r.from(key)) {
		f.Add(
			at+"/copy_of",
			message.New(
				"there is no {kind} \"{key}\" in the tables to start from",
				message.Word(string(kind)),
				message.Text(r.from(key)),
			),
		)
	}
	if len(r.Name) > 80 {
		f.Add(at+"/name", message.New("has more than 80 characters: enter a shorter name"))
	}
	if r.Allergens != nil {
		for i, a := range *r.Allergens {
			if !slices.Contains(allergenKeys, a) {
				f.Add(fmt.Sprintf("%s/allergens/%d", at, i), fault.NotOneOf(a, allergenKeys...))
			}
		}
	}
	for _, column := range slices.Sorted(maps.Keys(r.Values)) {
		i := slices.IndexFunc(figures, func(x Figure) bool { return x.Column == column })
		if i < 0 {
			f.Add(at+"/values/"+fault.Key(column), message.New("is not a figure of a {kind}", message.Word(string(kind))))
			continue
		}
		f.Range(at+"/values/"+fault.Key(column), r.Values[column], figures[i].Low, figures[i].High, figures[i].Unit)
	}
	if kind == OfFruit && f.Err() == nil {
		checkWhole(r, key, at, f)
	}
}

// checkWhole notes figures that each may be, and that together can't.
func checkWhole(r OwnRow, key, at string, f *fault.Faults) {
	x, _ := Fruits.changed(r.from(key), r.Values)
	if sum := x.WaterPct + x.SugarPct + x.AcidPct; sum > 100 {
		f.Add(
			at+"/values/water_pct",
			message.New("water, sugar and acid add up to {sum} %: at most 100 % is possible", message.Number(sum, 1)),
		)
	}
}

// TableFigure is the tables' own figure, false where they have none.
func TableFigure(kind Kind, key, column string) (float64, bool) {
	switch kind {
	case OfFruit:
		return Fruits.figure(key, column)
	case OfThickener:
		return Thickeners.figure(key, column)
	case OfTopping:
		return Toppings.figure(key, column)
	}
	return Ingredients.figure(key, column)
}

// Names adds a kitchen's own rows to a vocabulary, under their own names.
func (o *Own) Names(p *parse.Vocabulary) {
	for key := range o.ingredients() {
		if i, ok := o.Ingredient(key); ok {
			p.Add(thingOf(i))
			p.Call(i.Name, key, message.Message{})
		}
	}
	for key := range o.fruits() {
		if f, ok := o.Fruit(key); ok {
			p.Add(fruitThing(f))
			p.Call(f.Name, key, message.Message{})
		}
	}
}

// Price is what a kilogram costs the kitchen, in whole units of its money; false where it has no price.
func (o *Own) Price(key string) (float64, bool) {
	if o == nil {
		return 0, false
	}
	for _, rows := range []map[string]OwnRow{o.Fruits, o.Ingredients} {
		if p, ok := rows[key].Values[priceColumn]; ok {
			return p, true
		}
	}
	return 0, false
}
