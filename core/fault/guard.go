package fault

import (
	"fmt"
	"runtime/debug"
)

// Guard does a piece of work of its own. A panic in it is its error, with where it was: it ends that piece, and nothing
// beside it.
func Guard(work func() error) (err error) {
	defer func() {
		if what := recover(); what != nil {
			err = fmt.Errorf("panic: %v\n%s", what, debug.Stack())
		}
	}()
	return work()
}
