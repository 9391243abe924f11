package units

import "mabbin/core/fault"

// How many containers a kitchen may name, and what one of them may hold, g.
const (
	mostContainers = 200
	leastContainer = 1
	mostContainer  = 20000
)

// CheckContainers notes containers, grams by name, that hold nothing sensible.
func CheckContainers(at string, c map[string]float64, f *fault.Faults) {
	f.Length(at, "", len(c), 0, mostContainers)
	for name, g := range c {
		f.Range(at+"/"+fault.Key(name), g, leastContainer, mostContainer, "g")
	}
}
