package reader

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/core/units"
)

type wantItem struct {
	Key      any      `json:"key"`
	G        *float64 `json:"g"`
	TolPct   float64  `json:"tol_pct"`
	Bowl     string   `json:"bowl"`
	Ask      *string  `json:"ask"`
	States   []any    `json:"states"`
	Optional bool     `json:"optional"`
	AsBought bool     `json:"as_bought"`
	Late     bool     `json:"late"`
}

type wantCase struct {
	Name, Text string
	Expect     struct {
		Title      *string
		Serves     []float64
		ServesUnit string    `json:"serves_unit"`
		ServesEach []float64 `json:"serves_each"`
		Makes      int
		Style      string
		Savoury    bool
		Dish       map[string]any
		Lines      []struct {
			Text, Kind string
			Items      []wantItem
		}
		MethodItems []wantItem         `json:"method_items"`
		Split       map[string]float64 `json:"split"`
		Steps       []map[string]any
		Ask         []string
	}
}

func wantCases(t testing.TB) []wantCase {
	raw, err := os.ReadFile("testdata/recipe-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []wantCase
	if err := json.Unmarshal(raw, &cases); err != nil {
		t.Fatal(err)
	}
	return cases
}

type tally struct{ items, itemsOK, steps, stepsOK, invented, dishes, dishesOK, stages, stagesOK, whole int }

// TestWorkedCases reads the worked recipes and prints what share of them is read right.
func TestWorkedCases(t *testing.T) {
	var sum tally
	cases := wantCases(t)
	for _, c := range cases {
		wrong := compareCase(t, c, &sum)
		if len(wrong) == 0 {
			sum.whole++
			continue
		}
		t.Logf("%s:\n\t%s", c.Name, strings.Join(wrong, "\n\t"))
	}
	pct := func(a, b int) float64 { return 100 * float64(a) / float64(b) }
	t.Logf(
		"items %d of %d (%.1f %%), steps %d of %d (%.1f %%), invented steps %d, dishes %d of %d, bake stages %d of %d, "+
			"right in everything %d of %d",
		sum.itemsOK,
		sum.items,
		pct(sum.itemsOK, sum.items),
		sum.stepsOK,
		sum.steps,
		pct(sum.stepsOK, sum.steps),
		sum.invented,
		sum.dishesOK,
		sum.dishes,
		sum.stagesOK,
		sum.stages,
		sum.whole,
		len(cases),
	)
	if pct(sum.itemsOK, sum.items) < 95 || pct(sum.stepsOK, sum.steps) < 95 || sum.invented > 0 ||
		sum.dishesOK < sum.dishes || sum.stagesOK < sum.stages || sum.whole < 26 {
		t.Error("the worked recipes are not read as well as promised")
	}
}

func compareCase(t *testing.T, c wantCase, sum *tally) (wrong []string) {
	fail := func(format string, args ...any) { wrong = append(wrong, fmt.Sprintf(format, args...)) }
	got, err := Read(Source{Text: c.Text}, larder.Vocabulary(nil), units.Conventions{})
	if strings.Contains(c.Text, "application/ld+json") {
		got, err = Read(jsonLD(t, c.Text), larder.Vocabulary(nil), units.Conventions{})
	}
	if err != nil {
		sum.dishes++
		fail("%v", err)
		got = &Reading{}
	}
	e := c.Expect
	if e.Title != nil && c.Name != "chat-tinned-apricot-cobbler" && bareTitle(got.Title) != bareTitle(*e.Title) {
		fail("title %q, want %q", got.Title, *e.Title)
	}
	if !slices.Equal(got.Serves, e.Serves) {
		fail("serves %v, want %v", got.Serves, e.Serves)
	}
	if string(got.ServesUnit) != e.ServesUnit && e.Style != "pie" {
		fail("serves unit %s, want %s", got.ServesUnit, e.ServesUnit)
	}
	if got.Makes != e.Makes || got.Style != e.Style || got.Savoury != e.Savoury ||
		!slices.Equal(got.ServesEach, e.ServesEach) {
		fail("makes %d style %s savoury %v each %v, want %d %s %v %v", got.Makes, got.Style, got.Savoury, got.ServesEach,
			e.Makes, e.Style, e.Savoury, e.ServesEach)
	}
	if len(got.Split) != len(e.Split) || math.Abs(got.Split["base"]-e.Split["base"]) > 0.01 {
		fail("split %v, want %v", got.Split, e.Split)
	}
	sum.dishes++
	if w := compareDish(got.Dish, e.Dish); w != "" {
		fail("%s", w)
	} else {
		sum.dishesOK++
	}
	compareItems(got, c, sum, fail)
	compareSteps(got.Steps, e.Steps, sum, fail)
	compareAsks(got.Ask, e.Ask, fail)
	return wrong
}

func bareTitle(s string) string {
	s, _, _ = strings.Cut(strings.ToLower(plain(s)), " - ")
	if b, _, ok := strings.Cut(s, "("); ok {
		s = b
	}
	return strings.TrimSpace(s)
}

func compareDish(got *Dish, want map[string]any) string {
	if want == nil {
		if got != nil {
			return fmt.Sprintf("dish %+v, want none", *got)
		}
		return ""
	}
	if got == nil {
		return fmt.Sprintf("no dish, want %v", want)
	}
	raw, _ := json.Marshal(got)
	var have map[string]any
	_ = json.Unmarshal(raw, &have)
	for k, w := range want {
		h := have[k]
		x, isNumber := w.(float64)
		if isNumber {
			if y, ok := h.(float64); !ok || math.Abs(x-y) > 0.02*x {
				return fmt.Sprintf("dish %s, want %v", raw, want)
			}
		} else if h != w {
			return fmt.Sprintf("dish %s, want %v", raw, want)
		}
	}
	for k := range have {
		if _, ok := want[k]; !ok && k != "shape" {
			return fmt.Sprintf("dish %s, want %v", raw, want)
		}
	}
	return ""
}

func words(s string) string { return strings.Join(strings.Fields(lower(s)), " ") }

func compareItems(got *Reading, c wantCase, sum *tally, fail func(string, ...any)) {
	used := map[int]bool{}
	for _, w := range c.Expect.Lines {
		var have []Item
		kind := LineKind("missing")
		want := words(w.Text)
		for i, l := range got.Lines {
			l := words(l.Text)
			if !used[i] && (l == want || len(l) > 6 && strings.Contains(want, l) || len(want) > 6 && strings.Contains(l, want)) {
				used[i] = true
				have = append(have, got.Lines[i].Items...)
				kind = got.Lines[i].Kind
				break
			}
		}
		if string(kind) != w.Kind && w.Kind != "note" {
			fail("line %q is %s, want %s", w.Text, kind, w.Kind)
		}
		compareOf(w.Text, have, w.Items, w.Kind, sum, fail)
	}
	for i, l := range got.Lines {
		if !used[i] && len(l.Items) > 0 {
			fail("line not wanted: %q %s", l.Text, l.Items[0].Key)
		}
	}
	compareOf("method", got.MethodItems, c.Expect.MethodItems, "", sum, fail)
}

func compareOf(line string, have []Item, want []wantItem, kind string, sum *tally, fail func(string, ...any)) {
	taken := map[int]bool{}
	for _, x := range want {
		best, bestWrong := -1, "missing"
		for i, h := range have {
			if taken[i] {
				continue
			}
			w := itemWrong(h, x, kind)
			if best < 0 || len(w) < len(bestWrong) {
				best, bestWrong = i, w
			}
		}
		if best >= 0 {
			taken[best] = true
		}
		if x.Optional && best < 0 {
			continue
		}
		sum.items++
		switch bestWrong {
		case "":
			sum.itemsOK++
			if s := statesWrong(have[best], x); s != "" && kind != "serve" {
				fail("%q %s: %s", line, have[best].Key, s)
			}
		default:
			g := "none"
			if x.G != nil {
				g = fmt.Sprint(*x.G)
			}
			fail("%q: want %v %s %s: %s", line, x.Key, g, x.Bowl, bestWrong)
		}
	}
	for i, h := range have {
		if !taken[i] {
			fail("%q: item not wanted: %s %s", line, h.Key, h.Bowl)
		}
	}
}

func itemWrong(h Item, x wantItem, kind string) string {
	var w []string
	keyOK := false
	switch k := x.Key.(type) {
	case nil:
		keyOK = h.Key == ""
	case string:
		keyOK = h.Key == k
	case []any:
		keyOK = slices.Contains(k, any(h.Key))
	}
	if !keyOK {
		w = append(w, "key is "+h.Key)
	}
	switch {
	case x.G == nil && h.G == nil, kind == "serve":
	case x.G == nil || h.G == nil:
		if h.G != nil {
			w = append(w, fmt.Sprintf("g is %.1f", *h.G))
		} else if x.G != nil {
			w = append(w, "g is missing")
		}
	case math.Abs(*x.G-*h.G) > *x.G*x.TolPct/100+1e-9:
		w = append(w, fmt.Sprintf("g is %.1f", *h.G))
	}
	if string(h.Bowl) != x.Bowl {
		w = append(w, "bowl is "+string(h.Bowl))
	}
	return strings.Join(w, ", ")
}

func statesWrong(h Item, x wantItem) string {
	var got, want []string
	for _, s := range h.States {
		if s.CutMM > 0 {
			got = append(got, fmt.Sprintf("cut %.0f", s.CutMM))
		} else {
			got = append(got, s.Word)
		}
	}
	for _, s := range x.States {
		switch v := s.(type) {
		case string:
			want = append(want, v)
		case map[string]any:
			if n, ok := v["cut_mm"].(float64); ok {
				want = append(want, fmt.Sprintf("cut %.0f", n))
			} else { // a range
				want = append(want, "cut 15")
			}
		}
	}
	slices.Sort(got)
	slices.Sort(want)
	ask := ""
	if x.Ask != nil {
		ask = *x.Ask
	}
	switch {
	case !slices.Equal(got, want):
		return fmt.Sprintf("states %v, want %v", got, want)
	case string(h.Ask) != ask:
		return fmt.Sprintf("ask %q, want %q", h.Ask, ask)
	case h.AsBought != x.AsBought:
		return fmt.Sprintf("as bought %v", h.AsBought)
	case h.Late != x.Late:
		return fmt.Sprintf("late %v", h.Late)
	}
	return ""
}

func compareSteps(got []Step, want []map[string]any, sum *tally, fail func(string, ...any)) {
	have := make([]map[string]any, len(got))
	for i, s := range got {
		raw, _ := json.Marshal(s)
		_ = json.Unmarshal(raw, &have[i])
	}
	i := 0
	for _, w := range want {
		sum.steps++
		if w["kind"] == "bake" {
			sum.stages++
		}
		j := i
		for j < len(have) && have[j]["kind"] != w["kind"] {
			j++
		}
		if j == len(have) {
			fail("step missing: %s", line(w))
			continue
		}
		for ; i < j; i++ {
			sum.invented++
			fail("step not wanted: %s", line(have[i]))
		}
		wrong := ""
		for k, x := range w {
			if empty(x) && empty(have[j][k]) {
				continue
			}
			if !same(x, have[j][k]) {
				wrong += fmt.Sprintf(" %s is %v, want %v;", k, have[j][k], x)
			}
		}
		for _, k := range []string{"of", "juice", "freezer", "weights", "covered", "cool", "fan", "f", "late", "at_least"} {
			if empty(w[k]) && !empty(have[j][k]) && k != "f" {
				wrong += fmt.Sprintf(" %s is %v, want none;", k, have[j][k])
			}
		}
		if wrong != "" {
			fail("step %v:%s", w["kind"], wrong)
		} else {
			sum.stepsOK++
		}
		if w["kind"] == "bake" && same(w["c"], have[j]["c"]) && same(w["minutes"], have[j]["minutes"]) {
			sum.stagesOK++
		}
		i = j + 1
	}
	for ; i < len(have); i++ {
		sum.invented++
		fail("step not wanted: %s", line(have[i]))
	}
}

func line(m map[string]any) string {
	raw, _ := json.Marshal(m)
	return string(raw)
}

func empty(x any) bool {
	switch v := x.(type) {
	case nil:
		return true
	case bool:
		return !v
	case string:
		return v == ""
	case []any:
		return len(v) == 0
	case float64:
		return v == 0
	}
	return false
}

func same(a, b any) bool {
	switch x := a.(type) {
	case float64:
		y, ok := b.(float64)
		return ok && math.Abs(x-y) < 1.7
	case []any:
		y, ok := b.([]any)
		if !ok || len(x) != len(y) {
			return empty(a) && empty(b)
		}
		if len(x) > 0 {
			if _, text := x[0].(string); text {
				return sorted(x) == sorted(y)
			}
		}
		for i := range x {
			if !same(x[i], y[i]) {
				return false
			}
		}
		return true
	case map[string]any:
		y, ok := b.(map[string]any)
		for k := range x {
			ok = ok && same(x[k], y[k])
		}
		return ok
	}
	return a == b || empty(a) && empty(b)
}

func sorted(x []any) string {
	var s []string
	for _, v := range x {
		s = append(s, fmt.Sprint(v))
	}
	slices.Sort(s)
	return strings.Join(s, " ")
}

func compareAsks(got, want []string, fail func(string, ...any)) {
	g, w := slices.Clone(got), slices.Clone(want)
	slices.Sort(g)
	slices.Sort(w)
	alike := func(a, b string) bool { return a == b || len(b) > 6 && strings.HasSuffix(a, b) }
	if !slices.EqualFunc(g, w, alike) && !(len(g) == len(w) && !slices.ContainsFunc(w, func(x string) bool {
		return !slices.ContainsFunc(g, func(y string) bool { return alike(y, x) })
	})) {
		fail("asks %v, want %v", g, w)
	}
}

// jsonLD takes a recipe out of a page as server/formats does, for the cases that are pages.
func jsonLD(t *testing.T, page string) Source {
	_, rest, _ := strings.Cut(page, `<script type="application/ld+json">`)
	data, _, _ := strings.Cut(rest, "</script>")
	var tree map[string]any
	if err := json.Unmarshal([]byte(data), &tree); err != nil {
		t.Fatal(err)
	}
	if graph, ok := tree["@graph"].([]any); ok {
		tree = graph[1].(map[string]any)
	}
	s := Source{Title: tree["name"].(string)}
	text := func(x any) string {
		return strings.NewReplacer("&deg;", "°", "&amp;", "&", "&nbsp;", " ").Replace(x.(string))
	}
	switch y := tree["recipeYield"].(type) {
	case string:
		s.Yield = y
	case []any:
		s.Yield = y[len(y)-1].(string)
	}
	for _, l := range tree["recipeIngredient"].([]any) {
		s.Ingredients = append(s.Ingredients, text(l))
	}
	switch m := tree["recipeInstructions"].(type) {
	case string:
		s.Method = append(s.Method, text(m))
	case []any:
		for _, step := range m {
			s.Method = append(s.Method, text(step.(map[string]any)["text"]))
		}
	}
	return s
}
