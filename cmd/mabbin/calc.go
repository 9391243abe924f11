package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"
	"time"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/oven"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/sell"
	"mabbin/core/units"
	"mabbin/server/formats"
	"mabbin/server/render"
	"mabbin/server/wire"
)

// errBadRequest is the exit status of a run in which a request got a problem for an answer.
var errBadRequest = errors.New("a request can't be used")

// maxInput is the most that is read from standard input.
const maxInput = 64 << 20

// calculation answers one request.
type calculation func(ctx context.Context, request []byte) (any, error)

// calculations are what calc can do, by their names.
var calculations = map[string]calculation{
	"balance": rule(
		"BalanceRequest",
		balance.Check,
		at(balance.Solve),
	),
	"bake": rule(
		"BakeRequest",
		bake.Check,
		at(bake.Run),
	),
	"bake-plan": rule("PlanRequest", bake.CheckDessert, bake.Dessert),
	"oven": rule(
		"OvenTrial",
		nil,
		at(oven.Measure),
	),
	"day-plan": rule("DayRequest", day.Check, func(ctx context.Context, q day.Request) (*day.Answer, error) {
		return day.Plan(ctx, q, time.Now, nil)
	}),
	"cost":     rule("CostRequest", sell.CheckCost, at(sell.CostOf)),
	"shopping": rule("ShoppingRequest", sell.CheckShopping, at(sell.ShoppingList)),
	"label":    rule("LabelRequest", sell.CheckLabel, at(sell.LabelOf)),
	"learn": rule("LearnRequest", learn.CheckLog, func(ctx context.Context, q learn.LogRequest) (*learn.Result, error) {
		return learn.Learn(ctx, q, nil, nil)
	}),
	"read": rule("ReadRequest", nil, at(func(q api.ReadRequest) (*reader.Reading, error) {
		found, err := formats.Find("", q.Text)
		if err != nil {
			return nil, err
		}
		out, err := reader.Read(found.Source, larder.Vocabulary(nil), units.Conventions{})
		return out, fault.Under("/text", err)
	})),
	"measure": rule(
		"MeasureRequest",
		recipe.CheckMeasure,
		func(_ context.Context, q recipe.MeasureRequest) (*recipe.Measured, error) {
			return recipe.Measure(q, larder.Vocabulary(q.Own))
		},
	),
}

// at is a rule that is done at once.
func at[In, Out any](answer func(In) (Out, error)) func(context.Context, In) (Out, error) {
	return func(_ context.Context, in In) (Out, error) { return answer(in) }
}

// rule is a rule of core as a calculation: its request is decoded and checked as the contract has it.
func rule[In, Out any](schema string, check func(In) error, answer func(context.Context, In) (Out, error)) calculation {
	return func(ctx context.Context, request []byte) (any, error) {
		s, err := wire.Schema(schema)
		if err != nil {
			return nil, err
		}
		in, err := wire.Decode(s, request, check)
		if err != nil {
			return nil, err
		}
		return answer(ctx, in)
	}
}

// calc reads one request, or a list, and writes the answer, or the list of answers, in the words and units that the
// flags ask for.
func calc(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	var read render.Reading
	flags := flag.NewFlagSet("calc", flag.ContinueOnError)
	flags.StringVar((*string)(&read.English), "english", "", "uk or us")
	flags.StringVar(&read.Weights, "weights", "", "g or oz")
	flags.StringVar(&read.Heat, "heat", "", "c, f, gas or fan")
	flags.StringVar(&read.Lengths, "lengths", "", "cm or in")
	flags.StringVar((*string)(&read.Decimal), "decimal", "", "point or comma")
	if err := flags.Parse(args); err != nil {
		return err
	}
	if flags.NArg() != 1 || calculations[flags.Arg(0)] == nil {
		return fmt.Errorf(
			"calc needs the name of a calculation: mabbin calc %s",
			strings.Join(slices.Sorted(maps.Keys(calculations)), ", "),
		)
	}
	calculate := calculations[flags.Arg(0)]
	doc, err := io.ReadAll(io.LimitReader(in, maxInput+1))
	if err != nil {
		return err
	}
	if len(doc) > maxInput {
		return fmt.Errorf("standard input is larger than %d MB", maxInput>>20)
	}
	requests, list, err := wire.Each(doc)
	if err != nil {
		requests, list = []json.RawMessage{doc}, false // its problem says what is wrong with it
	}
	answers, bad := make([]any, len(requests)), false
	for i, r := range requests {
		answer, err := calculate(ctx, r)
		if err != nil {
			p, ok := wire.ProblemOf(err, read)
			if !ok {
				return err
			}
			answer, bad = p, true
		}
		answers[i] = answer
	}
	var answer any = answers
	if !list {
		answer = answers[0]
	}
	raw, err := wire.Encode(answer, read)
	if err != nil {
		return err
	}
	var pretty bytes.Buffer
	if err := json.Indent(&pretty, raw, "", "  "); err != nil {
		return err
	}
	_, err = fmt.Fprintln(out, pretty.String())
	if err == nil && bad {
		return errBadRequest
	}
	return err
}
