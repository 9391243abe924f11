package formats

import (
	"bytes"
	"image"
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
	if err := png.Encode(&flat, image.NewNRGBA(image.Rect(0, 0, 8000, 5200))); err != nil {
		b.Fatal(err)
	}
	for name, raw := range map[string][]byte{"jpeg of 55 million": photo.Bytes(), "png of 42 million": flat.Bytes()} {
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

// Pages of the largest size, each made to cost as much as it can.
func BenchmarkMemoryOfAnImport(b *testing.B) {
	for name, page := range hostilePages() {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				benchtest.Peak(b, func() { _, _ = Read("page.html", page) })
			}
		})
	}
}
