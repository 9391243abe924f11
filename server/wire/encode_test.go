package wire

import (
	"encoding/json"
	"math"
	"os"
	"reflect"
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/units"
	"mabbin/server/render"

	general "github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	jsonv1 "github.com/go-json-experiment/json/v1"
	"github.com/google/uuid"
)

type inner struct {
	Depth int `json:"depth"`
}

type everything struct {
	inner

	Says    message.Message   `json:"says"`
	Unsaid  message.Message   `json:"unsaid,omitzero"`
	Maybe   *message.Message  `json:"maybe"`
	All     []message.Message `json:"all,omitempty"`
	Name    larder.Name       `json:"name"`
	Names   map[string]larder.Name
	Any     any                `json:"any"`
	At      time.Time          `json:"at"`
	Never   time.Time          `json:"never,omitzero"`
	ID      uuid.UUID          `json:"id"`
	Raw     json.RawMessage    `json:"raw"`
	Hidden  string             `json:"-"`
	Whole   int64              `json:"whole,omitempty"`
	Share   float64            `json:"share"`
	Narrow  float32            `json:"narrow"`
	Counts  [3]uint8           `json:"-"`
	Sides   [2]float64         `json:"sides"`
	Weights map[string]float64 `json:"weights,omitempty"`
	Within  []everything       `json:"within"`
	Next    *everything        `json:"next,omitempty"`
	Done    bool               `json:"done"`
}

// usual is what the usual encoder makes of a value.
func usual(v any, r render.Reading) ([]byte, error) {
	texts := general.JoinMarshalers(
		general.MarshalToFunc(func(to *jsontext.Encoder, m message.Message) error {
			return to.WriteToken(jsontext.String(r.Text(m)))
		}),
		general.MarshalToFunc(func(to *jsontext.Encoder, n larder.Name) error {
			return to.WriteToken(jsontext.String(r.Name(string(n))))
		}),
	)
	return general.Marshal(v, general.JoinOptions(jsonv1.DefaultOptionsV1(), general.WithMarshalers(texts)))
}

func tree(t *testing.T, raw []byte, err error) (out any) {
	t.Helper()
	if err == nil {
		err = json.Unmarshal(raw, &out)
	}
	if err != nil {
		t.Fatalf("%v in %s", err, raw)
	}
	return out
}

func TestAnAnswerIsWhatTheUsualEncoderWouldWrite(t *testing.T) {
	text := message.New("Toss {fruit} with {much} of plain flour", message.Name("cornflour"), message.Grams(20.9))
	full := everything{
		inner: inner{3}, Says: text, Maybe: &text, All: []message.Message{text, {}}, Name: "Cornflour",
		Names: map[string]larder.Name{"b": "plain flour", "a": "caster sugar"}, Any: map[string]any{"x": text, "y": nil},
		At: time.Date(2026, 10, 17, 7, 0, 0, 0, time.UTC), ID: uuid.MustParse("3f2b8c1e-52a4-4d0b-9b1e-0a11b0a75a2d"),
		Raw: json.RawMessage(`{"as": ["it", 1e3]}`), Hidden: "x", Whole: -4, Share: 1.0 / 3, Narrow: 0.1,
		Sides: [2]float64{1e-7, 2e21}, Weights: map[string]float64{"plum": 0.25}, Done: true,
	}
	full.Within, full.Next = []everything{full, {}}, &full
	full.Next = &everything{Any: []string{"\"quoted\"", "half\\way", "line\nend", "½ é <b>", "\xff"}}
	values := []any{
		full,
		&full,
		everything{},
		nil,
		[]int(nil),
		map[string]int{},
		"text",
		math.Copysign(0, -1),
		12345678901234567.0,
		true,
		(*everything)(nil),
	}

	raw, err := os.ReadFile("../../core/balance/testdata/balance-cases.json")
	var cases []struct{ Request balance.Request }
	if err == nil {
		err = json.Unmarshal(raw, &cases)
	}
	if err != nil || len(cases) == 0 {
		t.Fatal(err, "no cases")
	}
	for _, c := range cases {
		if a, err := balance.Solve(c.Request); err == nil {
			values = append(values, a)
		}
	}
	for _, r := range []render.Reading{{}, {English: units.US, Weights: "oz", Lengths: "in", Heat: "f"}, {Decimal: units.Comma}} {
		for _, v := range values {
			got, err := Encode(v, r)
			is := tree(t, got, err)
			want, err := usual(v, r)
			if should := tree(t, want, err); !reflect.DeepEqual(is, should) {
				t.Errorf("%T is\n%s, and not\n%s", v, got, want)
			}
		}
	}
}

func TestWhatIsNoJSONIsAnError(t *testing.T) {
	tag := reflect.StructTag(`json:"a"`)
	twice := reflect.StructOf([]reflect.StructField{
		{Name: "A", Type: reflect.TypeFor[int](), Tag: tag}, {Name: "B", Type: reflect.TypeFor[int](), Tag: tag},
	})
	for text, v := range map[string]any{
		"not a number":          []float64{1, math.NaN()},
		"can't be in an answer": map[string]any{"f": func() {}},
		"unknown": struct {
			A int `json:"a,string"`
		}{},
		"two fields":   reflect.New(twice).Interface(),
		"json.RawMess": struct{ A json.RawMessage }{json.RawMessage("{")},
	} {
		if raw, err := Encode(v, render.Reading{}); err == nil || !strings.Contains(err.Error(), text) {
			t.Errorf("%T became %s, %v; want an error that says %q", v, raw, err, text)
		}
	}
}

// What is shown alone has fewer digits, and the points of a curve fewer still; whole numbers and what has few digits
// stay as they are.
func TestWhatIsShownHasFewDigits(t *testing.T) {
	v := struct {
		Curves bake.Curves `json:"curves"`
		G      float64     `json:"g"`
		Whole  float64     `json:"whole"`
		Small  float64     `json:"small"`
	}{bake.Curves{MiddleC: []float64{101.11975, 18, 0.00054664}}, 10134.9812, 1234567, 2.5}
	raw, err := EncodeShown(v, render.Reading{})
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{`"middle_c":[101.1,18,0.0005466]`, `"g":10135`, `"whole":1234567`, `"small":2.5`} {
		if !strings.Contains(string(raw), want) {
			t.Errorf("%s is not in %s", want, raw)
		}
	}
	if raw, err = Encode(v, render.Reading{}); err != nil || !strings.Contains(string(raw), "10134.9812") {
		t.Errorf("in full: %s, %v", raw, err)
	}
}
