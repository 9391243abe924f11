package app

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/message"

	"github.com/google/uuid"
)

// How many tags a card has at most, and how long one is.
const (
	mostTags = 12
	tagLong  = 30
)

// Change gives a card another name or other tags, puts it away, or takes it out again.
func (c Cards) Change(
	ctx context.Context, kitchen, card uuid.UUID, change CardChange, when Precondition,
) (Card, error) {
	if change.Tags != nil {
		tags, err := TidyTags(*change.Tags)
		if err != nil {
			return Card{}, err
		}
		change.Tags = &tags
	}
	return c.Store.ChangeCard(ctx, kitchen, card, change, when)
}

// TidyTags are tags without blanks around them, each once, whatever its capitals.
func TidyTags(tags []string) ([]string, error) {
	var f fault.Faults
	out := []string{}
	for i, t := range tags {
		t = strings.Join(strings.Fields(t), " ")
		if n := len([]rune(t)); n == 0 || n > tagLong {
			f.Add(fmt.Sprintf("/tags/%d", i),
				message.New("is {n} characters long: enter 1 to {most}", message.Count(n), message.Count(tagLong)))
		}
		if !slices.ContainsFunc(out, func(x string) bool { return strings.EqualFold(x, t) }) {
			out = append(out, t)
		}
	}
	f.Length("", "/tags", len(out), 0, mostTags)
	return out, f.Err()
}
