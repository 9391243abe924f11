package main

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"sync"

	"mabbin/attack/hostile"

	"github.com/google/uuid"
)

const together = 8

// atOnce sends requests at the same time and returns their answers.
func atOnce(n int, send func(i int) answer) []answer {
	out := make([]answer, n)
	var all sync.WaitGroup
	for i := range n {
		all.Go(func() { out[i] = send(i) })
	}
	all.Wait()
	return out
}

func codesOf(all []answer) map[int]int {
	out := map[int]int{}
	for _, a := range all {
		out[a.code]++
	}
	return out
}

// races has many change one thing from the same revision, and many send the same thing under one id.
func races(ctx context.Context, _ *machine, c *client) (report, error) {
	out := report{name: "races by If-Match and by repeated ids"}
	rounds := 0
	for ctx.Err() == nil {
		k, err := newKitchen(c)
		if err != nil {
			return out, err
		}
		card, oven := uuid.NewString(), uuid.NewString()
		if a := c.send("POST", k.base+"/cards", `{"id":"`+card+`","version_id":"`+uuid.NewString()+
			`","name":"Card","setting":{},"request":`+hostile.Crumble+`}`, ""); a.code/100 != 2 {
			return out, fmt.Errorf("no card: %d %s", a.code, a.body)
		}
		if a := c.send("PUT", k.base+"/ovens/"+oven, ovenNamed("Oven"), ""); a.code/100 != 2 {
			return out, fmt.Errorf("no oven: %d %s", a.code, a.body)
		}
		out.oneWins(c, k, card, oven)
		out.onceEach(c, k)
		rounds++
	}
	out.says = fmt.Sprintf("%d rounds of %d writers", rounds, together)
	return out, nil
}

func ovenNamed(name string) string {
	return `{"name":"` + name + `","oven":{"kind":"oven","heating":"fan","offset_c":0,"give_or_take_c":5}}`
}

// oneWins has many change one thing from the same revision: one is to be taken, and the others are to be refused.
func (r *report) oneWins(c *client, k *kitchenUnder, card, oven string) {
	for path, body := range map[string]func(i int) string{
		"/resources": func(i int) string {
			return fmt.Sprintf(`{"wash_min":%d,"ovens":[],"people":[],"places":[],"mixers":1}`, i)
		},
		"/days/2026-12-24": func(i int) string {
			return fmt.Sprintf(`{"orders":[{"id":"x","card":"%s","dishes":1,"due_min":%d,"serve":"warm"}]}`, card, 600+i)
		},
		"/stock":         func(i int) string { return fmt.Sprintf(`{"items":[{"key":"butter","g":%d}],"packs":{}}`, 1000+i) },
		"/ovens/" + oven: func(i int) string { return ovenNamed(fmt.Sprint("Oven ", i)) },
		"/cards/" + card: func(i int) string { return fmt.Sprintf(`{"name":"Card %d"}`, i) },
	} {
		revision, err := revisionOf(c, k.base, path)
		if err != nil {
			r.wrong = append(r.wrong, path+": "+err.Error())
			continue
		}
		codes := codesOf(atOnce(together, func(i int) answer { return c.send("PUT", k.base+path, body(i), revision) }))
		if codes[http.StatusOK] != 1 || codes[http.StatusPreconditionFailed] != together-1 {
			r.lost += max(0, codes[http.StatusOK]-1)
			r.wrong = append(r.wrong, fmt.Sprintf("%s: of %d writers with one revision: %v", path, together, codes))
		}
	}
}

// revisionOf is the revision of a thing, or of the one with its id in the list that it is in.
func revisionOf(c *client, base, path string) (string, error) {
	type thing struct{ ID, Revision string }
	a := c.send("GET", base+path, "", "")
	if a.code == http.StatusMethodNotAllowed || a.code == http.StatusNotFound {
		list, id := path[:strings.LastIndex(path, "/")], path[strings.LastIndex(path, "/")+1:]
		var all []thing
		if err := c.send("GET", base+list, "", "").into(&all); err != nil {
			return "", err
		}
		for _, x := range all {
			if x.ID == id {
				return x.Revision, nil
			}
		}
		return "", fmt.Errorf("no %s in %s", id, list)
	}
	var x thing
	err := a.into(&x)
	return x.Revision, err
}

// onceEach has many send the same thing under one id: it is to be there once, and every sender is to get a success.
func (r *report) onceEach(c *client, k *kitchenUnder) {
	before, err := k.butter(c)
	if err != nil {
		r.wrong = append(r.wrong, err.Error())
		return
	}
	id := uuid.NewString
	for what, x := range map[string]struct{ method, path, body string }{
		"a bake":     {"POST", k.base + "/bakes", bakeOf(id())},
		"a purchase": {"POST", k.base + "/stock/purchases", `{"id":"` + id() + `","lines":[{"key":"butter","g":7}]}`},
		"a card": {
			"POST", k.base + "/cards",
			`{"id":"` + id() + `","version_id":"` + id() + `","name":"One","setting":{},"request":` + hostile.Crumble + `}`,
		},
		"a dish": {
			"POST", k.base + "/dishes", `{"id":"` + id() +
				`","name":"Tin","dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"}}`,
		},
		"a kitchen": {"POST", "/api/v1/kitchens", `{"id":"` + id() + `","name":"Twice"}`},
		"a countdown": {
			"PUT", k.base + "/watch/countdowns/" + id(), `{"title":"Crumble","ready":{"bench":{"setting":{},"request":` + hostile.Crumble +
				`},"serve":"warm","ready_at":"` + tomorrow() + `"}}`,
		},
	} {
		all := atOnce(together, func(int) answer { return c.send(x.method, x.path, x.body, "") })
		for _, a := range all {
			if a.code/100 != 2 {
				r.wrong = append(r.wrong, fmt.Sprintf("%s, sent %d times at once: %v", what, together, codesOf(all)))
				break
			}
		}
	}
	if n := c.listed(k.base+"/bakes", "bakes"); n != 1 {
		r.doubled += n - 1
		r.wrong = append(r.wrong, fmt.Sprintf("one bake is there %d times", n))
	}
	if n := c.listed(k.base+"/watch", "on_the_way"); n != 1 {
		r.doubled += n - 1
		r.wrong = append(r.wrong, fmt.Sprintf("one countdown is there %d times", n))
	}
	after, err := k.butter(c)
	if err != nil {
		r.wrong = append(r.wrong, err.Error())
		return
	}
	// the kitchen is new: what one bake takes is what is gone in addition to the purchase
	k2, err := newKitchen(c)
	if err != nil {
		r.wrong = append(r.wrong, err.Error())
		return
	}
	_ = c.send("POST", k2.base+"/bakes", bakeOf(id()), "")
	one, err := k2.butter(c)
	if err != nil {
		r.wrong = append(r.wrong, err.Error())
		return
	}
	if off := (before + 7 - after) - (startG - one); off > 0.15 || off < -0.15 {
		r.doubled++
		r.wrong = append(r.wrong, fmt.Sprintf("one bake and one purchase leave the stock %.1f g off", off))
	}
}

// listed is how many things a list in an answer has.
func (c *client) listed(path, field string) int {
	var x map[string]json.RawMessage
	if err := c.send("GET", path, "", "").into(&x); err != nil {
		return -1
	}
	var all []json.RawMessage
	_ = json.Unmarshal(x[field], &all)
	return len(all)
}
