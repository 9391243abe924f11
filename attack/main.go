// Command attack attacks a copy of Mabbin, with a database of its own: it kills server and database under writes, sends
// requests that no page would send, has many change one thing, and sends bombs and next to nothing. It prints what was
// lost, doubled, half written or answered as a fault, and ends with 1 where something was. It is run by make attack.
package main

import (
	"context"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"mabbin/attack/hostile"
	"mabbin/server/demo"
	"mabbin/server/wire"
)

// report is what came of one kind of attack.
type report struct {
	name, says            string
	requests              int
	lost, doubled, halves int
	wrong                 []string
	processor             time.Duration // the most that one request took
	took                  string        // which it was
	plannings             time.Duration // the most that one took which is allowed to take its time
}

// longest notes the processor time of a request.
func (r *report) longest(actual time.Duration, what string) {
	if actual > r.processor {
		r.processor, r.took = actual, what
	}
}

// The promises.
const (
	mostProcessor = 2 * time.Second
	mostMemoryMB  = 300.0
)

func main() {
	minutes := flag.Float64("minutes", 10, "how long it takes in all")
	binary := flag.String("binary", "bin/mabbin", "the server that is attacked")
	raced := flag.Bool("race", false, "the server looks for races: its processor time and memory are not judged")
	only := flag.String("only", "", "of kills, hostile, races, bombs and slow, this one")
	seed := flag.Uint64("seed", 1, "from where the requests are drawn")
	flag.Parse()
	ok, err := run(*binary, *minutes, *raced, *only, *seed)
	if err != nil {
		fmt.Fprintln(os.Stderr, "attack:", err)
		os.Exit(2)
	}
	if !ok {
		os.Exit(1)
	}
}

// attack is one kind of attack, for a share of the time.
type attack struct {
	name  string
	share float64
	run   func(context.Context, *machine, *client) (report, error)
}

func run(binary string, minutes float64, raced bool, only string, seed uint64) (bool, error) {
	root, err := os.Getwd()
	if err != nil {
		return false, err
	}
	m, err := newMachine(root, filepath.Join(root, binary))
	if err != nil {
		return false, err
	}
	defer m.close()
	if err := m.demo(); err != nil {
		return false, err
	}
	if err := m.start(); err != nil {
		return false, err
	}
	c := newClient(m.addr)
	var reports []report
	for _, x := range []attack{
		{"kills", 0.35, kills},
		{"hostile", 0.3, hostileWith(seed)},
		{"races", 0.15, races},
		{"bombs", 0.1, bombs},
		{"slow", 0.1, slow},
	} {
		if only != "" && !strings.Contains(x.name, only) {
			continue
		}
		ctx, cancel := context.WithTimeout(context.Background(), time.Duration(x.share*minutes*float64(time.Minute)))
		r, err := x.run(ctx, m, c)
		cancel()
		if err != nil {
			return false, fmt.Errorf("%s: %w", r.name, err)
		}
		var faults []string
		r.requests, faults = c.take()
		r.wrong = append(r.wrong, faults...)
		m.remember()
		reports = append(reports, r)
		fmt.Printf("%s: %s\n", r.name, r.says)
		for i, w := range r.wrong {
			if i == mostFaults {
				fmt.Printf("  and %d more\n", len(r.wrong)-i)
				break
			}
			fmt.Println("  " + w)
		}
	}
	return table(reports, m, raced), nil
}

// table prints what came of the attacks, and says whether every promise was kept.
func table(all []report, m *machine, raced bool) (ok bool) {
	ok = true
	fmt.Printf(
		"\n%-55s %9s %5s %8s %13s %8s %13s\n",
		"attack",
		"requests",
		"lost",
		"doubled",
		"half written",
		"wrong",
		"processor, s",
	)
	for _, r := range all {
		fmt.Printf("%-55s %9d %5d %8d %13d %8d %13.2f\n", r.name, r.requests, r.lost, r.doubled, r.halves, len(r.wrong),
			r.processor.Seconds())
		ok = ok && r.lost+r.doubled+r.halves+len(r.wrong) == 0
		if r.processor > 0 {
			fmt.Printf("  the longest: %.200s\n", r.took)
		}
		ok = ok && (raced || r.processor <= mostProcessor)
		if r.plannings > 0 {
			fmt.Printf("  planning, learning and explaining took %.1f s at most\n", r.plannings.Seconds())
		}
	}
	fmt.Printf("\npanics %d, races %d, memory %.0f MB at most\n", m.panics.Load(), m.races.Load(), m.peakMB)
	ok = ok && m.panics.Load() == 0 && m.races.Load() == 0 && (raced || m.peakMB < mostMemoryMB)
	if !ok {
		fmt.Println("a promise was broken: see above, and", m.log.Name())
	}
	return ok
}

// long are the operations that may take their time: they search until their time is over, or go through a whole log.
var long = map[string]bool{
	"planDay": true, "layDay": true, "learn": true, "explainBake": true, "restoreKitchen": true,
}

// hostileWith sends made-up requests to every operation of the contract, one after the other.
func hostileWith(seed uint64) func(context.Context, *machine, *client) (report, error) {
	return func(ctx context.Context, m *machine, c *client) (report, error) {
		out := report{name: "made-up requests to every operation"}
		doc, err := wire.Contract()
		if err != nil {
			return out, err
		}
		kitchen := demo.Kitchen.ID.String()
		_ = c.send("POST", "/api/v1/kitchens/"+kitchen+"/watch", hostile.Start, "")
		caller := hostile.New(
			seed,
			doc,
			kitchen,
			func(path string) string { return string(c.send("GET", path, "", "").body) },
		)
		operations := map[string]bool{}
		for ctx.Err() == nil {
			q := caller.Request()
			within, stop := context.WithTimeout(context.WithoutCancel(ctx), patience)
			if long[q.Operation] {
				stop()
				within, stop = context.WithTimeout(context.WithoutCancel(ctx), 3*time.Second) //nolint:mnd // then it is given up
			}
			r, err := q.HTTP(within, c.base)
			if err != nil {
				stop()
				continue // no client sends it
			}
			before := m.processor()
			a := c.do(r)
			stop()
			actual := m.processor() - before
			if long[q.Operation] {
				out.plannings = max(out.plannings, actual)
			} else {
				out.longest(actual, q.String())
				if a.code == 0 && ctx.Err() == nil {
					out.wrong = append(out.wrong, "no answer to "+q.String())
				}
			}
			operations[q.Operation] = true
		}
		out.says = fmt.Sprintf("%d operations", len(operations))
		return out, nil
	}
}
