package wire

import (
	"strings"

	"mabbin/server/render"
)

// subjects are the fields as a sentence about them begins, by the last part of their pointer.
var subjects = map[string]string{
	"length_cm":        "The length of the rim",
	"width_cm":         "The width of the rim",
	"depth_cm":         "The depth of the dish",
	"floor_length_cm":  "The length of the floor",
	"floor_width_cm":   "The width of the floor",
	"measured_ml":      "The measured volume",
	"material":         "What the dish is made of",
	"shape":            "The shape of the dish",
	"style":            "The style",
	"share":            "The share of a fruit",
	"weighed_fruit_g":  "The fruit",
	"bought_fruit_g":   "The fruit, as bought,",
	"fruit_g":          "The fruit",
	"bought_g":         "The fruit, as bought,",
	"portions":         "The number of portions",
	"sugar_g":          "The sugar",
	"thickness_mm":     "The thickness of the topping",
	"coverage":         "The coverage of the topping",
	"set_target":       "The set",
	"cut_mm":           "The size of the pieces",
	"loss_pct":         "What is cut away",
	"crumb_layer_g":    "The crumbs between the layers",
	"oven_c":           "The oven",
	"minutes":          "The time",
	"name":             "The name",
	"title":            "The title",
	"count":            "The number",
	"altitude_m":       "The height above the sea",
	"currency":         "The currency",
	"price_per_kg":     "The price",
	"offset_c":         "How far the oven is off",
	"measured_release": "The share of its water that the fruit gave up",
}

// subject is the field that a pointer points at, as a sentence about it begins: "The depth of the dish", or the path to
// it where it has no words of its own: "fruits 1, peeled".
func subject(pointer string, r render.Reading) string {
	last := pointer[strings.LastIndex(pointer, "/")+1:]
	if words, known := subjects[last]; known {
		return r.Words(words)
	}
	return strings.NewReplacer("_", " ", "/", ", ").Replace(strings.TrimLeft(pointer, "/?"))
}
