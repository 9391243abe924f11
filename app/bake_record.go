package app

import (
	"context"
	"time"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/outcome"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// Outcome is what came out, in bakers' words. Nil is not reported.
type Outcome struct {
	Juice      *string         `json:"juice,omitempty"`
	Fruit      *string         `json:"fruit,omitempty"`
	Top        *string         `json:"top,omitempty"`
	BoiledOver *bool           `json:"boiled_over,omitempty"`
	Note       string          `json:"note,omitempty"`
	Details    outcome.Details `json:"details"`
	Picture    *uuid.UUID      `json:"picture_id,omitempty"`
}

// words are what was reported of the main things.
func (o Outcome) words() bake.Words {
	word := func(s *string) string {
		if s == nil {
			return ""
		}
		return *s
	}
	return bake.Words{
		Juice:      word(o.Juice),
		Fruit:      word(o.Fruit),
		Top:        word(o.Top),
		Base:       o.Details.Base,
		BoiledOver: o.BoiledOver,
	}
}

// Correction is what was reported of a bake until it was put right.
type Correction struct {
	At  time.Time `json:"at"`
	Was Outcome   `json:"was"`
}

// BakeRecord is a logged bake with a frozen copy of its inputs and of what was predicted from them.
type BakeRecord struct {
	// Unusable is why what is kept of it can't be used; nil: it can. Of such a one only its name and time are there.
	Unusable error `json:"-"`

	ID      uuid.UUID
	Title   string
	BakedAt time.Time
	Batch   string // of its day, given as it is logged; empty: logged before there were any
	CardID  *uuid.UUID
	Version *int
	Request balance.Request
	Result  balance.Answer
	Setting
	Outcome
	Learnt      int                 // version of the corrections that it was predicted with; 0: the tables
	Happened    *outcome.ActualBake // on the oven watch; nil: it was not watched
	Cost        *BakeCost           // by the prices of its day; nil: nothing in it had one
	Corrections []Correction        // the last first
}

// BakeCost is what a dessert cost on its day.
type BakeCost struct {
	Currency string `json:"currency"`
	sell.DessertCost
}

// BakeFilter is which bakes are wanted; the zero value is all of them.
type BakeFilter struct {
	Words string // somewhere in the title or the note
	Juice string // came out so
	Oven  *uuid.UUID
}

// LogStore keeps the log.
type LogStore interface {
	// AddBake saves a bake and changes the stock by takeOut, in one transaction. The same id twice is the same bake: what
	// was logged first stays, and the stock is left alone. takeOut may be nil.
	AddBake(
		ctx context.Context, kitchen uuid.UUID, b BakeRecord, takeOut func(sell.Stock) sell.Stock,
	) (BakeRecord, error)
	OneBake(ctx context.Context, kitchen, bake uuid.UUID) (BakeRecord, error)
	// CorrectBake puts right what was reported, and keeps what was reported until then. The same correction twice is the
	// same one.
	CorrectBake(
		ctx context.Context, kitchen, bake, correction uuid.UUID, now Outcome, at time.Time, when Precondition,
	) (BakeRecord, error)
}

// Log is what is done with the log.
type Log struct {
	Store    LogStore
	Watch    WatchStore
	Stock    StockStore
	Kitchens KitchenStore
	Clock    Clock
	Changed  Notify // of the log: it may teach something else; nil: nobody learns from it
}

// Point is where it stands among others.
func (b BakeRecord) Point() outcome.Point {
	return outcome.PointOf(string(b.Result.Set.Band), b.words(), b.Happened)
}

// Verdict returns how the bake came out, in a line.
func (b BakeRecord) Verdict() outcome.Verdict {
	return b.Details.Verdict(string(b.Result.Set.Band), b.words())
}
