package dish

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/fault"
)

func TestMeasure(t *testing.T) {
	cases := []struct {
		name               string
		d                  Dish
		rim, floor, per, v float64
	}{
		{"straight rectangle", Dish{Shape: Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5}, 432, 432, 84, 2160},
		{
			"tapered round",
			Dish{Shape: Round, LengthCM: 30, DepthCM: 5, FloorLengthCM: 27},
			706.858,
			572.555,
			94.248,
			3192.644,
		},
		{"square", Dish{Shape: Square, LengthCM: 20, DepthCM: 4}, 400, 400, 80, 1600},
		{"oval is an ellipse", Dish{Shape: Oval, LengthCM: 30, WidthCM: 20, DepthCM: 5}, 471.239, 471.239, 79.327, 2356.194},
		{
			"water has the last word",
			Dish{Shape: Rectangle, LengthCM: 26, WidthCM: 19, DepthCM: 5.5, MeasuredML: 2150},
			494,
			494,
			90,
			2150,
		},
		{
			"rectangular frustum",
			Dish{Shape: Rectangle, LengthCM: 30, WidthCM: 20, DepthCM: 6, FloorLengthCM: 24, FloorWidthCM: 14},
			600,
			336,
			100,
			2772,
		},
	}
	for _, c := range cases {
		g := c.d.Measure()
		for _, x := range []struct {
			what      string
			got, want float64
		}{{"rim", g.RimAreaCM2, c.rim}, {"floor", g.FloorAreaCM2, c.floor}, {"perimeter", g.PerimeterCM, c.per}, {"volume", g.VolumeML, c.v}} {
			if math.Abs(x.got-x.want) > 0.001*x.want {
				t.Errorf("%s: %s = %.3f, want %.3f", c.name, x.what, x.got, x.want)
			}
		}
	}
}

func TestHeightInvertsVolume(t *testing.T) {
	d := Dish{Shape: Round, LengthCM: 30, DepthCM: 5, FloorLengthCM: 20}
	g := d.Measure()
	last := -1.0
	for ml := 0.0; ml <= g.VolumeML; ml += g.VolumeML / 50 {
		h := g.HeightCM(ml)
		if math.Abs(g.below(h)-ml) > 0.01 {
			t.Errorf("%.0f ml stand %.3f cm high, but below that height are %.2f ml", ml, h, g.below(h))
		}
		if h <= last {
			t.Errorf("%.0f ml stand no higher than less did", ml)
		}
		last = h
	}
	if got := g.HeightCM(g.VolumeML + g.RimAreaCM2); math.Abs(got-6) > 1e-9 {
		t.Errorf("a centimetre over the rim stands at %.3f cm, want 6", got)
	}
	d.MeasuredML = g.VolumeML * 0.9
	if got := d.Measure().HeightCM(d.MeasuredML); math.Abs(got-5) > 1e-6 {
		t.Errorf("the measured volume reaches %.4f cm, want the rim at 5", got)
	}
}

func TestCheckNamesTheWrongSize(t *testing.T) {
	ok := Dish{Shape: Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5}
	cases := []struct {
		name, pointer, says string
		change              func(*Dish)
	}{
		{"zero", "/dish/length_cm", "3 to 100", func(d *Dish) { d.LengthCM = 0 }},
		{"negative", "/dish/depth_cm", "1 to 20", func(d *Dish) { d.DepthCM = -5 }},
		{"four metres", "/dish/length_cm", "3 to 100", func(d *Dish) { d.LengthCM = 400 }},
		{"not a number", "/dish/width_cm", "not a number", func(d *Dish) { d.WidthCM = math.NaN() }},
		{"endless", "/dish/depth_cm", "not a number", func(d *Dish) { d.DepthCM = math.Inf(1) }},
		{"floor wider than rim", "/dish/floor_length_cm", "swapped", func(d *Dish) { d.FloorLengthCM = 26 }},
		{"width of a round dish", "/dish/width_cm", "remove the width", func(d *Dish) { d.Shape = Round }},
		{"unknown shape", "/dish/shape", "rectangle", func(d *Dish) { d.Shape = "star" }},
		{"measured ten times too big", "/dish/measured_ml", "2.2 l", func(d *Dish) { d.MeasuredML = 21600 }},
	}
	for _, c := range cases {
		d := ok
		c.change(&d)
		var f fault.Faults
		d.Check("/dish", &f)
		if len(f) != 1 || f[0].Pointer != c.pointer || !strings.Contains(f[0].Detail.String(), c.says) {
			t.Errorf("%s: got %v, want one fault at %s that says %q", c.name, f, c.pointer, c.says)
		}
	}
	var f fault.Faults
	if ok.Check("/dish", &f); f.Err() != nil {
		t.Errorf("a good dish: %v", f)
	}
}

func TestVolumeAtTurnsHeightBack(t *testing.T) {
	for name, d := range map[string]Dish{
		"straight": {Shape: Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5},
		"sloping":  {Shape: Round, LengthCM: 26, FloorLengthCM: 20, DepthCM: 4.5},
		"measured": {Shape: Oval, LengthCM: 30, WidthCM: 21, DepthCM: 5.5, MeasuredML: 2180},
	} {
		g := d.Measure()
		for _, h := range []float64{-1, 0, 0.3, 1, 2.5, d.DepthCM, d.DepthCM + 1.7} {
			if back := g.HeightCM(g.VolumeAt(h)); math.Abs(back-max(0, h)) > 1e-6 {
				t.Errorf("%s: %g cm hold %.1f ml, and those stand %g cm high", name, h, g.VolumeAt(h), back)
			}
		}
		if got := g.VolumeAt(d.DepthCM); math.Abs(got-g.VolumeML) > 1e-6 {
			t.Errorf("%s: full to the rim it holds %g ml, and not %g", name, got, g.VolumeML)
		}
	}
}

func TestDishInWords(t *testing.T) {
	for want, d := range map[string]Dish{
		"24 × 18 cm, 5 deep":        {Shape: Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5},
		"26 cm round, 5 deep":       {Shape: Round, LengthCM: 26, DepthCM: 5},
		"30 × 21 cm oval, 5.5 deep": {Shape: Oval, LengthCM: 30, WidthCM: 21, DepthCM: 5.5},
	} {
		if got := d.Sizes().String(); got != want || !d.Measured().IsZero() {
			t.Errorf("%s, not %s; water: %s", got, want, d.Measured())
		}
	}
	filled := Dish{Shape: Square, LengthCM: 20, DepthCM: 5, MeasuredML: 1900}
	if got, want := filled.Measured().
		String(),
		"1.9 l measured, 2.0 l computed from its sizes: 5 % less, by rounded corners and thick walls."; got != want {
		t.Errorf("%s, not %s", got, want)
	}
}
