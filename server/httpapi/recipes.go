package httpapi

import (
	"bytes"
	"context"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/measure"
	"mabbin/core/recipe"
	"mabbin/core/wording"
	"mabbin/server/formats"
)

// tables is the pantry of a kitchen without anything of its own.
var tables = larder.Pantry(nil)

// pantry is the names that a request's kitchen knows.
func pantry(own *larder.Own) *measure.Pantry {
	if own == nil || len(own.Fruits)+len(own.Ingredients) == 0 {
		return tables
	}
	return larder.Pantry(own)
}

// Measure understands what a baker wrote, line by line.
func (s Server) Measure(_ context.Context, req api.MeasureRequestObject) (api.MeasureResponseObject, error) {
	m, err := recipe.Measure(*req.Body, pantry(req.Body.Own))
	if err != nil {
		return nil, err
	}
	return api.Measure200JSONResponse(*m), nil
}

// JudgeRecipe says what a recipe comes to in a dish.
func (s Server) JudgeRecipe(_ context.Context, req api.JudgeRecipeRequestObject) (api.JudgeRecipeResponseObject, error) {
	v, err := recipe.Judge(*req.Body, pantry(req.Body.Own))
	if err != nil {
		return nil, err
	}
	return api.JudgeRecipe200JSONResponse(*v), nil
}

// ImportRecipe finds the recipe in a file or in pasted text.
func (s Server) ImportRecipe(_ context.Context, req api.ImportRecipeRequestObject) (api.ImportRecipeResponseObject, error) {
	name := ""
	if req.Body.Filename != nil {
		name = *req.Body.Filename
	}
	d, err := formats.Read(name, req.Body.Content)
	if err != nil {
		return nil, err
	}
	return api.ImportRecipe200JSONResponse(*d), nil
}

// ExportCard writes a card in an open format.
func (s Server) ExportCard(_ context.Context, req api.ExportCardRequestObject) (api.ExportCardResponseObject, error) {
	f, err := formats.Write(req.Body.Format, req.Body.Card)
	if err != nil {
		return nil, err
	}
	return api.ExportCard200JSONResponse{Filename: f.Name, MediaType: f.MediaType, Content: f.Content}, nil
}

// PrintSheet is a sheet of a dessert on one page, as the kitchen reads.
func (s Server) PrintSheet(_ context.Context, req api.PrintSheetRequestObject) (api.PrintSheetResponseObject, error) {
	a, err := balance.Solve(req.Body.Card.Request)
	if err != nil {
		return nil, fault.Under("/card/request", err)
	}
	p := formats.Print{Card: req.Body.Card, Answer: a, Sheet: formats.TicketSheet, Paper: formats.A4}
	if x := req.Body.Paper; x != nil {
		p.Paper = formats.Paper(*x)
	}
	if x := req.Body.Sheet; x != nil {
		p.Sheet = formats.Sheet(*x)
	}
	if x := req.Body.Settings; x != nil {
		p.Read = wording.For(*x)
	}
	raw, err := p.PDF()
	if err != nil {
		return nil, err
	}
	return api.PrintSheet200ApplicationpdfResponse{Body: bytes.NewReader(raw), ContentLength: int64(len(raw))}, nil
}
