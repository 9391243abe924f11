package httpapi

import (
	"net/http"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/units"
	"mabbin/server/formats"
	"mabbin/server/render"

	"github.com/gin-gonic/gin"
)

// tables is the vocabulary of a kitchen without anything of its own.
var tables = larder.Vocabulary(nil)

// stockOf is the names that a request's kitchen knows.
func stockOf(own *larder.Own) *parse.Vocabulary {
	if own == nil || len(own.Fruits)+len(own.Ingredients) == 0 {
		return tables
	}
	return larder.Vocabulary(own)
}

// readAmount reads what was typed into one field.
func (s *server) readAmount(c *gin.Context) {
	in, ok := decode[api.AmountRequest](s, c, nil)
	if !ok {
		return
	}
	by := units.Conventions{Cup: units.Cup(or(in.Cup, "")), Spoon: units.Spoon(or(in.Spoon, ""))}
	var d units.Density
	if in.Ingredient != nil {
		d = larder.DensityOf(*in.Ingredient)
	}
	a, err := parse.ReadAmount(in.Text, units.Kind(in.Kind), by, d)
	if err != nil {
		err = fault.Faults{{Pointer: "/text", Detail: message.Of(err)}}
	}
	s.respond(c, http.StatusOK, api.Amount{Value: a.Value, Unit: api.AmountUnit(a.Unit), Taken: a.Assumption}, err)
}

// measure understands what a baker wrote, line by line.
func (s *server) measure(c *gin.Context) {
	in, ok := decode(s, c, recipe.CheckMeasure)
	if !ok {
		return
	}
	out, err := recipe.Measure(in, stockOf(in.Own))
	s.respond(c, http.StatusOK, out, err)
}

// judgeRecipe says what a recipe comes to in a dish.
func (s *server) judgeRecipe(c *gin.Context) {
	in, ok := decode(s, c, recipe.Check)
	if !ok {
		return
	}
	out, err := recipe.Judge(c, in, stockOf(in.Own))
	s.respond(c, http.StatusOK, out, err)
}

// writeRecipe writes a recipe that came in, mended, in its writer's own order and units.
func (s *server) writeRecipe(c *gin.Context) {
	in, ok := decode(s, c, func(q api.WriteRecipeJSONRequestBody) error {
		return fault.Under("/recipe", recipe.Check(q.Recipe))
	})
	if !ok {
		return
	}
	v, err := recipe.Judge(c, in.Recipe, stockOf(in.Recipe.Own))
	if err != nil {
		s.fail(c, fault.Under("/recipe", err))
		return
	}
	d := recipe.Document{Name: in.Name, Yield: or(in.Yield, ""), Reading: in.Reading}
	f, err := formats.WriteWritten(in.Format, recipe.Rewrite(d, in.Recipe, v), s.reading(c))
	s.respond(c, http.StatusOK, api.ExportedFile{Filename: f.Name, MediaType: f.MediaType, Content: f.Content}, err)
}

// importRecipe finds the recipe in a file or in pasted text.
func (s *server) importRecipe(c *gin.Context) {
	in, ok := decode[api.ImportRequest](s, c, nil)
	if !ok {
		return
	}
	found, err := formats.Find(or(in.Filename, ""), in.Content)
	if err != nil {
		s.fail(c, fault.Under("/content", err))
		return
	}
	if found.Card != nil {
		s.respond(c, http.StatusOK, &recipe.Document{
			Format: found.Format,
			Name:   found.Card.Name,
			Lines:  []recipe.LineRequest{},
			Steps:  []reader.Step{},
			Dishes: 1,
			Card:   found.Card,
		}, nil)
		return
	}
	d, err := s.imports.Read(c, in.Kitchen, found.Source)
	if d != nil {
		d.Format = found.Format
	}
	s.respond(c, http.StatusOK, d, fault.Under("/content", err))
}

// cardFault finds what is wrong with a card that is given away.
func cardFault(card recipe.Card) error {
	return fault.Under("/card/request", balance.Check(card.Request))
}

// withSteam is a dessert whose steam is known by its bake: a sheet weighs what the Bench weighs. The card keeps none.
func withSteam(r balance.Request, steam *float64) balance.Request {
	if steam != nil && r.SteamedOffG == nil {
		r.SteamedOffG = steam
	}
	return r
}

// describeBake puts a bake's stages into the method, and its verdict at the end of it.
func describeBake(a *balance.Answer, stages []bake.Stage, verdict string) {
	bake.DescribeStages(a.Method, stages)
	if verdict != "" {
		a.Method = append(a.Method, balance.Doing{
			Code: "result", Text: message.New("Result by the model: {verdict}", message.Text(verdict)),
		})
	}
}

// exportCard writes a card in an open format.
func (s *server) exportCard(c *gin.Context) {
	in, ok := decode(s, c, func(x api.ExportRequest) error { return cardFault(x.Card) })
	if !ok {
		return
	}
	a, err := balance.Solve(withSteam(in.Card.Request, in.SteamedOffG))
	if err != nil {
		s.fail(c, fault.Under("/card/request", err))
		return
	}
	describeBake(a, or(in.Stages, nil), or(in.Verdict, ""))
	f, err := formats.Write(in.Format, in.Card, a)
	s.respond(
		c,
		http.StatusOK,
		api.ExportedFile{Filename: f.Name, MediaType: f.MediaType, Content: f.Content},
		err,
	)
}

// printSheet is a sheet of a dessert on one page, as the kitchen reads.
func (s *server) printSheet(c *gin.Context) {
	in, ok := decode(s, c, func(x api.PrintSheetJSONRequestBody) error { return cardFault(x.Card) })
	if !ok {
		return
	}
	p := formats.Print{
		Card:  in.Card,
		Sheet: formats.Sheet(or(in.Sheet, "ticket")),
		Read:  s.reading(c),
	}
	if in.Settings != nil {
		p.Read = render.For(*in.Settings)
	}
	p.Paper = or((*formats.Paper)(in.Paper), formats.PaperOf(p.Read))
	a, err := balance.Solve(withSteam(in.Card.Request, in.SteamedOffG))
	if err != nil {
		s.fail(c, fault.Under("/card/request", err))
		return
	}
	describeBake(a, or(in.Stages, nil), or(in.Verdict, ""))
	p.Answer = a
	raw, err := p.PDF()
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Data(http.StatusOK, "application/pdf", raw)
}
