package httpapi

import (
	"context"
	"errors"
	"net/http"
	"time"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/diet"
	"mabbin/core/filling"
	"mabbin/core/learn"
	"mabbin/core/oven"
	"mabbin/core/sell"

	"github.com/gin-gonic/gin"
)

// calculate answers with what a rule makes of a request that the rule itself checks.
func calculate[In, Out any](
	s *server,
	c *gin.Context,
	check func(In) error,
	rule func(context.Context, In) (Out, error),
) {
	in, ok := decodeChecked(s, c, check)
	if !ok {
		return
	}
	out, err := rule(c, in)
	s.respond(c, http.StatusOK, out, err)
}

// quick is a rule that is done before anybody could leave.
func quick[In, Out any](rule func(In) (Out, error)) func(context.Context, In) (Out, error) {
	return func(_ context.Context, in In) (Out, error) { return rule(in) }
}

func (s *server) balance(c *gin.Context)      { calculate(s, c, balance.Check, quick(balance.Solve)) }
func (s *server) simulateBake(c *gin.Context) { calculate(s, c, bake.Check, quick(bake.Run)) }
func (s *server) planBake(c *gin.Context)     { calculate(s, c, bake.CheckDessert, bake.Dessert) }
func (s *server) balanceAlternatives(c *gin.Context) {
	calculate(s, c, balance.Check, quick(balance.Alternatives))
}

func (s *server) pairings(c *gin.Context) {
	calculate(s, c, balance.CheckPairings, quick(balance.Pair))
}

func (s *server) start(c *gin.Context) { calculate(s, c, balance.CheckStart, quick(balance.Start)) }

func (s *server) otherDish(c *gin.Context)   { calculate(s, c, balance.CheckOther, quick(balance.Other)) }
func (s *server) proposeDiet(c *gin.Context) { calculate(s, c, diet.Check, quick(diet.Propose)) }
func (s *server) swapIngredient(c *gin.Context) {
	calculate(s, c, diet.CheckSwap, quick(diet.Swapped))
}

func (s *server) fruitTest(c *gin.Context) {
	calculate(s, c, filling.Test.Check, quick(filling.Test.Release))
}

func (s *server) costOf(c *gin.Context) { calculate(s, c, sell.CheckCost, quick(sell.CostOf)) }
func (s *server) shoppingList(c *gin.Context) {
	calculate(s, c, sell.CheckShopping, quick(sell.ShoppingList))
}
func (s *server) forCrowd(c *gin.Context) { calculate(s, c, sell.CheckCrowd, quick(sell.ForCrowd)) }
func (s *server) labelOf(c *gin.Context)  { calculate(s, c, sell.CheckLabel, quick(sell.LabelOf)) }

// plannedAtOnce is how many days are planned at the same time: each takes two cores for its whole time.
const plannedAtOnce = 2

var errPlanning = errors.New("other days are being planned")

// planDay plans a day. Where others are being planned it says so, and when to ask again.
func (s *server) planDay(c *gin.Context) {
	in, ok := decodeChecked(s, c, day.Check)
	if !ok {
		return
	}
	select {
	case s.planning <- struct{}{}:
		defer func() { <-s.planning }()
	default:
		s.fail(c, errPlanning)
		return
	}
	out, err := day.Plan(c, in, time.Now, nil)
	s.respond(c, http.StatusOK, out, err)
}

// waitToLearn is how long a request waits for a place among the learnings that are under way.
const waitToLearn = 5 * time.Second

// learn answers what a log teaches.
func (s *server) learn(c *gin.Context) {
	in, ok := decodeChecked(s, c, learn.CheckLog)
	if !ok {
		return
	}
	p, err := query[api.LearnParams](c)
	s.atWork(c, p.XWork, err, func(ctx context.Context, tick learn.Tick) {
		free, err := s.learning.Place(ctx, waitToLearn)
		if err != nil {
			s.fail(c, err)
			return
		}
		defer free()
		out, err := learn.Learn(ctx, in, s.Surfaces, tick)
		s.respond(c, http.StatusOK, out, err)
	})
}

func (s *server) measureOven(c *gin.Context) {
	in, ok := decode[oven.Trial](s, c, nil)
	if !ok {
		return
	}
	out, err := oven.Measure(in)
	s.respond(c, http.StatusOK, out, err)
}
