package httpapi

import (
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strconv"
	"strings"

	"mabbin/core/message"

	"github.com/gin-gonic/gin"
)

// page serves the built page: its files by name, and its index for every address that is the page's own.
func (s *server) page(dist fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(dist)
	index, err := fs.ReadFile(dist, "index.html")
	if err != nil {
		index = []byte("<!doctype html><title>Mabbin</title><p>The page has not been built: run <code>make demo</code>.")
	}
	return func(c *gin.Context) {
		p := strings.TrimPrefix(c.Request.URL.Path, "/")
		if p == "api" || strings.HasPrefix(p, "api/") {
			s.refuse(c, http.StatusNotFound, message.New("Unknown API address"))
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			s.refuse(
				c,
				http.StatusMethodNotAllowed,
				message.New("This address does not allow {method}", message.Text(c.Request.Method)),
			)
			return
		}
		c.Status(http.StatusOK) // gin begins with 404 here
		if fi, err := fs.Stat(dist, p); err == nil && !fi.IsDir() && p != "index.html" {
			if strings.HasPrefix(p, "assets/") {
				c.Header("Cache-Control", "public, max-age=31536000, immutable")
			}
			if !asBuilt(c, dist, p) {
				files.ServeHTTP(c.Writer, c.Request)
			}
			return
		}
		if strings.HasPrefix(p, "assets/") {
			s.refuse(c, http.StatusNotFound, message.New("There is no such file"))
			return
		}
		c.Header("Cache-Control", "no-cache")
		c.Data(http.StatusOK, "text/html; charset=utf-8", index)
	}
}

// asBuilt answers with a file of the page as the build has compressed it; false where the caller accepts none of that,
// or the file was too small for it.
func asBuilt(c *gin.Context, dist fs.FS, name string) bool {
	kind := mime.TypeByExtension(path.Ext(name))
	if kind == "" || c.GetHeader("Range") != "" {
		return false
	}
	for _, x := range accepted(c) {
		raw, err := fs.ReadFile(dist, name+x.extension)
		if err != nil {
			continue
		}
		c.Header("Vary", "Accept-Encoding")
		c.Header("Content-Encoding", x.name)
		c.Header("Content-Length", strconv.Itoa(len(raw)))
		c.Data(http.StatusOK, kind, raw)
		return true
	}
	return false
}
