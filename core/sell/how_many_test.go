package sell_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"mabbin/core/sell"
)

func weeks(sold ...[2]int) (out []sell.Sold) {
	for i, s := range sold {
		out = append(out, sell.Sold{WeeksAgo: float64(i + 1), Made: s[0], Left: s[1]})
	}
	return out
}

func propose(t *testing.T, days []sell.Sold, price, cost float64) sell.HowMany {
	t.Helper()
	h, ok := sell.Propose(days, price, cost)
	if !ok || h.Low > h.Median || h.Median > h.High || h.Make < h.Low || h.Text.IsZero() {
		t.Fatalf("%+v", h)
	}
	return h
}

func TestHowManyToMake(t *testing.T) {
	steady := propose(
		t,
		weeks([2]int{16, 4}, [2]int{16, 3}, [2]int{16, 5}, [2]int{16, 4}, [2]int{16, 4}, [2]int{16, 3}),
		0,
		0,
	)
	if steady.Median < 11 || steady.Median > 13 || steady.Guess || steady.Make < steady.Median || steady.Make > 16 {
		t.Errorf("twelve sold every Saturday: %+v", steady)
	}
	if one := propose(t, weeks([2]int{16, 4}), 0, 0); !one.Guess || one.High-one.Low <= steady.High-steady.Low {
		t.Errorf("one Saturday tells little: %+v, six tell %+v", one, steady)
	}
	out := propose(t, weeks([2]int{12, 0}, [2]int{12, 0}, [2]int{12, 0}, [2]int{12, 0}), 0, 0)
	if out.Median < 14 {
		t.Errorf("sold out four times at twelve, more was wanted: %+v", out)
	}
	rising := weeks([2]int{20, 2}, [2]int{20, 4}, [2]int{20, 8}, [2]int{20, 10}, [2]int{20, 12}, [2]int{20, 12})
	falling := weeks([2]int{20, 12}, [2]int{20, 12}, [2]int{20, 10}, [2]int{20, 8}, [2]int{20, 4}, [2]int{20, 2})
	if r, f := propose(t, rising, 0, 0), propose(t, falling, 0, 0); r.Median <= f.Median {
		t.Errorf("the newest count most: %d when rising, %d when falling", r.Median, f.Median)
	}
	days := weeks([2]int{16, 4}, [2]int{14, 1}, [2]int{18, 7}, [2]int{16, 2})
	dear, cheap := propose(t, days, 100, 80), propose(t, days, 100, 5)
	if dear.Make >= dear.Median+1 || cheap.Make <= cheap.Median || dear.Make >= cheap.Make {
		t.Errorf(
			"what is dear to make is made more sparely: %d against %d of a median of %d",
			dear.Make,
			cheap.Make,
			dear.Median,
		)
	}
	if _, ok := sell.Propose(weeks([2]int{0, 0}), 0, 0); ok {
		t.Error("nothing was made: there is nothing to tell")
	}
}

// Of simulated shops, 8 in 10 days lie in the range that is reported, and the order of the days does not matter.
func TestTheRangeHolds(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	poisson := func(mean float64) (n int) {
		for p := r.ExpFloat64(); p < mean; p += r.ExpFloat64() {
			n++
		}
		return n
	}
	const weather = 0.15 // how far days differ in addition to chance
	held, all := 0, 400
	for range all {
		mean := 6 + 24*r.Float64()
		var days []sell.Sold
		for w := range 6 {
			made := int(mean * (0.8 + 0.6*r.Float64()))
			days = append(
				days,
				sell.Sold{WeeksAgo: float64(w + 1), Made: made, Left: max(0, made-poisson(mean*math.Exp(weather*r.NormFloat64())))},
			)
		}
		h := propose(t, days, 0, 0)
		r.Shuffle(len(days), func(i, j int) { days[i], days[j] = days[j], days[i] })
		if again := propose(t, days, 0, 0); again.Make != h.Make {
			t.Fatalf("in another order %d instead of %d", again.Make, h.Make)
		}
		if next := poisson(mean * math.Exp(weather*r.NormFloat64())); next >= h.Low && next <= h.High {
			held++
		}
	}
	if share := float64(held) / float64(all); share < 0.74 || share > 0.93 {
		t.Errorf("8 of 10 days are said to lie between low and high: %.2f do", share)
	}
}
