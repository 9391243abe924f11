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
	for pointer, text := range map[string]string{
		"/dish/shape": "rectangle, square", "/dish/length_cm": "use a number", "/dish/depth_cm": "1 to 20", "/dish/material": `"lead"`,
		"/sugar": "unknown", "/topping/key": "missing", "/fruits/0/key": `"goosberry"`, "/fruits/1/key": "missing", "/set_target": "0 to 10",
	} {
		if !strings.Contains(got[pointer], text) {
			t.Errorf("%s: %q, want %q in it", pointer, got[pointer], text)
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
	"Dish":                reflect.TypeFor[api.Dish](),
	"Quantity":            reflect.TypeFor[api.Quantity](),
	"FruitInput":          reflect.TypeFor[api.FruitInput](),
	"BalanceRequest":      reflect.TypeFor[api.BalanceRequest](),
	"Own":                 reflect.TypeFor[api.Own](),
	"OwnRow":              reflect.TypeFor[api.OwnRow](),
	"Alternative":         reflect.TypeFor[api.Alternative](),
	"PairingsRequest":     reflect.TypeFor[api.PairingsRequest](),
	"Pairings":            reflect.TypeFor[api.Pairings](),
	"StartRequest":        reflect.TypeFor[api.StartRequest](),
	"StartAnswer":         reflect.TypeFor[api.StartAnswer](),
	"StartDish":           reflect.TypeFor[api.StartDish](),
	"OtherRequest":        reflect.TypeFor[api.OtherRequest](),
	"OtherAnswer":         reflect.TypeFor[api.OtherAnswer](),
	"DietRequest":         reflect.TypeFor[api.DietRequest](),
	"SwapRequest":         reflect.TypeFor[api.SwapRequest](),
	"Swap":                reflect.TypeFor[api.Swap](),
	"DietProposal":        reflect.TypeFor[api.DietProposal](),
	"FruitTestRequest":    reflect.TypeFor[api.FruitTestRequest](),
	"FruitTestAnswer":     reflect.TypeFor[api.FruitTestAnswer](),
	"MeasureRequest":      reflect.TypeFor[api.MeasureRequest](),
	"Measured":            reflect.TypeFor[api.Measured](),
	"RecipeRow":           reflect.TypeFor[api.RecipeRow](),
	"RecipeRequest":       reflect.TypeFor[api.RecipeRequest](),
	"RecipeVersion":       reflect.TypeFor[api.RecipeVersion](),
	"RecipeVerdict":       reflect.TypeFor[api.RecipeVerdict](),
	"ImportedDocument":    reflect.TypeFor[api.ImportedDocument](),
	"Original":            reflect.TypeFor[api.Original](),
	"Resources":           reflect.TypeFor[api.Resources](),
	"Vessel":              reflect.TypeFor[api.Vessel](),
	"DaySold":             reflect.TypeFor[api.DaySold](),
	"SavedDay":            reflect.TypeFor[api.SavedDay](),
	"OvenCapacity":        reflect.TypeFor[api.OvenCapacity](),
	"DayOrders":           reflect.TypeFor[api.DayOrders](),
	"DayOrder":            reflect.TypeFor[api.DayOrder](),
	"DayAppliedRemedy":    reflect.TypeFor[api.DayAppliedRemedy](),
	"UnreadLine":          reflect.TypeFor[api.UnreadLine](),
	"DaySchedule":         reflect.TypeFor[api.DaySchedule](),
	"DayLane":             reflect.TypeFor[api.DayLane](),
	"DayBaking":           reflect.TypeFor[api.DayBaking](),
	"DayBar":              reflect.TypeFor[api.DayBar](),
	"DayHeat":             reflect.TypeFor[api.DayHeat](),
	"DayOrderStatus":      reflect.TypeFor[api.DayOrderStatus](),
	"DaySheet":            reflect.TypeFor[api.DaySheet](),
	"DayRow":              reflect.TypeFor[api.DayRow](),
	"DayAheadTask":        reflect.TypeFor[api.DayAheadTask](),
	"DayUnscheduled":      reflect.TypeFor[api.DayUnscheduled](),
	"Stock":               reflect.TypeFor[api.Stock](),
	"StockItem":           reflect.TypeFor[api.StockItem](),
	"ShoppingList":        reflect.TypeFor[api.ShoppingList](),
	"ShoppingSection":     reflect.TypeFor[api.ShoppingSection](),
	"ShoppingLine":        reflect.TypeFor[api.ShoppingLine](),
	"DessertLabel":        reflect.TypeFor[api.DessertLabel](),
	"BakePoint":           reflect.TypeFor[api.BakePoint](),
	"WholeCard":           reflect.TypeFor[api.WholeCard](),
	"ToppingInput":        reflect.TypeFor[api.ToppingInput](),
	"BalanceAnswer":       reflect.TypeFor[api.BalanceAnswer](),
	"CuttingPlan":         reflect.TypeFor[api.CuttingPlan](),
	"Doing":               reflect.TypeFor[api.Doing](),
	"Storage":             reflect.TypeFor[api.Storage](),
	"Remark":              reflect.TypeFor[api.Remark](),
	"Cutaway":             reflect.TypeFor[api.Cutaway](),
	"BakeRequest":         reflect.TypeFor[api.BakeRequest](),
	"Stage":               reflect.TypeFor[api.Stage](),
	"BakeAnswer":          reflect.TypeFor[api.BakeAnswer](),
	"BakeCurves":          reflect.TypeFor[api.BakeCurves](),
	"PlanRequest":         reflect.TypeFor[api.PlanRequest](),
	"BakeSetting":         reflect.TypeFor[api.BakeSetting](),
	"WhatIf":              reflect.TypeFor[api.WhatIf](),
	"BakeFigure":          reflect.TypeFor[api.BakeFigure](),
	"BakeWords":           reflect.TypeFor[api.BakeWords](),
	"BakeChange":          reflect.TypeFor[api.BakeChange](),
	"Verdict":             reflect.TypeFor[api.Verdict](),
	"PlanAnswer":          reflect.TypeFor[api.PlanAnswer](),
	"Precook":             reflect.TypeFor[api.Precook](),
	"Macerate":            reflect.TypeFor[api.Macerate](),
	"BakeReport":          reflect.TypeFor[api.BakeReport](),
	"StationLines":        reflect.TypeFor[api.StationLines](),
	"BakePlan":            reflect.TypeFor[api.BakePlan](),
	"RecipeCheck":         reflect.TypeFor[api.RecipeCheck](),
	"BakeAlternative":     reflect.TypeFor[api.BakeAlternative](),
	"BakeEvents":          reflect.TypeFor[api.BakeEvents](),
	"BakeEnd":             reflect.TypeFor[api.BakeEnd](),
	"SalvageTip":          reflect.TypeFor[api.SalvageTip](),
	"Reading":             reflect.TypeFor[api.Reading](),
	"Estimate":            reflect.TypeFor[api.Estimate](),
	"Rescue":              reflect.TypeFor[api.Rescue](),
	"Settings":            reflect.TypeFor[api.Settings](),
	"Oven":                reflect.TypeFor[api.Oven](),
	"OvenTrial":           reflect.TypeFor[api.OvenTrial](),
	"OvenMeasured":        reflect.TypeFor[api.OvenMeasured](),
	"Fire":                reflect.TypeFor[api.Fire](),
	"Tending":             reflect.TypeFor[api.Tending](),
	"Words":               reflect.TypeFor[api.Words](),
	"Explanation":         reflect.TypeFor[api.Explanation](),
	"Comparison":          reflect.TypeFor[api.Comparison](),
	"WeighedLine":         reflect.TypeFor[api.WeighedLine](),
	"OutcomeDetails":      reflect.TypeFor[api.OutcomeDetails](),
	"ActualBake":          reflect.TypeFor[api.ActualBake](),
	"DayRequest":          reflect.TypeFor[api.DayRequest](),
	"DaySpan":             reflect.TypeFor[api.DaySpan](),
	"DayPerson":           reflect.TypeFor[api.DayPerson](),
	"DayMachine":          reflect.TypeFor[api.DayMachine](),
	"DayPlace":            reflect.TypeFor[api.DayPlace](),
	"DayDish":             reflect.TypeFor[api.DayDish](),
	"DayOven":             reflect.TypeFor[api.DayOven](),
	"DayTier":             reflect.TypeFor[api.DayTier](),
	"DayBatch":            reflect.TypeFor[api.DayBatch](),
	"DayDishUse":          reflect.TypeFor[api.DayDishUse](),
	"DayTask":             reflect.TypeFor[api.DayTask](),
	"DayLag":              reflect.TypeFor[api.DayLag](),
	"DayAlternative":      reflect.TypeFor[api.DayAlternative](),
	"DayStage":            reflect.TypeFor[api.DayStage](),
	"DayTouch":            reflect.TypeFor[api.DayTouch](),
	"DayPin":              reflect.TypeFor[api.DayPin](),
	"DayPlan":             reflect.TypeFor[api.DayPlan](),
	"DayScheduled":        reflect.TypeFor[api.DayScheduled](),
	"DayTick":             reflect.TypeFor[api.DayTick](),
	"DayMove":             reflect.TypeFor[api.DayMove](),
	"DayPlannedTouch":     reflect.TypeFor[api.DayPlannedTouch](),
	"DayObjective":        reflect.TypeFor[api.DayObjective](),
	"DayBound":            reflect.TypeFor[api.DayBound](),
	"DayChance":           reflect.TypeFor[api.DayChance](),
	"DayClash":            reflect.TypeFor[api.DayClash](),
	"DayRemedy":           reflect.TypeFor[api.DayRemedy](),
	"TwoSettings":         reflect.TypeFor[api.TwoSettings](),
	"SellLine":            reflect.TypeFor[api.SellLine](),
	"SellPrice":           reflect.TypeFor[api.SellPrice](),
	"OvenUse":             reflect.TypeFor[api.OvenUse](),
	"HandUse":             reflect.TypeFor[api.HandUse](),
	"CostRequest":         reflect.TypeFor[api.CostRequest](),
	"CostLine":            reflect.TypeFor[api.CostLine](),
	"Cost":                reflect.TypeFor[api.Cost](),
	"StockEntry":          reflect.TypeFor[api.StockEntry](),
	"ShopPack":            reflect.TypeFor[api.ShopPack](),
	"ShoppingRequest":     reflect.TypeFor[api.ShoppingRequest](),
	"PurchasedPacks":      reflect.TypeFor[api.PurchasedPacks](),
	"Buy":                 reflect.TypeFor[api.Buy](),
	"Shopping":            reflect.TypeFor[api.Shopping](),
	"LabelPart":           reflect.TypeFor[api.LabelPart](),
	"LabelRequest":        reflect.TypeFor[api.LabelRequest](),
	"LabelIngredient":     reflect.TypeFor[api.LabelIngredient](),
	"LabelShare":          reflect.TypeFor[api.LabelShare](),
	"Label":               reflect.TypeFor[api.Label](),
	"Nutrition":           reflect.TypeFor[api.Nutrition](),
	"NutritionRow":        reflect.TypeFor[api.NutritionRow](),
	"Crowd":               reflect.TypeFor[api.Crowd](),
	"CrowdDish":           reflect.TypeFor[api.CrowdDish](),
	"LearnRequest":        reflect.TypeFor[api.LearnRequest](),
	"LearnBake":           reflect.TypeFor[api.LearnBake](),
	"ReportedWords":       reflect.TypeFor[api.ReportedWords](),
	"LearnProbed":         reflect.TypeFor[api.LearnProbed](),
	"ParameterName":       reflect.TypeFor[api.ParameterName](),
	"LearnAnswer":         reflect.TypeFor[api.LearnAnswer](),
	"LearnCorrection":     reflect.TypeFor[api.LearnCorrection](),
	"OvenEstimate":        reflect.TypeFor[api.OvenEstimate](),
	"LearnChange":         reflect.TypeFor[api.LearnChange](),
	"LearnPrediction":     reflect.TypeFor[api.LearnPrediction](),
	"LearnForecast":       reflect.TypeFor[api.LearnForecast](),
	"ForecastRange":       reflect.TypeFor[api.ForecastRange](),
	"ForecastWords":       reflect.TypeFor[api.ForecastWords](),
	"PredictionScore":     reflect.TypeFor[api.PredictionScore](),
	"PredictionErrors":    reflect.TypeFor[api.PredictionErrors](),
	"Coverage":            reflect.TypeFor[api.Coverage](),
	"LearnModel":          reflect.TypeFor[api.LearnModel](),
	"DessertForecast":     reflect.TypeFor[api.DessertForecast](),
	"Keeping":             reflect.TypeFor[api.Keeping](),
	"CrowdTier":           reflect.TypeFor[api.CrowdTier](),
	"OtherCost":           reflect.TypeFor[api.OtherCost](),
	"ParameterHistory":    reflect.TypeFor[api.ParameterHistory](),
	"HistoryRange":        reflect.TypeFor[api.HistoryRange](),
	"HistoryPoint":        reflect.TypeFor[api.HistoryPoint](),
	"HistoryTick":         reflect.TypeFor[api.HistoryTick](),
	"Shade":               reflect.TypeFor[api.Shade](),
	"LearningPreferences": reflect.TypeFor[api.LearningPreferences](),
	"ChangedOven":         reflect.TypeFor[api.ChangedOven](),
	"Finding":             reflect.TypeFor[api.Finding](),
	"LabelPaper":          reflect.TypeFor[api.LabelPaper](),
	"DayActualTime":       reflect.TypeFor[api.DayActualTime](),
	"CorrectionFactors":   reflect.TypeFor[api.CorrectionFactors](),
	"CrowdRequest":        reflect.TypeFor[api.CrowdRequest](),
	"Rates":               reflect.TypeFor[api.Rates](),
	"DessertCost":         reflect.TypeFor[api.DessertCost](),
	"ResultVerdict":       reflect.TypeFor[api.ResultVerdict](),
	"GasMark":             reflect.TypeFor[api.GasMark](),
	"Choice":              reflect.TypeFor[api.Choice](),
	"RecipeReading":       reflect.TypeFor[api.RecipeReading](),
	"ReadSentence":        reflect.TypeFor[api.ReadSentence](),
	"ReadLine":            reflect.TypeFor[api.ReadLine](),
	"ReadItem":            reflect.TypeFor[api.ReadItem](),
	"RecipeStep":          reflect.TypeFor[api.RecipeStep](),
	"RecipeLine":          reflect.TypeFor[api.RecipeLine](),
	"Prepared":            reflect.TypeFor[api.Prepared](),
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
	if len(s.OneOf) > 0 { // a text or a list: it writes itself
		if !typ.Implements(reflect.TypeFor[json.Marshaler]()) ||
			!reflect.PointerTo(typ).Implements(reflect.TypeFor[json.Unmarshaler]()) {
			t.Errorf("%s has several forms, and %s does not write and read itself", at, typ)
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
