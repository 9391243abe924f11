package units

// HabitKey is a region by how its kitchens measure and read.
type HabitKey string

// The regions.
const (
	HabitBritish  HabitKey = "british"
	HabitAmerican HabitKey = "american"
	HabitEuropean HabitKey = "european"
)

// Habit is how the kitchens of a region measure and read: what a new kitchen begins with.
type Habit struct {
	Key      HabitKey
	Name     string
	Text     string // what it sets, in a line
	Settings Settings
}

// Habits are the usual ones, the British first.
func Habits() []Habit {
	british := Metric
	british.Currency = "£"
	european := Metric
	european.Decimal = Comma
	return []Habit{
		{HabitBritish, "British", "grams, °C, cornflour, UK eggs", british},
		{HabitAmerican, "American", "cups, °F, inches, cornstarch, US eggs", Settings{
			Cup:      USCup,
			Spoon:    USSpoon,
			Eggs:     USEggs,
			Weights:  "spoons",
			Heat:     "f",
			Lengths:  "in",
			Currency: "$", Containers: map[string]float64{},
			English: US,
			Decimal: Point,
		}},
		{HabitEuropean, "European", "grams, °C, 0,5 for a half, EU eggs", european},
	}
}
