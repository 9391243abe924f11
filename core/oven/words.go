package oven

import (
	"math"

	"mabbin/core/message"
)

// About is what an oven is, in a few words.
func (o Oven) About() message.Message {
	if o.Kind == Camp {
		return message.New("camp oven, over coals")
	}
	all := []message.Message{message.New(o.Heating)}
	if o.BottomHeat {
		all = append(all, message.New("bottom heat"))
	}
	if o.Runners > 0 {
		all = append(all, message.New("{n} shelf positions", message.Count(o.Runners)))
	}
	return message.Join(", ", all...)
}

// Off is how far an oven is off what it says; of a camp oven, which says nothing, its size.
func (o Oven) Off() message.Message {
	switch {
	case o.Kind == Camp:
		return message.New("{cm} across", message.Centimetres(o.DiameterCM))
	case o.OffsetC > 0:
		return message.New("{dc} hotter", message.CelsiusDifference(o.OffsetC))
	case o.OffsetC < 0:
		return message.New("{dc} cooler", message.CelsiusDifference(math.Abs(o.OffsetC)))
	case o.GiveOrTakeC > 0:
		return message.New("as its dial")
	}
	return message.New("not measured")
}

// GiveOrTake is how far off it may be in addition to that.
func (o Oven) GiveOrTake() message.Message {
	return message.New("±{dc}", message.CelsiusDifference(o.OffBy()))
}
