package demo

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"strconv"
	"strings"

	"mabbin/app"
	"mabbin/core/dish"
	"mabbin/server/formats"
)

// topColour is how a topping looks by its word.
var topColour = map[string]color.RGBA{
	"": {
		201,
		150,
		84,
		255,
	},
	"pale":   {233, 208, 160, 255},
	"golden": {205, 152, 82, 255},
	"dark":   {140, 88, 44, 255},
	"burnt":  {70, 46, 32, 255},
}

// drawn is a picture of a bake from above, drawn in the place of a photograph: the dish on a board, crumbs in the
// colour that was reported, juice where it came through.
func drawn(b app.BakeRecord) (app.Picture, error) {
	const w, h = 480, 360
	key := id("picture of " + b.ID.String())
	r := rand.New(rand.NewPCG(uint64(key[0])<<8|uint64(key[1]), 3)) //nolint:gosec // a drawing, the same each time
	top := topColour[""]
	if b.Top != nil {
		top = topColour[*b.Top]
	}
	red, green, blue := colourOf(b.Result.Cutaway.JuiceColour)
	juice := color.RGBA{red, green, blue, 255}
	type crumb struct{ x, y, light float64 }
	const cell, cols, rows = 20, w/20 + 3, h/20 + 3 // a crumb a cell, somewhere in it
	var crumbs [rows][cols]crumb
	for i := range crumbs {
		for j := range crumbs[i] {
			crumbs[i][j] = crumb{
				cell * (float64(j-1) + r.Float64()),
				cell * (float64(i-1) + r.Float64()),
				0.75 + 0.4*r.Float64(),
			}
		}
	}
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			in := within(b.Request.Dish, (float64(x)-w/2)/(w*0.42), (float64(y)-h/2)/(h*0.42))
			var c color.RGBA
			switch {
			case in > 1.06:
				c = shade(color.RGBA{168, 130, 96, 255}, 0.92+0.05*math.Sin(float64(y)/7+2*math.Sin(float64(x)/60)))
			case in > 1:
				c = color.RGBA{238, 240, 242, 255}
			default:
				first, second, light := math.Inf(1), math.Inf(1), 1.0
				for i := y / cell; i < y/cell+3; i++ {
					for _, k := range crumbs[i][x/cell : x/cell+3] {
						d := math.Hypot(float64(x)-k.x, float64(y)-k.y)
						if d < first {
							first, second, light = d, first, k.light
						} else if d < second {
							second = d
						}
					}
				}
				c = shade(top, light*(1.05-0.25*in*in))
				if second-first < 2.2 { // between crumbs the juice shows, most of all at the rim
					c = shade(juice, 0.7)
				}
			}
			img.SetRGBA(x, y, c)
		}
	}
	var buf bytes.Buffer
	if err := png.Encode(&buf, img); err != nil {
		return app.Picture{}, err
	}
	p, err := formats.ReadPicture(&buf)
	if err != nil {
		return app.Picture{}, err
	}
	return app.Picture{ID: key, Width: p.Width, Height: p.Height, JPEG: p.JPEG, Small: p.Small}, nil
}

// within is how far a point is from the middle of a dish to its rim, 1 at the rim.
func within(d dish.Dish, x, y float64) float64 {
	if d.Shape == dish.Round || d.Shape == dish.Oval {
		if d.Shape == dish.Round {
			x *= 4.0 / 3
		}
		return math.Hypot(x, y)
	}
	if d.Shape == dish.Square {
		x *= 4.0 / 3
	}
	return math.Pow(math.Pow(math.Abs(x), 8)+math.Pow(math.Abs(y), 8), 1.0/8)
}

func shade(c color.RGBA, by float64) color.RGBA {
	s := func(v uint8) uint8 { return uint8(min(255, float64(v)*by)) }
	return color.RGBA{s(c.R), s(c.G), s(c.B), 255}
}

// colourOf reads a colour as #RRGGBB.
func colourOf(s string) (r, g, b uint8) {
	n, err := strconv.ParseUint(strings.TrimPrefix(s, "#"), 16, 32)
	if err != nil {
		return 160, 60, 80
	}
	return uint8(n >> 16), uint8(n >> 8), uint8(n)
}
