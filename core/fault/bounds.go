package fault

import "mabbin/core/message"

// Bounds are the least and the most that a field may be, and what that is in.
type Bounds struct {
	Low, High float64
	Unit      string
}

// Length notes a list or map of a part that has fewer entries than least or more than most, and reports whether it had
// neither.
func (f *Faults) Length(at, field string, n, least, most int) bool {
	if n >= least && n <= most {
		return true
	}
	detail := message.New("has {n} entries: enter at most {most}", message.Count(n), message.Count(most))
	if least > 0 {
		detail = message.New("has {n} entries: enter {range}", message.Count(n),
			message.Range(message.Count(least), message.Count(most)))
	}
	bounds := &Bounds{Low: float64(least), High: float64(most)}
	*f = append(*f, Fault{Pointer: at + field, Detail: detail, Outside: bounds})
	return false
}

// In notes a number of a field of a part that is outside its bounds, and reports whether it was inside.
func (f *Faults) In(at, field string, v float64, b Bounds) bool {
	return f.RangeAt(at, field, v, b.Low, b.High, b.Unit)
}
