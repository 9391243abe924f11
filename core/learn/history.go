package learn

import (
	"cmp"
	"math"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// History is one thing that was learnt, as each of its bakes has it.
type History struct {
	ParameterName
	Of     message.Message `json:"of"`
	Title  message.Message `json:"title"`
	Points []HistoryPoint  `json:"points"` // by time
	// From is what is thought of it at the first of them, To what is thought now.
	From  HistoryRange  `json:"from"`
	To    HistoryRange  `json:"to"`
	Ticks []HistoryTick `json:"ticks"`

	used bool
}

func unused(h History) int {
	if h.used {
		return 0
	}
	return 1
}

// HistoryRange is where a figure is thought to be with 90 % probability: C relative to the dial, or % relative to the
// tables.
type HistoryRange struct {
	At    time.Time `json:"at"`
	Value float64   `json:"value"`
	Low   float64   `json:"low"`
	High  float64   `json:"high"`
}

// HistoryPoint is one bake.
type HistoryPoint struct {
	ID string `json:"id"`
	HistoryRange
	Text message.Message `json:"text"`
}

// HistoryTick is a mark of the scale.
type HistoryTick struct {
	Value float64         `json:"value"`
	Text  message.Message `json:"text"`
}

// Histories are those of ovens, over the months, and of the juice of fruits, over the seasons; each those first
// that answers take, then those with the most bakes. Ovens are what the kitchen calls them; own are its rows.
func (l *Result) Histories(ovens map[string]string, own *larder.Own) []History {
	out := []History{}
	for i := range l.Corrections {
		c := &l.Corrections[i]
		_, lot := fruitOf(c.Key)
		_, known := ovens[c.Key]
		if c.Bakes < fewestBakes {
			continue
		}
		n := len(out)
		switch {
		case c.Kind == OvenOffset && known && c.asOffset != nil:
			out = append(out, l.ovenHistory(c, c.of(ovens, own)))
		case c.Kind == Release && c.Key != larder.AllFruit && !lot:
			out = append(out, l.juiceHistory(c, c.of(ovens, own)))
		}
		if len(out) > n {
			out[n].used = c.state() == StateUsed
		}
	}
	slices.SortStableFunc(out, func(a, b History) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), unused(a)-unused(b), len(b.Points)-len(a.Points))
	})
	return out
}

// ovenHistory is how far an oven was off in each bake, C relative to its dial.
func (l *Result) ovenHistory(c *Correction, of message.Message) History {
	h := History{ParameterName: c.ParameterName, Of: of, Title: message.New("{Oven}, by month", message.Part(of))}
	e := l.learned
	for _, k := range c.bears {
		o := &e.bakes[k]
		d := o.drivers(e.mean, e.own[k])
		per, _ := o.perHeat(d)
		sd := math.Sqrt(ovenWiden) * e.sdOf(k, func(u use) float64 {
			switch u.driver {
			case byOven:
				return 1
			case byHeat:
				return per
			}
			return 0
		}, byOven)
		off := o.offsetC + o.surface.asOffset(d[byOven], d[byHeat])
		h.add(o.log, rangeAt(o.log.At, off, sd, inC), hotter)
	}
	a := c.asOffset
	was := math.Hypot(a.SD, ovenDriftC*math.Sqrt(yearsBetween(h.Points)))
	h.From = rangeAt(h.Points[0].At, a.AsOffsetC, was, inC)
	h.To = rangeAt(h.Points[len(h.Points)-1].At, a.AsOffsetC, a.SD, inC)
	h.scale(5, hotter)
	return h
}

// juiceHistory is how much juice a fruit gave in each bake, % relative to the tables.
func (l *Result) juiceHistory(c *Correction, of message.Message) History {
	h := History{ParameterName: c.ParameterName, Of: of, Title: message.New("{fruit}: juice by season", message.Part(of))}
	e := l.learned
	for _, k := range c.bears {
		o := &e.bakes[k]
		fruit := slices.IndexFunc(o.surface.fruits, func(f surfaceFruit) bool { return f.key == c.Key })
		sd := e.sdOf(k, func(u use) float64 {
			if u.driver == byRelease && u.fruit == fruit {
				return 1
			}
			return 0
		}, byRelease)
		ln := o.lnRelease(fruit, e.mean) + e.own[k][1]
		h.add(o.log, rangeAt(o.log.At, ln, sd, inPct), moreJuicy)
	}
	ln := math.Log(c.Estimate)
	h.From = rangeAt(h.Points[0].At, ln, c.SD, inPct)
	h.To = rangeAt(h.Points[len(h.Points)-1].At, ln, c.SD, inPct)
	h.scale(10, moreJuicy)
	return h
}

// rangeAt is a figure as it is shown, with the range that its deviation gives it.
func rangeAt(at time.Time, x, sd float64, shown func(float64) float64) HistoryRange {
	return HistoryRange{at, shown(x), shown(x - bake.NineInTen*sd), shown(x + bake.NineInTen*sd)}
}

// inC is an offset as it is, inPct the logarithm of a factor in addition to the tables.
func inC(c float64) float64    { return c }
func inPct(ln float64) float64 { return 100 * math.Expm1(ln) }

func yearsBetween(p []HistoryPoint) float64 {
	return p[len(p)-1].At.Sub(p[0].At).Hours() / year.Hours()
}

// hotter returns the offset of an oven in words, moreJuicy the juice of a fruit relative to the tables, in percent.
func hotter(x float64) message.Message {
	off := message.CelsiusDifference(math.Round(math.Abs(x)))
	if math.Round(x) == 0 {
		return message.New("as its dial")
	}
	return message.New(pick(x, "{off} cooler", "{off} hotter"), off)
}

func moreJuicy(x float64) message.Message {
	if math.Round(x) == 0 {
		return message.New("as in the tables")
	}
	return message.New(pick(x, "{by} % less", "{by} % more"), message.Number(math.Abs(x), 0))
}

func (h *History) add(b *LoggedBake, r HistoryRange, text func(float64) message.Message) {
	h.Points = append(h.Points, HistoryPoint{b.ID, r, message.New(
		"{value} (90 % range {low} to {high})",
		message.Part(text(r.Value)), message.Part(text(r.Low)), message.Part(text(r.High)))})
	slices.SortStableFunc(h.Points, func(a, b HistoryPoint) int { return a.At.Compare(b.At) })
}

// scale sets the marks, some of step apart.
func (h *History) scale(step float64, text func(float64) message.Message) {
	low, high := min(0, h.From.Low, h.To.Low), max(0, h.From.High, h.To.High)
	for _, p := range h.Points {
		low, high = min(low, p.Low), max(high, p.High)
	}
	const most = 6
	for _, times := range []float64{1, 2, 4, 10, 20} {
		if by := step * times; (high-low)/by <= most || times == 20 {
			for at := by * math.Floor(low/by); at < high+by; at += by {
				h.Ticks = append(h.Ticks, HistoryTick{at, text(at)})
			}
			return
		}
	}
}

// sdOf is how sure a sum is, of parameters that a bake uses and one of its own deviations, by the whole log.
func (e *estimate) sdOf(k int, share func(use) float64, driver int) float64 {
	o := &e.bakes[k]
	q := o.equations(e.mean, e.own[k], false)
	r := q.reduce()
	mine := make([]float64, deviations)
	mine[slices.Index(ownDrivers[:], driver)] = 1
	back := r.own.solve(mine)
	by := make([]float64, len(e.all))
	for j, u := range o.uses {
		by[u.param] += share(u) - dot(q.curve.row(j)[q.n:], back)
	}
	return math.Sqrt(max(0, e.cov.quadratic(by)+dot(mine, back)))
}
