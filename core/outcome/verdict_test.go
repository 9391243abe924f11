package outcome

import (
	"strings"
	"testing"

	"mabbin/core/bake"
)

func TestVerdict(t *testing.T) {
	yes, no := true, false
	for name, c := range map[string]struct {
		told  Details
		words bake.Words
		state State
		says  string
		next  string
	}{
		"nothing told":   {Details{}, bake.Words{}, NotLogged, "not logged yet", ""},
		"as planned":     {Details{}, bake.Words{Juice: "spoonable", Top: "golden", BoiledOver: &no}, Right, "As planned: spoonable, top golden, did not boil over", ""},
		"thin":           {Details{}, bake.Words{Juice: "runny"}, Wrong, "runny, thinner than planned", "one step thicker"},
		"thin, and warm": {Details{Cooled: &no}, bake.Words{Juice: "runny"}, Wrong, "still warm", "let it cool"},
		"thin, and cold": {Details{Cooled: &yes}, bake.Words{Juice: "runny"}, Wrong, "thinner than planned", "thicker"},
		"thick":          {Details{}, bake.Words{Juice: "slices"}, Wrong, "thicker than planned", "thinner"},
		"many": {
			Details{Base: "soft"},
			bake.Words{Fruit: "mush", Top: "burnt", BoiledOver: &yes},
			Wrong,
			"fruit mushy, topping burnt, base soft, boiled over",
			"bake it shorter; cover it from the start",
		},
	} {
		v := c.told.Verdict("spoonable", c.words)
		if v.State != c.state || !strings.Contains(v.Summary.String(), c.says) ||
			!strings.Contains(v.Next.String(), c.next) ||
			(c.next == "") != v.Next.IsZero() {
			t.Errorf("%s: %s, %q, next %q", name, v.State, v.Summary, v.Next)
		}
	}
}
