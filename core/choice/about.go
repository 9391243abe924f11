package choice

import (
	"mabbin/core/message"
	"mabbin/core/oven"
)

// Abouts are what stands beside single fields, by their names: what a figure there means.
var Abouts = map[string]message.Message{
	"oven_offset": message.New(
		"Below nought it is cooler than it says, above it hotter. Every plan allows for it; an oven that was never measured "+
			"may be {c} off either way.", message.CelsiusDifference(oven.UnknownC)),
	"coals": message.New(
		"Coals are counted for its size, the heat and the weather at the Bake station. With briquettes a plan is good to {c} "+
			"at best; lumps of hardwood want a thermometer.",
		message.CelsiusDifference(oven.CoalsC),
	),
	"altitude": message.New(
		"Water boils {c} cooler for each {m} m: fruit takes longer, and some starches never set.",
		message.CelsiusDifference(1), message.Count(300)),
}
