package app

import (
	"context"
	"time"

	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Answer is what somebody says to a call.
type Answer string

// The answers to a call.
const (
	AnswerDone   Answer = "done"
	AnswerSkip   Answer = "skipped"
	AnswerSnooze Answer = "snooze"
	AnswerUndo   Answer = "undo"
)

// UsualSnooze is how long a call is put off, unless it is said.
const UsualSnooze = 3 * time.Minute

// AnswerCall answers one call of a dessert, once, however many press; snooze is how long it is put off, 0: the usual
// time.
func (o OvenWatch) AnswerCall(
	ctx context.Context,
	kitchen, id uuid.UUID,
	call watch.CallID,
	a Answer,
	snooze time.Duration,
) (Watched, error) {
	return o.change(ctx, kitchen, id, func(b *watch.Bake, now time.Time) error {
		switch a {
		case AnswerSnooze:
			if snooze <= 0 {
				snooze = UsualSnooze
			}
			return b.Snooze(call, now.Add(snooze))
		case AnswerUndo:
			return b.Undo(call)
		case AnswerSkip:
			return b.Answer(call, watch.Skipped, now)
		default:
			return b.Answer(call, watch.Done, now)
		}
	})
}
