package main

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"mabbin/api"

	"github.com/getkin/kin-openapi/openapi3"
)

// checkedByRules are the requests of which the rules alone check the bounds: no schema is asked where they come in.
var checkedByRules = []string{
	"BalanceRequest",
	"BakeRequest",
	"PlanRequest",
	"StartRequest",
	"OtherRequest",
	"PairingsRequest",
	"DietRequest",
	"CostRequest",
	"ShoppingRequest",
	"LabelRequest",
	"FruitTestRequest",
}

// everySample hands over the samples of those requests, with their schemas.
func everySample(t *testing.T, look func(name string, schema *openapi3.Schema, s sample)) {
	t.Helper()
	doc, err := api.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range checkedByRules {
		for _, s := range samples[name] {
			look(name, doc.Components.Schemas[name].Value, s)
		}
	}
}

// What is left to the rules, the rules refuse: every bound of the contract, broken by itself.
func TestTheRulesAreNoLaxerThanTheContract(t *testing.T) {
	everySample(t, func(name string, schema *openapi3.Schema, s sample) {
		n := 0
		broken(schema, nil, func(at []string, value any) {
			changed, there := s.with(at, value)
			if !there {
				return
			}
			n++
			if s.check(changed) == nil {
				t.Errorf("%s: %s = %.60s is taken", name, strings.Join(at, "/"), fmt.Sprint(value))
			}
		})
		if n < 6 {
			t.Errorf("%s: only %d bounds were tried", name, n)
		}
	})
}

// The words that a field may have are the same in the contract and in the rules: none is promised that is refused.
func TestTheRulesTakeEveryWordOfTheContract(t *testing.T) {
	everySample(t, func(name string, schema *openapi3.Schema, s sample) {
		worded(schema, nil, func(at []string, word any) {
			if f, _ := s.faultAt(at, word); f != nil {
				t.Errorf("%s: %s = %q is of the contract, and it %s", name, strings.Join(at, "/"), word, f.Detail)
			}
		})
	})
}

// A number of the contract that a rule checks is that of the rule, whatever stood there; what no rule checks stays.
func TestBoundsAreWrittenFromTheRules(t *testing.T) {
	contract := func(fruit, altitude, heat string) string {
		return strings.Join([]string{
			"components:",
			"  schemas:",
			"    Fruit: {type: object, properties: {share: {type: number, " + fruit + "}}}",
			"    BalanceRequest:",
			"      properties:",
			"        fruits: {type: array, items: {$ref: '#/components/schemas/Fruit'}}",
			"    BakeRequest:",
			"      properties:",
			"        altitude_m: {" + altitude + "}",
			"        heat_factor: {" + heat + ", description: \"Left out: 1\"}",
			"        moon: {minimum: 1, maximum: 2}",
		}, "\n")
	}
	some := map[string][]sample{"BalanceRequest": samples["BalanceRequest"], "BakeRequest": samples["BakeRequest"]}
	got, err := withBounds(contract("minimum: 5, maximum: 6", "minimum: 1, maximum: 2", "minimum: 7, maximum: 8"), some)
	want := contract("minimum: 0, maximum: 1000", "minimum: -430, maximum: 6000", "minimum: 0, maximum: 3")
	if err != nil || got != want {
		t.Errorf("it becomes %s, %v; want %s", got, err, want)
	}
}

// worded hands over each field of a schema with each word that it may have.
func worded(s *openapi3.Schema, at []string, put func([]string, any)) {
	if len(at) > 6 {
		return
	}
	for _, word := range s.Enum {
		put(at, word)
	}
	if s.Items != nil {
		worded(s.Items.Value, append(slices.Clone(at), "0"), put)
	}
	for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
		worded(s.Properties[name].Value, append(slices.Clone(at), name), put)
	}
}

// broken hands over each field of a schema with a value that breaks one of its bounds.
func broken(s *openapi3.Schema, at []string, put func([]string, any)) {
	if len(at) > 6 {
		return
	}
	if s.Min != nil {
		put(at, *s.Min-1)
	}
	if s.Max != nil {
		put(at, *s.Max+1)
	}
	if len(s.Enum) > 0 {
		put(at, "no such word")
	}
	if s.MaxItems != nil && s.Items != nil {
		put(at, slices.Repeat([]any{map[string]any{}}, int(*s.MaxItems)+1))
	}
	if s.Items != nil {
		broken(s.Items.Value, append(slices.Clone(at), "0"), put)
	}
	for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
		broken(s.Properties[name].Value, append(slices.Clone(at), name), put)
	}
}
