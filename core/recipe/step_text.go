package recipe

import (
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/reader"
)

// StepTexts are the steps of a method in words, in their order.
func StepTexts(steps []reader.Step, own *larder.Own) []message.Message {
	out := make([]message.Message, len(steps))
	for i, s := range steps {
		out[i] = stepText(s, own)
	}
	return out
}

// minutesOf is a range of minutes in words; a question mark where none is stated.
func minutesOf(minutes []float64) message.Message {
	if len(minutes) < 2 {
		return message.New("? min")
	}
	if minutes[0] == minutes[1] {
		return message.New("{n} min", message.Number(minutes[0], 0))
	}
	return message.New("{range} min", message.Range(message.Number(minutes[0], 0), message.Number(minutes[1], 0)))
}

func heatOf(s reader.Step) message.Message {
	switch {
	case s.C == nil:
		return message.New("? °")
	case s.Fan:
		return message.New("{heat} fan", message.OvenHeat(*s.C))
	}
	return message.Value(message.OvenHeat(*s.C))
}

var (
	coverWords = map[string]message.Message{
		"foil": message.New("under foil"), "lid": message.New("under a lid"), "parchment": message.New("under paper"),
	}
	juiceWords = map[string]message.Message{
		"leave": message.New("leave the juice out"), "reduce": message.New("boil the juice down"),
		"thicken": message.New("thicken the juice"),
	}
	partWords = map[string]message.Message{
		"all": message.New(
			"the fruit",
		),
		"filling": message.New("the filling"),
		"base":    message.New("the base"),
		"topping": message.New("the topping"),
		"dough":   message.New("the dough"),
		"dessert": message.New("the dessert"),
	}
	whereWords = map[string]message.Message{
		"hob": message.New("on the hob"), "oven": message.New("in the oven"), "microwave": message.New("in the microwave"),
	}
)

// things are what a step is of, by their names.
func things(t reader.Things, own *larder.Own) message.Message {
	if t.Word != "" {
		return partWords[t.Word]
	}
	var names []message.Message
	for _, key := range t.Keys {
		names = append(names, message.Value(message.Name(nameOf(key, own))))
	}
	return message.Value(message.And(names...))
}

func nameOf(key string, own *larder.Own) string {
	if f, ok := own.Fruit(key); ok {
		return larder.Short(f.Name)
	}
	if i, ok := own.Ingredient(key); ok {
		return larder.Short(i.Name)
	}
	return strings.ReplaceAll(key, "_", " ")
}

func stepText(s reader.Step, own *larder.Own) message.Message {
	covered := message.Message{}
	if s.Covered {
		covered = message.New("covered")
	}
	switch s.Kind {
	case reader.CookFruit:
		cool := message.Message{}
		if s.Cool {
			cool = message.New("then let it cool")
		}
		return message.Join(
			", ",
			message.New("Cook {what} {where}: {time}", message.Part(things(s.Of, own)), message.Part(whereWords[s.Where]),
				message.Part(minutesOf(s.Minutes))),
			covered,
			cool,
		)
	case reader.Macerate:
		return message.Join(
			", ",
			message.New("Let the fruit stand with its sugar: {time}", message.Part(minutesOf(s.Minutes))),
			juiceWords[s.Juice],
		)
	case reader.CookSauce:
		if len(s.Minutes) == 0 {
			return message.New("Warm the sauce")
		}
		return message.New("Cook the sauce: {time}", message.Part(minutesOf(s.Minutes)))
	case reader.ParBake:
		weights := message.Message{}
		if s.Weights {
			weights = message.New("with weights first")
		}
		return message.Join(
			", ",
			message.New("Par-bake the base at {heat}: {time}", message.Part(heatOf(s)), message.Part(minutesOf(s.Minutes))),
			weights,
		)
	case reader.Chill:
		return message.New("Chill {what}: {time}", message.Part(partWords[s.Of.Word]), message.Part(minutesOf(s.Minutes)))
	case reader.Bake:
		return message.Join(
			", ",
			message.New("Bake at {heat}: {time}", message.Part(heatOf(s)), message.Part(minutesOf(s.Minutes))),
			coverWords[s.Cover],
		)
	case reader.AddLate:
		return message.New("Put {what} on", message.Part(things(s.Of, own)))
	case reader.PushUnder:
		return message.New("Push the crust into the juice")
	case reader.Turn:
		return message.New("Turn the dish")
	case reader.Baste:
		return message.New("Spoon the juice over")
	case reader.Wash:
		return message.New("Brush with {what}", message.Part(things(s.Of, own)))
	case reader.Freeze:
		return message.New("Freeze one")
	case reader.Cut:
		return message.New("Cut into {n}", message.Count(s.Pieces))
	}
	if len(s.Minutes) == 0 {
		return message.New("Let it cool")
	}
	return message.New("Let it stand: {time}", message.Part(minutesOf(s.Minutes)))
}
