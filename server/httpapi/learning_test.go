package httpapi

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"mabbin/api"
	"mabbin/core/learn"
)

// lessonsOf are what a log teaches, by what is said of each.
func lessonsOf(x api.KitchenLearnt, state learn.State) (out []string) {
	for _, l := range x.Lessons {
		if l.State == state {
			out = append(out, l.Says.String())
		}
	}
	return out
}

// The yard's log teaches what is true of the yard, and no more: its old range runs cooler than its Shelf says, its
// figs are dry and its oat crumble browns fast.
func TestTheYardsLogTeachesWhatIsTrue(t *testing.T) {
	h, yard := theYard(t)
	x := get[api.KitchenLearnt](t, call(h, http.MethodGet, yard+"/learnt", ""), http.StatusOK)
	used := strings.Join(lessonsOf(x, learn.StateUsed), "\n")
	for _, want := range []string{"Old range runs", "cooler than was known", "Fig gives", "less juice", "Oat crumble browns"} {
		if !strings.Contains(used, want) {
			t.Errorf("%q is not learnt: %s", want, used)
		}
	}
	if n := strings.Count(used, "\n") + 1; n != 3 {
		t.Errorf("%d lessons: %s", n, used)
	}
	if agrees := strings.Join(lessonsOf(x, learn.StateAgrees), "\n"); !strings.Contains(agrees, "agree with the tables") {
		t.Errorf("nothing agrees with the tables: %s", agrees)
	}
	if len(x.Points) < 10 {
		t.Errorf("%d times are laid beside what was foreseen", len(x.Points))
	}
}

// A correction that is switched off is not taken, and is taken again when it is switched on.
func TestACorrectionIsSwitchedOff(t *testing.T) {
	h, yard := theYard(t)
	x := get[api.KitchenLearnt](t, call(h, http.MethodGet, yard+"/learnt", ""), http.StatusOK)
	says := x.Says
	for _, l := range x.Lessons {
		if l.State == learn.StateUsed && l.What == learn.OvenOffset {
			says.Off = append(says.Off, l.Name)
		}
	}
	if len(says.Off) != 1 {
		t.Fatalf("off: %v", says.Off)
	}
	body, err := json.Marshal(says)
	if err != nil {
		t.Fatal(err)
	}
	off := get[api.KitchenLearnt](t, call(h, http.MethodPut, yard+"/learnt", string(body)), http.StatusOK)
	if got := lessonsOf(off, learn.StateOff); len(got) != 1 || !strings.HasPrefix(got[0], "Old range") {
		t.Errorf("off: %q", got)
	}
	w := call(h, http.MethodPut, yard+"/learnt", `{"off":[{"what":"mood","key":""}],"left_out":[],"changed":[]}`)
	if w.Code != http.StatusBadRequest && w.Code != http.StatusUnprocessableEntity {
		t.Errorf("a mood is switched off: %d %s", w.Code, w.Body)
	}
}
