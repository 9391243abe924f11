package httpapi

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"mabbin/api"
	"mabbin/core/recipe"
	"mabbin/server/demo"
)

const importedRecipe = "Plum crumble\nServes 6\n\n900 g plums, stoned\n20 g caster sugar\n5 g cornflour\n\nTopping\n200 g plain flour\n100 g butter\n100 g demerara sugar\n\n" +
	"Toss the plums with the sugar and cornflour in a 2 litre dish. Scatter the topping over. Bake at 190C for 40 minutes. Let it stand 10 minutes."

// A recipe is read for a kitchen with its own dish of that volume, judged by its stages, and given back mended in its own
// words.
func TestARecipeComesInAndGoesOut(t *testing.T) {
	h, _ := theYard(t)
	in := `{"content":` + quoted(importedRecipe) + `,"kitchen":"` + demo.Kitchen.ID.String() + `"}`
	d := get[recipe.Document](t, call(h, "POST", "/api/v1/import", in), 200)
	if d.Name != "Plum crumble" || len(d.Lines) != 6 || len(d.Steps) != 2 || d.Dish == nil || d.DishNote.IsZero() {
		t.Fatalf("%+v", d)
	}
	lines, _ := json.Marshal(d.Lines)
	steps, _ := json.Marshal(d.Steps)
	vessel, _ := json.Marshal(d.Dish)
	reading, _ := json.Marshal(d.Reading)
	asked := `{"style":"crumble","lines":` + string(
		lines,
	) + `,"steps":` + string(
		steps,
	) + `,"dish":` + string(
		vessel,
	) + `}`
	v := get[map[string]any](t, call(h, "POST", "/api/v1/recipe", asked), 200)
	if changes, _ := v["changes"].([]any); v["as_written"] == nil || v["baked"] == nil || len(changes) == 0 {
		raw, _ := json.Marshal(v)
		t.Fatalf("%s", raw)
	}
	body := func(format string) string {
		return `{"format":"` + format + `","name":"Plum crumble","reading":` + string(reading) + `,"recipe":` + asked + `}`
	}
	f := get[api.ExportedFile](t, call(h, "POST", "/api/v1/recipe/file", body("text")), 200)
	if !strings.Contains(f.Content, "\n900 g plums, stoned\n") || strings.Contains(f.Content, "\n20 g caster sugar\n") ||
		!strings.Contains(f.Content, "Let it stand 10 minutes.") {
		t.Errorf("%s", f.Content)
	}
	if w := call(h, "POST", "/api/v1/recipe/file", body("csv")); w.Code != http.StatusBadRequest {
		t.Errorf("as a table: %d %s", w.Code, w.Body)
	}
	w := call(h, "POST", "/api/v1/import", `{"content":"900 g plums","kitchen":"00000000-0000-0000-0000-000000000001"}`)
	if w.Code != http.StatusNotFound {
		t.Errorf("for a kitchen that is not there: %d %s", w.Code, w.Body)
	}
}

// What was answered of a bake is the last line of the method that is given away.
func TestAFileSaysWhatWillBecomeOfIt(t *testing.T) {
	h, _ := theYard(t)
	card := `{"name":"Plums","request":{"style":"crumble","dish":{"shape":"oval","length_cm":30,"width_cm":21,"depth_cm":5.5,"material":"glass"},` +
		`"fruits":[{"key":"plum","share":1}],"topping":{"key":"crumble_classic"}}}`
	f := get[api.ExportedFile](t, call(h, "POST", "/api/v1/export",
		`{"format":"text","verdict":"Comes out right: golden top.","card":`+card+`}`), 200)
	if !strings.Contains(f.Content, "Result by the model: Comes out right: golden top.") {
		t.Errorf("%s", f.Content)
	}
}
