// Command choices writes into the contract what the rules know: an enumeration in a line that ends in "# choices: cup"
// has the values of that list, and a leading empty value, for what may be left out, stays; a number in a line that ends
// in "# bounds: altitude" has those bounds, or 0 for what may be left out where it says "or 0".
package main

import (
	"errors"
	"fmt"
	"maps"
	"os"
	"regexp"
	"slices"
	"strings"

	"mabbin/core/choice"
	"mabbin/core/message"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: choices openapi.yaml")
		os.Exit(2)
	}
	if err := rewrite(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, "choices:", err)
		os.Exit(1)
	}
}

func rewrite(file string) error {
	is, err := os.ReadFile(file) //nolint:gosec // the file that was named
	if err != nil {
		return err
	}
	should, err := written(string(is))
	if err != nil || should == string(is) {
		return err
	}
	return os.WriteFile(file, []byte(should), 0o644) //nolint:gosec // as it is in the repository
}

// every is for the names of the choices themselves.
const every = "every"

var enumeration = regexp.MustCompile(`enum: \[(""(?:, )?)?[^\]]*\](.* # choices: (\w+))$`)

var bounded = regexp.MustCompile(`(minimum: [-\d.]+, maximum: [-\d.]+).* # bounds: (\w+)( or 0)?$`)

// written is a contract with the values of each list, and each bounds, in their places.
func written(contract string) (string, error) {
	lines := strings.Split(contract, "\n")
	for i, line := range lines {
		var err error
		switch {
		case bounded.MatchString(line):
			lines[i], err = withBounds(line)
		case enumeration.MatchString(line):
			lines[i], err = withValues(line)
		case strings.Contains(line, "# choices:"), strings.Contains(line, "# bounds:"):
			err = errors.New("it names choices or bounds, and has none to be written")
		}
		if err != nil {
			return "", fmt.Errorf("line %d: %w", i+1, err)
		}
	}
	return strings.Join(lines, "\n"), nil
}

func withBounds(line string) (string, error) {
	found := bounded.FindStringSubmatch(line)
	b, ok := choice.Bounds[found[2]]
	if !ok {
		return "", fmt.Errorf("there are no bounds %q", found[2])
	}
	if found[3] != "" {
		b.Low = min(b.Low, 0)
	}
	return strings.Replace(line, found[1], fmt.Sprintf("minimum: %g, maximum: %g", b.Low, b.High), 1), nil
}

func withValues(line string) (string, error) {
	found := enumeration.FindStringSubmatch(line)
	list, ok := choice.Lists[found[3]]
	if found[3] == every {
		list, ok = message.Words(slices.Sorted(maps.Keys(choice.Lists))...), true
	}
	if !ok {
		return "", fmt.Errorf("there are no choices %q", found[3])
	}
	values := list.Values()
	if found[1] != "" && !list.Has("") {
		values = slices.Insert(values, 0, "")
	}
	for i, v := range values {
		if v == "" {
			values[i] = `""`
		}
	}
	return strings.Replace(line, found[0], "enum: ["+strings.Join(values, ", ")+"]"+found[2], 1), nil
}
