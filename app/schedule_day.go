package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"runtime"
	"time"

	"mabbin/core/bake"
	"mabbin/core/day"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/oven"

	"github.com/google/uuid"
	lru "github.com/hashicorp/golang-lru/v2"
	"golang.org/x/sync/errgroup"
)

var cardWord = message.New("card")

func pointer(list string, i int, field string) string { return fmt.Sprintf("%s/%d%s", list, i, field) }

// bakedKept is how many bakes of cards are cached.
const bakedKept = 512

// BakedCards keeps the bakes of cards that were worked out, for a day is planned again and again.
type BakedCards struct {
	answers *lru.Cache[string, *bake.DessertAnswer]
	cools   *lru.Cache[string, *bake.Cooling]
	ways    *lru.Cache[string, []day.OvenOption]
}

// NewBakedCards is an empty one.
func NewBakedCards() *BakedCards {
	answers, _ := lru.New[string, *bake.DessertAnswer](bakedKept) // it fails for sizes below one
	ways, _ := lru.New[string, []day.OvenOption](bakedKept)
	cools, _ := lru.New[string, *bake.Cooling](bakedKept)
	return &BakedCards{answers, cools, ways}
}

// SchedulingJob is how a day is to be planned.
type SchedulingJob struct {
	TimeLimitMS int
	Iterations  int
	Afresh      bool // whatever it was planned like before
	Progress    day.Progress
}

// Schedule plans a day again from now on: what has begun stays as it was.
func (d Days) Schedule(ctx context.Context, kitchen uuid.UUID, date time.Time, how SchedulingJob) (Day, error) {
	x, err := d.Open(ctx, kitchen, date)
	if err != nil {
		return x, err
	}
	x.ScheduleOf = x.OrdersRevision()
	k, err := d.kitchen(ctx, kitchen)
	if err != nil {
		return x, err
	}
	orders, gone, err := d.ordered(ctx, kitchen, x.Orders)
	if err != nil {
		return x, err
	}
	now := d.minuteOf(date)
	before := x.Schedule
	if now == 0 { // another day: nothing of it has begun
		before = nil
	}
	q, unlaid := day.BuildRequest(k, x.Orders, orders, now, before, x.Baking)
	plan, err := d.planOf(ctx, x, q, how)
	if err != nil {
		return x, err
	}
	x.Schedule = day.NewSchedule(x.Orders, orders, q, append(unlaid, gone...), *plan, x.Schedule)
	x.Schedule.Baking, x.Schedule.Question = x.Baking, day.Question(q, x.Orders)
	stored, err := d.Store.SetPlan(context.WithoutCancel(ctx), kitchen, x)
	if err != nil {
		return x, err
	}
	stored.Baking = x.Baking
	d.Notify(kitchen)
	return stored, nil
}

// usualLimitMS is for how long a day is planned at most where nobody said: the search ends by itself long before on a
// machine that is not busy, so that the same day gives the same plan.
const usualLimitMS = 10000

// planOf is the plan of a day: the one that stands where nothing has changed, else one that keeps what it can of it.
func (d Days) planOf(ctx context.Context, x Day, q day.Request, how SchedulingJob) (*day.Answer, error) {
	q.TimeLimitMS, q.Iterations = how.TimeLimitMS, how.Iterations
	if q.TimeLimitMS == 0 {
		q.TimeLimitMS = usualLimitMS
	}
	if x.Schedule != nil && !how.Afresh {
		if x.Schedule.Answers(q, x.Orders) {
			return &x.Schedule.Plan, nil
		}
		q.Standing = x.Schedule.Plan.Schedule
	}
	return day.Plan(ctx, q, time.Now, how.Progress)
}

// baking is what went into an oven on a day, of the cards that are wanted on it.
func (d Days) baking(ctx context.Context, kitchen uuid.UUID, x Day) ([]day.Baking, error) {
	now := d.Clock()
	if !onDate(now, x.Date) {
		return nil, nil
	}
	all, err := d.Ovens.Watched(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	wanted := map[string]bool{}
	for _, o := range x.Orders.Orders {
		wanted[o.Card] = true
	}
	var out []day.Baking
	minute := func(t time.Time) int { return t.Hour()*60 + t.Minute() }
	for _, w := range all {
		if w.Unusable != nil || w.CardID == nil || !wanted[w.CardID.String()] {
			continue
		}
		from, to := w.StartedAt.In(now.Location()), w.Out(now).In(now.Location())
		if !onDate(from, x.Date) || !onDate(to, x.Date) {
			continue
		}
		b := day.Baking{
			ID: w.ID.String(), Card: w.CardID.String(), From: minute(from), To: max(minute(from)+1, minute(to)),
		}
		if w.OvenID != nil {
			b.Oven = w.OvenID.String()
		}
		out = append(out, b)
	}
	return out, nil
}

func onDate(t, date time.Time) bool { return t.Format(time.DateOnly) == date.Format(time.DateOnly) }

// minuteOf is now, in minutes of a date's day; of another day it is its midnight.
func (d Days) minuteOf(date time.Time) int {
	now := d.Clock()
	if !onDate(now, date) {
		return 0
	}
	return now.Hour()*60 + now.Minute()
}

// hands are factors on the minutes of hands, by what the last days have reported.
func (d Days) hands(ctx context.Context, kitchen uuid.UUID) (map[string]float64, error) {
	preferences, err := d.Learning.LearningPreferences(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	all, err := WorkTimes(ctx, d.Store, kitchen, d.Clock())
	if err != nil {
		return nil, err
	}
	out := map[string]float64{}
	for _, h := range all {
		if h.Used && !preferences.IsOff(learn.WorkTime, h.Kind) {
			out[h.Kind] = h.Factor
		}
	}
	return out, nil
}

// handsDays is how far back the days are looked at.
const handsDays = 120

// WorkTimes is what a kitchen's last days teach of the minutes of hands.
func WorkTimes(ctx context.Context, days interface {
	Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]Day, error)
}, kitchen uuid.UUID, now time.Time,
) ([]learn.WorkTimeEstimate, error) {
	past, err := days.Days(ctx, kitchen, now.AddDate(0, 0, -handsDays), now)
	if err != nil {
		return nil, err
	}
	var reported []day.ActualTime
	for _, x := range past {
		if x.Schedule != nil {
			reported = append(reported, x.Schedule.ActualTimes...)
		}
	}
	return learn.EstimateWorkTimes(reported), nil
}

// kitchen is what a day is planned in.
func (d Days) kitchen(ctx context.Context, kitchen uuid.UUID) (day.Kitchen, error) {
	h, err := d.Resources(ctx, kitchen)
	if err != nil {
		return day.Kitchen{}, err
	}
	out := day.Kitchen{Resources: h.Resources}
	ovens, err := d.Equipment.Ovens(ctx, kitchen)
	if err != nil {
		return out, err
	}
	for _, o := range ovens {
		out.Ovens = append(out.Ovens, day.KitchenOven{ID: o.ID.String(), Name: o.Name})
	}
	if out.WorkFactors, err = d.hands(ctx, kitchen); err != nil {
		return out, err
	}
	dishes, err := d.Equipment.Dishes(ctx, kitchen)
	for _, x := range dishes {
		out.Dishes = append(out.Dishes, shelfDish(x))
	}
	return out, err
}

// ordered are the orders with their desserts, each card worked out once; and those whose card is gone.
func (d Days) ordered(
	ctx context.Context, kitchen uuid.UUID, a day.Orders,
) (orders []day.PlannedOrder, gone []day.Unscheduled, err error) {
	k, err := d.Equipment.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, nil, err
	}
	ovens, err := d.Equipment.Ovens(ctx, kitchen)
	if err != nil {
		return nil, nil, err
	}
	used, err := d.Equipment.Learnt(ctx, kitchen)
	if err != nil {
		return nil, nil, err
	}
	cards := map[string]*day.PlannedOrder{}
	work, ctx := errgroup.WithContext(ctx)
	work.SetLimit(runtime.GOMAXPROCS(0))
	for _, o := range a.Orders {
		if cards[o.Card] != nil {
			continue
		}
		id, _ := uuid.Parse(o.Card) // it was one when it was kept
		card, err := d.Cards.Card(ctx, kitchen, id)
		if errors.Is(err, ErrNotFound) || errors.Is(err, ErrUnusable) {
			continue
		}
		if err != nil {
			return nil, nil, err
		}
		x := &day.PlannedOrder{}
		cards[o.Card] = x
		work.Go(func() error { return d.Baked.work(ctx, k, used, ovens, card.Versions[0], x) })
	}
	if err := work.Wait(); err != nil {
		return nil, nil, err
	}
	for _, o := range a.Orders {
		x := cards[o.Card]
		if x == nil || x.Answer == nil {
			gone = append(gone, day.Unscheduled{Order: o.ID, Reason: message.New("The card was deleted or can’t be used.")})
			continue
		}
		one := *x
		one.Order = o
		orders = append(orders, one)
	}
	return orders, gone, nil
}

// work bakes a card's dessert as the card has it, and at other temperatures in each oven.
func (b *BakedCards) work(
	ctx context.Context, k Kitchen, used learn.Used, ovens []KitchenOven, v Version, out *day.PlannedOrder,
) error {
	var own *KitchenOven
	for i := range ovens {
		if v.OvenID != nil && ovens[i].ID == *v.OvenID {
			own, out.Oven = &ovens[i], ovens[i].ID.String()
		}
	}
	out.Dessert = bake.DessertRequest{
		Request: v.Request, Setting: LearntSettingIn(k.AltitudeM, own, v.Setting, Weather{}, used),
	}
	key, err := json.Marshal(out.Dessert)
	if err != nil {
		return err
	}
	a, known := b.answers.Get(string(key))
	if !known {
		if a, err = bake.Dessert(ctx, out.Dessert); err != nil {
			if ctx.Err() != nil {
				return err
			}
			return nil // what can't be baked is reported with its order
		}
		b.answers.Add(string(key), a)
	}
	out.Answer = a
	if out.Cooling, err = b.cooling(string(key), a); err != nil {
		return err
	}
	if err := b.before(ctx, out); err != nil {
		return err
	}
	steamed := out.Dessert.Request
	steamed.SteamedOffG = &a.Balance.Ledger.SteamedOffG
	for i := range ovens {
		if ovens[i].Kind == oven.Camp {
			continue
		}
		v.Stages, v.OvenC, v.Minutes = nil, nil, nil
		ways, err := b.waysIn(ctx, ovens[i], bake.DessertRequest{
			Request: steamed, Setting: LearntSettingIn(k.AltitudeM, &ovens[i], v.Setting, Weather{}, used),
		})
		if err != nil {
			return err
		}
		out.Options = append(out.Options, ways...)
	}
	return nil
}

// cooling is how a card's dessert cools after its bake.
func (b *BakedCards) cooling(key string, a *bake.DessertAnswer) (*bake.Cooling, error) {
	if c, known := b.cools.Get(key); known {
		return c, nil
	}
	c, err := bake.CoolingOf(a.Bake, a.Plan.Stages)
	if err == nil {
		b.cools.Add(key, &c)
	}
	return &c, err
}

// before is how a dessert goes that was made before its day: from the freezer, at its own temperature, or warmed again.
func (b *BakedCards) before(ctx context.Context, out *day.PlannedOrder) error {
	minutes, warm, err := bake.Rewarm(out.Answer.Bake)
	if err == nil && warm && out.Dessert.Request.Custard == nil {
		out.Rewarm = minutes
	}
	if !day.Freezes(out.Dessert.Request) {
		return nil
	}
	q := out.Dessert
	cold := bake.FreezerC
	q.Setting.FillingC, q.Setting.DishC, q.Setting.Stages = &cold, nil, nil
	q.Request.SteamedOffG = &out.Answer.Balance.Ledger.SteamedOffG
	raw, err := json.Marshal(q)
	if err != nil {
		return err
	}
	key := "frozen" + string(raw)
	ways, known := b.ways.Get(key)
	if !known {
		p, err := bake.PlanOf(q)
		if err != nil {
			return nil //nolint:nilerr // what can't be baked so is not offered
		}
		stages, right, err := p.AtOven(ctx, out.Answer.Plan.OvenC)
		if err != nil {
			return err
		}
		if right {
			ways = []day.OvenOption{{Stages: stages}}
		}
		b.ways.Add(key, ways)
	}
	if len(ways) > 0 {
		out.Frozen = ways[0].Stages
	}
	return nil
}

func (b *BakedCards) waysIn(ctx context.Context, in KitchenOven, q bake.DessertRequest) ([]day.OvenOption, error) {
	raw, err := json.Marshal(q)
	if err != nil {
		return nil, err
	}
	key := in.ID.String() + string(raw)
	if ways, known := b.ways.Get(key); known {
		return ways, nil
	}
	p, err := bake.PlanOf(q)
	if err != nil {
		return nil, nil //nolint:nilerr // what can't be baked is reported with its order
	}
	ways := []day.OvenOption{}
	for _, c := range day.TrialTemperatures() {
		stages, right, err := p.AtOven(ctx, c)
		if err != nil {
			return nil, err
		}
		if right {
			ways = append(ways, day.OvenOption{Oven: in.ID.String(), OvenC: c, Stages: stages})
		}
	}
	b.ways.Add(key, ways)
	return ways, nil
}
