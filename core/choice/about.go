package choice

import (
	"mabbin/core/message"
	"mabbin/core/oven"
)

// Abouts are what is shown next to single fields, by their names: what a figure there means.
var Abouts = map[string]message.Message{
	"oven_offset": message.New(
		"Below zero the oven is cooler than its dial, above zero hotter. Every plan allows for this; an oven that was never measured "+
			"may be off by ±{c}.",
		message.CelsiusDifference(oven.UnknownC),
	),
	"coals": message.New(
		"Coals are counted at the Bake station from its size, the heat and the weather. With briquettes a plan is good to ±{c} "+
			"at best; for lump wood use a thermometer.",
		message.CelsiusDifference(oven.CoalsC),
	),
	"altitude": message.New(
		"Water boils {c} cooler for each {m} m of altitude: fruit takes longer, and some starches never set.",
		message.CelsiusDifference(1), message.Count(300)),
}
