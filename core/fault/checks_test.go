package fault

import (
	"errors"
	"math"
	"strings"
	"testing"

	"mabbin/core/message"
)

// Each check reports whether a value is right, and notes what would be.
func TestChecks(t *testing.T) {
	few := message.Words("low", "high")
	for name, c := range map[string]struct {
		check func(f *Faults) bool
		want  string // "" where nothing is wrong
	}{
		"at the lower bound":      {func(f *Faults) bool { return f.Range("/x", 3, 3, 5, "cm") }, ""},
		"at the upper bound":      {func(f *Faults) bool { return f.Range("/x", 5, 3, 5, "cm") }, ""},
		"below":                   {func(f *Faults) bool { return f.Range("/x", 2.9, 3, 5, "cm") }, "/x: is 2.9 cm: enter 3 to 5 cm"},
		"above, another unit":     {func(f *Faults) bool { return f.Range("/x", 6, 3, 5, "%") }, "/x: is 6 %: enter 3 to 5 %"},
		"not a number":            {func(f *Faults) bool { return f.Range("/x", math.NaN(), 3, 5, "g") }, "/x: is not a number: enter 3 to 5 g"},
		"infinite":                {func(f *Faults) bool { return f.Range("/x", math.Inf(1), 3, 5, "") }, "/x: is not a number: enter 3 to 5"},
		"within bounds":           {func(f *Faults) bool { return f.In("/a", "/x", 4, Bounds{3, 5, "g"}) }, ""},
		"outside bounds":          {func(f *Faults) bool { return f.In("/a", "/x", 9, Bounds{3, 5, "g"}) }, "/a/x: is 9 g: enter 3 to 5 g"},
		"a list that is long":     {func(f *Faults) bool { return f.Length("/a", "/x", 4, 0, 3) }, "/a/x: has 4 entries: enter at most 3"},
		"a list that is short":    {func(f *Faults) bool { return f.Length("", "/x", 0, 1, 3) }, "/x: has 0 entries: enter 1 to 3"},
		"a list":                  {func(f *Faults) bool { return f.Length("", "/x", 3, 1, 3) }, ""},
		"a word":                  {func(f *Faults) bool { return f.OneOf("/x", "low", "low", "high") }, ""},
		"no word":                 {func(f *Faults) bool { return f.OneOf("/x", "", "low", "high") }, `/x: is "": use one of low, high`},
		"a choice":                {func(f *Faults) bool { return f.Among("", "/x", "high", few) }, ""},
		"no choice":               {func(f *Faults) bool { return f.Among("/a", "/x", "mid", few) }, `/a/x: is "mid": use one of low, high`},
		"a choice left out":       {func(f *Faults) bool { return f.AmongOrNone("", "/x", "", few) }, ""},
		"a choice not left out":   {func(f *Faults) bool { return f.Among("", "/x", "", few) }, `/x: is "": use one of low, high`},
		"no choice, may be empty": {func(f *Faults) bool { return f.AmongOrNone("", "/x", "mid", few) }, `/x: is "mid": use one of low, high`},
	} {
		var f Faults
		right := c.check(&f)
		if got := f.Error(); right != (c.want == "") || got != c.want {
			t.Errorf("%s: %v, %q, want %q", name, right, got, c.want)
		}
		if (f.Err() == nil) != right {
			t.Errorf("%s: the error is %v", name, f.Err())
		}
	}
}

// Bounds and words of a fault are values, too: the contract is written from them.
func TestFaultsHaveWhatWouldBeRight(t *testing.T) {
	var f Faults
	f.Range("/x", 9, 3, 5, "g")
	f.OneOf("/y", "c", "a", "b")
	f.Length("", "/z", 9, 0, 2)
	f.Add("/w", message.New("is missing"))
	if b := f[0].Outside; b == nil || *b != (Bounds{3, 5, "g"}) || f[0].OneOf != nil {
		t.Errorf("%+v", f[0])
	}
	if w := f[1].OneOf; strings.Join(w, "") != "ab" || f[1].Outside != nil {
		t.Errorf("%+v", f[1])
	}
	if b := f[2].Outside; b == nil || *b != (Bounds{High: 2}) {
		t.Errorf("%+v", f[2])
	}
	if f[3].Pointer != "/w" || f[3].Outside != nil || f[3].OneOf != nil {
		t.Errorf("%+v", f[3])
	}
}

func TestPointers(t *testing.T) {
	if got := Key("a/b~c"); got != "a~1b~0c" {
		t.Errorf("a key is %q", got)
	}
	whole := Faults{{Pointer: "/dish/depth_cm"}, {Pointer: "/style"}}
	var f Faults
	if !errors.As(Within("/dish", whole.Err()), &f) || f[0].Pointer != "/depth_cm" || f[1].Pointer != "/style" {
		t.Errorf("within its part: %v", f)
	}
	if whole[0].Pointer != "/dish/depth_cm" {
		t.Error("the whole is changed")
	}
	plain := errors.New("gone")
	if got := Within("/dish", plain); !errors.Is(got, plain) {
		t.Errorf("another error: %v", got)
	}
	if got := NoSuch(
		message.New("fruit"),
		"moon",
	).String(); got != `there is no fruit "moon": see the larder for all keys` {
		t.Error(got)
	}
}

func TestGuard(t *testing.T) {
	plain := errors.New("gone")
	if err := Guard(func() error { return plain }); !errors.Is(err, plain) {
		t.Errorf("an error is %v", err)
	}
	err := Guard(func() error { panic("broken") })
	if err == nil || !strings.Contains(err.Error(), "panic: broken") || !strings.Contains(err.Error(), "checks_test.go") {
		t.Errorf("a panic is %v", err)
	}
}
