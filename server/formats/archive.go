package formats

import (
	"archive/zip"
	"bytes"
	"cmp"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"hash"
	"io"
	"io/fs"
	"maps"
	"slices"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/message"
)

// An archive is a zip: a manifest, a JSON array of rows for each table, and the pictures.
const (
	manifestName  = "mabbin-kitchen.json"
	archiveFormat = "mabbin-kitchen"
	// ArchiveForm is the version of an archive's rows, the store's own. All are read: 5 since names are plain words, 4
	// since butter on a dish may be a film, 3 since sentences may be sequences, 2 since messages are stored with their
	// values.
	ArchiveForm = 5
)

// The limits of an archive that is read.
const (
	MaxArchive   = 512 << 20 // bytes, packed
	mostUnpacked = 4 << 30
	// mostRow is the longest row, and what lies before it, in bytes: the longest that is written, of a dessert on the
	// watch, has some 60 kB.
	mostRow   = 1 << 20
	mostImage = 8_000_000
	// mostFiles is how many files it may have, and mostPacked how many times as large as it is packed a table may become,
	// beyond what is small anyway: tables of real kitchens become some twenty times as large.
	mostFiles  = 200_000
	mostPacked = 150
	smallTable = 4 << 20
)

// Manifest says what an archive is.
type Manifest struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	MadeAt  time.Time `json:"made_at"`
}

// contentsName is the last file of an archive: what is in each of the others. An archive that was broken off has none.
const contentsName = "contents.json"

// Part is what one file of an archive holds.
type Part struct {
	Rows   int    `json:"rows,omitempty"` // of a table
	SHA256 string `json:"sha256"`         // of its bytes, in hexadecimal
}

// summed counts and sums what is written of, or read from, one file.
type summed struct {
	rows int
	sum  hash.Hash
}

func (s summed) part() Part { return Part{Rows: s.rows, SHA256: hex.EncodeToString(s.sum.Sum(nil))} }

// ErrArchive is an archive that can't be read. What it says is meant for whoever chose it.
var ErrArchive = errors.New("can't be read as a kitchen's archive")

func noArchive(text message.Message) error { return message.Error{Message: text, Kind: ErrArchive} }

// ArchiveWriter writes an archive as it comes, so that a large kitchen takes no more memory than a small one.
type ArchiveWriter struct {
	zip      *zip.Writer
	table    string // that is open
	to       io.Writer
	now      summed
	contents map[string]Part
}

// NewArchive begins an archive.
func NewArchive(to io.Writer, at time.Time) (*ArchiveWriter, error) {
	w := &ArchiveWriter{zip: zip.NewWriter(to), contents: map[string]Part{}}
	m, err := w.zip.Create(manifestName)
	if err != nil {
		return nil, err
	}
	return w, json.NewEncoder(m).Encode(Manifest{archiveFormat, ArchiveForm, at})
}

// Row writes a row of a table. Rows of a table come one after the other.
func (w *ArchiveWriter) Row(table string, row json.RawMessage) (err error) {
	sep := ",\n"
	if table != w.table {
		if err := w.end(); err != nil {
			return err
		}
		file, err := w.zip.Create(table + ".json")
		if err != nil {
			return err
		}
		w.now = summed{sum: sha256.New()}
		w.to = io.MultiWriter(file, w.now.sum)
		w.table, sep = table, "[\n"
	}
	w.now.rows++
	_, err = fmt.Fprintf(w.to, "%s%s", sep, row)
	return err
}

func (w *ArchiveWriter) end() error {
	if w.table == "" {
		return nil
	}
	_, err := io.WriteString(w.to, "\n]\n")
	w.contents[w.table+".json"] = w.now.part()
	w.table = ""
	return err
}

// Picture writes a picture under its id.
func (w *ArchiveWriter) Picture(id string, jpeg, small []byte) error {
	if err := w.end(); err != nil {
		return err
	}
	for _, f := range []struct {
		ending string
		raw    []byte
	}{{".jpg", jpeg}, {"-small.jpg", small}} {
		name := "pictures/" + id + f.ending
		sum := sha256.Sum256(f.raw)
		w.contents[name] = Part{SHA256: hex.EncodeToString(sum[:])}
		to, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Store}) // it is packed already
		if err != nil {
			return err
		}
		if _, err := to.Write(f.raw); err != nil {
			return err
		}
	}
	return nil
}

// Close ends the archive, and tells in it what it holds. One that is not closed is no archive.
func (w *ArchiveWriter) Close() error {
	if err := w.end(); err != nil {
		return err
	}
	to, err := w.zip.Create(contentsName)
	if err != nil {
		return err
	}
	if err := json.NewEncoder(to).Encode(w.contents); err != nil {
		return err
	}
	return w.zip.Close()
}

// Archive is an archive as it is read.
type Archive struct {
	// Tick, where there is one, receives how many bytes of it have been read, unpacked, of how many. An error from it
	// ends the reading.
	Tick func(read, of int64) error

	zip      *zip.Reader
	files    map[string]*zip.File // by their names, as they are written
	form     int
	contents map[string]Part // nil: of before archives reported it
	read, of int64
}

// Form is the version of its rows.
func (a *Archive) Form() int { return a.form }

// counted is a file of the archive that counts what is read of it.
type counted struct {
	io.ReadCloser
	archive *Archive
}

func (c counted) Read(p []byte) (int, error) {
	n, err := c.ReadCloser.Read(p)
	a := c.archive
	a.read += int64(n)
	if a.Tick != nil {
		if stop := a.Tick(a.read, a.of); stop != nil {
			return n, stop
		}
	}
	return n, err
}

func (a *Archive) open(name string) (io.ReadCloser, error) {
	f, ok := a.files[name]
	if !ok {
		return nil, fmt.Errorf("%s: %w", name, fs.ErrNotExist)
	}
	r, err := f.Open()
	if err != nil {
		return nil, err
	}
	return counted{r, a}, nil
}

// OpenArchive looks at an archive of size bytes.
func OpenArchive(from io.ReaderAt, size int64) (*Archive, error) {
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, noArchive(message.New("it can't be read as a kitchen's archive: choose the zip file of a backup"))
	}
	var unpacked uint64
	if len(z.File) > mostFiles {
		return nil, noArchive(message.New("it can't be read as a kitchen's archive: it has more than {most} files",
			message.Count(mostFiles)))
	}
	for _, f := range z.File {
		if f.UncompressedSize64 > smallTable && f.UncompressedSize64/mostPacked > f.CompressedSize64 {
			return nil, noArchive(
				message.New("it can't be read as a kitchen's archive: {file} is suspiciously larger unpacked than packed",
					message.Text(f.Name)),
			)
		}
		if unpacked += f.UncompressedSize64; unpacked > mostUnpacked {
			return nil, noArchive(
				message.New(
					"it can't be read as a kitchen's archive: unpacked it is larger than {most} GB",
					message.Count(mostUnpacked>>30),
				),
			)
		}
	}
	a := &Archive{zip: z, of: int64(unpacked), files: map[string]*zip.File{}}
	for _, f := range z.File {
		a.files[f.Name] = f
		if strings.HasSuffix(f.Name, ".json") {
			a.of += int64(f.UncompressedSize64) // rows are read to be checked, and again to be kept
		}
	}
	var m Manifest
	if raw, err := a.whole(
		manifestName,
		1<<16,
	); err != nil || json.Unmarshal(raw, &m) != nil ||
		m.Format != archiveFormat {
		return nil, noArchive(
			message.New("it can't be read as a kitchen's archive: there is no {file} in it", message.Text(manifestName)),
		)
	}
	if m.Version > ArchiveForm {
		return nil, noArchive(
			message.New(
				"it can't be read as a kitchen's archive: its version is {version}, and this program reads {known}",
				message.Count(m.Version),
				message.Count(ArchiveForm),
			),
		)
	}
	a.form = m.Version
	return a, a.readContents()
}

// contentsFrom is the form since which an archive tells what it holds.
const contentsFrom = 4

// mostContents is how large the list of an archive's files may be, in bytes: pictures of a hundred years.
const mostContents = 64 << 20

// readContents reads what the archive says that it holds, and looks whether all of that is there.
func (a *Archive) readContents() error {
	if a.form < contentsFrom {
		return nil
	}
	raw, err := a.whole(contentsName, mostContents)
	if err != nil || json.Unmarshal(raw, &a.contents) != nil || a.contents == nil {
		return noArchive(message.New(
			"it can't be read as a kitchen's archive: the file is incomplete, and nothing was saved. Download it again",
		))
	}
	for _, name := range slices.Sorted(maps.Keys(a.contents)) {
		if a.files[name] == nil {
			return noArchive(message.New("it can't be read as a kitchen's archive: {file} is missing in it", message.Text(name)))
		}
	}
	return nil
}

// same says whether a file that was read is the one that was written.
func (a *Archive) same(name string, read Part) error {
	if a.contents == nil {
		return nil
	}
	if wrote, ok := a.contents[name]; !ok || wrote != read {
		return noArchive(message.New(
			"it can't be read as a kitchen's archive: {file} is damaged, and nothing was saved",
			message.Text(name),
		))
	}
	return nil
}

// whole is a file of the archive, whole.
func (a *Archive) whole(name string, most int64) ([]byte, error) {
	f, err := a.open(name)
	if err != nil {
		return nil, err
	}
	defer func() { _ = f.Close() }()
	raw, err := io.ReadAll(io.LimitReader(f, most+1))
	if err == nil && int64(len(raw)) > most {
		err = fmt.Errorf("%s is larger than %d bytes", name, most)
	}
	return raw, err
}

// errLongRow is a row, or nothing but blanks, of more than mostRow bytes.
var errLongRow = message.Error{Message: message.New("a row is larger than {most} MB", message.Count(mostRow>>20))}

// rowReader reads so many bytes, and no more until it is given more.
type rowReader struct {
	from io.Reader
	left int
}

func (r *rowReader) Read(p []byte) (int, error) {
	if r.left <= 0 {
		return 0, errLongRow
	}
	n, err := r.from.Read(p[:min(len(p), r.left)])
	r.left -= n
	return n, err
}

// Rows hands over the rows of a table, one after the other.
func (a *Archive) Rows(table string, row func(json.RawMessage) error) error {
	f, err := a.open(table + ".json")
	if err != nil {
		return nil // a kitchen without any has none
	}
	defer func() { _ = f.Close() }()
	broken := func(err error) error {
		return message.Error{
			Message: message.New(
				"it can't be read as a kitchen's archive: {file}: {why}",
				message.Text(table+".json"),
				message.Part(message.Of(err)),
			),
			Kind: errors.Join(ErrArchive, err),
		}
	}
	now := summed{sum: sha256.New()}
	bounded := &rowReader{from: io.TeeReader(f, now.sum), left: 2 * mostRow}
	d := json.NewDecoder(bounded)
	if t, err := d.Token(); err != nil || t != json.Delim('[') {
		return broken(message.Error{Message: message.New("is not a list of rows")})
	}
	for d.More() {
		var raw json.RawMessage
		if err := d.Decode(&raw); err != nil {
			return broken(err)
		}
		if len(raw) > mostRow {
			return broken(errLongRow)
		}
		bounded.left = 2 * mostRow // what the decoder has read ahead is of the next one
		now.rows++
		if err := row(raw); err != nil {
			return err
		}
	}
	if _, err := d.Token(); err != nil {
		return broken(err)
	}
	if rest, err := io.Copy(io.Discard, io.LimitReader(bounded, mostRow)); err != nil || rest == mostRow {
		return broken(cmp.Or(err, error(errLongRow)))
	}
	if _, err := io.Copy(now.sum, f); err != nil { // what the decoder has not asked for
		return broken(err)
	}
	return a.same(table+".json", now.part())
}

// Picture is a picture by its id, as it may be kept: as it is where it is one that was written here, else written anew
// as an upload is.
func (a *Archive) Picture(id string) (app.Picture, error) {
	p, err := a.picture(id)
	if err != nil {
		return app.Picture{}, err
	}
	return app.Picture{Width: p.Width, Height: p.Height, JPEG: p.JPEG, Small: p.Small}, nil
}

func (a *Archive) picture(id string) (*Picture, error) {
	var whole, small []byte
	for name, to := range map[string]*[]byte{"pictures/" + id + ".jpg": &whole, "pictures/" + id + "-small.jpg": &small} {
		raw, err := a.whole(name, mostImage)
		if err != nil {
			return nil, err
		}
		sum := sha256.Sum256(raw)
		if err := a.same(name, Part{SHA256: hex.EncodeToString(sum[:])}); err != nil {
			return nil, err
		}
		*to = raw
	}
	if p, ok := ownPicture(whole, small); ok {
		return p, nil
	}
	return ReadPicture(bytes.NewReader(whole))
}
