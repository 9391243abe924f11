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
	should, err := written(is)
	if err != nil {
		t.Fatal(err)
	}
	if should != is {
		t.Error("api/openapi.yaml is not what the rules make of it: run make generate")
	}
	for name := range choice.Lists {
		// fats are keys of the tables, and juice is told in the words of its bands
		if name != "topping_fat" && name != "juice_told" && !strings.Contains(is, "# choices: "+name+"\n") {
			t.Errorf("the choices %q are nowhere in the contract", name)
		}
	}
}

func TestEnumerationsAreWrittenFromTheChoices(t *testing.T) {
	for contract, want := range map[string]string{
		`cup: {type: string, enum: [mug], description: "x"} # choices: cup`: `cup: {type: string, enum: [us, metric, imperial], description: "x"} # choices: cup`,
		`cup: {enum: ["", us]} # choices: cup`:                              `cup: {enum: ["", us, metric, imperial]} # choices: cup`,
		`      enum: [] # choices: dial`:                                    `      enum: ["", c, f, gas] # choices: dial`,
		`      enum: [a] # choices: wind`:                                   `      enum: [calm, breeze, windy] # choices: wind`,
		`cup: {enum: [us]}`:                                                 `cup: {enum: [us]}`,
	} {
		got, err := withChoices("a: b\n" + contract + "\nc: d")
		if err != nil || got != "a: b\n"+want+"\nc: d" {
			t.Errorf("%s becomes %s, %v; want %s", contract, got, err, want)
		}
	}
	for _, contract := range []string{
		`cup: {enum: [us]} # choices: mug`, `cup: {type: string} # choices: cup`,
	} {
		if got, err := withChoices(contract); err == nil {
			t.Errorf("%s becomes %s, and is no error", contract, got)
		}
	}
}

// Every choice can be told from the others, and is told in words.
func TestEveryChoiceIsTold(t *testing.T) {
	for name, list := range choice.Lists {
		seen, said := map[string]bool{}, map[string]bool{}
		for _, c := range list {
			if seen[c.Value] || c.Says.IsZero() || said[c.Says.String()] {
				t.Errorf("%s: %q, %q is there twice, or has no words", name, c.Value, c.Says)
			}
			seen[c.Value], said[c.Says.String()] = true, true
		}
	}
}
