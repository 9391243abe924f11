package httpapi

import (
	"bytes"
	"compress/gzip"
	"io"
	"strconv"
	"strings"
	"sync"

	"github.com/andybalholm/brotli"
	"github.com/gin-gonic/gin"
)

// An answer is compressed from this size on, in bytes: a smaller one fits into a packet or two as it is.
const compressFrom = 2 << 10

// How hard answers are compressed: quickly, for each is made for one change.
const (
	brotliLevel = 4
	gzipLevel   = 5
)

// compression is a way to compress that a caller may accept, by its name in HTTP. extension is that of a file that was
// compressed when it was built.
type compression struct {
	name, extension string
	writers         *sync.Pool
}

// compressor writes what it is given, compressed.
type compressor interface {
	io.WriteCloser
	Reset(to io.Writer)
}

// compressions are those that are offered, the best first.
var compressions = []compression{
	{"br", ".br", &sync.Pool{New: func() any { return brotli.NewWriterLevel(nil, brotliLevel) }}},
	{"gzip", ".gz", &sync.Pool{New: func() any {
		w, _ := gzip.NewWriterLevel(nil, gzipLevel) // it fails for levels that there are not
		return w
	}}},
}

// accepted returns the compressions that a request accepts, the best first.
func accepted(c *gin.Context) (out []compression) {
	header := c.GetHeader("Accept-Encoding")
	if header == "" {
		return nil
	}
	named := map[string]bool{}
	for part := range strings.SplitSeq(header, ",") {
		name, quality, _ := strings.Cut(strings.TrimSpace(part), ";")
		q, err := strconv.ParseFloat(strings.TrimPrefix(strings.ReplaceAll(quality, " ", ""), "q="), 64)
		named[strings.ToLower(strings.TrimSpace(name))] = err != nil || q > 0 // without a number: it is accepted
	}
	for _, x := range compressions {
		if named[x.name] {
			out = append(out, x)
		}
	}
	return out
}

// compressed compresses an answer where its caller accepts that, and sets its headers.
func compressed(c *gin.Context, raw []byte) []byte {
	if len(raw) < compressFrom {
		return raw
	}
	c.Header("Vary", "Accept-Encoding")
	ways := accepted(c)
	if len(ways) == 0 {
		return raw
	}
	var out bytes.Buffer
	out.Grow(len(raw) / 3)
	w, _ := ways[0].writers.Get().(compressor)
	defer ways[0].writers.Put(w)
	w.Reset(&out)
	if _, err := w.Write(raw); err != nil || w.Close() != nil {
		return raw // a buffer takes everything
	}
	c.Header("Content-Encoding", ways[0].name)
	return out.Bytes()
}
