package fault

import (
	"fmt"
	"runtime/debug"
)

// Guard runs work and returns a panic in it as an error with its stack trace, so that it ends this work alone.
func Guard(work func() error) (err error) {
	defer func() {
		if what := recover(); what != nil {
			err = fmt.Errorf("panic: %v\n%s", what, debug.Stack())
		}
	}()
	return work()
}
