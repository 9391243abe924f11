package formats

import (
	"encoding/csv"
	"fmt"
	"io"
	"time"

	"mabbin/core/day"
	"mabbin/server/render"

	ics "github.com/arran4/golang-ical"
	"github.com/google/uuid"
)

// DayOf is a day as it was planned, for a file.
type DayOf struct {
	Date     time.Time
	Schedule *day.Schedule
}

// Calendar is days as iCalendar (RFC 5545), in the hours of the kitchen's own clock. Each thing keeps its identity from
// file to file: a second import moves it and does not double it.
func Calendar(kitchen uuid.UUID, name string, days []DayOf, made time.Time, r render.Reading) string {
	c := ics.NewCalendar()
	c.SetProductId("-//Mabbin//Day//EN")
	c.SetMethod(ics.MethodPublish)
	c.SetXWRCalName("Mabbin: " + name)
	for _, d := range days {
		for _, s := range d.Schedule.Sheets {
			for _, row := range s.Rows {
				if row.At < 0 {
					continue // made the day before
				}
				c.AddVEvent(event(kitchen, d.Date, s, row, made, r))
			}
		}
	}
	return c.Serialize(ics.WithNewLineWindows) // CRLF: RFC 5545, 3.1
}

const (
	floating = "20060102T150405" // by the clock on the wall, wherever that is
	alarmed  = "-PT2M"
)

func event(kitchen uuid.UUID, date time.Time, s day.Sheet, row day.Row, made time.Time, r render.Reading) *ics.VEvent {
	id := uuid.NewSHA1(kitchen, fmt.Appendf(nil, "%s/%s/%s", date.Format(time.DateOnly), s.Kind, row.Task))
	e := ics.NewEvent(id.String() + "@mabbin.invalid")
	e.SetDtStampTime(made)
	e.SetSequence(int(made.Unix() % 1e9)) // a later file is a later state of it
	at := date.Add(time.Duration(row.At) * time.Minute)
	e.SetProperty(ics.ComponentPropertyDtStart, at.Format(floating))
	e.SetProperty(ics.ComponentPropertyDtEnd, at.Add(time.Duration(max(1, row.Minutes))*time.Minute).Format(floating))
	e.SetSummary(r.Text(row.Text))
	e.SetLocation(s.Of)
	if !row.Caution.IsZero() {
		e.SetDescription(r.Text(row.Caution))
	}
	if s.Kind == "hands" {
		a := e.AddAlarm()
		a.SetAction(ics.ActionDisplay)
		a.SetTrigger(alarmed)
		a.SetProperty(ics.ComponentPropertyDescription, r.Text(row.Text))
	}
	return e
}

// WriteDayCSV writes a day's sheets as a table.
func WriteDayCSV(to io.Writer, d DayOf, r render.Reading) error {
	w := csv.NewWriter(to)
	rows := [][]string{{"date", "clock", "minutes", "who or where", "what"}}
	for _, s := range d.Schedule.Sheets {
		for _, row := range s.Rows {
			rows = append(rows, []string{
				d.Date.Format(time.DateOnly),
				d.Date.Add(time.Duration(row.At) * time.Minute).Format("15:04"), fmt.Sprint(row.Minutes),
				harmless(s.Of), harmless(r.Text(row.Text)),
			})
		}
	}
	return w.WriteAll(rows)
}
