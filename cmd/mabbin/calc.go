package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/oven"
	"mabbin/core/recipe"
)

// errBadRequest is the exit status of a run in which a request got a problem for an answer.
var errBadRequest = errors.New("a request could not be used")

// maxInput is the most that is read from standard input.
const maxInput = 64 << 20

// calculations are what calc can do: each answers one request.
var calculations = map[string]func(request []byte) (any, error){
	"balance": func(request []byte) (any, error) {
		r, err := api.Decode("BalanceRequest", request, balance.Check)
		if err != nil {
			return nil, err
		}
		return balance.Solve(r)
	},
	"bake": func(request []byte) (any, error) {
		r, err := api.Decode("BakeRequest", request, bake.Check)
		if err != nil {
			return nil, err
		}
		return bake.Run(r)
	},
	"bake-plan": func(request []byte) (any, error) {
		q, err := api.Decode("PlanRequest", request, bake.CheckDessert)
		if err != nil {
			return nil, err
		}
		return bake.Dessert(q)
	},
	"oven": func(request []byte) (any, error) {
		t, err := api.Decode("OvenTrial", request, func(oven.Trial) error { return nil })
		if err != nil {
			return nil, err
		}
		return oven.Measure(t)
	},
	"measure": func(request []byte) (any, error) {
		q, err := api.Decode("MeasureRequest", request, recipe.CheckMeasure)
		if err != nil {
			return nil, err
		}
		return recipe.Measure(q, larder.Pantry(q.Own))
	},
}

// calc reads one request, or a list, and writes the answer, or the list of answers.
func calc(args []string, in io.Reader, out io.Writer) error {
	if len(args) != 1 || calculations[args[0]] == nil {
		return fmt.Errorf("calc needs the name of a calculation: mabbin calc %s", strings.Join(slices.Sorted(maps.Keys(calculations)), ", "))
	}
	doc, err := io.ReadAll(io.LimitReader(in, maxInput+1))
	if err != nil {
		return err
	}
	if len(doc) > maxInput {
		return fmt.Errorf("standard input is larger than %d MB", maxInput>>20)
	}
	requests, list, err := api.Each(doc)
	if err != nil {
		requests, list = []json.RawMessage{doc}, false // its problem says what is wrong with it
	}
	answers, bad := make([]any, len(requests)), false
	for i, r := range requests {
		answer, err := calculations[args[0]](r)
		if err != nil {
			p, ok := api.ProblemOf(err)
			if !ok {
				return err
			}
			answer, bad = p, true
		}
		answers[i] = answer
	}
	enc := json.NewEncoder(out)
	enc.SetIndent("", "  ")
	if list {
		err = enc.Encode(answers)
	} else {
		err = enc.Encode(answers[0])
	}
	if err == nil && bad {
		return errBadRequest
	}
	return err
}
