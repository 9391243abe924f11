package sell

import (
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Nutrition is what a dessert has in it as it stands at the table: of 100 g and of a portion. It is an estimate from
// tables.
type Nutrition struct {
	PortionG  float64           `json:"portion_g"`
	Rows      []NutritionRow    `json:"rows"`
	Estimated []larder.Name     `json:"estimated"` // what has working figures, by its share of the energy: the most first
	Text      []message.Message `json:"text"`
}

// NutrientKey is a line of a label of energy and nutrients.
type NutrientKey string

// The lines, in the order of a label.
const (
	EnergyKJ     NutrientKey = "energy_kj"
	EnergyKcal   NutrientKey = "energy_kcal"
	Fat          NutrientKey = "fat"
	Saturates    NutrientKey = "saturates"
	Carbohydrate NutrientKey = "carbohydrate"
	Sugars       NutrientKey = "sugars"
	Fibre        NutrientKey = "fibre"
	Protein      NutrientKey = "protein"
	Salt         NutrientKey = "salt"
)

// NutritionRow is one line of it, rounded as labels are.
type NutritionRow struct {
	Key     NutrientKey     `json:"key"`
	Name    message.Message `json:"name"`
	Per100  float64         `json:"per_100_g"`
	Portion float64         `json:"portion"`
	Shown   message.Message `json:"shown"` // of 100 g
	Each    message.Message `json:"each"`  // of a portion
}

// Energy of 1 g, kJ, and of a kilocalorie, as labels calculate it.
const (
	fatKJ, carbohydrateKJ, proteinKJ, fibreKJ, alcoholKJ, acidKJ = 37, 17, 17, 8, 29, 13
	kJPerKcal                                                    = 4.184
)

// add adds what is in so many grams.
func add(s *larder.Nutrients, n larder.Nutrients, g float64) {
	k := g / 100
	s.FatG += k * n.FatG
	s.SaturatesG += k * n.SaturatesG
	s.SugarG += k * n.SugarG
	s.StarchG += k * n.StarchG
	s.FibreG += k * n.FibreG
	s.ProteinG += k * n.ProteinG
	s.AcidG += k * n.AcidG
	s.AlcoholG += k * n.AlcoholG
	s.SaltG += k * n.SaltG
}

func energyKJ(n larder.Nutrients) float64 {
	return fatKJ*n.FatG + carbohydrateKJ*(n.SugarG+n.StarchG) + proteinKJ*n.ProteinG + fibreKJ*n.FibreG +
		alcoholKJ*n.AlcoholG + acidKJ*n.AcidG
}

// alcoholLeft is how much of the alcohol an hour's bake leaves. A working figure.
const alcoholLeft = 0.25

// NutritionOf adds up what is on a dessert's ticket, less what left with drained juice; nothing but water, and most of
// the alcohol, leaves in the oven.
func NutritionOf(r balance.Request, a *balance.Answer) Nutrition {
	out := Nutrition{PortionG: a.Portions.EachG, Rows: []NutritionRow{}, Estimated: []larder.Name{}}
	var all larder.Nutrients
	type guess struct {
		name larder.Name
		kj   float64
	}
	var guesses []guess
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			n, ok := r.Own.Nutrients(l.Key)
			if !ok {
				continue
			}
			n.AlcoholG *= alcoholLeft
			add(&all, n, l.G)
			if n.Basis == larder.Working {
				guesses = append(guesses, guess{l.Name, energyKJ(n) * l.G})
			}
		}
	}
	if g := a.Ledger.DrainedSugarG; g > 0 {
		all.SugarG = max(0, all.SugarG-g)
		out.Text = append(out.Text, message.New("{g} of sugar left with the drained juice.", message.Grams(g)))
	}
	slices.SortStableFunc(guesses, func(x, y guess) int { return int(y.kj - x.kj) })
	for _, g := range guesses {
		if !slices.Contains(out.Estimated, g.name) {
			out.Estimated = append(out.Estimated, g.name)
		}
	}
	out.rows(all, a.Portions)
	out.Text = append(out.Text, message.New(
		"An estimate from composition tables. A nutrition label needs a laboratory or the food authority's own rules.",
	))
	return out
}

func (n *Nutrition) rows(all larder.Nutrients, p balance.Portions) {
	if p.FinishedG <= 0 {
		return
	}
	row := func(key NutrientKey, name message.Message, total float64, round func(float64) (float64, int), unit string) {
		of, digits := round(total / p.FinishedG * 100)
		each, few := round(total / p.FinishedG * p.EachG)
		n.Rows = append(n.Rows, NutritionRow{
			Key: key, Name: name, Per100: of, Portion: each,
			Shown: message.New("{n} "+unit, message.Number(of, digits)),
			Each:  message.New("{n} "+unit, message.Number(each, few)),
		})
	}
	kj := energyKJ(all)
	row(EnergyKJ, message.New("Energy"), kj, whole, "kJ")
	row(EnergyKcal, message.New("Energy"), kj/kJPerKcal, whole, "kcal")
	row(Fat, message.New("Fat"), all.FatG, labelGrams, "g")
	row(Saturates, message.New("of which saturates"), all.SaturatesG, labelGrams, "g")
	row(Carbohydrate, message.New("Carbohydrate"), all.SugarG+all.StarchG, labelGrams, "g")
	row(Sugars, message.New("of which sugars"), all.SugarG, labelGrams, "g")
	row(Fibre, message.New("Fibre"), all.FibreG, labelGrams, "g")
	row(Protein, message.New("Protein"), all.ProteinG, labelGrams, "g")
	row(Salt, message.New("Salt"), all.SaltG, labelSalt, "g")
}

func to(x, step float64) float64 { return math.Round(x/step) * step }

// whole, labelGrams and labelSalt round as the guidance for labels has it: energy to 1; grams to 1 from 10 on, else to
// 0.1; salt to 0.1 from 1 on, else to 0.01. With the digits that are shown.
func whole(x float64) (float64, int) { return math.Round(x), 0 }

func labelGrams(g float64) (float64, int) {
	if g >= 10 {
		return math.Round(g), 0
	}
	return to(g, 0.1), 1
}

func labelSalt(g float64) (float64, int) {
	if g >= 1 {
		return to(g, 0.1), 1
	}
	return to(g, 0.01), 2
}
