package learn

import (
	"math"
	"strings"
	"testing"
)

// An oven's history lies about what was learnt of it, and holds the truth of its bakes as often as it says; with more
// bakes a fruit's juice is known more surely.
func TestHistories(t *testing.T) {
	if testing.Short() {
		t.Skip("many bakes are estimated: it runs without the race detector")
	}
	keep := keeper()
	var ovens, juices covered
	for seed := range 20 {
		k := simulate(t, keep, uint64(500+seed), 16, 0)
		got, err := Learn(t.Context(), k.request, keep, nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, h := range got.Histories(map[string]string{"range": "Old range", "deck": ""}, nil) {
			if len(h.Points) < fewestBakes || len(h.Ticks) < 2 || h.From.At.After(h.To.At) || h.Title.String() == "" {
				t.Fatalf("%+v", h)
			}
			last := h.Points[0].At
			for _, p := range h.Points {
				if p.At.Before(last) || p.Low > p.Value || p.High < p.Value || !strings.Contains(p.Text.String(), "90 % range") ||
					p.Low < h.Ticks[0].Value || p.High > h.Ticks[len(h.Ticks)-1].Value {
					t.Errorf("%v: %+v", h.ParameterName, p)
				}
				last = p.At
				b := k.bake(p.ID)
				o := &k.ran.bakes[b]
				d := o.drivers(k.ran.mean, k.ran.own[b])
				if h.Kind == OvenOffset {
					truth := o.offsetC + o.surface.asOffset(d[byOven], d[byHeat])
					ovens.in(Range{P05: p.Low, P25: p.Value, P75: p.Value, P95: p.High}, truth)
					continue
				}
				truth := 100 * math.Expm1(o.lnRelease(0, k.ran.mean)+k.ran.own[b][1])
				juices.in(Range{P05: p.Low, P25: p.Value, P75: p.Value, P95: p.High}, truth)
			}
		}
	}
	ovens.promised(t, "ovens", 0, 1, 0.84, 0.98)
	juices.promised(t, "juices", 0, 1, 0.82, 0.98)
	if ovens.of < 100 || juices.of < 50 {
		t.Errorf("%d points of ovens, %d of juices", ovens.of, juices.of)
	}
}

// bake is the place of a bake in the log.
func (k simulated) bake(id string) int {
	for i, b := range k.request.Bakes {
		if b.ID == id {
			return i
		}
	}
	return -1
}
