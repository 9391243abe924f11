package store

import "encoding/json"

// Form is the version of what is kept as JSON: of the rows of an archive, and, by its migrations, of the database's. It
// rises when a stored type changes so that an older row would be read as something else. Each rise has a migration, for
// what is kept here, and a lift, for what comes in an older archive; a test holds both to the same kept samples.
const Form = 4

// columns are a row of an archive.
type columns = map[string]json.RawMessage

// lifts bring a row of each older form to the next.
var lifts = map[int]func(table string, row columns){
	3: liftGreasing,
}

// lift brings a row of an archive of a form to today's.
func lift(form int, table string, row columns) {
	for ; form < Form; form++ {
		if to, ok := lifts[form]; ok {
			to(table, row)
		}
	}
}

// liftGreasing keeps the coat of butter that "butter" was before it became a film.
func liftGreasing(table string, row columns) {
	coat := func(request columns) {
		if string(request["greasing"]) == `"butter"` {
			request["greasing"] = json.RawMessage(`"butter_coat"`)
		}
	}
	switch table {
	case "card_version", "bake":
		within(row, "request", coat)
	case "watch":
		within(row, "question", func(question columns) { within(question, "request", coat) })
	}
}

// within changes an object that is kept in a column; what is none is left for the checks to name.
func within(row columns, name string, change func(columns)) {
	var inner columns
	if json.Unmarshal(row[name], &inner) != nil || inner == nil {
		return
	}
	change(inner)
	if raw, err := json.Marshal(inner); err == nil {
		row[name] = raw
	}
}
