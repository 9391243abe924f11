package balance

import "slices"

// Weighed is a request with its weights held as an answer had them: whatever is otherwise then, the same is in the
// bowls.
func (r Request) Weighed(a *Answer) Request {
	sugar, dose := a.SugarG, a.ThickenerG
	r.WeighFruit(a.FruitG)
	r.SugarG = &sugar
	r.Fruits = slices.Clone(r.Fruits)
	if r.Custard == nil {
		held := ThickenerInput{Key: defaultThickener}
		if r.Thickener != nil {
			held = *r.Thickener
		}
		held.G = &dose
		r.Thickener = &held
	}
	r.SteamedOffG = nil
	return r
}
