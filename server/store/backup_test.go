package store_test

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/sell"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/formats"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

// archive is what a kitchen's backup holds.
func archive(t *testing.T, s *store.Store, kitchen uuid.UUID) []byte {
	t.Helper()
	var b bytes.Buffer
	w, err := formats.NewArchive(&b, wentIn)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.BackUp(
		t.Context(),
		kitchen,
		w.Row,
		func(p app.Picture) error { return w.Picture(p.ID.String(), p.JPEG, p.Small) },
	); err != nil {
		t.Fatal(err)
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func opened(t *testing.T, raw []byte) *formats.Archive {
	t.Helper()
	a, err := formats.OpenArchive(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func restored(ctx context.Context, t *testing.T, s *store.Store, raw []byte) (app.Kitchen, error) {
	t.Helper()
	return s.Restore(ctx, uuid.New(), opened(t, raw), func(name string) string { return name + ", again" })
}

// full is a kitchen with something of everything in it: the demo's, with a bake under way, a correction and a row of
// its own.
func full(t *testing.T) *store.Store {
	t.Helper()
	s, w := inTheOven(t)
	ctx := t.Context()
	see := seeing(t, s)
	_, err := s.UpdateWatched(ctx, demo.Kitchen.ID, w.ID, func(w *app.Watched) error {
		w.SetProbe(watch.InMiddle)
		for minute := range 5 {
			if err := w.Read(
				ctx,
				20.25+float64(minute),
				wentIn.Add(time.Duration(minute)*time.Minute+6*time.Second),
				see,
			); err != nil {
				return err
			}
		}
		for _, c := range w.Calls { // out, so that an answer names what it withdrew
			if c.Kind == watch.TakeOut {
				return w.Answer(c.ID, watch.Done, wentIn.Add(50*time.Minute))
			}
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	page, _, err := s.Bakes(ctx, demo.Kitchen.ID, app.BakeFilter{}, nil, 200)
	if err != nil {
		t.Fatal(err)
	}
	last := page[len(page)-1]
	slices.SortStableFunc(page, func(a, b app.BakeRecord) int { // one with a picture
		return cmp.Compare(len(fmt.Sprint(b.Picture)), len(fmt.Sprint(a.Picture)))
	})
	if page[0].Picture == nil {
		t.Fatal("no bake of the demo has a picture")
	}
	if err := s.SetCountdown(ctx, demo.Kitchen.ID, app.Countdown{
		ID: uuid.New(), Title: "On its way", ReadyAt: wentIn,
		Steps: []app.CountdownStep{{At: wentIn, Kind: "fruit", Text: message.New("Prepare the fruit"), State: "waiting"}},
	}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddStock(ctx, demo.Kitchen.ID, uuid.New(), []sell.Line{{Key: "butter", G: 500}}, wentIn,
		func(x sell.Stock) (sell.Stock, error) { return x, nil }); err != nil {
		t.Fatal(err)
	}
	if _, err := s.UpdateLearningPreferences(
		ctx,
		demo.Kitchen.ID,
		"",
		func(x learn.Preferences) (learn.Preferences, error) {
			x.Off, x.LeftOut = []learn.ParameterName{{Kind: learn.Steam}}, []string{page[1].ID.String()}
			return x, nil
		},
	); err != nil {
		t.Fatal(err)
	}
	if _, _, err := s.SetLearnt(ctx, demo.Kitchen.ID, wentIn, 1, learn.Used{
		Bakes: 9, Factors: larder.Factors{Release: map[string]float64{"plum": 1.2}},
		Ovens: map[string]learn.UsedOven{last.OvenID.String(): {OffsetC: -12, HeatFactor: 0.95, OffByC: 4}},
	}, learn.Posterior{}, app.NoFindings()); err != nil {
		t.Fatal(err)
	}
	runny := "runny"
	if _, err := s.CorrectBake(
		ctx,
		demo.Kitchen.ID,
		page[0].ID,
		uuid.New(),
		app.Outcome{Juice: &runny, Note: "Put right", Picture: page[0].Picture},
		wentIn, ""); err != nil {
		t.Fatal(err)
	}
	return s
}

func TestABackupRestoredIsTheSameKitchen(t *testing.T) {
	s := full(t)
	raw := archive(t, s, demo.Kitchen.ID)
	a := opened(t, raw)
	for _, table := range store.Tables() {
		n := 0
		if err := a.Rows(table, func(json.RawMessage) error { n++; return nil }); err != nil {
			t.Fatal(err)
		}
		if n == 0 && table != "own_row" {
			t.Errorf("nothing of %s is in it", table)
		}
	}

	// Where it is not there: the same again, row by row and picture by picture.
	other := storetest.Open(t)
	k, err := restored(t.Context(), t, other, raw)
	if err != nil || k.ID != demo.Kitchen.ID || k.Name != demo.Kitchen.Name {
		t.Fatalf("%+v, %v", k, err)
	}
	if again := archive(t, other, k.ID); !bytes.Equal(raw, again) {
		t.Error("what was restored backs up as something else")
	}

	// Where it is there already: a second one in addition to it, in which everything points at its own.
	k, err = restored(t.Context(), t, s, raw)
	if err != nil || k.ID == demo.Kitchen.ID || k.Name != "Oxlip Yard, again" {
		t.Fatalf("%+v, %v", k, err)
	}
	first, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{}, nil, 200)
	if err != nil {
		t.Fatal(err)
	}
	second, _, err := s.Bakes(t.Context(), k.ID, app.BakeFilter{}, nil, 200)
	if err != nil || len(second) != len(first) {
		t.Fatalf("%d bakes of %d, %v", len(second), len(first), err)
	}
	for i, b := range second {
		a := first[i]
		if b.ID == a.ID || *b.CardID == *a.CardID || b.Title != a.Title || !b.BakedAt.Equal(a.BakedAt) ||
			len(b.Corrections) != len(a.Corrections) {
			t.Fatalf("%s: %+v became %+v", a.Title, a.ID, b.ID)
		}
		for j, c := range b.Corrections {
			if was := a.Corrections[j].Was.Picture; was != nil && (c.Was.Picture == nil || *c.Was.Picture == *was) {
				t.Errorf("%s: what was told before points at the first kitchen's picture", a.Title)
			}
		}
		if (a.Picture == nil) != (b.Picture == nil) {
			t.Errorf("%s: its picture is lost", a.Title)
		}
		if b.Picture != nil {
			if jpeg, err := s.PictureOf(t.Context(), k.ID, *b.Picture, false); err != nil || len(jpeg) == 0 {
				t.Errorf("%s: its picture is not there: %v", a.Title, err)
			}
		}
	}
	w, err := s.Watched(t.Context(), k.ID)
	if err != nil || len(w) != 1 || len(w[0].Calls) == 0 || len(w[0].Readings) != 5 {
		t.Errorf("the watch is %+v, %v", w, err)
	}
	learnt, err := s.Learnt(t.Context(), k.ID)
	if _, own := learnt.Ovens[second[len(second)-1].OvenID.String()]; err != nil || !own || learnt.Release["plum"] != 1.2 {
		t.Errorf("it has learnt %+v, %v", learnt, err)
	}
	preferences, err := s.LearningPreferences(t.Context(), k.ID)
	if err != nil || len(preferences.Off) != 1 || len(preferences.LeftOut) != 1 ||
		!slices.ContainsFunc(second, func(b app.BakeRecord) bool { return b.ID.String() == preferences.LeftOut[0] }) {
		t.Errorf("it says %+v, %v", preferences, err)
	}
	if err := s.RemoveKitchen(t.Context(), k.ID); err != nil {
		t.Error(err)
	}
}

// tampered is a small kitchen's archive with something wrong in it.
type tampered struct {
	rows    map[string][]string
	form    int // left out: long ago
	picture bool
}

func (x tampered) Rows(table string, row func(json.RawMessage) error) error {
	for _, r := range x.rows[table] {
		if err := row(json.RawMessage(r)); err != nil {
			return err
		}
	}
	return nil
}

func (x tampered) Form() int { return x.form }

func (x tampered) Picture(string) (app.Picture, error) {
	if !x.picture {
		return app.Picture{}, errors.New("it is not in the archive")
	}
	return app.Picture{Width: 1, Height: 1, JPEG: []byte("x"), Small: []byte("x")}, nil
}

func TestABadArchiveChangesNothing(t *testing.T) {
	s := storetest.Open(t)
	const kitchen, other = `{"id":"00000000-0000-4000-8000-000000000001","name":"K"}`, "00000000-0000-4000-8000-0000000000ff"
	const in = `"kitchen_id":"00000000-0000-4000-8000-000000000001"`
	card := `{"id":"00000000-0000-4000-8000-000000000002",` + in + `,"name":"C"}`
	version := func(request string) string {
		return `{"id":"00000000-0000-4000-8000-000000000003",` + in + `,"card_id":"00000000-0000-4000-8000-000000000002","number":1,"saved_at":"2026-01-01T00:00:00Z","request":` + request + `}`
	}
	for name, c := range map[string]struct {
		rows map[string][]string
		at   string
	}{
		"no kitchen":        {map[string][]string{}, "/kitchen"},
		"two kitchens":      {map[string][]string{"kitchen": {kitchen, kitchen}}, "/kitchen/1"},
		"no id":             {map[string][]string{"kitchen": {`{"id":7,"name":"K"}`}}, "/kitchen/0/id"},
		"no row":            {map[string][]string{"kitchen": {`[1]`}}, "/kitchen/0"},
		"another kitchen's": {map[string][]string{"kitchen": {kitchen}, "card": {strings.Replace(card, "000000000001", "0000000000ff", 1)}}, "/card/0/kitchen_id"},
		"a newer column":    {map[string][]string{"kitchen": {`{"id":"` + other + `","name":"K","mood":"fine"}`}}, "/kitchen/0/mood"},
		"a request of none": {map[string][]string{"kitchen": {kitchen}, "card": {card}, "card_version": {version(`{"style":"soup"}`)}}, "/card_version/0/request/style"},
		"not a request":     {map[string][]string{"kitchen": {kitchen}, "card": {card}, "card_version": {version(`{"style":7}`)}}, "/card_version/0/request"},
		"a lost picture":    {map[string][]string{"kitchen": {kitchen}, "picture": {`{"id":"` + other + `",` + in + `,"width":1,"height":1,"added_at":"2026-01-01T00:00:00Z"}`}}, "/picture/0"},
		"a stray reading":   {map[string][]string{"kitchen": {kitchen}, "watch_reading": {`{"watch_id":"` + other + `","minute":1,"c":20}`}}, "/watch_reading/0/watch_id"},
		"a card that is not": {map[string][]string{"kitchen": {kitchen}, "card_version": {version(`{"style":"crumble","fruits":[{"key":"plum","share":1}],"topping":{"key":"crumble_classic"},
			"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"}}`)}}, ""},
		"a dish of lead": {map[string][]string{"kitchen": {kitchen}, "dish": {`{"id":"` + other + `",` + in + `,"name":"D","shape":"square","length_cm":20,"depth_cm":5,"material":"lead"}`}}, "/dish/0/material"},
	} {
		_, err := s.Restore(t.Context(), uuid.New(), tampered{rows: c.rows}, func(s string) string { return s })
		var f fault.Faults
		if !errors.As(err, &f) || !slices.ContainsFunc(f, func(x fault.Fault) bool { return x.Pointer == c.at }) {
			t.Errorf("%s: %v", name, err)
		}
		if all, err := s.Kitchens(t.Context()); err != nil || len(all) != 0 {
			t.Fatalf("%s: %d kitchens are left, %v", name, len(all), err)
		}
	}
	if _, err := s.Restore(
		t.Context(),
		uuid.New(),
		tampered{rows: map[string][]string{"kitchen": {kitchen}, "card": {card}}},
		nil,
	); err != nil {
		t.Errorf("a small kitchen: %v", err)
	}
}

func TestResultsAreCorrected(t *testing.T) {
	s := storetest.Open(t)
	ctx, kitchen := t.Context(), demo.Kitchen.ID
	if _, err := demo.Load(ctx, s, wentIn); err != nil {
		t.Fatal(err)
	}
	page, _, err := s.Bakes(ctx, kitchen, app.BakeFilter{Words: "Strawberries were wet"}, nil, 1)
	if err != nil {
		t.Fatal(err)
	}
	was, saucy, first := page[0], "saucy", uuid.New()
	for range 2 { // sent twice, it is one
		b, err := s.CorrectBake(
			ctx,
			kitchen,
			was.ID,
			first,
			app.Outcome{Juice: &saucy, Note: "It stood up overnight."},
			wentIn, "")
		if err != nil || *b.Juice != "saucy" || b.Fruit != nil || len(b.Corrections) != 1 {
			t.Fatalf("%+v, %v", b.Outcome, err)
		}
		if c := b.Corrections[0]; *c.Was.Juice != "runny" || c.Was.Note != was.Note || !c.At.Equal(wentIn) {
			t.Errorf("it said %+v", c)
		}
	}
	b, err := s.CorrectBake(ctx, kitchen, was.ID, uuid.New(), was.Outcome, wentIn.Add(time.Minute), "")
	if err != nil || *b.Juice != "runny" || len(b.Corrections) != 2 || *b.Corrections[0].Was.Juice != "saucy" {
		t.Errorf("taken back: %+v, %v", b.Outcome, err)
	}
	if b.Result.FruitG != was.Result.FruitG || b.BakedAt != was.BakedAt {
		t.Error("what was predicted has changed")
	}
	if _, err := s.CorrectBake(
		ctx,
		kitchen,
		uuid.New(),
		uuid.New(),
		app.Outcome{},
		wentIn, ""); !errors.Is(
		err,
		app.ErrNotFound,
	) {
		t.Errorf("no bake: %v", err)
	}
	if _, err := s.CorrectBake(
		ctx,
		uuid.New(),
		was.ID,
		uuid.New(),
		app.Outcome{},
		wentIn, ""); !errors.Is(
		err,
		app.ErrNotFound,
	) {
		t.Errorf("of another kitchen: %v", err)
	}
}

func TestPicturesThatNobodyNamesAreSwept(t *testing.T) {
	s := storetest.Open(t)
	ctx, kitchen := t.Context(), demo.Kitchen.ID
	if _, err := demo.Load(ctx, s, wentIn); err != nil {
		t.Fatal(err)
	}
	stray := app.Picture{ID: uuid.New(), Width: 1, Height: 1, JPEG: []byte("whole"), Small: []byte("small")}
	if err := s.AddPicture(ctx, kitchen, stray, wentIn); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		after time.Duration
		there bool
	}{{time.Hour, true}, {25 * time.Hour, false}} {
		if err := s.SweepPictures(ctx, wentIn.Add(c.after-24*time.Hour)); err != nil {
			t.Fatal(err)
		}
		small, err := s.PictureOf(ctx, kitchen, stray.ID, true)
		if c.there != (string(small) == "small") || c.there != (err == nil) {
			t.Errorf("after %v: %q, %v", c.after, small, err)
		}
	}
	page, _, err := s.Bakes(ctx, kitchen, app.BakeFilter{}, nil, 200)
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range page {
		if b.Picture != nil {
			if _, err := s.PictureOf(ctx, kitchen, *b.Picture, false); err != nil {
				t.Errorf("the picture of %s is swept: %v", b.Title, err)
			}
		}
	}
}

// A bake that runs sixty times as fast moves back with its calls, and no other does.
func TestABakeRunsAhead(t *testing.T) {
	s, w := inTheOven(t)
	ctx := t.Context()
	oven := app.OvenWatch{Store: s, Kitchens: s, Clock: func() time.Time { return wentIn }, Notify: func(uuid.UUID) {}}
	if moved, err := oven.Advance(ctx, time.Second); err != nil || moved {
		t.Fatalf("nothing runs ahead, and it moved: %v, %v", moved, err)
	}
	if _, err := oven.Simulate(ctx, demo.Kitchen.ID, w.ID, 60, 0); err != nil {
		t.Fatal(err)
	}
	if moved, err := oven.Advance(ctx, 10*time.Second); err != nil || !moved {
		t.Fatalf("%v, %v", moved, err)
	}
	now := look(t, s, 1)
	if d := w.StartedAt.Sub(now.StartedAt); d != 590*time.Second {
		t.Errorf("ten seconds are %v", d)
	}
	for i, c := range now.Calls {
		if d := w.Calls[i].DueAt.Sub(c.DueAt); d != 590*time.Second {
			t.Errorf("%s moved by %v", c.Kind, d)
		}
	}
}

// A restore tells how far it is, and one that is stopped leaves nothing behind.
func TestAStoppedRestoreLeavesNothing(t *testing.T) {
	s := full(t)
	raw := archive(t, s, demo.Kitchen.ID)
	ctx, stop := context.WithCancel(t.Context())
	a := opened(t, raw)
	var last, all int64
	a.Tick = func(read, of int64) error {
		if read < last || read > of {
			t.Fatalf("%d of %d bytes, after %d", read, of, last)
		}
		if last, all = read, of; 2*read > of {
			stop()
		}
		return ctx.Err()
	}
	if _, err := s.Restore(
		ctx,
		uuid.New(),
		a,
		func(name string) string { return name + ", again" },
	); !errors.Is(
		err,
		context.Canceled,
	) {
		t.Fatalf("stopped at %d of %d bytes it said %v", last, all, err)
	}
	if kitchens, err := s.Kitchens(t.Context()); err != nil || len(kitchens) != 1 {
		t.Errorf("%d kitchens, %v", len(kitchens), err)
	}
	if _, err := restored(t.Context(), t, s, raw); err != nil {
		t.Errorf("and afterwards it can't be restored: %v", err)
	}
}

// An archive from before sentences had values is read: what was said is the text that it was.
func TestAnArchiveWithPlainSentencesIsRestored(t *testing.T) {
	s := full(t)
	var b bytes.Buffer
	w, err := formats.NewArchive(&b, wentIn)
	if err != nil {
		t.Fatal(err)
	}
	plain := func(table string, row json.RawMessage) error {
		if table != "watch_call" {
			return w.Row(table, row)
		}
		var columns map[string]json.RawMessage
		if err := json.Unmarshal(row, &columns); err != nil {
			return err
		}
		columns["text"], columns["caution"] = json.RawMessage(`"Turn the oven down to 170 C"`), json.RawMessage(`""`)
		if row, err = json.Marshal(columns); err != nil {
			return err
		}
		return w.Row(table, row)
	}
	if err := s.BackUp(
		t.Context(),
		demo.Kitchen.ID,
		plain,
		func(p app.Picture) error { return w.Picture(p.ID.String(), p.JPEG, p.Small) },
	); err != nil {
		t.Fatal(err)
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	other := storetest.Open(t)
	k, err := restored(t.Context(), t, other, b.Bytes())
	if err != nil {
		t.Fatal(err)
	}
	all, err := other.Watched(t.Context(), k.ID)
	if err != nil || len(all) == 0 || len(all[0].Calls) == 0 {
		t.Fatalf("%+v, %v", all, err)
	}
	for _, c := range all[0].Calls {
		if c.Text.String() != "Turn the oven down to 170 C" || !c.Caution.IsZero() {
			t.Errorf("%q, %q", c.Text, c.Caution)
		}
	}
}
