package render

import (
	"sync"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Text is what the rules say, as the kitchen reads it.
func (r Reading) Text(m message.Message) string { return m.Read(r.Renderer()) }

// Words is a sentence of the program in the kitchen's words.
func (r Reading) Words(s string) string { return r.Renderer().Wording(s).String() }

// Name is a name of the tables as it stands in a sentence.
func (r Reading) Name(name string) string {
	if r.English == units.US {
		return American(name)
	}
	return name
}

// Renderer renders messages for one reading. It keeps the words of each format: a format is a constant of the program,
// so there are only so many.
type Renderer struct {
	reading  Reading
	forms    Forms
	mu       sync.RWMutex
	wordings map[string]message.Wording
}

var _ message.Reader = (*Renderer)(nil)

// renderers are all that were asked for, by their readings: each part of a reading has a few values.
var renderers sync.Map

// Renderer is the reading's renderer.
func (r Reading) Renderer() *Renderer {
	known, ok := renderers.Load(r)
	if !ok {
		known, _ = renderers.LoadOrStore(r, &Renderer{reading: r, forms: formsOf(r), wordings: map[string]message.Wording{}})
	}
	return known.(*Renderer) //nolint:forcetypeassert // nothing else is stored
}

// mostKept is the longest format that is kept: what is longer was not written in the program.
const mostKept = 400

// Wording is a format in the kitchen's English, its own figures in the kitchen's units.
func (r *Renderer) Wording(format string) message.Wording {
	r.mu.RLock()
	w, known := r.wordings[format]
	r.mu.RUnlock()
	if known {
		return w
	}
	w = message.NewWording(r.reading.words(format))
	if len(format) <= mostKept {
		r.mu.Lock()
		r.wordings[format] = w
		r.mu.Unlock()
	}
	return w
}

// Name is a name of the tables as it stands in a sentence.
func (r *Renderer) Name(name string) string { return r.reading.Name(name) }

// AppendFigure puts a value of a sentence to the end of a text.
func (r *Renderer) AppendFigure(text []byte, kind message.Kind, x float64) []byte {
	return r.forms[kind].append(text, x, r.reading.Decimal)
}
