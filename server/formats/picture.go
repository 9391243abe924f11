package formats

import (
	"bytes"
	"errors"
	"image"
	"image/color"
	"image/jpeg"
	_ "image/png" // is read, and never written
	"io"
	"math"

	"mabbin/core/message"

	"golang.org/x/image/draw"
)

// MaxPicture is the largest picture that is read, in bytes.
const MaxPicture = 12 << 20

// How pictures are kept: their longer side, and that of the small ones, px; and what is refused unread.
const (
	pictureSide = 1600
	smallSide   = 240
	quality     = 85
	// mostSide is the longest side of a picture that is read, px, and mostDecoded what it may take while it is decoded: a
	// photograph of 50 million points. A picture that is no photograph takes longer, and has no need of so many.
	mostSide       = 20_000
	mostDecoded    = 160 << 20
	mostDecodedPNG = 72 << 20
)

// ErrPicture is a picture that can't be read. What it says is meant for whoever chose it.
var ErrPicture = errors.New("can't be read as a picture")

func noPicture(text message.Message) error { return message.Error{Message: text, Kind: ErrPicture} }

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
	if err := checkSize(raw); err != nil {
		return nil, err
	}
	decoding <- struct{}{}
	defer func() { <-decoding }()
	img, _, err := image.Decode(bytes.NewReader(raw))
	if err != nil {
		return nil, noPicture(message.New("it can't be read as a picture: the file is incomplete or damaged"))
	}
	whole := fitted(reduced(img, pictureSide), pictureSide, orientation(raw))
	out := &Picture{Width: whole.Bounds().Dx(), Height: whole.Bounds().Dy()}
	if out.JPEG, err = encode(whole); err != nil {
		return nil, err
	}
	out.Small, err = encode(fitted(whole, smallSide, upright))
	return out, err
}

// decoding keeps it to one picture at a time: two large ones at once would take twice the memory.
var decoding = make(chan struct{}, 1)

// checkSize refuses, before it is decoded, a picture that would take too much.
func checkSize(raw []byte) error {
	head, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil || kind != "jpeg" && kind != "png" {
		return noPicture(message.New("it can't be read as a picture: use a JPEG or PNG file"))
	}
	if head.Width > mostSide || head.Height > mostSide {
		return noPicture(message.New(
			"it can't be read as a picture: it has {wide} × {high} pixels; at most {most} on each side is possible",
			message.Count(head.Width), message.Count(head.Height), message.Count(mostSide),
		))
	}
	most := int64(mostDecoded)
	if kind == "png" {
		most = mostDecodedPNG
	}
	if each := decodedBytes(raw, kind, head.ColorModel); int64(head.Width)*int64(head.Height)*each > most {
		return noPicture(message.New(
			"it can't be read as a picture: it has {wide} × {high} pixels; at most {most} million is possible for this kind",
			message.Count(head.Width), message.Count(head.Height), message.Number(float64(most/each)/1e6, 0),
		))
	}
	return nil
}

// decodedBytes is what a point of a picture takes at most while it is decoded, in bytes, with what the decoder holds in
// addition to the picture: an interlaced PNG is put together of pictures of its passes, and a JPEG of four colours, or
// in RGB, is made anew from its planes.
func decodedBytes(raw []byte, kind string, of color.Model) int64 {
	if kind == "png" {
		each := int64(4)
		if of == color.NRGBA64Model || of == color.RGBA64Model || of == color.Gray16Model {
			each = 8
		}
		if interlaced(raw) {
			each *= 2
		}
		return each
	}
	planes, anew := int64(3), int64(0) // of a point; what is made of them
	switch of {
	case color.CMYKModel:
		planes, anew = 4, 4
	case color.RGBAModel:
		anew = 4
	}
	if progressive(raw) { // its coefficients are kept, four bytes each
		return planes*5 + anew
	}
	return planes + anew
}

// interlacedAt is where the head of a PNG says whether it is interlaced.
const interlacedAt = 28

func interlaced(png []byte) bool { return len(png) > interlacedAt && png[interlacedAt] != 0 }

// The marks of a JPEG that are looked at.
const (
	markEnd         = 0xd9
	markScan        = 0xda
	markTables      = 0xdb
	markHuffman     = 0xc4
	markBaseline    = 0xc0
	markProgressive = 0xc2
)

// segments are the marks of a JPEG up to its first scan, in their order; scan is where its data begin.
func segments(raw []byte) (marks []byte, scan int) {
	for i := 2; i+4 <= len(raw) && raw[i] == 0xff; {
		mark := raw[i+1]
		marks = append(marks, mark)
		length := int(raw[i+2])<<8 | int(raw[i+3])
		i += 2 + length
		if mark == markScan {
			return marks, i
		}
	}
	return marks, len(raw)
}

func progressive(raw []byte) bool {
	marks, _ := segments(raw)
	return bytes.IndexByte(marks, markProgressive) >= 0
}

// ownPicture is a picture that was written here, whole and small: it holds nothing but what is seen, and is no larger
// than it would be made.
func ownPicture(whole, small []byte) (*Picture, bool) {
	w, ok := ownJPEG(whole, pictureSide)
	if _, also := ownJPEG(small, smallSide); !ok || !also {
		return nil, false
	}
	return &Picture{Width: w.X, Height: w.Y, JPEG: whole, Small: small}, true
}

// ownJPEG says whether a JPEG has only the parts that are written here, and nothing after its end.
func ownJPEG(raw []byte, side int) (size image.Point, ok bool) {
	head, kind, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil || kind != "jpeg" || head.Width > side || head.Height > side {
		return size, false
	}
	marks, scan := segments(raw)
	for _, m := range marks {
		if m != markTables && m != markHuffman && m != markBaseline && m != markScan {
			return size, false
		}
	}
	for i := scan; i+1 < len(raw); i++ { // within a scan 0xff is followed by zero
		if raw[i] == 0xff && raw[i+1] != 0 && (raw[i+1] != markEnd || i+2 != len(raw)) {
			return size, false
		}
	}
	_, err = jpeg.Decode(bytes.NewReader(raw))
	return image.Pt(head.Width, head.Height), err == nil
}

// reduced is a picture of at least twice a side made smaller by a whole number, each point the mean of those that it
// stands for: what is left for the finer and slower way is less than twice that side.
func reduced(img image.Image, side int) image.Image {
	b := img.Bounds()
	n := max(b.Dx(), b.Dy()) / side
	if n < 2 || b.Dx() < n || b.Dy() < n {
		return img
	}
	if photo, is := img.(*image.YCbCr); is {
		return reducedPhoto(photo, n)
	}
	out := image.NewRGBA(image.Rect(0, 0, b.Dx()/n, b.Dy()/n))
	band := image.NewRGBA(image.Rect(0, 0, b.Dx(), n)) // of the rows that become one
	for y := range out.Rect.Dy() {
		clear(band.Pix)
		draw.Draw(band, band.Rect, img, image.Pt(b.Min.X, b.Min.Y+y*n), draw.Src)
		to := out.Pix[y*out.Stride:]
		for x := range out.Rect.Dx() {
			var sum [4]int
			for row := range n {
				for i, v := range band.Pix[row*band.Stride+4*x*n : row*band.Stride+4*(x+1)*n] {
					sum[i%4] += int(v)
				}
			}
			for i := range sum {
				to[4*x+i] = uint8((sum[i] + n*n/2) / (n * n)) //nolint:gosec // the mean of bytes
			}
		}
	}
	return out
}

// reducedPhoto is reduced for a photograph: its planes are made smaller as they are, without a picture of its colours
// between them, which takes a third of the time.
func reducedPhoto(img *image.YCbCr, n int) image.Image {
	b := img.Bounds()
	out := image.NewYCbCr(image.Rect(0, 0, b.Dx()/n, b.Dy()/n), image.YCbCrSubsampleRatio444)
	// of the chroma, which has fewer points, one in so many columns and rows of a block is read
	across, down := 1, 1
	switch img.SubsampleRatio {
	case image.YCbCrSubsampleRatio420:
		across, down = 2, 2
	case image.YCbCrSubsampleRatio422:
		across = 2
	case image.YCbCrSubsampleRatio440:
		down = 2
	case image.YCbCrSubsampleRatio411:
		across = 4
	case image.YCbCrSubsampleRatio410:
		across, down = 4, 2
	}
	for y := range out.Rect.Dy() {
		for x := range out.Rect.Dx() {
			left, top := b.Min.X+x*n, b.Min.Y+y*n
			sum := 0
			for row := range n {
				at := img.YOffset(left, top+row)
				for _, v := range img.Y[at : at+n] {
					sum += int(v)
				}
			}
			blue, red, points := 0, 0, 0
			for row := 0; row < n; row += down {
				for column := 0; column < n; column += across {
					at := img.COffset(left+column, top+row)
					blue, red, points = blue+int(img.Cb[at]), red+int(img.Cr[at]), points+1
				}
			}
			at := out.YOffset(x, y)
			out.Y[at] = uint8((sum + n*n/2) / (n * n))     //nolint:gosec // the mean of bytes
			out.Cb[at] = uint8((blue + points/2) / points) //nolint:gosec // as above
			out.Cr[at] = uint8((red + points/2) / points)  //nolint:gosec // as above
		}
	}
	return out
}

// fitted is a picture turned upright, on white where it can be seen through, and no longer than a side: never enlarged.
func fitted(img image.Image, side, held int) *image.RGBA {
	b := img.Bounds()
	k := min(1, float64(side)/float64(max(b.Dx(), b.Dy())))
	size := func(x int) int { return max(1, int(math.Round(k*float64(x)))) }
	out := image.NewRGBA(image.Rect(0, 0, size(b.Dx()), size(b.Dy())))
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src)
	draw.CatmullRom.Scale(out, out.Rect, img, b, draw.Over, nil)
	return turned(out, held)
}

// turned is a picture turned upright from one of the eight ways in which a camera may be held.
func turned(img *image.RGBA, held int) *image.RGBA {
	if held == upright {
		return img
	}
	w, h := img.Rect.Dx(), img.Rect.Dy()
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	if held >= turned90From {
		out = image.NewRGBA(image.Rect(0, 0, h, w))
	}
	for y := range h {
		for x := range w {
			to := [mostOrientated + 1]image.Point{
				1: {X: x, Y: y},
				2: {X: w - 1 - x, Y: y},
				3: {X: w - 1 - x, Y: h - 1 - y},
				4: {X: x, Y: h - 1 - y},
				5: {X: y, Y: x},
				6: {X: h - 1 - y, Y: x},
				7: {X: h - 1 - y, Y: w - 1 - x},
				8: {X: y, Y: w - 1 - x},
			}[held]
			out.SetRGBA(to.X, to.Y, img.RGBAAt(x, y))
		}
	}
	return out
}

func encode(img image.Image) ([]byte, error) {
	var b bytes.Buffer
	err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality})
	return b.Bytes(), err
}
