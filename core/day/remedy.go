package day

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/message"
)

// RemedyCode is a kind of a remedy.
type RemedyCode string

// The remedies.
const (
	RemedyAhead         RemedyCode = "ahead" // one thing the day before
	RemedyOneMix        RemedyCode = "one_mix"
	RemedyFrozen        RemedyCode = "frozen_raw"   // the day before, and baked from the freezer
	RemedyBaked         RemedyCode = "baked_before" // the day before, and warmed again
	RemedyStartEarlier  RemedyCode = "start_earlier"
	RemedyDueLater      RemedyCode = "due_later"
	RemedyAnotherDish   RemedyCode = "another_dish"
	RemedyLongerShift   RemedyCode = "more_hands"
	RemedyAnotherPerson RemedyCode = "another_person"
	RemedyAnotherOven   RemedyCode = "another_oven"
	RemedyFewer         RemedyCode = "fewer"
)

var remedyCodes = message.Words(
	RemedyAhead,
	RemedyOneMix,
	RemedyFrozen,
	RemedyBaked,
	RemedyStartEarlier,
	RemedyDueLater,
	RemedyAnotherDish,
	RemedyLongerShift,
	RemedyAnotherPerson,
	RemedyAnotherOven,
	RemedyFewer,
)

// AppliedRemedy is a remedy that somebody has taken.
type AppliedRemedy struct {
	Code    RemedyCode `json:"code"`
	Batch   string     `json:"batch,omitempty"`
	Task    string     `json:"task,omitempty"`
	Dish    string     `json:"dish,omitempty"`
	Oven    string     `json:"oven,omitempty"`
	Person  string     `json:"person,omitempty"`
	Minutes int        `json:"minutes,omitempty"`
}

func (w AppliedRemedy) remedy() Remedy {
	return Remedy{
		Code: w.Code, Batch: w.Batch, Task: w.Task, Dish: w.Dish, Oven: w.Oven, Person: w.Person, Minutes: w.Minutes,
	}
}

// words says what is done; kind is that of its task.
func (w Remedy) words(kind string) message.Message {
	n := message.Count(w.Minutes)
	switch w.Code {
	case RemedyAhead:
		return message.New("make {what} for {batch} the day before", message.Part(nounOf(kind)), message.Text(w.Batch))
	case RemedyOneMix:
		return message.New("mix {what} once for all that use it", message.Part(nounOf(kind)))
	case RemedyFrozen:
		return message.New("freeze {what} unbaked beforehand: it then bakes {n} min", message.Text(w.Batch), n)
	case RemedyBaked:
		return message.New("bake {what} the day before: reheat it in {n} min", message.Text(w.Batch), n)
	case RemedyStartEarlier:
		return message.New("start {n} min earlier", n)
	case RemedyDueLater:
		return message.New("{what} {n} min later", message.Text(w.Batch), n)
	case RemedyAnotherDish:
		return message.New("use one more dish like {which}", message.Text(w.Dish))
	case RemedyLongerShift:
		return message.New("{who} works {n} min longer", message.Text(w.Person), n)
	case RemedyAnotherPerson:
		return message.New("one more person")
	case RemedyAnotherOven:
		return message.New("use one more oven like {which}", message.Text(w.Oven))
	}
	return message.New("leave out {what}", message.Text(w.Batch))
}

// Apply changes a request as a remedy has it; one that means nothing in it changes nothing.
func (w Remedy) Apply(q *Request) {
	code, of, _ := strings.Cut(string(w.Code), ":")
	switch code := RemedyCode(code); code {
	case RemedyAhead:
		w.doneBefore(q)
	case RemedyOneMix:
		q.mixOnce(w.Task)
	case RemedyFrozen, RemedyBaked:
		q.makeBefore(w.Batch, code)
	case RemedyStartEarlier:
		startEarlier(q, w.Minutes)
	case RemedyDueLater:
		for i := range q.Batches {
			if b := &q.Batches[i]; b.ID == w.Batch && b.Due != nil {
				due := *b.Due + w.Minutes
				b.Due = &due
			}
		}
	case RemedyAnotherDish, "dish":
		for i := range q.Dishes {
			if d := &q.Dishes[i]; d.ID == cmp.Or(w.Dish, of) {
				d.Count++
			}
		}
	case RemedyLongerShift:
		for i := range q.People {
			if p := &q.People[i]; p.ID == w.Person && len(p.Hours) > 0 {
				p.Hours = slices.Clone(p.Hours)
				p.Hours[len(p.Hours)-1].To += w.Minutes
			}
		}
	case RemedyAnotherPerson, "hands":
		anotherPerson(q)
	case RemedyAnotherOven, "oven":
		for i := range q.Ovens {
			if q.Ovens[i].ID == cmp.Or(w.Oven, of) {
				anotherOven(q, i)
				break
			}
		}
	case "machine":
		for i := range q.Machines {
			if q.Machines[i].ID == of {
				q.Machines[i].Count++
			}
		}
	case "place":
		for i := range q.Places {
			if q.Places[i].ID == of {
				q.Places[i].AreaCM2 *= 2
			}
		}
	case RemedyFewer:
		q.Batches = slices.DeleteFunc(q.Batches, func(b Batch) bool { return b.ID == w.Batch })
	}
}

// startEarlier begins the day so many minutes earlier, for everybody.
func startEarlier(q *Request, by int) {
	q.Now -= by
	for i := range q.People {
		if h := slices.Clone(q.People[i].Hours); len(h) > 0 {
			h[0].From -= by
			q.People[i].Hours = h
		}
	}
}

// doneBefore makes a task and the waits after it alone things of the day before: they ended as the day begins.
func (w Remedy) doneBefore(q *Request) {
	end := q.Now
	pin := func(t *Task) {
		if !slices.ContainsFunc(q.Pinned, func(p Pin) bool { return p.Task == t.ID }) {
			q.Pinned = append(q.Pinned, Pin{Task: t.ID, Start: end - t.Minutes, End: &end})
		}
	}
	for b := range q.Batches {
		for i := range q.Batches[b].Tasks {
			t := &q.Batches[b].Tasks[i]
			if t.ID == w.Task || t.Uses == UseWait && len(t.After) == 1 && t.After[0].Task == w.Task {
				pin(t)
			}
		}
	}
}

// one more of something is called by its number.
func oneMore(has func(id string) bool) string {
	for n := 1; ; n++ {
		if id := "+" + strconv.Itoa(n); !has(id) {
			return id
		}
	}
}

// anotherPerson is one more pair of hands, there whenever anybody is.
func anotherPerson(q *Request) {
	x := Person{ID: oneMore(func(id string) bool {
		return slices.ContainsFunc(q.People, func(p Person) bool { return p.ID == id })
	})}
	for _, p := range q.People {
		x.Hours = append(x.Hours, p.Hours...)
	}
	q.People = append(q.People, x)
	q.eachTask(func(t *Task) {
		if len(t.By) > 0 {
			t.By = append(slices.Clone(t.By), x.ID)
		}
	})
}

// anotherOven is one more oven like one of them.
func anotherOven(q *Request, like int) {
	o := q.Ovens[like]
	was := o.ID
	o.NowC, o.ID = nil, oneMore(func(id string) bool {
		return slices.ContainsFunc(q.Ovens, func(p Oven) bool { return p.ID == id })
	})
	q.Ovens = append(q.Ovens, o)
	q.eachTask(func(t *Task) {
		t.Alternatives = slices.Clone(t.Alternatives)
		for k := range t.Alternatives {
			if a := &t.Alternatives[k]; slices.Contains(a.Ovens, was) {
				a.Ovens = append(slices.Clone(a.Ovens), o.ID)
			}
		}
	})
}

// eachTask changes tasks of a copied request, which shares them with the one that it was copied from.
func (q *Request) eachTask(change func(*Task)) {
	for i := range q.Batches {
		q.Batches[i].Tasks = slices.Clone(q.Batches[i].Tasks)
		for j := range q.Batches[i].Tasks {
			change(&q.Batches[i].Tasks[j])
		}
	}
}

// nouns are what may be made ahead, in words.
var nouns = map[string]string{
	"topping": "the topping", "crumbs": "the crumbs", "pastry": "the pastry", "base": "the base", "biscuit": "the dough",
}

func nounOf(kind string) message.Message {
	if n, ok := nouns[kind]; ok {
		return message.New(n)
	}
	return message.New("everything that can be made ahead")
}
