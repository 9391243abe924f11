package api

import (
	"encoding/json"
	"errors"
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/getkin/kin-openapi/openapi3"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/measure"
	"mabbin/core/recipe"
	"mabbin/server/formats"
)

const good = `{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"style":"crumble",
	"topping":{"key":"crumble_classic"},"thickener":{"key":"cornflour"},"fruits":[{"key":"gooseberry","share":1}]}`

func TestEveryWrongFieldIsNamedAtOnce(t *testing.T) {
	body := `{"dish":{"shape":"star","length_cm":"wide","width_cm":18,"depth_cm":-5,"material":"lead"},"style":"crumble","sugar":3,
		"topping":{},"fruits":[{"key":"goosberry","share":1},{"share":2}],"set_target":40}`
	_, err := Decode("BalanceRequest", []byte(body), balance.Check)
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
		"/dish/shape": "rectangle, square", "/dish/length_cm": "give a number", "/dish/depth_cm": "1 to 20", "/dish/material": `"lead"`,
		"/sugar": "not known", "/topping/key": "missing", "/fruits/0/key": `"goosberry"`, "/fruits/1/key": "missing", "/set_target": "0 to 10",
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
	r, err := Decode("BalanceRequest", []byte(good), balance.Check)
	if err != nil || r.Dish.LengthCM != 24 || r.Fruits[0].Key != "gooseberry" {
		t.Errorf("%+v, %v", r, err)
	}
	for _, bad := range []string{"", "{", "[]", "null", "3", good + "x"} {
		if _, err := Decode("BalanceRequest", []byte(bad), balance.Check); err == nil {
			t.Errorf("%q was taken", bad)
		}
	}
}

// The contract's types are the core's own: each must have exactly the fields that the description has, and
// an answer must match it.
func TestCoreTypesAreAsDescribed(t *testing.T) {
	doc, err := spec()
	if err != nil {
		t.Fatal(err)
	}
	for schema, typ := range map[string]reflect.Type{
		"BalanceRequest": reflect.TypeFor[balance.Request](), "BalanceAnswer": reflect.TypeFor[balance.Answer](), "School": reflect.TypeFor[balance.School](),
		"StartRequest": reflect.TypeFor[balance.StartRequest](), "StartAnswer": reflect.TypeFor[balance.StartAnswer](),
		"FruitTestRequest": reflect.TypeFor[filling.Test](), "FruitTestAnswer": reflect.TypeFor[filling.Tested](),
		"MeasureRequest": reflect.TypeFor[recipe.MeasureRequest](), "Measured": reflect.TypeFor[recipe.Measured](),
		"RecipeRequest": reflect.TypeFor[recipe.Request](), "RecipeVerdict": reflect.TypeFor[recipe.Verdict](),
		"BakeRequest": reflect.TypeFor[bake.Request](), "BakeSchool": reflect.TypeFor[bake.School](), "PlanRequest": reflect.TypeFor[bake.DessertRequest](), "PlanAnswer": reflect.TypeFor[bake.DessertAnswer](), "BakeAnswer": reflect.TypeFor[bake.Answer](),
		"OtherRequest": reflect.TypeFor[balance.OtherRequest](), "OtherAnswer": reflect.TypeFor[balance.OtherAnswer](),
		"DietRequest": reflect.TypeFor[diet.Request](), "DietProposal": reflect.TypeFor[diet.Proposal](),
		"ImportedDocument": reflect.TypeFor[formats.Document](), "Settings": reflect.TypeFor[measure.Settings](),
	} {
		sameFields(t, schema, doc.Components.Schemas[schema].Value, typ)
	}

	b, err := os.ReadFile("../core/balance/testdata/balance-cases.json")
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
		r, err := Decode("BalanceRequest", c.Request, balance.Check)
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
		out, _ := json.Marshal(a)
		var tree any
		_ = json.Unmarshal(out, &tree)
		if faults := described(doc.Components.Schemas["BalanceAnswer"], tree); len(faults) > 0 {
			t.Errorf("%s: the answer is not as described: %v", c.Name, faults)
		}
	}
}

func sameFields(t *testing.T, at string, s *openapi3.Schema, typ reflect.Type) {
	t.Helper()
	for typ.Kind() == reflect.Pointer {
		typ = typ.Elem()
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
	f.Add([]byte(good))
	f.Add([]byte(`{"dish":null,"fruits":[null],"topping":{"bakers_pct":{"butter":"x"}}}`))
	f.Add([]byte(`[1e999]`))
	f.Fuzz(func(t *testing.T, body []byte) {
		r, err := Decode("BalanceRequest", body, balance.Check)
		if err != nil {
			if _, known := ProblemOf(err); !known {
				t.Errorf("%q is answered by %v, which is no problem of the request", body, err)
			}
			return
		}
		if _, err := balance.Solve(r); err != nil {
			if _, known := ProblemOf(err); !known {
				t.Errorf("%q: %v", body, err)
			}
		}
	})
}
