package day

import (
	"fmt"
	"math"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// What a day can be. Bounds of the input, far above what a kitchen has.
const (
	twoDays      = 2880
	longestPlan  = 14 * 1440
	mostMinutes  = 40000000 // from any midnight: some eighty years
	mostBatches  = 120
	mostTasks    = 1200
	mostOf       = 60 // people, ovens, machines, places, dishes
	mostTouches  = 20
	mostSeconds  = 120000
	mostRounds   = 1000000
	usualRoomC   = 20.0
	usualTimeMS  = 2000
	conventional = "conventional"
)

// checker gathers faults, and finds names.
type checker struct {
	fault.Faults
	people, machines, places, dishes, ovens, batches map[string]int
	tasks                                            map[string]int // over all batches
}

// Check finds every wrong field.
func Check(q Request) error {
	var c checker
	c.bounds(q)
	if err := c.Err(); err != nil {
		return err
	}
	c.names(q)
	for i, p := range q.People {
		c.spans(fmt.Sprintf("/people/%d/hours", i), p.Hours)
		c.spans(fmt.Sprintf("/people/%d/breaks", i), p.Breaks)
	}
	for i, o := range q.Ovens {
		c.oven(fmt.Sprintf("/ovens/%d", i), o)
	}
	for i := range q.Batches {
		c.batch(fmt.Sprintf("/batches/%d", i), &q.Batches[i])
	}
	if err := c.Err(); err != nil {
		return err
	}
	for i, p := range q.Pinned {
		c.pin(fmt.Sprintf("/pinned/%d", i), p, q)
	}
	c.cycles(q)
	return c.Err()
}

func (c *checker) bounds(q Request) {
	c.Range("/now_min", float64(q.Now), -mostMinutes, mostMinutes, "min")
	if q.End != nil {
		c.Range("/end_min", float64(*q.End), float64(q.Now+1), float64(q.Now+longestPlan), "min")
	}
	if q.RoomC != nil {
		c.Range("/room_c", *q.RoomC, -10, 50, "C")
	}
	c.Range("/time_limit_ms", float64(q.TimeLimitMS), 0, mostSeconds, "")
	c.Range("/iterations", float64(q.Iterations), 0, mostRounds, "")
	many := func(at string, n, most int) { c.Range(at, float64(n), 0, float64(most), "") }
	many("/people", len(q.People), mostOf)
	many("/machines", len(q.Machines), mostOf)
	many("/places", len(q.Places), mostOf)
	many("/dishes", len(q.Dishes), mostOf)
	many("/ovens", len(q.Ovens), mostOf)
	many("/batches", len(q.Batches), mostBatches)
	tasks := 0
	for _, b := range q.Batches {
		tasks += len(b.Tasks)
	}
	many("/batches", tasks, mostTasks)
	many("/pinned", len(q.Pinned), mostTasks)
}

// names takes every name, once.
func (c *checker) names(q Request) {
	take := func(at string, n int, id func(int) string) map[string]int {
		known := map[string]int{}
		for i := range n {
			where := fmt.Sprintf("%s/%d/id", at, i)
			switch _, twice := known[id(i)]; {
			case id(i) == "":
				c.Add(where, message.New("is missing"))
			case twice:
				c.Add(where, message.New("is {name}, which is used twice: each must be unique", message.Text(id(i))))
			}
			known[id(i)] = i
		}
		return known
	}
	c.people = take("/people", len(q.People), func(i int) string { return q.People[i].ID })
	c.machines = take("/machines", len(q.Machines), func(i int) string { return q.Machines[i].ID })
	c.places = take("/places", len(q.Places), func(i int) string { return q.Places[i].ID })
	c.dishes = take("/dishes", len(q.Dishes), func(i int) string { return q.Dishes[i].ID })
	c.ovens = take("/ovens", len(q.Ovens), func(i int) string { return q.Ovens[i].ID })
	c.batches = take("/batches", len(q.Batches), func(i int) string { return q.Batches[i].ID })
	c.tasks = map[string]int{}
	n := 0
	for i, b := range q.Batches {
		for j, t := range b.Tasks {
			at := fmt.Sprintf("/batches/%d/tasks/%d/id", i, j)
			if _, twice := c.tasks[t.ID]; twice {
				c.Add(at, message.New("is {name}, which is used twice: each must be unique", message.Text(t.ID)))
			}
			if t.ID == "" {
				c.Add(at, message.New("is missing"))
			}
			c.tasks[t.ID] = n
			n++
		}
	}
	for i, m := range q.Machines {
		c.Range(fmt.Sprintf("/machines/%d/count", i), float64(m.Count), 0, 1000, "")
	}
	for i, p := range q.Places {
		c.Range(fmt.Sprintf("/places/%d/area_cm2", i), p.AreaCM2, 0, 1e7, "")
	}
	for i, d := range q.Dishes {
		c.Range(fmt.Sprintf("/dishes/%d/count", i), float64(d.Count), 0, 1000, "")
		c.Range(fmt.Sprintf("/dishes/%d/wash_min", i), float64(d.WashMin), 0, 1440, "min")
	}
}

func (c *checker) spans(at string, all []Span) {
	c.Length(at, "", len(all), 0, 100)
	for i, s := range all {
		if s.To < s.From {
			c.Add(fmt.Sprintf("%s/%d/to_min", at, i), message.New("is {to}, before its start at {from}",
				message.Count(s.To), message.Count(s.From)))
		}
	}
}

func (c *checker) known(at, id string, of map[string]int) bool {
	if _, ok := of[id]; !ok && id != "" {
		c.Add(at, message.New("is {name}, which is not in the list", message.Text(id)))
		return false
	}
	return id != ""
}

func (c *checker) oven(at string, o Oven) {
	if o.NowC != nil {
		c.Range(at+"/now_c", *o.NowC, -10, 400, "C")
	}
	c.Range(at+"/warm_c_per_min", o.WarmCPerMin, 0.1, 200, "")
	c.Range(at+"/cool_c_per_min", o.CoolCPerMin, 0.1, 200, "")
	c.Range(at+"/door_min", o.DoorMin, 0, 60, "min")
	if o.From != nil && o.To != nil && *o.To < *o.From {
		c.Add(at+"/to_min", message.New("is {to}, before its start at {from}", message.Count(*o.To), message.Count(*o.From)))
	}
	c.Length(at, "/tiers", len(o.Tiers), 0, mostOf)
	seen := map[string]bool{}
	for i, t := range o.Tiers {
		here := fmt.Sprintf("%s/tiers/%d", at, i)
		c.Range(here+"/width_cm", t.WidthCM, 0, 1000, "cm")
		c.Range(here+"/depth_cm", t.DepthCM, 0, 1000, "cm")
		if seen[t.ID] {
			c.Add(here+"/id", message.New("is {name}, which is used twice: each must be unique", message.Text(t.ID)))
		}
		seen[t.ID] = true
	}
}

func (c *checker) batch(at string, b *Batch) {
	minute := func(at string, v *int) {
		if v != nil {
			c.Range(at, float64(*v), -mostMinutes, mostMinutes, "min")
		}
	}
	minute(at+"/due_min", b.Due)
	for field, v := range map[string]*int{"late_max_min": b.LateMax, "hold_max_min": b.HoldMax} {
		if v != nil {
			c.Range(at+"/"+field, float64(*v), 0, mostMinutes, "min")
		}
	}
	c.known(at+"/hold_place", b.HoldPlace, c.places)
	c.Range(at+"/hold_cm2", b.HoldCM2, 0, 1e7, "")
	if len(b.Tasks) == 0 {
		c.Add(at+"/tasks", message.New("is empty: add at least one task"))
	}
	own := map[string]bool{}
	for _, t := range b.Tasks {
		own[t.ID] = true
	}
	for i, d := range b.Dishes {
		here := fmt.Sprintf("%s/dishes/%d", at, i)
		if d.Dish == "" {
			c.Add(here+"/dish", message.New("is missing"))
		}
		c.known(here+"/dish", d.Dish, c.dishes)
		c.Range(here+"/count", float64(d.Count), 0, 1000, "")
		for field, id := range map[string]string{"from_task": d.FromTask, "to_task": d.ToTask} {
			if id != "" && !own[id] {
				c.Add(here+"/"+field, message.New("is {name}, which is not a task of the batch", message.Text(id)))
			}
		}
	}
	for j := range b.Tasks {
		t := &b.Tasks[j]
		minute(fmt.Sprintf("%s/tasks/%d/from_min", at, j), t.From)
		c.task(fmt.Sprintf("%s/tasks/%d", at, j), t)
	}
}

func (c *checker) task(at string, t *Task) {
	c.Among(at, "/uses", string(t.Uses), uses)
	c.Range(at+"/minutes", float64(t.Minutes), 0, longestPlan, "min")
	for i, l := range t.After {
		here := fmt.Sprintf("%s/after/%d", at, i)
		if l.Task == "" {
			c.Add(here+"/task", message.New("is missing"))
		}
		c.known(here+"/task", l.Task, c.tasks)
		c.Range(here+"/min_lag", float64(l.Min), 0, longestPlan, "min")
		if l.Max != nil {
			c.Range(here+"/max_lag", float64(*l.Max), 0, longestPlan, "min")
			if *l.Max < l.Min {
				c.Add(
					here+"/max_lag",
					message.New("is {most}, less than min_lag ({least})", message.Count(*l.Max), message.Count(l.Min)),
				)
			}
		}
	}
	for i, p := range t.By {
		c.known(fmt.Sprintf("%s/by/%d", at, i), p, c.people)
	}
	c.known(at+"/machine", t.Machine, c.machines)
	c.known(at+"/place", t.Place, c.places)
	c.Range(at+"/area_cm2", t.AreaCM2, 0, 1e7, "")
	if t.MaxMin != nil && *t.MaxMin < t.Minutes {
		c.Add(
			at+"/max_min",
			message.New("is {most}, less than its minutes ({least})", message.Count(*t.MaxMin), message.Count(t.Minutes)),
		)
	}
	switch t.Uses {
	case UseWait:
		if len(t.After) == 0 {
			c.Add(at+"/after", message.New("is empty: a wait always follows something"))
		}
	case UseOven:
		c.bake(at, t)
	}
}

func (c *checker) bake(at string, t *Task) {
	c.Range(at+"/count", float64(t.Count), 1, 1000, "")
	c.Range(at+"/width_cm", t.WidthCM, 0.1, 1000, "cm")
	c.Range(at+"/depth_cm", t.DepthCM, 0.1, 1000, "cm")
	c.Length(at, "/alternatives", len(t.Alternatives), 1, mostOf)
	seen := map[string]bool{}
	for i := range t.Alternatives {
		a, here := &t.Alternatives[i], fmt.Sprintf("%s/alternatives/%d", at, i)
		if seen[a.ID] {
			c.Add(here+"/id", message.New("is {name}, which is used twice: each must be unique", message.Text(a.ID)))
		}
		seen[a.ID] = true
		for k, o := range a.Ovens {
			c.known(fmt.Sprintf("%s/ovens/%d", here, k), o, c.ovens)
		}
		c.Range(here+"/sd_min", a.SDMin, 0, 1440, "min")
		c.Range(here+"/extra_min", float64(a.ExtraMin), 0, 1440, "min")
		c.Length(here, "/stages", len(a.Stages), 1, mostTouches)
		for k, s := range a.Stages {
			c.Range(fmt.Sprintf("%s/stages/%d/minutes", here, k), float64(s.Minutes), 1, longestPlan, "min")
			c.Range(fmt.Sprintf("%s/stages/%d/oven_c", here, k), s.OvenC, 20, 400, "C")
		}
		c.Length(here, "/touches", len(a.Touches), 0, mostTouches)
		for k, x := range a.Touches {
			where := fmt.Sprintf("%s/touches/%d", here, k)
			c.Range(where+"/at_min", float64(x.At), 0, float64(a.minutes()), "min")
			c.Range(where+"/minutes", float64(x.Minutes), 0, 1440, "min")
			c.Range(where+"/flex_min", float64(x.Flex), 0, 1440, "min")
		}
	}
}

func (a *Alternative) minutes() int {
	sum := 0
	for _, s := range a.Stages {
		sum += s.Minutes
	}
	return sum
}

func (c *checker) pin(at string, p Pin, q Request) {
	if p.Task == "" {
		c.Add(at+"/task", message.New("is missing"))
	}
	if !c.known(at+"/task", p.Task, c.tasks) {
		return
	}
	c.Range(at+"/start_min", float64(p.Start), float64(q.Now-longestPlan), float64(q.Now+longestPlan), "min")
	if p.End != nil && (*p.End < p.Start || *p.End > q.Now+longestPlan) {
		c.Add(at+"/end_min", message.New("is {end}: enter {start} or later", message.Count(*p.End), message.Count(p.Start)))
	}
	c.known(at+"/person", p.Person, c.people)
	c.known(at+"/oven", p.Oven, c.ovens)
	for i := range q.Batches {
		for j := range q.Batches[i].Tasks {
			t := &q.Batches[i].Tasks[j]
			if t.ID != p.Task {
				continue
			}
			found := p.Alternative == ""
			for k := range t.Alternatives {
				found = found || t.Alternatives[k].ID == p.Alternative
			}
			if !found {
				c.Add(at+"/alternative", message.New("is {name}, which is not in the list", message.Text(p.Alternative)))
			}
		}
	}
	if p.Tier != "" {
		found := p.Oven == ""
		for _, o := range q.Ovens {
			for _, t := range o.Tiers {
				found = found || o.ID == p.Oven && t.ID == p.Tier
			}
		}
		if !found {
			c.Add(at+"/tier", message.New("is {name}, which is not in the list", message.Text(p.Tier)))
		}
	}
}

// cycles finds a task that follows itself.
func (c *checker) cycles(q Request) {
	after := make([][]int, len(c.tasks))
	where := make([]string, len(c.tasks))
	n := 0
	for i, b := range q.Batches {
		for j, t := range b.Tasks {
			where[n] = fmt.Sprintf("/batches/%d/tasks/%d/after", i, j)
			for _, l := range t.After {
				after[n] = append(after[n], c.tasks[l.Task])
			}
			n++
		}
	}
	state := make([]int8, n) // 0: not seen, 1: on the way, 2: done
	var visit func(int) bool
	visit = func(i int) bool {
		state[i] = 1
		for _, p := range after[i] {
			if state[p] == 1 || state[p] == 0 && !visit(p) {
				return false
			}
		}
		state[i] = 2
		return true
	}
	for i := range n {
		if state[i] == 0 && !visit(i) {
			c.Add(where[i], message.New("leads back to the task itself: one task has to be first"))
			return
		}
	}
}

// rate is the whole minutes that a change of temperature takes.
func rate(from, to, warm, cool float64) int {
	per := warm
	if to < from {
		per = cool
	}
	return int(math.Ceil(math.Abs(to-from)/per - 1e-9))
}
