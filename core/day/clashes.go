package day

import (
	"cmp"
	"context"
	"slices"

	"mabbin/core/message"
)

// What is tried where a day can't be. Working figures.
const (
	forClashes  = 20 // percent of the time, where something is left out, late or over a window
	mostClashes = 4
	mostWays    = 3
	mostAhead   = 3  // tasks of a batch that are tried done before
	fewRounds   = 60 // of a try, at least
	longerMin   = 60 // hours, where hands work longer
	earlierMin  = 60 // the day begins earlier
	roundUpMin  = 5
)

// try is a way that may help, and how dear it is.
type try struct {
	way   Remedy
	order int
}

// trial is a try with what it came to.
type trial struct {
	try
	value Objective
}

// clashes finds what would help each batch that goes wrong, by planning the day again with one thing otherwise.
func (s *schedule) clashes(ctx context.Context, value Objective, h how) []Clash {
	bad := s.wrong()
	if len(bad) > mostClashes {
		bad = bad[:mostClashes]
	}
	resources, shared := s.oneOfEach(), s.waysForAll()
	own := make([][]try, len(bad))
	for i, b := range bad {
		own[i] = s.waysFor(b)
	}
	run := func(all []try) (out []trial) {
		for _, t := range all {
			if ctx.Err() != nil || !h.until.IsZero() && !h.clock().Before(h.until) {
				break
			}
			q := s.p.req.copied()
			t.way.Apply(&q)
			p := compile(&q)
			f := p.solve(ctx, q.Seed, how{rounds: max(fewRounds, h.rounds/40), until: h.until, clock: h.clock, from: s})
			if f.value.firstThree(value) {
				t.way.LeftOut, t.way.Late, t.way.Window = f.value.LeftOut, f.value.Late, f.value.Window
				out = append(out, trial{t, f.value.Objective})
			}
		}
		return out
	}
	resource := "time"
	best := value
	for _, t := range run(resources) {
		if t.value.firstThree(best) {
			best, resource = t.value, string(t.way.Code)
		}
	}
	everybody := run(shared)
	out := []Clash{}
	for i, b := range bad {
		c := Clash{Batch: s.p.batches[b].ID, Resource: resource, Over: s.overBy(b), Remedies: []Remedy{}}
		ways := append(run(own[i]), everybody...)
		slices.SortStableFunc(ways, func(a, b trial) int {
			return cmp.Or(
				a.way.leaves()-b.way.leaves(), // what mends all of it comes first
				cmp.Compare(a.order, b.order), cmp.Compare(a.way.Minutes, b.way.Minutes),
			)
		})
		for _, w := range ways[:min(len(ways), mostWays)] {
			c.Remedies = append(c.Remedies, w.way)
		}
		c.Because = s.because(b)
		c.Text = c.describe(s.in[b])
		out = append(out, c)
	}
	return out
}

// leaves is 0 where a remedy leaves nothing to mend, else 1.
func (w Remedy) leaves() int {
	if w.LeftOut == 0 && w.Late == 0 && w.Window == 0 {
		return 0
	}
	return 1
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

// oneOfEach are the resources, each with one more of it.
func (s *schedule) oneOfEach() (out []try) {
	q := s.p.req
	if len(q.People) > 0 {
		out = append(out, try{Remedy{Code: "hands"}, 0})
	}
	for _, o := range q.Ovens {
		out = append(out, try{Remedy{Code: RemedyCode("oven:" + o.ID)}, 0})
	}
	for _, m := range q.Machines {
		out = append(out, try{Remedy{Code: RemedyCode("machine:" + m.ID)}, 0})
	}
	for _, p := range q.Places {
		out = append(out, try{Remedy{Code: RemedyCode("place:" + p.ID)}, 0})
	}
	for _, d := range q.Dishes {
		out = append(out, try{Remedy{Code: RemedyCode("dish:" + d.ID)}, 0})
	}
	return out
}

// The remedies by cost: what is done before costs nothing, to bake one less costs most.
const (
	byAhead = iota
	byMix
	byBefore
	byStart
	byDue
	byDish
	manual
	byPerson
	byOven
	byFewer
)

// waysForAll are the ways that are of no single batch.
func (s *schedule) waysForAll() (out []try) {
	q := s.p.req
	add := func(w Remedy, order int) {
		w.Text = w.words("")
		out = append(out, try{w, order})
	}
	if len(q.Pinned) == 0 {
		add(Remedy{Code: RemedyStartEarlier, Minutes: earlierMin}, byStart)
	}
	for _, p := range q.People {
		add(Remedy{Code: RemedyLongerShift, Person: p.ID, Minutes: longerMin}, manual)
	}
	if len(q.People) > 0 {
		add(Remedy{Code: RemedyAnotherPerson}, byPerson)
	}
	for _, o := range q.Ovens {
		add(Remedy{Code: RemedyAnotherOven, Oven: o.ID}, byOven)
	}
	return out
}

// waysFor are the ways of one batch.
func (s *schedule) waysFor(b int) (out []try) {
	x := &s.p.batches[b]
	add := func(w Remedy, kind string, order int) {
		w.Batch = x.ID
		w.Text = w.words(kind)
		if !w.note.IsZero() {
			w.Text = message.New("{way} ({note})", message.Part(w.Text), message.Part(w.note))
		}
		out = append(out, try{w, order})
	}
	n := 0
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if !t.Ahead || t.pin != nil || n == mostAhead {
			continue
		}
		n++
		add(Remedy{Code: RemedyAhead, Task: t.ID}, t.Kind, byAhead)
	}
	for _, w := range s.mixWays(b) {
		add(w, "topping", byMix)
	}
	for _, w := range s.beforeWays(b) {
		add(w, "", byBefore)
	}
	if ready, goes := s.earliestReady(b); x.hasDue && goes && ready > x.due {
		over := roundUpMin * ((ready - x.due + roundUpMin - 1) / roundUpMin)
		add(Remedy{
			Code: RemedyDueLater, Minutes: over, note: message.New("ready at {clock}", Clock(x.due+over)),
		}, "", byDue)
	}
	for _, d := range x.taken {
		add(Remedy{Code: RemedyAnotherDish, Dish: s.p.dishes[d.dish].ID}, "", byDish)
	}
	if len(s.p.clusters[s.p.clusOf[b]]) == 1 {
		add(Remedy{Code: RemedyFewer}, "", byFewer)
	}
	return out
}

func (c Clash) describe(lies bool) message.Message {
	what := message.New("{batch} is {n} min late or waits too long", message.Text(c.Batch), message.Count(c.Over))
	if !lies {
		what = message.New("{batch} does not fit", message.Text(c.Batch))
	}
	if !c.Because.IsZero() {
		what = message.New("{what}: {because}", message.Part(what), message.Part(c.Because))
	}
	if len(c.Remedies) == 0 {
		return message.Sentences(message.New("{what}.", message.Part(what)))
	}
	ways := make([]message.Message, len(c.Remedies))
	for i, w := range c.Remedies {
		ways[i] = w.Text
	}
	return message.New("{what}. What would help: {ways}.", message.Part(what), message.Or(ways...))
}
