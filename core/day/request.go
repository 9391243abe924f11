// Package day plans a day's desserts into the ovens, hands, dishes and places that there are, backwards from when each
// is wanted: resource-constrained project scheduling with minimal and maximal time lags. People are unary resources,
// ovens are batching machines with incompatible settings and set-ups, a bake has alternatives, and the objective is
// lexicographic.
package day

import "mabbin/core/message"

// Request is a day to be planned. Minutes are whole, from any midnight; intervals are [start, end); lengths are in cm.
type Request struct {
	Now         int       `json:"now_min"`
	End         *int      `json:"end_min,omitempty"`       // left out: two days after now
	RoomC       *float64  `json:"room_c,omitempty"`        // left out: 20
	TimeLimitMS int       `json:"time_limit_ms,omitempty"` // left out: 2000
	Iterations  int       `json:"iterations,omitempty"`    // of each search; 0: by the size of the day
	Seed        uint64    `json:"seed,omitempty"`
	People      []Person  `json:"people"`
	Machines    []Machine `json:"machines,omitempty"`
	Places      []Place   `json:"places,omitempty"`
	Dishes      []Dish    `json:"dishes,omitempty"`
	Ovens       []Oven    `json:"ovens,omitempty"`
	Batches     []Batch   `json:"batches"`
	Pinned      []Pin     `json:"pinned,omitempty"`
	// Standing is the plan that people work by: it stays as far as it goes, unless another one is clearly better.
	Standing []Scheduled `json:"standing,omitempty"`
}

// Span is from a minute to another one, which is not in it.
type Span struct {
	From int `json:"from_min"`
	To   int `json:"to_min"`
}

// Person is a pair of hands.
type Person struct {
	ID     string `json:"id"`
	Hours  []Span `json:"hours"`
	Breaks []Span `json:"breaks,omitempty"`
}

// Machine is a mixer, or so many of one kind.
type Machine struct {
	ID    string `json:"id"`
	Count int    `json:"count"`
}

// Place is where dishes stand: a rack, a fridge.
type Place struct {
	ID      string  `json:"id"`
	AreaCM2 float64 `json:"area_cm2"`
}

// Dish is a kind of dish and how many there are of it.
type Dish struct {
	ID      string `json:"id"`
	Count   int    `json:"count"`
	WashMin int    `json:"wash_min,omitempty"`
}

// Oven is an oven with its tiers.
type Oven struct {
	ID          string   `json:"id"`
	NowC        *float64 `json:"now_c,omitempty"` // left out: as the room
	WarmCPerMin float64  `json:"warm_c_per_min"`
	CoolCPerMin float64  `json:"cool_c_per_min"`
	DoorMin     float64  `json:"door_min,omitempty"` // that one opening costs the others
	Heatings    []string `json:"heatings,omitempty"` // left out: conventional
	From        *int     `json:"from_min,omitempty"`
	To          *int     `json:"to_min,omitempty"`
	Tiers       []Tier   `json:"tiers"`
}

// Tier is a shelf of an oven.
type Tier struct {
	ID      string  `json:"id"`
	Shelf   string  `json:"shelf"`
	WidthCM float64 `json:"width_cm"`
	DepthCM float64 `json:"depth_cm"`
}

// Batch is one dessert, or what is made for several, or a break that can be moved.
type Batch struct {
	ID        string    `json:"id"`
	Due       *int      `json:"due_min,omitempty"`
	LateMax   *int      `json:"late_max_min,omitempty"` // left out: no limit
	Serve     string    `json:"serve,omitempty"`
	HoldMax   *int      `json:"hold_max_min,omitempty"`
	HoldPlace string    `json:"hold_place,omitempty"`
	HoldCM2   float64   `json:"hold_cm2,omitempty"`
	Dishes    []DishUse `json:"dishes,omitempty"`
	Tasks     []Task    `json:"tasks"`

	before map[RemedyCode]*madeBefore // by the remedy that makes it before its day
}

// DishUse is how many of a dish a batch takes, and from when to when.
type DishUse struct {
	Dish     string `json:"dish"`
	Count    int    `json:"count"`
	FromTask string `json:"from_task,omitempty"`
	ToTask   string `json:"to_task,omitempty"`
}

// Use is what a task takes of the kitchen's resources while it lasts.
type Use string

// The uses.
const (
	UsePerson Use = "hands"
	UseWait   Use = "wait" // nothing but time, and where it stands
	UseOven   Use = "oven"
)

var uses = message.Words(UsePerson, UseWait, UseOven)

// Task is one piece of a batch. What it uses decides which of the fields count.
type Task struct {
	ID      string `json:"id"`
	Kind    string `json:"kind,omitempty"`
	Uses    Use    `json:"uses"`
	After   []Lag  `json:"after,omitempty"`
	From    *int   `json:"from_min,omitempty"`
	Ahead   bool   `json:"ahead,omitempty"` // may be done days before
	Minutes int    `json:"minutes,omitempty"`

	working int // minutes by the working figures, where the kitchen's own are in Minutes

	// Mix is what is mixed, where it may be mixed once for several batches.
	Mix *Mix `json:"-"`

	By      []string `json:"by,omitempty"` // of hands and of an oven's touches; left out: all
	Machine string   `json:"machine,omitempty"`

	MaxMin  *int    `json:"max_min,omitempty"` // of a wait
	Place   string  `json:"place,omitempty"`
	AreaCM2 float64 `json:"area_cm2,omitempty"`

	Count        int           `json:"count,omitempty"` // of dishes in an oven
	WidthCM      float64       `json:"width_cm,omitempty"`
	DepthCM      float64       `json:"depth_cm,omitempty"`
	Alternatives []Alternative `json:"alternatives,omitempty"`
}

// Lag is how a task follows another one.
type Lag struct {
	Task string `json:"task"`
	Min  int    `json:"min_lag,omitempty"`
	Max  *int   `json:"max_lag,omitempty"`
	Hard bool   `json:"hard,omitempty"`
}

// Alternative is one way to bake a task.
type Alternative struct {
	ID    string   `json:"id"`
	Ovens []string `json:"ovens,omitempty"` // left out: all
	Shelf string   `json:"shelf,omitempty"` // left out: any
	SDMin float64  `json:"sd_min,omitempty"`
	// ExtraMin is the price of a heat that is not the card's, in minutes of an oven. A bake with one has company in its
	// oven.
	ExtraMin int     `json:"extra_min,omitempty"`
	Stages   []Stage `json:"stages"`
	Touches  []Touch `json:"touches,omitempty"`
}

// Stage is so many minutes at one setting.
type Stage struct {
	Minutes int     `json:"minutes"`
	OvenC   float64 `json:"oven_c"`
	Heating string  `json:"heating,omitempty"` // left out: conventional
}

// Touch is what hands do during a bake.
type Touch struct {
	Kind    string `json:"kind"`
	At      int    `json:"at_min"`
	Minutes int    `json:"minutes"`
	Flex    int    `json:"flex_min,omitempty"` // by so much later
	// Optional says that it may be left out where nobody is there for it.
	Optional bool `json:"optional,omitempty"`
}

// Pin is a task that stays where it is: it has happened, or somebody wants it so.
type Pin struct {
	Task        string `json:"task"`
	Start       int    `json:"start_min"`
	End         *int   `json:"end_min,omitempty"`
	Person      string `json:"person,omitempty"`
	Oven        string `json:"oven,omitempty"`
	Tier        string `json:"tier,omitempty"`
	Alternative string `json:"alternative,omitempty"`
}

// StopReason is why no better plan was looked for.
type StopReason string

// The reasons.
const (
	StoppedDone   StopReason = "done" // there is none
	StoppedTime   StopReason = "time" // the time for it was over
	StoppedByUser StopReason = "asked"
)

// Answer is the best plan that was found.
type Answer struct {
	Feasible   bool        `json:"feasible"` // nothing is left out, late or over a window
	Schedule   []Scheduled `json:"schedule"`
	LeftOut    []string    `json:"left_out"`
	Objective  Objective   `json:"objective"`
	LowerBound LowerBound  `json:"lower_bound"`
	Clashes    []Clash     `json:"clashes"`
	Chances    []Chance    `json:"chances"`
	Stopped    StopReason  `json:"stopped"`
	Moved      []Move      `json:"moved,omitempty"` // what is otherwise than in the plan that stood
}

// Move is a task or touch that is otherwise than in the plan that stood.
type Move struct {
	Task   string `json:"task"`
	Touch  *int   `json:"touch,omitempty"` // its place in the alternative's list; nil: the task itself
	From   int    `json:"from_min"`        // when it was to begin
	To     int    `json:"to_min"`          // when it begins now
	Person string `json:"person,omitempty"`
}

// Scheduled is a task in the plan.
type Scheduled struct {
	Batch       string         `json:"batch"`
	Task        string         `json:"task"`
	Start       int            `json:"start_min"`
	End         int            `json:"end_min"`
	Person      string         `json:"person,omitempty"`
	Oven        string         `json:"oven,omitempty"`
	Tier        string         `json:"tier,omitempty"`
	Alternative string         `json:"alternative,omitempty"`
	Touches     []PlannedTouch `json:"touches,omitempty"`
}

// PlannedTouch is when a touch of a bake is done, and by whom.
type PlannedTouch struct {
	Touch  int    `json:"touch"` // its place in the alternative's list
	Start  int    `json:"start_min"`
	End    int    `json:"end_min"`
	Person string `json:"person"`
}

// Objective is what is made small, the first level first.
type Objective struct {
	LeftOut int `json:"left_out"`
	Late    int `json:"late_min"`
	Window  int `json:"window_min"`
	OvenOn  int `json:"oven_on_min"`
	Waiting int `json:"waiting_min"`
	Slack   int `json:"slack_min"` // made large
}

// LowerBound is what no plan can be below; nil: not known.
type LowerBound struct {
	Late   int  `json:"late_min"`
	Window int  `json:"window_min"`
	OvenOn *int `json:"oven_on_min"`
}

// Chance is how likely a batch is in time.
type Chance struct {
	Batch string  `json:"batch"`
	Share float64 `json:"share"` // 0 to 1
}

// Clash is a batch that is left out, late or over a window, with what would help, each tried by planning.
type Clash struct {
	Batch    string          `json:"batch"`
	Resource string          `json:"resource"` // that of which one more helps most; time if none does
	Over     int             `json:"minutes_over"`
	Because  message.Message `json:"because,omitzero"` // what is in the way
	Remedies []Remedy        `json:"remedies"`
	Text     message.Message `json:"text"`
}

// Remedy is something that lowers what is left out, late or over a window, and what it comes to.
type Remedy struct {
	Code    RemedyCode      `json:"code"`
	Batch   string          `json:"batch,omitempty"`
	Task    string          `json:"task,omitempty"`
	Dish    string          `json:"dish,omitempty"`
	Oven    string          `json:"oven,omitempty"`
	Person  string          `json:"person,omitempty"`
	Minutes int             `json:"minutes,omitempty"`
	LeftOut int             `json:"left_out"`
	Late    int             `json:"late_min"`
	Window  int             `json:"window_min"`
	Text    message.Message `json:"text"`

	note message.Message // what it does to the dessert
}

// Less says whether an objective is better than another: the first level at which they differ decides.
func (o Objective) Less(p Objective) bool {
	a := [...]int{o.LeftOut, o.Late, o.Window, o.OvenOn, o.Waiting, -o.Slack}
	b := [...]int{p.LeftOut, p.Late, p.Window, p.OvenOn, p.Waiting, -p.Slack}
	for i := range a {
		if a[i] != b[i] {
			return a[i] < b[i]
		}
	}
	return false
}

// Feasible says that nothing is left out, late or over a window.
func (o Objective) Feasible() bool { return o.LeftOut == 0 && o.Late == 0 && o.Window == 0 }
