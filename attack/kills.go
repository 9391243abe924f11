package main

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sync"
	"time"

	"mabbin/attack/hostile"

	"github.com/google/uuid"
)

// kitchenUnder is a new kitchen that is written to, and what was acknowledged of it.
type kitchenUnder struct {
	id, base  string
	bakes     []string
	cards     map[string]string // by id, the id of the first version
	watched   []string
	purchases int
}

const (
	startG    = 900_000.0
	purchaseG = 3.0
)

func newKitchen(c *client) (*kitchenUnder, error) {
	k := &kitchenUnder{id: uuid.NewString(), cards: map[string]string{}}
	k.base = "/api/v1/kitchens/" + k.id
	if a := c.send("POST", "/api/v1/kitchens", `{"id":"`+k.id+`","name":"Under attack"}`, ""); a.code/100 != 2 {
		return nil, fmt.Errorf("no kitchen: %d %s", a.code, a.body)
	}
	body := fmt.Sprintf(`{"items":[{"key":"butter","g":%.0f}],"packs":{}}`, startG)
	if a := c.send("PUT", k.base+"/stock", body, ""); a.code/100 != 2 {
		return nil, fmt.Errorf("no stock: %d %s", a.code, a.body)
	}
	return k, nil
}

func (k *kitchenUnder) butter(c *client) (float64, error) {
	var x struct {
		Store struct {
			Stock []struct {
				Key string
				G   float64
			}
		}
	}
	if err := c.send("GET", k.base+"/stock", "", "").into(&x); err != nil {
		return 0, err
	}
	for _, s := range x.Store.Stock {
		if s.Key == "butter" {
			return s.G, nil
		}
	}
	return 0, nil
}

func bakeOf(id string) string {
	return `{"id":"` + id + `","title":"Crumble","baked_at":"2026-10-01T12:00:00Z","setting":{"minutes":45},"outcome":{},"request":` +
		hostile.Crumble + `}`
}

// write writes one thing, and notes it once it is acknowledged.
func (k *kitchenUnder) write(ctx context.Context, c *client, kind int, noted *sync.Mutex) error {
	id := uuid.NewString()
	note := func(a answer, do func()) error {
		if a.later() { // the time is over before it was acknowledged: it may be there or not, and is sent at the end
			return nil
		}
		if a.code/100 != 2 {
			return fmt.Errorf("%d %.300s", a.code, a.body)
		}
		noted.Lock()
		defer noted.Unlock()
		do()
		return nil
	}
	always := context.WithoutCancel(ctx) // what was begun is sent until it is acknowledged
	switch kind {
	case 0, 1:
		return note(c.until(always, k.base+"/bakes", bakeOf(id)), func() { k.bakes = append(k.bakes, id) })
	case 2:
		body := fmt.Sprintf(`{"id":"%s","lines":[{"key":"butter","g":%.0f}]}`, id, purchaseG)
		return note(c.until(always, k.base+"/stock/purchases", body), func() { k.purchases++ })
	case 3:
		version := uuid.NewString()
		body := `{"id":"` + id + `","version_id":"` + version + `","name":"Card","setting":{},"request":` + hostile.Crumble + `}`
		return note(c.until(always, k.base+"/cards", body), func() { k.cards[id] = version })
	}
	body := `{"id":"` + id + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + hostile.Crumble + `}`
	return note(c.until(always, k.base+"/watch", body), func() { k.watched = append(k.watched, id) })
}

const kinds = 5

// kills writes to a kitchen while server and database are killed in turn, and compares what was acknowledged with what
// is there.
func kills(ctx context.Context, m *machine, c *client) (report, error) {
	out := report{name: "kill -9 of server and database under writes"}
	k, err := newKitchen(c)
	if err != nil {
		return out, err
	}
	// what a bake takes of the butter, as it is rounded in the stock
	if a := c.send("POST", k.base+"/bakes", bakeOf(uuid.NewString()), ""); a.code/100 != 2 {
		return out, fmt.Errorf("no bake: %d %s", a.code, a.body)
	}
	after, err := k.butter(c)
	if err != nil {
		return out, err
	}
	used := startG - after
	const writers = 6
	var all sync.WaitGroup
	var noted sync.Mutex
	failed := make(chan error, writers)
	for w := range writers {
		all.Go(func() {
			r := rand.New(rand.NewPCG(uint64(w), 1)) //nolint:gosec // which of the kinds
			for ctx.Err() == nil {
				if err := k.write(ctx, c, r.IntN(kinds), &noted); err != nil {
					failed <- err
					return
				}
			}
		})
	}
	killed := [2]int{}
	for n := 0; ctx.Err() == nil; n++ {
		select {
		case <-ctx.Done():
		case <-time.After(time.Duration(1500+rand.IntN(2500)) * time.Millisecond): //nolint:gosec // when is no secret
		}
		if n%3 == 2 {
			if err := m.killDatabase(); err != nil {
				return out, err
			}
			if _, err := m.startDatabase(); err != nil {
				return out, err
			}
			killed[1]++
			continue
		}
		m.kill()
		if err := m.start(); err != nil {
			return out, err
		}
		killed[0]++
	}
	all.Wait()
	select {
	case err := <-failed:
		out.wrong = append(out.wrong, "a write was refused: "+err.Error())
	default:
	}
	out.says = fmt.Sprintf("%d bakes, %d purchases, %d cards, %d on the watch; server killed %d times, database %d",
		len(k.bakes), k.purchases, len(k.cards), len(k.watched), killed[0], killed[1])
	return out, k.compare(c, used, &out)
}

// compare compares what was acknowledged of a kitchen with what is there.
func (k *kitchenUnder) compare(c *client, used float64, out *report) error {
	left, err := k.butter(c)
	if err != nil {
		return err
	}
	want := startG - used*float64(len(k.bakes)+1) + purchaseG*float64(k.purchases)
	if off := left - want; math.Abs(off) > 0.05 {
		out.halves++
		out.wrong = append(
			out.wrong,
			fmt.Sprintf("the stock is off by %.1f g: %.1f g are there, %.1f g follow from what was acknowledged",
				off, left, want),
		)
	}
	there, batches := map[string]int{}, map[string]int{}
	before := ""
	for more := true; more; {
		var page struct {
			Bakes []struct{ ID, Batch string }
			More  bool
		}
		path := k.base + "/bakes?limit=200"
		if before != "" {
			path += "&before=" + before
		}
		if err := c.send("GET", path, "", "").into(&page); err != nil {
			return err
		}
		for _, b := range page.Bakes {
			there[b.ID]++
			batches[b.Batch]++
			before = b.ID
		}
		more = page.More && len(page.Bakes) > 0
	}
	out.count("bake", k.bakes, there, 1)
	for batch, n := range batches {
		if n > 1 {
			out.doubled++
			out.wrong = append(out.wrong, fmt.Sprintf("batch %s is there %d times", batch, n))
		}
	}
	for id, version := range k.cards {
		var card struct{ Versions []struct{ ID string } }
		if err := c.send("GET", k.base+"/cards/"+id, "", "").into(&card); err != nil {
			out.lost++
			out.wrong = append(out.wrong, "a card is lost: "+err.Error())
			continue
		}
		if len(card.Versions) != 1 || card.Versions[0].ID != version {
			out.halves++
			out.wrong = append(out.wrong, fmt.Sprintf("card %s has the versions %v", id, card.Versions))
		}
	}
	var watch struct {
		Desserts []struct {
			ID    string
			Calls []struct{ ID string }
		}
	}
	if err := c.send("GET", k.base+"/watch", "", "").into(&watch); err != nil {
		return err
	}
	onWatch := map[string]int{}
	for _, d := range watch.Desserts {
		onWatch[d.ID]++
		if len(d.Calls) == 0 {
			out.halves++
			out.wrong = append(out.wrong, "a dessert is on the watch without calls: "+d.ID)
		}
	}
	out.count("dessert on the watch", k.watched, onWatch, 0)
	return nil
}

// count compares ids that were acknowledged with those that are there; in addition to are so many that nobody counted.
func (r *report) count(what string, acknowledged []string, there map[string]int, beside int) {
	for _, id := range acknowledged {
		switch n := there[id]; {
		case n == 0:
			r.lost++
			r.wrong = append(r.wrong, what+" is lost: "+id)
		case n > 1:
			r.doubled++
			r.wrong = append(r.wrong, what+" is doubled: "+id)
		}
	}
	for id := range there {
		if !slices.Contains(acknowledged, id) {
			beside--
		}
	}
	if beside < 0 {
		r.doubled -= beside
		r.wrong = append(r.wrong, fmt.Sprintf("%d of kind %q are there that were never acknowledged", -beside, what))
	}
}
