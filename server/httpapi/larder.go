package httpapi

import (
	"net/http"
	"slices"

	"mabbin/api"
	"mabbin/core/choice"
	"mabbin/core/diet"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
	"mabbin/core/units"
	"mabbin/server/render"

	"github.com/gin-gonic/gin"
)

// getLarder tells the tables to who has to offer a choice.
func (s *server) getLarder(c *gin.Context) {
	l := theLarder
	r := s.reading(c)
	l.TypicalDishes = typicalDishes(r.Lengths == "in")
	l.Reading = figureReading(r)
	s.respond(c, http.StatusOK, l, nil)
}

// figureReading is how figures are read, for those that stand in a frame of the page.
func figureReading(r render.Reading) api.FigureReading {
	out := api.FigureReading{
		Mark: r.Mark(), Forms: map[string]api.FigureForm{}, Dials: map[string]api.FigureForm{},
	}
	form := func(f render.Form) api.FigureForm {
		return each(f, func(x render.FormRange) api.FigureRange {
			return api.FigureRange{
				Below: x.Below, Times: x.Times, Plus: x.Plus, Nearest: x.Nearest, Digits: x.Digits, Always: x.Always,
				Parts: x.Parts, Marks: append([]units.GasMark{}, x.Marks...), Before: x.Before, Unit: x.Unit,
			}
		})
	}
	for kind, f := range r.Forms() {
		out.Forms[string(kind)] = form(f)
	}
	for _, shows := range render.Dials {
		out.Dials[shows] = form(render.Dial(shows))
	}
	return out
}

func typicalDishes(inches bool) []api.TypicalDish {
	return each(dish.TypicalDishes(inches), func(d dish.Typical) api.TypicalDish {
		return api.TypicalDish{
			Key:      d.Key,
			Name:     larder.Name(d.Name),
			Count:    d.Count,
			Dish:     d.Dish,
			Sizes:    d.Dish.Sizes(),
			VolumeMl: d.Dish.Measure().VolumeML,
		}
	})
}

var theLarder = func() api.Larder {
	l := tablesOf()
	l.Swaps = diet.Swaps()
	l.Abouts = choice.Abouts
	l.Choices = map[string][]message.Choice{}
	for name, list := range choice.Lists {
		l.Choices[name] = list
	}
	l.Doughs = each(topping.Doughs, func(x topping.Dough) api.LarderDough {
		return api.LarderDough{Dough: string(x.Is), HydrationPct: x.HydrationPct}
	})
	l.Switches = each(units.Switches, func(x units.Switch) api.SettingSwitch {
		return api.SettingSwitch{Key: x.Key, Title: x.Title, About: x.About, Choices: x.Choices}
	})
	l.Allergens = each(larder.Allergens, func(a larder.Allergen) api.LarderAllergen {
		return api.LarderAllergen{Key: a.Key, Name: a.Name}
	})
	l.Habits = each(units.Habits(), func(h units.Habit) api.Habit {
		return api.Habit{Key: api.HabitKey(h.Key), Name: h.Name, Text: h.Text, Settings: h.Settings}
	})
	l.Bases = each(larder.Bases.All(), func(b larder.Base) api.LarderBase {
		return api.LarderBase{
			Key:            b.Key,
			Name:           larder.Name(b.Name),
			RawThicknessMm: b.ThicknessMM,
			UpTheSides:     b.UpTheSides,
			Basis:          b.Basis,
		}
	})
	l.Finishes = each(larder.Finishes.All(), func(f larder.Finish) api.LarderFinish {
		return api.LarderFinish{
			Key:   f.Key,
			Name:  larder.Name(f.Name),
			When:  api.LarderFinishWhen(f.When),
			Looks: message.New(f.Looks),
			Basis: f.Basis,
		}
	})
	return l
}()

func tablesOf() api.Larder {
	return api.Larder{
		Figures: slices.Concat(
			figureInfo(larder.OfFruit, larder.FruitFigures), figureInfo(larder.OfIngredient, larder.IngredientFigures),
			figureInfo(larder.OfThickener, larder.ThickenerFigures), figureInfo(larder.OfTopping, larder.ToppingFigures),
		),
		Styles: each(larder.Styles.All(), func(x larder.Style) api.LarderStyle {
			return api.LarderStyle{
				Key:       x.Key,
				SetTarget: x.UsualSet,
				Topping:   x.Topping,
				Base:      x.Base,
				Custard:   x.Custard,
				Families:  each(x.Families, func(f string) string { return f }),
			}
		}),
		Fruits: each(larder.Fruits.All(), func(f larder.Fruit) api.LarderFruit {
			return api.LarderFruit{
				Key:              f.Key,
				Name:             larder.Name(f.Name),
				Group:            f.Group,
				WaterPct:         f.WaterPct,
				SugarPct:         f.SugarPct,
				AcidPct:          f.AcidPct,
				Precook:          f.Precook,
				BrownsInAir:      f.BrownsInAir,
				DefaultCutMm:     f.DefaultCutMM,
				Counted:          f.Counted(),
				Peelable:         f.Peelable(),
				KeepsSkin:        f.KeepsSkin(),
				JuiceColour:      f.JuiceColour,
				CompositionBasis: f.CompositionBasis,
				Figures:          figures(larder.OfFruit, f.Key, larder.FruitFigures),
			}
		}),
		Thickeners: each(larder.Thickeners.All(), func(t larder.Thickener) api.LarderThickener {
			return api.LarderThickener{
				Key:      t.Key,
				Name:     larder.Name(t.Name),
				Strength: t.Strength,
				Freeze:   message.New(t.Freeze),
				Clarity:  message.New(t.Clarity),
				How:      message.New(t.Method),
				Avoid:    t.Avoid,
				Basis:    t.Basis,
				Figures:  figures(larder.OfThickener, t.Key, larder.ThickenerFigures),
			}
		}),
		Toppings: each(larder.Toppings.All(), func(t larder.Topping) api.LarderTopping {
			out := api.LarderTopping{
				Key:            t.Key,
				Name:           larder.Name(t.Name),
				Family:         t.Family,
				RawThicknessMm: t.ThicknessMM,
				HydrationPct:   t.HydrationPct,
				Layers:         t.Layers,
				Layered:        t.Layered(),
				MakeAhead:      message.New(t.MakeAhead),
				Basis:          t.Basis,
				Figures:        figures(larder.OfTopping, t.Key, larder.ToppingFigures),
			}
			out.Parts = make([]struct {
				Key  string      `json:"key"`
				Name larder.Name `json:"name"`
				Pct  float64     `json:"pct"`
			}, 0, len(t.Parts))
			for _, p := range t.Parts {
				i, _ := larder.Ingredients.Get(p.Key)
				out.Parts = append(out.Parts, struct {
					Key  string      `json:"key"`
					Name larder.Name `json:"name"`
					Pct  float64     `json:"pct"`
				}{p.Key, larder.Name(i.Name), p.Pct})
			}
			return out
		}),
		Materials: each(larder.Materials.All(), func(m larder.Material) api.LarderMaterial {
			return api.LarderMaterial{Key: m.Key, Name: larder.Name(m.Name), TypicalUse: message.New(m.TypicalUse)}
		}),
		Ingredients: each(larder.Ingredients.All(), func(i larder.Ingredient) api.LarderIngredient {
			return api.LarderIngredient{
				Key:        i.Key,
				Name:       larder.Name(i.Name),
				Role:       i.Role,
				WithFruit:  i.WithFruit(),
				ForTopping: i.ForTopping(),
				Allergens:  each(i.Allergens, func(a string) string { return a }),
				CheckLabel: i.AllergenOnPack,
				Basis:      i.Basis,
				Figures:    figures(larder.OfIngredient, i.Key, larder.IngredientFigures),
			}
		}),
	}
}

// figures are a row's figures by column, as far as the table has them.
func figures(kind larder.Kind, key string, of []larder.Figure) map[string]float64 {
	out := map[string]float64{}
	for _, f := range of {
		if x, ok := larder.TableFigure(kind, key, f.Column); ok {
			out[f.Column] = x
		}
	}
	return out
}

func figureInfo(kind larder.Kind, of []larder.Figure) []api.LarderFigure {
	return each(of, func(f larder.Figure) api.LarderFigure {
		out := api.LarderFigure{
			Kind:   kind,
			Column: f.Column,
			Name:   message.New(f.Name),
			Unit:   message.New(f.Unit),
			Low:    f.Low,
			High:   f.High,
		}
		if f.Basis != "" {
			out.Basis = &f.Basis
		}
		return out
	})
}
