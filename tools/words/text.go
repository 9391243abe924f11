package main

import (
	"bytes"
	"go/ast"
	"go/parser"
	"go/token"
	"regexp"
	"strconv"
	"strings"
)

// Kind is what sort of text is read.
type Kind string

// The kinds of texts.
const (
	Strings  Kind = "strings"  // shown on a page or in a terminal
	Comments Kind = "comments" // read by developers: comments and documents
	Names    Kind = "names"    // identifiers of exported things
)

// Text is one text with the place where it stands.
type Text struct {
	File string
	Line int
	Kind Kind
	Text string
}

// readGo returns the strings, comments and exported names of a Go file. Test files give their comments alone: their
// strings are what a test sends and expects.
func readGo(name string, src []byte) ([]Text, error) {
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, name, src, parser.ParseComments)
	if err != nil {
		return nil, err
	}
	var texts []Text
	add := func(pos token.Pos, kind Kind, text string) {
		texts = append(texts, Text{name, set.Position(pos).Line, kind, text})
	}
	for _, group := range file.Comments {
		if text := strings.TrimSpace(group.Text()); text != "" {
			add(group.Pos(), Comments, text)
		}
	}
	test := strings.HasSuffix(name, "_test.go")
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			if !test {
				addNames(add, n.Names)
			}
			n.Tag = nil // names of JSON are checked in the contract
		case *ast.FuncDecl:
			addNames(add, []*ast.Ident{n.Name})
		case *ast.TypeSpec:
			addNames(add, []*ast.Ident{n.Name})
		case *ast.ValueSpec:
			addNames(add, n.Names)
		case *ast.BasicLit:
			if s, err := strconv.Unquote(n.Value); n.Kind == token.STRING && err == nil && !test && isProse(s) {
				add(n.Pos(), Strings, s)
			}
		}
		return true
	})
	return texts, nil
}

func addNames(add func(token.Pos, Kind, string), names []*ast.Ident) {
	for _, n := range names {
		if n.IsExported() {
			add(n.Pos(), Names, n.Name)
		}
	}
}

var (
	letters  = regexp.MustCompile(`\p{L}{2}`)
	sentence = regexp.MustCompile(`^\p{Lu}\p{Ll}|\p{L}[\p{L},.;:?]* +[\p{L}{(]`)
	pattern  = regexp.MustCompile(`\(\?[:i]|\\b`) // a regular expression reads what others write
	code     = regexp.MustCompile(
		`(?i)^\s*(select|insert|update|delete|with|create|alter)\s|^[a-z-]+/[a-z.+-]+|;base64|^/[a-z]`,
	)
)

// isProse reports whether a string is a text for people: it has two words, or begins with a capital letter.
func isProse(s string) bool {
	return letters.MatchString(s) && sentence.MatchString(s) && !code.MatchString(s) && !pattern.MatchString(s)
}

// readMarkdown returns the paragraphs of a document, without its code.
func readMarkdown(name string, src []byte) ([]Text, error) {
	var texts []Text
	fenced := false
	for i, line := range strings.Split(string(src), "\n") {
		if strings.HasPrefix(line, "```") {
			fenced = !fenced
			continue
		}
		if line = strings.TrimSpace(inCode.ReplaceAllString(line, "code")); !fenced && line != "" {
			texts = append(texts, Text{name, i + 1, Comments, line})
		}
	}
	return texts, nil
}

var (
	inCode      = regexp.MustCompile("`[^`]*`")
	description = regexp.MustCompile(`(?:description|summary|title): *(.*)|^ *# (.*)`)
)

// readContract returns the descriptions of the contract.
func readContract(name string, src []byte) ([]Text, error) {
	var texts []Text
	for i, line := range strings.Split(string(src), "\n") {
		if m := description.FindStringSubmatch(line); m != nil {
			texts = append(texts, Text{name, i + 1, Comments, m[1] + m[2]})
		}
	}
	return texts, nil
}

func lineAt(src []byte, at int) int { return 1 + bytes.Count(src[:at], []byte("\n")) }
