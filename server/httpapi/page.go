package httpapi

import (
	"io/fs"
	"net/http"
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
			s.refuse(c, http.StatusNotFound, message.New("There is no such API address"))
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			s.refuse(
				c,
				http.StatusMethodNotAllowed,
				message.New("This address does not take {method}", message.Text(c.Request.Method)),
			)
			return
		}
		c.Status(http.StatusOK) // gin begins with 404 here
		if fi, err := fs.Stat(dist, p); err == nil && !fi.IsDir() && p != "index.html" {
			if strings.HasPrefix(p, "assets/") {
				c.Header("Cache-Control", "public, max-age=31536000, immutable")
			}
			files.ServeHTTP(c.Writer, c.Request)
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
