package wire

import (
	"bytes"
	"encoding"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mabbin/core/bake"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/server/render"

	"github.com/go-json-experiment/json/jsontext"
)

// Encode is an answer as JSON, every message in it a finished sentence as somebody reads.
//
// A general encoder took half of the time of a balance: of each value it looks up what becomes of it. Here that is
// worked out once for each type. What has an encoding of its own, as a moment or an id has, is asked for it.
func Encode(v any, r render.Reading) ([]byte, error) { return encode(v, r, -1) }

// shownDigits are the significant digits of a figure that is shown and drawn, and not calculated with.
const shownDigits = 5

// drawnDigits are those of a figure that is a point of a curve: a tenth of a degree, a hundredth of a minute.
const drawnDigits = 4

// drawn are the types whose figures are points of curves.
var drawn = map[reflect.Type]bool{reflect.TypeFor[bake.Curves](): true}

// EncodeShown is Encode for an answer that is shown alone: its figures have no more digits than can be seen. That makes
// it shorter by a quarter, and by a third once it is compressed.
func EncodeShown(v any, r render.Reading) ([]byte, error) { return encode(v, r, shownDigits) }

func encode(v any, r render.Reading, digits int) ([]byte, error) {
	value := reflect.ValueOf(v)
	if value.IsValid() && value.Kind() != reflect.Pointer { // what has an address is read where it is
		at := reflect.New(value.Type()).Elem()
		at.Set(value)
		value = at
	}
	to := encoders.Get().(*encoder) //nolint:forcetypeassert // nothing else is put there
	defer encoders.Put(to)
	to.text, to.reader, to.digits = to.text[:0], r.Renderer(), digits
	if err := to.value(value); err != nil {
		return nil, fmt.Errorf("encode %T: %w", v, err)
	}
	return bytes.Clone(to.text), nil
}

var encoders = sync.Pool{New: func() any { return new(encoder) }}

// encoder writes one answer.
type encoder struct {
	text   []byte
	reader *render.Renderer
	digits int // significant ones of a figure; negative: as many as it has
}

// writing appends a value of one type.
type writing func(to *encoder, v reflect.Value) error

// writings are what is known of the types, by type.
var writings sync.Map

// value appends any value.
func (to *encoder) value(v reflect.Value) error {
	if !v.IsValid() {
		return to.null()
	}
	return writingOf(v.Type())(to, v)
}

func (to *encoder) null() error {
	to.text = append(to.text, "null"...)
	return nil
}

// quote puts into quotes what stands from a place on.
func (to *encoder) quote(from int) error {
	if unescaped(to.text[from:]) {
		to.text = append(to.text, '"')
		return nil
	}
	text := bytes.ToValidUTF8(to.text[from:], []byte("\uFFFD")) // a copy: what it is of is written over
	var err error
	to.text, err = jsontext.AppendQuote(to.text[:from-1], text)
	return err
}

// unescaped says of a text that it stands in quotes as it is.
func unescaped(s []byte) bool {
	for _, c := range s {
		if !asItIs[c] {
			return false
		}
	}
	return true
}

// asItIs are the characters that stand in quotes as they are: those of ASCII that are seen, but for JSON's own marks.
var asItIs = func() (is [256]bool) {
	for c := ' '; c <= '~'; c++ {
		is[c] = c != '"' && c != '\\'
	}
	return is
}()

func writingOf(t reflect.Type) writing {
	if known, ok := writings.Load(t); ok {
		return known.(writing) //nolint:forcetypeassert // nothing else is stored
	}
	// what a type holds may be of the type itself: until its writing is there it is looked for anew
	known, _ := writings.LoadOrStore(t, newWriting(t))
	return known.(writing) //nolint:forcetypeassert // as above
}

var (
	messages  = reflect.TypeFor[message.Message]()
	names     = reflect.TypeFor[larder.Name]()
	marshaler = reflect.TypeFor[json.Marshaler]()
	textual   = reflect.TypeFor[encoding.TextMarshaler]()
	zeroSayer = reflect.TypeFor[interface{ IsZero() bool }]()
)

func newWriting(t reflect.Type) writing {
	switch {
	case t == messages:
		return writeMessage
	case t == names:
		return writeName
	case t.Kind() != reflect.Pointer && t.Kind() != reflect.Interface &&
		(reflect.PointerTo(t).Implements(marshaler) || reflect.PointerTo(t).Implements(textual)):
		return writeItself
	}
	switch t.Kind() {
	case reflect.Bool:
		return writeBool
	case reflect.Int, reflect.Int8, reflect.Int16, reflect.Int32, reflect.Int64:
		return writeInt
	case reflect.Uint, reflect.Uint8, reflect.Uint16, reflect.Uint32, reflect.Uint64:
		return writeUint
	case reflect.Float32, reflect.Float64:
		return writeFloat
	case reflect.String:
		return writeString
	case reflect.Interface:
		return writeInterface
	case reflect.Pointer:
		return writePointer
	case reflect.Slice, reflect.Array:
		if t.Elem().Kind() == reflect.Uint8 {
			return writeItself
		}
		return writeList(t)
	case reflect.Map:
		return writeMap(t)
	case reflect.Struct:
		return writeStruct(t)
	}
	return failing("a %s can't be in an answer", t)
}

// failing is for a type that cannot be written: an error of the program.
func failing(format string, args ...any) writing {
	return func(*encoder, reflect.Value) error { return fmt.Errorf(format, args...) }
}

func writeMessage(to *encoder, v reflect.Value) error {
	m, _ := addressed(v).(*message.Message)
	to.text = append(to.text, '"')
	from := len(to.text)
	to.text = m.Append(to.text, to.reader)
	return to.quote(from)
}

// addressed is a pointer to a value: to itself where it has an address, which spares a copy.
func addressed(v reflect.Value) any {
	if !v.CanAddr() {
		at := reflect.New(v.Type())
		at.Elem().Set(v)
		return at.Interface()
	}
	return v.Addr().Interface()
}

func writeName(to *encoder, v reflect.Value) error { return to.string(to.reader.Name(v.String())) }

func writeString(to *encoder, v reflect.Value) error { return to.string(v.String()) }

func (to *encoder) string(s string) error {
	to.text = append(append(to.text, '"'), s...)
	return to.quote(len(to.text) - len(s))
}

// writeItself is for what has an encoding of its own.
func writeItself(to *encoder, v reflect.Value) error {
	raw, err := json.Marshal(addressed(v))
	to.text = append(to.text, raw...)
	return err
}

func writeBool(to *encoder, v reflect.Value) error {
	to.text = strconv.AppendBool(to.text, v.Bool())
	return nil
}

func writeInt(to *encoder, v reflect.Value) error {
	to.text = strconv.AppendInt(to.text, v.Int(), 10)
	return nil
}

func writeUint(to *encoder, v reflect.Value) error {
	to.text = strconv.AppendUint(to.text, v.Uint(), 10)
	return nil
}

func writeFloat(to *encoder, v reflect.Value) error {
	x := v.Float()
	switch size := math.Abs(x); {
	case math.IsNaN(x) || math.IsInf(x, 0):
		return fmt.Errorf("%g is not a number", x)
	case x == math.Trunc(x) && size < 1e15:
		to.text = strconv.AppendInt(to.text, int64(x), 10)
	case to.digits > 0:
		to.text = strconv.AppendFloat(to.text, x, 'g', to.digits, v.Type().Bits())
	case size < 1e-6 || size >= 1e21:
		to.text = strconv.AppendFloat(to.text, x, 'e', -1, v.Type().Bits())
	default:
		to.text = strconv.AppendFloat(to.text, x, 'f', -1, v.Type().Bits())
	}
	return nil
}

func writeInterface(to *encoder, v reflect.Value) error { return to.value(v.Elem()) }

func writePointer(to *encoder, v reflect.Value) error { return to.value(v.Elem()) }

func writeList(t reflect.Type) writing {
	one := later(t.Elem())
	return func(to *encoder, v reflect.Value) error {
		if v.Kind() == reflect.Slice && v.IsNil() {
			return to.null()
		}
		write := one()
		to.text = append(to.text, '[')
		for i := range v.Len() {
			if i > 0 {
				to.text = append(to.text, ',')
			}
			if err := write(to, v.Index(i)); err != nil {
				return err
			}
		}
		to.text = append(to.text, ']')
		return nil
	}
}

// later is the writing of a type that may hold the one which asks for it.
func later(t reflect.Type) func() writing {
	return sync.OnceValue(func() writing { return writingOf(t) })
}

// writeMap writes a map in the order of its keys.
func writeMap(t reflect.Type) writing {
	if t.Key().Kind() != reflect.String || t.Key().Implements(textual) {
		return failing("a map with keys of type %s can't be in an answer", t.Key())
	}
	one := later(t.Elem())
	return func(to *encoder, v reflect.Value) error {
		if v.IsNil() {
			return to.null()
		}
		keys := v.MapKeys()
		slices.SortFunc(keys, func(a, b reflect.Value) int { return strings.Compare(a.String(), b.String()) })
		write := one()
		to.text = append(to.text, '{')
		for i, key := range keys {
			if i > 0 {
				to.text = append(to.text, ',')
			}
			if err := to.string(key.String()); err != nil {
				return err
			}
			to.text = append(to.text, ':')
			if err := write(to, v.MapIndex(key)); err != nil {
				return err
			}
		}
		to.text = append(to.text, '}')
		return nil
	}
}

// field is one of a struct's, as it is written.
type field struct {
	at      []int
	head    string // its name in quotes, and the colon
	write   func() writing
	without func(reflect.Value) bool // whether it is left out
}

// writeStruct writes a struct's fields in their order, those of structs within it as its own.
func writeStruct(t reflect.Type) writing {
	fields, err := fieldsOf(t)
	if err != nil {
		return failing("%w", err)
	}
	return func(to *encoder, v reflect.Value) error {
		if to.digits > drawnDigits && drawn[t] {
			shown := to.digits
			to.digits = drawnDigits
			defer func() { to.digits = shown }()
		}
		to.text = append(to.text, '{')
		first := true
		for i := range fields {
			f := &fields[i]
			x := v.Field(f.at[0])
			for _, n := range f.at[1:] {
				x = x.Field(n)
			}
			if f.without != nil && f.without(x) {
				continue
			}
			if !first {
				to.text = append(to.text, ',')
			}
			first = false
			to.text = append(to.text, f.head...)
			if err := f.write()(to, x); err != nil {
				return err
			}
		}
		to.text = append(to.text, '}')
		return nil
	}
}

func fieldsOf(t reflect.Type) ([]field, error) {
	var out []field
	seen := map[string]bool{}
	for _, f := range reflect.VisibleFields(t) {
		tag := f.Tag.Get("json")
		name, options, _ := strings.Cut(tag, ",")
		within := f.Anonymous && name == ""
		if !f.IsExported() || tag == "-" || within && f.Type.Kind() == reflect.Struct {
			continue
		}
		if within || options != "" && options != "omitempty" && options != "omitzero" {
			return nil, fmt.Errorf("%s.%s: %q is unknown", t, f.Name, f.Tag)
		}
		if name == "" {
			name = f.Name
		}
		if seen[name] {
			return nil, fmt.Errorf("%s has two fields %q", t, name)
		}
		seen[name] = true
		one := field{at: f.Index, head: strconv.Quote(name) + ":", write: later(f.Type)}
		switch options {
		case "omitempty":
			one.without = empty
		case "omitzero":
			one.without = zero(f.Type)
		}
		out = append(out, one)
	}
	return out, nil
}

// empty says of a value that a list, a map or a text has nothing in it, or that it is a zero, a no or no value.
func empty(v reflect.Value) bool {
	switch v.Kind() {
	case reflect.Slice, reflect.Map, reflect.String, reflect.Array:
		return v.Len() == 0
	case reflect.Struct:
		return false
	default:
		return v.IsZero()
	}
}

// zero is whether a value is its type's zero, as the type itself says where it does.
func zero(t reflect.Type) func(reflect.Value) bool {
	if t.Kind() == reflect.Pointer || t.Kind() == reflect.Interface || !t.Implements(zeroSayer) {
		return reflect.Value.IsZero
	}
	return func(v reflect.Value) bool {
		x, ok := addressed(v).(interface{ IsZero() bool })
		return ok && x.IsZero()
	}
}
