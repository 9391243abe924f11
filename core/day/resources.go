package day

import (
	"fmt"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/oven"
	"mabbin/core/topping"
)

// Resources is what a kitchen has for its days: hands, tiers of its ovens, places and mixers.
type Resources struct {
	People []Person       `json:"people"`
	Ovens  []OvenCapacity `json:"ovens"`
	Places []Place        `json:"places"` // rack and fridge
	Mixers int            `json:"mixers"`
	// WashMin is how long a dish is at the wash-up before it can be filled again.
	WashMin int `json:"wash_min"`
	// MixG is the most topping or dough that is mixed at once; 0: any amount.
	MixG float64 `json:"mix_g,omitempty"`
	// BowlML is the volume of the bowl that it is mixed in; 0: unknown.
	BowlML float64 `json:"bowl_ml,omitempty"`
	// Dishes are the sizes outside of dishes of the shelf, where they were measured.
	Dishes []Vessel `json:"dishes,omitempty"`
	// SavedDays are orders kept under a name, for any day.
	SavedDays []SavedDay `json:"saved_days,omitempty"`
}

// Vessel is how much room a dish of the shelf takes in an oven, over its handles.
type Vessel struct {
	Dish     string  `json:"dish"` // its id on the shelf
	LengthCM float64 `json:"length_cm"`
	WidthCM  float64 `json:"width_cm"`
}

// mostMixG is the most of a dessert's topping that is mixed at once; 0: any amount.
func (h Resources) mostMixG(r balance.Request) float64 {
	t, _ := r.Own.Topping(r.Topping.Key)
	return topping.MostMixG(h.MixG, h.BowlML, t.DensityGPerML)
}

// UsualOutside is what a dish of the shelf takes where nobody has measured it.
func UsualOutside(d KitchenDish) Vessel {
	length, width := d.Dish.Outside()
	return Vessel{d.ID, length, width}
}

// SavedDay is what is wanted of a day as it often is.
type SavedDay struct {
	Name   string  `json:"name"`
	Orders []Order `json:"orders"`
}

const mostUsualDays = 30

// OvenCapacity is what a day has to know of one of the shelf's ovens.
type OvenCapacity struct {
	Oven        string  `json:"oven"` // its id on the shelf
	Tiers       []Tier  `json:"tiers"`
	WarmCPerMin float64 `json:"warm_c_per_min"`
	CoolCPerMin float64 `json:"cool_c_per_min"`
	DoorMin     float64 `json:"door_min,omitempty"` // that one opening costs what is in it; left out: a working figure
}

// What a kitchen has that has reported nothing: one pair of hands from seven to seven, and a domestic oven's middle
// shelf. Working figures.
const (
	handsFrom, handsTo = 7 * 60, 19 * 60
	usualTierWide      = 45.0
	usualTierDeep      = 36.0
	usualWashMin       = 10
	usualDoorMin       = 1.0 // the door open for half a minute, and the heat that comes back
)

// WarmMinutes is how long a usual oven takes from the kitchen's heat to a temperature, C.
func WarmMinutes(ovenC float64) float64 { return max(0, ovenC-usualRoomC) / warmCPerMin }

// Usual fills in what a kitchen has not reported; ovens are the ids of those on its shelf.
func (h Resources) Usual(ovens []string) Resources {
	if len(h.People) == 0 {
		h.People = []Person{{ID: "People", Hours: []Span{{handsFrom, handsTo}}}}
	}
	if h.WashMin == 0 {
		h.WashMin = usualWashMin
	}
	reported := map[string]OvenCapacity{}
	for _, o := range h.Ovens {
		reported[o.Oven] = o
	}
	all := make([]OvenCapacity, len(ovens))
	for i, id := range ovens {
		o := reported[id]
		o.Oven = id
		if len(o.Tiers) == 0 {
			o.Tiers = []Tier{{ID: "middle", Shelf: "middle", WidthCM: usualTierWide, DepthCM: usualTierDeep}}
		}
		if o.WarmCPerMin == 0 {
			o.WarmCPerMin = warmCPerMin
		}
		if o.DoorMin == 0 {
			o.DoorMin = usualDoorMin
		}
		if o.CoolCPerMin == 0 {
			o.CoolCPerMin = coolCPerMin
		}
		all[i] = o
	}
	h.Ovens = all
	if h.Places == nil {
		h.Places = []Place{}
	}
	return h
}

// CheckResources finds every wrong field.
func CheckResources(h Resources) error {
	var f fault.Faults
	names := map[string]bool{}
	for i, p := range h.People {
		at := fmt.Sprintf("/people/%d", i)
		if p.ID == "" || names[p.ID] {
			f.Add(at+"/id", message.New("is {name}: each person needs a different name", message.Text(p.ID)))
		}
		names[p.ID] = true
		if len(p.Hours) == 0 {
			f.Add(at+"/hours", message.New("is empty: enter the hours"))
		}
		checkHours(at+"/hours", p.Hours, &f)
		checkHours(at+"/breaks", p.Breaks, &f)
	}
	for i, o := range h.Ovens {
		at := fmt.Sprintf("/ovens/%d", i)
		f.Range(at+"/warm_c_per_min", o.WarmCPerMin, 0, 100, "C")
		f.Range(at+"/cool_c_per_min", o.CoolCPerMin, 0, 100, "C")
		f.Range(at+"/door_min", o.DoorMin, 0, 20, "min")
		for j, t := range o.Tiers {
			at := fmt.Sprintf("%s/tiers/%d", at, j)
			f.Among(at, "/shelf", t.Shelf, oven.Heights)
			f.RangeAt(at, "/width_cm", t.WidthCM, 10, 300, "cm")
			f.RangeAt(at, "/depth_cm", t.DepthCM, 10, 300, "cm")
		}
	}
	for i, p := range h.Places {
		at := fmt.Sprintf("/places/%d", i)
		f.OneOfAt(at, "/id", p.ID, "rack", "fridge")
		f.RangeAt(at, "/area_cm2", p.AreaCM2, 0, 1e6, "cm2")
	}
	f.Length("", "/usual_days", len(h.SavedDays), 0, mostUsualDays)
	names = map[string]bool{}
	for i, u := range h.SavedDays {
		at := fmt.Sprintf("/usual_days/%d", i)
		if u.Name == "" || len([]rune(u.Name)) > longestName || names[u.Name] {
			f.Add(at+"/name", message.New("is {name}: each saved day needs a different name", message.Text(u.Name)))
		}
		names[u.Name] = true
		if len(u.Orders) == 0 {
			f.Add(at+"/orders", message.New("is empty: save a day that has orders"))
		}
		checkOrders(at, u.Orders, &f)
	}
	for i, d := range h.Dishes {
		at := fmt.Sprintf("/dishes/%d", i)
		f.RangeAt(at, "/length_cm", d.LengthCM, 3, 120, "cm")
		f.RangeAt(at, "/width_cm", d.WidthCM, 3, 120, "cm")
	}
	if h.BowlML != 0 {
		f.Range("/bowl_ml", h.BowlML, 200, 2e5, "ml")
	}
	if h.MixG != 0 {
		f.Range("/mix_g", h.MixG, 100, 1e5, "g")
	}
	f.Range("/mixers", float64(h.Mixers), 0, 20, "")
	f.Range("/wash_min", float64(h.WashMin), 0, 600, "min")
	return f.Err()
}

func checkHours(at string, spans []Span, f *fault.Faults) {
	for i, s := range spans {
		if s.From < 0 || s.To > 2*1440 || s.From >= s.To {
			f.Add(fmt.Sprintf("%s/%d", at, i), message.New("ends before it begins: enter a later end"))
		}
	}
}
