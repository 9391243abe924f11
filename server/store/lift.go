package store

import "encoding/json"

// Form is the version of what is kept as JSON: of the rows of an archive, and, by its migrations, of the database's. It
// rises when a stored type changes so that an older row would be read as something else. Each rise has a migration, for
// what is kept here, and a lift, for what comes in an older archive; a test holds both to the same kept samples.
const Form = 5

// columns are a row of an archive.
type columns = map[string]json.RawMessage

// lifts bring a row of each older form to the next.
var lifts = map[int]func(table string, row columns){
	3: liftGreasing,
	4: liftNames,
}

// formerTables are the names of tables in archives before form 5.
var formerTables = map[string]string{"resources": "house", "stock": "pantry", "countdown": "on_the_way"}

// tableIn returns what a table of today is called in an archive of a form.
func tableIn(form int, table string) string {
	if former, ok := formerTables[table]; ok && form < 5 {
		return former
	}
	return table
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

// formerColumns are the names of columns before form 5, by table as it is called today.
var formerColumns = map[string]map[string]string{
	"resources":  {"has": "settings"},
	"stock":      {"has": "content"},
	"countdown":  {"asked": "digest"},
	"day":        {"asked": "request", "laid": "schedule", "laid_of": "schedule_of"},
	"learning":   {"says": "preferences"},
	"watch_call": {"says": "text"},
	"bake":       {"told": "details", "happened": "actual"},
}

// liftNames renames columns, and the keys of stored JSON, to the names that they have since form 5. The migration
// 00027_plain_names.sql does the same in the database.
func liftNames(table string, row columns) {
	for was, is := range formerColumns[table] {
		move(row, was, is)
	}
	switch table {
	case "bake_correction":
		within(row, "was", func(was columns) { move(was, "told", "details") })
	case "watch":
		delete(row, "foreseen") // it is predicted again
	}
	rename(row, renamedColumns[table]...)
}

// move gives a value another name.
func move(row columns, was, is string) {
	if value, ok := row[was]; ok {
		row[is] = value
		delete(row, was)
	}
}

// renamedColumns are the columns whose JSON has keys that were renamed in form 5, by table.
var renamedColumns = map[string][]string{
	"bake":      {"result", "actual"},
	"watch":     {"answer", "weighed", "estimate"},
	"countdown": {"steps"},
	"day":       {"request", "schedule"},
	"resources": {"settings"},
	"stock":     {"content"},
}

// rename gives the keys within columns their names of form 5; a column that is no JSON is left for the checks to name.
func rename(row columns, names ...string) {
	for _, name := range names {
		var value any
		if row[name] == nil || json.Unmarshal(row[name], &value) != nil {
			continue
		}
		if raw, err := json.Marshal(renamed(value)); err == nil {
			row[name] = raw
		}
	}
}

func renamed(value any) any {
	switch v := value.(type) {
	case []any:
		for i := range v {
			v[i] = renamed(v[i])
		}
	case map[string]any:
		if isMessage(v) {
			return v
		}
		out := make(map[string]any, len(v))
		for key, inner := range v {
			out[nameOf(key, v)] = renamed(inner)
		}
		return out
	}
	return value
}

// isMessage reports whether an object is a message with its values, which are named by the places in its text.
func isMessage(object map[string]any) bool {
	_, text := object["text"]
	_, values := object["values"]
	return text && values
}

// formerKeys are keys of stored JSON before form 5, with their names since; one with a companion is renamed only in
// objects that have that key too. The first that fits counts.
var formerKeys = []struct{ was, companion, is string }{
	{"says", "right", "summary"},
	{"says", "lanes", "summary"},
	{"says", "", "text"},
	{"what", "level", "text"},
	{"why", "level", "reason"},
	{"do", "level", "action"},
	{"what", "how", "name"},
	{"how", "what", "text"},
	{"how", "lines", "instructions"},
	{"why", "running_g", "source"},
	{"why", "order", "reason"},
	{"way", "lane", "option"},
	{"other_way", "", "other_option"},
	{"beside", "ticket", "served_with"},
	{"wanted_g", "bowl", "planned_g"},
	{"look_from_min", "", "check_from_min"},
	{"unlaid", "", "unscheduled"},
	{"ways_out", "", "remedies"},
	{"ways", "orders", "remedies"},
	{"took", "lanes", "actual_times"},
	{"took_min", "", "actual_min"},
	{"usual_days", "", "saved_days"},
	{"stock", "packs", "items"},
}

func nameOf(key string, object map[string]any) string {
	for _, k := range formerKeys {
		if k.was != key {
			continue
		}
		if _, ok := object[k.companion]; ok || k.companion == "" {
			return k.is
		}
	}
	return key
}
