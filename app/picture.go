package app

import "github.com/google/uuid"

// Picture is a picture of a bake, with a small one of it.
type Picture struct {
	ID            uuid.UUID
	Width, Height int
	JPEG, Small   []byte
}
