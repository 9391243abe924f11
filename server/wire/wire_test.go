package wire

import (
	"encoding/json"
	"errors"
	"os"
	"reflect"
	"strings"
	"testing"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/server/render"

	"github.com/getkin/kin-openapi/openapi3"
)

const good = `{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"style":"crumble",
	"topping":{"key":"crumble_classic"},"thickener":{"key":"cornflour"},"fruits":[{"key":"gooseberry","share":1}]}`

func balanceSchema(t testing.TB) *openapi3.Schema {
	t.Helper()
	s, err := Schema("BalanceRequest")
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func TestEveryWrongFieldIsNamedAtOnce(t *testing.T) {
	body := `{"dish":{"shape":"star","length_cm":"wide","width_cm":18,"depth_cm":-5,"material":"lead"},"style":"crumble","sugar":3,
		"topping":{},"fruits":[{"key":"goosberry","share":1},{"share":2}],"set_target":40}`
	_, err := Decode(balanceSchema(t), []byte(body), balance.Check)
	var faults fault.Faults
	if !errors.As(err, &faults) {
		t.Fatalf("%v", err)
	}
	got := map[string]string{}
	for _, f := range faults {
		if got[f.Pointer] != "" {
			t.Errorf("%s is named twice: %s; %s", f.Pointer, got[f.Pointer], f.Detail)
		}
		got[f.Pointer] = f.Detail.String()
	}
	for pointer, says := range map[string]string{
		"/dish/shape": "rectangle, square", "/dish/length_cm": "use a number", "/dish/depth_cm": "1 to 20", "/dish/material": `"lead"`,
		"/sugar": "unknown", "/topping/key": "missing", "/fruits/0/key": `"goosberry"`, "/fruits/1/key": "missing", "/set_target": "0 to 10",
	} {
		if !strings.Contains(got[pointer], says) {
			t.Errorf("%s: %q, want %q in it", pointer, got[pointer], says)
		}
	}
	if len(got) != 9 {
		t.Errorf("%d faults, want 9: %v", len(got), got)
	}
}

func TestDecodeTakesAGoodRequest(t *testing.T) {
	r, err := Decode(balanceSchema(t), []byte(good), balance.Check)
	if err != nil || r.Dish.LengthCM != 24 || r.Fruits[0].Key != "gooseberry" {
		t.Errorf("%+v, %v", r, err)
	}
	for _, bad := range []string{"", "{", "[]", "null", "3", good + "x"} {
		if _, err := Decode(balanceSchema(t), []byte(bad), balance.Check); err == nil {
			t.Errorf("%q was taken", bad)
		}
	}
}

// mapped are the contract's types that are the core's own.
var mapped = map[string]reflect.Type{
	"Dish":             reflect.TypeFor[api.Dish](),
	"Asked":            reflect.TypeFor[api.Asked](),
	"FruitAsked":       reflect.TypeFor[api.FruitAsked](),
	"BalanceRequest":   reflect.TypeFor[api.BalanceRequest](),
	"Own":              reflect.TypeFor[api.Own](),
	"OwnRow":           reflect.TypeFor[api.OwnRow](),
	"Alternative":      reflect.TypeFor[api.Alternative](),
	"PairingsRequest":  reflect.TypeFor[api.PairingsRequest](),
	"Pairings":         reflect.TypeFor[api.Pairings](),
	"StartRequest":     reflect.TypeFor[api.StartRequest](),
	"StartAnswer":      reflect.TypeFor[api.StartAnswer](),
	"StartDish":        reflect.TypeFor[api.StartDish](),
	"OtherRequest":     reflect.TypeFor[api.OtherRequest](),
	"OtherAnswer":      reflect.TypeFor[api.OtherAnswer](),
	"DietRequest":      reflect.TypeFor[api.DietRequest](),
	"SwapRequest":      reflect.TypeFor[api.SwapRequest](),
	"Swap":             reflect.TypeFor[api.Swap](),
	"DietProposal":     reflect.TypeFor[api.DietProposal](),
	"FruitTestRequest": reflect.TypeFor[api.FruitTestRequest](),
	"FruitTestAnswer":  reflect.TypeFor[api.FruitTestAnswer](),
	"MeasureRequest":   reflect.TypeFor[api.MeasureRequest](),
	"Measured":         reflect.TypeFor[api.Measured](),
	"RecipeRow":        reflect.TypeFor[api.RecipeRow](),
	"RecipeRequest":    reflect.TypeFor[api.RecipeRequest](),
	"RecipeVersion":    reflect.TypeFor[api.RecipeVersion](),
	"RecipeVerdict":    reflect.TypeFor[api.RecipeVerdict](),
	"ImportedDocument": reflect.TypeFor[api.ImportedDocument](),
	"Original":         reflect.TypeFor[api.Original](),
	"House":            reflect.TypeFor[api.House](),
	"HouseDish":        reflect.TypeFor[api.HouseDish](),
	"DaySold":          reflect.TypeFor[api.DaySold](),
	"UsualDay":         reflect.TypeFor[api.UsualDay](),
	"HouseOven":        reflect.TypeFor[api.HouseOven](),
	"DayAsked":         reflect.TypeFor[api.DayAsked](),
	"DayOrder":         reflect.TypeFor[api.DayOrder](),
	"DayWayTaken":      reflect.TypeFor[api.DayWayTaken](),
	"OrderUnread":      reflect.TypeFor[api.OrderUnread](),
	"DayLaid":          reflect.TypeFor[api.DayLaid](),
	"DayLane":          reflect.TypeFor[api.DayLane](),
	"DayBaking":        reflect.TypeFor[api.DayBaking](),
	"DayBar":           reflect.TypeFor[api.DayBar](),
	"DayHeat":          reflect.TypeFor[api.DayHeat](),
	"DayDone":          reflect.TypeFor[api.DayDone](),
	"DaySheet":         reflect.TypeFor[api.DaySheet](),
	"DayRow":           reflect.TypeFor[api.DayRow](),
	"DayAhead":         reflect.TypeFor[api.DayAhead](),
	"DayUnlaid":        reflect.TypeFor[api.DayUnlaid](),
	"Store":            reflect.TypeFor[api.Store](),
	"InStore":          reflect.TypeFor[api.InStore](),
	"ToBuy":            reflect.TypeFor[api.ToBuy](),
	"ToBuySection":     reflect.TypeFor[api.ToBuySection](),
	"ToBuyLine":        reflect.TypeFor[api.ToBuyLine](),
	"DessertLabel":     reflect.TypeFor[api.DessertLabel](),
	"BakePoint":        reflect.TypeFor[api.BakePoint](),
	"WholeCard":        reflect.TypeFor[api.WholeCard](),
	"ToppingAsked":     reflect.TypeFor[api.ToppingAsked](),
	"BalanceAnswer":    reflect.TypeFor[api.BalanceAnswer](),
	"CuttingPlan":      reflect.TypeFor[api.CuttingPlan](),
	"Doing":            reflect.TypeFor[api.Doing](),
	"Kept":             reflect.TypeFor[api.Kept](),
	"Remark":           reflect.TypeFor[api.Remark](),
	"Cutaway":          reflect.TypeFor[api.Cutaway](),
	"BakeRequest":      reflect.TypeFor[api.BakeRequest](),
	"Stage":            reflect.TypeFor[api.Stage](),
	"BakeAnswer":       reflect.TypeFor[api.BakeAnswer](),
	"BakeCurves":       reflect.TypeFor[api.BakeCurves](),
	"PlanRequest":      reflect.TypeFor[api.PlanRequest](),
	"BakeSetting":      reflect.TypeFor[api.BakeSetting](),
	"WhatIf":           reflect.TypeFor[api.WhatIf](),
	"BakeFigure":       reflect.TypeFor[api.BakeFigure](),
	"BakeWords":        reflect.TypeFor[api.BakeWords](),
	"BakeChange":       reflect.TypeFor[api.BakeChange](),
	"Verdict":          reflect.TypeFor[api.Verdict](),
	"PlanAnswer":       reflect.TypeFor[api.PlanAnswer](),
	"Precook":          reflect.TypeFor[api.Precook](),
	"Macerate":         reflect.TypeFor[api.Macerate](),
	"Went":             reflect.TypeFor[api.Went](),
	"StationLines":     reflect.TypeFor[api.StationLines](),
	"BakePlan":         reflect.TypeFor[api.BakePlan](),
	"RecipeCheck":      reflect.TypeFor[api.RecipeCheck](),
	"BakeAlternative":  reflect.TypeFor[api.BakeAlternative](),
	"BakeEvents":       reflect.TypeFor[api.BakeEvents](),
	"BakeEnd":          reflect.TypeFor[api.BakeEnd](),
	"Afterwards":       reflect.TypeFor[api.Afterwards](),
	"Reading":          reflect.TypeFor[api.Reading](),
	"Estimate":         reflect.TypeFor[api.Estimate](),
	"Rescue":           reflect.TypeFor[api.Rescue](),
	"Settings":         reflect.TypeFor[api.Settings](),
	"Oven":             reflect.TypeFor[api.Oven](),
	"OvenTrial":        reflect.TypeFor[api.OvenTrial](),
	"OvenMeasured":     reflect.TypeFor[api.OvenMeasured](),
	"Fire":             reflect.TypeFor[api.Fire](),
	"Tending":          reflect.TypeFor[api.Tending](),
	"Words":            reflect.TypeFor[api.Words](),
	"Explanation":      reflect.TypeFor[api.Explanation](),
	"Compared":         reflect.TypeFor[api.Compared](),
	"Weighed":          reflect.TypeFor[api.Weighed](),
	"Told":             reflect.TypeFor[api.Told](),
	"Happened":         reflect.TypeFor[api.Happened](),
	"DayRequest":       reflect.TypeFor[api.DayRequest](),
	"DaySpan":          reflect.TypeFor[api.DaySpan](),
	"DayPerson":        reflect.TypeFor[api.DayPerson](),
	"DayMachine":       reflect.TypeFor[api.DayMachine](),
	"DayPlace":         reflect.TypeFor[api.DayPlace](),
	"DayDish":          reflect.TypeFor[api.DayDish](),
	"DayOven":          reflect.TypeFor[api.DayOven](),
	"DayTier":          reflect.TypeFor[api.DayTier](),
	"DayBatch":         reflect.TypeFor[api.DayBatch](),
	"DayTaken":         reflect.TypeFor[api.DayTaken](),
	"DayTask":          reflect.TypeFor[api.DayTask](),
	"DayLag":           reflect.TypeFor[api.DayLag](),
	"DayAlternative":   reflect.TypeFor[api.DayAlternative](),
	"DayStage":         reflect.TypeFor[api.DayStage](),
	"DayTouch":         reflect.TypeFor[api.DayTouch](),
	"DayPin":           reflect.TypeFor[api.DayPin](),
	"DayPlan":          reflect.TypeFor[api.DayPlan](),
	"DayScheduled":     reflect.TypeFor[api.DayScheduled](),
	"DayPlannedTouch":  reflect.TypeFor[api.DayPlannedTouch](),
	"DayObjective":     reflect.TypeFor[api.DayObjective](),
	"DayBound":         reflect.TypeFor[api.DayBound](),
	"DayChance":        reflect.TypeFor[api.DayChance](),
	"DayClash":         reflect.TypeFor[api.DayClash](),
	"DayWayOut":        reflect.TypeFor[api.DayWayOut](),
	"TwoSettings":      reflect.TypeFor[api.TwoSettings](),
	"SellLine":         reflect.TypeFor[api.SellLine](),
	"SellPrice":        reflect.TypeFor[api.SellPrice](),
	"OvenUse":          reflect.TypeFor[api.OvenUse](),
	"HandUse":          reflect.TypeFor[api.HandUse](),
	"CostRequest":      reflect.TypeFor[api.CostRequest](),
	"CostLine":         reflect.TypeFor[api.CostLine](),
	"Cost":             reflect.TypeFor[api.Cost](),
	"StoredThing":      reflect.TypeFor[api.StoredThing](),
	"ShopPack":         reflect.TypeFor[api.ShopPack](),
	"ShoppingRequest":  reflect.TypeFor[api.ShoppingRequest](),
	"BoughtPacks":      reflect.TypeFor[api.BoughtPacks](),
	"Buy":              reflect.TypeFor[api.Buy](),
	"Shopping":         reflect.TypeFor[api.Shopping](),
	"LabelPart":        reflect.TypeFor[api.LabelPart](),
	"LabelRequest":     reflect.TypeFor[api.LabelRequest](),
	"LabelIngredient":  reflect.TypeFor[api.LabelIngredient](),
	"LabelShare":       reflect.TypeFor[api.LabelShare](),
	"Label":            reflect.TypeFor[api.Label](),
	"Nutrition":        reflect.TypeFor[api.Nutrition](),
	"NutritionRow":     reflect.TypeFor[api.NutritionRow](),
	"Crowd":            reflect.TypeFor[api.Crowd](),
	"CrowdDish":        reflect.TypeFor[api.CrowdDish](),
	"LearnRequest":     reflect.TypeFor[api.LearnRequest](),
	"LearnBake":        reflect.TypeFor[api.LearnBake](),
	"LearnTold":        reflect.TypeFor[api.LearnTold](),
	"LearnProbed":      reflect.TypeFor[api.LearnProbed](),
	"LearnName":        reflect.TypeFor[api.LearnName](),
	"Learnt":           reflect.TypeFor[api.Learnt](),
	"LearntCorrection": reflect.TypeFor[api.LearntCorrection](),
	"LearntOven":       reflect.TypeFor[api.LearntOven](),
	"LearntChange":     reflect.TypeFor[api.LearntChange](),
	"LearntPrediction": reflect.TypeFor[api.LearntPrediction](),
	"LearntForecast":   reflect.TypeFor[api.LearntForecast](),
	"ForecastRange":    reflect.TypeFor[api.ForecastRange](),
	"ForecastWords":    reflect.TypeFor[api.ForecastWords](),
	"LearntScore":      reflect.TypeFor[api.LearntScore](),
	"LearntErrors":     reflect.TypeFor[api.LearntErrors](),
	"LearntHeld":       reflect.TypeFor[api.LearntHeld](),
	"LearnModel":       reflect.TypeFor[api.LearnModel](),
	"Outlook":          reflect.TypeFor[api.Outlook](),
	"Keeping":          reflect.TypeFor[api.Keeping](),
	"CrowdTier":        reflect.TypeFor[api.CrowdTier](),
	"OtherCost":        reflect.TypeFor[api.OtherCost](),
	"LearntHistory":    reflect.TypeFor[api.LearntHistory](),
	"HistoryRange":     reflect.TypeFor[api.HistoryRange](),
	"HistoryPoint":     reflect.TypeFor[api.HistoryPoint](),
	"HistoryTick":      reflect.TypeFor[api.HistoryTick](),
	"Shade":            reflect.TypeFor[api.Shade](),
	"LearningSays":     reflect.TypeFor[api.LearningSays](),
	"ChangedOven":      reflect.TypeFor[api.ChangedOven](),
	"Lesson":           reflect.TypeFor[api.Lesson](),
	"LabelPaper":       reflect.TypeFor[api.LabelPaper](),
	"DayTook":          reflect.TypeFor[api.DayTook](),
	"LearntFactors":    reflect.TypeFor[api.LearntFactors](),
	"CrowdRequest":     reflect.TypeFor[api.CrowdRequest](),
	"Rates":            reflect.TypeFor[api.Rates](),
	"DessertCost":      reflect.TypeFor[api.DessertCost](),
	"CameOut":          reflect.TypeFor[api.CameOut](),
	"GasMark":          reflect.TypeFor[api.GasMark](),
	"Choice":           reflect.TypeFor[api.Choice](),
}

// The contract's types are the core's own: each must have exactly the fields that the description has, and
// an answer must match it.
func TestCoreTypesAreAsDescribed(t *testing.T) {
	doc, err := Contract()
	if err != nil {
		t.Fatal(err)
	}
	for name, schema := range doc.Components.Schemas {
		goType, _ := schema.Value.Extensions["x-go-type"].(string)
		if goType == "" || !schema.Value.Type.Is(openapi3.TypeObject) || strings.HasPrefix(goType, "map[") {
			continue
		}
		typ, ok := mapped[name]
		if !ok {
			t.Errorf("%s is mapped to %s, and not compared with it here", name, goType)
			continue
		}
		sameFields(t, name, schema.Value, typ)
	}

	b, err := os.ReadFile("../../core/balance/testdata/balance-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []struct {
		Name    string
		Request json.RawMessage
	}
	if err := json.Unmarshal(b, &cases); err != nil {
		t.Fatal(err)
	}
	for _, c := range cases {
		r, err := Decode(balanceSchema(t), c.Request, balance.Check)
		if _, later := fault.AsNotYet(err); later {
			continue
		}
		if err != nil {
			t.Errorf("%s: %v", c.Name, err)
			continue
		}
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		out, err := Encode(a, render.Reading{})
		if err != nil {
			t.Fatal(err)
		}
		var tree any
		_ = json.Unmarshal(out, &tree)
		if faults := Check(doc.Components.Schemas["BalanceAnswer"].Value, tree, ""); len(faults) > 0 {
			t.Errorf("%s: the answer is not as described: %v", c.Name, faults)
		}
	}
}

func sameFields(t *testing.T, at string, s *openapi3.Schema, typ reflect.Type) {
	t.Helper()
	for typ.Kind() == reflect.Pointer {
		typ = typ.Elem()
	}
	if typ == reflect.TypeFor[message.Message]() { // it goes out as a text
		if !s.Type.Is(openapi3.TypeString) {
			t.Errorf("%s is said, and the description has no text there", at)
		}
		return
	}
	switch typ.Kind() {
	case reflect.Slice:
		sameFields(t, at+"/*", s.Items.Value, typ.Elem())
	case reflect.Map:
		sameFields(t, at+"/*", s.AdditionalProperties.Schema.Value, typ.Elem())
	case reflect.Struct:
		left := map[string]bool{}
		for name := range s.Properties {
			left[name] = true
		}
		for _, field := range reflect.VisibleFields(typ) {
			name, _, _ := strings.Cut(field.Tag.Get("json"), ",")
			if field.Anonymous || !field.IsExported() || name == "-" {
				continue
			}
			if !left[name] {
				t.Errorf("%s: the description has no %q", at, name)
				continue
			}
			delete(left, name)
			sameFields(t, at+"/"+name, s.Properties[name].Value, field.Type)
		}
		for name := range left {
			t.Errorf("%s: the core has no %q", at, name)
		}
	}
}

func FuzzDecode(f *testing.F) {
	schema := balanceSchema(f)
	f.Add([]byte(good))
	f.Add([]byte(`{"dish":null,"fruits":[null],"topping":{"bakers_pct":{"butter":"x"}}}`))
	f.Add([]byte(`[1e999]`))
	f.Fuzz(func(t *testing.T, body []byte) {
		r, err := Decode(schema, body, balance.Check)
		if err != nil {
			if _, known := ProblemOf(err, render.Reading{}); !known {
				t.Errorf("%q is answered by %v, which is no problem of the request", body, err)
			}
			return
		}
		if _, err := balance.Solve(r); err != nil {
			if _, known := ProblemOf(err, render.Reading{}); !known {
				t.Errorf("%q: %v", body, err)
			}
		}
	})
}
