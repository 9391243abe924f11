package sell_test

import (
	"testing"
	"time"

	"mabbin/core/sell"
)

func TestBatchNumbers(t *testing.T) {
	on := time.Date(2026, 11, 27, 0, 0, 0, 0, time.UTC)
	seen := map[string]bool{}
	for n := range 800 {
		seen[sell.BatchNumber(on, n)] = true
	}
	if len(seen) != 800 {
		t.Errorf("800 batches have %d numbers", len(seen))
	}
	for n, want := range map[int]string{0: "271126-A", 1: "271126-B", 25: "271126-Z", 26: "271126-AA", 52: "271126-BA", 702: "271126-AAA"} {
		if got := sell.BatchNumber(on, n); got != want {
			t.Errorf("batch %d is %s, want %s", n, got, want)
		}
	}
}
