package day_test

import (
	"slices"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
)

// Hot, warm and cold are temperatures of the middle: a crumble is hot half an hour after the oven and warm after more
// than an hour; a lid of dough is not kept so long; what is cut is set first, and reheated.
func TestFromTheOvenToTheTable(t *testing.T) {
	style := func(style, topping, base string) func(*bake.DessertRequest) {
		return func(q *bake.DessertRequest) {
			q.Request.Style, q.Request.Topping.Key = style, topping
			if base != "" {
				q.Request.Base = &balance.BaseInput{Key: base}
			}
		}
	}
	crumble := style("crumble", "crumble_classic", "")
	for name, c := range map[string]struct {
		change     func(*bake.DessertRequest)
		serve      day.Serve
		after      []string // kinds of what follows the bake
		from, to   int      // min that it rests first
		hold, most int      // min that it may stand then
	}{
		"hot crumble":  {crumble, day.Hot, []string{"rest"}, 15, 45, 20, 60},
		"warm crumble": {crumble, day.Warm, []string{"rest"}, 45, 100, 25, 70},
		"warm cobbler": {style("cobbler", "biscuit_drop", ""), day.Warm, []string{"rest"}, 30, 75, 0, 45},
		"cold crumble": {crumble, day.Cold, []string{"rest", "set", "cut"}, 60, 240, -1, -1},
		"warm bars": {
			style("bar", "bar_dough", "bar_dough"), day.Warm, []string{"rest", "set", "cut", "rewarm", "rest"}, 30, 360, 30, 30,
		},
		"cold bars": {style("bar", "bar_dough", "bar_dough"), day.Cold, []string{"rest", "set", "cut"}, 30, 360, -1, -1},
	} {
		t.Run(name, func(t *testing.T) {
			q, a := dessert(t, c.change)
			due := sevenPM
			b := day.BatchOf(day.Job{ID: "x", Dessert: q, Due: &due, Serve: c.serve}, a)
			i := slices.IndexFunc(b.Tasks, func(x day.Task) bool { return x.Kind == "bake" })
			var kinds []string
			for _, x := range b.Tasks[i+1:] {
				kinds = append(kinds, x.Kind)
			}
			without := slices.DeleteFunc(slices.Clone(c.after), func(k string) bool {
				return k == "set" && !slices.Contains(kinds, "set") // it is cold enough on the rack
			})
			if !slices.Equal(kinds, without) {
				t.Fatalf("after the oven: %v, want %v", kinds, c.after)
			}
			if n := b.Tasks[i+1].Minutes; n < c.from || n > c.to {
				t.Errorf("it rests %d min, want %d to %d", n, c.from, c.to)
			}
			switch {
			case c.hold < 0 && b.HoldMax != nil:
				t.Errorf("cold, it may stand %d min only", *b.HoldMax)
			case c.hold >= 0 && (b.HoldMax == nil || *b.HoldMax < c.hold || *b.HoldMax > c.most):
				t.Errorf("it may stand %v, want %d to %d", b.HoldMax, c.hold, c.most)
			}
		})
	}
}
