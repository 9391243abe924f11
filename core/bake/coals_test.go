package bake

import (
	"slices"
	"strings"
	"testing"

	"mabbin/core/balance"
	kiln "mabbin/core/oven"
)

// Over coals there is a lid and nothing else: no foil, no fan, no shelf is proposed or asked about.
func TestNoFoilOverCoals(t *testing.T) {
	for name, change := range map[string]func(*balance.Request){
		"usual":  func(*balance.Request) {},
		"deep":   func(r *balance.Request) { r.Dish.DepthCM = 9 },
		"frozen": func(r *balance.Request) { r.Fruits[0].Frozen = true },
		"pan":    func(r *balance.Request) { r.Dish.Material = "cast_iron" },
	} {
		a := dessertOf(t, func(r *balance.Request, s *Setting) {
			change(r)
			s.Fire = &kiln.Fire{DiameterCM: 30}
		})
		for _, s := range a.Plan.Stages {
			if s.Cover != "" && s.Cover != "none" {
				t.Errorf("%s: %s under %s", name, a.Plan.Words(), s.Cover)
			}
		}
		for _, r := range a.Plan.Remedies {
			if indoors[r.Code] {
				t.Errorf("%s: %s is a way out over coals", name, r.Name)
			}
		}
		for _, w := range a.WhatIfs {
			if w.Key == "foil" || w.Key == "fan" {
				t.Errorf("%s: what if %s", name, w.Key)
			}
		}
		if text := stepOf(a, "bake"); strings.Contains(text, "tray") || slices.ContainsFunc(a.Balance.Checks,
			func(d balance.Doing) bool { return d.Code == "tray" }) {
			t.Errorf("%s: a tray over coals: %s", name, text)
		}
		t.Logf("%s: %s", name, a.Plan.Words())
	}
}
