// Command mutants changes one constant or comparison of a package at a time and runs the tests of the package. A change
// that no test notices is a survivor: it is printed with its place. The files themselves are not changed; the compiler
// reads the changed ones through an overlay.
//
//	mutants [-n 60] [-seed 1] ./core/parse
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// mutant is one change: the text at an offset of a file is replaced.
type mutant struct {
	file     string
	line     int
	at       int
	was, now string
}

func main() {
	most := flag.Int("n", 60, "how many changes are tried; the rest is left out at random")
	seed := flag.Uint64("seed", 1, "of the choice")
	flag.Parse()
	if flag.NArg() != 1 {
		fmt.Fprintln(os.Stderr, "usage: mutants [-n 60] [-seed 1] ./core/parse")
		os.Exit(2)
	}
	dir := flag.Arg(0)
	all, err := mutantsOf(dir)
	if err != nil {
		fmt.Fprintln(os.Stderr, "mutants:", err)
		os.Exit(2)
	}
	chance := rand.New(rand.NewPCG(*seed, 0))
	chance.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	all = all[:min(*most, len(all))]
	survived := try(dir, all)
	slices.Sort(survived)
	for _, s := range survived {
		fmt.Println(s)
	}
	fmt.Printf("%s: %d of %d changes survived\n", dir, len(survived), len(all))
}

// try runs the tests with each change, two at a time, and returns the changes that no test noticed.
func try(dir string, all []mutant) (survived []string) {
	var wait sync.WaitGroup
	var lock sync.Mutex
	next := make(chan mutant)
	for range 2 {
		wait.Go(func() {
			for m := range next {
				if !noticed(dir, m) {
					lock.Lock()
					survived = append(survived, fmt.Sprintf("%s:%d: %s became %s", m.file, m.line, m.was, m.now))
					lock.Unlock()
				}
			}
		})
	}
	for _, m := range all {
		next <- m
	}
	close(next)
	wait.Wait()
	return survived
}

// noticed reports whether the tests of a package fail with a change, or it does not compile.
func noticed(dir string, m mutant) bool {
	src, err := os.ReadFile(m.file)
	if err != nil {
		return true
	}
	tmp, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return true
	}
	defer os.RemoveAll(tmp)
	changed := string(src[:m.at]) + m.now + string(src[m.at+len(m.was):])
	to, overlay := filepath.Join(tmp, "changed.go"), filepath.Join(tmp, "overlay.json")
	from, _ := filepath.Abs(m.file)
	raw, _ := json.Marshal(map[string]map[string]string{"Replace": {from: to}})
	if os.WriteFile(to, []byte(changed), 0o600) != nil || os.WriteFile(overlay, raw, 0o600) != nil {
		return true
	}
	return exec.Command("go", "test", "-short", "-failfast", "-timeout", "120s", "-overlay", overlay, dir).Run() != nil
}

// swapped are comparisons and connectives, with what takes their place.
var swapped = map[token.Token]string{
	token.LSS: "<=", token.LEQ: "<", token.GTR: ">=", token.GEQ: ">", token.EQL: "!=", token.NEQ: "==",
	token.LAND: "||", token.LOR: "&&", token.ADD: "-", token.SUB: "+",
}

// mutantsOf lists every change of a package's files.
func mutantsOf(dir string) (all []mutant, err error) {
	files, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, err
	}
	for _, name := range files {
		if strings.HasSuffix(name, "_test.go") {
			continue
		}
		set := token.NewFileSet()
		f, err := parser.ParseFile(set, name, nil, 0)
		if err != nil {
			return nil, err
		}
		add := func(pos token.Pos, was, now string) {
			p := set.Position(pos)
			all = append(all, mutant{name, p.Line, p.Offset, was, now})
		}
		ast.Inspect(f, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.ImportSpec, *ast.Field:
				return false
			case *ast.BasicLit:
				if now := another(n); now != "" {
					add(n.Pos(), n.Value, now)
				}
			case *ast.BinaryExpr:
				if now, ok := swapped[n.Op]; ok {
					add(n.OpPos, n.Op.String(), now)
				}
			}
			return true
		})
	}
	return all, nil
}

// another returns a literal that is not the one given; "" where it stays.
func another(l *ast.BasicLit) string {
	switch l.Kind {
	case token.INT:
		if n, err := strconv.Atoi(l.Value); err == nil {
			return strconv.Itoa(n + 1)
		}
	case token.FLOAT:
		if x, err := strconv.ParseFloat(l.Value, 64); err == nil {
			return strconv.FormatFloat(1.2*x+0.01, 'g', -1, 64)
		}
	case token.STRING:
		if s, err := strconv.Unquote(l.Value); err == nil && s != "" && !strings.ContainsAny(s, " {}%\n/") {
			return strconv.Quote(s + "x")
		}
	}
	return ""
}
