package httpapi

import (
	"net/http"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/units"
	"mabbin/server/demo"

	"github.com/gin-gonic/gin"
)

func kitchen(k app.Kitchen) api.Kitchen {
	return api.Kitchen{Id: k.ID, Name: k.Name, Settings: k.Settings, Revision: app.RevisionOf(k)}
}

// listKitchens lists every kitchen.
func (s *server) listKitchens(c *gin.Context) {
	all, err := s.Store.Kitchens(c)
	s.respond(c, http.StatusOK, each(all, kitchen), err)
}

// addKitchen makes a kitchen with nothing in it.
func (s *server) addKitchen(c *gin.Context) {
	in, ok := decode[api.AddKitchenJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	k, err := s.Store.NewKitchen(c, in.Id, in.Name, or(in.Settings, units.Metric))
	s.respond(c, http.StatusCreated, kitchen(k), err)
}

// renameKitchen gives a kitchen another name.
func (s *server) renameKitchen(c *gin.Context) {
	in, ok := decode[api.RenameKitchenJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	k, err := s.Store.RenameKitchen(c, kitchenOf(c), in.Name, when(c))
	s.respond(c, http.StatusOK, kitchen(k), err)
}

// loadDemo loads the demo kitchen.
func (s *server) loadDemo(c *gin.Context) {
	var k app.Kitchen
	_, err := demo.Load(c, s.Store, s.Clock())
	if err == nil {
		k, err = s.Store.OneKitchen(c, demo.Kitchen.ID)
	}
	s.respond(c, http.StatusCreated, kitchen(k), err)
}

// removeKitchen takes a kitchen away with everything in it, where its name is given with it.
func (s *server) removeKitchen(c *gin.Context) {
	p, err := query[api.RemoveKitchenParams](c)
	if err == nil {
		err = s.kitchens.Remove(c, kitchenOf(c), p.Name)
	}
	s.respondNoContent(c, err)
}

// setSettings changes how a kitchen measures.
func (s *server) setSettings(c *gin.Context) {
	in, ok := decode[units.Settings](s, c, nil)
	if !ok {
		return
	}
	k, err := s.Store.SetSettings(c, kitchenOf(c), in, when(c))
	s.respond(c, http.StatusOK, kitchen(k), err)
}

// listDishes lists a kitchen's dishes.
func (s *server) listDishes(c *gin.Context) {
	all, err := s.Store.Dishes(c, kitchenOf(c))
	s.respond(c, http.StatusOK, each(all, shelfDish), err)
}

// checkDish finds what is wrong with a dish that comes with its name.
func checkDish(d dish.Dish) error {
	var f fault.Faults
	balance.CheckDish(d, "/dish", &f)
	return f.Err()
}

// addDish puts a dish on the shelf.
func (s *server) addDish(c *gin.Context) {
	in, ok := decode(s, c, func(x api.NewDish) error { return checkDish(x.Dish) })
	if !ok {
		return
	}
	d := app.KitchenDish{ID: in.Id, Name: in.Name, Dish: in.Dish, Count: or(in.Count, 1)}
	err := checkDish(d.Dish)
	if err == nil {
		err = s.Store.AddDish(c, kitchenOf(c), d)
	}
	s.respond(c, http.StatusCreated, shelfDish(d), err)
}

// changeDish changes a dish on the shelf.
func (s *server) changeDish(c *gin.Context) {
	in, ok := decode(s, c, func(x api.DishChange) error { return checkDish(x.Dish) })
	if !ok {
		return
	}
	d := app.KitchenDish{ID: id(c, "dish"), Name: in.Name, Dish: in.Dish, Count: in.Count}
	err := checkDish(d.Dish)
	if err == nil {
		err = s.Store.ChangeDish(c, kitchenOf(c), d, when(c))
	}
	s.respond(c, http.StatusOK, shelfDish(d), err)
}

// removeDish takes a dish off the shelf.
func (s *server) removeDish(c *gin.Context) {
	s.respondNoContent(c, s.Store.RemoveDish(c, kitchenOf(c), id(c, "dish")))
}

func shelfDish(d app.KitchenDish) api.KitchenDish {
	bySizes := d.Dish
	bySizes.MeasuredML = 0
	reported := api.KitchenDish{
		Id: d.ID, Name: d.Name, Dish: d.Dish, Sizes: d.Dish.Sizes(), Count: d.Count,
		Revision: app.RevisionOf(d), VolumeMl: d.Dish.Measure().VolumeML, ComputedMl: bySizes.Measure().VolumeML,
	}
	if measured := d.Dish.Measured(); !measured.IsZero() {
		reported.Measured = &measured
	}
	return reported
}

// listOvens lists a kitchen's ovens.
func (s *server) listOvens(c *gin.Context) {
	all, err := s.Store.Ovens(c, kitchenOf(c))
	s.respond(c, http.StatusOK, each(all, shelfOven), err)
}

// setOven adds, changes or puts back an oven.
func (s *server) setOven(c *gin.Context) {
	check := func(x api.OvenChange) error {
		var f fault.Faults
		x.Oven.Check("/oven", &f)
		return f.Err()
	}
	in, ok := decode(s, c, check)
	if !ok {
		return
	}
	o := app.KitchenOven{ID: id(c, "oven"), Name: in.Name, Oven: in.Oven}
	err := check(in)
	if err == nil {
		err = s.Store.SetOven(c, kitchenOf(c), o, when(c))
	}
	s.respond(c, http.StatusOK, shelfOven(o), err)
}

// removeOven takes an oven away.
func (s *server) removeOven(c *gin.Context) {
	s.respondNoContent(c, s.Store.RemoveOven(c, kitchenOf(c), id(c, "oven")))
}

func shelfOven(o app.KitchenOven) api.KitchenOven {
	out := api.KitchenOven{
		Id: o.ID, Name: o.Name, Oven: o.Oven, OffByC: o.OffBy(), Revision: app.RevisionOf(o),
		About: o.About(), Off: o.Off(), GiveOrTake: o.GiveOrTake(),
	}
	if r, known := o.ShelfRunners(); known {
		out.Shelves = &r
	}
	return out
}

// listOwn lists what a kitchen knows better than the tables.
func (s *server) listOwn(c *gin.Context) { s.own(c, nil) }

// setOwn keeps figures of the kitchen's own.
func (s *server) setOwn(c *gin.Context) {
	kind, key := larder.Kind(c.Param("kind")), c.Param("key")
	check := func(r larder.OwnRow) error {
		var f fault.Faults
		r.Check("", key, kind, &f)
		return f.Err()
	}
	in, ok := decode(s, c, check)
	if !ok {
		return
	}
	err := check(in)
	if err == nil {
		err = s.Store.SetOwn(c, kitchenOf(c), kind, key, in)
	}
	s.own(c, err)
}

// dropOwn goes back to the table's figures.
func (s *server) dropOwn(c *gin.Context) {
	s.own(c, s.Store.DropOwn(c, kitchenOf(c), larder.Kind(c.Param("kind")), c.Param("key")))
}

// own answers with all of a kitchen's own rows after a change.
func (s *server) own(c *gin.Context, err error) {
	var own *larder.Own
	if err == nil {
		own, err = s.Store.Own(c, kitchenOf(c))
	}
	s.respond(c, http.StatusOK, own, err)
}
