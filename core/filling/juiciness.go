package filling

import (
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Test is today's fruit, tried: some of it is cut as for the dish, sugared, kept warm for five minutes, and its juice
// poured off and weighed.
type Test struct {
	Fruit  string      `json:"fruit"`
	Frozen bool        `json:"frozen,omitempty"`
	FruitG float64     `json:"fruit_g"`
	SugarG float64     `json:"sugar_g"`
	JuiceG float64     `json:"juice_g"`
	Own    *larder.Own `json:"own,omitempty"`
}

// Tested is what a test says of the crate.
type Tested struct {
	Release      float64         `json:"release"`       // share of its water that the fruit gives up
	TableRelease float64         `json:"table_release"` // as the table has it
	Text         message.Message `json:"text"`
}

// What a measured release may be: beyond, something went wrong at the scale.
const (
	leastRelease = 0.02
	mostRelease  = releaseMost
)

// Check finds every wrong field of a test.
func (t Test) Check() error {
	var f fault.Faults
	t.Own.Check("/own", &f)
	fruit, ok := t.Own.Fruit(t.Fruit)
	if !ok {
		f.Add("/fruit", fault.NoSuch(message.New("fruit"), t.Fruit))
	}
	f.Range("/fruit_g", t.FruitG, 20, 2000, "g")
	f.Range("/sugar_g", t.SugarG, 0, 1000, "g")
	if most := t.FruitG*(fruit.WaterPct+fruit.SugarPct)/100 + t.SugarG; ok &&
		f.Range("/juice_g", t.JuiceG, 0, 3000, "g") &&
		f.Err() == nil &&
		t.JuiceG > most {
		f.Add(
			"/juice_g",
			message.New(
				"is {juice}, more than all water and sugar in the bowl ({most}): weigh the juice without its cup",
				message.Grams(t.JuiceG),
				message.Grams(most),
			),
		)
	}
	return f.Err()
}

// Release works out what the crate gives up. The juice is water of the fruit, the sugar put on, which has all
// dissolved, and the fruit's own sugar, which comes out with the water.
func (t Test) Release() (*Tested, error) {
	if err := t.Check(); err != nil {
		return nil, err
	}
	fruit, _ := t.Own.Fruit(t.Fruit)
	r := (t.JuiceG - t.SugarG) / (t.FruitG * (fruit.WaterPct + fruit.SugarPct) / 100)
	table := fruit.ReleaseFresh
	if t.Frozen {
		table = fruit.ReleaseFrozen
	}
	if r < leastRelease {
		var f fault.Faults
		f.Add(
			"/juice_g",
			message.New(
				"is {juice}, hardly more than the {sugar} of sugar: stir until the sugar has dissolved, keep it warm a little longer, and weigh again",
				message.Grams(t.JuiceG),
				message.Grams(t.SugarG),
			),
		)
		return nil, f
	}
	r = min(mostRelease, r)
	text := message.New("This fruit is as juicy as usual.")
	switch k := r / table; {
	case k > 1.1:
		text = message.New("This fruit is {share} % juicier than usual.", message.Number(100*(k-1), 0))
	case k < 0.9:
		text = message.New("This fruit is {share} % less juicy than usual.", message.Number(100*(1-k), 0))
	}
	return &Tested{r, table, text}, nil
}
