package formats

import (
	"bytes"
	"encoding/binary"
	"errors"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"
)

// halves is a picture whose left half is red and whose right half is blue.
func halves(w, h int) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{R: 200, A: 255}
			if x >= w/2 {
				c = color.RGBA{B: 200, A: 255}
			}
			img.Set(x, y, c)
		}
	}
	return img
}

// taken is a JPEG as a camera writes it: with where it was, and how it was held.
func taken(t *testing.T, img image.Image, held uint16, text string) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, nil); err != nil {
		t.Fatal(err)
	}
	var exif bytes.Buffer
	exif.WriteString("Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08")
	put := func(v ...any) {
		for _, x := range v {
			if err := binary.Write(&exif, binary.BigEndian, x); err != nil {
				t.Fatal(err)
			}
		}
	}
	put(uint16(2))
	put(uint16(0x010f), uint16(2), uint32(len(text)), uint32(8+2+24+4))
	put(uint16(0x0112), uint16(3), uint32(1), held, uint16(0))
	put(uint32(0))
	exif.WriteString(text)
	out := append([]byte{0xff, 0xd8, 0xff, 0xe1}, byte((exif.Len()+2)>>8), byte(exif.Len()+2))
	out = append(out, exif.Bytes()...)
	return append(out, b.Bytes()[2:]...)
}

func TestAPictureKeepsOnlyWhatIsSeen(t *testing.T) {
	raw := taken(t, halves(64, 32), 6, "somewhere in a garden") // held upright: to be turned clockwise
	if !bytes.Contains(raw, []byte("garden")) {
		t.Fatal("there is nothing to strip")
	}
	p, err := ReadPicture(bytes.NewReader(raw))
	if err != nil {
		t.Fatal(err)
	}
	for name, j := range map[string][]byte{"whole": p.JPEG, "small": p.Small} {
		if bytes.Contains(j, []byte("garden")) || bytes.Contains(j, []byte("Exif")) {
			t.Errorf("%s: it says where it was taken", name)
		}
	}
	img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	if err != nil {
		t.Fatal(err)
	}
	if b := img.Bounds(); b.Dx() != 32 || b.Dy() != 64 || p.Width != 32 || p.Height != 64 {
		t.Errorf("it is %v, and was held upright", b)
	}
	if r, _, b, _ := img.At(16, 4).RGBA(); r < b {
		t.Error("the left half is not at the top")
	}
}

func TestALargePictureIsMadeSmaller(t *testing.T) {
	if testing.Short() {
		t.Skip("large inputs: it runs without the race detector")
	}
	var b bytes.Buffer
	if err := png.Encode(&b, halves(2400, 1200)); err != nil {
		t.Fatal(err)
	}
	p, err := ReadPicture(&b)
	if err != nil || p.Width != 1600 || p.Height != 800 {
		t.Fatalf("%+v, %v", p, err)
	}
	small, err := jpeg.DecodeConfig(bytes.NewReader(p.Small))
	if err != nil || small.Width != 240 {
		t.Errorf("the small one is %+v, %v", small, err)
	}
}

func TestWhatIsNoPictureIsRefused(t *testing.T) {
	if testing.Short() {
		t.Skip("large inputs: it runs without the race detector")
	}
	var moving bytes.Buffer
	if err := gif.Encode(&moving, halves(8, 8), nil); err != nil {
		t.Fatal(err)
	}
	var huge bytes.Buffer
	if err := png.Encode(&huge, image.NewGray(image.Rect(0, 0, 9000, 8000))); err != nil {
		t.Fatal(err)
	}
	whole := taken(t, halves(64, 32), 1, "x")
	for name, c := range map[string]struct{ raw, want string }{
		"nothing":      {"", "a JPEG or PNG"},
		"markup":       {"<svg xmlns='x'><script>1</script></svg>", "a JPEG or PNG"},
		"another kind": {moving.String(), "a JPEG or PNG"},
		"too many":     {huge.String(), "9000 × 8000"},
		"cut off":      {string(whole[:len(whole)/2]), "can't be read as a picture"},
		"too large":    {string(whole) + strings.Repeat("x", MaxPicture), "12 MB"},
	} {
		_, err := ReadPicture(strings.NewReader(c.raw))
		if !errors.Is(err, ErrPicture) || !strings.Contains(err.Error(), c.want) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

func FuzzReadPicture(f *testing.F) {
	var b bytes.Buffer
	_ = jpeg.Encode(&b, halves(16, 8), nil)
	f.Add(b.Bytes())
	b.Reset()
	_ = png.Encode(&b, halves(16, 8))
	f.Add(b.Bytes())
	f.Fuzz(func(t *testing.T, raw []byte) {
		if p, err := ReadPicture(
			bytes.NewReader(raw),
		); err == nil &&
			(len(p.JPEG) == 0 || len(p.Small) == 0 || p.Width > 1600) {
			t.Errorf("%+v", p)
		}
	})
}

// However the camera was held, the picture is seen as it was: the first corner of the scene stays the first.
func TestAPictureIsTurnedAsItWasHeld(t *testing.T) {
	// the red quarter of the scene is at its upper left; in the file it lies where the sensor saw it
	redAt := map[uint16][2]int{1: {0, 0}, 2: {1, 0}, 3: {1, 1}, 4: {0, 1}, 5: {0, 0}, 6: {0, 1}, 7: {1, 1}, 8: {1, 0}}
	for held, at := range redAt {
		w, h := 60, 40
		if held >= turned90From {
			w, h = 40, 60
		}
		file := image.NewRGBA(image.Rect(0, 0, w, h))
		for y := range h {
			for x := range w {
				c := color.RGBA{B: 200, A: 255}
				if x*2/w == at[0] && y*2/h == at[1] {
					c = color.RGBA{R: 200, A: 255}
				}
				file.Set(x, y, c)
			}
		}
		p, err := ReadPicture(bytes.NewReader(taken(t, file, held, "x")))
		if err != nil {
			t.Fatal(err)
		}
		img, err := jpeg.Decode(bytes.NewReader(p.JPEG))
		if err != nil {
			t.Fatal(err)
		}
		if b := img.Bounds(); b.Dx() != 60 || b.Dy() != 40 {
			t.Errorf("held %d: it is %v", held, b)
			continue
		}
		for _, q := range []struct {
			x, y int
			red  bool
		}{{8, 8, true}, {52, 8, false}, {8, 32, false}, {52, 32, false}} {
			if r, _, b, _ := img.At(q.x, q.y).RGBA(); r > b != q.red {
				t.Errorf("held %d: at %d, %d it is red %d, blue %d", held, q.x, q.y, r>>8, b>>8)
			}
		}
	}
}

// What is seen through is white in the simulation, and nothing is enlarged.
func TestASmallPictureStaysSmall(t *testing.T) {
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewNRGBA(image.Rect(0, 0, 30, 20))); err != nil {
		t.Fatal(err)
	}
	p, err := ReadPicture(&b)
	if err != nil {
		t.Fatal(err)
	}
	img, err := jpeg.Decode(bytes.NewReader(p.Small))
	if err != nil {
		t.Fatal(err)
	}
	if r, g, bl, _ := img.At(15, 10).RGBA(); p.Width != 30 || p.Height != 20 || min(r, g, bl)>>8 < 250 {
		t.Errorf("%d by %d, %d %d %d", p.Width, p.Height, r>>8, g>>8, bl>>8)
	}
}
