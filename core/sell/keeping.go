package sell

import (
	"math"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Keeping is how a dessert that was baked is served, held, kept, warmed again and frozen.
type Keeping struct {
	Keep     message.Message `json:"keep"`
	KeepDays int             `json:"keep_days"`
	Rewarm   message.Message `json:"rewarm"`
	Serve    message.Message `json:"serve"`
	Hold     message.Message `json:"hold"`
	// Freeze is how it is frozen, and how it comes back from there.
	Freeze message.Message `json:"freeze"`
}

// How long a dessert keeps, days, and how it is warmed again. Working figures: the local food authority's code and a
// licensed professional decide.
const (
	keepCustardDays = 3
	coldDays        = 4
	bareMin         = 8 // at the end of warming again, without foil
	warmStepMin     = 5.0
	freezeStepMin   = 60.0
	frozenMonths    = 3
)

// KeepingOf is that of a dessert that is baked so: its minutes are by the model of its bake.
func KeepingOf(r balance.Request, d *bake.DessertAnswer) (k Keeping, err error) {
	if k.Rewarm, err = rewarm(d.Bake); err != nil {
		return k, err
	}
	if k.Freeze, err = freezes(r, d); err != nil {
		return k, err
	}
	k.Serve = message.New(
		"Serve it warm, with cold cream, custard or ice cream: these contain milk, the last two usually egg as well.")
	if r.Custard != nil || larder.StyleOf(r.Style).ServedCold {
		k.Serve = message.New("Serve it cold, or just warm.")
	}
	k.Hold = hold()
	k.KeepDays, k.Keep = keeps(r, &d.Balance)
	return k, nil
}

// rewarm is how it is warmed again, by the model of its bake.
func rewarm(b bake.Request) (message.Message, error) {
	minutes, ok, err := bake.Rewarm(b)
	oven, hot := message.OvenHeat(bake.RewarmC), message.Celsius(bake.RewarmedC)
	if err != nil || !ok {
		return message.New(
			"To reheat: {oven} under foil until it is {hot} in the middle; take the foil off for the last minutes.",
			oven,
			hot,
		), err
	}
	return message.New(
		"To reheat from the fridge: {oven} under foil, about {n} min, until it is {hot} in the middle; the last {bare} "+
			"without foil.",
		oven,
		warmMinutes(minutes),
		hot,
		message.Count(bareMin),
	), nil
}

// warmMinutes are the minutes of warming again as they are reported: rather more than less.
func warmMinutes(m float64) message.Arg {
	return message.Count(int(math.Ceil(m/warmStepMin) * warmStepMin))
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
	text := message.New("To freeze: cool it, wrap it tightly, freeze {hours} h until hard; keeps {months} months.",
		message.Count(int(math.Ceil(hard/freezeStepMin))), message.Count(frozenMonths))
	if does := d.Balance.AfterFreezer(r); !does.IsZero() {
		text = message.Sentences(text, message.New("{Does}.", message.Part(does)))
	}
	if !hot {
		return message.Sentences(text, message.New("Thaw it in the fridge, then warm it.")), nil
	}
	return message.Sentences(text, message.New(
		"From the freezer: thaw overnight in the fridge, then reheat as above; or {oven} under foil, about {n} min, until it is {hot} in "+
			"the middle.",
		message.OvenHeat(bake.RewarmC),
		warmMinutes(warm),
		message.Celsius(bake.RewarmedC),
	)), nil
}

// keeps is how long it keeps, and where.
func keeps(r balance.Request, a *balance.Answer) (int, message.Message) {
	style := larder.StyleOf(r.Style)
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
	case style.ServedCold:
		return style.KeepDays, message.New("Covered, at room temperature: {n} days.", message.Count(style.KeepDays))
	}
	return style.KeepDays, message.New("Covered, at room temperature: {n} days; in the fridge {cold} days.",
		message.Count(style.KeepDays), message.Count(coldDays))
}
