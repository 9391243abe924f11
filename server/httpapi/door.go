package httpapi

import (
	"mime"
	"net"
	"net/http"
	"strings"

	"mabbin/core/message"
	"mabbin/server/formats"

	"github.com/gin-gonic/gin"
)

// secure sets the headers that keep the page to itself: scripts and styles come from this server, and none is inline.
// What the page sets on an element's style from its own script is no inline style.
func secure(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	if strings.HasPrefix(c.Request.URL.Path, "/api/") { // no document: there is nothing in it that could ask for something
		h.Set("Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'")
		return
	}
	h.Set(
		"Content-Security-Policy",
		"default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; "+
			"connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
	)
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), screen-wake-lock=(self)")
}

// The largest requests: a card is some 2 kB. A file to be imported may have 2 MB, and more while it is a string of
// JSON.
const (
	maxBody   = 1 << 20
	maxImport = 3*formats.MaxBytes + 4096
)

const restorePath = "/api/v1/kitchens/restore"

func bodyLimit(path string) int64 {
	switch {
	case path == "/api/v1/import":
		return maxImport
	case path == restorePath:
		return formats.MaxArchive
	case strings.Contains(path, "/pictures/"):
		return formats.MaxPicture + 1
	}
	return maxBody
}

// limit refuses large requests, those that another site's page sent, and bodies that are not what they should be. What
// it lets in is nobody else's to keep.
func (s *server) limit(c *gin.Context) {
	c.Header("Cache-Control", "no-store")
	r := c.Request
	most := bodyLimit(r.URL.Path)
	switch {
	case r.ContentLength > most:
		problem(c, tooLarge(most))
	case !loopback(r.Host):
		s.refuse(c, http.StatusMisdirectedRequest, message.New("Mabbin serves this machine only, as 127.0.0.1 or localhost"))
	case fromElsewhere(r):
		s.refuse(c, http.StatusForbidden, message.New("Requests from other sites are refused"))
	default:
		r.Body = http.MaxBytesReader(c.Writer, r.Body, most)
		s.mediaType(c)
	}
}

// fromElsewhere says whether a browser sent a request for another site's page.
func fromElsewhere(r *http.Request) bool {
	switch r.Header.Get("Sec-Fetch-Site") {
	case "cross-site", "same-site":
		return true
	}
	if r.Method == http.MethodGet || r.Method == http.MethodHead {
		return false
	}
	origin := r.Header.Get("Origin")
	return origin != "" && origin != "http://"+r.Host
}

// mediaType refuses a body of another kind than the contract has: a form of another site's page can send text, and no
// JSON.
func (s *server) mediaType(c *gin.Context) {
	o, known := s.contract.of(c)
	if !known || o.RequestBody == nil {
		return
	}
	given, _, err := mime.ParseMediaType(c.GetHeader("Content-Type"))
	taken := o.RequestBody.Value.Content
	if err != nil || taken.Get(given) == nil {
		wanted := ""
		for name := range taken {
			wanted = name
		}
		s.refuse(c, http.StatusUnsupportedMediaType,
			message.New("The body has the wrong content type: send {wanted}", message.Text(wanted)))
	}
}

// loopback says whether a Host header names this machine: a name that was made to point here does not.
func loopback(hostport string) bool {
	host, _, err := net.SplitHostPort(hostport)
	if err != nil {
		host = hostport
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return host == "localhost" || ip != nil && ip.IsLoopback()
}
