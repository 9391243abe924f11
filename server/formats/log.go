package formats

import (
	"encoding/csv"
	"io"
	"strconv"
	"strings"
	"time"

	"mabbin/core/outcome"
)

// logHeads are the columns of a log as a table, with their units.
var logHeads = []string{
	"baked",
	"dessert",
	"version",
	"oven",
	"oven C",
	"minutes",
	"predicted",
	"juice",
	"juice hot",
	"fruit",
	"top",
	"base",
	"sweetness",
	"boiled over",
	"rim bubbled min",
	"middle bubbled min",
	"before g",
	"after g",
	"again",
	"note",
}

// LogWriter writes a log as CSV, line by line.
type LogWriter struct{ w *csv.Writer }

// NewLogWriter begins a log with its heads.
func NewLogWriter(to io.Writer) (LogWriter, error) {
	w := csv.NewWriter(to)
	return LogWriter{w}, w.Write(logHeads)
}

// Line writes one bake.
func (l LogWriter) Line(b outcome.Line) error {
	t := b.Told
	return l.w.Write([]string{
		b.BakedAt.UTC().
			Format(time.RFC3339),
		harmless(b.Title),
		number(b.Version),
		harmless(b.Oven),
		figure(b.OvenC),
		figure(b.Minutes),
		b.Predicted,
		word(b.Juice),
		t.JuiceHot,
		word(b.Fruit),
		word(b.Top),
		t.Base,
		t.Sweetness,
		yes(b.BoiledOver),
		figure(t.RimMin),
		figure(t.MiddleMin),
		figure(t.BeforeG),
		figure(t.AfterG),
		yes(t.Again),
		harmless(b.Note),
	})
}

// Close writes what is left.
func (l LogWriter) Close() error {
	l.w.Flush()
	return l.w.Error()
}

// harmless keeps a spreadsheet from taking what somebody typed for a formula.
func harmless(s string) string {
	if s != "" && strings.ContainsRune("=+-@\t\r", rune(s[0])) {
		return "'" + s
	}
	return s
}

func number(n *int) string {
	if n == nil {
		return ""
	}
	return strconv.Itoa(*n)
}

func figure(x *float64) string {
	if x == nil {
		return ""
	}
	return strconv.FormatFloat(*x, 'f', -1, 64)
}

func word(s *string) string {
	if s == nil {
		return ""
	}
	return *s
}

func yes(b *bool) string {
	switch {
	case b == nil:
		return ""
	case *b:
		return "yes"
	}
	return "no"
}
