package learn

import (
	"context"
	"math"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// evidenceOf is what the model gives with one thing changed, in addition to what was reported.
func evidenceOf(c Outcome, a *bake.DessertAnswer) message.Message {
	e := a.Expected()
	var comes []message.Message
	word := func(told, as, expected string) {
		if told == "" || expected == "" {
			return
		}
		is := message.New(as, message.Word(expected))
		if told != expected {
			is = message.New("{what} (logged: {word})", message.Part(is), message.Word(told))
		}
		comes = append(comes, is)
	}
	word(c.Juice, "{word}", e.Juice)
	word(c.Fruit, "fruit {word}", e.Fruit)
	word(c.Top, "top {word}", e.Top)
	word(c.Details.Base, "base {word}", e.Base)
	if m := a.Plan.Answer.Events.MiddleBubbles; m != nil && c.Details.MiddleMin != nil {
		comes = append(
			comes,
			message.New(
				"middle bubbling after {minutes} min (logged: {logged})",
				message.Number(*m, 0),
				message.Number(*c.Details.MiddleMin, 0),
			),
		)
	}
	if len(comes) == 0 {
		return message.New("It would lose {steam} as steam.", message.Grams(a.Plan.Answer.End.SteamedOffG))
	}
	return message.New("It would come out {so}.", message.Part(message.Join(", ", comes...)))
}

// next is what to do another time if that is how it is, tried on the model.
func next(ctx context.Context, q bake.DessertRequest, plan *bake.DessertAnswer, t Deviation) message.Message {
	switch {
	case t.OvenC != 0:
		return message.New(
			pick(
				t.OvenC,
				"Calibrate the oven (Kitchen, Ovens); plans then allow for it. Until then set it {degrees} higher.",
				"Calibrate the oven (Kitchen, Ovens); plans then allow for it. Until then set it {degrees} lower.",
			),
			message.CelsiusDifference(math.Abs(t.OvenC)),
		)
	case t.Release != 0:
		q.Request.Own = moreJuice(q, 1+t.Release)
		return dose(ctx, q, plan, message.New("Test the fruit before (Fruit, juiciness test)."))
	case t.Thickener != 0:
		g := plan.Balance.ThickenerG
		if g < 1 {
			return message.New("Weigh the thickener, and scrape it all into the dish.")
		}
		return message.New(
			"Scrape all of it into the dish. If the thickener itself is weak, use {much} instead of {was}.",
			message.Grams(g/(1+t.Thickener)),
			message.Grams(g),
		)
	case t.Colour < 0:
		return message.New("Bake the last minutes uncovered and hotter, or on the high shelf.")
	case t.Colour > 0:
		return message.New("Check earlier, and put foil on as soon as it is golden.")
	}
	return message.New(pick(
		t.Softness,
		"Cut it smaller or cook it first, and test a piece with a skewer before baking.",
		"Cut it larger, or bake it hotter and shorter.",
	))
}

// dose is the thickener for a truth, against the ticket's.
func dose(ctx context.Context, q bake.DessertRequest, plan *bake.DessertAnswer, first message.Message) message.Message {
	if q.Request.Custard != nil || plan.Balance.ThickenerG < 1 {
		return first
	}
	q.Request.WeighFruit(plan.Balance.FruitG)
	q.Setting.Stages = plan.Plan.Stages
	if t := q.Request.Thickener; t != nil {
		solved := *t
		solved.G = nil
		q.Request.Thickener = &solved
	}
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return first
	}
	return message.Sentences(
		first,
		message.New(
			"In that case, use {much} of thickener instead of {was}.",
			message.Grams(a.Balance.ThickenerG),
			message.Grams(plan.Balance.ThickenerG),
		),
	)
}
