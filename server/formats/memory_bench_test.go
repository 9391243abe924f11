package formats

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"testing"

	"mabbin/server/benchtest"
)

// noise is a picture that packs badly.
func noise(wide, high int) *image.YCbCr {
	out := image.NewYCbCr(image.Rect(0, 0, wide, high), image.YCbCrSubsampleRatio420)
	r := rand.NewChaCha8([32]byte{})
	for _, plane := range [][]byte{out.Cb, out.Cr} {
		_, _ = r.Read(plane)
	}
	for i := range out.Y {
		out.Y[i] = byte(i / 97)
	}
	return out
}

// The largest pictures that are taken, by their kinds.
func BenchmarkMemoryOfAPicture(b *testing.B) {
	var photo, flat bytes.Buffer
	if err := jpeg.Encode(&photo, noise(8600, 6400), &jpeg.Options{Quality: 20}); err != nil {
		b.Fatal(err)
	}
	if err := png.Encode(&flat, image.NewNRGBA(image.Rect(0, 0, 4600, 4000))); err != nil {
		b.Fatal(err)
	}
	for name, raw := range map[string][]byte{
		"jpeg of 55 million": photo.Bytes(), "png of 18 million": flat.Bytes(),
		"interlaced png of 9 million": interlacedPNG(3000, 3000),
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				benchtest.Peak(b, func() {
					if _, err := ReadPicture(bytes.NewReader(raw)); err != nil {
						b.Fatal(err)
					}
				})
			}
		})
	}
}

// interlacedPNG is an empty picture in RGBA, in the seven passes of an interlaced PNG.
func interlacedPNG(wide, high int) []byte {
	var packed bytes.Buffer
	z := zlib.NewWriter(&packed)
	for _, pass := range [][4]int{ // where each begins, and its steps
		{0, 0, 8, 8}, {4, 0, 8, 8}, {0, 4, 4, 8}, {2, 0, 4, 4}, {0, 2, 2, 4}, {1, 0, 2, 2}, {0, 1, 1, 2},
	} {
		across := (wide - pass[0] + pass[2] - 1) / pass[2]
		row := make([]byte, 1+4*across)
		for y := pass[1]; y < high; y += pass[3] {
			_, _ = z.Write(row)
		}
	}
	_ = z.Close()
	out := bytes.NewBufferString("\x89PNG\r\n\x1a\n")
	chunk := func(name string, data []byte) {
		_ = binary.Write(out, binary.BigEndian, uint32(len(data)))
		sum := crc32.NewIEEE()
		for _, part := range [][]byte{[]byte(name), data} {
			_, _ = out.Write(part)
			_, _ = sum.Write(part)
		}
		_ = binary.Write(out, binary.BigEndian, sum.Sum32())
	}
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(wide)), uint32(high))
	chunk("IHDR", append(head, 8, 6, 0, 0, 1))
	chunk("IDAT", packed.Bytes())
	chunk("IEND", nil)
	return out.Bytes()
}

// What a picture takes while it is decoded is known before.
func TestAnInterlacedPictureCountsTwice(t *testing.T) {
	if _, err := ReadPicture(bytes.NewReader(interlacedPNG(300, 200))); err != nil {
		t.Errorf("a small one: %v", err)
	}
	if err := checkSize(interlacedPNG(6300, 6300)); err == nil {
		t.Error("6,300 x 6,300 points, interlaced, took 364 MB")
	}
	for name, c := range map[string]struct {
		raw  []byte
		kind string
		of   color.Model
		want int64
	}{
		"png":              {[]byte("\x89PNG"), "png", color.NRGBAModel, 4},
		"photo":            {[]byte{0xff, 0xd8}, "jpeg", color.YCbCrModel, 3},
		"four colours":     {[]byte{0xff, 0xd8}, "jpeg", color.CMYKModel, 8},
		"in RGB":           {[]byte{0xff, 0xd8}, "jpeg", color.RGBAModel, 7},
		"progressive":      {[]byte{0xff, 0xd8, 0xff, markProgressive, 0, 2}, "jpeg", color.YCbCrModel, 15},
		"progressive CMYK": {[]byte{0xff, 0xd8, 0xff, markProgressive, 0, 2}, "jpeg", color.CMYKModel, 24},
	} {
		if got := decodedBytes(c.raw, c.kind, c.of); got != c.want {
			t.Errorf("%s: %d bytes a point, want %d", name, got, c.want)
		}
	}
}

// Pages of the largest size, each made to cost as much as it can.
func BenchmarkMemoryOfAnImport(b *testing.B) {
	for name, page := range hostilePages() {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				benchtest.Peak(b, func() { _, _ = Find("page.html", page) })
			}
		})
	}
}

// A photograph is made smaller by its planes to what it is by its colours.
func TestAPhotographIsReducedAsAnyPicture(t *testing.T) {
	for _, ratio := range []image.YCbCrSubsampleRatio{
		image.YCbCrSubsampleRatio444, image.YCbCrSubsampleRatio420, image.YCbCrSubsampleRatio422,
	} {
		photo := image.NewYCbCr(image.Rect(0, 0, 403, 301), ratio)
		for y := range 301 {
			for x := range 403 { // soft, as a photograph is: neighbours are much alike
				photo.Y[photo.YOffset(x, y)] = uint8(60 + x/4)
				photo.Cb[photo.COffset(x, y)], photo.Cr[photo.COffset(x, y)] = uint8(90+y/8), uint8(150+x/16)
			}
		}
		plain := image.NewRGBA(photo.Rect)
		draw.Draw(plain, plain.Rect, photo, image.Point{}, draw.Src)
		a, b := reduced(photo, 100), reduced(plain, 100)
		if a.Bounds() != b.Bounds() {
			t.Fatalf("%v: %v and %v", ratio, a.Bounds(), b.Bounds())
		}
		for y := range a.Bounds().Dy() {
			for x := range a.Bounds().Dx() {
				r, g, bl, _ := a.At(x, y).RGBA()
				r2, g2, bl2, _ := b.At(x, y).RGBA()
				for _, d := range []int{int(r) - int(r2), int(g) - int(g2), int(bl) - int(bl2)} {
					if d < -4*256 || d > 4*256 {
						t.Fatalf("%v at %d, %d: %v and %v", ratio, x, y, a.At(x, y), b.At(x, y))
					}
				}
			}
		}
	}
}
