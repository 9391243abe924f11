// Package scale judges what lies on the scale against what the ticket wants.
package scale

// How near a weighing has to come: two parts in a hundred, which no set and no clock notices, and what a pocket scale
// shows of the smallest. Working figures.
const (
	nearShare = 0.02
	nearG     = 0.2
)

// Verdict is how a weighing stands.
type Verdict string

// The verdicts.
const (
	Short Verdict = "short"
	Right Verdict = "right"
	Over  Verdict = "over"
)

// Judge says how a weighing of g stands against what is wanted, and what is still to come; below 0 it is too much.
func Judge(wanted, g float64) (verdict Verdict, left float64) {
	left = wanted - g
	switch near := max(nearG, nearShare*wanted); {
	case left > near:
		return Short, left
	case left < -near:
		return Over, left
	}
	return Right, left
}
