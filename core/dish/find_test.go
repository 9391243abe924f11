package dish

import (
	"testing"

	"mabbin/core/fault"
)

func TestFindADish(t *testing.T) {
	for text, want := range map[string]Dish{
		"Butter a 9x13-inch pan.":                        {Rectangle, 33.02, 22.86, 5, 0, 0, 0, "thin_metal"},
		"a 23 x 33 cm (9 by 13 inch) ceramic dish":       {Rectangle, 33, 23, 5, 0, 0, 0, "stoneware"},
		"Bake in an 8-inch square baking pan until done": {Square, 20.32, 0, 5, 0, 0, 0, "thin_metal"},
		"into a 20 x 20 x 6 cm tin":                      {Square, 20, 0, 6, 0, 0, 0, "thin_metal"},
		"a 9-inch pie dish":                              {Round, 22.86, 0, 4, 0, 0, 0, "enamel"},
		"a 26cm round dish":                              {Round, 26, 0, 5, 0, 0, 0, "stoneware"},
		"a 10-inch cast-iron skillet":                    {Round, 25.4, 0, 5, 0, 0, 0, "cast_iron"},
	} {
		got, ok := Find(text)
		if !ok || !near1(got.LengthCM, want.LengthCM) || !near1(got.WidthCM, want.WidthCM) || got.Shape != want.Shape ||
			got.DepthCM != want.DepthCM || got.Material != want.Material {
			t.Errorf("%q: %+v, want %+v", text, got, want)
		}
	}
	for _, text := range []string{"", "Bake for 45 min at 180 C", "a 2 cm layer", "cut into 3 cm pieces", "a 99999 x 1 inch pan"} {
		if d, ok := Find(text); ok {
			t.Errorf("%q is %+v", text, d)
		}
	}
}

func near1(a, b float64) bool { return a-b < 0.05 && b-a < 0.05 }

func FuzzFind(f *testing.F) {
	f.Add("9x13-inch pan")
	f.Add("26 cm round dish")
	f.Fuzz(func(t *testing.T, text string) {
		d, ok := Find(text)
		if !ok {
			return
		}
		var faults fault.Faults
		d.Check("", &faults)
		if faults.Err() != nil {
			t.Errorf("%q: %+v, %v", text, d, faults)
		}
	})
}
