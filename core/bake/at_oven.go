package bake

import "context"

// AtOven is the bake at one temperature of the dial throughout, C, with one change of its cover at most; false where it
// does not comes out right so. It ends with ctx.
func (q PlanRequest) AtOven(ctx context.Context, ovenC float64) ([]Stage, bool, error) {
	q = q.usual()
	best, err := q.race(ctx, []float64{ovenC + q.Bake.OvenOffsetC}, q.courses(), coverEvery)
	if err != nil {
		return nil, false, err
	}
	stages := q.stages(best)
	for i := range stages { // the dial is what was asked for, and not rounded from it
		if !q.coldStart() || i > 0 {
			stages[i].OvenC = ovenC
		}
	}
	x := q.withMargin(stages)
	return x.stages, q.unmet(x.state()) == 0, nil
}
