package app

import (
	"context"
	"errors"
	"slices"
	"sync"
	"time"

	"mabbin/core/bake"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/watch"

	"github.com/google/uuid"
	lru "github.com/hashicorp/golang-lru/v2"
)

// LearningStore keeps what a log has taught.
type LearningStore interface {
	// Bakes lists the log, the last first; without the sentences of their results.
	Bakes(
		ctx context.Context, kitchen uuid.UUID, q BakeFilter, before *uuid.UUID, limit int,
	) (page []BakeRecord, more bool, err error)
	LearningSays(ctx context.Context, kitchen uuid.UUID) (learn.Says, error)
	// UpdateLearningSays changes it, in one transaction that holds it.
	UpdateLearningSays(
		ctx context.Context, kitchen uuid.UUID, when If, change func(learn.Says) (learn.Says, error),
	) (learn.Says, error)
	// Days are those of a span, with how they were laid.
	Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]Day, error)
	// SetLearnt keeps corrections, as a new version where they are not those that are kept.
	SetLearnt(
		ctx context.Context,
		kitchen uuid.UUID,
		at time.Time,
		u learn.Used,
		p learn.Posterior,
	) (kept learn.Used, changed bool, err error)
	// Posterior is what was learnt last; the zero value where nothing was.
	Posterior(ctx context.Context, kitchen uuid.UUID) (learn.Posterior, error)
}

// Learning is what is done about what the log teaches.
type Learning struct {
	Store    LearningStore
	Kitchens KitchenStore
	Surfaces learn.Keeper
	Clock    Clock
	Notify   Notify
	Failed   func(kitchen uuid.UUID, err error) // what was learnt afterwards and could not be
	under    underWay
}

// underWay are the kitchens whose logs are being learnt from, and whether that is to be done once more.
type underWay struct {
	mu    sync.Mutex
	again map[uuid.UUID]bool
}

// begin is false where it is under way already: it is then done once more when it is over.
func (u *underWay) begin(kitchen uuid.UUID) bool {
	u.mu.Lock()
	defer u.mu.Unlock()
	if u.again == nil {
		u.again = map[uuid.UUID]bool{}
	}
	if _, busy := u.again[kitchen]; busy {
		u.again[kitchen] = true
		return false
	}
	u.again[kitchen] = false
	return true
}

// end says whether it is to be done once more.
func (u *underWay) end(kitchen uuid.UUID) bool {
	u.mu.Lock()
	defer u.mu.Unlock()
	if u.again[kitchen] {
		u.again[kitchen] = false
		return true
	}
	delete(u.again, kitchen)
	return false
}

const (
	surfacesKept = 4096
	learntFrom   = 1000 // of the last bakes: the window of a long log
	learningMost = time.Minute
)

// NewSurfaces keeps the surfaces of bakes: a new bake is run, those of the log are not run again.
func NewSurfaces() learn.Keeper {
	kept, _ := lru.New[[32]byte, *learn.Surface](surfacesKept) // it fails for sizes below one
	return kept
}

// LearntNow is what a log teaches at this moment.
type LearntNow struct {
	*learn.Learnt
	Says    learn.Says
	Lessons []learn.Lesson
	Noticed []NoticedChange
	// Histories are of ovens, and of the juice of fruits.
	Histories []learn.History
	// Unclear are bakes of which minutes were told that lie after their end: they are asked back.
	Unclear []uuid.UUID
	Names   map[uuid.UUID]string // of the log's bakes
}

// NoticedChange is an oven that seems to have changed.
type NoticedChange struct {
	learn.ChangedOven
	Says message.Message
}

// Learn finds what a kitchen's log teaches.
func (l *Learning) Learn(ctx context.Context, kitchen uuid.UUID, tick learn.Tick) (*LearntNow, error) {
	says, err := l.Store.LearningSays(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	x, err := l.log(ctx, kitchen, says)
	if err != nil {
		return nil, err
	}
	learnt, err := learn.Learn(ctx, x.LogRequest, l.Surfaces, tick)
	if err != nil {
		return nil, err
	}
	out := &LearntNow{Learnt: learnt, Says: says, Names: x.names, Noticed: []NoticedChange{}, Unclear: []uuid.UUID{}}
	out.Lessons = learnt.Lessons(x.ovens, x.own)
	out.Histories = learnt.Histories(x.ovens, x.own)
	for _, h := range out.Histories {
		for i := range h.Points {
			p := &h.Points[i]
			if id, err := uuid.Parse(p.ID); err == nil {
				p.Says = message.New("{title}: {says}", message.Text(x.names[id]), message.Part(p.Says))
			}
		}
	}
	hands, err := HandsLearnt(ctx, l.Store, kitchen, x.Now)
	if err != nil {
		return nil, err
	}
	for _, h := range hands {
		out.Lessons = append(out.Lessons, h.Lesson(says.IsOff(learn.Hands, h.Kind)))
	}
	for _, c := range learnt.Changes {
		if name, known := x.ovens[c.Key]; known {
			out.Noticed = append(out.Noticed, NoticedChange{learn.ChangedOven{Oven: c.Key, Since: c.Since}, c.Says(name)})
		}
	}
	for _, p := range learnt.Predictions {
		if id, err := uuid.Parse(p.ID); err == nil && len(p.Past) > 0 {
			out.Unclear = append(out.Unclear, id)
		}
	}
	return out, nil
}

// Afterwards learns from a log that has changed, without anybody waiting for it, and keeps what it teaches.
func (l *Learning) Afterwards(kitchen uuid.UUID) {
	if !l.under.begin(kitchen) {
		return
	}
	go func() {
		for {
			ctx, stop := context.WithTimeout(context.Background(), learningMost)
			if _, err := l.Keep(ctx, kitchen); err != nil && !errors.Is(err, ErrNotFound) && l.Failed != nil {
				l.Failed(kitchen, err)
			}
			stop()
			if !l.under.end(kitchen) {
				return
			}
		}
	}()
}

// AtStart learns from the log of each kitchen whose log has not been learnt from, without anybody waiting for it.
func (l *Learning) AtStart(kitchens func(context.Context) ([]Kitchen, error)) {
	go func() {
		ctx := context.Background()
		all, err := kitchens(ctx)
		if err != nil {
			l.Failed(uuid.Nil, err)
		}
		for _, k := range all {
			if p, err := l.Store.Posterior(ctx, k.ID); err == nil && p.Parameters == nil {
				l.Afterwards(k.ID)
			}
		}
	}()
}

// Keep learns from a log and keeps what it teaches: from then on answers take it.
func (l *Learning) Keep(ctx context.Context, kitchen uuid.UUID) (*LearntNow, error) {
	learnt, err := l.Learn(ctx, kitchen, nil)
	if err != nil {
		return nil, err
	}
	_, changed, err := l.Store.SetLearnt(ctx, kitchen, l.Clock(), learnt.Use(), learnt.Posterior())
	if err == nil && changed {
		l.Notify(kitchen)
	}
	return learnt, err
}

// Say keeps what a kitchen says of what its log teaches, and learns anew.
func (l *Learning) Say(ctx context.Context, kitchen uuid.UUID, says learn.Says, when If) (*LearntNow, error) {
	if err := learn.CheckSays(says); err != nil {
		return nil, err
	}
	_, err := l.Store.UpdateLearningSays(ctx, kitchen, when, func(learn.Says) (learn.Says, error) { return says, nil })
	if err != nil {
		return nil, err
	}
	return l.Keep(ctx, kitchen)
}

// Foresight is what a kitchen foresees its bakes with, and what it says of what its log teaches.
func (l *Learning) Foresight(ctx context.Context, kitchen uuid.UUID) (f learn.Foresight, says learn.Says, err error) {
	f.Keep = l.Surfaces
	if f.Used, err = l.Kitchens.Learnt(ctx, kitchen); err != nil {
		return f, says, err
	}
	if f.Posterior, err = l.Store.Posterior(ctx, kitchen); err != nil {
		return f, says, err
	}
	says, err = l.Store.LearningSays(ctx, kitchen)
	return f, says, err
}

// Foresee is what is foreseen of what is on the Bench, with its ranges, by all that its kitchen's log teaches.
func (l *Learning) Foresee(ctx context.Context, q BenchQuestion) (learn.Outlook, error) {
	var none learn.Outlook
	corrected, err := Bench{Kitchens: l.Kitchens}.request(ctx, q)
	if err != nil {
		return none, err
	}
	a, err := bake.Dessert(ctx, corrected)
	if err != nil {
		return none, err
	}
	see, err := l.Filter(ctx, q.Kitchen, q.Setting.OvenID)
	if err != nil {
		return none, err
	}
	m, err := see(ctx, &watch.Bake{Request: corrected, Predicted: *a, Stages: a.Plan.Stages})
	if err != nil {
		return none, err
	}
	return m.Outlook, nil
}

// Filter foresees bakes in an oven, also while they are under way; nil: in none that the Shelf knows, or nowhere yet.
func (l *Learning) Filter(ctx context.Context, kitchen, oven *uuid.UUID) (watch.Filter, error) {
	f := learn.Foresight{Keep: l.Surfaces}
	var says learn.Says
	var in *ShelfOven
	if kitchen != nil {
		var err error
		if f, says, err = l.Foresight(ctx, *kitchen); err != nil {
			return nil, err
		}
		if oven != nil {
			o, err := l.Kitchens.OneOven(ctx, *kitchen, *oven)
			if err != nil {
				return nil, err
			}
			in = &o
		}
	}
	now := l.Clock()
	return func(ctx context.Context, b *watch.Bake) (*learn.Midway, error) {
		q := b.Request
		q.Request, q.Setting = q.Request.Weighed(&b.Predicted.Balance), unlearnt(q.Setting, in)
		q.Setting.Stages = b.Stages
		x := learn.LoggedBake{ID: "bake", At: now, Oven: ovenKey(oven, now, says), Request: q}
		if seen := b.Probed(); len(seen) > 0 {
			x.Happened = &learn.Probed{Readings: seen}
		}
		return f.Foresee(ctx, x)
	}, nil
}

// taught is a log as it is learnt from, with what its things are called.
type taught struct {
	learn.LogRequest
	names map[uuid.UUID]string // of its bakes
	ovens map[string]string    // by their keys; none that was changed since
	own   *larder.Own
}

// ovenKey is an oven's key in the log; empty: baked in none that the Shelf knows.
func ovenKey(oven *uuid.UUID, at time.Time, says learn.Says) string {
	if oven == nil {
		return ""
	}
	return says.OvenKey(oven.String(), at)
}

// log is a kitchen's log as it is learnt from: weights as they were weighed, stages as they happened, and each oven as
// the Shelf has it.
func (l *Learning) log(ctx context.Context, kitchen uuid.UUID, says learn.Says) (taught, error) {
	out := taught{names: map[uuid.UUID]string{}, ovens: map[string]string{}}
	k, err := l.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return out, err
	}
	if out.own, err = l.Kitchens.Own(ctx, kitchen); err != nil {
		return out, err
	}
	page, _, err := l.Store.Bakes(ctx, kitchen, BakeFilter{}, nil, learntFrom)
	if err != nil {
		return out, err
	}
	out.Now = l.Clock()
	out.Off = says.Off
	ovens := map[uuid.UUID]*ShelfOven{}
	for _, b := range page {
		if b.Unusable != nil {
			continue
		}
		var o *ShelfOven
		if b.OvenID != nil {
			if ovens[*b.OvenID] == nil {
				found, err := l.Kitchens.OneOven(ctx, kitchen, *b.OvenID)
				if err != nil {
					return out, err
				}
				ovens[*b.OvenID] = &found
			}
			o = ovens[*b.OvenID]
		}
		key := ovenKey(b.OvenID, b.BakedAt, says)
		switch {
		case o == nil:
			out.ovens[key] = "" // there is but one
		case key == o.ID.String():
			out.ovens[key] = o.Name
		}
		logged := b.toLearnFrom(k.AltitudeM, o, key)
		logged.LeftOut = slices.Contains(says.LeftOut, b.ID.String())
		if learn.CheckLog(learn.LogRequest{Bakes: []learn.LoggedBake{logged}}) == nil {
			out.Bakes = append(out.Bakes, logged)
			out.names[b.ID] = b.Title
		}
	}
	slices.Reverse(out.Bakes)
	return out, nil
}

// toLearnFrom is a bake as it is learnt from.
func (b BakeRecord) toLearnFrom(altitudeM float64, o *ShelfOven, oven string) learn.LoggedBake {
	s := b.Setting
	if b.Happened != nil && len(b.Happened.Stages) > 0 {
		s.Stages = bake.Elapsed(b.Happened.Stages, b.Happened.Minutes)
	}
	setting := SettingIn(altitudeM, o, s, Weather{})
	told := learn.ToldBy(b.words(), b.Told)
	if b.Happened == nil {
		setting.Stages = told.BakedAtLeast(setting.Stages)
	}
	out := learn.LoggedBake{
		ID: b.ID.String(), At: b.BakedAt, Oven: oven, Lots: map[string]string{}, WholeDish: true,
		Request: bake.DessertRequest{Request: b.Request.Weighed(&b.Result), Setting: setting}, Told: told,
	}
	for _, f := range b.Request.Fruits {
		if lot := b.Told.Lots[f.Key]; lot != "" {
			out.Lots[f.Key] = lot
		}
	}
	if b.Happened != nil && len(b.Happened.Readings) > 0 {
		out.Happened = &learn.Probed{Readings: b.Happened.Readings}
	}
	return out
}
