package app

import (
	"context"
	"time"

	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/recipe"

	"github.com/google/uuid"
)

// Version is one saved state of a card. It is never changed.
type Version struct {
	ID      uuid.UUID
	Number  int
	SavedAt time.Time
	Request balance.Request
	Setting
	Note     string
	Original *recipe.Original // nil: it did not come in from elsewhere
}

// Card is a card with versions, the newest first.
type Card struct {
	ID       uuid.UUID
	Name     string
	Archived bool
	Tags     []string // the occasions that it is for, in the kitchen's own words
	Versions []Version
	// Unusable is why what is kept of a version can't be used; nil: it can. Such a version has no dessert.
	Unusable error
}

// CardChange is what is changed of a card as a whole; nil leaves a thing as it is.
type CardChange struct {
	Name     *string
	Archived *bool
	Tags     *[]string
}

// CardFilter is which cards are wanted; the zero value is all that are not put away.
type CardFilter struct {
	Words    string // somewhere in the name or in a tag
	Tag      string // one of its tags, whole
	Style    string
	Fruit    string    // key
	Shape    string    // of the dish
	Diet     diet.Diet // that it suits by what the tables know; empty: any
	Most     int       // ingredients; 0: any number
	Archived bool      // those that are put away, in the place of the others
	From     int       // so many of them left out
	Limit    int       // so many at most; 0: all
}

// computed says whether the filter asks for what is worked out from a card.
func (f CardFilter) computed() bool { return f.Diet != "" || f.Most > 0 }

// CardSummary is what is worked out from a version once, when it is saved, so that a list can be filtered by it.
type CardSummary struct {
	Version     int         `json:"version"` // of how it is worked out: SummaryVersion
	Ingredients int         `json:"ingredients"`
	Suits       []diet.Diet `json:"suits"`
}

// SummaryVersion rises when summaries are worked out differently: older ones are then made anew.
const SummaryVersion = 1

// Summarise works a version's summary out. A dessert that does not balance any more suits nothing.
func Summarise(r balance.Request) CardSummary {
	s := CardSummary{Version: SummaryVersion, Suits: []diet.Diet{}}
	a, err := balance.Solve(r)
	if err != nil {
		return s
	}
	s.Ingredients = a.Ingredients()
	for _, d := range diet.All() {
		if diet.Suits(a, d) {
			s.Suits = append(s.Suits, d)
		}
	}
	return s
}

// CardStore keeps cards.
type CardStore interface {
	// AddCard keeps a card with its first version. The same ids twice are the same card.
	AddCard(ctx context.Context, kitchen, card uuid.UUID, name string, first Version, s CardSummary) (Card, error)
	// AddVersion keeps a further version. The same id twice is the same version.
	AddVersion(ctx context.Context, kitchen, card uuid.UUID, v Version, s CardSummary) (Card, error)
	Card(ctx context.Context, kitchen, card uuid.UUID) (Card, error)
	// Cards lists cards with their newest versions, the last saved first, and says how many there are in all.
	Cards(ctx context.Context, kitchen uuid.UUID, f CardFilter) (page []Card, all int, err error)
	// Unsummarised lists newest versions whose summaries are missing or older than a version, up to a limit.
	Unsummarised(ctx context.Context, kitchen uuid.UUID, than, limit int) ([]Version, error)
	SetSummary(ctx context.Context, version uuid.UUID, s CardSummary) error
	ChangeCard(ctx context.Context, kitchen, card uuid.UUID, c CardChange, when Precondition) (Card, error)
	// CardTags lists the tags of a kitchen's cards, in the order of the alphabet.
	CardTags(ctx context.Context, kitchen uuid.UUID) ([]string, error)
}

// Cards is what is done with cards.
type Cards struct {
	Store    CardStore
	Kitchens KitchenStore
	Clock    Clock
}
