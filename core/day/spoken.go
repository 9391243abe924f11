package day

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"
)

// Orders as they are taken over the telephone: "20 portions of sour cherry bars at half past three".

var (
	wordHours = []string{
		"one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve",
	}
	hourWord = `(1[0-2]|[1-9]|` + strings.Join(wordHours, "|") + `)`
	linePast = regexp.MustCompile(
		`(?i)\b(?:at |by |for )?(?:a )?(half|quarter|ten|twenty|five|twenty[- ]five) (past|to) ` + hourWord + `\b`,
	)
	lineHalf = regexp.MustCompile(`(?i)\b(?:at |by |for )?half ` + hourWord + `\b`)
	lineNoon = regexp.MustCompile(`(?i)\b(?:at |by |for )?(?:noon|midday)\b`)
	lineHour = regexp.MustCompile(
		`(?i)\b(?:at|by) ` + hourWord + `(?: o['’]?clock)?\b|\b` + hourWord + ` o['’]?clock\b`,
	)
	linePortions  = regexp.MustCompile(`(?i)\b(\d{1,4})\s*(?:portions?|slices?|pieces?|servings?|people)\b(?: of)?`)
	lineWeekday   = regexp.MustCompile(`(?i)\b(?:on |for |next |this )*(mon|tues|wednes|thurs|fri|satur|sun)day\b`)
	minutesSpoken = map[string]int{"half": 30, "quarter": 15, "ten": 10, "twenty": 20, "five": 5}
)

// earliestSpoken is the first hour of the morning that is meant where nobody says morning or afternoon: a café has
// nothing ready at three at night.
const earliestSpoken = 7

// hourSpoken is the hour of the day that a number or its word means.
func hourSpoken(word string) int {
	h, err := strconv.Atoi(word)
	if err != nil {
		h = 1 + slices.Index(wordHours, strings.ToLower(word))
	}
	if h < earliestSpoken {
		h += 12
	}
	return h
}

// spokenClock finds a time of day in words, and the line without it.
func spokenClock(line string) (minute int, rest string, found bool) {
	without := func(m string) string { return strings.Replace(line, m, " ", 1) }
	if m := linePast.FindStringSubmatch(line); m != nil {
		n, known := minutesSpoken[strings.ToLower(m[1])]
		if !known {
			n = 25
		}
		if strings.EqualFold(m[2], "to") {
			return 60*toHour(m[3]) - n, without(m[0]), true
		}
		return 60*hourSpoken(m[3]) + n, without(m[0]), true
	}
	if m := lineHalf.FindStringSubmatch(line); m != nil { // half three: half past it
		return 60*hourSpoken(m[1]) + 30, without(m[0]), true
	}
	if m := lineNoon.FindString(line); m != "" {
		return 12 * 60, without(m), true
	}
	if m := lineHour.FindStringSubmatch(line); m != nil {
		word := m[1]
		if word == "" {
			word = m[2]
		}
		return 60 * hourSpoken(word), without(m[0]), true
	}
	return 0, line, false
}

// toHour is the hour that a quarter to something is before: a quarter to seven is in the morning only after six.
func toHour(word string) int {
	if h := hourSpoken(word); h > earliestSpoken {
		return h
	}
	return earliestSpoken + 12
}

// otherWeekday says whether a line names a day of the week that is not the one it is read for, and the line without it.
func otherWeekday(line string, day time.Weekday) (other bool, rest string) {
	m := lineWeekday.FindStringSubmatch(line)
	if m == nil {
		return false, line
	}
	return !strings.EqualFold(m[1]+"day", day.String()), strings.Replace(line, m[0], " ", 1)
}
