package day

import (
	"fmt"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Orders is what is wanted of one day, and what was fixed by hand. Minutes count from its midnight.
type Orders struct {
	Orders   []Order         `json:"orders"`
	Pinned   []Pin           `json:"pinned,omitempty"`   // what was put somewhere, or is done, late or longer
	People   []Person        `json:"people,omitempty"`   // of this day, in addition to the kitchen's
	Closed   []string        `json:"closed,omitempty"`   // ovens, by their ids on the shelf
	Remedies []AppliedRemedy `json:"remedies,omitempty"` // remedies that were taken
	Sold     []Sold          `json:"sold,omitempty"`     // as it was counted at closing
	Done     []Tick          `json:"done,omitempty"`     // rows of the lists, by whom and when
}

// Sold is what was made of a card and what was left of it at closing, in portions.
type Sold struct {
	Card string `json:"card"`
	Made int    `json:"made"`
	Left int    `json:"left"`
}

// Order is one order: so many dishes of a card, at an hour.
type Order struct {
	// ID is what it is called on this day: no two orders are called the same.
	ID     string `json:"id"`
	Card   string `json:"card"`
	Dishes int    `json:"dishes"`
	Due    int    `json:"due_min"`
	Serve  Serve  `json:"serve"`
	Place  string `json:"place,omitempty"`  // where it goes: the counter, a table, a name
	Weekly bool   `json:"weekly,omitempty"` // every week on this day
}

// What one day can hold.
const (
	mostPortions = 2000
	mostOrders   = 60
	mostOfOrder  = 40
	longestDay   = 2 * 1440
	longestName  = 80
	mostTicks    = 4000
)

// CheckOrders finds every wrong field.
func CheckOrders(a Orders) error {
	var f fault.Faults
	checkOrders("", a.Orders, &f)
	for i, p := range a.People {
		at := fmt.Sprintf("/people/%d", i)
		if p.ID == "" {
			f.Add(at+"/id", message.New("is missing"))
		}
		checkHours(at+"/hours", p.Hours, &f)
		checkHours(at+"/breaks", p.Breaks, &f)
	}
	cards := map[string]bool{}
	for i, x := range a.Sold {
		at := fmt.Sprintf("/sold/%d", i)
		f.RangeAt(at, "/made", float64(x.Made), 0, mostPortions, "")
		f.RangeAt(at, "/left", float64(x.Left), 0, float64(x.Made), "")
		if cards[x.Card] {
			f.Add(at+"/card", message.New("is there twice: remove one of them"))
		}
		cards[x.Card] = true
	}
	f.Length("", "/done", len(a.Done), 0, mostTicks)
	for i, x := range a.Done {
		f.RangeAt(fmt.Sprintf("/done/%d", i), "/at_min", float64(x.At), 0, longestDay, "min")
	}
	for i, w := range a.Remedies {
		f.Among(fmt.Sprintf("/ways/%d", i), "/code", string(w.Code), remedyCodes)
	}
	return f.Err()
}

func checkOrders(under string, orders []Order, f *fault.Faults) {
	f.Length(under, "/orders", len(orders), 0, mostOrders)
	names := map[string]bool{}
	dishes := 0
	for i, o := range orders {
		at := fmt.Sprintf("%s/orders/%d", under, i)
		dishes += max(0, min(o.Dishes, mostOfOrder))
		if o.ID == "" || len([]rune(o.ID)) > longestName || names[o.ID] {
			f.Add(at+"/id", message.New("is {name}: each order needs a different name", message.Text(o.ID)))
		}
		names[o.ID] = true
		f.RangeAt(at, "/dishes", float64(o.Dishes), 1, mostOfOrder, "")
		f.RangeAt(at, "/due_min", float64(o.Due), 0, longestDay, "min")
		f.Among(at, "/serve", string(o.Serve), Serves)
	}
	if dishes > mostBatches {
		f.Add(under+"/orders", message.New("are {n} dishes in all: enter at most {most} for one day",
			message.Count(dishes), message.Count(mostBatches)))
	}
}

// Repeated are the orders of a day that come every week, for the same day of another week.
func (a Orders) Repeated() Orders {
	out := Orders{Orders: []Order{}}
	for _, o := range a.Orders {
		if o.Weekly {
			out.Orders = append(out.Orders, o)
		}
	}
	return out
}

// RepeatWeeks is how many weeks back a day is looked for whose orders repeat every week. Working figure.
const RepeatWeeks = 5
