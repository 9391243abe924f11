package learn

import "context"

// Foresee is what is foreseen of a plan by a log and the corrections that are used. keep may be nil. A bad request is
// fault.Faults.
func Foresee(ctx context.Context, q LogRequest, plan LoggedBake, used Used, keep Keeper) (*Forecast, error) {
	if err := CheckLog(LogRequest{Bakes: []LoggedBake{plan}}); err != nil {
		return nil, err
	}
	if err := CheckLog(q); err != nil {
		return nil, err
	}
	q.Bakes = append(q.Bakes[:len(q.Bakes):len(q.Bakes)], plan)
	surfaces, err := surfacesOf(ctx, q.Bakes, keep, nil)
	if err != nil {
		return nil, err
	}
	e := newEstimate(q, surfaces)
	e.solve()
	on := make(switches, len(e.all))
	for _, n := range used.Keys() {
		if i, ok := e.at[n]; ok {
			on = on.set(e.group(i), true)
		}
	}
	last := len(e.bakes) - 1
	v := e.outlook(last, e.with(e.without(last, true), on))
	f := v.forecast()
	return &f, ctx.Err()
}
