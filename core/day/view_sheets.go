package day

import (
	"cmp"
	"fmt"
	"slices"

	"mabbin/core/message"
)

func (s *showing) done() {
	for _, o := range s.asked.Orders {
		d := OrderStatus{Order: o.ID, InTime: true}
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
			if t := s.tasks[x.Task]; t.Uses == UseWait {
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
		i := slices.IndexFunc(s.out.Unscheduled, func(u Unscheduled) bool { return u.Order == o.ID })
		due := o.Due
		for _, w := range s.asked.Remedies {
			if w.Code == RemedyDueLater && s.orderOf(w.Batch).ID == o.ID {
				due += w.Minutes
			}
		}
		switch {
		case i >= 0:
			d.InTime, d.Text = false, s.out.Unscheduled[i].Reason
		case !found:
			d.InTime, d.Text = false, message.New("Does not fit.")
		case *d.ReadyAt > due:
			d.InTime = false
			d.Text = message.New("Ready at {clock}, {n} min late.", Clock(*d.ReadyAt), message.Count(*d.ReadyAt-due))
		case give > 0:
			d.Text = message.New("In at {in}, ready at {clock} ({early} to {late}).",
				Clock(or(d.InAt, *d.ReadyAt)), Clock(*d.ReadyAt), Clock(*d.ReadyAt-give), Clock(*d.ReadyAt+give))
		default:
			d.Text = message.New("In at {in}, ready at {clock}.", Clock(or(d.InAt, *d.ReadyAt)), Clock(*d.ReadyAt))
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
		s.sheet(LanePerson, p.ID)
	}
	for _, o := range s.q.Ovens {
		sheet := Sheet{Kind: LaneOven, Of: o.ID, Rows: []Row{}}
		for _, h := range s.out.Heats {
			if h.Oven == o.ID && h.Warming {
				sheet.Rows = append(sheet.Rows, Row{
					Task: fmt.Sprintf("%s.heat.%d", o.ID, h.To), At: h.From, Minutes: h.To - h.From,
					Text: message.New("Set it to {heat}", message.OvenHeat(h.C)),
				})
			}
		}
		for _, b := range s.out.Bars {
			if l := s.out.Lanes[b.Lane]; l.Kind == LaneOven && l.Of == o.ID {
				sheet.Rows = append(sheet.Rows,
					Row{
						Task: b.Task + ".in", At: b.From, Minutes: b.To - b.From,
						Text: message.New("In, tier {tier}: {what}", message.Text(l.Tier), message.Part(b.Text)),
					},
					Row{
						Task: b.Task + ".out", At: b.To,
						Text: message.New("Out: {order}", message.Text(b.Order)), Caution: hotDish,
					})
			}
		}
		sortRows(sheet.Rows)
		s.out.Sheets = append(s.out.Sheets, sheet)
	}
}

var hotDish = message.New("Boiling fruit and sugar burn worse than water. Use dry cloths.")

func (s *showing) sheet(kind LaneKind, of string) {
	sheet := Sheet{Kind: kind, Of: of, Rows: []Row{}}
	for _, b := range s.out.Bars {
		if l := s.out.Lanes[b.Lane]; l.Kind == kind && l.Of == of {
			row := Row{
				Task: rowOf(b.Task, b.Kind), At: b.From, Minutes: b.To - b.From, Text: b.Text, Fruit: b.Fruit,
				Detail: s.detail(&b), Done: s.asked.ticked(rowOf(b.Task, b.Kind)),
			}
			if t := s.tasks[b.Task]; t.Uses == UsePerson || b.Kind == loadKind {
				row.Moves = b.Task
			}
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
			done := slices.ContainsFunc(
				s.asked.Remedies,
				func(w AppliedRemedy) bool { return w.Code == RemedyAhead && w.Task == t.ID },
			)
			s.out.Ahead = append(s.out.Ahead, AheadTask{
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
