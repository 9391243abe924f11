package oven

import "testing"

func TestOvenInWords(t *testing.T) {
	for want, o := range map[string]Oven{
		"fan, bottom heat, 5 shelf positions; 8 C hotter; ±3 C": {
			Kind: Indoor, Heating: "fan", BottomHeat: true, Runners: 5, OffsetC: 8, GiveOrTakeC: 3,
		},
		"conventional; 12 C cooler; ±10 C":           {Kind: Indoor, Heating: "conventional", OffsetC: -12},
		"conventional; as its dial; ±4 C":            {Kind: Indoor, Heating: "conventional", GiveOrTakeC: 4},
		"conventional; not measured; ±10 C":          {Kind: Indoor, Heating: "conventional"},
		"camp oven, over coals; 30 cm across; ±20 C": {Kind: Camp, Heating: "conventional", DiameterCM: 30},
	} {
		if got := o.About().String() + "; " + o.Off().String() + "; " + o.GiveOrTake().String(); got != want {
			t.Errorf("%s, not %s", got, want)
		}
	}
}
