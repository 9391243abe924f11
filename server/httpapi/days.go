package httpapi

import (
	"io"
	"math"
	"net/http"
	"time"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/server/formats"

	"github.com/gin-gonic/gin"
)

// dateOf is the date in a request's path, its midnight in UTC; what is none is answered, and false.
func (s *server) dateOf(c *gin.Context) (time.Time, bool) {
	d, err := time.Parse(time.DateOnly, c.Param("date"))
	if err != nil || d.Year() < 1970 || d.Year() > 2200 {
		var f fault.Faults
		f.Add("?date", message.New("is not a date: use the form of {example}", message.Text("2026-12-05")))
		s.fail(c, f)
		return d, false
	}
	return d, true
}

// getResources is what a kitchen has for its days.
func (s *server) getResources(c *gin.Context) {
	h, err := s.days.Resources(c, kitchenOf(c))
	s.respond(
		c,
		http.StatusOK,
		api.ResourceSettings{Resources: h.Resources, Revision: h.Revision, Outside: h.Outside},
		err,
	)
}

// setResources keeps what a kitchen has for its days.
func (s *server) setResources(c *gin.Context) {
	in, ok := decode(s, c, day.CheckResources)
	if !ok {
		return
	}
	if err := s.days.SetResources(c, kitchenOf(c), in, when(c)); err != nil {
		s.fail(c, err)
		return
	}
	s.getResources(c)
}

// getDay is a day.
func (s *server) getDay(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	d, err := s.days.Open(c, kitchenOf(c), date)
	s.respond(c, http.StatusOK, toAPIDay(d), err)
}

// setDay keeps what is wanted of a day.
func (s *server) setDay(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	in, ok := decode(s, c, day.CheckOrders)
	if !ok {
		return
	}
	d, err := s.days.SetOrders(c, kitchenOf(c), date, in, when(c))
	s.respond(c, http.StatusOK, toAPIDay(d), err)
}

// scheduleDay plans a day again. Where others are being planned it says so, and when to ask again.
func (s *server) scheduleDay(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	in, ok := decode[api.SchedulingJob](s, c, nil)
	if !ok {
		return
	}
	p, err := query[api.LayDayParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	select {
	case s.planning <- struct{}{}:
		defer func() { <-s.planning }()
	default:
		s.fail(c, errPlanning)
		return
	}
	ctx, tick, over, err := s.watchedWork(c, p.XWork)
	if err != nil {
		s.fail(c, err)
		return
	}
	defer over()
	d, err := s.days.Schedule(ctx, kitchenOf(c), date, app.SchedulingJob{
		TimeLimitMS: or(in.TimeLimitMs, 0), Iterations: or(in.Iterations, 0), Afresh: or(in.Afresh, false),
		Progress: func(share float64, _ day.Objective) { _ = tick(int(math.Round(100*share)), 100) },
	})
	s.respond(c, http.StatusOK, toAPIDay(d), err)
}

// readOrders reads orders as they are pasted.
func (s *server) readOrders(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	in, ok := decode[api.OrderLines](s, c, nil)
	if !ok {
		return
	}
	orders, unread, err := s.days.ReadLines(c, kitchenOf(c), date, in.Text, in.Among)
	s.respond(c, http.StatusOK, api.OrdersRead{Orders: orders, Unread: unread}, err)
}

// howMany proposes how much to make on a day.
func (s *server) howMany(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	all, err := s.days.HowMany(c, kitchenOf(c), date)
	s.respond(c, http.StatusOK, each(all, func(p app.Proposal) api.HowMany {
		return api.HowMany{
			Card: p.Card, Name: p.Name, Make: p.Make, Median: p.Median, Low: p.Low, High: p.High, Days: p.Days, Guess: p.Guess,
			Text: p.Text,
		}
	}), err)
}

// exportDayCalendar is a day as iCalendar.
func (s *server) exportDayCalendar(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	s.calendar(c, date, date)
}

// calendarAhead is how many days a calendar that is subscribed to reaches.
const calendarAhead = 60

// listDays is the days from yesterday on of which something is kept, in short.
func (s *server) listDays(c *gin.Context) {
	from, to := s.comingDays()
	days, err := s.Store.Days(c, kitchenOf(c), from, to)
	out := api.DayList{Days: []api.DaySummary{}}
	for _, d := range days {
		out.Days = append(out.Days, api.DaySummary{Date: d.Date.Format(time.DateOnly), Orders: len(d.Orders.Orders)})
	}
	s.respond(c, http.StatusOK, out, err)
}

// comingDays are those from yesterday on.
func (s *server) comingDays() (from, to time.Time) {
	today, _ := time.Parse(time.DateOnly, s.Clock().Format(time.DateOnly))
	return today.AddDate(0, 0, -1), today.AddDate(0, 0, calendarAhead)
}

// subscribeCalendar is the days from yesterday on as iCalendar.
func (s *server) subscribeCalendar(c *gin.Context) {
	from, to := s.comingDays()
	s.calendar(c, from, to)
}

func (s *server) calendar(c *gin.Context, from, to time.Time) {
	k, err := s.Store.OneKitchen(c, kitchenOf(c))
	if err != nil {
		s.fail(c, err)
		return
	}
	days, err := s.Store.Days(c, k.ID, from, to)
	if err != nil {
		s.fail(c, err)
		return
	}
	var schedule []formats.DayOf
	for _, d := range days {
		if d.Schedule != nil {
			schedule = append(schedule, formats.DayOf{Date: d.Date, Schedule: d.Schedule})
		}
	}
	c.Header("Content-Disposition", `attachment; filename="mabbin.ics"`)
	c.Data(http.StatusOK, "text/calendar; charset=utf-8",
		[]byte(formats.Calendar(k.ID, k.Name, schedule, s.Clock(), s.reading(c))))
}

// exportDayCSV is a day's sheets as a table.
func (s *server) exportDayCSV(c *gin.Context) {
	date, ok := s.dateOf(c)
	if !ok {
		return
	}
	d, err := s.Store.Day(c, kitchenOf(c), date)
	if err != nil {
		s.fail(c, err)
		return
	}
	if d.Schedule == nil {
		d.Schedule = &day.Schedule{}
	}
	s.download(c, "text/csv", func(to io.Writer) error {
		return formats.WriteDayCSV(to, formats.DayOf{Date: date, Schedule: d.Schedule}, s.reading(c))
	})
}

func toAPIDay(d app.Day) api.Day {
	return api.Day{
		Date: d.Date.Format(
			time.DateOnly,
		),
		Request:  d.Orders,
		Schedule: d.Schedule,
		Revision: app.RevisionOf(d),
		Stale:    d.Outdated(),
	}
}
