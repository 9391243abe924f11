package fault

import (
	"errors"
	"fmt"
	"testing"

	"mabbin/core/message"
)

func TestThePartsFaultsAreTheWholes(t *testing.T) {
	var part, whole Faults
	part.Range("/length_cm", -1, 3, 100, "cm")
	whole.Range("/count", 9, 0, 5, "")
	whole.Under("/dish", part.Err())
	whole.Under("/dish", nil)
	whole.Under("/dish", errors.New("no list of faults"))
	if got := whole.Error(); got != "/count: is 9: enter 0 to 5; /dish/length_cm: is -1 cm: enter 3 to 100 cm" {
		t.Error(got)
	}
	if part[0].Pointer != "/length_cm" {
		t.Errorf("the part itself is changed: %v", part)
	}
	if later, ok := AsNotYet(
		Under("/card", fmt.Errorf("read: %w", &NotYet{"/base", message.New("not calculated")})),
	); !ok ||
		later.Pointer != "/card/base" {
		t.Errorf("%+v", later)
	}
	if err := errors.New("other"); Under("/x", err) != err || Under("/x", nil) != nil { //nolint:errorlint // the very same
		t.Error("an error that names no field is changed")
	}
}
