// Package app is the use cases: what somebody in a kitchen does, one file each. A use case reads what it needs, asks
// the rules in core, and writes what follows, in one transaction. It declares the small interfaces of what it needs;
// the adapters in server provide them. Nothing here knows HTTP or SQL.
package app

import (
	"errors"
	"time"

	"github.com/google/uuid"
)

// Clock tells the time.
type Clock func() time.Time

// Notify tells everybody who looks at a kitchen that something there has changed.
type Notify func(kitchen uuid.UUID)

// What a store answers where something can't be done.
var (
	ErrNotFound    = errors.New("not found")
	ErrNameInUse   = errors.New("taken")
	ErrIDInUse     = errors.New("the id is already in use")
	ErrUnavailable = errors.New("the database can't be reached")
	ErrBusy        = errors.New("it was locked by others for too long")
	ErrFull        = errors.New("the disk is full")
	ErrRunning     = errors.New("it is already running")
	// ErrUnusable is something that is kept and can't be read any more.
	ErrUnusable = errors.New("the stored data can't be used")
	ErrRefused  = errors.New("refused by the database")
)
