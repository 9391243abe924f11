package bake

// Cooling is how the middle of a dessert cools on a rack in the kitchen, in min from when it is out of the oven. A
// custard may be out before it is as hot as the first of them.
type Cooling struct {
	ToHot   float64 // as hot as it is eaten, 80 C
	ToWarm  float64 // from here on it is warm, 60 C
	ToTepid float64 // no longer warm, 45 C
}

// The temperatures of the middle at which a dessert is served, C.
const (
	hottestServedC = 80.0
	warmFromC      = 60.0
	tepidFromC     = 45.0
)

// CoolingOf bakes a dessert by its stages and lets it cool.
func CoolingOf(r Request, stages []Stage) (Cooling, error) {
	r.Stages = stages
	if err := Check(r); err != nil {
		return Cooling{}, err
	}
	x := bakeThrough(&r, stages)
	x.curves = nil
	out := x.c.now / 60
	x.turn(Stage{OvenC: rackC, Heating: "rack"})
	return Cooling{
		ToHot:   x.coolsTo(out, hottestServedC, (*model).middleC),
		ToWarm:  x.coolsTo(out, warmFromC, (*model).middleC),
		ToTepid: x.coolsTo(out, tepidFromC, (*model).middleC),
	}, nil
}
