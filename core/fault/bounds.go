package fault

// Bounds are the least and the most that a field may be, and what that is in.
type Bounds struct {
	Low, High float64
	Unit      string
}

// In notes a number of a field of a part that is outside its bounds, and reports whether it was inside.
func (f *Faults) In(at, field string, v float64, b Bounds) bool {
	return f.RangeAt(at, field, v, b.Low, b.High, b.Unit)
}
