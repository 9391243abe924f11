package day

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/message"
)

func (s *showing) lanes() {
	for _, o := range s.q.Ovens {
		for _, t := range o.Tiers {
			s.out.Lanes = append(s.out.Lanes, Lane{LaneOven, o.ID, t.ID})
		}
	}
	for _, p := range s.q.People {
		s.out.Lanes = append(s.out.Lanes, Lane{Kind: LanePerson, Of: p.ID})
	}
	for _, p := range s.q.Places {
		s.out.Lanes = append(s.out.Lanes, Lane{Kind: LanePlace, Of: p.ID})
	}
}

func (s *showing) lane(kind LaneKind, of, tier string) int {
	return slices.IndexFunc(s.out.Lanes, func(l Lane) bool { return l.Kind == kind && l.Of == of && l.Tier == tier })
}

// orderOf is the order that a batch is of.
func (s *showing) orderOf(batch string) PlannedOrder {
	if o, ok := s.orders[batch]; ok {
		return o
	}
	for id, o := range s.orders { // a part of one
		if strings.HasPrefix(batch, id+partOf) {
			return o
		}
	}
	return PlannedOrder{Order: Order{ID: batch}}
}

// placeWords is what is said of what stands about.
var placeWords = map[string]string{
	"chill": "chills", "set": "sets", "rest": "rests", "cool": "cools", "thaw": "thaws",
}

func (s *showing) bar(x Scheduled) {
	t := s.tasks[x.Task]
	o := s.orderOf(x.Batch)
	bar := Bar{
		Task: x.Task, Order: o.ID, Kind: t.Kind, From: x.Start, To: x.End, Person: x.Person, Tier: x.Tier,
		Count: max(1, t.Count), CanMove: x.Start >= s.q.Now,
		Pinned: slices.ContainsFunc(s.asked.Pinned, func(p Pin) bool { return p.Task == x.Task }),
	}
	if o.Answer != nil {
		bar.Dish = o.Dessert.Request.Dish
		bar.Fruit = o.Dessert.Request.Fruits[0].Key
	}
	add := func(kind LaneKind, of, tier string, text message.Message, from, to int) {
		if bar.Lane = s.lane(kind, of, tier); bar.Lane < 0 || to <= from {
			return
		}
		bar.Text, bar.From, bar.To = text, from, to
		s.out.Bars = append(s.out.Bars, bar)
	}
	switch t.Uses {
	case UsePerson:
		add(LanePerson, x.Person, "", message.New("{what}: {order}", message.Word(stepWords[t.Kind]), message.Text(x.Batch)),
			x.Start, x.End)
	case UseWait:
		if w := placeWords[t.Kind]; w != "" && t.Place != "" {
			add(LanePlace, t.Place, "", message.New("{order} {what}", message.Text(x.Batch), message.Word(w)), x.Start, x.End)
		}
	case UseOven:
		way := wayOf(t, x.Alternative)
		bar.Stages = way.Stages
		bar.Option, bar.OtherOption = way.ID, way.ExtraMin > 0
		add(LaneOven, x.Oven, x.Tier, bakeWords(x, t, way), x.Start, x.End)
		bar.Stages, bar.Tier, bar.Option, bar.OtherOption = nil, "", "", false
		for _, touch := range x.Touches {
			if touch.Touch >= len(way.Touches) { // of a plan that was stored when its base had weights on it
				continue
			}
			kind := way.Touches[touch.Touch].Kind
			bar.Kind = kind
			add(LanePerson, touch.Person, "", s.touchWords(&way.Touches[touch.Touch], x, way), touch.Start, touch.End)
		}
	}
}

func wayOf(t *Task, id string) *Alternative {
	for k := range t.Alternatives {
		if t.Alternatives[k].ID == id {
			return &t.Alternatives[k]
		}
	}
	return &t.Alternatives[0]
}

func bakeWords(x Scheduled, t *Task, way *Alternative) message.Message {
	what := "{order} bakes at {heat}, {minutes} min"
	switch t.Kind {
	case "parbake":
		what = "{order}: the base alone at {heat}, {minutes} min"
	case "rewarm":
		what = "{order}: reheat at {heat}, {minutes} min"
	}
	n := x.End - x.Start
	minutes := message.Count(n)
	if give := nineInTen(way.SDMin); give > 0 {
		minutes = message.Part(message.New("{n} ({range}, 90 % range)", message.Count(n),
			message.Range(message.Count(n-give), message.Count(n+give))))
	}
	return message.New(what, message.Text(x.Batch), message.OvenHeat(way.Stages[0].OvenC), minutes)
}

// nineInTen is how far from its clock a bake ends with 90 % probability, in whole minutes.
func nineInTen(sd float64) int { return int(math.Round(bake.NineInTen * sd)) }

// touchWords is what is said of a touch of a bake.
func (s *showing) touchWords(touch *Touch, x Scheduled, way *Alternative) message.Message {
	order := message.Text(x.Batch)
	switch touch.Kind {
	case "load":
		return message.New("Into {oven}, tier {tier}: {order}, at {heat}", message.Text(x.Oven), message.Text(x.Tier), order,
			message.OvenHeat(way.Stages[0].OvenC))
	case "take_out":
		if s.unturned(x, way) {
			return message.New(
				"Out of {oven}, to rest: {order}. It could not be turned: look at the back",
				message.Text(x.Oven),
				order,
			)
		}
		return message.New("Out of {oven}, to rest: {order}", message.Text(x.Oven), order)
	}
	return message.New("{what}: {order}", message.Part(way.touchText(touch)), order)
}

// unturned says whether a bake is not turned, for nobody is there to do it.
func (s *showing) unturned(x Scheduled, way *Alternative) bool {
	for k, t := range way.Touches {
		if t.Optional && x.Start+t.At >= s.q.Now &&
			!slices.ContainsFunc(x.Touches, func(p PlannedTouch) bool { return p.Touch == k }) {
			return true
		}
	}
	return false
}

// stack puts bars of a lane that meet below each other.
func (s *showing) stack() {
	slices.SortStableFunc(s.out.Bars, func(a, b Bar) int {
		return cmp.Or(cmp.Compare(a.Lane, b.Lane), cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To))
	})
	var ends []int
	lane := -1
	for i := range s.out.Bars {
		b := &s.out.Bars[i]
		if b.Lane != lane {
			lane, ends = b.Lane, nil
		}
		b.Row = slices.IndexFunc(ends, func(end int) bool { return end <= b.From })
		if b.Row < 0 {
			b.Row = len(ends)
			ends = append(ends, 0)
		}
		ends[b.Row] = b.To
	}
}
