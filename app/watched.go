package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"mabbin/core/fault"
	"mabbin/core/outcome"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Watched is a dessert on a kitchen's oven watch.
type Watched struct {
	ID      uuid.UUID
	Kitchen uuid.UUID
	Title   string
	CardID  *uuid.UUID
	Version *int
	OvenID  *uuid.UUID
	Weighed []outcome.Weighed // by the scale, before it went in
	// Unusable is why what is kept of it can't be used; nil: it can. Of such a one only its name and times are there, and
	// it can only be taken off.
	Unusable error
	watch.Bake
}

// WatchStore keeps what is on the watch.
type WatchStore interface {
	// StartWatch keeps a dessert that went in. The same id twice is the same dessert: what was kept first stays.
	StartWatch(ctx context.Context, w Watched) error
	// Watched lists what is on a kitchen's watch, in the order in which it went in; also what can't be used any more.
	Watched(ctx context.Context, kitchen uuid.UUID) ([]Watched, error)
	// OneWatched is one dessert, also one that has ended; one that can't be used is ErrUnusable.
	OneWatched(ctx context.Context, kitchen, id uuid.UUID) (Watched, error)
	// UpdateWatched loads a dessert, hands it to change and saves it, in one transaction that holds it: of two at the same
	// moment the second sees what the first one did. Where change fails, nothing is kept.
	UpdateWatched(ctx context.Context, kitchen, id uuid.UUID, change func(*Watched) error) (Watched, error)
	// Probed and Ahead name what went in since a time and has a probe in it, or runs faster than the clock, of all
	// kitchens.
	Probed(ctx context.Context, since time.Time) ([]WatchedID, error)
	Ahead(ctx context.Context, since time.Time) ([]WatchedID, error)
	// ThinReadings keeps one reading a minute of bakes that started between two times. SweepPictures deletes unused
	// pictures, and SweepWatch ended bakes, of before a time.
	ThinReadings(ctx context.Context, from, to time.Time) error
	SweepPictures(ctx context.Context, before time.Time) error
	SweepWatch(ctx context.Context, before time.Time) error
}

// followedFor is how long after it went in a dessert is followed by its probe, and by a simulation: whatever it was, it
// is out by then.
const followedFor = 48 * time.Hour

// WatchedID names a dessert and its kitchen.
type WatchedID struct{ Kitchen, ID uuid.UUID }

// OvenWatch is what is done with what is in the ovens. Every change goes through the state machine of core/watch, under
// one lock, and is reported to everybody who looks.
type OvenWatch struct {
	Store    WatchStore
	Kitchens KitchenStore
	Clock    Clock
	Notify   Notify
	// Filter predicts the bakes of a kitchen in an oven: that of Learning.
	Filter func(ctx context.Context, kitchen, oven *uuid.UUID) (watch.Filter, error)
	// Thermometer reads the probes; nil where none is ever polled.
	Thermometer Thermometer
}

// change applies what happens to a dessert, at the time that the clock tells.
func (o OvenWatch) change(
	ctx context.Context,
	kitchen, id uuid.UUID,
	what func(b *watch.Bake, now time.Time) error,
) (Watched, error) {
	w, err := o.Store.UpdateWatched(ctx, kitchen, id, func(w *Watched) error {
		if w.Unusable != nil {
			return fmt.Errorf("%w: %w", ErrUnusable, w.Unusable)
		}
		return fault.Guard(func() error { return what(&w.Bake, o.Clock()) })
	})
	if err != nil {
		return Watched{}, err
	}
	o.Notify(kitchen)
	return w, nil
}

// changeForeseen applies what happens to a dessert and changes what is predicted of it.
func (o OvenWatch) changeForeseen(
	ctx context.Context,
	kitchen, id uuid.UUID,
	what func(b *watch.Bake, now time.Time, see watch.Filter) error,
) (Watched, error) {
	w, err := o.Store.OneWatched(ctx, kitchen, id)
	if err != nil {
		return Watched{}, err
	}
	see, err := o.filter(ctx, w)
	if err != nil {
		return Watched{}, err
	}
	return o.change(ctx, kitchen, id, func(b *watch.Bake, now time.Time) error { return what(b, now, see) })
}

// filter predicts a dessert of the watch.
func (o OvenWatch) filter(ctx context.Context, w Watched) (watch.Filter, error) {
	return o.Filter(ctx, &w.Kitchen, w.OvenID)
}

// unusedPictures is how long a picture is stored that no bake uses yet: somebody may still be logging the bake.
const unusedPictures = 24 * time.Hour

// Tidy keeps what grows with every bake within bounds.
func (o OvenWatch) Tidy(ctx context.Context) error {
	now := o.Clock()
	return errors.Join(
		o.Store.ThinReadings(ctx, now.Add(-watch.ReadingsSwept), now.Add(-watch.ReadingsWhole)),
		o.Store.SweepPictures(ctx, now.Add(-unusedPictures)),
		o.Store.SweepWatch(ctx, now.Add(-watch.EndedStored)),
	)
}
