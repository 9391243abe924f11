package main

import (
	"os"
	"strings"
	"testing"

	"mabbin/core/choice"
)

// What may be chosen, and how much a number may be, is written down in the rules alone: the contract has it from there.
func TestTheContractIsOfTheRules(t *testing.T) {
	raw, err := os.ReadFile("../openapi.yaml")
	if err != nil {
		t.Fatal(err)
	}
	is := string(raw)
	should, err := written(is, root)
	if err != nil {
		t.Fatal(err)
	}
	if should != is {
		t.Error("api/openapi.yaml is not what the rules make of it: run make generate")
	}
	// Of the enumerations that bear no name two are asked of the rules, and the state of a long work is the contract's.
	for i, line := range strings.Split(is, "\n") {
		if strings.Contains(line, "enum: [") && !named(line) && !strings.Contains(line, "[unknown, running, done, failed]") &&
			!strings.Contains(line, `heating: {type: string, enum: ["", conventional, fan, bottom, rack`) &&
			!strings.Contains(line, `state: {type: string, enum: ["", peeled, unpeeled, frozen]`) {
			t.Errorf(
				"line %d: the words stand in the contract, and not in the rules: name their choices or constants: %s",
				i+1,
				line,
			)
		}
	}
	for name := range choice.Lists {
		// fats are keys of the tables, and juice is reported in the words of its bands
		if name != "topping_fat" && name != "juice_told" && !strings.Contains(is, "# choices: "+name+"\n") {
			t.Errorf("the choices %q are nowhere in the contract", name)
		}
	}
}

const root = "../.."

func TestEnumerationsAreWrittenFromWhatTheyName(t *testing.T) {
	for contract, want := range map[string]string{
		`cup: {type: string, enum: [mug], description: "x"} # choices: cup`: `cup: {type: string, enum: [us, metric, imperial], description: "x"} # choices: cup`,
		`cup: {enum: ["", us]} # choices: cup`:                              `cup: {enum: ["", us, metric, imperial]} # choices: cup`,
		`      enum: [] # choices: dial`:                                    `      enum: ["", c, f, gas] # choices: dial`,
		`      enum: [a] # choices: wind`:                                   `      enum: [calm, breeze, windy] # choices: wind`,
		`cup: {enum: [us]}`:                                                 `cup: {enum: [us]}`,
		`state: {enum: [a, b]} # constants: core/outcome.State`:             `state: {enum: [right, wrong, untold]} # constants: core/outcome.State`,
		`a: {enum: [a]} # constants: core/outcome.State but wrong`:          `a: {enum: [right, untold]} # constants: core/outcome.State but wrong`,
		`place: {enum: ["", b]} # constants: core/watch.Place`:              `place: {enum: ["", middle, air]} # constants: core/watch.Place`,
	} {
		got, err := withValues("a: b\n"+contract+"\nc: d", root)
		if err != nil || got != "a: b\n"+want+"\nc: d" {
			t.Errorf("%s becomes %s, %v; want %s", contract, got, err, want)
		}
	}
	for _, contract := range []string{
		`cup: {enum: [us]} # choices: mug`, `cup: {type: string} # choices: cup`,
		`state: {enum: [a]} # constants: core/watch.Mood`, `state: {type: string} # constants: core/watch.State`,
		`state: {enum: [a]} # constants: State`,
	} {
		if got, err := withValues(contract, root); err == nil {
			t.Errorf("%s becomes %s, and is no error", contract, got)
		}
	}
}

// Every choice can be reported from the others, and is reported in words.
func TestEveryChoiceHasALabel(t *testing.T) {
	for name, list := range choice.Lists {
		seen, text := map[string]bool{}, map[string]bool{}
		for _, c := range list {
			if seen[c.Value] || c.Label.IsZero() || text[c.Label.String()] {
				t.Errorf("%s: %q, %q is there twice, or has no words", name, c.Value, c.Label)
			}
			seen[c.Value], text[c.Label.String()] = true, true
		}
	}
}
