package watch

import (
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/message"
)

// Bake is one dessert on the oven watch: a state machine. What happens to it goes in as a method with its time, and
// what follows from it is in the fields afterwards. Whoever keeps it loads, calls one method and saves, under one
// lock.
type Bake struct {
	Request   bake.DessertRequest // as it went in
	Predicted bake.DessertAnswer  // as it was predicted then
	Stages    []bake.Stage        // as they are by now
	StartedAt time.Time
	OutAt     time.Time // zero while it is in the oven
	EndedAt   time.Time // zero while it is on the watch
	Calls     []Call
	Probe     Place
	Readings  []bake.Point           // of the probe, by minute
	Estimate  *Estimate              // what the probe reported last
	Forecast  *learn.DessertForecast // by what is known by now; nil: it went in before anything was predicted
	Speed     Speed                  // minutes of the bake to a minute; more than 1 in a simulation alone
	Doors     []Door                 // of a simulated oven, as they were opened
}

// CallID names a call. The zero value is that of a call which has not been kept yet.
type CallID [16]byte

// State is what became of a call.
type State string

// The states of a call.
const (
	Waiting   State = "waiting"
	Done      State = "done"
	Skipped   State = "skipped"
	Withdrawn State = "withdrawn"
)

// Call is something to do, with what became of it.
type Call struct {
	ID         CallID
	Kind       Kind
	DueAt      time.Time
	Text       message.Message
	Caution    message.Message
	State      State
	AnsweredAt time.Time // zero until it is done or skipped
	Snoozes    int
	// WithdrawnBy is the answer that withdrew it, so that it comes back with that answer; zero where other stages did.
	WithdrawnBy CallID
}

// Speed is how many minutes of the bake go to a minute.
type Speed int

// The speeds: as it is, and two of a simulation.
const (
	RealTime   Speed = 1
	TenTimes   Speed = 10
	SixtyTimes Speed = 60
)

// Place is where a probe is.
type Place string

// The places of a probe.
const (
	NoProbe  Place = ""
	InMiddle Place = "middle"
	InAir    Place = "air" // in the wrong place: it slipped out of the fruit
)

// Door is how long the door of a simulated oven stood open, in minutes of the bake.
type Door struct {
	At   float64 `json:"at"`
	Open float64 `json:"open"`
}

// What a bake answers where something can't be done.
var (
	ErrNoCall = errors.New("there is no such reminder")
	ErrOut    = errors.New("it is out of the oven")
)

// mostDoors is how often a door is opened before nobody believes it.
const mostDoors = 50

// Start puts a dessert into the oven: it is simulated, and its calls are written. A bad request is fault.Faults.
func Start(ctx context.Context, q bake.DessertRequest, at time.Time) (*Bake, error) {
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	b := &Bake{Request: q, Predicted: *a, Stages: a.Plan.Stages, StartedAt: at, Speed: RealTime}
	b.add(Schedule(DessertOf(q, a.Plan, a.LateAt), b.Stages))
	return b, nil
}

// add writes planned calls into the bake.
func (b *Bake) add(planned []Planned) {
	for _, p := range planned {
		b.Calls = append(
			b.Calls,
			Call{Kind: p.Kind, DueAt: b.StartedAt.Add(minutes(p.DueMin)), Text: p.Text, Caution: p.Caution, State: Waiting},
		)
	}
}

func minutes(x float64) time.Duration { return time.Duration(x * float64(time.Minute)) }

// DessertOf returns what the calls depend on. lateAt is when a second topping goes on, in minutes; nil for none.
func DessertOf(q bake.DessertRequest, p bake.Plan, lateAt *float64) Dessert {
	d := Dessert{
		Slices: larder.StyleOf(q.Request.Style).Slices, Custard: q.Request.Custard != nil,
		Material: q.Request.Dish.Material, Fire: q.Setting.Fire, Plan: p,
	}
	if lateAt != nil {
		d.LateAt = *lateAt
	}
	return d
}

// Out is when it came out of the oven, or when it will, by what is known at a time.
func (b *Bake) Out(now time.Time) time.Time {
	if !b.OutAt.IsZero() {
		return b.OutAt
	}
	out := now
	for _, c := range b.Calls {
		if c.Kind == TakeOut && c.State == Waiting && c.DueAt.After(now) {
			out = c.DueAt
		}
	}
	return out
}

// Minute is how long it has been in at a time; 0 where somebody has put the clock back meanwhile.
func (b *Bake) Minute(at time.Time) float64 { return max(0, at.Sub(b.StartedAt).Minutes()) }

// AsPredicted is the request with the steam that was predicted for it: what is tried on it bakes the same dessert.
func (b *Bake) AsPredicted() bake.DessertRequest {
	q := b.Request
	steam := b.Predicted.Balance.Ledger.SteamedOffG
	q.Request.SteamedOffG = &steam
	return q
}

// call finds a call that was not withdrawn.
func (b *Bake) call(id CallID) (*Call, error) {
	i := slices.IndexFunc(b.Calls, func(c Call) bool { return c.ID == id && c.State != Withdrawn })
	if i < 0 {
		return nil, ErrNoCall
	}
	return &b.Calls[i], nil
}

// Answer marks a call as done or skipped at a time. Taking out withdraws what was to be done in the oven, and moves
// what comes after by as much as it was late. Answering an answered call changes nothing: whoever was first stays.
func (b *Bake) Answer(id CallID, as State, at time.Time) error {
	c, err := b.call(id)
	if err != nil || c.State != Waiting {
		return err
	}
	due := c.DueAt
	c.State, c.AnsweredAt = as, at
	if c.Kind != TakeOut || as != Done {
		return nil
	}
	b.OutAt = at
	if at.Before(b.StartedAt) { // somebody has put the clock back
		b.OutAt = b.StartedAt
	}
	for i := range b.Calls {
		x := &b.Calls[i]
		switch {
		case x.State != Waiting:
		case x.Kind.inOven():
			x.State, x.WithdrawnBy = Withdrawn, id
		default:
			x.DueAt = x.DueAt.Add(at.Sub(due))
		}
	}
	return nil
}

// Undo takes an answer back, with what followed from it. A call that waits stays as it is.
func (b *Bake) Undo(id CallID) error {
	c, err := b.call(id)
	if err != nil || c.State == Waiting {
		return err
	}
	wasOut := takenOut(*c)
	late := c.AnsweredAt.Sub(c.DueAt)
	c.State, c.AnsweredAt = Waiting, time.Time{}
	if !wasOut {
		if i := slices.IndexFunc(b.Calls, takenOut); i >= 0 && c.Kind.inOven() { // nothing is left to do about it
			c.State, c.WithdrawnBy = Withdrawn, b.Calls[i].ID
		}
		return nil
	}
	b.OutAt = time.Time{}
	for i := range b.Calls {
		x := &b.Calls[i]
		switch {
		case x.State == Withdrawn && x.WithdrawnBy == id:
			x.State, x.WithdrawnBy = Waiting, CallID{}
		case x.State == Waiting && !x.Kind.inOven():
			x.DueAt = x.DueAt.Add(-late)
		}
	}
	return nil
}

// takenOut says whether a call is the one by which the dish was taken out.
func takenOut(c Call) bool { return c.Kind == TakeOut && c.State == Done }

// Snooze puts a call that waits off until a time.
func (b *Bake) Snooze(id CallID, until time.Time) error {
	c, err := b.call(id)
	if err != nil || c.State != Waiting {
		return err
	}
	if until.After(c.DueAt) {
		c.DueAt = until
	}
	c.Snoozes++
	return nil
}

// sameMin is how near two calls of a kind are one.
const sameMin = 0.6

// Replan gives the stages from now on: a rescue that was taken, or a time that was put right. What is to come is
// withdrawn and written anew; what is overdue stays to be answered, but for the end of the bake, which is another
// now. Bad stages are fault.Faults; ErrOut where it is out already.
func (b *Bake) Replan(ctx context.Context, stages []bake.Stage, now time.Time) error {
	if !b.OutAt.IsZero() {
		return ErrOut
	}
	q := b.AsPredicted()
	q.Setting.Stages = stages
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return fault.Within("/setting", err)
	}
	d, minute := DessertOf(q, a.Plan, a.LateAt), b.Minute(now)
	before := Schedule(d, b.Stages)
	turned := false
	for i := range b.Calls {
		c := &b.Calls[i]
		if c.State == Waiting && (c.DueAt.After(now) || c.Kind.replanned()) {
			c.State = Withdrawn
		}
		turned = turned || c.Kind == Turn && c.State != Withdrawn
	}
	b.add(slices.DeleteFunc(Schedule(d, stages), func(c Planned) bool {
		switch {
		case c.Kind == TakeOut:
			return false
		case c.Kind == Turn && turned, c.Kind == Check: // who replans it has just looked
			return true
		}
		was := c.Kind == Turn || slices.ContainsFunc(before, func(x Planned) bool {
			return x.Kind == c.Kind && math.Abs(x.DueMin-c.DueMin) < sameMin
		})
		return c.DueMin <= minute && was
	}))
	b.Stages = stages
	return nil
}

// longestMin is how long a dessert can be in an oven before it is one that was forgotten on the watch.
const longestMin = 24 * 60.0

// Rescue tries what may help against a trouble, from where the bake stands; offMin is how long the oven was off.
func (b *Bake) Rescue(trouble Trouble, offMin float64, now time.Time) ([]Proposal, error) {
	if b.Minute(now) > longestMin {
		return nil, fault.Faults{{Pointer: "/trouble", Detail: message.New(
			"is {hours} h after it went in: at most {most} h is possible",
			message.Number(b.Minute(now)/60, 0),
			message.Number(longestMin/60, 0),
		)}}
	}
	p, err := bake.PlanOf(b.AsPredicted())
	if err != nil {
		return nil, err
	}
	return Rescue(p, bake.Elapsed(b.Stages, b.Minute(now)), trouble, offMin)
}

// SetProbe puts a probe into the dessert, moves it, or takes it out. What another place has reported is forgotten.
func (b *Bake) SetProbe(at Place) {
	if at != b.Probe {
		b.Probe, b.Readings, b.Estimate = at, nil, nil
	}
}

// Read takes a reading of the probe, C, at a time. The oven is read off the curve, and where that says another end, the
// calls follow. Out of the oven, or without a probe, nothing is read.
func (b *Bake) Read(ctx context.Context, c float64, at time.Time, see Filter) error {
	minute := at.Sub(b.StartedAt).Minutes()
	if b.Probe == NoProbe || !b.OutAt.IsZero() || minute < 0 || minute > longestMin {
		return nil
	}
	if n := len(
		b.Readings,
	); n > 0 &&
		b.Readings[n-1].Minute >= minute { // the clock was put back, or this was read already
		return nil
	}
	b.Readings = append(b.Readings, bake.Point{Minute: minute, C: c})
	was := b.Forecast
	m, err := b.UpdateForecast(ctx, see)
	if err != nil {
		return err
	}
	p, err := bake.PlanOf(b.AsPredicted())
	if err != nil {
		return err
	}
	e := Reestimate(p, b.Stages, minute, m, b.inAir())
	if e == nil {
		return nil
	}
	e.Text = e.describe(b.Predicted.Plan.Minutes)
	b.Estimate = e
	if e.Doubtful {
		b.Forecast = was
	}
	if !e.Moves(b.Stages) {
		return nil
	}
	return b.Replan(ctx, e.Stages, at)
}

// End takes it off the watch.
func (b *Bake) End(at time.Time) {
	if b.EndedAt.IsZero() {
		b.EndedAt = at
	}
}

// Reopen puts it back on the watch.
func (b *Bake) Reopen() { b.EndedAt = time.Time{} }

// OpenDoor opens the door of its simulated oven for so many minutes.
func (b *Bake) OpenDoor(forMin float64, now time.Time) error {
	if !b.OutAt.IsZero() {
		return ErrOut
	}
	if len(b.Doors) < mostDoors {
		b.Doors = append(b.Doors, Door{b.Minute(now), forMin})
	}
	return nil
}

// DoorOpen says whether the door of its simulated oven stands open at a time.
func (b *Bake) DoorOpen(at time.Time) bool {
	minute := b.Minute(at)
	return slices.ContainsFunc(b.Doors, func(d Door) bool { return d.At <= minute && minute < d.At+d.Open })
}

// Advance lets a simulated bake run ahead: it is moved back in time by what passed on the clock, times its speed less
// one, so that the clock itself stays true.
func (b *Bake) Advance(passed time.Duration) {
	by := -time.Duration(b.Speed-1) * passed
	move := func(t *time.Time) {
		if !t.IsZero() {
			*t = t.Add(by)
		}
	}
	move(&b.StartedAt)
	move(&b.OutAt)
	for i := range b.Calls {
		move(&b.Calls[i].DueAt)
		move(&b.Calls[i].AnsweredAt)
	}
}

// CurrentCalls returns the calls that were not withdrawn, in their order.
func (b *Bake) CurrentCalls() []Call {
	out := make([]Call, 0, len(b.Calls))
	for _, c := range b.Calls {
		if c.State != Withdrawn {
			out = append(out, c)
		}
	}
	return out
}

// How long the details of a bake are stored. Working figures: the log keeps the result for good.
const (
	ReadingsWhole = 24 * time.Hour      // every reading of the probe; then one a minute
	ReadingsSwept = 8 * 24 * time.Hour  // readings older than this were thinned before
	EndedStored   = 30 * 24 * time.Hour // a bake that is off the Watch
)
