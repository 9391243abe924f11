package sell

import (
	"fmt"
	"math"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Stored is what there is of something, g.
type Stored struct {
	Key string  `json:"key"`
	G   float64 `json:"g"`
}

// Pack is a size that a shop sells.
type Pack struct {
	G     float64 `json:"g"`
	Minor int64   `json:"minor"`
}

// ShoppingRequest is what is needed, what there is, and in what packs it is sold.
type ShoppingRequest struct {
	Needs []Line            `json:"needs"`
	Stock []Stored          `json:"store,omitempty"`
	Packs map[string][]Pack `json:"packs,omitempty"`
	Own   *larder.Own       `json:"own,omitempty"`
}

// Packs are so many of one size.
type Packs struct {
	G     float64 `json:"g"`
	Count int     `json:"count"`
}

// Buy is what to buy of one thing.
type Buy struct {
	Key     string  `json:"key"`
	NeedG   float64 `json:"need_g"` // as bought
	StockG  float64 `json:"store_g"`
	ShortG  float64 `json:"short_g"`
	Packs   []Packs `json:"packs"`
	BoughtG float64 `json:"bought_g"`
	LeftG   float64 `json:"left_g"`
	Minor   *int64  `json:"minor"` // nil: nobody knows its packs
}

// Shopping is the list, in the order in which things were needed first.
type Shopping struct {
	Buy []Buy `json:"buy"`
}

const (
	mostPacks   = 20     // sizes of one thing
	mostKinds   = 2000   // things that are in store, or have a price
	mostNeedG   = 500000 // of one thing
	looseG      = 10.0   // what has no packs is bought by so much
	finestPackG = 0.1
)

// CheckShopping finds every wrong field.
func CheckShopping(q ShoppingRequest) error {
	var f fault.Faults
	q.Own.Check("/own", &f)
	if !f.Length("", "/needs", len(q.Needs), 1, 20*mostLines) {
		return f.Err()
	}
	for i, l := range q.Needs {
		l.check(fmt.Sprintf("/needs/%d", i), q.Own, &f)
	}
	f.Length("", "/store", len(q.Stock), 0, mostKinds)
	f.Length("", "/packs", len(q.Packs), 0, mostKinds)
	for i, s := range q.Stock {
		f.RangeAt(fmt.Sprintf("/store/%d", i), "/g", s.G, 0, 1e7, "g")
	}
	for key, packs := range q.Packs {
		at := "/packs/" + fault.Key(key)
		f.Length(at, "", len(packs), 1, mostPacks)
		for i, p := range packs {
			f.RangeAt(fmt.Sprintf("%s/%d", at, i), "/g", p.G, finestPackG, 1e6, "g")
			f.RangeAt(fmt.Sprintf("%s/%d", at, i), "/minor", float64(p.Minor), 0, 1e9, "")
		}
	}
	return f.Err()
}

// ShoppingList is what to buy. A bad request is fault.Faults.
func ShoppingList(q ShoppingRequest) (*Shopping, error) {
	if err := CheckShopping(q); err != nil {
		return nil, err
	}
	needs, store := map[string]float64{}, map[string]float64{}
	var order []string
	for _, l := range q.Needs {
		if _, known := needs[l.Key]; !known {
			order = append(order, l.Key)
		}
		needs[l.Key] += l.bought(q.Own)
	}
	for _, s := range q.Stock {
		store[s.Key] += s.G
	}
	out := &Shopping{Buy: []Buy{}}
	for _, key := range order {
		b := Buy{Key: key, NeedG: needs[key], StockG: store[key], Packs: []Packs{}}
		b.ShortG = max(0, b.NeedG-b.StockG)
		if b.ShortG > mostNeedG {
			var f fault.Faults
			f.Add("/needs", message.New("need {much} of {key}: at most {most} is possible", message.Grams(b.ShortG),
				message.Text(key), message.Grams(mostNeedG)))
			return nil, f
		}
		packs, sold := q.Packs[key]
		switch {
		case sold:
			b.pack(packs)
		case b.ShortG > 0:
			b.BoughtG = looseG * math.Ceil(b.ShortG/looseG-1e-9)
		}
		b.LeftG = b.StockG + b.BoughtG - b.NeedG
		out.Buy = append(out.Buy, b)
	}
	return out, nil
}

// cover is the cheapest way to have so much of something: by price, then by what is left over, then by packs.
type cover struct {
	minor int64
	tenth int // of a gram, bought
	packs int
	last  int // pack
}

func (c cover) better(d cover) bool {
	if c.minor != d.minor {
		return c.minor < d.minor
	}
	if c.tenth != d.tenth {
		return c.tenth < d.tenth
	}
	return c.packs < d.packs
}

// pack chooses the packs.
func (b *Buy) pack(packs []Pack) {
	minor := int64(0)
	b.Minor = &minor
	if b.ShortG <= 0 {
		return
	}
	packs = slices.Clone(packs)
	slices.SortStableFunc(packs, func(p, q Pack) int { return int(math.Copysign(1, q.G-p.G)) }) // the largest first
	unit := 1.0
	for _, p := range packs {
		if p.G != math.Trunc(p.G) {
			unit = finestPackG
		}
	}
	need := int(math.Ceil(b.ShortG/unit - 1e-9))
	sizes := make([]int, len(packs))
	for i, p := range packs {
		sizes[i] = max(1, int(math.Floor(p.G/unit+1e-9)))
	}
	best := make([]cover, need+1)
	for x := 1; x <= need; x++ {
		for i, size := range sizes {
			c := best[max(0, x-size)]
			c.minor += packs[i].Minor
			c.tenth += size
			c.packs++
			c.last = i
			if i == 0 || c.better(best[x]) {
				best[x] = c
			}
		}
	}
	minor = best[need].minor
	count := make([]int, len(packs))
	for x := need; x > 0; x = max(0, x-sizes[best[x].last]) {
		count[best[x].last]++
	}
	for i, n := range count {
		if n > 0 {
			b.Packs = append(b.Packs, Packs{packs[i].G, n})
			b.BoughtG += float64(n) * packs[i].G
		}
	}
}
