package recipe

import (
	"context"
	"errors"
	"math"
	"slices"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/topping"
)

// ChangeCode is what of a recipe is changed.
type ChangeCode string

// What may be changed.
const (
	ChangeFruit        ChangeCode = "fruit"
	ChangeSugar        ChangeCode = "sugar"
	ChangeThickener    ChangeCode = "thickener"
	ChangeThickness    ChangeCode = "thickness" // of the topping
	ChangeFat          ChangeCode = "fat"       // of the topping
	ChangeToppingSugar ChangeCode = "topping_sugar"
)

// Change is one thing that is done differently from what was written.
type Change struct {
	Code   ChangeCode      `json:"code"`
	Name   message.Message `json:"name"`
	From   float64         `json:"from"`
	To     float64         `json:"to"`
	Unit   string          `json:"unit"`
	Effect message.Message `json:"effect"` // what it does, in numbers
	Mends  message.Message `json:"mends"`  // the remark that it answers
}

// Mended is a recipe as written, what is wrong with it, and the smallest change that mends it.
type Mended struct {
	Wrong   []balance.Remark // what the recipe is, as written, that it should not be
	Changes []Change         // in the order in which they are made
	Request balance.Request  // with the changes
	Answer  *balance.Answer
}

// wrongCodes are the remarks that say that a recipe is not right as it stands.
var wrongCodes = []string{
	"boils_over", "may_boil_over", "dish_half_empty", "set_off_style", "too_sweet", "too_sharp",
	"topping_thick", "topping_thin", "topping_dusty", "topping_spreads", "topping_pale", "topping_candied",
}

// Wrong picks the remarks of an answer that a change could mend.
func Wrong(a *balance.Answer) []balance.Remark {
	out := []balance.Remark{}
	for _, r := range a.Remarks {
		if slices.Contains(wrongCodes, r.Code) {
			out = append(out, r)
		}
	}
	return out
}

// mends are the changes that answer each remark, in the order in which they are tried: what decides the fruit first,
// for all else follows from it, and the thickener last.
var mends = []struct {
	code    ChangeCode
	unit    string
	name    message.Message
	answers []string
	change  func(balance.Request, *balance.Answer) (r balance.Request, from, to float64)
}{
	{ChangeFruit, "g", message.New("Prepared fruit"), []string{"boils_over", "may_boil_over"}, lessFruit},
	{ChangeThickness, "mm", message.New("Topping"), []string{"topping_thick", "topping_thin"}, otherThickness},
	{ChangeFat, "%", message.New("Fat of the topping"), []string{"topping_dusty", "topping_spreads"}, otherFat},
	{
		ChangeToppingSugar,
		"%",
		message.New("Sugar of the topping"),
		[]string{"topping_pale", "topping_candied"},
		otherToppingSugar,
	},
	{ChangeSugar, "g", message.New("Sugar of the filling"), []string{"too_sweet", "too_sharp"}, otherSugar},
	{ChangeThickener, "g", message.New("Thickener"), []string{"set_off_style"}, otherThickener},
}

// Mend finds the smallest change: every mend that is asked for, one after the other, and of those only the ones that
// the dessert is not right without.
func Mend(as balance.Request) (Mended, error) {
	a, err := balance.Solve(as)
	if err != nil {
		return Mended{}, err
	}
	m := Mended{Wrong: Wrong(a), Request: as, Answer: a, Changes: []Change{}}
	skip := map[ChangeCode]bool{}
	m.apply(as, a, skip)
	for _, c := range slices.Backward(m.Changes) {
		skip[c.Code] = true
		less := m
		less.apply(as, a, skip)
		if len(Wrong(less.Answer)) > len(Wrong(m.Answer)) {
			delete(skip, c.Code)
			continue
		}
		m = less
	}
	return m, nil
}

// apply makes the changes on top of each other.
func (m *Mended) apply(as balance.Request, a *balance.Answer, skip map[ChangeCode]bool) {
	m.Changes, m.Request, m.Answer = []Change{}, as, a
	for _, x := range mends {
		i := slices.IndexFunc(m.Answer.Remarks, func(r balance.Remark) bool { return slices.Contains(x.answers, r.Code) })
		if i < 0 || skip[x.code] {
			continue
		}
		next, from, to := x.change(m.Request, m.Answer)
		b, err := balance.Solve(next)
		if err != nil || math.Abs(to-from) < 1e-6 {
			continue // this mend is not possible here: the remark stays
		}
		m.Changes = append(m.Changes, Change{x.code, x.name, from, to, x.unit, effect(m.Answer, b), m.Answer.Remarks[i].Text})
		m.Request, m.Answer = next, b
	}
}

// effect tells what a change did, in the figures that moved.
func effect(a, b *balance.Answer) message.Message {
	var text []message.Message
	moved := func(as string, x, y, least float64, value func(float64) message.Arg) {
		if math.Abs(x-y) >= least {
			text = append(text, message.New(as, value(x), value(y)))
		}
	}
	share := func(x float64) message.Arg { return message.Number(shown(x), 1) }
	if a.Set.Band != b.Set.Band {
		text = append(text, message.New("{was} to {is}", message.Word(string(a.Set.Band)), message.Word(string(b.Set.Band))))
	}
	moved(
		"space below the rim {was} to {is}",
		a.Fit.HotHeadspaceMM,
		b.Fit.HotHeadspaceMM,
		1,
		func(x float64) message.Arg { return message.Millimetres(math.Round(x)) },
	)
	moved("filling {was} to {is} % sugar", a.SugarPct, b.SugarPct, 0.5, share)
	moved("juice {was} to {is}", a.JuiceG, b.JuiceG, 5, message.Grams)
	moved("topping {was} to {is}", a.ToppingG, b.ToppingG, 3, message.Grams)
	moved("topping {was} to {is} % fat", a.Topping.Texture.FatPct, b.Topping.Texture.FatPct, 0.5, share)
	moved("topping {was} to {is} % sugar", a.Topping.Texture.SugarPct, b.Topping.Texture.SugarPct, 0.5, share)
	moved("portions {was} to {is}", a.Portions.Count, b.Portions.Count, 1, share)
	return message.Join(", ", text...)
}

// lessFruit takes the fruit down to what keeps the free rim, in whole 5 g; sugar and thickener with it, so that a
// filling that was right stays right.
func lessFruit(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	to := 5 * math.Floor(a.Fit.MostFruitG/5)
	for range 8 { // less sugar comes with less fruit, so the first guess leaves room
		k := to / a.FruitG
		r.WeighFruit(to)
		r.SugarG = scaled(a.SugarG, k)
		if r.Thickener != nil && r.Thickener.G != nil {
			t := *r.Thickener
			t.G = scaled(a.ThickenerG, k)
			r.Thickener = &t
		}
		b, err := balance.Solve(r)
		if err != nil || b.Fit.HotHeadspaceMM >= b.Fit.KeepMM-0.5 {
			break
		}
		to -= 5 * math.Ceil(0.02*to/5)
	}
	return r, a.FruitG, to
}

func scaled(g, k float64) *float64 {
	x := shown(g * k)
	return &x
}

// shown rounds to the scale's step: nobody weighs more finely.
func shown(g float64) float64 {
	if g < 10 {
		return math.Round(g*10) / 10
	}
	return math.Round(g)
}

func otherThickness(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	t := a.Topping
	to := math.Floor(t.RatioHigh * t.FruitDepthMM)
	if t.DepthRatio < t.RatioLow {
		to = math.Ceil(t.RatioLow * t.FruitDepthMM)
	}
	r.Topping.ThicknessMM = to
	return r, t.ThicknessMM, to
}

// A little inside the read-out's borders, in percent of the whole.
const (
	enoughFatPct   = 15.0
	muchFatPct     = 28.0
	enoughSugarPct = 13.0
	muchSugarPct   = 37.0
)

func otherFat(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	to := muchFatPct
	if a.Topping.Texture.Fat == topping.Dusty {
		to = enoughFatPct
	}
	return reshare(r, a, "fat", func(t topping.Texture) float64 { return t.FatPct }, to)
}

func otherToppingSugar(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	to := muchSugarPct
	if a.Topping.Texture.Sugar == topping.Pale {
		to = enoughSugarPct
	}
	return reshare(r, a, "sugar", func(t topping.Texture) float64 { return t.SugarPct }, to)
}

// reshare changes the percentages of the ingredients of one role until its share of the topping is to.
func reshare(
	r balance.Request,
	a *balance.Answer,
	of string,
	share func(topping.Texture) float64,
	to float64,
) (balance.Request, float64, float64) {
	from := share(a.Topping.Texture)
	lo, hi := 0.0, 20.0
	var next balance.Request
	for range 40 {
		k := (lo + hi) / 2
		next = r
		next.Topping.BakersPct = map[string]float64{}
		for key, pct := range r.Topping.BakersPct {
			next.Topping.BakersPct[key] = pct
		}
		for _, b := range a.Ticket {
			for _, l := range b.Lines {
				if b.Key == "topping" && l.BakersPct != 100 && role(l.Key, r.Own) == of {
					next.Topping.BakersPct[l.Key] = math.Round(k*l.BakersPct*10) / 10
				}
			}
		}
		b, err := balance.Solve(next)
		if err != nil || share(b.Topping.Texture) > to {
			hi = k
		} else {
			lo = k
		}
	}
	return next, from, to
}

func otherSugar(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	free := r
	free.SugarG = nil
	b, err := balance.Solve(free)
	if err != nil {
		return r, a.SugarG, a.SugarG
	}
	to := shown(b.SugarG)
	r.SugarG = &to
	return r, a.SugarG, to
}

func otherThickener(r balance.Request, a *balance.Answer) (balance.Request, float64, float64) {
	t := *r.Thickener
	t.G = nil
	free := r
	free.Thickener = &t
	b, err := balance.Solve(free)
	if err != nil {
		return r, a.ThickenerG, a.ThickenerG
	}
	to := shown(b.ThickenerG)
	t.G = &to
	r.Thickener = &t
	return r, a.ThickenerG, to
}

// Own is what Mabbin would do with the same fruit in the same dish: everything that was written in grams is left to it.
func Own(as balance.Request) balance.Request {
	r := as
	r.FillWithFruit()
	r.SugarG = nil
	if r.Thickener != nil {
		r.Thickener = &balance.ThickenerInput{Key: r.Thickener.Key}
	}
	r.Topping = balance.ToppingInput{Key: as.Topping.Key}
	if as.Base != nil {
		r.Base = &balance.BaseInput{Key: as.Base.Key}
	}
	return r
}

// Verdict is a recipe whole: as it was understood, and, once nothing is open, what it comes to.
type Verdict struct {
	Rows      []Row            `json:"rows"`
	Open      int              `json:"open"`            // questions left
	Cannot    message.Message  `json:"cannot,omitzero"` // why it can't be judged as it stands
	AsWritten *Version         `json:"as_written,omitempty"`
	Mended    *Version         `json:"mended,omitempty"`
	Own       *Version         `json:"own,omitempty"` // what Mabbin would do
	Wrong     []balance.Remark `json:"wrong,omitempty"`
	Changes   []Change         `json:"changes,omitempty"`
	// Assumed is what the recipe does not say and was taken as usual.
	Assumed []message.Message `json:"assumed,omitempty"`
	Steps   []message.Message `json:"steps,omitempty"` // of the request, in words
	Waits   []message.Message `json:"waits,omitempty"` // what is missing before it can be judged, but for questions
	Asks    []message.Message `json:"asks,omitempty"`  // about an oven or minutes far outside what is usual
	Baked   *bake.RecipeCheck `json:"baked,omitempty"` // as written, where the oven and the minutes are reported
}

// Version is one way to make the dessert.
type Version struct {
	Request balance.Request `json:"request"`
	Answer  balance.Answer  `json:"answer"`
	Weighed message.Message `json:"weighed"` // what goes into it, and how it stands
}

func versionOf(r balance.Request, a *balance.Answer) *Version { return &Version{r, *a, a.Weighed()} }

// Judge says what a recipe comes to in a dish. While questions are open, it answers with the rows alone.
func Judge(ctx context.Context, q Request, p *parse.Vocabulary) (*Verdict, error) {
	rows, err := Read(p, q.Lines, q.Style, q.Conventions(), q.Own)
	if err != nil {
		return nil, err
	}
	v := &Verdict{Rows: rows, Open: Open(rows)}
	v.Assumed = assumed(rows, q.Split)
	if q.Dishes > 1 {
		v.Assumed = append(
			v.Assumed,
			message.New("The amounts are for {n} dishes. The verdict is for one of them, with its share.",
				message.Count(q.Dishes)),
		)
	}
	v.Steps = StepTexts(q.Steps, q.Own)
	if err := q.takeStages(v); err != nil {
		return nil, err
	}
	if q.Dish == nil {
		v.Waits = append(v.Waits, message.New("Choose a dish: the recipe names none."))
	}
	if v.Open > 0 || len(v.Waits) > 0 {
		return v, nil
	}
	as, err := AsWritten(rows, q)
	if err != nil {
		v.Cannot = inWords(err)
		return v, nil
	}
	m, err := Mend(as)
	if err != nil {
		v.Cannot = inWords(err)
		return v, nil
	}
	a, err := balance.Solve(as)
	own, errOwn := balance.Solve(Own(as))
	if err := errors.Join(err, errOwn); err != nil {
		return v, err
	}
	v.AsWritten, v.Mended, v.Own = versionOf(as, a), versionOf(m.Request, m.Answer), versionOf(Own(as), own)
	v.Wrong, v.Changes = m.Wrong, m.Changes
	if s := q.Setting; s != nil && len(s.Stages) > 0 {
		if v.Baked, err = bake.WrittenBake(ctx, as, *s); err != nil {
			return v, err
		}
	}
	return v, nil
}

// takeStages puts the recipe's bake into the setting, and notes what of it is missing.
func (q *Request) takeStages(v *Verdict) error {
	if len(q.Steps) > 0 {
		stages, missing := StagesOf(q.Steps)
		v.Waits = append(v.Waits, missing...)
		if len(missing) == 0 {
			s := bake.Setting{}
			if q.Setting != nil {
				s = *q.Setting
			}
			s.Stages = stages
			if s.Fire == nil && q.Dish != nil {
				s.Fire = fireOf(q.Steps, q.Dish.LengthCM)
			}
			var f fault.Faults
			s.Check("/steps", &f)
			if err := f.Err(); err != nil {
				return err
			}
			q.Setting = &s
		}
	}
	if q.Setting != nil {
		v.Asks = bake.Unusual(q.Setting.Stages)
	}
	return nil
}

// assumed tells what was taken as usual.
func assumed(rows []Row, split map[string]float64) (out []message.Message) {
	if slices.ContainsFunc(rows, func(r Row) bool { return r.Bowl == BaseAndTopping && !r.Out }) && len(split) == 0 {
		out = append(out, message.New(
			"One dough for base and topping: press two thirds of it into the dish and put a third on top."))
	}
	return out
}

// inWords is why a recipe can't be judged, without the pointers: they point into what was made of the lines, not at
// them.
func inWords(err error) message.Message {
	var faults fault.Faults
	if later, ok := fault.AsNotYet(err); ok {
		return later.Detail
	}
	if !errors.As(err, &faults) {
		return message.Of(err)
	}
	var text []message.Message
	for _, f := range faults {
		field, under := strings.CutPrefix(f.Pointer, "/lines")
		if !under {
			field = strings.ReplaceAll(strings.Trim(f.Pointer, "/"), "/", " ")
		}
		if field != "" {
			f.Detail = message.New("{field} {wrong}", message.Text(field), message.Part(f.Detail))
		}
		text = append(text, f.Detail)
	}
	return message.Join("; ", text...)
}
