package larder

import (
	"embed"
	"encoding/csv"
	"fmt"
	"maps"
	"math"
	"strconv"
	"strings"
)

//go:embed data/*.csv
var files embed.FS

// row is one line of a table, read by column name. A cell that is no number is remembered in err,
// so that a reader can take every column in turn and look once at the end.
type row struct {
	cells map[string]string
	err   error
}

func (r *row) text(column string) string {
	v, ok := r.cells[column]
	if !ok {
		r.fail(fmt.Errorf("no column %q", column))
	}
	return v
}

// number reads a cell; an empty one is 0.
func (r *row) number(column string) float64 {
	v := r.text(column)
	if v == "" {
		return 0
	}
	x, err := strconv.ParseFloat(v, 64)
	if err != nil || math.IsNaN(x) || math.IsInf(x, 0) {
		r.fail(fmt.Errorf("column %s: %q is not a number", column, v))
	}
	return x
}

func (r *row) yes(column string) bool { return r.text(column) == "yes" }

func (r *row) fail(err error) {
	if r.err == nil {
		r.err = err
	}
}

// Table is one table in the order of its file, with its rows by key.
type Table[T any] struct {
	rows  []T
	cells []map[string]string // as the file has them
	byKey map[string]int
	parse func(*row) T
}

// changed reads a row once more with some of its figures changed.
func (t Table[T]) changed(key string, values map[string]float64) (T, bool) {
	i, ok := t.byKey[key]
	if !ok {
		var none T
		return none, false
	}
	cells := maps.Clone(t.cells[i])
	for column, v := range values {
		cells[column] = strconv.FormatFloat(v, 'g', -1, 64)
	}
	return t.parse(&row{cells: cells}), true
}

// figure is one number of a row, as the file has it; false where the cell is empty.
func (t Table[T]) figure(key, column string) (float64, bool) {
	i, ok := t.byKey[key]
	if !ok {
		return 0, false
	}
	x, err := strconv.ParseFloat(t.cells[i][column], 64)
	return x, err == nil
}

// All lists the rows in the order of the file. The slice is shared: do not change it.
func (t Table[T]) All() []T { return t.rows }

// Get finds a row by its key.
func (t Table[T]) Get(key string) (T, bool) {
	i, ok := t.byKey[key]
	if !ok {
		var none T
		return none, false
	}
	return t.rows[i], true
}

// Keys lists every key in the order of the file.
func (t Table[T]) Keys() []string {
	keys := make([]string, len(t.rows))
	for k, i := range t.byKey {
		keys[i] = k
	}
	return keys
}

// read parses an embedded table. The tables are part of the program: a fault in one is a fault of the build,
// so it panics at start, and the package's tests look at every cell before that can happen to anyone.
func read[T any](name string, key func(T) string, parse func(*row) T) Table[T] {
	t, err := parseTable(name, key, parse)
	if err != nil {
		panic(fmt.Sprintf("larder: %s: %v", name, err))
	}
	return t
}

func parseTable[T any](name string, key func(T) string, parse func(*row) T) (Table[T], error) {
	t := Table[T]{byKey: map[string]int{}, parse: parse}
	f, err := files.Open("data/" + name + ".csv")
	if err != nil {
		return t, err
	}
	defer f.Close()
	lines, err := csv.NewReader(f).ReadAll()
	if err != nil {
		return t, err
	}
	for n, line := range lines[1:] {
		r := row{cells: make(map[string]string, len(line))}
		for i, cell := range line {
			r.cells[lines[0][i]] = strings.TrimSpace(cell)
		}
		x := parse(&r)
		if r.err != nil {
			return t, fmt.Errorf("line %d: %w", n+2, r.err)
		}
		k := key(x)
		if _, twice := t.byKey[k]; twice || k == "" {
			return t, fmt.Errorf("line %d: key %q is empty or stands twice", n+2, k)
		}
		t.byKey[k] = len(t.rows)
		t.rows = append(t.rows, x)
		t.cells = append(t.cells, r.cells)
	}
	return t, nil
}
