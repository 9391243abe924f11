// Command words finds wording that docs/words.txt lists as hard to understand: in the strings and comments of the Go
// code and the page, in the names of exported things, in the contract and in the documents. It also finds sentences
// of more than 28 words. It prints one line for each finding and exits with status 1 where there is one.
//
//	words [-root dir] [-list strings|comments|names]
package main

import (
	"flag"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

func main() {
	root := flag.String("root", ".", "the repository")
	list := flag.String("list", "", "print every text of a kind instead of checking: strings, comments or names")
	flag.Parse()
	texts, err := readAll(*root)
	if err != nil {
		fail(err)
	}
	if *list != "" {
		for _, t := range texts {
			if string(t.Kind) == *list {
				fmt.Printf("%s:%d\t%s\n", t.File, t.Line, t.Text)
			}
		}
		return
	}
	f, err := os.Open(filepath.Join(*root, "docs", "words.txt"))
	if err != nil {
		fail(err)
	}
	defer f.Close()
	rules, err := ReadRules(f)
	if err != nil {
		fail(err)
	}
	findings := rules.Check(texts)
	for _, f := range findings {
		fmt.Println(f)
	}
	if len(findings) > 0 {
		fmt.Fprintf(os.Stderr, "%d findings: see docs/words.txt\n", len(findings))
		os.Exit(1)
	}
}

func fail(err error) {
	fmt.Fprintln(os.Stderr, "words:", err)
	os.Exit(2)
}

// skipped are folders that hold no text of ours.
var skipped = []string{"node_modules", "dist", "var", "bin", ".git", ".library", "testdata", "screenshots"}

// readAll returns the texts of every file under root that people read.
func readAll(root string) ([]Text, error) {
	var texts []Text
	err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() {
			if slices.Contains(skipped, d.Name()) {
				return filepath.SkipDir
			}
			return nil
		}
		name, _ := filepath.Rel(root, path)
		read := readerOf(name)
		if read == nil {
			return nil
		}
		src, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		found, err := read(name, src)
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		texts = append(texts, found...)
		return nil
	})
	return texts, err
}

// readerOf returns the function that reads a file's texts, nil for a file that is not checked.
func readerOf(name string) func(string, []byte) ([]Text, error) {
	switch {
	case strings.HasSuffix(name, ".gen.go"), strings.HasSuffix(name, ".d.ts"), strings.HasPrefix(name, "tools/words/"):
		return nil
	case strings.HasSuffix(name, ".go"):
		return readGo
	case strings.HasSuffix(name, ".vue"):
		return readVue
	case strings.HasSuffix(name, ".ts"):
		return readTypeScript
	case strings.HasSuffix(name, ".md"):
		return readMarkdown
	case name == filepath.Join("api", "openapi.yaml"):
		return readContract
	}
	return nil
}
