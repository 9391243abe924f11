package httpapi

import (
	"bytes"
	"encoding/json"
	"errors"
	"io"
	"net/http"

	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers/gorillamux"
	"github.com/gin-gonic/gin"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/recipe"
	"mabbin/core/say"
	"mabbin/server/formats"
)

// validate checks each request against the API description and, where there is a dessert or a dish in it, with the
// core, so that one answer names every wrong field.
func validate() (gin.HandlerFunc, error) {
	spec, err := api.GetSpec()
	if err != nil {
		return nil, err
	}
	spec.Servers = nil // else the Host header would have to match, too
	router, err := gorillamux.NewRouter(spec)
	if err != nil {
		return nil, err
	}
	opts := &openapi3filter.Options{MultiError: true, AuthenticationFunc: openapi3filter.NoopAuthenticationFunc}
	return func(c *gin.Context) {
		route, params, err := router.FindRoute(c.Request)
		if err != nil {
			c.Next() // gin has its own 404 and 405
			return
		}
		if b := route.Operation.RequestBody; b != nil && b.Value.Content.Get("application/json") == nil { // a file: whoever reads it judges it
			files := *opts
			files.ExcludeRequestBody = true
			err = openapi3filter.ValidateRequest(c, &openapi3filter.RequestValidationInput{Request: c.Request, PathParams: params, Route: route, Options: &files})
			if err != nil {
				answerError(c, api.Flatten("", err))
			}
			return
		}
		body, err := io.ReadAll(c.Request.Body)
		if err != nil {
			answerError(c, err)
			return
		}
		c.Request.Body = io.NopCloser(bytes.NewReader(body))
		err = openapi3filter.ValidateRequest(c, &openapi3filter.RequestValidationInput{Request: c.Request, PathParams: params, Route: route, Options: opts})
		c.Request.Body = io.NopCloser(bytes.NewReader(body))
		var found fault.Faults
		if err != nil {
			var parse *openapi3filter.ParseError
			if errors.As(err, &parse) && parse.Kind == openapi3filter.KindInvalidFormat && !json.Valid(body) && c.Request.Method == http.MethodPost {
				answerError(c, fault.Faults{{Detail: say.F("is not JSON: {why}", say.Text(parse.Reason))}})
				return
			}
			found = api.Flatten("", err)
		}
		if err := besides(route.Operation.OperationID, found, body); err != nil {
			answerError(c, err)
		}
	}, nil
}

// bodies are the operations, by their generated names, whose bodies hold a dessert or a dish, and the core's check of each.
var bodies = map[string]func(found fault.Faults, body []byte) error{
	"Balance": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(balance.Request), balance.Check)
	},
	"SimulateBake": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(bake.Request), bake.Check)
	},
	"BakeSchools": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(bake.DessertRequest), bake.CheckDessert)
	},
	"SwapIngredient": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(diet.SwapRequest), diet.CheckSwap)
	},
	"StartWatch": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(bake.DessertRequest), bake.CheckDessert)
	},
	"PlanBake": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(bake.DessertRequest), bake.CheckDessert)
	},
	"Schools": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(balance.Request), balance.Check)
	},
	"Start": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(balance.StartRequest), balance.CheckStart)
	},
	"OtherDish": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(balance.OtherRequest), balance.CheckOther)
	},
	"ProposeDiet": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(diet.Request), diet.Check)
	},
	"FruitTest": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(filling.Test), filling.Test.Check)
	},
	"Measure": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(recipe.MeasureRequest), recipe.CheckMeasure)
	},
	"JudgeRecipe": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(recipe.Request), recipe.Check)
	},
	"ExportCard":  cardIn,
	"PrintTicket": cardIn,
	"ChangeDish": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(api.DishChange), func(d api.DishChange) error {
			var f fault.Faults
			balance.CheckDish(d.Dish, "/dish", &f)
			return f.Err()
		})
	},
	"AddCard":    dessertIn,
	"AddVersion": dessertIn,
	"AddBake":    dessertIn,
	"AddDish": func(found fault.Faults, body []byte) error {
		return api.Beside(found, body, new(api.NewDish), func(d api.NewDish) error {
			var f fault.Faults
			balance.CheckDish(d.Dish, "/dish", &f)
			return f.Err()
		})
	},
}

func cardIn(found fault.Faults, body []byte) error {
	type asked struct{ Card formats.Card }
	return api.Beside(found, body, new(asked), func(a asked) error { return fault.Under("/card/request", balance.Check(a.Card.Request)) })
}

func dessertIn(found fault.Faults, body []byte) error {
	type saved struct{ Request balance.Request }
	return api.Beside(found, body, new(saved), func(s saved) error { return fault.Under("/request", balance.Check(s.Request)) })
}

func besides(operation string, found fault.Faults, body []byte) error {
	if check, ok := bodies[operation]; ok {
		return check(found, body)
	}
	return found.Err()
}
