package formats

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"encoding/json"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"slices"
	"strings"
	"testing"

	"mabbin/core/fault"
)

// pngOf is the head of a PNG of a size, with nothing behind it: all that is looked at before it is decoded.
func pngOf(wide, high uint32, depth, kind byte) []byte {
	head := binary.BigEndian.AppendUint32([]byte("IHDR"), wide)
	head = append(binary.BigEndian.AppendUint32(head, high), depth, kind, 0, 0, 0)
	out := append([]byte("\x89PNG\r\n\x1a\n"), 0, 0, 0, 13)
	out = append(out, head...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(head))
}

// jpegOf is the head of a JPEG of a size.
func jpegOf(wide, high uint16, mark byte) []byte {
	out := []byte{0xff, 0xd8, 0xff, mark, 0, 17, 8}
	out = binary.BigEndian.AppendUint16(out, high)
	out = binary.BigEndian.AppendUint16(out, wide)
	out = append(out, 3, 1, 0x11, 0, 2, 0x11, 0, 3, 0x11, 0)
	return append(out, 0xff, 0xda, 0, 12, 3, 1, 0, 2, 0x11, 3, 0x11, 0, 0x3f, 0)
}

func TestAPictureIsRefusedBeforeItIsDecoded(t *testing.T) {
	for what, raw := range map[string][]byte{
		"59 million wide":           pngOf(59_000_000, 1, 8, 6),
		"a million high":            pngOf(1, 1_000_000, 1, 0),
		"65,500 by 65,500":          jpegOf(65500, 65500, 0xc0),
		"60 million points":         pngOf(10_000, 6_000, 8, 6),
		"25 million of 16 bit":      pngOf(5_000, 5_000, 16, 6),
		"20 million, progressive":   jpegOf(5_000, 4_000, 0xc2),
		"a picture of another kind": []byte("GIF89a\x01\x00\x01\x00"),
		"nothing":                   nil,
	} {
		if _, err := ReadPicture(bytes.NewReader(raw)); !errors.Is(err, ErrPicture) {
			t.Errorf("%s: %v", what, err)
		}
	}
	// What cameras and telephones make is not refused for its size: it ends too soon here.
	for what, raw := range map[string][]byte{
		"48 million, as a telephone has it": jpegOf(8000, 6000, 0xc0),
		"a screen, as PNG":                  pngOf(5120, 2880, 8, 6),
		"a progressive one from a page":     jpegOf(3000, 2000, 0xc2),
	} {
		if err := checkSize(raw); err != nil {
			t.Errorf("%s: %v", what, err)
		}
	}
}

// zipped is a zip of files by their names.
func zipped(t testing.TB, files map[string]string) *bytes.Reader {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for name, content := range files {
		to, err := w.Create(name)
		if err != nil {
			t.Fatal(err)
		}
		if _, err := io.WriteString(to, content); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return bytes.NewReader(b.Bytes())
}

const oldManifest = `{"format":"mabbin-kitchen","version":3,"made_at":"2026-01-01T00:00:00Z"}`

func TestAnArchiveIsBoundedBeforeItIsDecoded(t *testing.T) {
	if testing.Short() {
		t.Skip("large inputs: it runs without the race detector")
	}
	none := func(json.RawMessage) error { return nil }
	for what, rows := range map[string]string{
		"one row of 3 MB":             `[{"a":"` + strings.Repeat("Oxlip Yard ", 300_000) + `"}]`,
		"blanks before the first row": "[" + strings.Repeat(" ", 3<<20) + `{"a":1}]`,
		"blanks between two rows":     `[{"a":1},` + strings.Repeat("\n", 3<<20) + `{"a":2}]`,
		"blanks behind the last":      `[{"a":1}]` + strings.Repeat(" ", 3<<20),
		"100 MB of blanks":            "[" + strings.Repeat(" ", 100<<20) + "]",
		"very deep":                   "[" + strings.Repeat("[", 400_000),
		"no list":                     `{"a":1}`,
		"half a list":                 `[{"a":1},`,
	} {
		from := zipped(t, map[string]string{manifestName: oldManifest, "card.json": rows})
		a, err := OpenArchive(from, from.Size())
		if err == nil {
			err = a.Rows("card", none)
		}
		if !errors.Is(err, ErrArchive) {
			t.Errorf("%s: %v", what, err)
		}
	}
	n := 0
	from := zipped(t, map[string]string{
		manifestName: oldManifest, "card.json": "[" + strings.Repeat(`{"a":"`+strings.Repeat("b", 900_000)+`"},`, 5) + "{}]",
	})
	a, err := OpenArchive(from, from.Size())
	if err == nil {
		err = a.Rows("card", func(json.RawMessage) error { n++; return nil })
	}
	if err == nil || n != 0 { // it is packed too well to be believed
		t.Errorf("%d rows, %v", n, err)
	}
}

// A picture in an archive is kept as it is where it was written here, and written anew where anything else is in it.
func TestPicturesOfAnArchiveAreWrittenAnew(t *testing.T) {
	camera := image.NewRGBA(image.Rect(0, 0, 400, 300))
	for x := range 400 {
		camera.Set(x, x*3/4, color.RGBA{200, 40, 60, 255})
	}
	var raw bytes.Buffer
	if err := jpeg.Encode(&raw, camera, nil); err != nil {
		t.Fatal(err)
	}
	ours, err := ReadPicture(bytes.NewReader(raw.Bytes()))
	if err != nil {
		t.Fatal(err)
	}
	exif := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, 20}, "Exif\x00\x00MM\x00*where it was"[:18]...)
	withExif := slices.Concat(exif, raw.Bytes()[2:])
	var asPNG bytes.Buffer
	if err := png.Encode(&asPNG, camera); err != nil {
		t.Fatal(err)
	}
	const id = "00000000-0000-4000-8000-000000000001"
	read := func(whole, small []byte) ([]byte, error) {
		from := zipped(t, map[string]string{
			manifestName: oldManifest, "pictures/" + id + ".jpg": string(whole), "pictures/" + id + "-small.jpg": string(small),
		})
		a, err := OpenArchive(from, from.Size())
		if err != nil {
			return nil, err
		}
		p, err := a.Picture(id)
		return p.JPEG, err
	}
	if is, err := read(ours.JPEG, ours.Small); err != nil || !bytes.Equal(is, ours.JPEG) {
		t.Errorf("one that was written here is written anew: %v", err)
	}
	for what, whole := range map[string][]byte{
		"where it was taken": withExif, "a script behind its end": append(bytes.Clone(ours.JPEG), "<script>"...), "a PNG": asPNG.Bytes(),
	} {
		is, err := read(whole, ours.Small)
		if err != nil || bytes.Contains(is, []byte("where it was")) || bytes.Contains(is, []byte("<script>")) {
			t.Errorf("%s: %d bytes, %v", what, len(is), err)
		}
		if _, ok := ownJPEG(is, pictureSide); !ok {
			t.Errorf("%s: something is in it that is not written here", what)
		}
	}
	for what, whole := range map[string][]byte{"no picture": []byte("x"), "65,500 by 65,500": jpegOf(65500, 65500, 0xc0)} {
		if _, err := read(whole, ours.Small); err == nil {
			t.Errorf("%s is taken", what)
		}
	}
}

// hostilePages are pages of the largest size that is read, each made to cost as much as it can.
func hostilePages() map[string]string {
	all := map[string]string{
		"nested marks": strings.Repeat(
			"<div itemprop=recipeIngredient>200 g plums ",
			450,
		) + strings.Repeat(
			"lorem ipsum ",
			160_000,
		),
		"deep":         strings.Repeat("<div>", 400_000),
		"misnested":    strings.Repeat("<b><p></b>", 200_000),
		"tables":       strings.Repeat("<table><b>x", 180_000),
		"many lines":   strings.Repeat("<li itemprop=recipeIngredient>200 g plums</li>", 43_000),
		"attributes":   "<p " + strings.Repeat("a=b ", 490_000) + ">",
		"many scripts": strings.Repeat(`<script type="application/ld+json">[[[[[[]]]]]]</script>`, 40_000),
		"deep data": `<script type="application/ld+json">` + strings.Repeat(
			"[",
			9000,
		) + strings.Repeat(
			"]",
			9000,
		) + "</script>",
		"a long line": "<li itemprop=recipeIngredient>" + strings.Repeat("200 g plums ", 160_000),
	}
	for name, page := range all {
		all[name] = "<html>" + page[:min(len(page), MaxBytes-6)]
	}
	return all
}

// A page is read within its limits, or refused as one, whatever it is made of.
func TestHostilePagesAreReadOrRefused(t *testing.T) {
	if testing.Short() {
		t.Skip("large inputs: it runs without the race detector")
	}
	for name, page := range hostilePages() {
		d, err := Find("page.html", page)
		var faults fault.Faults
		switch {
		case err != nil && !errors.As(err, &faults):
			t.Errorf("%s: %v is no fault of the page", name, err)
		case err == nil:
			for _, l := range d.Source.Ingredients {
				if len(l) > mostMarked {
					t.Errorf("%s: a line of %d bytes", name, len(l))
				}
			}
		}
	}
}

// Whatever a file is, it is an archive whose every row is JSON of its size, or none that says so.
func FuzzArchive(f *testing.F) {
	for _, files := range []map[string]string{
		{manifestName: oldManifest, "card.json": `[{"a":1},{"b":[2]}]`},
		{manifestName: strings.Replace(oldManifest, "3", "4", 1), "card.json": "[]", contentsName: `{"card.json":{"rows":0,"sha256":""}}`},
		{manifestName: oldManifest, "pictures/x.jpg": "\xff\xd8", "pictures/x-small.jpg": "\xff\xd8"},
		{"other.json": "{}"},
	} {
		raw, err := io.ReadAll(zipped(f, files))
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		a, err := OpenArchive(bytes.NewReader(raw), int64(len(raw)))
		if err != nil {
			if !errors.Is(err, ErrArchive) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		if err := a.Rows("card", func(row json.RawMessage) error {
			if !json.Valid(row) || len(row) > mostRow {
				t.Fatalf("a row of %d bytes: %.80q", len(row), row)
			}
			return nil
		}); err != nil && !errors.Is(err, ErrArchive) {
			t.Fatalf("%T: %v", err, err)
		}
		if p, err := a.Picture("x"); err == nil && (p.Width < 1 || len(p.JPEG) == 0) {
			t.Fatalf("a picture of %d by %d, %d bytes", p.Width, p.Height, len(p.JPEG))
		}
	})
}
