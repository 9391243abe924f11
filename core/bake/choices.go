package bake

import "mabbin/core/message"

// Covers are what may lie on a dish in the oven.
var Covers = message.Choices{
	message.Choose("none", "open"), message.Choose("foil", "foil"), message.Choose("lid", "lid"),
	message.Choose("parchment", "parchment"), message.Choose("rim", "rim shield"),
}.Usually("none")

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
