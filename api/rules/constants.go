package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"strconv"
	"strings"
)

// constantsNamed begins the name of a type in a line, with its package: "# constants: core/watch.State".
const constantsNamed = "# constants:"

// constantsOf are the constants of a type as they are declared, the first of them first; root is where the program's
// packages are.
func constantsOf(root, name string) ([]any, error) {
	pkg, typ, ok := strings.Cut(name, ".")
	if !ok {
		return nil, fmt.Errorf("%q is no type of a package: core/watch.State is one", name)
	}
	files, err := filepath.Glob(filepath.Join(root, pkg, "*.go"))
	if err != nil {
		return nil, err
	}
	var out []any
	for _, file := range files {
		if strings.HasSuffix(file, "_test.go") {
			continue
		}
		parsed, err := parser.ParseFile(token.NewFileSet(), file, nil, parser.SkipObjectResolution)
		if err != nil {
			return nil, err
		}
		for _, d := range parsed.Decls {
			if group, is := d.(*ast.GenDecl); is && group.Tok == token.CONST {
				values, err := declared(group, typ)
				if err != nil {
					return nil, fmt.Errorf("%s: %w", file, err)
				}
				out = append(out, values...)
			}
		}
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("there are no constants of %s", name)
	}
	return out, nil
}

// declared are the values of a group of constants that are of a type.
func declared(group *ast.GenDecl, typ string) (out []any, err error) {
	for _, spec := range group.Specs {
		c, is := spec.(*ast.ValueSpec)
		if !is {
			continue
		}
		if of, is := c.Type.(*ast.Ident); !is || of.Name != typ {
			continue
		}
		for _, v := range c.Values {
			literal, is := v.(*ast.BasicLit)
			if !is {
				return nil, fmt.Errorf("%s is calculated: write its value out", c.Names[0].Name)
			}
			switch literal.Kind {
			case token.STRING:
				s, err := strconv.Unquote(literal.Value)
				if err != nil {
					return nil, err
				}
				out = append(out, s)
			case token.INT:
				n, err := strconv.Atoi(literal.Value)
				if err != nil {
					return nil, err
				}
				out = append(out, n)
			default:
				return nil, fmt.Errorf("%s is neither a word nor a whole number", c.Names[0].Name)
			}
		}
	}
	return out, nil
}
