package units

// Settings are how a kitchen measures, and what it reads.
type Settings struct {
	Cup        Cup                `json:"cup"`
	Spoon      Spoon              `json:"spoon"`
	Eggs       Eggs               `json:"eggs"`
	Weights    string             `json:"weights"` // g, oz or spoons
	Heat       string             `json:"heat"`    // c, f, gas or fan
	Lengths    string             `json:"lengths"` // cm or in
	Currency   string             `json:"currency"`
	Containers map[string]float64 `json:"containers"` // g in each
	AltitudeM  float64            `json:"altitude_m"` // of the kitchen: water boils cooler up there
	English    English            `json:"english,omitempty"`
	Decimal    Decimal            `json:"decimal,omitempty"`
}

// English is whose words a kitchen uses. The zero value is British.
type English string

// The two Englishes.
const (
	UK English = "uk"
	US English = "us"
)

// Decimal is how a kitchen writes a half. The zero value is a point.
type Decimal string

// The decimal marks.
const (
	Point Decimal = "point"
	Comma Decimal = "comma"
)

// Metric is the settings of a kitchen with scales.
var Metric = Settings{
	Cup:        MetricCup,
	Spoon:      MetricSpoon,
	Eggs:       UKEggs,
	Weights:    "g",
	Heat:       "c",
	Lengths:    "cm",
	Currency:   "€",
	Containers: map[string]float64{},
	English:    UK,
	Decimal:    Point,
}
