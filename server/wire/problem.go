package wire

import (
	"errors"
	"net/http"
	"strings"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/server/render"
)

// ProblemOf is an error as an RFC 9457 problem, as somebody reads; false for one that is no fault of the request.
func ProblemOf(err error, r render.Reading) (api.Problem, bool) {
	var faults fault.Faults
	later, notYet := fault.AsNotYet(err)
	switch {
	case notYet:
		return problem("urn:mabbin:problem:not-yet", message.New("Not calculated yet"), http.StatusUnprocessableEntity,
			fault.Faults{{Pointer: later.Pointer, Detail: later.Detail}}, r), true
	case errors.As(err, &faults):
		return problem(
			"about:blank",
			message.New("The request can't be used"),
			http.StatusBadRequest,
			faults,
			r,
		), true
	}
	return api.Problem{}, false
}

// Refusal is a problem that is about no single field.
func Refusal(status int, title message.Message, r render.Reading) api.Problem {
	return api.Problem{Type: "about:blank", Title: r.Text(title), Status: status}
}

// The most fields that one answer tells of, and the longest address of one, in bytes: what is wrong everywhere need not
// be reported everywhere.
const (
	mostFields  = 50
	mostPointer = 300
)

func problem(kind string, title message.Message, status int, faults fault.Faults, r render.Reading) api.Problem {
	if more := len(faults) - mostFields; more > 0 {
		faults = append(faults[:mostFields:mostFields],
			fault.Fault{Detail: message.New("{n} more are wrong", message.Count(more))})
	}
	fields, all := make([]api.FieldProblem, len(faults)), make([]string, len(faults))
	for i, f := range faults {
		f.Pointer = clipped(f.Pointer)
		detail := r.Text(f.Detail)
		all[i] = strings.TrimSpace(subject(f.Pointer, r) + " " + detail)
		fields[i] = api.FieldProblem{Pointer: fragment(f.Pointer), Detail: detail, Text: all[i]}
	}
	detail := strings.Join(all, "; ")
	return api.Problem{Type: kind, Title: r.Text(title), Status: status, Detail: &detail, Errors: &fields}
}

// clipped is a pointer that can be shown: of one that is too long its beginning.
func clipped(pointer string) string {
	if len(pointer) <= mostPointer {
		return pointer
	}
	return strings.ToValidUTF8(pointer[:mostPointer], "")
}

// fragment is a pointer as a URI fragment; a query parameter keeps its question mark.
func fragment(pointer string) string {
	if strings.HasPrefix(pointer, "?") {
		return pointer
	}
	return "#" + pointer
}

// BodyFault is an error of a whole body, as a file is one, as a fault.
func BodyFault(err error) error { return fault.Faults{{Detail: message.Of(err)}} }
