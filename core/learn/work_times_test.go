package learn

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"mabbin/core/day"
)

// Who is slower than was calculated with is calculated with so; once is too little to tell, and a time that was ticked
// off at another hour teaches nothing.
func TestMinutesOfHands(t *testing.T) {
	told := []day.ActualTime{
		{Kind: "fruit", Planned: 10, Actual: 15},
		{Kind: "fruit", Planned: 20, Actual: 29},
		{Kind: "fruit", Planned: 12, Actual: 19},
		{Kind: "fruit", Planned: 10, Actual: 14},
		{Kind: "fruit", Planned: 10, Actual: 90},
		{Kind: "topping", Planned: 8, Actual: 8},
		{Kind: "topping", Planned: 8, Actual: 9},
		{Kind: "topping", Planned: 8, Actual: 7},
		{Kind: "assemble", Planned: 6, Actual: 12},
	}
	want := map[string]struct {
		state State
		says  string
	}{
		"fruit":    {StateUsed, "more time here than the working figure"},
		"topping":  {StateAgrees, "3 times, in agreement"},
		"assemble": {StateFew, "too few for a result"},
	}
	for _, h := range EstimateWorkTimes(told) {
		l := h.Finding(false)
		if w := want[h.Kind]; l.State != w.state || !strings.Contains(l.Text.String(), w.says) {
			t.Errorf("%s: %s, %q", h.Kind, l.State, l.Text)
		}
		if h.Kind == "fruit" && (h.Factor < 1.2 || h.Factor > 1.6 || h.Times != 4) {
			t.Errorf("the fruit takes %.2f of what was reckoned, from %d times", h.Factor, h.Times)
		}
		if off := h.Finding(true); off.State != StateOff || off.Text.IsZero() && h.Used {
			t.Errorf("%s, switched off: %+v", h.Kind, off)
		}
	}
}

// Of simulated hands, what is said of them holds as often as it should.
func TestWhatIsSaidOfHandsHolds(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 5))
	var held covered
	for range 400 {
		truth := handsSD * chance.NormFloat64()
		var told []day.ActualTime
		for range 5 + chance.IntN(15) {
			x := truth + handsError*chance.NormFloat64()
			told = append(told, day.ActualTime{Kind: "fruit", Planned: 1000, Actual: int(1000 * math.Exp(x))})
		}
		for _, h := range EstimateWorkTimes(told) {
			held.z((math.Log(h.Factor) - truth) / h.SD)
		}
	}
	held.promised(t, "hands", 0.42, 0.62, 0.84, 0.97)
}
