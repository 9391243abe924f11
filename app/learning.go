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
	) (kept learn.Used, changed bool, err error)
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
			if u, err := l.Kitchens.Learnt(ctx, k.ID); err == nil && u.Version == 0 {
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
	_, changed, err := l.Store.SetLearnt(ctx, kitchen, l.Clock(), learnt.Use())
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
	now := l.Clock()
	plan := learn.LoggedBake{ID: "plan", At: now}
	q.Setting.Stages = a.Plan.Stages
	x, used := taught{}, learn.Used{}
	var in *ShelfOven
	if q.Kitchen != nil {
		says, err := l.Store.LearningSays(ctx, *q.Kitchen)
		if err != nil {
			return none, err
		}
		if x, err = l.log(ctx, *q.Kitchen, says); err != nil {
			return none, err
		}
		if used, err = l.Kitchens.Learnt(ctx, *q.Kitchen); err != nil {
			return none, err
		}
		if q.Setting.OvenID != nil {
			o, err := l.Kitchens.OneOven(ctx, *q.Kitchen, *q.Setting.OvenID)
			if err != nil {
				return none, err
			}
			in = &o
		}
		plan.Oven = ovenKey(q.Setting.OvenID, now, says)
	}
	plan.Request = bake.DessertRequest{
		Request: q.Request.Weighed(&a.Balance), Setting: SettingIn(x.altitudeM, in, q.Setting, q.Weather),
	}
	f, err := learn.Foresee(ctx, x.LogRequest, plan, used, l.Surfaces)
	if err != nil {
		return none, err
	}
	return f.Of(used.Bakes), nil
}

// taught is a log as it is learnt from, with what its things are called.
type taught struct {
	learn.LogRequest
	names map[uuid.UUID]string // of its bakes
	ovens map[string]string    // by their keys; none that was changed since
	own   *larder.Own

	altitudeM float64
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
	out.altitudeM = k.AltitudeM
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
