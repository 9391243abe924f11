package store_test

import (
	"archive/zip"
	"bytes"
	"errors"
	"io"
	"strings"
	"testing"

	"mabbin/server/demo"
	"mabbin/server/formats"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

// rezipped is an archive whose files somebody has changed: change gives the new bytes of each, nil to leave it out.
func rezipped(t *testing.T, raw []byte, change func(name string, was []byte) []byte) []byte {
	t.Helper()
	from, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	to := zip.NewWriter(&b)
	for _, f := range from.File {
		r, err := f.Open()
		if err != nil {
			t.Fatal(err)
		}
		was, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		is := change(f.Name, was)
		if is == nil {
			continue
		}
		w, err := to.Create(f.Name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := w.Write(is); err != nil {
			t.Fatal(err)
		}
	}
	if err := to.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// An archive that is not whole is refused, wherever it was broken off and whatever was changed in it, and nothing of it
// is kept.
func TestAnArchiveThatIsNotWholeIsRefused(t *testing.T) {
	raw := archive(t, full(t), demo.Kitchen.ID)
	s := storetest.Open(t)
	refused := func(what string, raw []byte) {
		t.Helper()
		a, err := formats.OpenArchive(bytes.NewReader(raw), int64(len(raw)))
		if err == nil {
			_, err = s.Restore(t.Context(), uuid.New(), a, func(name string) string { return name })
		}
		if !errors.Is(err, formats.ErrArchive) {
			t.Errorf("%s: %v", what, err)
		}
		if all, err := s.Kitchens(t.Context()); err != nil || len(all) != 0 {
			t.Fatalf("%s: %d kitchens are kept, %v", what, len(all), err)
		}
	}
	for tenth := range 10 {
		refused("broken off", raw[:len(raw)*tenth/10])
	}
	same := func(_ string, was []byte) []byte { return was }
	if _, err := restored(t.Context(), t, s, rezipped(t, raw, same)); err != nil {
		t.Fatalf("packed again as it was: %v", err)
	}
	if err := s.RemoveKitchen(t.Context(), demo.Kitchen.ID); err != nil {
		t.Fatal(err)
	}
	for what, change := range map[string]func(string, []byte) []byte{
		"a card renamed": func(name string, was []byte) []byte {
			if name == "card.json" {
				return bytes.Replace(was, []byte("Plum betty"), []byte("Plum bitty"), 1)
			}
			return was
		},
		"a bake left out": func(name string, was []byte) []byte {
			if name == "bake.json" {
				return append(was[:bytes.LastIndex(was, []byte(",\n"))], []byte("\n]\n")...)
			}
			return was
		},
		"a table left out": func(name string, was []byte) []byte {
			if name == "bake.json" {
				return nil
			}
			return was
		},
		"a picture left out": func(name string, was []byte) []byte {
			if strings.HasSuffix(name, "-small.jpg") {
				return nil
			}
			return was
		},
		"no word of what is in it": func(name string, was []byte) []byte {
			if name == "contents.json" {
				return nil
			}
			return was
		},
		"a table that it does not tell of": func(name string, was []byte) []byte {
			if name == "contents.json" {
				return []byte(`{}`)
			}
			return was
		},
	} {
		refused(what, rezipped(t, raw, change))
	}
}
