package devices

import (
	"math"
	"testing"
	"time"

	"mabbin/core/scale"

	"github.com/google/uuid"
)

func TestAScaleSwingsAndSettles(t *testing.T) {
	var s SimulatedScale
	at := wentIn
	if g, settled := s.Read(at); math.Abs(g) > 0.3 || !settled {
		t.Errorf("empty it shows %g, settled %v", g, settled)
	}
	s.Put(at, 910)
	most := 0.0
	for ms := 100; ms < 500; ms += 50 {
		g, settled := s.Read(at.Add(time.Duration(ms) * time.Millisecond))
		most = max(most, g)
		if settled {
			t.Errorf("settled after %d ms", ms)
		}
	}
	if most < 950 {
		t.Errorf("it never swings over: %g", most)
	}
	at = at.Add(5 * time.Second)
	if g, settled := s.Read(at); math.Abs(g-910) > 1 || !settled {
		t.Errorf("after five seconds %g, settled %v", g, settled)
	}
	s.Tare(at)
	s.Put(at, 2.5)
	s.Put(at.Add(20*time.Second), -1)
	at = at.Add(25 * time.Second)
	if g, settled := s.Read(at); math.Abs(g-1.5) > 0.3 || !settled {
		t.Errorf("a pinch after a tare is %g, settled %v", g, settled)
	}
	s.Clear()
	if g, _ := s.Read(at); math.Abs(g) > 0.3 {
		t.Errorf("cleared it shows %g", g)
	}
}

func TestAHandPoursWhatIsWanted(t *testing.T) {
	var all Scales
	kitchen, at := uuid.New(), wentIn
	wait := func() Shown {
		at = at.Add(6 * time.Second)
		return all.Show(kitchen, at)
	}
	if s := all.Show(kitchen, at); s.Verdict != "" || s.WantedG != 0 {
		t.Errorf("nothing is weighed: %+v", s)
	}
	for _, wanted := range []float64{910, 95, 24, 2.5} {
		all.Tare(kitchen, at)
		all.Want(kitchen, wanted, at)
		if s := all.Show(kitchen, at); s.Verdict != scale.Short {
			t.Errorf("%g g: empty it is %s", wanted, s.Verdict)
		}
		all.Hand(kitchen, Pour, at)
		if s := wait(); s.Verdict != scale.Right || !s.Settled || math.Abs(s.G+s.LeftG-wanted) > 0.15 {
			t.Errorf("%g g: poured it is %+v", wanted, s)
		}
		all.Hand(kitchen, SpoonIn, at)
		if s := wait(); s.Verdict != scale.Over || s.LeftG >= 0 {
			t.Errorf("%g g and a spoon: %+v", wanted, s)
		}
		all.Hand(kitchen, SpoonOut, at)
		if s := wait(); s.Verdict != scale.Right {
			t.Errorf("%g g, the spoon taken out: %+v", wanted, s)
		}
	}
	all.Hand(kitchen, Clear, at)
	if s := wait(); math.Abs(s.G) > 0.3 {
		t.Errorf("cleared: %+v", s)
	}
	if s := all.Show(uuid.New(), at); s.WantedG != 0 {
		t.Error("another kitchen weighs the same")
	}
}

// A scale that nobody has used for long is put away, and one that is used stays as it is.
func TestIdleScalesArePutAway(t *testing.T) {
	var all Scales
	at, left, used := wentIn, uuid.New(), uuid.New()
	for _, k := range []uuid.UUID{left, used} {
		all.Want(k, 100, at)
	}
	at = at.Add(scaleIdle - time.Minute)
	all.Show(used, at)
	at = at.Add(2 * time.Minute)
	all.Show(uuid.New(), at)
	if len(all.all) != 2 || all.Show(used, at).WantedG != 100 {
		t.Errorf("%d scales stand there", len(all.all))
	}
	if all.Show(left, at).WantedG != 0 {
		t.Error("one that was put away still knows what it weighed")
	}
	all.Free(used)
	if all.Show(used, at).WantedG != 0 {
		t.Error("one whose kitchen is gone still knows what it weighed")
	}
}
