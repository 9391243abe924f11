package day_test

import (
	"testing"

	"mabbin/core/bake"
	"mabbin/core/day"
)

// What was reported to be done is kept with how long it took, in addition to the working minutes; a kitchen that is
// slower is planned so, and its working minutes stay what they are.
func TestHowLongHandsTook(t *testing.T) {
	o := ordered(t, day.Order{ID: "One", Card: "c", Dishes: 1, Due: 720, Serve: day.Warm}, func(*bake.DessertRequest) {})
	asked := day.Orders{Orders: []day.Order{o.Order}}
	minutesOf := func(q day.Request, id string) int {
		for _, x := range q.Batches[0].Tasks {
			if x.ID == id {
				return x.Minutes
			}
		}
		t.Fatalf("no task %s", id)
		return 0
	}
	schedule, q := lay(t, yard(), asked, []day.PlannedOrder{o}, 0, nil)
	working := minutesOf(q, "One.fruit")
	if len(schedule.ActualTimes) != 0 {
		t.Errorf("nothing is done, and it took %v", schedule.ActualTimes)
	}

	start, end := 430, 430+2*working
	asked.Pinned = []day.Pin{{Task: "One.fruit", Start: start, End: &end}}
	slow := yard()
	slow.WorkFactors = map[string]float64{"fruit": 1.5}
	done, q := lay(t, slow, asked, []day.PlannedOrder{o}, end+5, schedule)
	if got := minutesOf(q, "One.fruit"); got <= working {
		t.Errorf("%d min for slow hands, %d reckoned", got, working)
	}
	if len(done.ActualTimes) != 1 ||
		done.ActualTimes[0] != (day.ActualTime{Kind: "fruit", Planned: working, Actual: 2 * working}) {
		t.Errorf("it took %+v, want %d of %d", done.ActualTimes, 2*working, working)
	}
}
