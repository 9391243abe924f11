// Lines lists what the program says, for the catalogue that a translator works in: every constant of type say.Line, by the
// folder that it stands in, as JSON on standard output. It is run in the root of the repository. A sentence that is given more or fewer values than it has
// places is an error.
package main

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"go/ast"
	"go/constant"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

	"golang.org/x/tools/go/packages"
)

const (
	sayPath  = "mabbin/core/say"
	lineType = sayPath + ".Line"
)

// columns of the tables that are read by bakers.
var columns = []string{"name", "make_ahead", "looks", "freeze", "clarity", "how", "typical_use", "taken", "costs"}

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run() error {
	found, err := load()
	if err != nil {
		return err
	}
	if err := tables(found); err != nil {
		return err
	}
	out := map[string][]string{}
	for text, where := range found {
		for w := range where {
			out[text] = append(out[text], w)
		}
		slices.Sort(out[text])
	}
	enc := json.NewEncoder(os.Stdout)
	enc.SetEscapeHTML(false)
	return enc.Encode(out)
}

// texts has where each stands.
type texts map[string]map[string]bool

func (t texts) add(text, where string) {
	if !strings.ContainsFunc(stripped(text), isLetter) {
		return // places and marks: there is nothing to translate
	}
	if t[text] == nil {
		t[text] = map[string]bool{}
	}
	t[text][where] = true
}

func isLetter(r rune) bool { return r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' }

// stripped is a text without its places.
func stripped(text string) string {
	var b strings.Builder
	for {
		before, rest, found := strings.Cut(text, "{")
		b.WriteString(before)
		if !found {
			return b.String()
		}
		_, text, _ = strings.Cut(rest, "}")
	}
}

// load reads the program's own code.
func load() (texts, error) {
	all, err := packages.Load(&packages.Config{
		Mode: packages.NeedName | packages.NeedFiles | packages.NeedImports | packages.NeedSyntax | packages.NeedTypes | packages.NeedTypesInfo,
	}, "./core/...", "./api", "./server/...")
	if err != nil {
		return nil, err
	}
	found := texts{}
	for _, p := range all {
		for _, e := range p.Errors {
			return nil, e
		}
		for _, f := range p.Syntax {
			var wrong error
			ast.Inspect(f, func(n ast.Node) bool {
				e, ok := n.(ast.Expr)
				if !ok {
					return true
				}
				if tv := p.TypesInfo.Types[e]; tv.Value != nil && tv.Value.Kind() == constant.String && tv.Type.String() == lineType {
					found.add(constant.StringVal(tv.Value), strings.TrimPrefix(p.PkgPath, "mabbin/"))
				}
				if c, ok := e.(*ast.CallExpr); ok && wrong == nil {
					wrong = places(p.TypesInfo, p.Fset, c)
				}
				return true
			})
			if wrong != nil {
				return nil, wrong
			}
		}
	}
	return found, nil
}

// places looks whether a call of say.F has a value for each place.
func places(info *types.Info, fset *token.FileSet, c *ast.CallExpr) error {
	sel, ok := c.Fun.(*ast.SelectorExpr)
	if !ok || c.Ellipsis.IsValid() {
		return nil
	}
	f, ok := info.Uses[sel.Sel].(*types.Func)
	if !ok || f.FullName() != sayPath+".F" {
		return nil
	}
	sentence := info.Types[c.Args[0]].Value
	if sentence == nil {
		return nil
	}
	if n, has := strings.Count(constant.StringVal(sentence), "{"), len(c.Args)-1; n != has {
		return fmt.Errorf("%s: the sentence has %d places and %d values", fset.Position(c.Pos()), n, has)
	}
	return nil
}

var brackets = regexp.MustCompile(` ?\([^)]*\)`)

// tables adds the words of the tables: of names, the whole one and those that stand on lines and in sentences, without what
// is in brackets or after a comma.
func tables(found texts) error {
	files, err := filepath.Glob("core/*/data/*.csv")
	if err != nil {
		return err
	}
	for _, name := range files {
		f, err := os.Open(name)
		if err != nil {
			return err
		}
		rows, err := csv.NewReader(f).ReadAll()
		_ = f.Close()
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		for i, head := range rows[0] {
			if !slices.Contains(columns, head) || head == "name" && filepath.Base(name) == "synonyms.csv" {
				continue
			}
			for _, r := range rows[1:] {
				where := filepath.Dir(filepath.Dir(name))
				found.add(r[i], where)
				if head == "name" {
					plain := strings.TrimSpace(brackets.ReplaceAllString(r[i], ""))
					short, _, _ := strings.Cut(plain, ",")
					for _, as := range []string{short, strings.ToLower(short), strings.ToLower(plain)} {
						found.add(as, where)
					}
				}
			}
		}
	}
	return nil
}
