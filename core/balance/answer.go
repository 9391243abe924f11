package balance

import (
	"math"
	"slices"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// Answer is a balanced dessert.
type Answer struct {
	FruitG          float64            `json:"fruit_g"`
	FruitToleranceG float64            `json:"fruit_tolerance_g"`
	SugarG          float64            `json:"sugar_g"`
	SugarKey        string             `json:"sugar_key"` // as asked for, or the usual; so is the thickener
	ThickenerG      float64            `json:"thickener_g"`
	ThickenerKey    string             `json:"thickener_key"`
	ToppingG        float64            `json:"topping_g"`
	BaseG           float64            `json:"base_g"`
	Purchase        []Purchase         `json:"purchase"`
	FruitBoughtG    float64            `json:"fruit_bought_g"` // all of the fruit, as bought
	Set             Set                `json:"set"`
	JuiceG          float64            `json:"juice_g"`
	JuiceSharePct   float64            `json:"juice_share_pct"`
	SugarTargetPct  float64            `json:"sugar_target_pct"`
	SugarPct        float64            `json:"sugar_pct"`
	SpoonSugarPct   float64            `json:"spoon_sugar_pct"`
	AcidPct         float64            `json:"acid_pct"`
	Ledger          filling.Ledger     `json:"ledger"`
	LedgerLines     []LedgerLine       `json:"ledger_lines"`
	Fit             Fit                `json:"fit"`
	Portions        Portions           `json:"portions"`
	Topping         ToppingRead        `json:"topping"`
	Cutaway         Cutaway            `json:"cutaway"`
	Ticket          []Bowl             `json:"ticket"`
	Remarks         []Remark           `json:"remarks"`
	Allergens       Allergens          `json:"allergens"`
	Sources         map[string]Sourced `json:"sources"`
	Cutting         []topping.Plan     `json:"cutting"`
	Method          []Doing            `json:"method"`
	Checks          []Doing            `json:"checks"` // before the oven door closes
	Ahead           []Storage          `json:"ahead"`
	Leftovers       []Storage          `json:"leftovers"`
	Carrying        []message.Message  `json:"carrying,omitempty"` // how it travels
	ServedWith      []Served           `json:"served_with"`        // what may be served with it
	// SugarColourFactor is how much faster the topping's own sugar makes it colour than the table's recipe.
	SugarColourFactor float64         `json:"sugar_colour_factor"`
	ColourFactor      float64         `json:"colour_factor"`     // how much faster the finishes make the top colour
	Browning          message.Message `json:"browning,omitzero"` // that in words, where it matters

	lostShare float64 // of the thickener
}

// Set is how the filling stands.
type Set struct {
	Score      float64      `json:"score"`
	Band       filling.Band `json:"band"`     // cold, at the table
	HotBand    filling.Band `json:"hot_band"` // straight from the oven
	Target     float64      `json:"target"`
	StyleScore float64      `json:"style_score"`
	StyleBand  filling.Band `json:"style_band"`
	Solved     bool         `json:"solved"` // the thickener follows the set; else the set follows the thickener
	Scale      []Step       `json:"scale"`
	eggs       bool         // eggs set it: firm is not stodgy
}

// BandAt is the band where only a share of the thickener has set.
func (s Set) BandAt(share float64) filling.Band {
	band := filling.BandOf(s.Score * share)
	if s.eggs && band == filling.Stodgy {
		return filling.Slices
	}
	return band
}

// Step is one band of the set scale and the score it ends at.
type Step struct {
	Band filling.Band `json:"band"`
	UpTo float64      `json:"up_to"`
}

// Fit is how the dessert fits its dish.
type Fit struct {
	VolumeML       float64 `json:"volume_ml"`
	RimAreaCM2     float64 `json:"rim_area_cm2"`
	FloorAreaCM2   float64 `json:"floor_area_cm2"`
	PerimeterCM    float64 `json:"perimeter_cm"`
	RawFillPct     float64 `json:"raw_fill_pct"`
	HotHeadspaceMM float64 `json:"hot_headspace_mm"`
	KeepMM         float64 `json:"keep_headspace_mm"`
	LimitedBy      string  `json:"limited_by"`   // fill, headspace or weighed
	Room           Room    `json:"room"`         // free, tight or over
	MostFruitG     float64 `json:"most_fruit_g"` // that keeps the headspace
	// UnsureG is how far the fruit may be off, either way, because the dish was never filled with water; 0 where it was.
	UnsureG float64         `json:"unsure_g"`
	Unsure  message.Message `json:"unsure,omitzero"` // that in words, where it matters
	Levels  FruitLevels     `json:"fruit_levels"`
}

// Room is how much of the rim stays free while the filling boils.
type Room string

// The rooms: enough, so little that it may boil over, and none.
const (
	RoomFree  Room = "free"
	RoomTight Room = "tight"
	RoomOver  Room = "over"
)

func roomOf(headspaceMM float64) Room {
	switch {
	case headspaceMM < boilOverMM:
		return RoomOver
	case headspaceMM < boilOverWarnMM:
		return RoomTight
	}
	return RoomFree
}

// Portions is how far the dessert goes.
type Portions struct {
	FinishedG float64 `json:"finished_g"`
	DriedOffG float64 `json:"dried_off_g,omitempty"` // water that topping and base gave off in a known bake
	EachG     float64 `json:"each_g"`
	Count     float64 `json:"count"`
}

// ToppingRead is how the topping lies on the fruit.
type ToppingRead struct {
	ThicknessMM  float64         `json:"thickness_mm"`
	DepthRatio   float64         `json:"depth_ratio"` // topping to raw fruit
	RatioLow     float64         `json:"ratio_low"`
	RatioHigh    float64         `json:"ratio_high"`
	FruitDepthMM float64         `json:"fruit_depth_mm"`
	Texture      topping.Texture `json:"texture"`
}

// answer writes a solved dessert out.
func (p *plan) answer(s candidate, limit string) *Answer {
	g := p.geo
	a := &Answer{
		FruitG: s.FruitG, SugarG: s.SugarG, ThickenerG: s.thickenerG, ToppingG: p.top.G + p.lateG, BaseG: p.under.G,
		SugarKey: p.sugar.Key, ThickenerKey: p.thickener.Key,
		JuiceG: s.JuiceG, JuiceSharePct: s.JuiceSharePct, AcidPct: s.AcidPct, Ledger: s.Ledger,
		lostShare: s.LostShare, FruitToleranceG: p.tolerance(s), SugarTargetPct: p.sugarTarget(s.AcidPct),
	}
	if p.req.Sweetness == "savoury" {
		a.SugarTargetPct = 0
	}
	fruitML := s.FruitG / p.filling.HandPackedGPerML()
	a.Fit = Fit{
		VolumeML:       g.VolumeML,
		RimAreaCM2:     g.RimAreaCM2,
		FloorAreaCM2:   g.FloorAreaCM2,
		PerimeterCM:    g.PerimeterCM,
		RawFillPct:     100 * (fruitML + p.top.VolumeML + p.lateML + p.under.VolumeML) / g.VolumeML,
		HotHeadspaceMM: s.headspaceMM,
		KeepMM:         p.style.KeepMM,
		LimitedBy:      limit,
		Room:           roomOf(s.headspaceMM),
		MostFruitG:     s.FruitG,
	}
	a.Fit.UnsureG = p.unsure(limit)
	a.Fit.Unsure = uncertaintyText(a.Fit.UnsureG)
	a.Fit.Levels = p.fruitLevels()
	if limit != byHeadspace { // which has just been searched for
		a.Fit.MostFruitG = max(0, p.mostFruit(p.style.KeepMM, max(leastFruitG, s.FruitG, p.fruitByFill())))
	}
	a.Set = Set{
		Score:      s.score,
		HotBand:    filling.HotBandOf(s.score),
		Target:     p.target,
		StyleScore: p.style.UsualSet,
		StyleBand:  filling.BandOf(p.style.UsualSet),
		Solved:     p.givenG == nil,
		Scale:      scale,
		eggs:       p.setByEggs(s),
	}
	a.Set.Band = a.Set.BandAt(1)
	a.Purchase = p.purchase(s.FruitG)
	a.FruitBoughtG = s.FruitG * p.boughtPerPrepared()
	a.sugars(p, s)
	a.Topping = p.readTopping(fruitML)
	a.Cutaway = p.cutaway(s, fruitML)
	a.LedgerLines = p.ledgerLines(s)
	a.Ticket = p.ticket(s)
	a.Allergens = allergens(a.Ticket, p.req.Own)
	a.Sources = p.sources(a)
	a.Cutting = p.cutting(a)
	a.Method, a.Checks, a.Ahead = p.method(s), p.checks(), p.ahead()
	a.Leftovers = p.leftovers(a)
	a.Carrying = p.carrying()
	a.ServedWith = beside(a.Portions.Count, p.req.Portion, p.req.Sweetness == "savoury")
	a.ColourFactor = p.colourFactor()
	a.SugarColourFactor = p.wanted.Browning(p.top)
	a.Browning = browningText(a.ColourFactor)
	a.Remarks = p.remarks(s, a)
	return a
}

// Dried takes what topping and base gave off in the oven from what comes to the table.
func (a *Answer) Dried(r Request, g float64) {
	p := &a.Portions
	p.DriedOffG, p.FinishedG = g, p.FinishedG-g
	p.Count = max(1, math.Round(p.FinishedG/p.EachG))
	for i := range a.ServedWith {
		a.ServedWith[i].AllG = a.ServedWith[i].EachG * p.Count
	}
	for i := range a.Cutting {
		if a.Cutting[i].Code == topping.CutBars {
			a.Cutting[i] = r.cuts().Bars(p.FinishedG, p.EachG, r.Dish)
		}
	}
}

// setByEggs says that a custard's eggs set it firm: what starch and pectin do alone would not be stodgy.
func (p *plan) setByEggs(s candidate) bool {
	if p.custard == nil {
		return false
	}
	withoutEggs := slices.DeleteFunc(slices.Clone(p.doses(s.thickenerG)),
		func(d filling.Dose) bool { return d.Thickener.Key == eggKey })
	return filling.BandOf(s.Score(withoutEggs, p.req.LongBoil)) != filling.Stodgy
}

var scale = func() []Step {
	steps := make([]Step, len(filling.Scale))
	for i, b := range filling.Scale {
		steps[i] = Step{b.Band, b.UpTo}
	}
	return steps
}()

// sugars fills in the portions and how sweet the filling and the whole spoon are.
func (a *Answer) sugars(p *plan, s candidate) {
	own := p.filling.OwnSugarG(s.FruitG)
	a.SugarPct = 100 * (own + s.SugarG) / (s.FruitG + p.filling.AddedG() + s.SugarG)
	finished := s.MassG + p.allThickenerG(s) + p.req.CrumbLayerG + p.top.G + p.lateG + p.under.G - s.SteamedOffG
	each := p.style.PortionG * portionShare[p.req.Portion]
	a.Portions = Portions{FinishedG: finished, EachG: each, Count: max(1, math.Round(finished/each))}
	sugar := own + s.SugarG - s.DrainedSugarG
	for _, part := range slices.Concat(p.top.Parts, p.under.Parts) {
		sugar += part.G * part.Ingredient.SugarPct / 100
	}
	if finished > 0 {
		a.SpoonSugarPct = 100 * sugar / finished
	}
}

func (p *plan) readTopping(fruitML float64) ToppingRead {
	depth := 10 * (p.geo.HeightCM(fruitML+p.under.VolumeML) - p.geo.HeightCM(p.under.VolumeML))
	top := p.top.ThicknessMM
	if row, ok := larder.Toppings.Get(p.req.Topping.Key); ok && p.req.Topping.Layers > 0 && row.Layers > 0 {
		top *= p.wanted.Topping.Layers / row.Layers // all of it counts, wherever it lies
	}
	return ToppingRead{
		ThicknessMM: p.top.ThicknessMM, FruitDepthMM: depth, DepthRatio: top / depth,
		RatioLow: p.style.DepthLow, RatioHigh: p.style.DepthHigh, Texture: p.top.ReadIn(p.book),
	}
}

// Purchase is what to buy of one fruit.
type Purchase struct {
	Key       string          `json:"key"`
	Name      larder.Name     `json:"name"`
	G         float64         `json:"g"` // as bought
	PreparedG float64         `json:"prepared_g"`
	Count     float64         `json:"count,omitempty"` // pieces, where they are counted
	Size      string          `json:"size,omitempty"`
	LeftOverG float64         `json:"left_over_g,omitempty"` // prepared, from rounding the count up
	Use       message.Message `json:"use,omitzero"`          // what becomes of what is left over
	Text      message.Message `json:"text"`
}

// yield is the prepared share of a fruit as bought: without peel, core or stones, and without what windfalls lose.
func (p *plan) yield(i int) float64 {
	asked := p.req.Fruits[i]
	return p.filling.Pieces[i].Fruit.Yield(asked.Peeled == nil || *asked.Peeled) * (1 - asked.LossPct/100)
}

// boughtPerPrepared is how much of the mix is bought for each gram of it prepared.
func (p *plan) boughtPerPrepared() float64 {
	bought := 0.0
	for i, piece := range p.filling.Pieces {
		bought += piece.Share / p.yield(i)
	}
	return bought
}

// purchase is as bought: prepared weight over yield and over what windfalls lose in addition to.
func (p *plan) purchase(fruitG float64) []Purchase {
	out := make([]Purchase, len(p.filling.Pieces))
	for i, piece := range p.filling.Pieces {
		asked := p.req.Fruits[i]
		yield := p.yield(i)
		b := Purchase{Key: piece.Fruit.Key, Name: larder.Name(piece.Fruit.Name), PreparedG: fruitG * piece.Share}
		b.G = b.PreparedG / yield
		size := asked.Size
		if size == "" {
			size = "medium"
		}
		if each := piece.Fruit.PieceG(size); piece.Fruit.Counted() {
			b.Size, b.Count = size, math.Ceil(b.G/each-1e-9)
			b.LeftOverG = (b.Count*each - b.G) * yield
			b.Use = UseFor(b.LeftOverG)
		}
		b.Text = b.describe(p.book)
		out[i] = b
	}
	return out
}

// Sourced is where a figure is from.
type Sourced struct {
	Basis larder.Basis    `json:"basis"`
	Text  message.Message `json:"text"`
}

// Ingredients is how many different things are weighed.
func (a *Answer) Ingredients() int {
	different := map[string]bool{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			different[l.Key] = true
		}
	}
	return len(different)
}
