package app

import (
	"context"
	"testing"
	"time"

	"mabbin/core/learn"
	"mabbin/core/oven"

	"github.com/google/uuid"
)

// lessonBook is a log that is learnt from, with what it has taught.
type lessonBook struct {
	calendar
	bakes  []BakeRecord
	says   learn.Preferences
	learnt learn.Used
	sure   learn.Posterior
	times  int
	state  LearningState
}

func (l *lessonBook) Bakes(
	context.Context, uuid.UUID, BakeFilter, *uuid.UUID, int,
) ([]BakeRecord, bool, error) {
	return l.bakes, false, nil
}

func (l *lessonBook) LearningPreferences(context.Context, uuid.UUID) (learn.Preferences, error) {
	return l.says, nil
}

func (l *lessonBook) LearningState(context.Context, uuid.UUID) (LearningState, error) {
	s := l.state
	s.Preferences = l.says
	return s, nil
}

func (l *lessonBook) UpdateLearningPreferences(
	_ context.Context, _ uuid.UUID, _ Precondition, change func(learn.Preferences) (learn.Preferences, error),
) (s learn.Preferences, err error) {
	l.says, err = change(l.says)
	return l.says, err
}

func (l *lessonBook) SetLearnt(
	_ context.Context, _ uuid.UUID, _ time.Time, of int64, u learn.Used, p learn.Posterior, f Findings,
) (learn.Used, bool, error) {
	l.learnt, l.sure = u, p
	l.state.Findings, l.state.LearntOf = f, of
	l.times++
	return u, true, nil
}

func (l *lessonBook) Posterior(context.Context, uuid.UUID) (learn.Posterior, error) {
	return l.sure, nil
}

// learned is a kitchen whose answers take what its log has taught.
type learned struct {
	kitchens
	book *lessonBook
}

func (k learned) Learnt(context.Context, uuid.UUID) (learn.Used, error) { return k.book.learnt, nil }

// Five bakes of a cool oven teach that it is cool: the Bench predicts later and more narrowly, until it is switched
// off; what can't be used of the log teaches nothing.
func TestALogTeachesItsKitchen(t *testing.T) {
	deck := KitchenOven{ID: uuid.New(), Name: "Deck", Oven: oven.Oven{Kind: oven.Indoor, Heating: "conventional"}}
	book := &lessonBook{}
	k := learned{kitchens{id: uuid.New(), ovens: []KitchenOven{deck}}, book}
	clock := &clock{at: saturday}
	reported := 0
	l := &Learning{
		Store: book, Kitchens: k, Surfaces: NewSurfaces(), Clock: clock.now, Notify: func(uuid.UUID) { reported++ },
	}
	heat, minutes := 190.0, 60.0
	setting := Setting{OvenID: &deck.ID, OvenC: &heat, Minutes: &minutes}
	q := BenchQuestion{Kitchen: &k.id, Request: crumble(), Setting: setting}
	before, err := l.Forecast(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	r := before.Forecast.MiddleBubbles
	result, err := Bench{Kitchens: k}.Plan(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	for i := range 5 {
		noted := r.Value + 11 + float64(i%3)
		b := BakeRecord{
			ID: uuid.New(), Title: "Crumble", BakedAt: saturday.AddDate(0, 0, -i), Request: crumble(), Result: result.Balance,
			Setting: setting,
		}
		b.Details.MiddleMin = &noted
		book.bakes = append(book.bakes, b)
	}
	book.bakes = append(book.bakes, BakeRecord{ID: uuid.New(), Unusable: ErrUnusable})
	err = l.Update(t.Context(), k.id, nil)
	x := book.state.Findings
	if err != nil || reported != 1 || book.sure.Bakes != 5 || len(x.Histories) == 0 || len(book.learnt.Ovens) != 1 {
		t.Fatalf("%d told, from %d bakes, %+v, %v", reported, book.sure.Bakes, book.learnt, err)
	}
	after, err := l.Forecast(t.Context(), q)
	now := after.Forecast.MiddleBubbles
	if err != nil || now.Value <= r.Value+5 || now.P95-now.P05 >= r.P95-r.P05 {
		t.Errorf("foreseen before %+v, now %+v; %v", r, now, err)
	}
	off, err := l.SetPreferences(t.Context(), k.id, learn.Preferences{
		Off: []learn.ParameterName{
			{Kind: learn.OvenOffset, Key: deck.ID.String()},
		},
		LeftOut: []string{},
		Changed: []learn.ChangedOven{},
	}, "")
	if err != nil || off.Items[0].State != learn.StateOff {
		t.Errorf("switched off, it is shown as %+v, %v", off.Findings, err)
	}
	if err := l.Update(t.Context(), k.id, nil); err != nil || len(book.learnt.Ovens) != 0 ||
		book.state.Findings.Items[0].State != learn.StateOff {
		t.Errorf("switched off: %+v, %v", book.learnt, err)
	}
	back, err := l.Forecast(t.Context(), q)
	if err != nil || back.Forecast.MiddleBubbles.Value >= now.Value {
		t.Errorf("switched off it is foreseen after %+v; %v", back.Forecast.MiddleBubbles, err)
	}
	if _, err := l.SetPreferences(
		t.Context(),
		k.id,
		learn.Preferences{Off: []learn.ParameterName{{Kind: "mood"}}},
		"",
	); !has(
		err,
		"/off/0",
	) {
		t.Errorf("a mood: %v", err)
	}
	nowhere := q
	nowhere.Kitchen, nowhere.Setting.OvenID = nil, nil
	if o, err := l.Forecast(t.Context(), nowhere); err != nil || o.Basis.IsZero() {
		t.Errorf("nowhere yet: %+v, %v", o, err)
	}
}
