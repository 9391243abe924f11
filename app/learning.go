package app

import (
	"context"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/watch"

	"github.com/google/uuid"
	lru "github.com/hashicorp/golang-lru/v2"
)

// LearningStore stores what a log has taught.
type LearningStore interface {
	// Bakes lists the log, the last first; without the sentences of their results.
	Bakes(
		ctx context.Context, kitchen uuid.UUID, q BakeFilter, before *uuid.UUID, limit int,
	) (page []BakeRecord, more bool, err error)
	LearningPreferences(ctx context.Context, kitchen uuid.UUID) (learn.Preferences, error)
	// UpdateLearningSays changes it, in one transaction that holds it.
	UpdateLearningPreferences(
		ctx context.Context, kitchen uuid.UUID, when Precondition, change func(learn.Preferences) (learn.Preferences, error),
	) (learn.Preferences, error)
	// Days are those of a span, with how they were planned.
	Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]Day, error)
	// LearningState is what was learnt last, and whether the log has changed since.
	LearningState(ctx context.Context, kitchen uuid.UUID) (LearningState, error)
	// SetLearnt stores what was learnt from the log of a state: corrections as a new version where they differ from those
	// that are stored.
	SetLearnt(
		ctx context.Context, kitchen uuid.UUID, at time.Time, of int64, u learn.Used, p learn.Posterior, f Findings,
	) (stored learn.Used, changed bool, err error)
	// Posterior is what was learnt last; the zero value where nothing was.
	Posterior(ctx context.Context, kitchen uuid.UUID) (learn.Posterior, error)
}

// LearningState is what was learnt last from a kitchen's log.
type LearningState struct {
	Preferences learn.Preferences
	Findings    Findings
	Changes     int64 // how often the log, or what it is read with, has changed
	LearntOf    int64 // the value of Changes that the findings are of; negative: nothing was learnt yet
}

// Current reports whether nothing has changed since.
func (s LearningState) Current() bool { return s.Changes == s.LearntOf }

// Findings are what a log teaches, in sentences and as they are drawn. They are stored as JSON.
type Findings struct {
	Items       []learn.Finding `json:"findings"`
	Summary     message.Message `json:"summary"`
	OvenChanges []OvenChange    `json:"oven_changes"`
	Points      []FindingPoint  `json:"points"` // by the time of the bake
	// Histories are of ovens, and of the juice of fruits.
	Histories []learn.History `json:"histories"`
	// Unclear are bakes whose reported minutes lie after their end: they are asked about.
	Unclear []uuid.UUID `json:"unclear"`
}

// FindingPoint is a reported time of a bake next to the forecast of it.
type FindingPoint struct {
	Title string `json:"title"`
	learn.ForecastCheck
}

// OvenChange is an oven that seems to have changed.
type OvenChange struct {
	learn.ChangedOven
	Text message.Message `json:"text"`
}

// NoFindings are those of an empty log.
func NoFindings() Findings {
	return Findings{
		Items:       []learn.Finding{},
		Summary:     learn.PredictionScore{}.Summary(),
		OvenChanges: []OvenChange{},
		Points:      []FindingPoint{},
		Histories:   []learn.History{},
		Unclear:     []uuid.UUID{},
	}
}

// CurrentFindings is what is known of what a log teaches, at this moment.
type CurrentFindings struct {
	Findings
	Preferences learn.Preferences
	Updating    bool      // the log has changed since; it is being learnt from again
	Work        uuid.UUID // the piece of work that updates it
}

// Learning is what is done about what the log teaches. Learning itself runs in the background, once for each kitchen
// at a time, and its result is stored; everybody else reads that.
type Learning struct {
	Store    LearningStore
	Kitchens KitchenStore
	Surfaces learn.Keeper
	Clock    Clock
	Notify   Notify
	Failed   func(kitchen uuid.UUID, err error) // learning in the background has failed
	// StartWork enters a piece of work that somebody can follow and stop by its id; nil: nobody can.
	StartWork func(ctx context.Context, id uuid.UUID) (of context.Context, tick learn.Tick, end func(error))
	runs      learningRuns
}

const (
	surfacesKept = 4096
	learntFrom   = 1000 // of the last bakes: the window of a long log
)

// NewSurfaces keeps the surfaces of bakes: a new bake is run, those of the log are not run again.
func NewSurfaces() learn.Keeper {
	kept, _ := lru.New[[32]byte, *learn.Surface](surfacesKept) // it fails for sizes below one
	return kept
}

// Current returns what is known of what a kitchen's log teaches, and starts to learn where the log has changed since.
func (l *Learning) Current(ctx context.Context, kitchen uuid.UUID) (*CurrentFindings, error) {
	state, err := l.Store.LearningState(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	out := &CurrentFindings{Findings: state.Findings, Preferences: state.Preferences}
	out.Items = slices.Clone(out.Items)
	for i, x := range out.Items { // what was switched on or off a moment ago is shown so
		out.Items[i] = x.WithEnabled(state.Preferences.IsOff(x.Kind, x.Key))
	}
	hands, err := WorkTimes(ctx, l.Store, kitchen, l.Clock())
	if err != nil {
		return nil, err
	}
	for _, h := range hands {
		out.Items = append(out.Items, h.Finding(state.Preferences.IsOff(learn.WorkTime, h.Kind)))
	}
	if !state.Current() {
		out.Updating, out.Work = true, l.Start(kitchen)
	}
	return out, nil
}

// Update learns from a kitchen's log and stores what it teaches: from then on answers use it.
func (l *Learning) Update(ctx context.Context, kitchen uuid.UUID, tick learn.Tick) error {
	state, err := l.Store.LearningState(ctx, kitchen)
	if err != nil {
		return err
	}
	x, err := l.log(ctx, kitchen, state.Preferences)
	if err != nil {
		return err
	}
	learnt, err := learn.Learn(ctx, x.LogRequest, l.Surfaces, tick)
	if err != nil {
		return err
	}
	_, changed, err := l.Store.SetLearnt(
		ctx, kitchen, l.Clock(), state.Changes, learnt.Use(), learnt.Posterior(), x.findings(learnt),
	)
	if err == nil && changed {
		l.Notify(kitchen)
	}
	return err
}

// findings puts what was learnt from a log into sentences.
func (x taught) findings(learnt *learn.Result) Findings {
	out := NoFindings()
	out.Items, out.Summary = learnt.Findings(x.ovens, x.own), learnt.Score.Summary()
	out.Histories = learnt.Histories(x.ovens, x.own)
	for _, h := range out.Histories {
		for i := range h.Points {
			p := &h.Points[i]
			if id, err := uuid.Parse(p.ID); err == nil {
				p.Text = message.New("{title}: {says}", message.Text(x.names[id]), message.Part(p.Text))
			}
		}
	}
	for _, f := range learnt.ForecastChecks() {
		id, _ := uuid.Parse(f.ID) // it is one of the log's
		out.Points = append(out.Points, FindingPoint{x.names[id], f})
	}
	for _, c := range learnt.Changes {
		if name, known := x.ovens[c.Key]; known {
			out.OvenChanges = append(out.OvenChanges, OvenChange{learn.ChangedOven{Oven: c.Key, Since: c.Since}, c.Text(name)})
		}
	}
	for _, p := range learnt.Predictions {
		if id, err := uuid.Parse(p.ID); err == nil && len(p.Past) > 0 {
			out.Unclear = append(out.Unclear, id)
		}
	}
	return out
}

// SetPreferences stores what a kitchen says of what its log teaches, and starts to learn again.
func (l *Learning) SetPreferences(
	ctx context.Context,
	kitchen uuid.UUID,
	preferences learn.Preferences,
	when Precondition,
) (*CurrentFindings, error) {
	if err := learn.CheckPreferences(preferences); err != nil {
		return nil, err
	}
	_, err := l.Store.UpdateLearningPreferences(
		ctx,
		kitchen,
		when,
		func(learn.Preferences) (learn.Preferences, error) { return preferences, nil },
	)
	if err != nil {
		return nil, err
	}
	return l.Current(ctx, kitchen)
}

// Forecaster is what a kitchen predicts its bakes with, and what it says of what its log teaches.
func (l *Learning) Forecaster(
	ctx context.Context,
	kitchen uuid.UUID,
) (f learn.Forecaster, preferences learn.Preferences, err error) {
	f.Keep = l.Surfaces
	if f.Used, err = l.Kitchens.Learnt(ctx, kitchen); err != nil {
		return f, preferences, err
	}
	if f.Posterior, err = l.Store.Posterior(ctx, kitchen); err != nil {
		return f, preferences, err
	}
	preferences, err = l.Store.LearningPreferences(ctx, kitchen)
	return f, preferences, err
}

// Forecast is what is predicted of what is on the Bench, with its ranges, by all that its kitchen's log teaches.
func (l *Learning) Forecast(ctx context.Context, q BenchQuestion) (learn.DessertForecast, error) {
	var none learn.DessertForecast
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
	return m.DessertForecast, nil
}

// Filter predicts bakes in an oven, also while they are under way; nil: in none that the Shelf knows, or nowhere yet.
func (l *Learning) Filter(ctx context.Context, kitchen, oven *uuid.UUID) (watch.Filter, error) {
	f := learn.Forecaster{Keep: l.Surfaces}
	var preferences learn.Preferences
	var in *KitchenOven
	if kitchen != nil {
		var err error
		if f, preferences, err = l.Forecaster(ctx, *kitchen); err != nil {
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
	return func(ctx context.Context, b *watch.Bake) (*learn.MidBakeForecast, error) {
		q := b.Request
		q.Request, q.Setting = q.Request.Weighed(&b.Predicted.Balance), unlearnt(q.Setting, in)
		q.Setting.Stages = b.Stages
		x := learn.LoggedBake{ID: "bake", At: now, Oven: ovenKey(oven, now, preferences), Request: q}
		if seen := b.Probed(); len(seen) > 0 {
			x.Happened = &learn.Probed{Readings: seen}
		}
		return f.Forecast(ctx, x)
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
func ovenKey(oven *uuid.UUID, at time.Time, preferences learn.Preferences) string {
	if oven == nil {
		return ""
	}
	return preferences.OvenKey(oven.String(), at)
}

// log is a kitchen's log as it is learnt from: weights as they were weighed, stages as they happened, and each oven as
// the Shelf has it.
func (l *Learning) log(ctx context.Context, kitchen uuid.UUID, preferences learn.Preferences) (taught, error) {
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
	out.Off = preferences.Off
	ovens := map[uuid.UUID]*KitchenOven{}
	for _, b := range page {
		if b.Unusable != nil {
			continue
		}
		var o *KitchenOven
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
		key := ovenKey(b.OvenID, b.BakedAt, preferences)
		switch {
		case o == nil:
			out.ovens[key] = "" // there is but one
		case key == o.ID.String():
			out.ovens[key] = o.Name
		}
		logged := b.toLearnFrom(k.AltitudeM, o, key)
		logged.LeftOut = slices.Contains(preferences.LeftOut, b.ID.String())
		if learn.CheckLog(learn.LogRequest{Bakes: []learn.LoggedBake{logged}}) == nil {
			out.Bakes = append(out.Bakes, logged)
			out.names[b.ID] = b.Title
		}
	}
	slices.Reverse(out.Bakes)
	return out, nil
}

// toLearnFrom is a bake as it is learnt from.
func (b BakeRecord) toLearnFrom(altitudeM float64, o *KitchenOven, oven string) learn.LoggedBake {
	s := b.Setting
	if b.Happened != nil && len(b.Happened.Stages) > 0 {
		s.Stages = bake.Elapsed(b.Happened.Stages, b.Happened.Minutes)
	}
	setting := SettingIn(altitudeM, o, s, Weather{})
	reported := learn.ReportedBy(b.words(), b.Details)
	if b.Happened == nil {
		setting.Stages = reported.BakedAtLeast(setting.Stages)
	}
	out := learn.LoggedBake{
		ID: b.ID.String(), At: b.BakedAt, Oven: oven, Lots: map[string]string{}, WholeDish: true,
		Request: bake.DessertRequest{Request: b.Request.Weighed(&b.Result), Setting: setting}, Reported: reported,
	}
	for _, f := range b.Request.Fruits {
		if lot := b.Details.Lots[f.Key]; lot != "" {
			out.Lots[f.Key] = lot
		}
	}
	if b.Happened != nil && len(b.Happened.Readings) > 0 {
		out.Happened = &learn.Probed{Readings: b.Happened.Readings}
	}
	return out
}
