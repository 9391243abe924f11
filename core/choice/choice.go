// Package choice lists every choice that is offered, by its name in the contract. The choices themselves is next to
// what they are of.
package choice

import (
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/diet"
	"mabbin/core/dish"
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/outcome"
	"mabbin/core/oven"
	"mabbin/core/topping"
	"mabbin/core/units"
)

// Lists are the choices by name. The contract's enumerations that bear a name are written from them (api/rules).
var Lists = map[string]message.Choices{
	"cup":            units.Cups,
	"spoon":          units.Spoons,
	"eggs":           units.EggSizes,
	"weights":        units.WeightsIn,
	"heat":           units.HeatIn,
	"lengths":        units.LengthsIn,
	"english":        units.Englishes,
	"decimal":        units.Decimals,
	"shape":          dish.Shapes,
	"heating":        oven.Heatings,
	"dial":           oven.Dials,
	"shelf":          oven.Heights,
	"wind":           oven.Winds,
	"fuel":           oven.Fuels,
	"basis":          larder.FigureBases,
	"band":           filling.Bands,
	"fat":            topping.FatVerdicts,
	"topping_sugar":  topping.SugarVerdicts,
	"dough":          topping.Stiffnesses,
	"amount":         topping.Amounts,
	"portion":        balance.PortionSizes,
	"sweetness":      balance.Sweetnesses,
	"fruit_size":     balance.FruitSizes,
	"precook":        balance.PrecookPlaces,
	"greasing":       balance.Greasings,
	"limit":          balance.Limits,
	"style":          balance.StyleNames,
	"fat_state":      balance.FatStates,
	"crumb":          balance.Crumbs,
	"top_colour":     balance.TopColours,
	"tool":           balance.Tools,
	"macerated":      filling.Macerated,
	"cover":          bake.Covers,
	"question":       bake.Questions,
	"topping_fat":    balance.ToppingFats,
	"finish_time":    larder.FinishTimes,
	"diet":           diet.Choices,
	"serve":          day.Serves,
	"juice_told":     message.Words(bake.JuiceWords...),
	"fruit_told":     outcome.Fruits,
	"top_told":       outcome.Tops,
	"base_told":      outcome.Bases,
	"sweetness_told": outcome.Sweetnesses,
}
