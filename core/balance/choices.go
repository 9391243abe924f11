package balance

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// microwave is a place to cook fruit first.
const microwave = "microwave"

// What may be chosen of a dessert, in addition to what stands in the tables.
var (
	PortionSizes = message.Choices{
		message.Choose("tasting", "tasting"), message.Choose("standard", "usual"), message.Choose("hearty", "hearty"),
	}.Usually("standard")
	Sweetnesses = message.Choices{
		message.Choose("tart", "tart"), message.Choose("standard", "usual"), message.Choose("sweet", "sweet"),
		message.Choose("savoury", "savoury"),
	}.Usually("standard")
	StyleNames = message.Words(larder.Styles.Keys()...)
	FatStates  = message.Words("cold", "soft", "melted")
	Crumbs     = message.Words("fine", "chunks")
	TopColours = message.Choices{
		message.Choose("pale", "pale golden"), message.Choose("golden", "golden"), message.Choose("deep", "deep golden"),
		message.Choose("dark", "dark"),
	}.Usually("golden")
	Tools         = message.Words("fingers", "grater", "fork", "mixer", "processor")
	FruitSizes    = message.Words("small", "medium", "large").Usually("medium")
	PrecookPlaces = message.Words("hob", "oven", microwave).Usually("hob")
	Greasings     = message.Choices{
		message.Choose("", "usual"), message.Choose(greaseButter, "a film of butter"),
		message.Choose(greaseCoat, "butter for taste"), message.Choose(greaseOil, "oil"),
		message.Choose(greaseSling, "paper sling"), message.Choose(greaseNone, "nothing"),
	}
	// ToppingFats are the fats that a topping is made with, by their keys in the tables.
	ToppingFats = message.Choices{
		message.Choose("butter", "butter"), message.Choose("vegan_block", "plant block"),
		message.Choose("sunflower_oil", "oil"), message.Choose("shortening", "shortening"),
	}.Usually("butter")
	// Limits are what the fruit goes by.
	Limits = message.Choices{
		message.Choose(byFill, "usual heap"), message.Choose(byHeadspace, "limited by the space below the rim"),
		message.Choose(byWeight, "as weighed"),
	}
)
