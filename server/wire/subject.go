package wire

import (
	"strings"

	"mabbin/server/render"
)

// subjects are the fields as a sentence about them begins, by the last part of their pointer.
var subjects = map[string]string{
	"length_cm":        "Length at rim",
	"width_cm":         "Width at rim",
	"depth_cm":         "Depth",
	"floor_length_cm":  "Length of floor",
	"floor_width_cm":   "Width of floor",
	"measured_ml":      "Measured volume",
	"material":         "Material of the dish",
	"shape":            "Shape of the dish",
	"style":            "Style",
	"share":            "Share of the fruit",
	"weighed_fruit_g":  "Fruit",
	"bought_fruit_g":   "Fruit as bought",
	"fruit_g":          "Fruit",
	"bought_g":         "Fruit as bought",
	"portions":         "Portions",
	"sugar_g":          "Sugar",
	"thickness_mm":     "Topping thickness",
	"coverage":         "Topping coverage",
	"set_target":       "Thickness of the juice",
	"cut_mm":           "Size of pieces",
	"loss_pct":         "Trim",
	"crumb_layer_g":    "Crumbs between the layers",
	"oven_c":           "Oven",
	"minutes":          "Time",
	"name":             "Name",
	"title":            "Title",
	"count":            "Number",
	"altitude_m":       "Altitude",
	"currency":         "Currency",
	"price_per_kg":     "Price",
	"offset_c":         "Oven offset",
	"measured_release": "Share of water released",
}

// subject is the field that a pointer points at, as a sentence about it begins: "Depth", or the path to
// it where it has no words of its own: "fruits 1, peeled".
func subject(pointer string, r render.Reading) string {
	last := pointer[strings.LastIndex(pointer, "/")+1:]
	if words, known := subjects[last]; known {
		return r.Words(words)
	}
	return strings.NewReplacer("_", " ", "/", ", ").Replace(strings.TrimLeft(pointer, "/?"))
}
