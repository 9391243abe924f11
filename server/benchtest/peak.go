// Package benchtest measures what benchmarks have in common.
package benchtest

import (
	"runtime"
	"runtime/metrics"
	"testing"
	"time"
)

// Peak reports the most memory that the program's heap held while something ran, in MB.
func Peak(b *testing.B, run func()) {
	b.Helper()
	samples := []metrics.Sample{{Name: "/memory/classes/heap/objects:bytes"}, {Name: "/memory/classes/heap/unused:bytes"}}
	runtime.GC()
	stop, stopped := make(chan struct{}), make(chan uint64)
	go func() {
		most := uint64(0)
		for {
			metrics.Read(samples)
			most = max(most, samples[0].Value.Uint64()+samples[1].Value.Uint64())
			select {
			case <-stop:
				stopped <- most
				return
			case <-time.After(time.Millisecond):
			}
		}
	}()
	run()
	close(stop)
	b.ReportMetric(float64(<-stopped)/(1<<20), "peak-MB")
}
