package day

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"mabbin/core/message"
)

// KnownCard is a card that an order can be of.
type KnownCard struct {
	ID   string
	Name string
	// Sizes are those of its dish in cm, the longer first; 0: it has none.
	LengthCM, WidthCM float64
	Portions          func() float64 // of one dish, worked out where an order is in portions; 0: unknown
}

// UnreadLine is a line that is no order, and why.
type UnreadLine struct {
	Text   string          `json:"text"`
	Reason message.Message `json:"reason"`
}

var (
	lineClock = regexp.MustCompile(`(?i)\b(?:at |by |for )?(?:([01]?\d|2[0-3])[:.h]([0-5]\d)(?: ?([ap])\.?m\.?)?` +
		`|(1[0-2]|[1-9]) ?([ap])\.?m\.?\b)`)
	lineCount = regexp.MustCompile(`^\s*(?:(\d{1,2})\s*(?:x|×)?\s+|(a|an|one|two|three|four|five|six)\s+)`)
	lineSize  = regexp.MustCompile(`(\d+(?:\.\d+)?)\s*(?:x|×|by)\s*(\d+(?:\.\d+)?)(?:\s*cm)?`)
	lineServe = regexp.MustCompile(`(?i)\b(hot|warm|cold|set|chilled)\b`)
	linePlace = regexp.MustCompile(`\(([^)]+)\)`)
	lineWeek  = regexp.MustCompile(`(?i)\b(every week|weekly|every (?:mon|tues|wednes|thurs|fri|satur|sun)day)\b`)
	notWord   = regexp.MustCompile(`[^\pL\pN]+`)
	numbers   = map[string]int{"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6}
)

// ReadLines reads orders as they are pasted, one a line: "2 gooseberry crumble 24x18, 12:30 hot (table 4)", or "20
// portions of berry bars at half past three". They are for a day of the week. What is not said is one dish, warm. The
// names are free among those of the day.
func ReadLines(text string, cards []KnownCard, among Orders, on time.Weekday) (orders []Order, unread []UnreadLine) {
	orders, unread = []Order{}, []UnreadLine{}
	taken := map[string]bool{}
	for _, o := range among.Orders {
		taken[o.ID] = true
	}
	for line := range strings.Lines(text) {
		if line = strings.TrimSpace(line); line == "" {
			continue
		}
		if len(orders) == mostOrders {
			unread = append(unread, UnreadLine{line, message.New("A day has at most {n} orders.", message.Count(mostOrders))})
			break
		}
		o, why := readLine(line, cards, on)
		if !why.IsZero() {
			unread = append(unread, UnreadLine{line, why})
			continue
		}
		o.ID = unique(o.ID, taken)
		orders = append(orders, o)
	}
	return orders, unread
}

func readLine(line string, cards []KnownCard, on time.Weekday) (Order, message.Message) {
	o := Order{Dishes: 1, Serve: Warm}
	rest := line
	cut := func(re *regexp.Regexp) []string {
		m := re.FindStringSubmatch(rest)
		if m != nil {
			rest = strings.Replace(rest, m[0], " ", 1)
		}
		return m
	}
	if m := cut(linePlace); m != nil {
		o.Place = strings.TrimSpace(m[1])
	}
	o.Weekly = cut(lineWeek) != nil
	other, without := otherWeekday(rest, on)
	if rest = without; other {
		return o, message.New("It is for another day of the week: enter it there.")
	}
	portions := 0
	if m := cut(linePortions); m != nil {
		portions, _ = strconv.Atoi(m[1])
		rest = " " + rest
	}
	size := cut(lineSize)
	if m := cut(lineClock); m != nil {
		o.Due = minuteOf(m)
	} else {
		var found bool
		if o.Due, rest, found = spokenClock(rest); !found {
			return o, message.New("Time is missing: write it as 12:30.")
		}
	}
	if m := cut(lineServe); m != nil {
		switch strings.ToLower(m[1]) {
		case "hot":
			o.Serve = Hot
		case "cold", "set", "chilled":
			o.Serve = Cold
		}
	}
	if m := cut(lineCount); m != nil {
		o.Dishes, _ = strconv.Atoi(m[1])
		if m[2] != "" {
			o.Dishes = numbers[strings.ToLower(m[2])]
		}
		if o.Dishes < 1 || o.Dishes > mostOfOrder {
			return o, message.New("{n} dishes: enter 1 to {most}.", message.Count(o.Dishes), message.Count(mostOfOrder))
		}
	}
	found := likest(rest, size, cards)
	switch len(found) {
	case 0:
		return o, message.New("No card has that name.")
	case 1:
		o.Card, o.ID = found[0].ID, found[0].Name
		if portions > 0 {
			return o.inDishes(portions, found[0])
		}
		return o, message.Message{}
	}
	names := make([]message.Message, min(len(found), 4))
	for i := range names {
		names[i] = message.New("{card}", message.Text(found[i].Name))
	}
	return o, message.New("Which one: {cards}?", message.Or(names...))
}

// inDishes is an order of so many portions in the dishes of its card.
func (o Order) inDishes(portions int, card KnownCard) (Order, message.Message) {
	each := card.Portions()
	if each <= 0 {
		return o, message.New("How many portions a dish of it has is not known: enter dishes.")
	}
	o.Dishes = int(math.Ceil(float64(portions)/each - 1e-9))
	if o.Dishes < 1 || o.Dishes > mostOfOrder {
		return o, message.New("{n} portions are {dishes} dishes: enter 1 to {most} dishes.",
			message.Count(portions), message.Count(o.Dishes), message.Count(mostOfOrder))
	}
	return o, message.Message{}
}

// minuteOf is the minute of a day that a clock was written for.
func minuteOf(m []string) int {
	hour, minute, half := m[1], m[2], m[3]
	if hour == "" {
		hour, half = m[4], m[5]
	}
	h, _ := strconv.Atoi(hour)
	min, _ := strconv.Atoi(minute)
	switch strings.ToLower(half) {
	case "p":
		h = h%12 + 12
	case "a":
		h %= 12
	}
	return 60*h + min
}

// likest are the cards that have every word that was written; where one of them has no other words, it alone; where a
// size was written, those of that size.
func likest(text string, size []string, cards []KnownCard) (found []KnownCard) {
	words := wordsOf(text)
	if len(words) == 0 {
		return nil
	}
	for _, c := range cards {
		has := wordsOf(c.Name)
		all := true
		for _, w := range words {
			all = all && slices.Contains(has, w)
		}
		if all && len(has) == len(words) {
			return []KnownCard{c}
		}
		if all {
			found = append(found, c)
		}
	}
	if size == nil || len(found) < 2 {
		return found
	}
	a, _ := strconv.ParseFloat(size[1], 64)
	b, _ := strconv.ParseFloat(size[2], 64)
	sized := slices.DeleteFunc(slices.Clone(found), func(c KnownCard) bool {
		return c.LengthCM != max(a, b) || c.WidthCM != min(a, b)
	})
	if len(sized) == 0 {
		return found
	}
	return sized
}

// wordsOf are the words of a name, plain and in the singular.
func wordsOf(s string) []string {
	var out []string
	for w := range strings.FieldsSeq(notWord.ReplaceAllString(strings.ToLower(s), " ")) {
		switch {
		case w == "and" || w == "of" || w == "the" || w == "with" || w == "in" || w == "for" || w == "at":
			continue
		case strings.HasSuffix(w, "ies") && len(w) > 4:
			w = strings.TrimSuffix(w, "ies") + "y"
		case strings.HasSuffix(w, "s") && !strings.HasSuffix(w, "ss") && len(w) > 3:
			w = strings.TrimSuffix(w, "s")
		}
		out = append(out, w)
	}
	return out
}
