package recipe

import (
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/parse"
	"mabbin/core/reader"
	"mabbin/core/units"
)

// Request is a recipe to be judged in a dish.
type Request struct {
	Lines   []LineRequest `json:"lines"`
	Steps   []reader.Step `json:"steps,omitempty"` // of the method; left out: nothing is known of it
	Savoury bool          `json:"savoury,omitempty"`
	// Dishes is how many the amounts are for; left out: one.
	Dishes int `json:"dishes,omitempty"`
	// Split holds the shares of one dough for base and topping; left out: two thirds below.
	Split      map[string]float64 `json:"split,omitempty"`
	Style      string             `json:"style"`
	Dish       *dish.Dish         `json:"dish,omitempty"` // left out: the lines are only read
	Cup        units.Cup          `json:"cup,omitempty"`
	Spoon      units.Spoon        `json:"spoon,omitempty"`
	Eggs       units.Eggs         `json:"eggs,omitempty"`
	Containers map[string]float64 `json:"containers,omitempty"`
	Own        *larder.Own        `json:"own,omitempty"`
	Setting    *bake.Setting      `json:"setting,omitempty"` // with its stages; left out: the bake is not judged
}

// Conventions are the kitchen's, for reading.
func (q Request) Conventions() units.Conventions {
	return units.Conventions{Cup: q.Cup, Spoon: q.Spoon, Eggs: q.Eggs, Containers: q.Containers}
}

// Check finds the wrong fields of a request that need no reading.
func Check(q Request) error {
	var f fault.Faults
	if q.Dish != nil {
		balance.CheckDish(*q.Dish, "/dish", &f)
	}
	units.CheckContainers("/containers", q.Containers, &f)
	q.Own.Check("/own", &f)
	if q.Setting != nil {
		q.Setting.Check("/setting", &f)
	}
	return f.Err()
}

// MeasureRequest is what a baker wrote, to be understood.
type MeasureRequest struct {
	Text       string             `json:"text"`
	Cup        units.Cup          `json:"cup,omitempty"`
	Spoon      units.Spoon        `json:"spoon,omitempty"`
	Eggs       units.Eggs         `json:"eggs,omitempty"`
	Containers map[string]float64 `json:"containers,omitempty"`
	Own        *larder.Own        `json:"own,omitempty"`
}

// Measured is a text as it was understood.
type Measured struct {
	Lines []Row `json:"lines"`
}

// CheckMeasure finds the wrong fields of a MeasureRequest.
func CheckMeasure(q MeasureRequest) error {
	var f fault.Faults
	units.CheckContainers("/containers", q.Containers, &f)
	q.Own.Check("/own", &f)
	return f.Err()
}

// Measure understands a text line by line.
func Measure(q MeasureRequest, p *parse.Vocabulary) (*Measured, error) {
	rows, err := ReadText(
		p,
		q.Text,
		units.Conventions{Cup: q.Cup, Spoon: q.Spoon, Eggs: q.Eggs, Containers: q.Containers},
		q.Own,
	)
	if err != nil {
		return nil, err
	}
	return &Measured{rows}, nil
}
