package main

import (
	"slices"
	"strings"
	"testing"
)

func rulesOf(t *testing.T, list string) *Rules {
	t.Helper()
	r, err := ReadRules(strings.NewReader(list))
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func texts(list []Text) (out []string) {
	for _, t := range list {
		out = append(out, string(t.Kind)+" "+t.Text)
	}
	return out
}

func TestReadGo(t *testing.T) {
	src := "// Package a is one.\npackage a\n\nimport \"fmt\"\n\n// Laid is a day.\ntype Laid struct {\n\tAt int `json:\"at min\"`\n}\n\n" +
		"func f() { fmt.Println(\"Plan it again\", \"x\", `select a from b`) }\n"
	got, err := readGo("a.go", []byte(src))
	if err != nil {
		t.Fatal(err)
	}
	want := []string{
		"comments Package a is one.", "comments Laid is a day.", "names Laid", "names At", "strings Plan it again",
	}
	if x := texts(got); !slices.Equal(x, want) {
		t.Errorf("%q, want %q", x, want)
	}
	if got, err = readGo(
		"a_test.go",
		[]byte(src),
	); err != nil ||
		slices.ContainsFunc(got, func(t Text) bool { return t.Kind == Strings }) {
		t.Errorf("the strings of a test are read: %q, %v", texts(got), err)
	}
}

func TestReadVue(t *testing.T) {
	src := "<script setup lang=\"ts\">\n/** Shows it. */\nconst a = b / 2 // half\nconst s = `In at ${x ? 'two words' : y}`\n</script>\n\n<template>\n" +
		"  <p title=\"A long title\" class=\"two words\" :label=\"`Of ${n} lines`\">Some text {{ ok ? 'Yes, do it' : n }}</p>\n</template>\n"
	got, err := readVue("a.vue", []byte(src))
	if err != nil {
		t.Fatal(err)
	}
	x := texts(got)
	for _, want := range []string{
		"comments Shows it.", "comments half", "strings In at {}", "strings two words", "strings A long title",
		"strings Of {} lines", "strings Some text {}", "strings Yes, do it",
	} {
		if !slices.Contains(x, want) {
			t.Errorf("%q is not in %q", want, x)
		}
	}
	if n := len(x); n != 8 {
		t.Errorf("%d texts: %q", n, x)
	}
	if got[len(got)-1].Line != 8 {
		t.Errorf("the last text is in line %d", got[len(got)-1].Line)
	}
}

func TestCheck(t *testing.T) {
	list := "told\treported\nstrings: forget\tdelete\nnames: ^(what|how)$\ta noun\nexcept b.go: told nobody\ta quotation\n"
	long := strings.Repeat("word ", 29)
	for name, c := range map[string]struct {
		text Text
		want string
	}{
		"a word":                    {Text{"a.go", 1, Comments, "What was Told."}, "reported"},
		"within a word":             {Text{"a.go", 1, Comments, "untold"}, ""},
		"another kind":              {Text{"a.go", 1, Comments, "forget it"}, ""},
		"its kind":                  {Text{"a.go", 1, Strings, "Forget it"}, "delete"},
		"a name of several words":   {Text{"a.go", 1, Names, "BakeTold"}, "reported"},
		"a name that is a question": {Text{"a.go", 1, Names, "What"}, "a noun"},
		"a name with a question":    {Text{"a.go", 1, Names, "WhatIf"}, ""},
		"a long sentence":           {Text{"a.go", 1, Comments, "Short. " + long}, "29 words"},
		"two sentences":             {Text{"a.go", 1, Comments, long[:70] + ". " + long[:70]}, ""},
		"an exception":              {Text{"b.go", 1, Comments, "It told nobody."}, ""},
	} {
		r := rulesOf(t, list)
		r.exceptions[0].used = true
		got := strings.Join(r.Check([]Text{c.text}), "\n")
		if (c.want == "") != (got == "") || !strings.Contains(got, c.want) {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
	if got := rulesOf(t, list).Check(nil); len(got) != 1 || !strings.Contains(got[0], "no text needs the exception") {
		t.Errorf("an exception that nothing needs: %q", got)
	}
	if _, err := ReadRules(strings.NewReader("told\n")); err == nil || !strings.Contains(err.Error(), ":1:") {
		t.Errorf("a rule without a replacement: %v", err)
	}
}
