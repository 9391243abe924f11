// Command rules writes into the contract what the rules of the core know. An enumeration in a line that ends in
// "# choices: cup" has the values of that list, one in a line that ends in "# constants: core/watch.State" the
// constants of that type; a leading empty value, for what may be left out, stays. A number that a rule checks has the
// bounds of that rule.
package main

import (
	"errors"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

	"mabbin/core/choice"
	"mabbin/core/message"
)

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "usage: rules openapi.yaml")
		os.Exit(2)
	}
	if err := rewrite(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, "rules:", err)
		os.Exit(1)
	}
}

func rewrite(file string) error {
	is, err := os.ReadFile(file) //nolint:gosec // the file that was named
	if err != nil {
		return err
	}
	should, err := written(string(is), filepath.Join(filepath.Dir(file), ".."))
	if err != nil || should == string(is) {
		return err
	}
	return os.WriteFile(file, []byte(should), 0o644) //nolint:gosec // as it is in the repository
}

// choicesNamed begins the name of a list of choices in a line.
const choicesNamed = "# choices:"

// every is for the names of the choices themselves.
const every = "every"

// enumeration is one in a line that names where its values come from: all of them, or all but one that is never
// reported.
var enumeration = regexp.MustCompile(
	`enum: \[(""(?:, )?)?[^\]]*\](.* # (choices|constants): ([\w/.]+)(?: but (\w+))?)$`,
)

// named says that a line names where its values come from.
func named(line string) bool {
	return strings.Contains(line, choicesNamed) || strings.Contains(line, constantsNamed)
}

// written is a contract with what the rules know in its places; root is where the packages of the program are.
func written(contract, root string) (string, error) {
	contract, err := withValues(contract, root)
	if err != nil {
		return "", err
	}
	return withBounds(contract, samples)
}

// withValues is a contract with the values of each list, and each type's constants, in their places.
func withValues(contract, root string) (string, error) {
	lines := strings.Split(contract, "\n")
	for i, line := range lines {
		var err error
		switch {
		case enumeration.MatchString(line):
			lines[i], err = valued(line, root)
		case named(line):
			err = errors.New("it names values, and has no list of them to be written")
		}
		if err != nil {
			return "", fmt.Errorf("line %d: %w", i+1, err)
		}
	}
	return strings.Join(lines, "\n"), nil
}

// valued is a line with the values that it names.
func valued(line, root string) (string, error) {
	found := enumeration.FindStringSubmatch(line)
	orNone, name := found[1] != "", found[4] // and found[5] is not reported
	if found[3] == "constants" {
		all, err := constantsOf(root, name)
		if err != nil {
			return "", err
		}
		all = slices.DeleteFunc(all, func(v any) bool { return v == found[5] })
		values, err := enumerated(all, any(""), orNone)
		return strings.Replace(line, found[0], "enum: "+values+found[2], 1), err
	}
	list, ok := choice.Lists[name]
	if name == every {
		list, ok = message.Words(slices.Sorted(maps.Keys(choice.Lists))...), true
	}
	if !ok {
		return "", fmt.Errorf("there are no choices %q", name)
	}
	values, err := enumerated(list.Values(), "", orNone || list.Has(""))
	return strings.Replace(line, found[0], "enum: "+values+found[2], 1), err
}
