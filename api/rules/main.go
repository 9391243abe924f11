// Command rules writes into the contract what the rules of the core know. An enumeration in a line that ends in
// "# choices: cup" has the values of that list, and a leading empty value, for what may be left out, stays. A number
// that a rule checks has the bounds of that rule.
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
	should, err := written(string(is))
	if err != nil || should == string(is) {
		return err
	}
	return os.WriteFile(file, []byte(should), 0o644) //nolint:gosec // as it is in the repository
}

// choicesNamed begins the name of a list of choices in a line.
const choicesNamed = "# choices:"

// every is for the names of the choices themselves.
const every = "every"

var enumeration = regexp.MustCompile(`enum: \[(""(?:, )?)?[^\]]*\](.* # choices: (\w+))$`)

// written is a contract with what the rules know in its places.
func written(contract string) (string, error) {
	contract, err := withChoices(contract)
	if err != nil {
		return "", err
	}
	return withBounds(contract, samples)
}

// withChoices is a contract with the values of each list in its places.
func withChoices(contract string) (string, error) {
	lines := strings.Split(contract, "\n")
	for i, line := range lines {
		var err error
		switch {
		case enumeration.MatchString(line):
			lines[i], err = withValues(line)
		case strings.Contains(line, choicesNamed):
			err = errors.New("it names choices, and has none to be written")
		}
		if err != nil {
			return "", fmt.Errorf("line %d: %w", i+1, err)
		}
	}
	return strings.Join(lines, "\n"), nil
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
	values, err := enumerated(list.Values(), found[1] != "" || list.Has(""))
	return strings.Replace(line, found[0], "enum: "+values+found[2], 1), err
}
