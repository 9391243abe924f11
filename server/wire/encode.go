package wire

import (
	"sync"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/server/render"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	jsonv1 "github.com/go-json-experiment/json/v1"
)

// Encode is an answer as JSON, every message in it a finished sentence as somebody reads.
func Encode(v any, r render.Reading) ([]byte, error) {
	return json.Marshal(v, encoding(r))
}

// encodings are the options by their readings: what a type's encoder is, is worked out once for each.
var encodings sync.Map

func encoding(r render.Reading) json.Options {
	if known, ok := encodings.Load(r); ok {
		return known.(json.Options) //nolint:forcetypeassert // nothing else is stored
	}
	texts := json.JoinMarshalers(
		json.MarshalToFunc(
			func(to *jsontext.Encoder, m message.Message) error { return to.WriteToken(jsontext.String(r.Text(m))) },
		),
		json.MarshalToFunc(func(to *jsontext.Encoder, n larder.Name) error {
			return to.WriteToken(jsontext.String(r.Name(string(n))))
		}),
	)
	options := json.JoinOptions(jsonv1.DefaultOptionsV1(), json.WithMarshalers(texts))
	known, _ := encodings.LoadOrStore(r, options)
	return known.(json.Options) //nolint:forcetypeassert // as above
}
