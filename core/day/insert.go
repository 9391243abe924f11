package day

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// What a minute of each level weighs while plans are compared on the way: the levels themselves decide at the end.
const (
	weighLeftOut = 1e7
	weighLate    = 4000.0
	weighWindow  = 300.0
	weighOvenOn  = 10.0
	weighWaiting = 0.5

	mostTried  = 30  // places of a bake that are tried to the end
	besideMin  = 90  // min that work is moved forward to lie beside other work
	mostEarly  = 200 // min that a bake is tried before it is wanted at all
	blink      = 10  // one in so many is passed over, so that the same plan is not found each time
	mostPlaced = 4   // of those that go, the cheapest is taken
)

// candidate is a place for a bake, with what it would cost.
type candidate struct {
	alt   int
	slot  slot
	start int
	cost  float64
}

// insertCluster lays batches that hang together, what follows first. Where one does not go, none is laid.
func (s *schedule) insertCluster(c int, rng *rand.Rand) bool {
	for i, b := range s.p.clusters[c] {
		if s.insert(b, rng) {
			continue
		}
		for _, x := range s.p.clusters[c][:i] {
			s.remove(x)
		}
		return false
	}
	return true
}

// insert lays a batch where it costs least: its last bake first, then backwards from it, then what follows it.
func (s *schedule) insert(b int, rng *rand.Rand) bool {
	x := &s.p.batches[b]
	if x.lastOven < 0 || s.p.tasks[x.lastOven].pin != nil {
		return s.layRest(b, rng)
	}
	all := s.stay
	if s.stay == nil {
		all = s.candidates(x.lastOven, b, math.MaxInt32, rng)
	}
	var best kept
	bestCost, laid := math.Inf(1), 0
	for _, c := range all[:min(len(all), mostTried)] {
		if laid > 0 && c.cost >= bestCost {
			break
		}
		if rng.IntN(blink) == 0 && s.stay == nil {
			continue
		}
		s.layLoad(x.lastOven, c)
		if !s.touchAll(x.lastOven, &s.at[x.lastOven], rng) || !s.layRest(b, rng) {
			s.remove(b)
			continue
		}
		if cost := c.cost + weighWindow*float64(
			s.windowOf(b),
		) + weighLate*float64(
			max(0, s.lateOf(b)-s.lateAt(b, c)),
		); cost < bestCost {
			bestCost, best = cost, s.keep(b)
		}
		s.remove(b)
		if laid++; laid == mostPlaced {
			break
		}
	}
	if laid == 0 {
		return false
	}
	s.restore(best)
	return true
}

// lateAt is how late a batch is at least with its bake in a place.
func (s *schedule) lateAt(b int, c candidate) int {
	x := &s.p.batches[b]
	if !x.hasDue {
		return 0
	}
	return max(0, c.start+s.p.tasks[x.lastOven].bakes[c.alt].minutes+x.tail-x.due)
}

func (s *schedule) layLoad(i int, c candidate) {
	t := &s.p.tasks[i]
	s.at[i] = placed{
		set: true, start: c.start, end: c.start + t.bakes[c.alt].minutes, person: -1,
		oven: c.slot.oven, tier: c.slot.tier, alt: c.alt,
	}
	s.take(t.batch, s.width[c.slot.oven][c.slot.tier], c.start, s.at[i].end, c.slot.width)
	s.load(i)
}

// wish is when a bake should end: at the latest for its hour, and how much earlier is as good.
type wish struct {
	from, until int // of the bake
	last, hold  int // it should end at last, at most hold earlier
	due         bool
}

func (s *schedule) wishFor(i, b, until int) wish {
	x := &s.p.batches[b]
	w := wish{from: s.earliest(i), until: min(until, s.latest(i)), due: x.hasDue && i == x.lastOven, hold: 60}
	w.last = min(w.until, s.p.end-x.tail)
	if w.due {
		w.last = min(w.last, x.due-x.tail)
		if x.holdMax >= 0 {
			w.hold = x.holdMax
		}
		if x.lateMax >= 0 {
			w.until = min(w.until, x.due+x.lateMax-x.tail)
		}
	}
	return w
}

// candidates are the places where a bake could go, the cheapest first: where it has to end for its hour, and where it
// meets what is in the ovens already. It ends by until. Only where nothing is right in time are others looked at.
func (s *schedule) candidates(i, b, until int, rng *rand.Rand) []candidate {
	w := s.wishFor(i, b, until)
	s.found = s.found[:0]
	if rng.IntN(8) > 0 {
		s.look(i, b, w, w.last-w.hold, w.last, rng)
	}
	if len(s.found) == 0 {
		s.look(i, b, w, math.MinInt32, w.until, rng)
	}
	slices.SortFunc(s.found, func(a, b candidate) int {
		if a.cost != b.cost {
			return cmp.Compare(a.cost, b.cost)
		}
		return cmp.Or(
			cmp.Compare(b.start, a.start), cmp.Compare(a.alt, b.alt),
			cmp.Compare(a.slot.oven, b.slot.oven), cmp.Compare(a.slot.tier, b.slot.tier),
		)
	})
	return slices.Clone(s.found[:min(len(s.found), mostTried)])
}

// look finds the places of a bake that ends between two minutes.
func (s *schedule) look(i, b int, w wish, first, last int, rng *rand.Rand) {
	t := &s.p.tasks[i]
	for k := range t.bakes {
		a := &t.bakes[k]
		for n := 0; n < len(a.slots); {
			o := a.slots[n].oven
			tiers := n
			for n < len(a.slots) && a.slots[n].oven == o {
				n++
			}
			was := s.ovenOn(o, -1, nil, 0)
			for _, start := range s.starts(a, o, w, first, last, rng) {
				if !s.suits(a, o, start) {
					continue
				}
				for _, sl := range a.slots[tiers:n] {
					if s.room(s.width[o][sl.tier], start, start+a.minutes, sl.width, s.p.ovens[o].tiers[sl.tier].WidthCM) {
						cost := weighOvenOn*float64(s.ovenOn(o, i, a, start)-was) + s.wait(b, w, start+a.minutes)
						s.found = append(s.found, candidate{k, sl, start, cost + rng.Float64()*weighOvenOn*2})
						break
					}
				}
			}
		}
	}
}

// wait is what it costs that a bake ends at a minute: late, held too long, or only earlier than it might.
func (s *schedule) wait(b int, w wish, end int) float64 {
	x := &s.p.batches[b]
	cost := weighWaiting * float64(max(0, w.last-end)) / 4
	if w.due {
		cost += weighLate * float64(max(0, end+x.tail-x.due))
		if x.holdMax >= 0 {
			cost += weighWindow * float64(max(0, x.due-end-x.tail-x.holdMax))
		}
	}
	return cost
}

// starts are the minutes at which a bake could go into an oven so that it ends between two minutes, each once.
func (s *schedule) starts(a *baking, o int, w wish, first, last int, rng *rand.Rand) []int {
	oven := &s.p.ovens[o]
	out := s.minutes[:0]
	from, to := max(w.from, first-a.minutes, s.p.now, oven.from), min(w.until, last, oven.to)-a.minutes
	from = max(from, max(s.p.now, oven.from)+oven.change(oven.nowC, a.Stages[0].OvenC))
	try := func(start int) {
		if start >= from && start <= to {
			out = append(out, start)
		}
	}
	wanted := w.last - a.minutes
	try(wanted)
	for _, back := range [...]int{1, 2, rng.IntN(w.hold/2 + 1), rng.IntN(w.hold + 1), w.hold} {
		try(wanted - back)
	}
	if first < w.last-w.hold {
		for range 4 {
			try(wanted - w.hold - rng.IntN(mostEarly))
		}
	}
	var buf [8]segment
	for _, l := range s.loads[o] {
		if x := &s.at[l]; x.end+120 < from || x.start-120 > to+a.minutes {
			continue
		}
		for _, g := range s.loadSegments(l, buf[:0]) {
			try(g.from)
			try(g.to - a.minutes)
			try(g.to)
			try(g.from - a.minutes)
			if g.c != a.Stages[0].OvenC {
				try(g.to + oven.change(g.c, a.Stages[0].OvenC))
			}
			if c := a.Stages[len(a.Stages)-1].OvenC; g.c != c {
				try(g.from - a.minutes - oven.change(c, g.c))
			}
		}
	}
	if last > w.last { // late, or any time
		for _, late := range [...]int{3, 8, 15, 30, 60, 120} {
			try(wanted + late)
		}
		try(from)
	}
	slices.Sort(out)
	s.minutes = out
	return slices.Compact(out)
}

// earliest is when a task could begin at the earliest, by what it follows and the least minutes of that.
func (s *schedule) earliest(i int) int {
	t := &s.p.tasks[i]
	from := max(s.p.now, t.from)
	for _, l := range t.before {
		from = max(from, s.earliestDone(l.task)+l.min)
	}
	return from
}

func (s *schedule) earliestDone(i int) int {
	t := &s.p.tasks[i]
	if s.at[i].set && (t.Uses != "wait" || t.pin != nil) {
		return s.done(i)
	}
	if t.Uses == "wait" {
		start := math.MinInt32
		for _, l := range t.before {
			start = max(start, s.earliestDone(l.task)+l.min)
		}
		return start + t.Minutes
	}
	return s.earliest(i) + t.leastMin
}

// latest is when a task has to be done, by what follows it and lies already.
func (s *schedule) latest(i int) int {
	by := s.p.end
	for _, l := range s.p.tasks[i].then {
		by = min(by, s.latestStart(l.task)-l.min)
	}
	return by
}

// latestStart is when a task has to begin: where it lies, or for a wait by what follows it.
func (s *schedule) latestStart(i int) int {
	t := &s.p.tasks[i]
	if t.Uses != "wait" || t.pin != nil {
		if s.at[i].set {
			return s.at[i].start
		}
		return math.MaxInt32 / 2
	}
	by := s.p.end
	for _, l := range t.then {
		by = min(by, s.latestStart(l.task)-l.min)
	}
	return by - t.Minutes
}

// layRest lays what is not laid of a batch: what follows its last bake forwards, all else backwards. Where that fails
// all of it is taken out.
func (s *schedule) layRest(b int, rng *rand.Rand) bool {
	x := &s.p.batches[b]
	for k, i := range x.order {
		if x.tailOf[k] && !s.at[i].set && s.p.tasks[i].Uses != "wait" && !s.layForward(i) {
			return s.fail(b)
		}
	}
	for i := s.nextBack(x, rng); i >= 0; i = s.nextBack(x, rng) {
		lay := s.layBackward
		if s.p.tasks[i].Uses == "oven" {
			lay = s.layBake
		}
		if !lay(i, b, rng) {
			return s.fail(b)
		}
	}
	if !s.layWaits(x) || !s.keeps(b) || !s.takeRest(b) {
		return s.fail(b)
	}
	s.in[b] = true
	return true
}

// nextBack is the next piece to lay backwards: all that follows it lies, and of those the one that may wait the least
// for what follows; -1: all lies.
func (s *schedule) nextBack(x *batch, rng *rand.Rand) int {
	best, tightest := -1, math.Inf(1)
	for k := len(x.order) - 1; k >= 0; k-- {
		i := x.order[k]
		t := &s.p.tasks[i]
		if s.at[i].set || t.Uses == "wait" || !s.followersLie(i, x) {
			continue
		}
		tight := float64(s.p.end)
		for _, l := range t.then {
			if l.max >= 0 {
				tight = min(tight, float64(l.max))
			}
		}
		if !s.plain {
			tight *= 1 + 0.3*rng.Float64()
		}
		if tight < tightest {
			best, tightest = i, tight
		}
	}
	return best
}

// followersLie says whether all of a batch that follows a task lies, through waits.
func (s *schedule) followersLie(i int, x *batch) bool {
	for _, l := range s.p.tasks[i].then {
		t := &s.p.tasks[l.task]
		switch {
		case s.p.batches[t.batch].Batch != x.Batch || s.at[l.task].set:
		case t.Uses != "wait" || !s.followersLie(l.task, x):
			return false
		}
	}
	return true
}

// fail takes out what was laid of a batch.
func (s *schedule) fail(b int) bool {
	s.remove(b)
	return false
}

// layBake lays a bake before the last one where it costs least.
func (s *schedule) layBake(i, b int, rng *rand.Rand) bool {
	for n, c := range s.candidates(i, b, s.latest(i), rng) {
		if n == mostTried {
			break
		}
		before := len(s.marks[b])
		s.layLoad(i, c)
		if s.touchAll(i, &s.at[i], rng) {
			return true
		}
		s.giveBack(b, before)
		o := c.slot.oven
		s.loads[o] = slices.DeleteFunc(s.loads[o], func(l int) bool { return l == i })
		s.at[i] = placed{}
	}
	return false
}

// layForward lays a piece of work as early as it goes.
func (s *schedule) layForward(i int) bool {
	t := &s.p.tasks[i]
	for m := s.earliest(i); m+t.Minutes <= s.p.end; m++ {
		for _, person := range t.by {
			if s.hands(i, person, m) {
				return true
			}
		}
	}
	return false
}

// layBackward lays a piece of work as late as it goes, with whoever can then; now and then earlier.
func (s *schedule) layBackward(i, b int, rng *rand.Rand) bool {
	t := &s.p.tasks[i]
	until, from := s.latest(i), s.earliest(i)
	if x := &s.p.batches[b]; len(t.then) == 0 && x.hasDue {
		until = min(until, x.due)
		if from+t.Minutes > until {
			until = min(s.p.end, from+t.Minutes+720)
		}
	}
	if x := &s.p.batches[b]; len(t.then) == 0 && !x.hasDue { // a break: any time will do
		until = min(until, from+t.Minutes+rng.IntN(max(1, until-from-t.Minutes+1)))
	}
	if !s.plain && rng.IntN(6) == 0 {
		if early := until - rng.IntN(45); early-t.Minutes >= from {
			until = early
		}
	}
	floor := from
	for _, l := range t.then {
		if l.hard && l.max >= 0 && s.at[l.task].set && s.p.tasks[l.task].pin == nil {
			floor = max(floor, s.at[l.task].start-l.max-t.Minutes)
		}
	}
	if !s.plain && rng.IntN(3) == 0 && s.layBeside(i, until, max(floor, until-t.Minutes-besideMin), rng) {
		return true
	}
	for m := until - t.Minutes; m >= floor; m-- {
		best := -1
		for _, person := range t.by {
			if !s.can(person, m, m+t.Minutes) {
				continue
			}
			if best < 0 || rng.IntN(6) == 0 ||
				s.touches(person, m, m+t.Minutes) && (!s.touches(best, m, m+t.Minutes) || rng.IntN(2) == 0) {
				best = person
			}
		}
		if best >= 0 && s.hands(i, best, m) {
			return true
		}
	}
	return false
}

// layBeside lays a piece of work right before or after another one of somebody's, so that nobody stands about.
func (s *schedule) layBeside(i, until, floor int, rng *rand.Rand) bool {
	t := &s.p.tasks[i]
	if len(t.by) == 0 {
		return false
	}
	first := rng.IntN(len(t.by))
	for m := until - t.Minutes; m >= floor; m-- {
		for k := range t.by {
			person := t.by[(k+first)%len(t.by)]
			if s.touches(person, m, m+t.Minutes) && s.hands(i, person, m) {
				return true
			}
		}
	}
	return false
}

// touches says whether somebody works right before or after.
func (s *schedule) touches(person, from, to int) bool {
	a, b := from-s.p.now-1, to-s.p.now
	return a >= 0 && s.busy[person][a] > 0 || b < s.p.n && s.busy[person][b] > 0
}

// hands lays a piece of work with somebody, where that goes.
func (s *schedule) hands(i, person, start int) bool {
	t := &s.p.tasks[i]
	end := start + t.Minutes
	if !s.can(person, start, end) {
		return false
	}
	if t.machine >= 0 && !s.room(s.machine[t.machine], start, end, 1, s.p.machines[t.machine]) {
		return false
	}
	s.at[i] = placed{set: true, start: start, end: end, person: person, oven: -1, tier: -1, alt: -1}
	s.take(t.batch, s.busy[person], start, end, 1)
	if t.machine >= 0 {
		s.take(t.batch, s.machine[t.machine], start, end, 1)
	}
	return true
}

// layWaits lays the waits of a batch between what they follow and what follows them, all of which lies.
func (s *schedule) layWaits(b *batch) bool {
	waits := func(i int) bool { return s.p.tasks[i].Uses == "wait" && s.p.tasks[i].pin == nil }
	for _, i := range b.order {
		if !waits(i) {
			continue
		}
		x := placed{set: true, person: -1, oven: -1, tier: -1, alt: -1, start: math.MinInt32}
		for _, l := range s.p.tasks[i].before {
			if !s.at[l.task].set {
				return false
			}
			x.start = max(x.start, s.done(l.task)+l.min)
		}
		s.at[i] = x
	}
	for _, i := range b.order {
		if !waits(i) {
			continue
		}
		x, least := &s.at[i], s.at[i].start+s.p.tasks[i].Minutes
		x.end = least
		for k, l := range s.p.tasks[i].then {
			if !s.at[l.task].set {
				return false
			}
			if k == 0 || s.at[l.task].start > x.end {
				x.end = s.at[l.task].start
			}
		}
		if x.end < least || x.end > s.p.end {
			return false
		}
	}
	return true
}

// keeps says whether a batch that lies keeps its lags, and those to what lies of others.
func (s *schedule) keeps(b int) bool {
	x := &s.p.batches[b]
	ready := s.ready(b)
	if ready > s.p.end || x.hasDue && x.lateMax >= 0 && ready > x.due+x.lateMax {
		return false
	}
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if t.pin == nil && (s.at[i].start < s.p.now && (t.Uses != "wait" || !s.follows(i)) || s.at[i].start < t.from) {
			return false
		}
		for _, l := range t.before {
			if s.at[l.task].set && t.pin == nil && !s.lagKept(i, l) {
				return false
			}
		}
		for _, l := range t.then {
			n := &s.p.tasks[l.task]
			if s.at[l.task].set && n.pin == nil && n.batch != b && !s.lagKept(l.task, link{i, l.min, l.max, l.hard}) {
				return false
			}
		}
	}
	return true
}

// follows says whether a wait follows only what is pinned.
func (s *schedule) follows(i int) bool {
	for _, l := range s.p.tasks[i].before {
		t := &s.p.tasks[l.task]
		if t.pin == nil && (t.Uses != "wait" || !s.follows(l.task)) {
			return false
		}
	}
	return true
}

func (s *schedule) lagKept(i int, l link) bool {
	lag := s.at[i].start - s.done(l.task)
	return lag >= l.min && (!l.hard || l.max < 0 || lag <= l.max)
}

// ready is when the last of a batch is done.
func (s *schedule) ready(b int) int {
	ready := math.MinInt32
	for _, i := range s.p.batches[b].tasks {
		ready = max(ready, s.done(i))
	}
	return ready
}

// takeRest takes the places of a batch's waits, its dishes, and where it is held until it is wanted.
func (s *schedule) takeRest(b int) bool {
	x := &s.p.batches[b]
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if t.Uses != "wait" || t.place < 0 || s.at[i].end <= s.p.now {
			continue
		}
		if !s.room(s.area[t.place], s.at[i].start, s.at[i].end, t.AreaCM2, s.p.areas[t.place]) {
			return false
		}
		s.take(b, s.area[t.place], s.at[i].start, s.at[i].end, t.AreaCM2)
	}
	ready := s.ready(b)
	until := ready
	if x.hasDue {
		until = max(ready, x.due)
	}
	if x.hold >= 0 {
		if !s.room(s.area[x.hold], ready, until, x.HoldCM2, s.p.areas[x.hold]) {
			return false
		}
		s.take(b, s.area[x.hold], ready, until, x.HoldCM2)
	}
	for _, d := range x.taken {
		from, to := s.first(b), until
		if d.from >= 0 {
			from = s.at[d.from].start
		}
		if d.to >= 0 {
			to = s.at[d.to].end
		}
		to += s.p.dishes[d.dish].WashMin
		if !s.room(s.dish[d.dish], from, to, float64(d.count), float64(s.p.dishes[d.dish].Count)) {
			return false
		}
		s.take(b, s.dish[d.dish], from, to, float64(d.count))
	}
	return true
}

func (s *schedule) first(b int) int {
	first := math.MaxInt32
	for _, i := range s.p.batches[b].tasks {
		first = min(first, s.at[i].start)
	}
	return first
}
