package bake

// Elapsed is the part of stages that is over at a minute; past their end the last one goes on.
func Elapsed(stages []Stage, minute float64) []Stage {
	var out []Stage
	for _, s := range stages {
		if minute <= 0 {
			break
		}
		s.Minutes = min(s.Minutes, minute)
		minute -= s.Minutes
		out = append(out, s)
	}
	if minute > 0 && len(out) > 0 { // it is still in, past its time
		out[len(out)-1].Minutes += minute
	}
	return out
}
