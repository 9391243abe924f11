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
	"batch",
	"made by",
}

// LogWriter writes a log as CSV, line by line.
type LogWriter struct {
	w     *csv.Writer
	lines *int
}

// NewLogWriter begins a log with its heads.
func NewLogWriter(to io.Writer) (LogWriter, error) {
	w := csv.NewWriter(to)
	return LogWriter{w, new(int)}, w.Write(logHeads)
}

// Line writes one bake.
func (l LogWriter) Line(b outcome.Line) error {
	*l.lines++
	t := b.Details
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
		b.Batch,
		harmless(t.MadeBy),
	})
}

// End writes the last line, which tells how many bakes there are: a file without it was cut off.
func (l LogWriter) End() error {
	last := make([]string, len(logHeads))
	last[0], last[1] = "end", strconv.Itoa(*l.lines)+" bakes"
	return l.w.Write(last)
}

// Close writes what is left.
func (l LogWriter) Close() error {
	l.w.Flush()
	return l.w.Error()
}

// harmless keeps a spreadsheet from taking what somebody typed for a formula: an apostrophe before it says that it is
// text. Blanks before the sign are skipped by some.
func harmless(s string) string {
	if bare := strings.TrimLeft(s, " \t\r\n\u00a0"); bare != "" && strings.ContainsAny(bare[:1], "=+-@|%") ||
		s != "" && strings.ContainsAny(s[:1], "\t\r") || strings.HasPrefix(s, "'") {
		return "'" + s
	}
	return s
}

// asTyped is what harmless was given.
func asTyped(s string) string {
	if bare := strings.TrimPrefix(s, "'"); bare != s && harmless(bare) == s {
		return bare
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
