package watch

import (
	"cmp"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/message"
)

// Trouble is what goes wrong while it is in the oven.
type Trouble string

// The troubles.
const (
	DarkRaw  Trouble = "dark_raw" // the top is dark and the middle still
	BoilOver Trouble = "boils_over"
	Pale     Trouble = "pale" // its time is up and the top is pale
	OvenOff  Trouble = "oven_off"
)

var troubleWords = message.Words(DarkRaw, BoilOver, Pale, OvenOff)

// Proposal is something to do now, tried on the model.
type Proposal struct {
	Code  string          `json:"code"`
	Text  message.Message `json:"text"`
	Works bool            `json:"works"` // it meets every clock
	bake.Continuation
}

// What troubles look like, and what is tried. Working figures.
const (
	darkSeen  = 1.6 // the colour clock of a top that looks dark enough
	paleSeen  = 0.35
	boilingC  = 30.0 // less stops most boiling over
	lowerC    = 20.0
	higherC   = 25.0
	hottestC  = 240.0
	coolestC  = 130.0
	standingC = 60.0 // of an oven that was off, on average
)

// tried is one thing to try against a trouble.
type tried struct {
	code     string
	says     message.Message
	change   func(*bake.Stage)
	thenFoil bool            // as soon as it is golden
	bare     message.Message // what is said where it has no cover to take off; left out: the same
}

// saysOf is what is said of a try to somebody whose dish is as it is now.
func (t tried) saysOf(now bake.Stage) message.Message {
	if (now.Cover == "" || now.Cover == "none") && !t.bare.IsZero() {
		return t.bare
	}
	return t.says
}

func warmer(by float64) func(*bake.Stage) {
	return func(s *bake.Stage) { s.OvenC = min(hottestC, max(coolestC, s.OvenC+by)) }
}

var foilOn = func(s *bake.Stage) { s.Cover = "foil" }

func both(a, b func(*bake.Stage)) func(*bake.Stage) {
	return func(s *bake.Stage) { a(s); b(s) }
}

// troubles has each with how the top looks by the colour clock, where that is reported, and what is tried.
var troubles = map[Trouble]struct {
	seen float64
	try  []tried
}{
	DarkRaw: {
		darkSeen,
		[]tried{
			{"foil", message.New("Put foil on and bake on"), foilOn, false, message.Message{}},
			{
				"foil_cooler",
				message.New("Put foil on and turn the oven down by {degrees}", message.CelsiusDifference(lowerC)),
				both(foilOn, warmer(-lowerC)),
				false,
				message.Message{},
			},
			{
				"foil_low",
				message.New("Move it to the low shelf and put foil on"),
				both(foilOn, func(s *bake.Stage) { s.Shelf = "low" }),
				false,
				message.Message{},
			},
			{
				"cooler",
				message.New("Turn the oven down by {degrees}", message.CelsiusDifference(boilingC)),
				warmer(-boilingC),
				false,
				message.Message{},
			},
		},
	},
	BoilOver: {
		0,
		[]tried{
			{
				"cooler",
				message.New("Put a tray under it and turn the oven down by {degrees}", message.CelsiusDifference(boilingC)),
				warmer(-boilingC),
				true,
				message.Message{},
			},
			{
				"cooler_open",
				message.New(
					"Put a tray under it, uncover it, and turn the oven down by {degrees}",
					message.CelsiusDifference(lowerC),
				),
				both(warmer(-lowerC), func(s *bake.Stage) { s.Cover = "none" }),
				true,
				message.New("Put a tray under it and turn the oven down by {degrees}", message.CelsiusDifference(lowerC)),
			},
			{
				"high",
				message.New("Put a tray under it and use the high shelf: less heat from below"),
				func(s *bake.Stage) { s.Shelf = "high" },
				true,
				message.Message{},
			},
		},
	},
	Pale: {
		paleSeen,
		[]tried{
			{
				"hotter",
				message.New("Uncover it and turn the oven up by {degrees}", message.CelsiusDifference(higherC)),
				both(warmer(higherC), func(s *bake.Stage) { s.Cover = "none" }),
				false,
				message.New("Turn the oven up by {degrees}", message.CelsiusDifference(higherC)),
			},
			{
				"high",
				message.New("Uncover it and move it to the high shelf"),
				func(s *bake.Stage) { s.Cover, s.Shelf = "none", "high" },
				false,
				message.New("Move it to the high shelf"),
			},
			{
				"longer",
				message.New("Uncover it and bake on"),
				func(s *bake.Stage) { s.Cover = "none" },
				false,
				message.New("Bake on"),
			},
		},
	},
	OvenOff: {
		0,
		[]tried{
			{"on", message.New("Switch the oven on and bake on"), func(*bake.Stage) {}, false, message.Message{}},
			{
				"on_foil",
				message.New("Switch the oven on, and put foil on when the top is golden"),
				func(*bake.Stage) {},
				true,
				message.Message{},
			},
			{
				"hotter_foil",
				message.New(
					"Switch the oven on {degrees} hotter, and put foil on when the top is golden",
					message.CelsiusDifference(higherC),
				),
				warmer(higherC),
				true,
				message.Message{},
			},
		},
	},
}

// Rescue tries what may help, from what was done so far; offMin is how long the oven was off, where that is the
// trouble. What works comes first, and the quicker before the slower. A trouble that is not known is fault.Faults.
func Rescue(q bake.PlanRequest, done []bake.Stage, trouble Trouble, offMin float64) ([]Proposal, error) {
	var f fault.Faults
	f.Among("", "/trouble", string(trouble), troubleWords)
	now := 0.0
	for _, s := range done {
		now += s.Minutes
	}
	f.Range("/off_min", offMin, 0, max(0, now), "min")
	if len(done) == 0 {
		f.Add("/trouble", message.New("is before it went in"))
	}
	if err := f.Err(); err != nil {
		return nil, err
	}
	if trouble == OvenOff {
		done = wasOff(done, offMin)
	}
	as := done[len(done)-1]
	as.PushUnder, as.AddTopping, as.Turn = false, false, false
	if trouble == OvenOff && len(done) > 1 {
		as.OvenC, as.Heating = done[len(done)-2].OvenC, done[len(done)-2].Heating
	}
	t := troubles[trouble]
	ways := make([]bake.Way, len(t.try))
	for i, x := range t.try {
		ways[i] = bake.Way{Stage: as, ThenFoil: x.thenFoil}
		x.change(&ways[i].Stage)
	}
	out := make([]Proposal, len(ways))
	for i, on := range q.BakeOn(done, ways, t.seen) {
		out[i] = Proposal{t.try[i].code, t.try[i].saysOf(done[len(done)-1]), len(on.Unmet) == 0, on}
	}
	sortBest(out)
	return out, nil
}

// wasOff puts the time that the oven was off at the end of what was done.
func wasOff(done []bake.Stage, off float64) []bake.Stage {
	var out []bake.Stage
	left := off
	for i := len(done) - 1; i >= 0; i-- {
		s := done[i]
		cut := min(left, s.Minutes)
		left -= cut
		if s.Minutes -= cut; s.Minutes > 0 || i == 0 {
			out = append([]bake.Stage{s}, out...)
		}
	}
	if off > 0 {
		s := out[len(out)-1]
		s.Minutes, s.OvenC, s.PushUnder, s.AddTopping = off, standingC, false, false
		out = append(out, s)
	}
	return out
}

// sortBest puts what works first, then what misses less, then the quicker.
func sortBest(p []Proposal) {
	slices.SortStableFunc(p, func(a, b Proposal) int {
		return cmp.Or(len(a.Unmet)-len(b.Unmet), cmp.Compare(a.Minutes, b.Minutes))
	})
}

// SalvageCode is how a dessert came out wrong.
type SalvageCode string

// How it came out.
const (
	SalvageRunny SalvageCode = "runny"
	SalvagePale  SalvageCode = "pale"
	SalvageSunk  SalvageCode = "sunk"
	SalvageStuck SalvageCode = "stuck"
)

// SalvageTip is what may be done with one that came out wrong.
type SalvageTip struct {
	Code SalvageCode     `json:"code"`
	Text message.Message `json:"text"`
}

// afterwards are bench practice.
var afterwards = []SalvageTip{
	{
		SalvageRunny,
		message.New(
			"If the middle never bubbled, bake on until it does. Otherwise pour the juice off, boil it down in a wide pan until it coats a spoon, and pour it back. Juice thickens as it cools: wait before you judge it.",
		),
	},
	{
		SalvagePale,
		message.New(
			"Sprinkle a spoon of sugar over it and bake it on a high shelf at {heat} for 5 to 8 min; watch it.",
			message.OvenHeat(220),
		),
	},
	{
		SalvageSunk,
		message.New("Serve it from the dish as a pudding with cream; bake extra crumble on a tray and sprinkle it over."),
	},
	{
		SalvageStuck,
		message.New(
			"Warm the dish for a minute in hot water or a low oven, run a thin knife round the edge, and lift it from below. Otherwise serve it with a spoon.",
		),
	},
}

// After lists them.
func After() []SalvageTip { return afterwards }
