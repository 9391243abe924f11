package httpapi

import (
	"context"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/measure"
	"mabbin/core/say"
	"mabbin/core/slip"
	"mabbin/core/wording"
)

// Balance calculates one dessert in one dish.
func (s Server) Balance(_ context.Context, req api.BalanceRequestObject) (api.BalanceResponseObject, error) {
	a, err := balance.Solve(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.Balance200JSONResponse(*a), nil
}

// SimulateBake bakes on paper.
func (s Server) SimulateBake(_ context.Context, req api.SimulateBakeRequestObject) (api.SimulateBakeResponseObject, error) {
	out, err := bake.Run(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.SimulateBake200JSONResponse(*out), nil
}

// BakeSchools shows each way where bakers disagree.
func (s Server) BakeSchools(_ context.Context, req api.BakeSchoolsRequestObject) (api.BakeSchoolsResponseObject, error) {
	out, err := bake.Schools(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.BakeSchools200JSONResponse(out), nil
}

// PlanBake proposes the stages for a dessert and an oven.
func (s Server) PlanBake(_ context.Context, req api.PlanBakeRequestObject) (api.PlanBakeResponseObject, error) {
	out, err := bake.Dessert(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.PlanBake200JSONResponse(*out), nil
}

// Schools shows what each way of doing comes to.
func (s Server) Schools(_ context.Context, req api.SchoolsRequestObject) (api.SchoolsResponseObject, error) {
	out, err := balance.Schools(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.Schools200JSONResponse(out), nil
}

// Start finds the dishes for an amount of fruit or for portions.
func (s Server) Start(_ context.Context, req api.StartRequestObject) (api.StartResponseObject, error) {
	out, err := balance.Start(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.Start200JSONResponse(*out), nil
}

// OtherDish makes the same dessert in other dishes.
func (s Server) OtherDish(_ context.Context, req api.OtherDishRequestObject) (api.OtherDishResponseObject, error) {
	out, err := balance.Other(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.OtherDish200JSONResponse(*out), nil
}

// ProposeDiet proposes what has to change for a diet.
func (s Server) ProposeDiet(_ context.Context, req api.ProposeDietRequestObject) (api.ProposeDietResponseObject, error) {
	out, err := diet.Propose(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.ProposeDiet200JSONResponse(*out), nil
}

// SwapIngredient swaps one ingredient of a topping.
func (s Server) SwapIngredient(_ context.Context, req api.SwapIngredientRequestObject) (api.SwapIngredientResponseObject, error) {
	out, err := diet.Swapped(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.SwapIngredient200JSONResponse(out), nil
}

// FruitTest works out today's release.
func (s Server) FruitTest(_ context.Context, req api.FruitTestRequestObject) (api.FruitTestResponseObject, error) {
	out, err := req.Body.Release()
	if err != nil {
		return nil, err
	}
	return api.FruitTest200JSONResponse(*out), nil
}

// ReadAmount reads what was typed into one field.
func (s Server) ReadAmount(_ context.Context, req api.ReadAmountRequestObject) (api.ReadAmountResponseObject, error) {
	var by measure.Conventions
	if c := req.Body.Cup; c != nil {
		by.Cup = measure.Cup(*c)
	}
	if c := req.Body.Spoon; c != nil {
		by.Spoon = measure.Spoon(*c)
	}
	var d measure.Density
	if key := req.Body.Ingredient; key != nil {
		d = larder.DensityOf(*key)
	}
	a, err := measure.ReadAmount(req.Body.Text, measure.Kind(req.Body.Kind), by, d)
	if err != nil {
		return nil, fault.Faults{{Pointer: "/text", Detail: say.Why(err)}}
	}
	return api.ReadAmount200JSONResponse{Value: a.Value, Unit: api.AmountUnit(a.Unit), Taken: a.Taken}, nil
}

// GetLarder tells the tables to who has to offer a choice.
func (s Server) GetLarder(context.Context, api.GetLarderRequestObject) (api.GetLarderResponseObject, error) {
	return api.GetLarder200JSONResponse(theLarder), nil
}

var theLarder = func() api.Larder {
	l := tablesOf()
	l.Swaps = diet.Swaps()
	l.Bases = each(larder.Bases.All(), func(b larder.Base) api.LarderBase {
		return api.LarderBase{Key: b.Key, Name: b.Name, RawThicknessMm: b.ThicknessMM, UpTheSides: b.UpTheSides, Basis: b.Basis}
	})
	l.Finishes = each(larder.Finishes.All(), func(f larder.Finish) api.LarderFinish {
		return api.LarderFinish{Key: f.Key, Name: f.Name, When: api.LarderFinishWhen(f.When), Looks: f.Looks, Basis: f.Basis}
	})
	l.Usual.OvenLowC, l.Usual.OvenHighC, l.Usual.MinutesLow, l.Usual.MinutesHigh = slip.OvenLowC, slip.OvenHighC, slip.MinutesLow, slip.MinutesHigh
	return l
}()

func tablesOf() api.Larder {
	return api.Larder{
		English: wording.Pairs,
		Figures: append(figureInfo("fruit", larder.FruitFigures), figureInfo("ingredient", larder.IngredientFigures)...),
		Styles: each(balance.Styles(), func(x balance.StyleInfo) api.LarderStyle {
			return api.LarderStyle{Key: x.Key, SetTarget: x.SetTarget, Topping: x.Topping, Base: x.Base, Families: each(x.Families, func(f string) string { return f })}
		}),
		Fruits: each(larder.Fruits.All(), func(f larder.Fruit) api.LarderFruit {
			return api.LarderFruit{
				Key: f.Key, Name: f.Name, Group: f.Group, WaterPct: f.WaterPct, SugarPct: f.SugarPct, AcidPct: f.AcidPct,
				Precook: api.LarderFruitPrecook(f.Precook), BrownsInAir: f.BrownsInAir, DefaultCutMm: f.DefaultCutMM, Counted: f.Counted(),
				Peelable: f.Peelable(), JuiceColour: f.JuiceColour, CompositionBasis: f.CompositionBasis, Figures: figures("fruit", f.Key, larder.FruitFigures),
			}
		}),
		Thickeners: each(larder.Thickeners.All(), func(t larder.Thickener) api.LarderThickener {
			return api.LarderThickener{Key: t.Key, Name: t.Name, Strength: t.Strength, Freeze: t.Freeze, Clarity: t.Clarity, How: t.How, Avoid: t.Avoid, Basis: t.Basis}
		}),
		Toppings: each(larder.Toppings.All(), func(t larder.Topping) api.LarderTopping {
			out := api.LarderTopping{Key: t.Key, Name: t.Name, Family: t.Family, RawThicknessMm: t.ThicknessMM, HydrationPct: t.HydrationPct, MakeAhead: t.MakeAhead, Basis: t.Basis}
			for _, p := range t.Parts {
				i, _ := larder.Ingredients.Get(p.Key)
				out.Parts = append(out.Parts, struct {
					Key  string  `json:"key"`
					Name string  `json:"name"`
					Pct  float64 `json:"pct"`
				}{p.Key, i.Name, p.Pct})
			}
			return out
		}),
		Materials: each(larder.Materials.All(), func(m larder.Material) api.LarderMaterial {
			return api.LarderMaterial{Key: m.Key, Name: m.Name, TypicalUse: m.TypicalUse}
		}),
		Ingredients: each(larder.Ingredients.All(), func(i larder.Ingredient) api.LarderIngredient {
			return api.LarderIngredient{
				Key: i.Key, Name: i.Name, Role: i.Role, Allergens: each(i.Allergens, func(a string) string { return a }),
				CheckLabel: i.AllergenOnPack, Basis: i.Basis, Figures: figures("ingredient", i.Key, larder.IngredientFigures),
			}
		}),
	}
}

// figures are a row's figures by column, as far as the table has them.
func figures(kind, key string, of []larder.Figure) map[string]float64 {
	out := map[string]float64{}
	for _, f := range of {
		if x, ok := larder.TableFigure(kind, key, f.Column); ok {
			out[f.Column] = x
		}
	}
	return out
}

func figureInfo(kind api.LarderFigureKind, of []larder.Figure) []api.LarderFigure {
	return each(of, func(f larder.Figure) api.LarderFigure {
		out := api.LarderFigure{Kind: kind, Column: f.Column, Name: string(f.Name), Unit: string(f.Unit), Low: f.Low, High: f.High}
		if f.Basis != "" {
			out.Basis = &f.Basis
		}
		return out
	})
}

// each maps a list; the answer is never null in JSON.
func each[A, B any](list []A, f func(A) B) []B {
	out := make([]B, len(list))
	for i, x := range list {
		out[i] = f(x)
	}
	return out
}
