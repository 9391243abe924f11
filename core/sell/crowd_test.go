package sell

import (
	"math/rand/v2"
	"slices"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
)

// By trying everything: the fewest dishes that are enough, and the least left over.
func TestFewestDishes(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 400 {
		n := 1 + r.IntN(3)
		each, there := make([]int, n), make([]int, n)
		for i := range n {
			each[i], there[i] = r.IntN(14), 1+r.IntN(5)
		}
		need := 1 + r.IntN(60)
		bestDishes, bestOver, all := 1<<30, 1<<30, 0
		var try func(i, dishes, portions int)
		try = func(i, dishes, portions int) {
			if i == n {
				all = max(all, portions)
				if over := portions - need; over >= 0 && (dishes < bestDishes || dishes == bestDishes && over < bestOver) {
					bestDishes, bestOver = dishes, over
				}
				return
			}
			for k := range there[i] + 1 {
				try(i+1, dishes+k, portions+k*each[i])
			}
		}
		try(0, 0, 0)
		dishes, portions := 0, 0
		got := fewest(each, there, need)
		for i, k := range got {
			dishes, portions = dishes+k, portions+k*each[i]
			if k > there[i] {
				t.Fatalf("%v of %v", got, there)
			}
		}
		switch {
		case all < need:
			if !slices.Equal(got, there) {
				t.Errorf("they are too few, and %v of %v are taken", got, there)
			}
		case dishes != bestDishes || portions-need != bestOver:
			t.Errorf("%v of %v in %v for %d: %d dishes, %d over; best %d and %d", got, there, each, need, dishes,
				portions-need, bestDishes, bestOver)
		}
	}
}

func TestForCrowd(t *testing.T) {
	stoneware := dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"}
	gratin := dish.Dish{Shape: dish.Rectangle, LengthCM: 32, WidthCM: 22, DepthCM: 6, Material: "stoneware"}
	q := CrowdRequest{
		Request: balance.Request{
			Dish: stoneware, Style: "crumble", Fruits: []balance.FruitInput{{Key: "plum", Share: 1}},
			Topping: balance.ToppingInput{Key: "crumble_classic"},
		},
		Dishes: []balance.StartDish{
			{ID: "s", Name: "Stoneware", Count: 2, Dish: stoneware},
			{ID: "g", Name: "Gratin", Count: 2, Dish: gratin},
		},
		Portions: 20,
	}
	c, err := ForCrowd(q)
	if err != nil {
		t.Fatal(err)
	}
	if c.Portions < 21 || c.Missing != 0 || c.Spare != c.Portions-20 || len(c.Dishes) == 0 || c.Mixes != 1 {
		t.Errorf("twenty, and one to spare: %+v", c)
	}
	q.MixG = c.ToppingG / 2.5
	if c, _ = ForCrowd(q); c.Mixes != 3 {
		t.Errorf("a bowl for two fifths of it: %d mixes", c.Mixes)
	}
	q.MixG, q.BowlML = 0, 1000 // of which six tenths are filled
	if c, _ = ForCrowd(q); c.Mixes < 2 {
		t.Errorf("%g g of topping from a bowl of a litre in %d mix", c.ToppingG, c.Mixes)
	}
	if c.Loads != 0 {
		t.Errorf("%d loads of ovens that nobody has told of", c.Loads)
	}
	q.Tiers = []CrowdTier{{45, 37}}
	one, _ := ForCrowd(q)
	q.Tiers = append(q.Tiers, CrowdTier{45, 37}, CrowdTier{45, 37})
	if three, err := ForCrowd(q); err != nil || one.Loads < 2 || three.Loads >= one.Loads || three.Loads < 1 {
		t.Errorf("on one tier %d loads, on three %d; %v", one.Loads, three.Loads, err)
	}
	q.Tiers[0].WidthCM = -4
	if _, err := ForCrowd(q); err == nil {
		t.Error("a tier of less than nothing")
	}
	q.Tiers = nil
	q.Portions = 200
	if c, _ = ForCrowd(q); c.Missing != 200-c.Portions || c.Missing <= 0 {
		t.Errorf("for two hundred four dishes are too few: %+v", c)
	}
	q.Portions, q.Dishes = 0, nil
	if _, err := ForCrowd(q); err == nil {
		t.Error("nobody, in no dish")
	}
}
