package oven

import "mabbin/core/fault"

// What an oven may be: so far off what it says and so sure, a camp oven so large, a bake in it corrected by so much, a
// kitchen so high above the sea.
var (
	OffsetBounds      = fault.Bounds{Low: -80, High: 80, Unit: "C"}
	GiveOrTakeBounds  = fault.Bounds{Low: 0, High: 60, Unit: "C"}
	DiameterBounds    = fault.Bounds{Low: 15, High: 60, Unit: "cm"}
	HeatFactorBounds  = fault.Bounds{Low: 0.3, High: 3}
	SteamFactorBounds = fault.Bounds{Low: 0.2, High: 5}
	AltitudeBounds    = fault.Bounds{Low: -430, High: 6000, Unit: "m"}
)
