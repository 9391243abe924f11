package day

import (
	"cmp"
	"math"
	"slices"

	"mabbin/core/dish"
	"mabbin/core/message"
)

// Schedule is a day as it was planned: the plan, and what is shown of it.
type Schedule struct {
	Now    int           `json:"now_min"` // when it was planned
	From   int           `json:"from_min"`
	To     int           `json:"to_min"`
	Plan   Answer        `json:"plan"`
	Lanes  []Lane        `json:"lanes"`
	Bars   []Bar         `json:"bars"`
	Heats  []Heat        `json:"heats"`
	Orders []OrderStatus `json:"orders"`
	// Sheets are what each person does and each oven holds, in the order of the clock.
	Sheets      []Sheet           `json:"sheets"`
	Ahead       []AheadTask       `json:"ahead"`
	Unscheduled []Unscheduled     `json:"unscheduled"`
	Remedies    []message.Message `json:"remedies"` // the remedies that were taken, in their order
	Moved       []message.Message `json:"moved"`    // what is otherwise than it was planned before
	Summary     message.Message   `json:"summary"`
	// Baking is what was in an oven by then.
	Baking []Baking `json:"baking,omitempty"`
	// Question is a digest of what was asked when it was planned: the same question has the same plan.
	Question string `json:"question,omitempty"`
	// ActualTimes is how long hands were at what was reported to be done.
	ActualTimes []ActualTime `json:"actual_times,omitempty"`
}

// LaneKind is what a lane of a day is of.
type LaneKind string

// The kinds of lanes.
const (
	LaneOven   LaneKind = "oven"
	LanePerson LaneKind = "hands"
	LanePlace  LaneKind = "place"
)

// Lane is one line of the picture: an oven's tier, a pair of hands, a place.
type Lane struct {
	Kind LaneKind `json:"kind"`
	Of   string   `json:"of"`
	Tier string   `json:"tier,omitempty"`
}

// Bar is one thing in a lane.
type Bar struct {
	Lane        int             `json:"lane"`
	Row         int             `json:"row"` // below others that it meets in its lane
	Task        string          `json:"task"`
	Order       string          `json:"order"`
	Kind        string          `json:"kind"`
	From        int             `json:"from_min"`
	To          int             `json:"to_min"`
	Text        message.Message `json:"text"`
	Fruit       string          `json:"fruit"`
	Dish        dish.Dish       `json:"dish"`
	Count       int             `json:"count"`
	Pinned      bool            `json:"pinned"`
	CanMove     bool            `json:"can_move"` // it has not begun
	Stages      []Stage         `json:"stages,omitempty"`
	Person      string          `json:"person,omitempty"`
	Tier        string          `json:"tier,omitempty"`
	Option      string          `json:"option,omitempty"`       // the alternative, of a bake
	OtherOption bool            `json:"other_option,omitempty"` // not as the card has it
}

// Heat is how hot an oven is, or what it is warming to.
type Heat struct {
	Oven    string  `json:"oven"`
	From    int     `json:"from_min"`
	To      int     `json:"to_min"`
	C       float64 `json:"c"`
	Warming bool    `json:"warming"`
}

// OrderStatus is what becomes of an order.
type OrderStatus struct {
	Order   string          `json:"order"`
	InAt    *int            `json:"in_at_min,omitempty"` // into the oven
	ReadyAt *int            `json:"ready_at_min,omitempty"`
	InTime  bool            `json:"in_time"`
	Chance  *float64        `json:"chance,omitempty"` // to be in time, 0 to 1
	Text    message.Message `json:"text"`
	Fruit   string          `json:"fruit"`
}

// Sheet is what one person or one oven does, in the order of the clock.
type Sheet struct {
	Kind LaneKind `json:"kind"` // never a place
	Of   string   `json:"of"`
	Rows []Row    `json:"rows"`
}

// Row is one line of a sheet.
type Row struct {
	Task    string          `json:"task"` // with its touch, where it is one: each row has its own
	At      int             `json:"at_min"`
	Minutes int             `json:"minutes"`
	Text    message.Message `json:"text"`
	Caution message.Message `json:"caution,omitzero"`
	Detail  message.Message `json:"detail,omitzero"` // what is needed for it
	Fruit   string          `json:"fruit,omitempty"`
	Done    bool            `json:"done,omitempty"`
	// Moves is the task that begins later where this does; empty: it belongs to something that has begun.
	Moves string `json:"moves,omitempty"`
}

// AheadTask is what may be made the day before.
type AheadTask struct {
	Task    string          `json:"task"`
	Batch   string          `json:"batch"`
	Minutes int             `json:"minutes"`
	Done    bool            `json:"done"`
	Text    message.Message `json:"text"`
}

// NewSchedule is a plan as it is shown. Before is how it was planned until now; nil: it was not.
func NewSchedule(
	a Orders,
	orders []PlannedOrder,
	q Request,
	unlaid []Unscheduled,
	plan Answer,
	before *Schedule,
) *Schedule {
	s := showing{q: q, asked: a, tasks: map[string]*Task{}}
	s.out = Schedule{
		Now:         q.Now,
		Plan:        plan,
		Unscheduled: unlaid,
		Bars:        []Bar{},
		Heats:       []Heat{},
		Ahead:       []AheadTask{},
		Moved:       []message.Message{},
		Remedies:    []message.Message{},
		Orders:      []OrderStatus{},
		Lanes:       []Lane{},
	}
	if s.out.Unscheduled == nil {
		s.out.Unscheduled = []Unscheduled{}
	}
	s.orders = map[string]PlannedOrder{}
	for _, o := range orders {
		s.orders[o.ID] = o
	}
	for i := range q.Batches {
		b := &q.Batches[i]
		for j := range b.Tasks {
			s.tasks[b.Tasks[j].ID] = &b.Tasks[j]
		}
	}
	s.lanes()
	for _, x := range plan.Schedule {
		s.bar(x)
	}
	s.stack()
	s.heats()
	s.done()
	s.sheets()
	s.aheads()
	s.span()
	for _, w := range a.Remedies {
		kind := "topping" // of a task that is mixed once, which is none any more
		if t := s.tasks[w.Task]; t != nil {
			kind = t.Kind
		}
		s.out.Remedies = append(s.out.Remedies, w.remedy().words(kind))
	}
	s.moved(before)
	s.took()
	s.summarise()
	return &s.out
}

type showing struct {
	q      Request
	asked  Orders
	orders map[string]PlannedOrder
	tasks  map[string]*Task
	out    Schedule
}

const (
	partOf = ", part "
	asCard = "plan" // the alternative that a card has
)

// heats are what the ovens are set to, by what is in them; before that they warm.
func (s *showing) heats() {
	room := usualRoomC
	if s.q.RoomC != nil {
		room = *s.q.RoomC
	}
	for _, o := range s.q.Ovens {
		var all []Heat
		for _, x := range s.out.Plan.Schedule {
			if x.Oven != o.ID {
				continue
			}
			at := x.Start
			way := wayOf(s.tasks[x.Task], x.Alternative)
			for i, g := range way.Stages {
				to := at + g.Minutes
				if i == len(way.Stages)-1 {
					to = max(to, x.End)
				}
				all = append(all, Heat{o.ID, at, min(to, x.End), g.OvenC, false})
				at = to
			}
		}
		slices.SortStableFunc(all, func(a, b Heat) int { return cmp.Compare(a.From, b.From) })
		was, until := room, math.MinInt32
		for _, h := range all {
			if n := len(s.out.Heats); n > 0 && s.out.Heats[n-1].Oven == o.ID && h.C == s.out.Heats[n-1].C && h.From <= until {
				s.out.Heats[n-1].To = max(until, h.To)
				until = max(until, h.To)
				continue
			}
			warm := int(math.Ceil(math.Abs(h.C-was) / o.WarmCPerMin))
			if h.From-until > int(math.Ceil((h.C-room)/o.WarmCPerMin)) { // off in between
				warm = int(math.Ceil((h.C - room) / o.WarmCPerMin))
			}
			if warm > 0 {
				s.out.Heats = append(s.out.Heats, Heat{o.ID, max(until, h.From-warm), h.From, h.C, true})
			}
			s.out.Heats = append(s.out.Heats, h)
			was, until = h.C, max(until, h.To)
		}
	}
}

// marginMin is so much of the clock on each side of what is drawn, min.
const marginMin = 15

// span is from when to when it is drawn, in whole half hours.
func (s *showing) span() {
	from, to := math.MaxInt32, math.MinInt32
	for _, b := range s.out.Bars {
		if b.From >= 0 || b.To > 0 { // what was made the day before is not drawn
			from, to = min(from, max(0, b.From)), max(to, b.To)
		}
	}
	for _, o := range s.asked.Orders {
		from, to = min(from, o.Due), max(to, o.Due)
	}
	if from > to {
		from, to = handsFrom, handsTo
	}
	s.out.From = 30 * int(math.Floor(float64(from-marginMin)/30))
	s.out.To = 30 * int(math.Ceil(float64(to+marginMin)/30))
}

// toldMin is by how much a bake has moved for it to be reported: what is less, nobody plans by.
const toldMin = 5

// moved tells which bakes are otherwise than before, and by how much.
func (s *showing) moved(before *Schedule) {
	if before == nil {
		return
	}
	was := map[string]Scheduled{}
	for _, x := range before.Plan.Schedule {
		was[x.Task] = x
	}
	for _, x := range s.out.Plan.Schedule {
		old, ok := was[x.Task]
		if !ok || s.tasks[x.Task].Kind != "bake" {
			continue
		}
		order := message.Text(x.Batch)
		switch d := x.Start - old.Start; {
		case d >= toldMin:
			s.out.Moved = append(s.out.Moved, message.New("{order} goes in {n} min later, at {clock}.", order,
				message.Count(d), Clock(x.Start)))
		case d <= -toldMin:
			s.out.Moved = append(s.out.Moved, message.New("{order} goes in {n} min earlier, at {clock}.", order,
				message.Count(-d), Clock(x.Start)))
		case x.Oven != old.Oven:
			s.out.Moved = append(s.out.Moved, message.New("{order} goes into {oven}.", order, message.Text(x.Oven)))
		case x.End-old.End >= toldMin || old.End-x.End >= toldMin:
			s.out.Moved = append(s.out.Moved, message.New("{order} comes out at {clock}.", order, Clock(x.End)))
		}
	}
}

func (s *showing) summarise() {
	late, n := 0, len(s.out.Orders)
	for _, d := range s.out.Orders {
		if !d.InTime {
			late++
		}
	}
	switch {
	case n == 0:
		s.out.Summary = message.New("Nothing is ordered for this day yet.")
	case late > 0:
		s.out.Summary = message.New("{n} of {all} orders will not be ready on time.", message.Count(late), message.Count(n))
	case s.out.Plan.Objective.Window > 0:
		s.out.Summary = message.New(
			"All orders are ready on time; one step waits {n} min longer than it should.",
			message.Count(s.out.Plan.Objective.Window),
		)
	default:
		s.out.Summary = message.New("All orders are ready on time. Ovens are on for {on} min.",
			message.Count(s.out.Plan.Objective.OvenOn))
	}
}
