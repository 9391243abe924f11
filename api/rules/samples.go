package main

import (
	"encoding/json"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/diet"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/outcome"
	"mabbin/core/oven"
	"mabbin/core/recipe"
	"mabbin/core/sell"
	"mabbin/core/units"
)

// sample is a request with its parts, and the rule that checks it.
type sample struct {
	base  string
	check func([]byte) error
}

// The parts of the samples.
const (
	dish  = `{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"}`
	plain = `{"dish":` + dish + `,"style":"crumble","topping":{"key":"crumble_classic"},"thickener":{"key":"cornflour"},
		"fruits":[{"key":"gooseberry","share":1}]}`
	rich = `{"dish":` + dish + `,"style":"cobbler","topping":{"key":"biscuit_drop",
		"bakers_pct":{"butter":40},"liquids":[{"key":"whole_milk","share":1}]},"fruits":[{"key":"gooseberry","share":1}],
		"thickener":{"key":"cornflour","with":[{"key":"arrowroot","g":2}]},"precook":{"minutes":5},"macerate":{"minutes":30},
		"liquids":[{"key":"lemon_juice","g":10}],"extras":[{"key":"cinnamon","g":2}],"cuts":{},
		"late":[{"key":"praline_nut"}]}`
	bar = `{"dish":` + dish + `,"style":"bar","topping":{"key":"streusel_coarse"},
		"fruits":[{"key":"gooseberry","share":1}],"base":{"key":"shortbread","bakers_pct":{"butter":60}},"custard":{}}`
	square = `{"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"},"style":"crumble",
		"topping":{"key":"crumble_classic"},"fruits":[{"key":"gooseberry","share":1}]}`
	stages = `[{"minutes":40,"oven_c":180}]`
)

// samples are those of the contract's requests whose bounds rules of the core check, by their names in the contract.
var samples = map[string][]sample{
	"BalanceRequest": {
		{
			plain,
			checks(balance.Check),
		},
		{square, checks(balance.Check)},
		{rich, checks(balance.Check)},
		{bar, checks(balance.Check)},
	},
	"BakeRequest": {{`{"dish":` + dish + `,"filling":{"mass_g":900},"base":{"thickness_mm":5},"stages":` + stages + `,
		"topping":{"thickness_mm":12,"density_g_ml":0.6,"conductivity_w_mk":0.2,"heat_capacity_j_kgk":2000,"water_pct":10},
		"thickener":{"full_at_c":90,"hold_min":1}}`, checks(bake.Check)}},
	"PlanRequest": {{`{"request":` + plain + `,"setting":{"stages":` + stages + `,"standing":` + stages +
		`,"fire":{"diameter_cm":30},"factors":{}}}`, checks(bake.CheckDessert)}},
	"StartRequest": {{
		`{"fruit_g":900,"style":"crumble","fruits":[{"key":"plum","share":1}],"dishes":[{"id":"a","name":"a","dish":` +
			dish + `}]}`, checks(balance.CheckStart),
	}},
	"OtherRequest": {{
		`{"request":` + plain + `,"dishes":[{"id":"a","name":"a","dish":` + dish + `}]}`, checks(balance.CheckOther),
	}},
	"PairingsRequest":  {{`{"fruits":["plum"],"fruit_g":900}`, checks(balance.CheckPairings)}},
	"DietRequest":      {{`{"request":` + bar + `,"diets":["vegan"]}`, checks(diet.Check)}},
	"FruitTestRequest": {{`{"fruit":"plum","fruit_g":200,"sugar_g":200,"juice_g":120}`, checks(filling.Test.Check)}},
	"MeasureRequest":   {{`{"text":"100 g flour","containers":{"tin":400}}`, checks(recipe.CheckMeasure)}},
	"RecipeRequest": {{
		`{"lines":[],"style":"crumble","dish":` + dish + `,"containers":{"tin":400},"setting":{"stages":` + stages + `}}`,
		checks(recipe.Check),
	}},
	"Oven": {
		{
			`{"kind":"camp","heating":"conventional","offset_c":0,"give_or_take_c":10,"diameter_cm":30}`,
			noted(oven.Oven.Check),
		},
		{`{"kind":"oven","heating":"fan","offset_c":0,"give_or_take_c":10}`, noted(oven.Oven.Check)},
	},
	"DayRequest": {{`{}`, checks(day.Check)}},
	"Stock":      {{`{"labels":{}}`, checks(func(s sell.Stock) error { return sell.CheckStock(s, nil) })}},
	"Settings": {{`{"altitude_m":0}`, noted(func(s units.Settings, at string, f *fault.Faults) {
		f.In(at, "/altitude_m", s.AltitudeM, oven.AltitudeBounds)
	})}},
	"Setting": {{`{}`, noted(bake.Setting.Check)}},
	"CostRequest": {
		{
			`{"lines":[{"key":"butter","g":100}],"prices":{"butter":{"pack_g":250,"minor":200},"egg":{"piece_g":50,"minor":30}},
		"portions":8,"wanted_share_pct":30,
		"oven":{"kw":3,"warm_min":10,"hold_min":50,"duty":0.5,"minor_per_kwh":30,"share":1},
		"hands":{"minutes":10,"minor_per_h":1200}}`,
			checks(sell.CheckCost),
		},
	},
	"ShoppingRequest": {{
		`{"needs":[{"key":"butter","g":100}],"store":[{"key":"butter","g":50}],"packs":{"butter":[{"g":250,"minor":200}]}}`,
		checks(sell.CheckShopping),
	}},
	"LabelRequest": {{
		`{"name":"a","region":"eu","finished_g":900,"parts":[{"name":"a","lines":[{"key":"butter","g":100}]}]}`,
		checks(sell.CheckLabel),
	}},
	"CrowdRequest": {{
		`{"portions":40,"request":` + plain + `,"dishes":[{"id":"a","name":"a","dish":` + dish + `}],
		"tiers":[{"width_cm":40,"depth_cm":40}]}`, checks(sell.CheckCrowd),
	}},
	"OutcomeDetails": {{`{"lots":{"flour":"a"}}`, noted(outcome.Details.Check)}},
}

// checks reads a request, and checks it as the rule does.
func checks[T any](check func(T) error) func([]byte) error {
	return func(raw []byte) error {
		var v T
		d := json.NewDecoder(strings.NewReader(string(raw)))
		d.DisallowUnknownFields()
		if err := d.Decode(&v); err != nil {
			return err
		}
		return check(v)
	}
}

// noted is a rule that notes what it finds.
func noted[T any](note func(v T, at string, f *fault.Faults)) func([]byte) error {
	return checks(func(v T) error {
		var f fault.Faults
		note(v, "", &f)
		return f.Err()
	})
}
