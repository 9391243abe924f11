package bake

import (
	"math"
	"math/bits"

	"mabbin/core/message"
)

// clockState is where the clocks of a run stand at a minute.
type clockState struct {
	minute                              float64 // of a search
	fruit, colour, rimColour, base, set float64
	hottest, coldest                    float64 // the middle and the coldest of the filling have been, C
	topping                             float64 // its coldest is, C
	bubbles, through                    bool
	late                                bool    // the topping went on late
	steamG                              float64 // of the filling, in the oven
}

// faultSet are the clocks that are not right, a flag each.
type faultSet uint16

// The flags of a faultSet.
const (
	notSet faultSet = 1 << iota
	notBubbling
	fruitHard
	topPale
	topDark
	baseRaw
	baseBurnt
	toppingRaw
	curdled
	juiceGone
	fruitGone
	faultKinds = iota
)

// faultWords has each in words, in the order of its bits.
var faultWords = [faultKinds]message.Message{
	message.New("not set everywhere"),
	message.New("the middle does not bubble"),
	message.New("the fruit is hard"),
	message.New("the top is pale"),
	message.New("the top is too dark"),
	message.New("the base is not baked"),
	message.New("the base is burnt"),
	message.New("the topping is raw inside"),
	message.New("the custard curdles"),
	message.New("too much of the juice boils away"),
	message.New("the fruit falls apart under a topping that goes on late"),
}

// irreversible are those that no longer baking puts right.
func (m faultSet) irreversible() faultSet {
	return m & (topDark | baseBurnt | curdled | juiceGone | fruitGone)
}

// words are the clocks that are not right in words, for what this plan asks of them.
func (q *PlanRequest) words(m faultSet) []message.Message {
	out := []message.Message{}
	for i, w := range faultWords {
		if m>>i&1 == 0 {
			continue
		}
		switch fault := faultSet(1 << i); {
		case fault == baseRaw && q.CrispBase:
			w = message.New("the base is not crisp")
		case fault == topPale && q.AimColour > aimColour:
			w = message.New("the top is paler than you want it")
		}
		out = append(out, w)
	}
	return out
}

func (m faultSet) count() int { return bits.OnesCount16(uint16(m)) }

// shortfalls are what each clock is short of or over by, as a share of its limit, in the order of the flags; 0 is
// right.
type shortfalls [faultKinds]float64

// shortfalls are those at a moment. Fruit that falls is no fault, as berries do, but under a late topping.
func (q *PlanRequest) shortfalls(s clockState) (by shortfalls) {
	under := func(x, limit float64) float64 { return max(0, (limit-x)/limit) }
	over := func(x, limit float64) float64 { return max(0, (x-limit)/limit) }
	if !q.NoStarch {
		by[0] = under(s.set, leastSet)
		if q.Custard {
			by[0] = max(by[0], under(s.hottest, custardSetC))
		} else if !s.bubbles {
			by[1] = max(sameShort, under(s.coldest, q.bubblesC()))
		}
	}
	by[2] = under(s.fruit, leastTender*q.TenderMin)
	if q.Bake.Topping != nil { // bare fruit stays too wet to brown
		if !q.Custard { // its top may be pale
			by[3] = under(s.colour, q.leastColour(s.late))
		}
		by[4] = over(s.colour, burntTop)
	}
	if q.Bake.Base != nil {
		baked := bakedFrom
		if q.CrispBase {
			baked = crispFrom
		}
		by[5], by[6] = under(s.base, baked), over(s.base, burntOver)
	}
	if q.Biscuit && !s.through {
		by[7] = max(sameShort, under(s.topping, throughC))
	}
	if q.BareEgg {
		by[8] = over(s.hottest, custardDoneC)
	}
	by[9] = over(s.steamG, steamMost*q.Bake.Filling.MassG)
	if s.late {
		by[10] = over(s.fruit, mushMost*q.MushMin)
	}
	return by
}

// leastColour is the least that a top may have: not pale, and near to what is wanted where that is browner than usual.
func (q *PlanRequest) leastColour(late bool) float64 {
	least := paleLimit(late)
	if q.AimColour > aimColour {
		least = max(least, nearAim*q.AimColour)
	}
	return least
}

// TopLimits are the least and the most colour that a top may have: 0 and infinity where it may have any.
func (q *PlanRequest) TopLimits() (least, most float64) {
	if q.Bake.Topping == nil {
		return 0, math.Inf(1)
	}
	if q.Custard {
		return 0, burntTop
	}
	return q.leastColour(q.LateMin > 0), burntTop
}

// bubblesC is the temperature at which a baker sees the middle bubble.
func (q *PlanRequest) bubblesC() float64 { return boilingC(&q.Bake) - middleBubblesC }

// sum is all that is short or over, and spoilt what no longer baking puts right.
func (by shortfalls) sum() (sum float64) {
	for _, x := range by {
		sum += x
	}
	return sum
}

func (by shortfalls) spoilt() (sum float64) {
	for i, x := range by {
		if faultSet(1<<i).irreversible() != 0 {
			sum += x
		}
	}
	return sum
}

// unmet are the clocks that are not right at a moment.
func (q *PlanRequest) unmet(s clockState) (m faultSet) {
	for i, x := range q.shortfalls(s) {
		if x > 0 {
			m |= 1 << i
		}
	}
	return m
}
