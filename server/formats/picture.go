package formats

import (
	"bytes"
	"errors"
	"image"
	"image/jpeg"
	_ "image/png" // is read, and never written
	"io"
	"math"

	"mabbin/core/message"

	"golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
)

// MaxPicture is the largest picture that is read, in bytes.
const MaxPicture = 12 << 20

// How pictures are kept: their longer side, and that of the small ones, px; and what is refused unread.
const (
	pictureSide = 1600
	smallSide   = 240
	mostPixels  = 60e6
	quality     = 85
)

// ErrPicture is a picture that can't be read. What it says is meant for whoever chose it.
var ErrPicture = errors.New("can't be read as a picture")

func noPicture(says message.Message) error { return message.Error{Says: says, Kind: ErrPicture} }

// Picture is a picture made ready to be kept.
type Picture struct {
	Width, Height int
	JPEG, Small   []byte
}

// ReadPicture reads a JPEG or a PNG, turns it as the camera was held, and writes it anew: no larger than a screen,
// and with nothing in it but what is seen. Where and when it was taken, and by what, stays behind.
func ReadPicture(r io.Reader) (*Picture, error) {
	raw, err := io.ReadAll(io.LimitReader(r, MaxPicture+1))
	if err != nil {
		return nil, err
	}
	if len(raw) > MaxPicture {
		return nil, noPicture(
			message.New("it can't be read as a picture: it is larger than {most} MB", message.Count(MaxPicture>>20)),
		)
	}
	head, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil || kind != "jpeg" && kind != "png" {
		return nil, noPicture(message.New("it can't be read as a picture: give a JPEG or a PNG"))
	}
	if float64(head.Width)*float64(head.Height) > mostPixels {
		return nil, noPicture(
			message.New(
				"it can't be read as a picture: it has {wide} × {high} points, and at most {most} million can be taken",
				message.Count(head.Width),
				message.Count(head.Height),
				message.Number(mostPixels/1e6, 0),
			),
		)
	}
	img, _, err := image.Decode(bytes.NewReader(raw))
	if err != nil {
		return nil, noPicture(message.New("it can't be read as a picture: it ends too soon, or something in it is broken"))
	}
	whole := fitted(img, pictureSide, orientation(raw))
	out := &Picture{Width: whole.Bounds().Dx(), Height: whole.Bounds().Dy()}
	if out.JPEG, err = encode(whole); err != nil {
		return nil, err
	}
	out.Small, err = encode(fitted(whole, smallSide, upright))
	return out, err
}

// fitted is a picture turned upright, on white where it can be seen through, and no longer than a side: never enlarged.
func fitted(img image.Image, side, held int) *image.RGBA {
	b := img.Bounds()
	w, h := float64(b.Dx()), float64(b.Dy())
	k := min(1, float64(side)/max(w, h))
	wide, high := w, h
	if held >= turned90From {
		wide, high = h, w
	}
	size := func(x float64) int { return max(1, int(math.Round(k*x))) }
	out := image.NewRGBA(image.Rect(0, 0, size(wide), size(high)))
	draw.Draw(out, out.Bounds(), image.White, image.Point{}, draw.Src)
	// from the file's points to those of the picture, each scaled by k
	turn := [mostOrientated + 1]f64.Aff3{
		1: {k, 0, 0, 0, k, 0},
		2: {-k, 0, k * w, 0, k, 0},
		3: {-k, 0, k * w, 0, -k, k * h},
		4: {k, 0, 0, 0, -k, k * h},
		5: {0, k, 0, k, 0, 0},
		6: {0, -k, k * h, k, 0, 0},
		7: {0, -k, k * h, -k, 0, k * w},
		8: {0, k, 0, -k, 0, k * w},
	}[held]
	x0, y0 := float64(b.Min.X), float64(b.Min.Y)
	turn[2] -= turn[0]*x0 + turn[1]*y0
	turn[5] -= turn[3]*x0 + turn[4]*y0
	draw.CatmullRom.Transform(out, turn, img, b, draw.Over, nil)
	return out
}

func encode(img image.Image) ([]byte, error) {
	var b bytes.Buffer
	err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality})
	return b.Bytes(), err
}
