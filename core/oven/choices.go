package oven

import "mabbin/core/message"

// What an oven, a fire and the air around it may be.
var (
	Heatings = message.Choices{message.Choose("conventional", "conventional"), message.Choose("fan", "with a fan")}.
			Usually("conventional")
	Dials = message.Choices{
		message.Choose("", "the kitchen's unit"), message.Choose("c", "°C"), message.Choose("f", "°F"),
		message.Choose("gas", "gas marks"),
	}
	Heights = message.Words("low", "middle", "high").Usually("middle")
	Winds   = message.Words("calm", "breeze", "windy").Usually("calm")
	Fuels   = message.Choices{
		message.Choose(Briquettes, "briquettes"), message.Choose(Lumps, "lump wood"),
	}.Usually(Briquettes)
)
