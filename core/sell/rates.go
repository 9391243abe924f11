package sell

import "mabbin/core/fault"

// Rates are what a kitchen calculates ovens, hands and prices with. Zero: not reported, and not counted, or the usual.
type Rates struct {
	OvenKW         float64 `json:"oven_kw,omitempty"` // 0: 2.5
	MinorPerKWh    float64 `json:"minor_per_kwh,omitempty"`
	MinorPerHour   float64 `json:"minor_per_h,omitempty"` // of hands
	PackagingMinor float64 `json:"packaging_minor,omitempty"`
	WantedSharePct float64 `json:"wanted_share_pct,omitempty"` // of ingredients in the price; 0: 30
	TaxPct         float64 `json:"tax_pct,omitempty"`
	EndingMinor    int64   `json:"ending_minor,omitempty"` // prices are multiples of it; 0: 10
}

// Work is what making a dessert takes in addition to its ingredients, min.
type Work struct {
	WarmMin, HoldMin float64 // of its oven
	HandsMin         float64
}

// An oven by working figures: its power, and how much of it while it holds.
const (
	ovenKW, ovenDuty = 2.5, 0.5
)

func (r Rates) check(f *fault.Faults) {
	f.Range("/rates/oven_kw", r.OvenKW, 0, 50, "")
	f.Range("/rates/minor_per_kwh", r.MinorPerKWh, 0, 1e5, "")
	f.Range("/rates/minor_per_h", r.MinorPerHour, 0, 1e6, "")
	f.Range("/rates/packaging_minor", r.PackagingMinor, 0, 1e5, "")
	if r.WantedSharePct != 0 {
		f.Range("/rates/wanted_share_pct", r.WantedSharePct, 1, 100, "%")
	}
	f.Range("/rates/tax_pct", r.TaxPct, 0, 100, "%")
	f.Range("/rates/ending_minor", float64(r.EndingMinor), 0, 1e5, "")
}

// of puts the rates to a request for a cost.
func (r Rates) of(q *CostRequest, w Work) {
	q.WantedSharePct, q.EndingMinor, q.TaxPct, q.PackagingMinor = wantedSharePct, endingMinor, r.TaxPct, r.PackagingMinor
	if r.WantedSharePct > 0 {
		q.WantedSharePct = r.WantedSharePct
	}
	if r.EndingMinor > 0 {
		q.EndingMinor = r.EndingMinor
	}
	if r.MinorPerKWh > 0 {
		kw := ovenKW
		if r.OvenKW > 0 {
			kw = r.OvenKW
		}
		q.Oven = &OvenUse{
			KW: kw, WarmMin: w.WarmMin, HoldMin: w.HoldMin, Duty: ovenDuty, MinorPerKWh: r.MinorPerKWh, Share: 1,
		}
	}
	if r.MinorPerHour > 0 {
		q.Hands = &LabourUse{Minutes: w.HandsMin, MinorPerH: r.MinorPerHour}
	}
}
