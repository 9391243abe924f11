package parse

import (
	"math"
	"strconv"
	"strings"
	"unicode"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Amount is what one field's text was understood to be.
type Amount struct {
	Value      float64 // in Unit
	Unit       units.KindUnit
	Assumption message.Message // what was taken for granted or converted, in words; empty for a bare number
}

// maxText is the longest text a field is read from. Nobody writes an amount in more.
const maxText = 80

// ReadAmount reads what was typed in one field: "1 1/2 cups", "9 in", "2¼ lb", "350 F", "1 h 10 min".
// A cup or spoon of something becomes grams by d; without a density it is an error that says so, never a guess.
// The error is a message.Error.
func ReadAmount(text string, kind units.Kind, c units.Conventions, d units.Density) (Amount, error) {
	unit, ok := kind.Unit()
	if !ok {
		return Amount{}, message.Errorf("\"{kind}\" is not a kind of amount", message.Text(string(kind)))
	}
	if len(text) > maxText {
		return Amount{}, message.Errorf(
			"is too long for an amount: enter a number and a unit, like {example}",
			message.Part(kind.Example()),
		)
	}
	s := &scanner{rest: []rune(strings.ToLower(strings.TrimSpace(text)))}
	total, converted, taken := 0.0, false, []message.Message(nil)
	for first := true; first || s.more(); first = false {
		v, word, err := s.term(kind)
		if err != nil {
			return Amount{}, message.Errorf(
				"\"{written}\" {why}: enter a number and a unit, like {example}",
				message.Text(clip(text)),
				message.Part(message.Of(err)),
				message.Part(kind.Example()),
			)
		}
		x, is, how, err := units.Convert(v, word, kind, c, d)
		if err != nil {
			return Amount{}, message.Errorf("\"{written}\" {why}", message.Text(clip(text)), message.Part(message.Of(err)))
		}
		total += x
		converted = converted || is
		if !how.IsZero() {
			taken = append(taken, how)
		}
	}
	if math.IsInf(total, 0) || math.IsNaN(total) {
		return Amount{}, message.Errorf("\"{written}\" is too large for an amount", message.Text(clip(text)))
	}
	a := Amount{Value: total, Unit: unit}
	if s.ranged {
		taken = append(taken, message.New("the middle of the range"))
	}
	if !converted && len(taken) == 0 {
		return a, nil
	}
	a.Assumption = message.New(
		"{written} = {amount}",
		message.Text(strings.TrimSpace(text)),
		message.Text(strconv.FormatFloat(total, 'g', 4, 64)+" "+string(unit)),
	)
	if len(taken) > 0 {
		a.Assumption = message.New("{so} ({how})", message.Part(a.Assumption), message.Part(message.Join(", ", taken...)))
	}
	return a, nil
}

func clip(s string) string {
	if r := []rune(s); len(r) > 30 {
		return string(r[:30]) + "..."
	}
	return s
}

// scanner walks over one field's text.
type scanner struct {
	rest   []rune
	ranged bool
}

func (s *scanner) skip() {
	for len(s.rest) > 0 && unicode.IsSpace(s.rest[0]) {
		s.rest = s.rest[1:]
	}
}

func (s *scanner) more() bool { s.skip(); return len(s.rest) > 0 }

// term reads a number and the unit after it; for "gas 4" the unit comes first.
func (s *scanner) term(kind units.Kind) (v float64, unit string, err error) {
	if !s.more() {
		return 0, "", message.Errorf("is empty")
	}
	before := ""
	if kind == units.Temperature {
		before = s.word()
	}
	s.skip()
	v, ok := s.number()
	if !ok {
		return 0, "", message.Errorf("has no number")
	}
	s.skip()
	if high, ok := s.upTo(); ok {
		if high < v {
			return 0, "", message.Errorf("is a range whose end is below its start")
		}
		v, s.ranged = (v+high)/2, true
	}
	unit = s.word()
	if before != "" {
		unit = before
	}
	return v, unit, nil
}

// upTo reads the second half of a range: "2-3", "2 to 3".
func (s *scanner) upTo() (float64, bool) {
	was := s.rest
	s.skip()
	switch {
	case len(s.rest) > 0 && strings.ContainsRune("-–—", s.rest[0]):
		s.rest = s.rest[1:]
	case strings.HasPrefix(string(s.rest[:min(3, len(s.rest))]), "to "):
		s.rest = s.rest[3:]
	default:
		s.rest = was
		return 0, false
	}
	s.skip()
	v, ok := s.number()
	if !ok {
		s.rest = was
	}
	return v, ok
}

// word reads a unit: letters, with a sign for degrees, inches and percent, and the blank and stops that bakers put
// into "fl oz" and "tbsp.".
func (s *scanner) word() string {
	s.skip()
	n := 0
	for n < len(s.rest) && (unicode.IsLetter(s.rest[n]) || strings.ContainsRune(`°"″%.`, s.rest[n])) {
		n++
	}
	w := strings.Trim(string(s.rest[:n]), ".")
	s.rest = s.rest[n:]
	switch w {
	case "fl", "fluid", "gas":
		if next := s.word(); next != "" {
			w += " " + next
		}
	}
	return w
}

var vulgar = map[rune]float64{
	'½': 1.0 / 2,
	'⅓': 1.0 / 3,
	'⅔': 2.0 / 3,
	'¼': 1.0 / 4,
	'¾': 3.0 / 4,
	'⅛': 1.0 / 8,
	'⅜': 3.0 / 8,
	'⅝': 5.0 / 8,
	'⅞': 7.0 / 8,
	'⅕': 1.0 / 5,
	'⅙': 1.0 / 6,
}

// number reads "1.5", "1,5", "1/2", "1 1/2", "1½" or "½". A sign is read too, so that the range check can name it.
func (s *scanner) number() (float64, bool) {
	sign := 1.0
	if len(s.rest) > 0 && (s.rest[0] == '-' || s.rest[0] == '−') {
		sign, s.rest = -1, s.rest[1:]
	}
	whole, ok := s.decimal()
	if ok && s.peek('/') {
		s.rest = s.rest[1:]
		below, ok2 := s.decimal()
		return sign * whole / below, ok2 && below > 0
	}
	was := s.rest
	s.skip()
	if len(s.rest) > 0 {
		if part, is := vulgar[s.rest[0]]; is {
			s.rest = s.rest[1:]
			return sign * (whole + part), true
		}
	}
	if top, is := s.decimal(); ok && is && s.peek('/') {
		s.rest = s.rest[1:]
		if below, is := s.decimal(); is && below > top {
			return sign * (whole + top/below), true
		}
		return 0, false
	}
	s.rest = was
	return sign * whole, ok
}

func (s *scanner) peek(r rune) bool { return len(s.rest) > 0 && s.rest[0] == r }

// decimal reads "1.5", "1,5" and "1,500": a comma before exactly three digits parts thousands, but not after a zero.
func (s *scanner) decimal() (float64, bool) {
	n, thousands := 0, 0
scan:
	for n < len(s.rest) {
		switch r := s.rest[n]; {
		case r >= '0' && r <= '9':
		case r == ',' && n > 0 && n <= 3+4*thousands && s.rest[0] != '0' && digits(s.rest[n+1:]) == 3:
			thousands++
		case (r == '.' || r == ',') && digits(s.rest[n+1:]) > 0:
		default:
			break scan
		}
		n++
	}
	text := string(s.rest[:n])
	if thousands > 0 {
		text = strings.ReplaceAll(text, ",", "")
	}
	v, err := strconv.ParseFloat(strings.ReplaceAll(text, ",", "."), 64)
	if err != nil {
		return 0, false
	}
	s.rest = s.rest[n:]
	return v, true
}

// digits is how many ASCII digits r begins with.
func digits(r []rune) int {
	n := 0
	for n < len(r) && r[n] >= '0' && r[n] <= '9' {
		n++
	}
	return n
}
