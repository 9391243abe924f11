package day

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"slices"
)

// Question is a digest of what a plan depends on: the request without the hour, the limits of the search and what has
// happened as planned, and what was fixed by hand. Empty where there is none.
func Question(q Request, a Orders) string {
	q.Now, q.TimeLimitMS, q.Iterations, q.Seed, q.Standing, q.Pinned = 0, 0, 0, 0, nil, nil
	raw, err := json.Marshal(struct {
		Request  Request
		Pinned   []Pin
		Remedies []AppliedRemedy
	}{q, a.Pinned, a.Remedies})
	if err != nil {
		return ""
	}
	sum := sha256.Sum256(raw)
	return hex.EncodeToString(sum[:])
}

// Answers says whether a schedule is the plan for a request: it is of the same question, and all has gone as planned
// until now.
func (l *Schedule) Answers(q Request, a Orders) bool {
	if l.Question == "" || l.Question != Question(q, a) || l.Plan.Stopped == StoppedByUser {
		return false
	}
	return !slices.ContainsFunc(q.Pinned, func(p Pin) bool {
		if p.End != nil && *p.End <= q.Now {
			return false // it is over, and changes nothing any more
		}
		s, planned := l.task(p.Task)
		return !planned || p.Start != s.Start || p.End != nil && *p.End != s.End ||
			p.Person != "" && p.Person != s.Person || p.Oven != "" && p.Oven != s.Oven
	})
}
