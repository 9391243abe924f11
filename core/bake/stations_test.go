package bake

import (
	"strings"
	"testing"

	"mabbin/core/balance"
)

// stationsOf is what the stations of the gooseberry crumble say, with something changed.
func stationsOf(t *testing.T, change func(*DessertRequest)) *DessertAnswer {
	t.Helper()
	q := DessertRequest{Request: gooseberries()}
	change(&q)
	a, err := Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func TestEachStationHasALine(t *testing.T) {
	a := stationsOf(t, func(q *DessertRequest) { q.Request.Finishes = []string{"egg_wash", "coarse_sugar"} })
	for name, is := range map[string][2]string{
		"dish":    {a.Stations.Dish.String(), "24 × 18 cm, 5 deep, stoneware or porcelain, 2.2 l"},
		"finish":  {a.Stations.Finish.String(), "egg wash, coarse sugar"},
		"topping": {a.Stations.Topping.String(), "rubbed-in crumble, 2 : 1 : 1"},
		"bake":    {a.Stations.Bake.String(), "proposed: "},
		"stages":  {a.Stations.Stages.String(), " min at "},
	} {
		if !strings.Contains(is[0], is[1]) {
			t.Errorf("%s: %q, without %q", name, is[0], is[1])
		}
	}
	if !strings.HasPrefix(a.Stations.Juice.String(), a.Balance.Set.Band.Label().String()) {
		t.Error(a.Stations.Juice)
	}
}

func TestTheOvenIsNamedWhereTheStagesWereEntered(t *testing.T) {
	a := stationsOf(t, func(q *DessertRequest) {
		q.Setting.OvenName = "Old range"
		q.Setting.Stages = []Stage{{Minutes: 20, OvenC: 200}, {Minutes: 25, OvenC: 180, Cover: "foil"}}
	})
	if text := a.Stations.Bake.String(); text != "180 C, 45 min, Old range" {
		t.Error(text)
	}
	if text := a.Stations.Stages.String(); text != "20 min at 200 C. Then 25 min at 180 C, under foil." {
		t.Error(text)
	}
}

func TestEnteredStagesAreShownWithTheProposal(t *testing.T) {
	c, minutes := 200.0, 45.0
	for want, set := range map[string]Setting{"200 C; proposed: ": {EnteredC: &c}, "45 min; proposed: ": {EnteredMin: &minutes}} {
		a := stationsOf(t, func(q *DessertRequest) { q.Setting = set })
		if text := a.Stations.Bake.String(); !strings.HasPrefix(text, want) {
			t.Errorf("%s, not %s", text, want)
		}
	}
}

func TestEggsSetWhatACustardIsPouredOver(t *testing.T) {
	a := stationsOf(t, func(q *DessertRequest) {
		q.Request.Style = "bar"
		q.Request.Base = &balance.BaseInput{Key: "shortbread"}
		q.Request.Custard = &balance.CustardInput{}
	})
	if text := a.Stations.Juice.String(); !strings.HasSuffix(text, ", set by the custard's egg and flour") {
		t.Error(text)
	}
	if text := a.Stations.Topping.String(); !strings.Contains(text, "; base ") {
		t.Error(text)
	}
}
