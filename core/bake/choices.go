package bake

import "mabbin/core/message"

// Covers are what may lie on a dish in the oven.
var Covers = message.Choices{
	message.Choose("none", "open"), message.Choose("foil", "foil"), message.Choose("lid", "lid"),
	message.Choose("parchment", "parchment"), message.Choose("rim", "rim shield"),
}.Usually("none")

// PutOn and TakeOff are what is said of a cover that goes on or comes off while a dessert is in the oven.
var (
	PutOn = map[string]message.Message{
		"foil":      message.New("Put foil on"),
		"lid":       message.New("Put the lid on"),
		"parchment": message.New("Put baking paper on"),
		"rim":       message.New("Put foil around the rim"),
	}
	TakeOff = map[string]message.Message{
		"foil":      message.New("Take the foil off"),
		"lid":       message.New("Take the lid off"),
		"parchment": message.New("Take the baking paper off"),
		"rim":       message.New("Take the foil off the rim"),
	}
)

// TurnTo is what is said of an oven that is set to another heat.
func TurnTo(was, is float64) message.Message {
	if is < was {
		return message.New("Turn the oven down to {heat}", message.OvenHeat(is))
	}
	return message.New("Turn the oven up to {heat}", message.OvenHeat(is))
}

// Questions are those that have more than one answer, as their alternatives are compared.
var Questions = message.Choices{
	message.Choose("fat", "Fat in the topping"),
	message.Choose("tool", "How to mix"),
	message.Choose("ratio", "Crumble ratio"),
	message.Choose("crumb", "Size of crumb"),
	message.Choose("coverage", "Coverage"),
	message.Choose("base", "The base"),
	message.Choose("cover", "Cover"),
	message.Choose(
		"sugar",
		"Sugar in the fruit",
	),
	message.Choose("lighter", "Lighter"),
	message.Choose("frozen", "Frozen fruit"),
}
