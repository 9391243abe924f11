package formats

import (
	"encoding/csv"
	"strings"
	"testing"
	"time"

	"mabbin/core/outcome"
)

func TestALogIsATable(t *testing.T) {
	var to strings.Builder
	w, err := NewLogWriter(&to)
	if err != nil {
		t.Fatal(err)
	}
	version, c, juice, over, before := 2, 185.0, "saucy", false, 2410.5
	for _, l := range []outcome.Line{
		{Title: "=SUM(A1)", BakedAt: time.Date(2026, 10, 1, 12, 0, 0, 0, time.UTC), Note: "two\nlines, \"quoted\""},
		{Title: "Damson", Batch: "011026-A", Version: &version, Oven: "Old range", OvenC: &c, Predicted: "spoonable", Juice: &juice, BoiledOver: &over, Details: outcome.Details{Base: "crisp", BeforeG: &before, MadeBy: "=Bryony"}},
	} {
		if err := w.Line(l); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	rows, err := csv.NewReader(strings.NewReader(to.String())).ReadAll()
	if err != nil || len(rows) != 3 {
		t.Fatalf("%d rows, %v", len(rows), err)
	}
	if rows[1][1] != "'=SUM(A1)" || rows[1][19] != "two\nlines, \"quoted\"" || rows[1][0] != "2026-10-01T12:00:00Z" {
		t.Errorf("%q", rows[1])
	}
	if got := strings.Join(
		rows[2][1:],
		"|",
	); got != "Damson|2|Old range|185||spoonable|saucy||||crisp||no|||2410.5||||011026-A|'=Bryony" {
		t.Error(got)
	}
}
