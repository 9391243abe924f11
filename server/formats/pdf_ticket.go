package formats

import (
	"strconv"

	"mabbin/core/message"
)

// ticketSheet is what to weigh on the left, and the work on the right.
func (s *pressed) ticketSheet() float64 {
	y := s.title(s.about()...)
	col := (s.w - 2*margin - gutter) / 2
	left := s.ticket(margin, y, col)
	right := s.work(margin+col+gutter, y, col)
	return s.allergens(max(left, right) + 6)
}

// ticket is what to weigh, bowl by bowl.
func (s *pressed) ticket(x, y, w float64) float64 {
	for _, b := range s.Answer.Ticket {
		y += s.heading(x, y, w, b.Title)
		for _, l := range b.Lines {
			s.right(x+figureOf*w, y, "bold", 14, s.Read.Weight(l.G))
			at := x + figureOf*w + 8
			h := s.para(at, y+1.5*s.k, w-figureOf*w-8, "plain", 11, s.Read.Label(string(l.Name)))
			if more := s.Read.Text(message.Join("; ", message.New(l.Spoons), l.Note, l.Pieces)); more != "" {
				h += s.para(at, y+h+1.5*s.k, w-figureOf*w-8, "plain", 8.5, more)
			}
			y += max(h, 14*s.k*leading) + 2*s.k
		}
		y += 6 * s.k
	}
	return y
}

// work is how the dessert stands, the method, and what is looked at before the door closes.
func (s *pressed) work(x, y, w float64) float64 {
	y += s.heading(x, y, w, message.New("Overview"))
	y += s.stands(x, y, w) + 6*s.k
	y += s.heading(x, y, w, message.New("Method"))
	y = s.method(x, y, w)
	y += 6 * s.k
	y += s.heading(x, y, w, message.New("Before the oven door closes"))
	for _, c := range s.Answer.Checks {
		if !s.dry {
			s.pdf.SetLineWidth(0.8)
			s.pdf.SetStrokeColor(20, 28, 60)
			s.pdf.RectFromUpperLeft(x, y+1*s.k, 9*s.k, 9*s.k)
		}
		y += s.para(x+16*s.k, y, w-16*s.k, "plain", 10, s.Read.Text(c.Text)) + 3*s.k
	}
	return y
}

// method is the steps of the work, numbered.
func (s *pressed) method(x, y, w float64) float64 {
	for i, m := range s.Answer.Method {
		s.line(x, y, "bold", 10, strconv.Itoa(i+1))
		y += s.para(x+16*s.k, y, w-16*s.k, "plain", 10, s.Read.Text(m.Text)) + 3*s.k
	}
	return y
}
