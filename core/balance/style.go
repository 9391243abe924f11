package balance

// style is what a dessert of that kind is built to. A style without a portion weight is known by name and not
// calculated yet.
type style struct {
	fill       float64 // raw stack as a share of the dish's volume
	keepMM     float64 // hot headspace to keep
	toppingHot float64 // share of the topping's raw volume that takes part in the hot stack
	sugarBase  float64 // %
	set        float64 // score
	steamGCM2  float64 // steamed off, g per cm2 of rim, by the plain rule
	portionG   float64 // as served
	depthLo    float64 // topping depth to raw fruit depth
	depthHi    float64
	topping    string // what lies on it where nobody says
}

// styles has the styles' targets: fill, headspace, set and portion are handbook practice, steam and the range of
// depths are working figures.
var styles = map[string]style{
	"crumble":  {fill: 1.05, keepMM: 6, toppingHot: 0.9, sugarBase: 18.5, set: 3.6, steamGCM2: 0.15, portionG: 180, depthLo: 0.25, depthHi: 0.60, topping: "crumble_classic"},
	"crisp":    {fill: 1.05, keepMM: 6, toppingHot: 0.9, sugarBase: 18.5, set: 3.6, steamGCM2: 0.15, portionG: 180, depthLo: 0.22, depthHi: 0.55, topping: "crisp_oat_nut"},
	"cobbler":  {},
	"pandowdy": {},
	"betty":    {},
	"bar":      {},
	"pie":      {},
}

// styleNames is every style in the order it is offered.
var styleNames = []string{"crumble", "crisp", "cobbler", "pandowdy", "betty", "bar", "pie"}

// crumbFamily has the topping families that lie on a crumble or crisp.
var crumbFamily = map[string]bool{"crumble": true, "crisp": true, "streusel": true}

// StyleInfo tells a style to who has to offer it.
type StyleInfo struct {
	Key        string
	Calculated bool
	SetTarget  float64
	Families   []string // of toppings
	Topping    string   // the usual one
}

// Styles lists every style, also those that are not calculated yet.
func Styles() []StyleInfo {
	out := make([]StyleInfo, len(styleNames))
	for i, name := range styleNames {
		s := styles[name]
		out[i] = StyleInfo{Key: name, Calculated: s.portionG > 0, SetTarget: s.set}
		if out[i].Calculated {
			out[i].Topping = s.topping
			out[i].Families = []string{"crumble", "crisp", "streusel"}
		}
	}
	return out
}

// The boil-over borders, in mm of hot headspace.
const (
	boilOverWarnMM = 3.0
	boilOverMM     = 0.0
)

// boilSwell is how much a filling swells with steam when it boils, for a filling that is all juice.
const boilSwell = 0.25

// tasteMore is what a taste adds to the sugar target, in percent.
var tasteMore = map[string]float64{"tart": -4, "standard": 0, "": 0, "sweet": 4}

// portionShare is a portion's size against the style's own: hearty 260 g and tasting 110 g to 180 g.
var portionShare = map[string]float64{"": 1, "standard": 1, "hearty": 260.0 / 180, "tasting": 110.0 / 180}
