package day

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/dish"
	"mabbin/core/message"
)

// Laid is a day as it was laid: the plan, and what is shown of it.
type Laid struct {
	Now    int    `json:"now_min"` // when it was laid
	From   int    `json:"from_min"`
	To     int    `json:"to_min"`
	Plan   Answer `json:"plan"`
	Lanes  []Lane `json:"lanes"`
	Bars   []Bar  `json:"bars"`
	Heats  []Heat `json:"heats"`
	Orders []Done `json:"orders"`
	// Sheets are what each person does and each oven holds, in the order of the clock.
	Sheets []Sheet           `json:"sheets"`
	Ahead  []Ahead           `json:"ahead"`
	Unlaid []Unlaid          `json:"unlaid"`
	Ways   []message.Message `json:"ways"`  // the ways out that were taken, in their order
	Moved  []message.Message `json:"moved"` // what is otherwise than it was laid before
	Says   message.Message   `json:"says"`
	// Baking is what was in an oven by then.
	Baking []Baking `json:"baking,omitempty"`
	// Took is how long hands were at what was told to be done.
	Took []Took `json:"took,omitempty"`
}

// Lane is one line of the picture: an oven's tier, a pair of hands, a place.
type Lane struct {
	Kind string `json:"kind"` // oven, hands or place
	Of   string `json:"of"`
	Tier string `json:"tier,omitempty"`
}

// Bar is one thing in a lane.
type Bar struct {
	Lane     int             `json:"lane"`
	Row      int             `json:"row"` // below others that it meets in its lane
	Task     string          `json:"task"`
	Order    string          `json:"order"`
	Kind     string          `json:"kind"`
	From     int             `json:"from_min"`
	To       int             `json:"to_min"`
	Says     message.Message `json:"says"`
	Fruit    string          `json:"fruit"`
	Dish     dish.Dish       `json:"dish"`
	Count    int             `json:"count"`
	Pinned   bool            `json:"pinned"`
	CanMove  bool            `json:"can_move"` // it has not begun
	Stages   []Stage         `json:"stages,omitempty"`
	Person   string          `json:"person,omitempty"`
	Tier     string          `json:"tier,omitempty"`
	Way      string          `json:"way,omitempty"`       // the alternative, of a bake
	OtherWay bool            `json:"other_way,omitempty"` // not as the card has it
}

// Heat is how hot an oven is, or what it is warming to.
type Heat struct {
	Oven    string  `json:"oven"`
	From    int     `json:"from_min"`
	To      int     `json:"to_min"`
	C       float64 `json:"c"`
	Warming bool    `json:"warming"`
}

// Done is what becomes of an order.
type Done struct {
	Order   string          `json:"order"`
	InAt    *int            `json:"in_at_min,omitempty"` // into the oven
	ReadyAt *int            `json:"ready_at_min,omitempty"`
	InTime  bool            `json:"in_time"`
	Chance  *float64        `json:"chance,omitempty"` // to be in time, 0 to 1
	Says    message.Message `json:"says"`
	Fruit   string          `json:"fruit"`
}

// Sheet is what one person or one oven does, in the order of the clock.
type Sheet struct {
	Kind string `json:"kind"` // hands or oven
	Of   string `json:"of"`
	Rows []Row  `json:"rows"`
}

// Row is one line of a sheet.
type Row struct {
	Task    string          `json:"task"` // with its touch, where it is one: each row has its own
	At      int             `json:"at_min"`
	Minutes int             `json:"minutes"`
	Says    message.Message `json:"says"`
	Caution message.Message `json:"caution,omitzero"`
}

// Ahead is what may be made the day before.
type Ahead struct {
	Task    string          `json:"task"`
	Batch   string          `json:"batch"`
	Minutes int             `json:"minutes"`
	Done    bool            `json:"done"`
	Says    message.Message `json:"says"`
}

// Show is a plan as it is shown. Before is how it was laid until now; nil: it was not.
func Show(a Asked, orders []Ordered, q Request, unlaid []Unlaid, plan Answer, before *Laid) *Laid {
	s := showing{q: q, asked: a, tasks: map[string]*Task{}}
	s.out = Laid{
		Now: q.Now, Plan: plan, Unlaid: unlaid, Bars: []Bar{}, Heats: []Heat{}, Ahead: []Ahead{}, Moved: []message.Message{},
		Ways: []message.Message{}, Orders: []Done{}, Lanes: []Lane{},
	}
	if s.out.Unlaid == nil {
		s.out.Unlaid = []Unlaid{}
	}
	s.orders = map[string]Ordered{}
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
	for _, w := range a.Ways {
		kind := "topping" // of a task that is mixed once, which is none any more
		if t := s.tasks[w.Task]; t != nil {
			kind = t.Kind
		}
		s.out.Ways = append(s.out.Ways, w.way().words(kind))
	}
	s.moved(before)
	s.took()
	s.says()
	return &s.out
}

type showing struct {
	q      Request
	asked  Asked
	orders map[string]Ordered
	tasks  map[string]*Task
	out    Laid
}

func (s *showing) lanes() {
	for _, o := range s.q.Ovens {
		for _, t := range o.Tiers {
			s.out.Lanes = append(s.out.Lanes, Lane{"oven", o.ID, t.ID})
		}
	}
	for _, p := range s.q.People {
		s.out.Lanes = append(s.out.Lanes, Lane{Kind: "hands", Of: p.ID})
	}
	for _, p := range s.q.Places {
		s.out.Lanes = append(s.out.Lanes, Lane{Kind: "place", Of: p.ID})
	}
}

func (s *showing) lane(kind, of, tier string) int {
	return slices.IndexFunc(s.out.Lanes, func(l Lane) bool { return l.Kind == kind && l.Of == of && l.Tier == tier })
}

// orderOf is the order that a batch is of.
func (s *showing) orderOf(batch string) Ordered {
	if o, ok := s.orders[batch]; ok {
		return o
	}
	for id, o := range s.orders { // a part of one
		if strings.HasPrefix(batch, id+partOf) {
			return o
		}
	}
	return Ordered{Wanted: Wanted{ID: batch}}
}

const (
	partOf = ", part "
	asCard = "plan" // the alternative that a card has
)

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
	add := func(kind, of, tier string, says message.Message, from, to int) {
		if bar.Lane = s.lane(kind, of, tier); bar.Lane < 0 || to <= from {
			return
		}
		bar.Says, bar.From, bar.To = says, from, to
		s.out.Bars = append(s.out.Bars, bar)
	}
	switch t.Uses {
	case "hands":
		add("hands", x.Person, "", message.New("{what}: {order}", message.Word(stepWords[t.Kind]), message.Text(x.Batch)),
			x.Start, x.End)
	case "wait":
		if w := placeWords[t.Kind]; w != "" && t.Place != "" {
			add("place", t.Place, "", message.New("{order} {what}", message.Text(x.Batch), message.Word(w)), x.Start, x.End)
		}
	case "oven":
		way := wayOf(t, x.Alternative)
		bar.Stages = way.Stages
		bar.Way, bar.OtherWay = way.ID, t.Kind == "bake" && way.ID != asCard
		add("oven", x.Oven, x.Tier, bakeWords(x, t, way), x.Start, x.End)
		bar.Stages, bar.Tier, bar.Way, bar.OtherWay = nil, "", "", false
		for _, touch := range x.Touches {
			kind := way.Touches[touch.Touch].Kind
			bar.Kind = kind
			add("hands", touch.Person, "", s.touchWords(kind, x, way), touch.Start, touch.End)
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
	if t.Kind == "parbake" {
		what = "{order}: the base alone at {heat}, {minutes} min"
	}
	n := x.End - x.Start
	minutes := message.Count(n)
	if give := nineInTen(way.SDMin); give > 0 {
		minutes = message.Part(message.New("{n} ({range} 9 times in 10)", message.Count(n),
			message.Range(message.Count(n-give), message.Count(n+give))))
	}
	return message.New(what, message.Text(x.Batch), message.OvenHeat(way.Stages[0].OvenC), minutes)
}

// nineInTen is how far from its clock a bake ends nine times in ten, in whole minutes.
func nineInTen(sd float64) int { return int(math.Round(bake.NineInTen * sd)) }

// touchWords is what is said of a touch of a bake.
func (s *showing) touchWords(kind string, x Scheduled, way *Alternative) message.Message {
	order := message.Text(x.Batch)
	switch kind {
	case "load":
		return message.New("Into {oven}, tier {tier}: {order}, at {heat}", message.Text(x.Oven), message.Text(x.Tier), order,
			message.OvenHeat(way.Stages[0].OvenC))
	case "take_out":
		return message.New("Out of {oven}, to rest: {order}", message.Text(x.Oven), order)
	}
	return message.New("{what}: {order}", message.Word(stepWords[kind]), order)
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

func (s *showing) done() {
	for _, o := range s.asked.Orders {
		d := Done{Order: o.ID, InTime: true}
		if x := s.orders[o.ID]; x.Answer != nil {
			d.Fruit = x.Dessert.Request.Fruits[0].Key
		}
		found, give := false, 0
		for _, x := range s.out.Plan.Schedule {
			if s.orderOf(x.Batch).ID != o.ID {
				continue
			}
			found = true
			if t := s.tasks[x.Task]; t.Kind == "bake" {
				if d.InAt == nil || x.Start < *d.InAt {
					d.InAt = &x.Start
				}
				if x.End > s.q.Now {
					give = max(give, nineInTen(wayOf(t, x.Alternative).SDMin))
				}
			}
			ready := x.End
			if t := s.tasks[x.Task]; t.Uses == "wait" {
				ready = x.Start + t.Minutes
			}
			if d.ReadyAt == nil || ready > *d.ReadyAt {
				d.ReadyAt = &ready
			}
		}
		for _, c := range s.out.Plan.Chances {
			if s.orderOf(c.Batch).ID == o.ID && (d.Chance == nil || c.Share < *d.Chance) {
				d.Chance = &c.Share
			}
		}
		i := slices.IndexFunc(s.out.Unlaid, func(u Unlaid) bool { return u.Order == o.ID })
		due := o.Due
		for _, w := range s.asked.Ways {
			if w.Code == "due_later" && s.orderOf(w.Batch).ID == o.ID {
				due += w.Minutes
			}
		}
		switch {
		case i >= 0:
			d.InTime, d.Says = false, s.out.Unlaid[i].Why
		case !found:
			d.InTime, d.Says = false, message.New("Finds no room.")
		case *d.ReadyAt > due:
			d.InTime = false
			d.Says = message.New("Ready at {clock}, {n} min late.", Clock(*d.ReadyAt), message.Count(*d.ReadyAt-due))
		case give > 0:
			d.Says = message.New("In at {in}, ready at {clock} ({early} to {late}).",
				Clock(or(d.InAt, *d.ReadyAt)), Clock(*d.ReadyAt), Clock(*d.ReadyAt-give), Clock(*d.ReadyAt+give))
		default:
			d.Says = message.New("In at {in}, ready at {clock}.", Clock(or(d.InAt, *d.ReadyAt)), Clock(*d.ReadyAt))
		}
		s.out.Orders = append(s.out.Orders, d)
	}
}

// Clock is a minute of the day, as a clock shows it.
func Clock(minute int) message.Arg {
	m := ((minute % 1440) + 1440) % 1440
	return message.Text(fmt.Sprintf("%02d:%02d", m/60, m%60))
}

func (s *showing) sheets() {
	s.out.Sheets = []Sheet{}
	for _, p := range s.q.People {
		s.sheet("hands", p.ID)
	}
	for _, o := range s.q.Ovens {
		sheet := Sheet{Kind: "oven", Of: o.ID, Rows: []Row{}}
		for _, h := range s.out.Heats {
			if h.Oven == o.ID && h.Warming {
				sheet.Rows = append(sheet.Rows, Row{
					fmt.Sprintf("%s.heat.%d", o.ID, h.To), h.From, h.To - h.From,
					message.New("Set it to {heat}", message.OvenHeat(h.C)),
					message.Message{},
				})
			}
		}
		for _, b := range s.out.Bars {
			if l := s.out.Lanes[b.Lane]; l.Kind == "oven" && l.Of == o.ID {
				sheet.Rows = append(sheet.Rows,
					Row{
						b.Task + ".in", b.From, b.To - b.From,
						message.New("In, tier {tier}: {what}", message.Text(l.Tier), message.Part(b.Says)),
						message.Message{},
					},
					Row{b.Task + ".out", b.To, 0, message.New("Out: {order}", message.Text(b.Order)), hotDish})
			}
		}
		sortRows(sheet.Rows)
		s.out.Sheets = append(s.out.Sheets, sheet)
	}
}

var hotDish = message.New("Boiling fruit and sugar burn worse than water. Dry cloths.")

func (s *showing) sheet(kind, of string) {
	sheet := Sheet{Kind: kind, Of: of, Rows: []Row{}}
	for _, b := range s.out.Bars {
		if l := s.out.Lanes[b.Lane]; l.Kind == kind && l.Of == of {
			row := Row{Task: b.Task + "." + b.Kind, At: b.From, Minutes: b.To - b.From, Says: b.Says}
			if b.Kind == "take_out" {
				row.Caution = hotDish
			}
			sheet.Rows = append(sheet.Rows, row)
		}
	}
	sortRows(sheet.Rows)
	s.out.Sheets = append(s.out.Sheets, sheet)
}

func sortRows(rows []Row) {
	slices.SortStableFunc(rows, func(a, b Row) int { return cmp.Compare(a.At, b.At) })
}

// aheads are what may be made the day before.
func (s *showing) aheads() {
	for i := range s.q.Batches {
		b := &s.q.Batches[i]
		for _, t := range b.Tasks {
			if !t.Ahead {
				continue
			}
			done := slices.ContainsFunc(s.asked.Ways, func(w WayTaken) bool { return w.Code == "ahead" && w.Task == t.ID })
			s.out.Ahead = append(s.out.Ahead, Ahead{
				t.ID,
				b.ID,
				t.Minutes,
				done,
				message.New(
					"{what} of {order}, {n} min",
					message.Part(nounOf(t.Kind)),
					message.Text(b.ID),
					message.Count(t.Minutes),
				),
			})
		}
	}
}

// beside is so much of the clock on each side of what is drawn, min.
const beside = 15

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
	s.out.From = 30 * int(math.Floor(float64(from-beside)/30))
	s.out.To = 30 * int(math.Ceil(float64(to+beside)/30))
}

// toldMin is by how much a bake has moved for it to be told: what is less, nobody plans by.
const toldMin = 5

// moved tells which bakes are otherwise than before, and by how much.
func (s *showing) moved(before *Laid) {
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
			s.out.Moved = append(s.out.Moved, message.New("{order} goes in {n} min sooner, at {clock}.", order,
				message.Count(-d), Clock(x.Start)))
		case x.Oven != old.Oven:
			s.out.Moved = append(s.out.Moved, message.New("{order} goes into {oven}.", order, message.Text(x.Oven)))
		case x.End-old.End >= toldMin || old.End-x.End >= toldMin:
			s.out.Moved = append(s.out.Moved, message.New("{order} comes out at {clock}.", order, Clock(x.End)))
		}
	}
}

func (s *showing) says() {
	late, n := 0, len(s.out.Orders)
	for _, d := range s.out.Orders {
		if !d.InTime {
			late++
		}
	}
	switch {
	case n == 0:
		s.out.Says = message.New("Nothing is ordered for this day yet.")
	case late > 0:
		s.out.Says = message.New("{n} of {all} will not be ready as wanted.", message.Count(late), message.Count(n))
	case s.out.Plan.Objective.Window > 0:
		s.out.Says = message.New(
			"All is ready in time; something stands {n} min longer than it should.", message.Count(s.out.Plan.Objective.Window))
	default:
		s.out.Says = message.New("All is ready in time; ovens are on for {on} min.",
			message.Count(s.out.Plan.Objective.OvenOn))
	}
}
