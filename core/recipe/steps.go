package recipe

import (
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/message"
	"mabbin/core/oven"
	"mabbin/core/reader"
)

// middle is the middle of a range of minutes, 0 for none.
func middle(minutes []float64) float64 {
	if len(minutes) < 2 {
		return 0
	}
	return (minutes[0] + minutes[1]) / 2
}

// takeSteps puts the steps before the bake into a request: what is cooked first, what stands, a base that is par-baked.
func takeSteps(r *balance.Request, steps []reader.Step) {
	for _, s := range steps {
		switch s.Kind {
		case reader.CookFruit:
			takeCooking(r, s)
		case reader.Macerate:
			if r.Macerate == nil {
				r.Macerate = &balance.MacerateInput{Minutes: middle(s.Minutes), Juice: s.Juice}
			}
		case reader.ParBake:
			if r.Base != nil {
				r.Base.ParBaked = true
			}
		}
	}
}

// takeCooking adds minutes in which fruit is cooked first.
func takeCooking(r *balance.Request, s reader.Step) {
	var fruits []string
	for _, f := range r.Fruits {
		if slices.Contains(s.Of.Keys, f.Key) {
			fruits = append(fruits, f.Key)
		}
	}
	if s.Of.Word == "" && len(fruits) == 0 {
		return // onions are soft before the fruit goes in
	}
	if r.Precook == nil {
		r.Precook = &balance.PrecookInput{Where: s.Where, Open: !s.Covered && s.Where != "microwave"}
		if len(fruits) < len(r.Fruits) {
			r.Precook.Fruits = fruits
		}
	}
	r.Precook.Minutes += middle(s.Minutes)
	r.Precook.Open = r.Precook.Open || !s.Covered && s.Where == "hob" && middle(s.Minutes) > 5
}

// fireOf is the fire of a bake over coals, in a camp oven of that diameter in cm; nil for any other.
func fireOf(steps []reader.Step, diameterCM float64) *oven.Fire {
	for _, s := range steps {
		if s.Kind == reader.Bake && len(s.Coals) > 0 {
			return &oven.Fire{DiameterCM: diameterCM}
		}
	}
	return nil
}

var shelves = map[string]string{"low": "low", "middle": "middle", "high": "high"}

// StagesOf are the stages of a recipe's bake. Where a stage has no heat or no minutes, they are what is missing.
func StagesOf(steps []reader.Step) (stages []bake.Stage, missing []message.Message) {
	var next bake.Stage
	heat, minutes := true, true
	for _, s := range steps {
		switch s.Kind {
		case reader.AddLate:
			next.AddTopping = true
		case reader.PushUnder:
			next.PushUnder = true
		case reader.Turn:
			next.Turn = true
		case reader.Bake:
			next.Minutes, next.Cover, next.Shelf = middle(s.Minutes), s.Cover, shelves[s.Shelf]
			if s.C != nil {
				next.OvenC = *s.C
			}
			if s.Fan {
				next.Heating = "fan"
			}
			if len(s.Coals) > 0 {
				next.Cover = "" // the lid carries coals of its own
			}
			heat, minutes = heat && s.C != nil, minutes && next.Minutes > 0
			if len(stages) == 0 {
				next.AddTopping, next.PushUnder = false, false
			}
			stages = append(stages, next)
			next = bake.Stage{}
		}
	}
	switch {
	case len(stages) == 0:
		return nil, []message.Message{message.New("The recipe names no bake. Enter its oven temperature and minutes.")}
	case !heat && !minutes:
		missing = append(missing, message.New("The recipe names no oven temperature and no minutes. Enter both."))
	case !heat:
		missing = append(missing, message.New("The recipe names no oven temperature. Enter it."))
	case !minutes:
		missing = append(missing, message.New("The recipe names no baking time. Enter the minutes."))
	}
	return stages, missing
}
