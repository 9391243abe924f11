package sell

import (
	"math"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// DessertLabel is all that is printed beside a dessert that is sold.
type DessertLabel struct {
	Label
	Name     string          `json:"name"`
	NetG     float64         `json:"net_g"` // as baked, of the whole dish
	PortionG float64         `json:"portion_g"`
	Portions float64         `json:"portions"`
	Keep     message.Message `json:"keep"`
	KeepDays int             `json:"keep_days"`
	Rewarm   message.Message `json:"rewarm"`
	Serve    message.Message `json:"serve"`
	Hold     message.Message `json:"hold"`
	// Freeze is how it is frozen, and how it comes back from there.
	Freeze message.Message `json:"freeze"`
	// Nutrition is of 100 g and of a portion, where the kitchen prints it; an estimate from tables.
	Nutrition []NutritionRow `json:"nutrition,omitempty"`
}

// How long a dessert keeps, days, and how it is warmed again. Working figures: the local food authority's code and a
// licensed professional decide.
const (
	keepDays, keepBarDays, keepCustardDays = 2, 4, 3
	coldDays                               = 4
	bareMin                                = 8 // at the end of warming again, without foil
	warmStepMin                            = 5.0
	freezeStepMin                          = 60.0
	frozenMonths                           = 3
)

// LabelFor is what is printed of a dessert that is baked so. An ingredient whose own label has to be read first is
// fault.Faults.
func LabelFor(name string, r balance.Request, d *bake.DessertAnswer, region string) (*DessertLabel, error) {
	a := &d.Balance
	q := LabelRequest{Name: name, FinishedG: a.Portions.FinishedG, Region: region, Own: r.Own}
	for _, b := range a.Ticket {
		p := Part{Name: b.Key}
		for _, l := range b.Lines {
			if l.Key == waterKey {
				q.AddedWaterG += l.G
			} else if known(l.Key, r.Own) {
				p.Lines = append(p.Lines, Line{Key: l.Key, G: l.G})
			}
		}
		if len(p.Lines) > 0 {
			q.Parts = append(q.Parts, p)
		}
	}
	for _, f := range r.Fruits {
		if row, ok := r.Own.Fruit(f.Key); ok && named(name, row.Name) {
			q.Named = append(q.Named, f.Key)
		}
	}
	l, err := LabelOf(q)
	if err != nil {
		return nil, err
	}
	out := &DessertLabel{
		Label: *l, Name: name, NetG: a.Portions.FinishedG, PortionG: a.Portions.EachG, Portions: a.Portions.Count,
	}
	if out.Rewarm, err = rewarm(d.Bake); err != nil {
		return nil, err
	}
	if out.Freeze, err = freezes(r, d); err != nil {
		return nil, err
	}
	out.Serve = message.New(
		"Serve it warm, with cold cream, custard or ice cream: these have milk in them, the last two mostly egg too.",
	)
	if r.Custard != nil || r.Style == "bar" {
		out.Serve = message.New("Serve it cold, or just warm.")
	}
	out.Hold = hold()
	out.KeepDays, out.Keep = keeps(r, a)
	out.Text = l.plainText()
	return out, nil
}

// rewarm is how it is warmed again, by the model of its bake.
func rewarm(b bake.Request) (message.Message, error) {
	minutes, ok, err := bake.Rewarm(b)
	oven, hot := message.OvenHeat(bake.RewarmC), message.Celsius(bake.RewarmedC)
	if err != nil || !ok {
		return message.New("To warm it again: {oven} under foil until it is {hot} in the middle; the last minutes without.",
			oven, hot), err
	}
	return message.New(
		"To warm it again from the fridge: {oven} under foil, about {n} min, until it is {hot} in the middle; the last {bare} "+
			"without foil.",
		oven,
		message.Count(int(math.Ceil(minutes/warmStepMin)*warmStepMin)),
		hot,
		message.Count(bareMin),
	), nil
}

// freezes is how it is frozen and warmed from there, by the model of its bake; a custard weeps and curdles.
func freezes(r balance.Request, d *bake.DessertAnswer) (message.Message, error) {
	if r.Custard != nil {
		return message.New("Do not freeze it: a custard weeps and curdles."), nil
	}
	hard, frozen, err := bake.Freeze(d.Bake)
	if err != nil || !frozen {
		return message.New("Too deep for a household freezer: freeze it in portions."), err
	}
	warm, hot, err := bake.Revive(d.Bake)
	if err != nil {
		return message.Message{}, err
	}
	says := message.New("To freeze: cool it, wrap it close, {hours} h until it is hard; {months} months.",
		message.Count(int(math.Ceil(hard/freezeStepMin))), message.Count(frozenMonths))
	if t := r.Thickener; t != nil && d.Balance.ThickenerG > 0 {
		if th, ok := r.Own.Thickener(t.Key); ok && th.Freeze != "holds" {
			says = message.Sentences(says, message.New("Its thickener {does} after the freezer.", message.Word(th.Freeze)))
		}
	}
	if !hot {
		return message.Sentences(says, message.New("Thaw it in the fridge, then warm it.")), nil
	}
	return message.Sentences(says, message.New(
		"From the freezer: a night in the fridge, then as from there; or {oven} under foil, about {n} min, until it is {hot} in "+
			"the middle.",
		message.OvenHeat(bake.RewarmC),
		message.Count(int(math.Ceil(warm/warmStepMin)*warmStepMin)),
		message.Celsius(bake.RewarmedC),
	)), nil
}

func known(key string, own *larder.Own) bool {
	_, fruit := own.Fruit(key)
	_, other := own.Ingredient(key)
	return fruit || other
}

// named says whether a dessert's name has a fruit in it: "Damson and apple crumble" has "Apple, cooking".
func named(name, fruit string) bool {
	name = strings.ToLower(name)
	plain, _, _ := strings.Cut(larder.Plain(fruit), ",")
	for word := range strings.FieldsSeq(plain) {
		if len(word) >= shortestFruit && strings.Contains(name, word) {
			return true
		}
	}
	return false
}

// shortestFruit is the fewest letters of a fruit: fig.
const shortestFruit = 3

// keeps is how long it keeps, and where.
func keeps(r balance.Request, a *balance.Answer) (int, message.Message) {
	moist := r.Custard != nil
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			i, ok := r.Own.Ingredient(l.Key)
			moist = moist || ok && b.Key == "custard" && i.Role == "egg"
		}
	}
	switch {
	case moist:
		return keepCustardDays, message.New("In the fridge, at {cold} or below: {n} days.", message.Celsius(5),
			message.Count(keepCustardDays))
	case r.Style == "bar":
		return keepBarDays, message.New("Covered, at room temperature: {n} days.", message.Count(keepBarDays))
	}
	return keepDays, message.New(
		"Covered, at room temperature: {n} days; in the fridge {cold} days.",
		message.Count(keepDays),
		message.Count(coldDays),
	)
}
