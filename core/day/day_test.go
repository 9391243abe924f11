package day_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"reflect"
	"runtime"
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/core/day"
	"mabbin/core/day/internal/daytest"
)

type worked struct {
	Name    string
	Request day.Request
	Expect  struct {
		Feasible     bool
		Objective    day.Objective
		Proved       bool
		ProvedLevels []string `json:"proved_levels"`
		Answer       day.Answer
	}
}

func cases(t testing.TB) []worked {
	t.Helper()
	raw, err := os.ReadFile("testdata/day-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []worked
	if err := json.Unmarshal(raw, &all); err != nil {
		t.Fatal(err)
	}
	return all
}

func plan(t testing.TB, q day.Request) *day.Answer {
	t.Helper()
	a, err := day.Plan(t.Context(), q, time.Now, nil)
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range daytest.Broken(q, a) {
		t.Errorf("not kept: %s", b)
	}
	return a
}

// standing is a request with a plan that people work by.
func standing(q day.Request, a *day.Answer) day.Request {
	q.Standing = a.Schedule
	return q
}

// The checker takes the worked answers, counts as they do, and sees what is broken.
func TestTheCheckerTakesTheWorkedAnswers(t *testing.T) {
	for _, c := range cases(t) {
		for _, b := range daytest.Broken(c.Request, &c.Expect.Answer) {
			t.Errorf("%s: %s", c.Name, b)
		}
		for i := range c.Expect.Answer.Schedule {
			bad := c.Expect.Answer
			bad.Schedule = slices.Clone(bad.Schedule)
			if !slices.ContainsFunc(c.Request.Pinned, func(p day.Pin) bool { return p.Task == bad.Schedule[i].Task }) {
				bad.Schedule[i].Start -= 400
				bad.Schedule[i].End -= 400
				if len(daytest.Broken(c.Request, &bad)) == 0 {
					t.Errorf("%s: %s 400 min earlier is taken", c.Name, bad.Schedule[i].Task)
				}
			}
		}
	}
}

// large are the days that the race detector takes minutes for: where time is short, the others do.
func large(c worked) bool { return len(c.Request.Batches) > 8 }

// rounds are enough for the small days, and few enough for a slow machine.
const rounds = 5000

// The worked days: small ones reach what was proved, and what is as good as the best known is near it for the others.
func TestWorkedDays(t *testing.T) {
	days := cases(t)
	if testing.Short() {
		days = slices.DeleteFunc(days, large)[:4]
	}
	for _, c := range days {
		t.Run(c.Name, func(t *testing.T) {
			t.Parallel()
			q, want := c.Request, c.Expect.Objective
			q.Iterations = rounds
			switch n := len(q.Batches); {
			case n > 20:
				q.Iterations = 300
			case n > 4:
				q.Iterations = 600 * n
			}
			got := plan(t, q).Objective
			if c.Expect.Proved {
				if got.LeftOut != want.LeftOut || got.Late != want.Late || got.Window != want.Window || got.OvenOn != want.OvenOn ||
					got.Waiting > want.Waiting+20 {
					t.Errorf("%+v, want %+v", got, want)
				}
				return
			}
			if got.LeftOut > want.LeftOut || got.Late > want.Late+15 || got.Window > want.Window+200 ||
				float64(got.OvenOn) > 1.45*float64(want.OvenOn) {
				t.Errorf("%+v is far from %+v", got, want)
			}
		})
	}
}

// The same request gives the same plan, whatever the order of its parts and on any number of cores.
func TestTheSameDayGivesTheSamePlan(t *testing.T) {
	c := cases(t)[8]
	c.Request.Iterations = 60
	first := plan(t, c.Request)
	before := runtime.GOMAXPROCS(1)
	again := plan(t, c.Request)
	runtime.GOMAXPROCS(before)
	if !reflect.DeepEqual(first.Schedule, again.Schedule) || first.Objective != again.Objective {
		t.Errorf("%+v, and on one core %+v", first.Objective, again.Objective)
	}
}

// A later hour never makes a day later, and one more oven or pair of hands never makes it worse.
func TestMoreRoomIsNeverWorse(t *testing.T) {
	for _, c := range cases(t)[:6] {
		q := c.Request
		q.Iterations = 300
		base := plan(t, q).Objective
		late := q
		late.Batches = slices.Clone(q.Batches)
		for i := range late.Batches {
			if due := late.Batches[i].Due; due != nil {
				later := *due + 30
				late.Batches[i].Due = &later
			}
		}
		if o := plan(t, late).Objective; o.Late > base.Late || o.LeftOut > base.LeftOut {
			t.Errorf("%s: half an hour later %+v, before %+v", c.Name, o, base)
		}
		oven := q
		oven.Ovens = append(slices.Clone(q.Ovens), q.Ovens[0])
		oven.Ovens[len(oven.Ovens)-1].ID = "another"
		hands := q
		hands.People = append(slices.Clone(q.People), day.Person{ID: "another", Hours: q.People[0].Hours})
		for what, more := range map[string]day.Request{"an oven": oven, "hands": hands} {
			if o := plan(t, more).Objective; o.Late > base.Late || o.LeftOut > base.LeftOut || o.Window > base.Window {
				t.Errorf("%s: with %s more %+v, before %+v", c.Name, what, o, base)
			}
		}
	}
}

// Minutes count from any midnight: the same day three days earlier has the same plan, three days earlier.
func TestMinutesCountFromAnyMidnight(t *testing.T) {
	const days = 3 * 1440
	for _, i := range []int{3, 12, 15} {
		q := copied(t, cases(t)[i].Request)
		q.Iterations = 300
		want := plan(t, q).Objective
		early := copied(t, q)
		at := func(m *int) {
			if m != nil {
				*m -= days
			}
		}
		early.Now -= days
		at(early.End)
		for k := range early.People {
			for _, spans := range [][]day.Span{early.People[k].Hours, early.People[k].Breaks} {
				for n := range spans {
					spans[n].From -= days
					spans[n].To -= days
				}
			}
		}
		for k := range early.Ovens {
			at(early.Ovens[k].From)
			at(early.Ovens[k].To)
		}
		for k := range early.Batches {
			at(early.Batches[k].Due)
			for n := range early.Batches[k].Tasks {
				at(early.Batches[k].Tasks[n].From)
			}
		}
		if got := plan(t, early).Objective; got != want {
			t.Errorf("%d: %+v, three days earlier %+v", i, want, got)
		}
	}
}

// A clash says what is in the way, in words of the kitchen: here the one dish that both desserts need.
func TestAClashSaysWhy(t *testing.T) {
	q := copied(t, cases(t)[4].Request)
	q.Iterations = 400
	due := *q.Batches[0].Due
	for i := range q.Batches {
		q.Batches[i].Due = &due
	}
	a := plan(t, q)
	if len(a.Clashes) == 0 {
		t.Fatalf("%+v", a.Objective)
	}
	text := a.Clashes[0].Because.String()
	if !strings.Contains(text, q.Dishes[0].ID) || !strings.Contains(text, "in use until") {
		t.Errorf("it says %q", text)
	}
	later := slices.IndexFunc(a.Clashes[0].Remedies, func(w day.Remedy) bool { return w.Code == day.RemedyDueLater })
	if later < 0 {
		t.Fatalf("no later hour: %+v", a.Clashes[0].Remedies)
	}
	w := a.Clashes[0].Remedies[later]
	moved := copied(t, q)
	w.Apply(&moved)
	if o := plan(t, moved).Objective; o.Late != w.Late || o.LeftOut != 0 {
		t.Errorf("%s: it comes to %+v, not to %+v", w.Text, o, w)
	}
	q = copied(t, cases(t)[0].Request)
	q.Iterations = 200
	q.People[0].Hours = []day.Span{{From: q.Now, To: q.Now + 60}}
	if a = plan(t, q); len(a.Clashes) == 0 || !strings.Contains(a.Clashes[0].Because.String(), "nobody is there") {
		t.Errorf("nobody is there: %+v", a.Clashes)
	}
}

// Nothing is left out that may be late: with one dish for two desserts the second one waits for it, however long.
func TestWhatMayBeLateIsNotLeftOut(t *testing.T) {
	c := cases(t)[4]
	q := copied(t, c.Request)
	q.Iterations = 200
	due := *q.Batches[0].Due
	for i := range q.Batches {
		q.Batches[i].Due = &due
	}
	a := plan(t, q)
	if a.Objective.LeftOut != 0 || a.Objective.Late == 0 {
		t.Errorf("%+v, left out %v", a.Objective, a.LeftOut)
	}
}

// A plan that stands stays: with nothing changed it is the same, and with one more batch nothing else moves unless that
// gains more than it costs.
func TestAnotherPlanHasToGainMore(t *testing.T) {
	for _, i := range []int{5, 7, 8} {
		q := cases(t)[i].Request
		q.Iterations = 400
		first := plan(t, q)
		again := standing(q, first)
		again.Seed = 99
		second := plan(t, again)
		if len(second.Moved) > 0 && second.Objective.OvenOn > first.Objective.OvenOn-10 &&
			second.Objective.Late == first.Objective.Late {
			t.Errorf("%d: %d moved for %+v, before %+v", i, len(second.Moved), second.Objective, first.Objective)
		}
		fewer := again
		fewer.Batches = slices.Clone(q.Batches[:len(q.Batches)-1])
		before := plan(t, fewer)
		added := standing(q, before)
		third := plan(t, added)
		for _, m := range third.Moved {
			if m.Touch == nil && m.From == m.To && m.Person == "" {
				t.Errorf("%d: %+v has not moved", i, m)
			}
		}
		if third.Objective.LeftOut > first.Objective.LeftOut {
			t.Errorf("%d: one more batch leaves out %v", i, third.LeftOut)
		}
	}
}

// What can't be says what goes wrong, and what would help, each tried.
func TestAClashHasWaysOut(t *testing.T) {
	c := cases(t)[3]
	c.Request.Iterations = 400
	a := plan(t, c.Request)
	if a.Feasible || len(a.Clashes) == 0 {
		t.Fatalf("%+v with %d clashes", a.Objective, len(a.Clashes))
	}
	helps := false
	for _, x := range a.Clashes {
		if x.Over == 0 || x.Text.String() == "" {
			t.Errorf("%+v", x)
		}
		for _, w := range x.Remedies {
			helps = true
			if w.Late+w.Window+w.LeftOut*1000 >= a.Objective.Late+a.Objective.Window+a.Objective.LeftOut*1000 {
				t.Errorf("%s is no way out: %+v", w.Code, w)
			}
		}
	}
	if !helps {
		t.Error("nothing helps, not even another oven")
	}
}

// A plan that is asked to stop answers with what it has.
func TestAPlanCanBeStopped(t *testing.T) {
	c := cases(t)[11]
	ctx, stop := context.WithCancel(t.Context())
	c.Request.Iterations = 1000000
	a, err := day.Plan(ctx, c.Request, time.Now, func(share float64, best day.Objective) { stop() })
	if err != nil || a.Stopped != "asked" || len(a.Schedule) == 0 {
		t.Fatalf("%v, %+v", err, a)
	}
	for _, b := range daytest.Broken(c.Request, a) {
		t.Errorf("not kept: %s", b)
	}
}

func TestBadDays(t *testing.T) {
	good := cases(t)[0].Request
	for want, spoil := range map[string]func(*day.Request){
		"/end_min":                   func(q *day.Request) { end := q.Now - 5; q.End = &end },
		"/people/0/hours/0/to_min":   func(q *day.Request) { q.People[0].Hours[0].To = 0 },
		"/ovens/0/warm_c_per_min":    func(q *day.Request) { q.Ovens[0].WarmCPerMin = 0 },
		"/batches/0/tasks/0/after":   func(q *day.Request) { q.Batches[0].Tasks[0].After = []day.Lag{{Task: q.Batches[0].Tasks[4].ID}} },
		"/batches/0/tasks/1/id":      func(q *day.Request) { q.Batches[0].Tasks[1].ID = q.Batches[0].Tasks[0].ID },
		"/batches/0/tasks/0/uses":    func(q *day.Request) { q.Batches[0].Tasks[0].Uses = "magic" },
		"/batches/0/tasks/2/after":   func(q *day.Request) { q.Batches[0].Tasks[2].After = nil },
		"/batches/0/tasks/0/by/0":    func(q *day.Request) { q.Batches[0].Tasks[0].By = []string{"nobody"} },
		"/batches/0/dishes/0/dish":   func(q *day.Request) { q.Batches[0].Dishes = []day.DishUse{{Dish: "cup", Count: 1}} },
		"/pinned/0/task":             func(q *day.Request) { q.Pinned = []day.Pin{{Task: "nothing"}} },
		"/batches/0/tasks":           func(q *day.Request) { q.Batches[0].Tasks = nil },
		"/batches/0/tasks/4/count":   func(q *day.Request) { q.Batches[0].Tasks[4].Count = 0 },
		"/batches/0/tasks/2/max_min": func(q *day.Request) { one := 1; q.Batches[0].Tasks[2].MaxMin = &one },
	} {
		q := copied(t, good)
		spoil(&q)
		if _, err := day.Plan(t.Context(), q, time.Now, nil); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v", want, err)
		}
	}
}

func copied(t testing.TB, q day.Request) day.Request {
	t.Helper()
	raw, err := json.Marshal(q)
	if err != nil {
		t.Fatal(err)
	}
	var c day.Request
	if err := json.Unmarshal(raw, &c); err != nil {
		t.Fatal(err)
	}
	return c
}

// A dish that is larger than any oven is left out, and said so.
func TestWhatFitsNoOvenIsLeftOut(t *testing.T) {
	q := copied(t, cases(t)[0].Request)
	q.Iterations = 50
	for i := range q.Batches[0].Tasks {
		if x := &q.Batches[0].Tasks[i]; x.Uses == day.UseOven {
			x.WidthCM, x.DepthCM = 300, 300
		}
	}
	a := plan(t, q)
	if a.Feasible || a.Objective.LeftOut != 1 || !slices.Equal(a.LeftOut, []string{q.Batches[0].ID}) ||
		len(a.Clashes) != 1 {
		t.Errorf("%+v, left out %v, %d clashes", a.Objective, a.LeftOut, len(a.Clashes))
	}
}

// shaken is a worked day with its figures changed, so that it is another one.
func shaken(t testing.TB, c worked, seed uint64) day.Request {
	rng := rand.New(rand.NewPCG(seed, 7))
	q := copied(t, c.Request)
	for i := range q.Batches {
		b := &q.Batches[i]
		if b.Due != nil {
			due := *b.Due + rng.IntN(121) - 60
			b.Due = &due
		}
		if rng.IntN(4) == 0 {
			most := rng.IntN(40)
			b.LateMax = &most
		}
		for j := range b.Tasks {
			x := &b.Tasks[j]
			if x.Uses == day.UsePerson {
				x.Minutes = max(0, x.Minutes+rng.IntN(9)-4)
			}
			for k := range x.After {
				if rng.IntN(6) == 0 {
					least := rng.IntN(10)
					x.After[k].Min = least
					if x.After[k].Max != nil && *x.After[k].Max < least {
						x.After[k].Max = &least
					}
				}
			}
		}
	}
	for i := range q.People {
		if rng.IntN(3) == 0 {
			at := q.Now + 60 + rng.IntN(300)
			q.People[i].Breaks = append(q.People[i].Breaks, day.Span{From: at, To: at + 30})
		}
	}
	return q
}

// Whatever is asked, no constraint is broken, and the objective is what it says.
func TestNoPlanBreaksAConstraint(t *testing.T) {
	days, seeds := cases(t), uint64(3)
	if testing.Short() {
		days, seeds = slices.DeleteFunc(days, large), 1
	}
	for i, c := range days {
		for seed := range seeds {
			t.Run(fmt.Sprintf("%d/%d", i, seed), func(t *testing.T) {
				t.Parallel()
				q := shaken(t, c, seed)
				q.Iterations = max(5, 150/len(q.Batches))
				plan(t, q)
			})
		}
	}
}

func FuzzPlan(f *testing.F) {
	for _, c := range cases(f)[:7] {
		raw, err := json.Marshal(c.Request)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var q day.Request
		if json.Unmarshal(raw, &q) != nil || len(q.Batches) > 6 {
			return
		}
		q.Iterations = 3
		a, err := day.Plan(t.Context(), q, time.Now, nil)
		if err != nil {
			return
		}
		for _, b := range daytest.Broken(q, a) {
			t.Errorf("not kept: %s", b)
		}
	})
}

// 40 batches in 3 ovens with 3 people until the first whole plan without anything late, ten batches, and one anew.
func BenchmarkPlan(b *testing.B) {
	all := cases(b)
	for name, c := range map[string]worked{"forty": all[11], "ten": all[8], "one": all[0]} {
		for _, n := range []int{1, 200} {
			b.Run(fmt.Sprintf("%s, %d rounds", name, n), func(b *testing.B) {
				b.ReportAllocs()
				q := c.Request
				q.Iterations = n
				for b.Loop() {
					a, err := day.Plan(b.Context(), q, time.Now, nil)
					if err != nil {
						b.Fatal(err)
					}
					b.ReportMetric(float64(a.Objective.LeftOut), "left_out")
					b.ReportMetric(float64(a.Objective.Late+a.Objective.Window), "late+window_min")
					b.ReportMetric(float64(a.Objective.OvenOn), "oven_on_min")
				}
			})
		}
	}
}

// Forty batches and ten, planned anew in mid-day about the plan that stands: what has begun stays. Half a second is
// promised until there is a whole plan.
func BenchmarkPlanAgain(b *testing.B) {
	all := cases(b)
	for name, c := range map[string]worked{"forty": all[11], "ten": all[8]} {
		b.Run(name, func(b *testing.B) {
			q := c.Request
			q.Iterations = 50
			standing, err := day.Plan(b.Context(), q, time.Now, nil)
			if err != nil {
				b.Fatal(err)
			}
			first, last := q.Now, q.Now
			for _, x := range standing.Schedule {
				last = max(last, x.End)
			}
			q.Now, q.Iterations = (first+last)/2, 1
			for _, x := range standing.Schedule {
				if x.Start >= q.Now {
					continue
				}
				end := x.End
				q.Pinned = append(q.Pinned, day.Pin{
					Task: x.Task, Start: x.Start, End: &end, Person: x.Person, Oven: x.Oven, Tier: x.Tier, Alternative: x.Alternative,
				})
			}
			q.Standing = standing.Schedule
			b.ReportAllocs()
			for b.Loop() {
				a, err := day.Plan(b.Context(), q, time.Now, nil)
				if err != nil {
					b.Fatal(err)
				}
				b.ReportMetric(float64(a.Objective.LeftOut), "left_out")
				b.ReportMetric(float64(a.Objective.Late+a.Objective.Window), "late+window_min")
			}
		})
	}
}
