package diet

import (
	"slices"
	"strings"

	"mabbin/core/balance"
)

// Suits says whether nothing that the tables know to be in a dessert is left out by a diet. What has to be looked up
// on a label is not known: it does not speak against it here, and the ticket says that it has to be looked up.
func Suits(a *balance.Answer, d Diet) bool {
	for _, in := range a.Allergens.Contains {
		if slices.ContainsFunc(forbids[d], func(s string) bool { return strings.HasPrefix(in, s) }) {
			return false
		}
	}
	if d == Vegan {
		for _, b := range a.Ticket {
			if slices.ContainsFunc(b.Lines, func(l balance.Line) bool { return notVegan[l.Key] }) {
				return false
			}
		}
	}
	return true
}
