package main

import (
	"archive/zip"
	"bytes"
	"compress/zlib"
	"context"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"net/http"
	"strings"
	"time"

	"github.com/google/uuid"
)

// bombs sends what is small and becomes large, and what is large as it is.
func bombs(ctx context.Context, m *machine, c *client) (report, error) {
	out := report{name: "bombs: archives, pictures, pages, deep and long JSON"}
	k, err := newKitchen(c)
	if err != nil {
		return out, err
	}
	page := func(body string) string {
		return `{"filename":"page.html","content":"` + strings.ReplaceAll(body, `"`, `\"`) + `"}`
	}
	const deep, long = 100_000, 900_000
	all := []struct {
		what, path, kind string
		body             []byte
	}{
		{"an archive of zeros", "/api/v1/kitchens/restore", "application/zip", zeros(1 << 30)},
		{"an archive of many files", "/api/v1/kitchens/restore", "application/zip", manyFiles(50_000)},
		{"a picture of 20,000 points a side", "/pictures/", "image/png", pngOf(20_000, 20_000, 0, 1000)},
		{"the largest picture", "/pictures/", "image/png", pngOf(4300, 4300, 0, 4300)},
		{"an interlaced picture", "/pictures/", "image/png", pngOf(6300, 6300, 1, 1000)},
		{"deep JSON", "/api/v1/balance", "application/json", []byte(strings.Repeat("[", deep))},
		{"deep objects", "/api/v1/bench", "application/json", []byte(strings.Repeat(`{"request":`, deep))},
		{"long JSON", "/api/v1/balance", "application/json", []byte("[" + strings.Repeat("1,", long/2) + "1]")},
		{"a body of 5 MB", "/api/v1/balance", "application/json", bytes.Repeat([]byte("x"), 5<<20)},
		{"a page of nothing but tags", "/api/v1/import", "application/json", []byte(page(strings.Repeat("<div>", long/5)))},
		{
			"a page of nothing but scripts",
			"/api/v1/import",
			"application/json",
			[]byte(page(strings.Repeat("<script>{", long/9))),
		},
		{
			"a recipe of 500 lines",
			"/api/v1/import",
			"application/json",
			[]byte(page(strings.Repeat(`1 cup of flour and 2 cups of sugar\n`, 600))),
		},
	}
	n := 0
	for ctx.Err() == nil {
		for _, x := range all {
			path := x.path
			if path == "/pictures/" {
				path = k.base + path + uuid.NewString()
			}
			r, err := http.NewRequestWithContext(
				context.WithoutCancel(ctx),
				http.MethodPost,
				c.base+path,
				bytes.NewReader(x.body),
			)
			if err != nil {
				return out, err
			}
			r.Header.Set("Content-Type", x.kind)
			before := m.processor()
			a := c.do(r)
			out.longest(m.processor()-before, x.what)
			if a.code/100 == 5 && !a.later() || a.code == 0 && len(x.body) < 1<<20 {
				out.wrong = append(out.wrong, fmt.Sprintf("%s: %d %.200s", x.what, a.code, a.body))
			}
			n++
		}
	}
	out.says = fmt.Sprintf("%d of 12 kinds", n)
	return out, nil
}

// zeros is an archive that becomes so many bytes.
func zeros(n int64) []byte {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	w, _ := z.Create("kitchen.json")
	block := make([]byte, 1<<20)
	for range n >> 20 {
		_, _ = w.Write(block)
	}
	_ = z.Close()
	return b.Bytes()
}

func manyFiles(n int) []byte {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for i := range n {
		_, _ = z.Create(fmt.Sprint("pictures/", i, ".jpg"))
	}
	_ = z.Close()
	return b.Bytes()
}

// pngOf is an empty picture in RGBA, with so many of its rows.
func pngOf(wide, high int, interlace byte, rows int) []byte {
	var packed bytes.Buffer
	z := zlib.NewWriter(&packed)
	row := make([]byte, 1+4*wide)
	for range rows {
		_, _ = z.Write(row)
	}
	_ = z.Close()
	out := bytes.NewBufferString("\x89PNG\r\n\x1a\n")
	chunk := func(name string, data []byte) {
		_ = binary.Write(out, binary.BigEndian, uint32(len(data))) //nolint:gosec // it is small
		_, _ = out.WriteString(name)
		_, _ = out.Write(data)
		_ = binary.Write(out, binary.BigEndian, crc32.ChecksumIEEE(append([]byte(name), data...)))
	}
	head := binary.BigEndian.AppendUint32(nil, uint32(wide)) //nolint:gosec // as above
	head = binary.BigEndian.AppendUint32(head, uint32(high)) //nolint:gosec // as above
	chunk("IHDR", append(head, 8, 6, 0, 0, interlace))
	chunk("IDAT", packed.Bytes())
	chunk("IEND", nil)
	return out.Bytes()
}

func tomorrow() string { return time.Now().Add(20 * time.Hour).UTC().Format(time.RFC3339) }
