package main

import (
	"encoding/json"
	"errors"
	"net"
	"os"
	"strings"
	"testing"
)

func TestCalcAnswersEachRequestOfAList(t *testing.T) {
	b, err := os.ReadFile("../../core/balance/testdata/balance-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []struct {
		Request json.RawMessage
		Expect  struct {
			FruitG float64 `json:"fruit_g"`
		}
	}
	if err := json.Unmarshal(b, &cases); err != nil {
		t.Fatal(err)
	}
	list, _ := json.Marshal(
		[]json.RawMessage{cases[0].Request, []byte(`{"style":"flan"}`), cases[2].Request, cases[1].Request},
	)
	var out strings.Builder
	if err := run(
		t.Context(),
		[]string{"calc", "balance"},
		strings.NewReader(string(list)),
		&out,
	); !errors.Is(
		err,
		errBadRequest,
	) {
		t.Errorf("a list with bad requests: %v", err)
	}
	var answers []map[string]any
	if err := json.Unmarshal([]byte(out.String()), &answers); err != nil || len(answers) != 4 {
		t.Fatalf("%v: %s", err, out.String())
	}
	for i, want := range map[int]float64{0: cases[0].Expect.FruitG, 3: cases[1].Expect.FruitG} {
		if g, _ := answers[i]["fruit_g"].(float64); g < 0.995*want || g > 1.005*want {
			t.Errorf("answer %d: %v g of fruit, want %v", i, answers[i]["fruit_g"], want)
		}
	}
	if answers[1]["status"] != 400.0 || answers[2]["status"] != nil {
		t.Errorf("problems: %v, %v", answers[1], answers[2]["status"])
	}
}

func TestCalcOfOneRequest(t *testing.T) {
	for in, want := range map[string]error{"{": errBadRequest, "": errBadRequest, "[]": nil, "7": errBadRequest} {
		var out strings.Builder
		if err := run(
			t.Context(),
			[]string{"calc", "balance"},
			strings.NewReader(in),
			&out,
		); !errors.Is(err, want) ||
			!json.Valid([]byte(out.String())) {
			t.Errorf("%q: %v, %s", in, err, out.String())
		}
	}
	if err := run(t.Context(), []string{"calc", "roux"}, strings.NewReader("{}"), new(strings.Builder)); err == nil {
		t.Error("roux was calculated")
	}
}

func TestListenSaysWhatIsWrong(t *testing.T) {
	l, err := new(net.ListenConfig).Listen(t.Context(), "tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = l.Close() }()
	for addr, text := range map[string]string{l.Addr().String(): "in use", "0.0.0.0:8080": "not on loopback", "8080": "not an address"} {
		if _, err := listen(t.Context(), addr); err == nil || !strings.Contains(err.Error(), text) {
			t.Errorf("%s: %v, want %q", addr, err, text)
		}
	}
}
