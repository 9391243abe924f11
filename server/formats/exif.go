package formats

import (
	"bytes"
	"encoding/binary"
)

// The markers of a JPEG, and the tag of its EXIF data, that are looked at.
const (
	markerStart    = 0xd8
	markerScan     = 0xda
	markerApp1     = 0xe1
	tagOrientation = 0x0112
	upright        = 1 // an orientation: as it lies in the file
	turned90From   = 5 // from this orientation on, width and height are the other way about
	mostOrientated = 8
)

// orientation is how a camera was held, 1 to 8 as EXIF counts it; 1 for a file that does not say so.
func orientation(raw []byte) int {
	if len(raw) < 4 || raw[0] != 0xff || raw[1] != markerStart {
		return upright
	}
	for rest := raw[2:]; len(rest) >= 4 && rest[0] == 0xff && rest[1] != markerScan; {
		long := int(binary.BigEndian.Uint16(rest[2:]))
		if long < 2 || len(rest) < 2+long {
			return upright
		}
		segment := rest[4 : 2+long]
		if exif, ok := bytes.CutPrefix(segment, []byte("Exif\x00\x00")); ok && rest[1] == markerApp1 {
			return orientationIn(exif)
		}
		rest = rest[2+long:]
	}
	return upright
}

// orientationIn reads the first directory of EXIF data.
func orientationIn(tiff []byte) int {
	var order binary.ByteOrder = binary.BigEndian
	switch {
	case bytes.HasPrefix(tiff, []byte("II")):
		order = binary.LittleEndian
	case !bytes.HasPrefix(tiff, []byte("MM")):
		return upright
	}
	if len(tiff) < 8 {
		return upright
	}
	at := int64(order.Uint32(tiff[4:]))
	if at+2 > int64(len(tiff)) {
		return upright
	}
	const entry = 12
	rows := tiff[at+2:]
	for range order.Uint16(tiff[at:]) {
		if len(rows) < entry {
			return upright
		}
		if order.Uint16(rows) == tagOrientation {
			if o := int(order.Uint16(rows[8:])); o >= upright && o <= mostOrientated {
				return o
			}
			return upright
		}
		rows = rows[entry:]
	}
	return upright
}
