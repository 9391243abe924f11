package diet

import (
	"encoding/json"
	"errors"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/fault"
)

// Whatever is to suit whom, what is proposed can be balanced, and suits where nothing is left over and no label is to
// be read; or the faults name their fields.
func FuzzPropose(f *testing.F) {
	const dish = `"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"fruits":[{"key":"plum","share":1}],`
	for _, q := range []string{
		`{"request":{` + dish + `"style":"crumble","topping":{"key":"crumble_classic"}},"diets":["vegan","gluten_free"]}`,
		`{"request":{` + dish + `"style":"bar","topping":{"key":"bar_dough"},"base":{"key":"bar_dough"},"custard":{}},"diets":["egg_free"]}`,
		`{"request":{` + dish + `"style":"cobbler","topping":{"key":"cobbler_drop"}},"diets":["dairy_free","nut_free"]}`,
		`{"request":{` + dish + `"style":"crisp","topping":{"key":"crisp_oat_nut"}},"diets":["nut_free"]}`,
	} {
		f.Add([]byte(q))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var q Request
		if json.Unmarshal(raw, &q) != nil {
			t.Skip()
		}
		p, err := Propose(q)
		if err != nil {
			_, later := fault.AsNotYet(err)
			if !later && !errors.As(err, new(fault.Faults)) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		a, err := balance.Solve(p.Request)
		if err != nil {
			t.Fatalf("%s: what is proposed can't be balanced: %v", raw, err)
		}
		if len(p.Left) > 0 || len(p.CheckLabel) > 0 {
			return
		}
		for _, d := range q.Diets {
			if !Suits(a, d) {
				t.Fatalf("%s: nothing is left over, and it is not %s", raw, d)
			}
		}
	})
}
