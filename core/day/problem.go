package day

import (
	"math"
	"slices"
)

// problem is a request with indices in the place of names, and time by the minute from now on.
type problem struct {
	req      *Request
	now, end int
	n        int // minutes that are planned
	roomC    float64
	people   []hands
	machines []float64
	areas    []float64
	dishes   []Dish
	ovens    []ovenOf
	tasks    []task
	batches  []batch
	clusters [][]int // batches that hang together by their tasks, what is shared last
	clusOf   []int
	// longestChange is the most minutes that an oven takes from one of the settings to another.
	longestChange int
}

type hands struct {
	free []bool // by the minute from now on
}

type ovenOf struct {
	Oven
	nowC     float64
	from, to int
	tiers    []Tier
	heatings []string
}

// link is how a task follows another one.
type link struct {
	task     int
	min, max int // max < 0: none
	hard     bool
}

type task struct {
	*Task
	batch    int
	before   []link // what it follows
	then     []link // what follows it
	from     int
	by       []int
	machine  int // < 0: none
	place    int
	max      int // of a wait; < 0: none
	bakes    []baking
	pin      *Pin
	leastMin int // of all of its ways
}

// baking is an alternative, with where it can go.
type baking struct {
	*Alternative
	minutes int
	outMin  int // after its end, at least, until its place is free
	slots   []slot
}

// isOut says whether a touch counts from the end of the bake: it is not out of the oven before that is done.
func (b *baking) isOut(k int) bool { return b.Touches[k].At == b.minutes }

// slot is a tier on which a load fits, and how wide it is there.
type slot struct {
	oven, tier int
	width      float64
}

type batch struct {
	*Batch
	tasks      []int
	order      []int // the same, what is followed first
	due        int
	hasDue     bool
	lateMax    int // < 0: none
	holdMax    int // < 0: none
	hold       int // place; < 0: none
	taken      []taken
	lastOven   int    // in the order listed; < 0: none
	tailOf     []bool // by place in order: follows the last bake
	tail, head int    // least minutes after and before that bake
	pinned     bool   // some of it
}

type taken struct {
	dish, count, from, to int // from and to: tasks; < 0: none
}

func or[T any](p *T, usual T) T {
	if p == nil {
		return usual
	}
	return *p
}

// compile makes the problem of a request that passed Check.
func compile(q *Request) *problem {
	p := &problem{req: q, now: q.Now, end: or(q.End, q.Now+twoDays), roomC: or(q.RoomC, usualRoomC)}
	p.n = p.end - p.now
	p.compilePeople()
	people, machines, places, dishes := map[string]int{}, map[string]int{}, map[string]int{}, map[string]int{}
	for i, x := range q.People {
		people[x.ID] = i
	}
	for i, m := range q.Machines {
		machines[m.ID] = i
		p.machines = append(p.machines, float64(m.Count))
	}
	for i, x := range q.Places {
		places[x.ID] = i
		p.areas = append(p.areas, float64(x.AreaCM2))
	}
	for i, d := range q.Dishes {
		dishes[d.ID] = i
	}
	p.dishes = q.Dishes
	for _, o := range q.Ovens {
		x := ovenOf{Oven: o, nowC: or(o.NowC, p.roomC), from: or(o.From, math.MinInt32), to: min(or(o.To, p.end), p.end)}
		x.tiers, x.heatings = o.Tiers, o.Heatings
		if len(x.heatings) == 0 {
			x.heatings = []string{conventional}
		}
		p.ovens = append(p.ovens, x)
	}
	index := map[string]int{}
	for i := range q.Batches {
		b := &q.Batches[i]
		c := batch{
			Batch:   b,
			due:     or(b.Due, 0),
			hasDue:  b.Due != nil,
			lateMax: or(b.LateMax, -1),
			holdMax: or(b.HoldMax, -1),
			hold:    -1,
		}
		if b.HoldPlace != "" {
			c.hold = places[b.HoldPlace]
		}
		for j := range b.Tasks {
			t := &b.Tasks[j]
			x := task{Task: t, batch: i, from: or(t.From, math.MinInt32), machine: -1, place: -1, max: or(t.MaxMin, -1)}
			if t.Machine != "" {
				x.machine = machines[t.Machine]
			}
			if t.Place != "" {
				x.place = places[t.Place]
			}
			for k := range q.People {
				if len(t.By) == 0 || slices.Contains(t.By, q.People[k].ID) {
					x.by = append(x.by, k)
				}
			}
			index[t.ID] = len(p.tasks)
			c.tasks = append(c.tasks, len(p.tasks))
			p.tasks = append(p.tasks, x)
		}
		p.batches = append(p.batches, c)
	}
	for i := range q.Pinned {
		if t, there := index[q.Pinned[i].Task]; there { // a remedy may be tried without its batch
			p.tasks[t].pin = &q.Pinned[i]
		}
	}
	for i := range p.tasks {
		p.link(i, index)
		p.waysOf(i)
	}
	for i := range p.batches {
		p.shape(i, index, dishes)
	}
	p.cluster()
	p.longestChange = p.changeMost()
	return p
}

func (p *problem) compilePeople() {
	for _, x := range p.req.People {
		h := hands{free: make([]bool, p.n)}
		mark := func(s Span, to bool) {
			for m := max(0, s.From-p.now); m < min(p.n, s.To-p.now); m++ {
				h.free[m] = to
			}
		}
		for _, s := range x.Hours {
			mark(s, true)
		}
		for _, s := range x.Breaks {
			mark(s, false)
		}
		p.people = append(p.people, h)
	}
}

func (p *problem) link(i int, index map[string]int) {
	for _, l := range p.tasks[i].After {
		of := index[l.Task]
		x := link{of, l.Min, or(l.Max, -1), l.Hard}
		p.tasks[i].before = append(p.tasks[i].before, x)
		x.task = i
		p.tasks[of].then = append(p.tasks[of].then, x)
	}
}

// waysOf finds where each alternative of an oven task fits.
func (p *problem) waysOf(i int) {
	t := &p.tasks[i]
	t.leastMin = t.Minutes
	if t.Uses != UseOven {
		return
	}
	t.leastMin = math.MaxInt32
	for k := range t.Alternatives {
		a := &t.Alternatives[k]
		b := baking{Alternative: a, minutes: a.minutes()}
		for j := range a.Touches {
			if b.isOut(j) {
				b.outMin = max(b.outMin, a.Touches[j].Minutes)
			}
		}
		t.leastMin = min(t.leastMin, b.minutes)
		for o := range p.ovens {
			x := &p.ovens[o]
			if len(a.Ovens) > 0 && !slices.Contains(a.Ovens, x.ID) {
				continue
			}
			if slices.ContainsFunc(a.Stages, func(s Stage) bool { return !slices.Contains(x.heatings, heatingOf(s)) }) {
				continue
			}
			for j, tier := range x.tiers {
				if a.Shelf != "" && tier.Shelf != a.Shelf {
					continue
				}
				if w := widthOn(tier, t.Count, t.WidthCM, t.DepthCM); w <= tier.WidthCM+1e-9 {
					b.slots = append(b.slots, slot{o, j, float64(w)})
				}
			}
		}
		t.bakes = append(t.bakes, b)
	}
}

func heatingOf(s Stage) string {
	if s.Heating == "" {
		return conventional
	}
	return s.Heating
}

// widthOn is what dishes take of a tier's width: the least over both ways to turn them.
func widthOn(t Tier, count int, w, d float64) float64 {
	least := math.Inf(1)
	for range 2 {
		if rows := math.Floor(t.DepthCM/d + 1e-9); rows >= 1 {
			least = min(least, math.Ceil(float64(count)/rows-1e-9)*w)
		}
		w, d = d, w
	}
	return least
}

// shape works out the order of a batch's tasks, and what lies before and after its last bake.
func (p *problem) shape(i int, index, dishes map[string]int) {
	b := &p.batches[i]
	own := map[int]bool{}
	for _, t := range b.tasks {
		own[t] = true
		b.pinned = b.pinned || p.tasks[t].pin != nil
	}
	seen := map[int]bool{}
	var visit func(int)
	visit = func(t int) {
		if seen[t] || !own[t] {
			return
		}
		seen[t] = true
		for _, l := range p.tasks[t].before {
			visit(l.task)
		}
		b.order = append(b.order, t)
	}
	for _, t := range b.tasks {
		visit(t)
	}
	for _, d := range b.Dishes {
		x := taken{dishes[d.Dish], d.Count, -1, -1}
		if d.FromTask != "" {
			x.from = index[d.FromTask]
		}
		if d.ToTask != "" {
			x.to = index[d.ToTask]
		}
		b.taken = append(b.taken, x)
	}
	b.lastOven = -1
	for _, t := range b.tasks {
		if p.tasks[t].Uses == UseOven {
			b.lastOven = t
		}
	}
	b.tailOf = make([]bool, len(b.order))
	if b.lastOven < 0 {
		return
	}
	longest := map[int]int{b.lastOven: 0} // to the end of each task, from the end of the bake
	for k, t := range b.order {
		for _, l := range p.tasks[t].before {
			if from, after := longest[l.task]; after && own[l.task] {
				b.tailOf[k] = true
				longest[t] = max(longest[t], from+l.min+p.tasks[t].leastMin)
				b.tail = max(b.tail, longest[t])
			}
		}
	}
	until := map[int]int{}
	for _, t := range b.order {
		most := 0
		for _, l := range p.tasks[t].before {
			most = max(most, until[l.task]+l.min)
		}
		if t == b.lastOven {
			b.head = most
		}
		until[t] = most + p.tasks[t].leastMin
	}
}

// cluster gathers batches that hang together. In each, what follows is before what it follows.
func (p *problem) cluster() {
	p.clusOf = make([]int, len(p.batches))
	for i := range p.clusOf {
		p.clusOf[i] = i
	}
	var root func(int) int
	root = func(i int) int {
		if p.clusOf[i] != i {
			p.clusOf[i] = root(p.clusOf[i])
		}
		return p.clusOf[i]
	}
	feeds := make([]map[int]bool, len(p.batches)) // by batch: those whose tasks follow its
	for i := range p.tasks {
		for _, l := range p.tasks[i].then {
			from, to := p.tasks[i].batch, p.tasks[l.task].batch
			if from == to {
				continue
			}
			if feeds[from] == nil {
				feeds[from] = map[int]bool{}
			}
			feeds[from][to] = true
			p.clusOf[root(from)] = root(to)
		}
	}
	groups := map[int][]int{}
	var roots []int
	for i := range p.batches {
		r := root(i)
		if groups[r] == nil {
			roots = append(roots, r)
		}
		groups[r] = append(groups[r], i)
	}
	for c, r := range roots {
		var order []int
		seen := map[int]bool{}
		var visit func(int)
		visit = func(b int) {
			if seen[b] {
				return
			}
			seen[b] = true
			for _, x := range groups[r] {
				if feeds[b][x] {
					visit(x)
				}
			}
			order = append(order, b)
		}
		for _, b := range groups[r] {
			visit(b)
		}
		p.clusters = append(p.clusters, order)
		for _, b := range order {
			p.clusOf[b] = c
		}
	}
}

func (p *problem) changeMost() int {
	least, hottest := p.roomC, p.roomC
	for i := range p.tasks {
		for _, b := range p.tasks[i].bakes {
			for _, g := range b.Stages {
				least, hottest = min(least, g.OvenC), max(hottest, g.OvenC)
			}
		}
	}
	most := 0
	for i := range p.ovens {
		most = max(most, p.ovens[i].change(least, hottest), p.ovens[i].change(hottest, least))
	}
	return most
}
