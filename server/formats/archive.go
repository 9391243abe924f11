package formats

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"io"
	"time"

	"mabbin/core/message"
)

// An archive is a zip: a manifest, a JSON array of rows for each table, and the pictures.
const (
	manifestName  = "mabbin-kitchen.json"
	archiveFormat = "mabbin-kitchen"
	// ArchiveForm is the version of an archive's rows, the store's own: 4 since butter on a dish may be a film, 3 since
	// sentences may be sequences, 2 since what is said is kept with its values; before, it was plain text. All are read.
	ArchiveForm = 4
)

// The limits of an archive that is read.
const (
	MaxArchive   = 512 << 20 // bytes, packed
	mostUnpacked = 4 << 30
	mostRow      = 8 << 20
	mostImage    = 8_000_000
)

// Manifest says what an archive is.
type Manifest struct {
	Format  string    `json:"format"`
	Version int       `json:"version"`
	MadeAt  time.Time `json:"made_at"`
}

// ErrArchive is an archive that can't be read. What it says is meant for whoever chose it.
var ErrArchive = errors.New("can't be read as a kitchen's archive")

func noArchive(says message.Message) error { return message.Error{Says: says, Kind: ErrArchive} }

// ArchiveWriter writes an archive as it comes, so that a large kitchen takes no more memory than a small one.
type ArchiveWriter struct {
	zip   *zip.Writer
	table string // that is open
	to    io.Writer
}

// NewArchive begins an archive.
func NewArchive(to io.Writer, at time.Time) (*ArchiveWriter, error) {
	w := &ArchiveWriter{zip: zip.NewWriter(to)}
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
		if w.to, err = w.zip.Create(table + ".json"); err != nil {
			return err
		}
		w.table, sep = table, "[\n"
	}
	_, err = fmt.Fprintf(w.to, "%s%s", sep, row)
	return err
}

func (w *ArchiveWriter) end() error {
	if w.table == "" {
		return nil
	}
	w.table = ""
	_, err := io.WriteString(w.to, "\n]\n")
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
		to, err := w.zip.CreateHeader(
			&zip.FileHeader{Name: "pictures/" + id + f.ending, Method: zip.Store},
		) // it is packed already
		if err != nil {
			return err
		}
		if _, err := to.Write(f.raw); err != nil {
			return err
		}
	}
	return nil
}

// Close ends the archive.
func (w *ArchiveWriter) Close() error {
	return errors.Join(w.end(), w.zip.Close())
}

// Archive is an archive as it is read.
type Archive struct {
	// Tick, where there is one, is told how many bytes of it have been read, unpacked, of how many. An error from it
	// ends the reading.
	Tick func(read, of int64) error

	zip      *zip.Reader
	form     int
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
	f, err := a.zip.Open(name)
	if err != nil {
		return nil, err
	}
	return counted{f, a}, nil
}

// OpenArchive looks at an archive of size bytes.
func OpenArchive(from io.ReaderAt, size int64) (*Archive, error) {
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, noArchive(message.New("it can't be read as a kitchen's archive: give the zip that a backup made"))
	}
	var unpacked uint64
	for _, f := range z.File {
		if unpacked += f.UncompressedSize64; unpacked > mostUnpacked {
			return nil, noArchive(
				message.New(
					"it can't be read as a kitchen's archive: unpacked it is larger than {most} GB",
					message.Count(mostUnpacked>>30),
				),
			)
		}
	}
	a := &Archive{zip: z, of: int64(unpacked)}
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
				"it can't be read as a kitchen's archive: it is of version {version}, and this program knows {known}",
				message.Count(m.Version),
				message.Count(ArchiveForm),
			),
		)
	}
	a.form = m.Version
	return a, nil
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

// Rows hands over the rows of a table, one after the other.
func (a *Archive) Rows(table string, row func(json.RawMessage) error) error {
	f, err := a.open(table + ".json")
	if err != nil {
		return nil // a kitchen without any has none
	}
	defer func() { _ = f.Close() }()
	broken := func(err error) error {
		return message.Error{
			Says: message.New(
				"it can't be read as a kitchen's archive: {file}: {why}",
				message.Text(table+".json"),
				message.Part(message.Of(err)),
			),
			Kind: errors.Join(ErrArchive, err),
		}
	}
	d := json.NewDecoder(f)
	if t, err := d.Token(); err != nil || t != json.Delim('[') {
		return broken(message.Error{Says: message.New("is no list of rows")})
	}
	for d.More() {
		var raw json.RawMessage
		if err := d.Decode(&raw); err != nil {
			return broken(err)
		}
		if len(raw) > mostRow {
			return broken(message.Error{Says: message.New("a row is larger than {most} MB", message.Count(mostRow>>20))})
		}
		if err := row(raw); err != nil {
			return err
		}
	}
	if _, err := d.Token(); err != nil {
		return broken(err)
	}
	return nil
}

// Picture is a picture by its id.
func (a *Archive) Picture(id string) (jpeg, small []byte, err error) {
	read := func(name string) []byte {
		if err != nil {
			return nil
		}
		var raw []byte
		if raw, err = a.whole(name, mostImage); err != nil {
			return nil
		}
		if _, kind, bad := image.DecodeConfig(bytes.NewReader(raw)); bad != nil || kind != "jpeg" {
			err = message.Error{Says: message.New("{file} is no JPEG", message.Text(name))}
		}
		return raw
	}
	jpeg = read("pictures/" + id + ".jpg")
	small = read("pictures/" + id + "-small.jpg")
	return jpeg, small, err
}
