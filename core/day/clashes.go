package day

import (
	"cmp"
	"context"
	"math"
	"slices"
	"time"

	"mabbin/core/message"
)

// What is tried where a day can't be. Working figures.
const (
	forClashes  = 0.2 // of the time, where something is left out, late or over a window
	mostClashes = 4
	mostWays    = 3
	mostAhead   = 3  // tasks of a batch that are tried done before
	fewRounds   = 60 // of a try, at least
	longerMin   = 60 // hours, where hands work longer
	earlierMin  = 60 // the day begins earlier
	roundUpMin  = 5
)

// try is a change of the request that may help, and what it is called.
type try struct {
	way    WayOut
	change func(*Request)
	order  int
}

// trial is a try with what it came to.
type trial struct {
	try
	value Objective
}

// clashes finds what would help each batch that goes wrong, by planning the day again with one thing otherwise.
func (s *schedule) clashes(ctx context.Context, value Objective, until time.Time) []Clash {
	bad := s.wrong()
	if len(bad) > mostClashes {
		bad = bad[:mostClashes]
	}
	resources, shared := s.oneMore(), s.waysForAll()
	own := make([][]try, len(bad))
	n := len(resources) + len(shared)
	for i, b := range bad {
		own[i] = s.waysFor(b)
		n += len(own[i])
	}
	each := max(0, time.Until(until)) / time.Duration(max(1, n))
	run := func(all []try) (out []trial) {
		for _, t := range all {
			if ctx.Err() != nil {
				break
			}
			q := s.p.req.copied()
			t.change(&q)
			p := compile(&q)
			rounds := 0
			if s.p.req.Iterations > 0 {
				rounds = max(fewRounds, s.p.req.Iterations/10)
			}
			f := p.solve(ctx, q.Seed, how{rounds: rounds, until: time.Now().Add(each), from: s})
			if f.value.firstThree(value) {
				t.way.LeftOut, t.way.Late, t.way.Window = f.value.LeftOut, f.value.Late, f.value.Window
				out = append(out, trial{t, f.value})
			}
		}
		return out
	}
	resource := "time"
	best := value
	for _, t := range run(resources) {
		if t.value.firstThree(best) {
			best, resource = t.value, t.way.Code
		}
	}
	everybody := run(shared)
	out := []Clash{}
	for i, b := range bad {
		c := Clash{Batch: s.p.batches[b].ID, Resource: resource, Over: s.overBy(b), WaysOut: []WayOut{}}
		ways := append(run(own[i]), everybody...)
		slices.SortStableFunc(ways, func(a, b trial) int {
			return cmp.Or(cmp.Compare(a.order, b.order), cmp.Compare(a.way.Minutes, b.way.Minutes))
		})
		for _, w := range ways[:min(len(ways), mostWays)] {
			c.WaysOut = append(c.WaysOut, w.way)
		}
		c.Says = c.says(s.in[b])
		out = append(out, c)
	}
	return out
}

// firstThree says whether an objective is better in what is left out, late or over a window.
func (o Objective) firstThree(p Objective) bool {
	return Objective{LeftOut: o.LeftOut, Late: o.Late, Window: o.Window}.
		Less(Objective{LeftOut: p.LeftOut, Late: p.Late, Window: p.Window})
}

// wrong are the batches that are left out, late or over a window, the worst first.
func (s *schedule) wrong() (out []int) {
	for b := range s.p.batches {
		if x := &s.p.batches[b]; !s.in[b] && x.hasDue || s.in[b] && s.overBy(b) > 0 {
			out = append(out, b)
		}
	}
	slices.SortStableFunc(out, func(a, b int) int {
		if s.in[a] != s.in[b] {
			if s.in[a] {
				return 1
			}
			return -1
		}
		return cmp.Compare(s.overBy(b), s.overBy(a))
	})
	return out
}

func (s *schedule) overBy(b int) int {
	if !s.in[b] {
		return 0
	}
	return s.lateOf(b) + s.windowOf(b)
}

// copied is a request whose parts can be changed.
func (q *Request) copied() Request {
	c := *q
	c.People, c.Machines, c.Places = slices.Clone(q.People), slices.Clone(q.Machines), slices.Clone(q.Places)
	c.Dishes, c.Ovens, c.Batches, c.Pinned = slices.Clone(
		q.Dishes,
	), slices.Clone(
		q.Ovens,
	), slices.Clone(
		q.Batches,
	), slices.Clone(
		q.Pinned,
	)
	return c
}

// oneMore are the resources, each with one more of it.
func (s *schedule) oneMore() (out []try) {
	q := s.p.req
	if len(q.People) > 0 {
		out = append(out, try{WayOut{Code: "hands"}, anotherPerson, 0})
	}
	for i, o := range q.Ovens {
		out = append(out, try{WayOut{Code: "oven:" + o.ID}, anotherOven(i), 0})
	}
	for i, m := range q.Machines {
		out = append(out, try{WayOut{Code: "machine:" + m.ID}, func(q *Request) { q.Machines[i].Count++ }, 0})
	}
	for i, p := range q.Places {
		out = append(out, try{WayOut{Code: "place:" + p.ID}, func(q *Request) { q.Places[i].AreaCM2 *= 2 }, 0})
	}
	for i, d := range q.Dishes {
		out = append(out, try{WayOut{Code: "dish:" + d.ID}, func(q *Request) { q.Dishes[i].Count++ }, 0})
	}
	return out
}

const added = "+1"

// anotherPerson is one more pair of hands, there whenever anybody is.
func anotherPerson(q *Request) {
	x := Person{ID: added}
	for _, p := range q.People {
		x.Hours = append(x.Hours, p.Hours...)
	}
	q.People = append(q.People, x)
	for i := range q.Batches {
		q.Batches[i].Tasks = slices.Clone(q.Batches[i].Tasks)
		for j := range q.Batches[i].Tasks {
			if t := &q.Batches[i].Tasks[j]; len(t.By) > 0 {
				t.By = append(slices.Clone(t.By), added)
			}
		}
	}
}

func anotherOven(like int) func(*Request) {
	return func(q *Request) {
		o := q.Ovens[like]
		was := o.ID
		o.ID, o.NowC = added, nil
		q.Ovens = append(q.Ovens, o)
		for i := range q.Batches {
			q.Batches[i].Tasks = slices.Clone(q.Batches[i].Tasks)
			for j := range q.Batches[i].Tasks {
				t := &q.Batches[i].Tasks[j]
				t.Alternatives = slices.Clone(t.Alternatives)
				for k := range t.Alternatives {
					if a := &t.Alternatives[k]; slices.Contains(a.Ovens, was) {
						a.Ovens = append(slices.Clone(a.Ovens), added)
					}
				}
			}
		}
	}
}

// The ways out by cost: what is done before costs nothing, to bake one less costs most.
const (
	byAhead = iota
	byStart
	byDue
	byDish
	byHands
	byPerson
	byOven
	byFewer
)

// waysForAll are the ways that are of no single batch.
func (s *schedule) waysForAll() (out []try) {
	q := s.p.req
	earlier := func(q *Request) {
		q.Now -= earlierMin
		q.People = slices.Clone(q.People)
		for i := range q.People {
			q.People[i].Hours = slices.Clone(q.People[i].Hours)
			for j := range q.People[i].Hours {
				if h := &q.People[i].Hours[j]; j == 0 {
					h.From -= earlierMin
				}
			}
		}
	}
	if len(q.Pinned) == 0 {
		out = append(out, try{WayOut{
			Code: "start_earlier", Minutes: earlierMin,
			Says: message.New("begin {n} min earlier", message.Count(earlierMin)),
		}, earlier, byStart})
	}
	for i, p := range q.People {
		out = append(out, try{WayOut{
			Code: "more_hands", Person: p.ID, Minutes: longerMin,
			Says: message.New("{who} stays {n} min longer", message.Text(p.ID), message.Count(longerMin)),
		}, func(q *Request) {
			q.People[i].Hours = slices.Clone(q.People[i].Hours)
			if n := len(q.People[i].Hours); n > 0 {
				q.People[i].Hours[n-1].To += longerMin
			}
		}, byHands})
	}
	if len(q.People) > 0 {
		out = append(
			out,
			try{WayOut{Code: "another_person", Says: message.New("one more pair of hands")}, anotherPerson, byPerson},
		)
	}
	for i, o := range q.Ovens {
		out = append(out, try{WayOut{
			Code: "another_oven", Oven: o.ID, Says: message.New("one more oven like {which}", message.Text(o.ID)),
		}, anotherOven(i), byOven})
	}
	return out
}

// waysFor are the ways of one batch.
func (s *schedule) waysFor(b int) (out []try) {
	x := &s.p.batches[b]
	n := 0
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if !t.Ahead || t.pin != nil || n == mostAhead {
			continue
		}
		n++
		out = append(out, try{WayOut{
			Code: "ahead", Batch: x.ID, Task: t.ID,
			Says: message.New("make {what} the day before", message.Text(t.ID)),
		}, func(q *Request) { s.doneBefore(q, i) }, byAhead})
	}
	over := max(roundUpMin, roundUpMin*int(math.Ceil(float64(max(1, s.lateOf(b)))/roundUpMin)))
	if x.hasDue {
		out = append(out, try{WayOut{
			Code: "due_later", Batch: x.ID, Minutes: over,
			Says: message.New("{what} {n} min later", message.Text(x.ID), message.Count(over)),
		}, func(q *Request) {
			due := x.due + over
			q.Batches[b].Due = &due
		}, byDue})
	}
	for _, d := range x.taken {
		id := s.p.dishes[d.dish].ID
		out = append(out, try{WayOut{
			Code: "another_dish", Batch: x.ID, Dish: id, Says: message.New("one more dish like {which}", message.Text(id)),
		}, func(q *Request) { q.Dishes[d.dish].Count++ }, byDish})
	}
	if len(s.p.clusters[s.p.clusOf[b]]) == 1 {
		out = append(out, try{WayOut{
			Code: "fewer", Batch: x.ID, Says: message.New("leave {what} out", message.Text(x.ID)),
		}, func(q *Request) { q.Batches = slices.Delete(q.Batches, b, b+1) }, byFewer})
	}
	return out
}

// doneBefore makes a task and the waits after it alone things of the day before: they ended as the day begins.
func (s *schedule) doneBefore(q *Request, i int) {
	t := &s.p.tasks[i]
	end := q.Now
	q.Pinned = append(q.Pinned, Pin{Task: t.ID, Start: end - t.leastMin, End: &end})
	for _, l := range t.then {
		w := &s.p.tasks[l.task]
		if w.Uses == "wait" && len(w.before) == 1 && w.pin == nil {
			q.Pinned = append(q.Pinned, Pin{Task: w.ID, Start: end - w.Minutes, End: &end})
		}
	}
}

func (c Clash) says(lies bool) message.Message {
	what := message.New("{batch} is {n} min late or over what it may wait", message.Text(c.Batch), message.Count(c.Over))
	if !lies {
		what = message.New("{batch} finds no room", message.Text(c.Batch))
	}
	if len(c.WaysOut) == 0 {
		return message.Sentences(message.New("{what}.", message.Part(what)))
	}
	ways := make([]message.Message, len(c.WaysOut))
	for i, w := range c.WaysOut {
		ways[i] = w.Says
	}
	return message.New("{what}. What would help: {ways}.", message.Part(what), message.Or(ways...))
}
