package topping

// bowlFull is how full a bowl is for rubbing in, of its volume. A working figure.
const bowlFull = 0.6

// MostMixG is the most of a topping that is mixed at once, g: what a kitchen says, and what its bowl takes of one of a
// density, whichever is less; 0 is not reported, and any amount.
func MostMixG(saidG, bowlML, densityGPerML float64) float64 {
	bowl := bowlFull * bowlML * densityGPerML
	switch {
	case bowl == 0:
		return saidG
	case saidG == 0:
		return bowl
	}
	return min(saidG, bowl)
}
