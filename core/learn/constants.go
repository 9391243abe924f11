package learn

// The constants of the estimate, in one place: the model field of an answer tells them. Working figures.
const (
	// one standard deviation of each parameter before anything is known: C, and natural logarithms of factors
	offsetSD        = 10.0 // of an oven of which nothing is known
	heatSD          = 0.15
	releaseAllSD    = 0.10
	releaseFruitSD  = 0.17
	releaseLotSD    = 0.10
	softnessSD      = 0.25
	thickenerSD     = 0.10
	steamSD         = 0.25
	colourSD        = 0.30
	changedOffsetSD = 15.0 // C, of an oven that was changed

	// of one bake alone
	bakeOvenSD      = 3.0
	bakeReleaseSD   = 0.08
	bakeThickenerSD = 0.05
	bakeColourSD    = 0.10
	bakeSoftnessSD  = 0.12
	bakeDepthSD     = 0.05 // of the probe

	ovenDriftC   = 4.0 // in a year
	releaseDrift = 0.06

	studentDF      = 4.0  // of the errors of figures
	wordSD         = 0.45 // steps
	hotWordSD      = 0.70
	hotWordLower   = 1.0 // steps that hot juice is thinner by
	lapse          = 0.04
	rimSD          = 2.0 // min
	middleSD       = 2.5
	minutesShare   = 0.04
	weightShare    = 0.08 // of what steamed off
	weightSD       = 4.0  // g
	crossedSD      = 0.025
	releaseTestSD  = 0.06
	fewestReadings = 5
	apartC         = 5.0 // from which on a reading tells something in addition to the last crossing
	pastEndMin     = 2.0 // an event reported so long after the end is asked back

	rounds        = 14
	longestStepSD = 1.5 // prior standard deviations
	startsAtSD    = 1.5
	bearsFrom     = 0.2 // of an answer's error, that one prior standard deviation moves it by
	fewestBakes   = 3
	oddBelow      = 0.3
	standsFrom    = 1.5 // of its own uncertainty: what is less is not worth a word
	changedFrom   = 3.0 // log evidence
	// The weights of Student's t count as if each answer reported (df + 1) / df, and it tells (df + 1) / (df + 3): where
	// minutes are nearly all that is known, as of an oven, the variance is so much more.
	ovenWiden       = (studentDF + 3) / (studentDF + 1)
	fewestOnOneSide = 3
	draws           = 256

	// what is asked for: how much trouble an answer makes, to that of a word, and by how much of what is unsure it has to
	// narrow it
	troubleNoting = 1.5
	troubleScale  = 2.0
	troubleProbe  = 3.0
	narrowsFrom   = 0.05
	surelyKnown   = 0.3 // of what matters: less is no reason to ask

	readRounds = 8 // of the filter, each about where the last one came to
)

// The surfaces: where each bake is run, and the least that a logarithm is taken of.
var (
	surfaceOffsetsC = [...]float64{-32, -16, 0, 16, 32}
	surfaceLnHeat   = [...]float64{-0.36, 0, 0.36}
)

const (
	thinnerSet = 0.75 // of the set, in the two runs more
	leastClock = 0.05
	leastSteam = 2.0 // g
	leastSet   = 0.15
)

// Model are the constants as an answer tells them.
type Model struct {
	PriorSD     map[ParameterKind]float64 `json:"prior_sd"`
	BakeSD      map[ParameterKind]float64 `json:"bake_sd"`
	DriftAYear  map[ParameterKind]float64 `json:"drift_a_year"`
	ErrorSD     map[string]float64        `json:"error_sd"`
	StudentDF   float64                   `json:"student_df"`
	Lapse       float64                   `json:"lapse"`
	FewestBakes int                       `json:"fewest_bakes"`
}

func modelConstants() Model {
	return Model{
		PriorSD: map[ParameterKind]float64{
			OvenOffset: offsetSD, HeatFactor: heatSD, Release + "|*": releaseAllSD, Release + "|fruit": releaseFruitSD,
			Release + "|lot": releaseLotSD, Softness: softnessSD, Thickener: thickenerSD, Steam: steamSD, Colour: colourSD,
		},
		BakeSD: map[ParameterKind]float64{
			OvenOffset: bakeOvenSD, Release: bakeReleaseSD, Thickener: bakeThickenerSD, Colour: bakeColourSD,
			Softness: bakeSoftnessSD, "depth": bakeDepthSD,
		},
		DriftAYear: map[ParameterKind]float64{OvenOffset: ovenDriftC, Release: releaseDrift},
		ErrorSD: map[string]float64{
			"word": wordSD, "juice_hot": hotWordSD, "rim_min": rimSD, "middle_min": middleSD, "minutes_share": minutesShare,
			"weight_share": weightShare, "weight_g": weightSD, "readings": crossedSD, "measured_release": releaseTestSD,
		},
		StudentDF: studentDF, Lapse: lapse, FewestBakes: fewestBakes,
	}
}
