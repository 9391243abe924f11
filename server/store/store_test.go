package store_test

import (
	"errors"
	"fmt"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/units"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

var request = balance.Request{
	Dish: dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 5, Material: "enamel"}, Style: "crisp",
	Fruits: []balance.FruitInput{{Key: "plum", Share: 1}}, Topping: balance.ToppingInput{Key: "crisp_oat_nut"},
}

func TestDemoIsLoadedOnceAndCanBeReset(t *testing.T) {
	s := storetest.Open(t)
	now := time.Date(2026, 10, 1, 9, 0, 0, 0, time.UTC)
	for i, want := range []bool{true, false} { // the second time later, as each start does
		if added, err := demo.Load(t.Context(), s, now.Add(time.Duration(i)*time.Hour)); err != nil || added != want {
			t.Fatalf("load %d: %v, %v", i, added, err)
		}
	}
	if _, err := s.AddCard(
		t.Context(),
		demo.Kitchen.ID,
		uuid.New(),
		"Mine",
		app.Version{ID: uuid.New(), Request: request, SavedAt: now},
		app.CardSummary{},
	); err != nil {
		t.Fatal(err)
	}
	if err := demo.Reset(t.Context(), s, now); err != nil {
		t.Fatal(err)
	}
	cards, _, err := s.Cards(t.Context(), demo.Kitchen.ID, app.CardFilter{})
	if err != nil || len(cards) != 13 {
		t.Errorf("%d cards after the reset, %v", len(cards), err)
	}
	dishes, _ := s.Dishes(t.Context(), demo.Kitchen.ID)
	ovens, _ := s.Ovens(t.Context(), demo.Kitchen.ID)
	if len(dishes) != 7 || len(ovens) != 3 {
		t.Errorf("%d dishes, %d ovens", len(dishes), len(ovens))
	}
}

func TestASavedVersionIsNeverChanged(t *testing.T) {
	dsn := storetest.DSN(t)
	s, err := store.Open(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := s.Migrate(t.Context()); err != nil {
		t.Fatal(err)
	}
	if _, err := demo.Load(t.Context(), s, time.Now()); err != nil {
		t.Fatal(err)
	}
	c, err := pgx.Connect(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = c.Close(t.Context()) }()
	for _, sql := range []string{
		`update card_version set note = 'other'`, `update bake set result = '{}'`,
		`insert into dish (id, kitchen_id, name, shape, length_cm, depth_cm, material) select gen_random_uuid(), id, 'x', 'round', -4, 5, 'foil' from kitchen`,
		`insert into dish (id, kitchen_id, name, shape, length_cm, depth_cm, material) select gen_random_uuid(), id, 'x', 'oval', 20, 5, 'foil' from kitchen`,
	} {
		if _, err := c.Exec(t.Context(), sql); err == nil {
			t.Errorf("the database took %s", sql)
		}
	}
}

func TestKitchensAreKeptApart(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, time.Now()); err != nil {
		t.Fatal(err)
	}
	other := app.Kitchen{ID: uuid.New(), Name: "Another", Settings: units.Metric}
	if _, err := s.AddKitchen(ctx, other); err != nil {
		t.Fatal(err)
	}
	cards, _, _ := s.Cards(ctx, demo.Kitchen.ID, app.CardFilter{})
	if _, err := s.Card(ctx, other.ID, cards[0].ID); !errors.Is(err, app.ErrNotFound) {
		t.Errorf("another kitchen's card: %v", err)
	}
	if _, err := s.AddVersion(
		ctx,
		other.ID,
		cards[0].ID,
		app.Version{ID: uuid.New(), Request: request, SavedAt: time.Now()},
		app.CardSummary{},
	); !errors.Is(
		err,
		app.ErrNotFound,
	) {
		t.Errorf("a version of another kitchen's card: %v", err)
	}
	one := 1
	b := app.BakeRecord{
		ID:      uuid.New(),
		Title:   "x",
		BakedAt: time.Now(),
		CardID:  &cards[0].ID,
		Version: &one,
		Request: request,
	}
	if _, err := s.AddBake(ctx, other.ID, b, nil); !errors.Is(err, app.ErrRefused) {
		t.Errorf("a bake of another kitchen's card: %v", err)
	}
	if _, _, err := s.Cards(ctx, uuid.New(), app.CardFilter{}); !errors.Is(err, app.ErrNotFound) {
		t.Errorf("a kitchen that is not there: %v", err)
	}
	if mine, _, err := s.Cards(ctx, other.ID, app.CardFilter{}); err != nil || len(mine) != 0 {
		t.Errorf("%v, %v", mine, err)
	}
}

func TestTwoSavesAtOnceAreTwoVersions(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, time.Now()); err != nil {
		t.Fatal(err)
	}
	cards, _, _ := s.Cards(ctx, demo.Kitchen.ID, app.CardFilter{})
	before := cards[0].Versions[0].Number
	done := make(chan error)
	for range 4 {
		go func() {
			_, err := s.AddVersion(
				ctx,
				demo.Kitchen.ID,
				cards[0].ID,
				app.Version{ID: uuid.New(), Request: request, SavedAt: time.Now()},
				app.CardSummary{},
			)
			done <- err
		}()
	}
	for range 4 {
		if err := <-done; err != nil {
			t.Error(err)
		}
	}
	c, err := s.Card(ctx, demo.Kitchen.ID, cards[0].ID)
	if err != nil || c.Versions[0].Number != before+4 {
		t.Errorf("version %d after four saves on version %d (%v)", c.Versions[0].Number, before, err)
	}
}

// A card or a dish that is sent from several places at once is one; another of its name is refused.
func TestTheSameCardOrDishSentAtOnceIsOne(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, time.Now()); err != nil {
		t.Fatal(err)
	}
	const times, tablets = 30, 6
	for n := range times {
		card, version, dish := uuid.New(), uuid.New(), uuid.New()
		name := fmt.Sprintf("Sent %d", n)
		errs := make(chan error, 2*tablets)
		for range tablets {
			go func() {
				_, err := s.AddCard(
					ctx,
					demo.Kitchen.ID,
					card,
					name,
					app.Version{ID: version, Request: request, SavedAt: time.Now()},
					app.CardSummary{},
				)
				errs <- err
			}()
			go func() {
				errs <- s.AddDish(ctx, demo.Kitchen.ID, app.KitchenDish{ID: dish, Name: name, Count: 1, Dish: request.Dish})
			}()
		}
		for range 2 * tablets {
			if err := <-errs; err != nil {
				t.Fatal(err)
			}
		}
		if c, err := s.Card(ctx, demo.Kitchen.ID, card); err != nil || len(c.Versions) != 1 {
			t.Fatalf("%+v, %v", c, err)
		}
		if err := s.AddDish(
			ctx,
			demo.Kitchen.ID,
			app.KitchenDish{ID: uuid.New(), Name: name, Count: 1, Dish: request.Dish},
		); !errors.Is(
			err,
			app.ErrNameInUse,
		) {
			t.Fatalf("another of its name: %v", err)
		}
	}
}
