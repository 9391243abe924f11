package parse

import (
	"regexp"

	"mabbin/core/message"
	"mabbin/core/units"
)

// american are signs that a recipe measures with American cups, and cups are what it measures with.
var (
	american = []struct {
		sign *regexp.Regexp
		says message.Message
	}{
		{regexp.MustCompile(`(?i)\bsticks?\b`), message.New("it counts butter in sticks")},
		{regexp.MustCompile(`(?i)\d\s*(?:°\s*f\b|degrees f)`), message.New("its oven is in °F")},
		{regexp.MustCompile(`(?i)\b(?:all-purpose|cornstarch|confectioners|heavy cream|half-and-half)\b`), message.New(
			"of its wording",
		)},
	}
	inCups = regexp.MustCompile(`(?i)\bcups?\b`)
)

// WhoseCup is the cup that a recipe measures with, and how that is known; empty where nothing tells, or where it has no
// cups.
func WhoseCup(text string) (units.Cup, message.Message) {
	if !inCups.MatchString(text) {
		return "", message.Message{}
	}
	for _, a := range american {
		if a.sign.MatchString(text) {
			return units.USCup, message.New("Cups are read as US cups, because {why}", message.Part(a.says))
		}
	}
	return "", message.Message{}
}
