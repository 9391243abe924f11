package httpapi

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/core/learn"
)

// learnt returns what a log teaches once it has been learnt from.
func learnt(t *testing.T, h http.Handler, yard string) api.KitchenFindings {
	t.Helper()
	for {
		x := get[api.KitchenFindings](t, call(h, http.MethodGet, yard+"/findings", ""), http.StatusOK)
		if !x.Updating {
			return x
		}
		if w := get[api.Work](
			t,
			call(h, http.MethodGet, "/api/v1/work/"+x.Work.String(), ""),
			http.StatusOK,
		); w.State == api.WorkStateFailed {
			t.Fatalf("%+v", w.Problem)
		}
		time.Sleep(20 * time.Millisecond)
	}
}

// lessonsOf are what a log teaches, by what is said of each.
func lessonsOf(x api.KitchenFindings, state learn.State) (out []string) {
	for _, l := range x.Findings {
		if l.State == state {
			out = append(out, l.Text.String())
		}
	}
	return out
}

// The yard's log teaches what is true of the yard, and no more: its old range runs cooler than its Shelf says, its
// figs are dry and its oat crumble browns fast.
func TestTheYardsLogTeachesWhatIsTrue(t *testing.T) {
	h, yard := theYard(t)
	x := learnt(t, h, yard)
	used := strings.Join(lessonsOf(x, learn.StateUsed), "\n")
	for _, want := range []string{"Old range is", "cooler than its dial", "Fig releases", "less juice", "Oat crumble browns"} {
		if !strings.Contains(used, want) {
			t.Errorf("%q is not learnt: %s", want, used)
		}
	}
	if n := strings.Count(used, "\n") + 1; n != 3 {
		t.Errorf("%d lessons: %s", n, used)
	}
	if agrees := strings.Join(
		lessonsOf(x, learn.StateAgrees),
		"\n",
	); !strings.Contains(
		agrees,
		"in agreement with the tables",
	) {
		t.Errorf("nothing agrees with the tables: %s", agrees)
	}
	if len(x.Points) < 10 {
		t.Errorf("%d times are laid beside what was foreseen", len(x.Points))
	}
}

// A correction that is switched off is not taken, and is taken again when it is switched on.
func TestACorrectionIsSwitchedOff(t *testing.T) {
	h, yard := theYard(t)
	x := learnt(t, h, yard)
	text := x.Preferences
	for _, l := range x.Findings {
		if l.State == learn.StateUsed && l.Kind == learn.OvenOffset {
			text.Off = append(text.Off, l.ParameterName)
		}
	}
	if len(text.Off) != 1 {
		t.Fatalf("off: %v", text.Off)
	}
	body, err := json.Marshal(text)
	if err != nil {
		t.Fatal(err)
	}
	off := get[api.KitchenFindings](t, call(h, http.MethodPut, yard+"/findings", string(body)), http.StatusOK)
	if got := lessonsOf(off, learn.StateOff); len(got) != 1 || !strings.HasPrefix(got[0], "Old range") {
		t.Errorf("off: %q", got)
	}
	if got := lessonsOf(learnt(t, h, yard), learn.StateOff); len(got) != 1 {
		t.Errorf("learnt from again: %q", got)
	}
	w := call(h, http.MethodPut, yard+"/findings", `{"off":[{"what":"mood","key":""}],"left_out":[],"changed":[]}`)
	if w.Code != http.StatusBadRequest && w.Code != http.StatusUnprocessableEntity {
		t.Errorf("a mood is switched off: %d %s", w.Code, w.Body)
	}
}

// Whoever asks gets what is known at once; the log is learnt from once for all of them, which can be followed and
// stopped; a kitchen that is deleted meanwhile stops it.
func TestALogIsLearntFromOnceForAll(t *testing.T) {
	h, yard := theYard(t)
	first := get[api.KitchenFindings](t, call(h, http.MethodGet, yard+"/findings", ""), http.StatusOK)
	if !first.Updating || first.Work == nil || len(first.Findings) != 0 {
		t.Fatalf("nothing was learnt yet: %+v", first)
	}
	for range 20 {
		if x := get[api.KitchenFindings](t, call(h, http.MethodGet, yard+"/findings", ""), http.StatusOK); x.Updating &&
			*x.Work != *first.Work {
			t.Fatal("a second one has begun")
		}
	}
	work := "/api/v1/work/" + first.Work.String()
	if w := call(h, http.MethodDelete, work, ""); w.Code != http.StatusNoContent {
		t.Errorf("stopped: %d %s", w.Code, w.Body)
	}
	for get[api.Work](t, call(h, http.MethodGet, work, ""), http.StatusOK).State == api.WorkStateRunning {
		time.Sleep(10 * time.Millisecond)
	}
	x := get[api.KitchenFindings](t, call(h, http.MethodGet, yard+"/findings", ""), http.StatusOK)
	if !x.Updating || *x.Work == *first.Work {
		t.Fatalf("stopped, it begins anew when it is asked for: %v", x.Updating)
	}
	if w := call(h, http.MethodDelete, yard+"?name=Oxlip+Yard", ""); w.Code != http.StatusNoContent {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for get[api.Work](t, call(h, http.MethodGet, "/api/v1/work/"+x.Work.String(), ""), http.StatusOK).State ==
		api.WorkStateRunning {
		time.Sleep(10 * time.Millisecond)
	}
	if w := call(h, http.MethodGet, yard+"/findings", ""); w.Code != http.StatusNotFound {
		t.Errorf("it is learnt from after it was deleted: %d %s", w.Code, w.Body)
	}
}
