package units

import "mabbin/core/message"

// What a kitchen's settings may be.
var (
	Cups = message.Choices{
		holds(USCup, USCup.ML(), "{ml} ml, US"), holds(MetricCup, MetricCup.ML(), "{ml} ml, metric"),
		holds(ImperialCup, ImperialCup.ML(), "{ml} ml, half a pint"),
	}
	Spoons = message.Choices{
		holds(USSpoon, USSpoon.TbspML(), "{ml} ml, US"), holds(MetricSpoon, MetricSpoon.TbspML(), "{ml} ml, metric"),
		holds(AustralianSpoon, AustralianSpoon.TbspML(), "{ml} ml, Australian"),
	}
	EggSizes = message.Choices{
		{Value: string(USEggs), Label: message.New("US: large is {much}", message.Grams(eggG[USEggs]["large"]))},
		{Value: string(UKEggs), Label: message.New("UK and EU: large is {much}", message.Grams(eggG[UKEggs]["large"]))},
	}
	WeightsIn = message.Choices{
		message.Choose("g", "grams"), message.Choose("oz", "ounces"), message.Choose("spoons", "cups and spoons"),
	}
	HeatIn = message.Choices{
		message.Choose("c", "°C"), message.Choose("f", "°F"), message.Choose("gas", "gas mark"),
		message.Choose("fan", "°C with fan"),
	}
	LengthsIn = message.Choices{message.Choose("cm", "cm and mm"), message.Choose("in", "inches")}
	Englishes = message.Choices{
		asItIs(UK, "British: cornflour, hob"),
		asItIs(US, "American: cornstarch, stove"),
	}.Usually(
		string(UK),
	)
	Decimals = message.Choices{asItIs(Point, "0.5"), asItIs(Comma, "0,5")}.Usually(string(Point))
)

// asItIs is a choice that reads the same however the kitchen reads.
func asItIs[T ~string](value T, text string) message.Choice {
	return message.Choice{Value: string(value), Label: message.Value(message.Text(text))}
}

// holds is a measure that holds so many ml, in words of its country.
func holds[T ~string](value T, ml float64, text string) message.Choice {
	return message.Choice{Value: string(value), Label: message.New(text, message.Number(ml, 1))}
}

// SettingKey is a setting of a kitchen that is chosen.
type SettingKey string

// The settings, in the order in which they are chosen.
const (
	SetEnglish SettingKey = "english"
	SetDecimal SettingKey = "decimal"
	SetWeights SettingKey = "weights"
	SetHeat    SettingKey = "heat"
	SetLengths SettingKey = "lengths"
	SetCup     SettingKey = "cup"
	SetSpoon   SettingKey = "spoon"
	SetEggs    SettingKey = "eggs"
)

// Switch is one of a kitchen's settings as it is chosen.
type Switch struct {
	Key     SettingKey // the choices' too
	Title   message.Message
	Choices message.Choices
	About   message.Message
}

// Switches are the settings that are chosen, in their order.
var Switches = []Switch{
	{
		SetEnglish, message.New("Words"), Englishes,
		message.New("Both are understood when you type. Your own texts stay as you wrote them."),
	},
	{
		SetDecimal, message.New("Decimal sign"), Decimals,
		message.New("Both are understood when you type."),
	},
	{
		SetWeights, message.New("Weights"), WeightsIn,
		message.New("With cups and spoons, grams are still shown; fruit is always weighed."),
	},
	{
		SetHeat, message.New("Ovens"), HeatIn,
		message.New("With fan counts {c} less, by the everyday rule.", message.CelsiusDifference(FanC)),
	},
	{SetLengths, message.New("Lengths"), LengthsIn, message.Message{}},
	{
		SetCup, message.New("Cup"), Cups,
		message.New("Pint, quart and fluid ounce are imperial with the half-pint cup, and US otherwise."),
	},
	{
		SetSpoon, message.New("Tablespoon"), Spoons,
		message.New("A teaspoon is a third of it (a quarter of the Australian one)."),
	},
	{SetEggs, message.New("Egg sizes"), EggSizes, message.New("Weights without the shell.")},
}
