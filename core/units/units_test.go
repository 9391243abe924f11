package units

import (
	"math"
	"testing"
)

func TestSpoonsAreTheNearestRealOnes(t *testing.T) {
	cases := []struct {
		name string
		g    float64
		d    Density
		want string
	}{
		{"cornflour", 20.94, DensityOf(128, 2.67, ""), "2 tbsp + 2 tsp"},
		{"a cup of sugar", 200, DensityOf(200, 4.2, ""), "1 cup"},
		{"a cup and a bit", 212.3, DensityOf(200, 4.2, ""), "1 cup + 1 tbsp"},
		{"a little under half a cup", 60.5, DensityOf(125, 2.6, ""), "a scant 1/2 cup"},
		{"a little over", 194, DensityOf(125, 2.6, ""), "a generous 1 1/2 cups"},
		{"flour", 187, DensityOf(125, 2.6, ""), "1 1/2 cups"},
		{"brown sugar is packed", 110, DensityOf(220, 4.6, "packed"), "1/2 cup packed"},
		{"salt", 1.5, DensityOf(292, 6, ""), "1/4 tsp"},
		{"too little for a spoon", 0.2, DensityOf(0, 2.6, ""), "a pinch"},
		{"off by more than it hides", 2.3, DensityOf(292, 6, ""), "1/2 tsp (+30 %)"},
	}
	for _, c := range cases {
		h, ok := Conventions{}.Spoons(c.g, c.d)
		if !ok || h.Text != c.want {
			t.Errorf("%s: %g g is %q, want %q", c.name, c.g, h.Text, c.want)
		}
	}
	if h, ok := (Conventions{}).Spoons(100, Density{}); ok {
		t.Errorf("without a density 100 g became %q", h.Text)
	}
}

func TestSpoonsStayNearTheGrams(t *testing.T) {
	for _, d := range []Density{DensityOf(125, 2.6, ""), DensityOf(200, 4.2, ""), DensityOf(85, 1.8, "")} {
		for g := 1.5; g < 900; g *= 1.07 {
			for _, c := range []Conventions{{}, {Cup: MetricCup, Spoon: MetricSpoon}, {Cup: MetricCup, Spoon: AustralianSpoon}, {Cup: ImperialCup, Spoon: MetricSpoon}} {
				h, ok := c.Spoons(g, d)
				if limit := 13 + 60/g; !ok || math.Abs(h.ErrorPct) > limit {
					t.Errorf("%.1f g by %+v is %s, off by %.1f %%", g, c, h.Text, h.ErrorPct)
				}
			}
		}
	}
}

func TestShownIsWhatTheScaleShows(t *testing.T) {
	for g, want := range map[float64]string{0: "0", 0.44: "0.4", 3.75: "3.8", 9.94: "9.9", 9.96: "10", 20.94: "21", 973.4: "973"} {
		if got := Shown(g); got != want {
			t.Errorf("%g g is shown as %s, want %s", g, got, want)
		}
	}
}

func TestFractionsAreWrittenAsCooksDo(t *testing.T) {
	for x, want := range map[float64]string{0.25: "1/4", 1.0 / 3: "1/3", 0.5: "1/2", 2.0 / 3: "2/3", 0.75: "3/4", 1: "1", 1.5: "1 1/2", 2 + 2.0/3: "2 2/3", 12: "12"} {
		if got := Fraction(x); got != want {
			t.Errorf("%g is written %q, want %q", x, got, want)
		}
	}
}
