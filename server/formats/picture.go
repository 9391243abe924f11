package formats

import (
	"bytes"
	"errors"
	"image"
	"io"

	"mabbin/core/message"

	"github.com/disintegration/imaging"
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
	img, err := imaging.Decode(bytes.NewReader(raw), imaging.AutoOrientation(true))
	if err != nil {
		return nil, noPicture(message.New("it can't be read as a picture: it ends too soon, or something in it is broken"))
	}
	whole := imaging.Fit(img, pictureSide, pictureSide, imaging.Lanczos)
	out := &Picture{Width: whole.Bounds().Dx(), Height: whole.Bounds().Dy()}
	if out.JPEG, err = encode(whole); err != nil {
		return nil, err
	}
	out.Small, err = encode(imaging.Fit(whole, smallSide, smallSide, imaging.Lanczos))
	return out, err
}

func encode(img image.Image) ([]byte, error) {
	var b bytes.Buffer
	err := imaging.Encode(&b, img, imaging.JPEG, imaging.JPEGQuality(quality))
	return b.Bytes(), err
}
