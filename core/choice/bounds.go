package choice

import (
	"mabbin/core/fault"
	"mabbin/core/oven"
)

// Bounds are those of fields that stand in several requests, by name. The contract's that bear a name are written from
// them (api/choices).
var Bounds = map[string]fault.Bounds{
	"oven_offset":  oven.OffsetBounds,
	"give_or_take": oven.GiveOrTakeBounds,
	"camp_oven":    oven.DiameterBounds,
	"heat_factor":  oven.HeatFactorBounds,
	"steam_factor": oven.SteamFactorBounds,
	"altitude":     oven.AltitudeBounds,
}
