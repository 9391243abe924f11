package larder

// Nutrients are what is in 100 g, in g.
type Nutrients struct {
	FatG       float64
	SaturatesG float64
	SugarG     float64
	StarchG    float64
	FibreG     float64
	ProteinG   float64
	AcidG      float64 // organic acids
	AlcoholG   float64
	SaltG      float64
	Basis      Basis // Working: an estimate
}

// nutrition is what the other tables do not tell, by the keys of fruits and ingredients.
type nutrition struct {
	key                                                    string
	protein, fat, saturates, starch, fibre, sodium, spirit float64
	basis                                                  Basis
}

var nutritions = read("nutrition", func(n nutrition) string { return n.key }, func(r *row) nutrition {
	return nutrition{
		key: r.text("key"), protein: r.number("protein_pct"), fat: r.number("fat_pct"),
		saturates: r.number("saturates_pct"), starch: r.number("starch_pct"), fibre: r.number("fibre_pct"),
		sodium: r.number("sodium_mg"), spirit: r.number("alcohol_pct"), basis: Basis(r.text("basis")),
	}
})

// saltOfSodium is how much salt is reported for sodium, as labels calculate it.
const saltOfSodium = 2.5

// Nutrients is what is in 100 g of a fruit or an ingredient, with the kitchen's own figures; false: it is none.
func (o *Own) Nutrients(key string) (Nutrients, bool) {
	if f, ok := o.Fruit(key); ok {
		n, _ := nutritions.Get(o.fruits()[key].from(key))
		return Nutrients{
			FatG: n.fat, SaturatesG: n.saturates, SugarG: f.SugarPct, StarchG: n.starch, FibreG: n.fibre,
			ProteinG: n.protein, AcidG: f.AcidPct, SaltG: saltOfSodium * n.sodium / 1000,
			Basis: weaker(n.basis, f.CompositionBasis),
		}, true
	}
	i, ok := o.Ingredient(key)
	if !ok {
		return Nutrients{}, false
	}
	n, _ := nutritions.Get(o.ingredients()[key].from(key))
	return Nutrients{
		FatG: i.FatPct, SaturatesG: min(n.saturates, i.FatPct), SugarG: i.SugarPct, StarchG: i.StarchPct, FibreG: n.fibre,
		ProteinG: i.ProteinPct, AcidG: i.AcidPct, AlcoholG: n.spirit, SaltG: saltOfSodium * n.sodium / 1000,
		Basis: weaker(n.basis, i.Basis),
	}, true
}

// weaker is the basis that makes an estimate of a figure, where one of the two does.
func weaker(a, b Basis) Basis {
	if a == Working || b == Working {
		return Working
	}
	return b
}
