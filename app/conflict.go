package app

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
)

// Conflict is a change that was not made, for what is stored is not what its sender thought: another thing under the
// same id, or one that somebody else has changed meanwhile.
type Conflict struct {
	Stored  any  // a Kitchen, ShelfDish, ShelfOven, Card, BakeRecord, Picture, Watched, Day or House
	Changed bool // by another; false: it is another thing
}

func (c *Conflict) Error() string {
	if c.Changed {
		return "it was changed elsewhere"
	}
	return "the id belongs to something else"
}

// RevisionOf names what can be changed of a thing as it is: another one is another state of it.
func RevisionOf(of any) string {
	switch x := of.(type) {
	case Kitchen: // not its id
		of = struct{ Name, Settings any }{x.Name, x.Settings}
	case Card: // its versions are never changed
		of = struct{ Name, Archived, Tags any }{x.Name, x.Archived, x.Tags}
	case BakeRecord:
		of = x.Outcome
	case Day: // not how it was planned
		of = x.Orders
	}
	raw, err := json.Marshal(of)
	if err != nil {
		return ""
	}
	sum := sha256.Sum256(raw)
	return hex.EncodeToString(sum[:8])
}

// Precondition is the condition of a change: the revision that it was made from, "" for no condition, or IfExists.
type Precondition string

// MustExist is the condition that the thing is stored at all, in whatever revision.
const MustExist Precondition = "*"

// Holds returns a Conflict where the stored thing does not meet the condition.
func (i Precondition) Holds(stored any) error {
	switch {
	case i == "", i == MustExist, string(i) == RevisionOf(stored):
		return nil
	}
	return &Conflict{Stored: stored, Changed: true}
}

// HoldsWithout returns a Conflict where a thing that is not stored does not meet the condition. empty is how such a
// thing is shown; its revision meets the condition.
func (i Precondition) HoldsWithout(empty any) error {
	if i == MustExist {
		return &Conflict{Stored: empty, Changed: true}
	}
	return i.Holds(empty)
}

// Same is a Conflict where what is stored under an id is not what was sent with it; both are compared as they are kept.
func Same(sent, kept, stored any) error {
	a, errA := json.Marshal(sent)
	b, errB := json.Marshal(kept)
	if errA != nil || errB != nil || !bytes.Equal(a, b) {
		return &Conflict{Stored: stored}
	}
	return nil
}
