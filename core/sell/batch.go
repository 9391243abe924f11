package sell

import (
	"regexp"
	"time"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// BatchPrefix is what the batch numbers of a day begin with: day, month and year.
func BatchPrefix(on time.Time) string { return on.Format("020106") }

var batchNumbers = regexp.MustCompile(`^[0-9]{6}-[A-Z]{1,6}$`)

// CheckBatchNumber notes what is no batch number.
func CheckBatchNumber(at, batch string, f *fault.Faults) {
	if !batchNumbers.MatchString(batch) {
		f.Add(at, message.New("is not a batch number: use the form of {example}", message.Text("271126-B")))
	}
}

// BatchNumber is the number of a day's batch, which is the n-th of it from 0 on: 271126-B is the second of 27 November
// 2026. After Z come AA, AB and so on.
func BatchNumber(on time.Time, n int) string {
	letters := ""
	for n++; n > 0; n = (n - 1) / 26 {
		letters = string(rune('A'+(n-1)%26)) + letters
	}
	return BatchPrefix(on) + "-" + letters
}
