package larder

import (
	"strings"
	"sync"

	"mabbin/core/message"
	"mabbin/core/parse"
)

// synonym is one name that bakers give a fruit or an ingredient.
type synonym struct{ Name, Key, Assumption string }

// Synonyms are the names that bakers use, with the key of what they mean and what is taken for granted with the name.
var Synonyms = read("synonyms", func(s synonym) string { return s.Name }, func(r *row) synonym {
	return synonym{r.text("name"), r.text("key"), r.text("taken")}
})

// Vocabulary is every fruit and ingredient by the names that bakers give them, for reading what they write. Make it
// once: it reads a few hundred names.
func Vocabulary(own *Own) *parse.Vocabulary {
	p := parse.NewVocabulary()
	for _, i := range Ingredients.All() {
		p.Add(thingOf(i))
		p.Call(parse.Unbracketed(i.Name), i.Key, message.Message{})
	}
	for _, f := range Fruits.All() {
		p.Add(fruitThing(f))
		p.Call(parse.Unbracketed(f.Name), f.Key, message.Message{})
	}
	for _, s := range Synonyms.All() {
		p.Call(s.Name, s.Key, message.New(s.Assumption))
	}
	own.Names(p)
	return p
}

func thingOf(i Ingredient) parse.Thing {
	t := parse.Thing{Key: i.Key, Name: i.Name, Role: i.Role, Density: i.Density()}
	if i.PieceG > 0 {
		t.PieceG = map[string]float64{"": i.PieceG}
	}
	return t
}

func fruitThing(f Fruit) parse.Thing {
	return parse.Thing{
		Key: f.Key, Name: f.Name, Role: FruitRole, Density: f.Density(), Fruit: true,
		PieceG: map[string]float64{"": f.MediumG, "small": f.SmallG, "medium": f.MediumG, "large": f.LargeG},
	}
}

// Plain is a name as it stands in a sentence: without its other name in brackets, in lower case.
func Plain(name string) string {
	if plain, ok := plainNames()[name]; ok {
		return plain
	}
	return plainly(name)
}

// Short is a name as it stands in a list: plain, without what its comma sets apart.
func Short(name string) string {
	short, _, _ := strings.Cut(Plain(name), ",")
	return short
}

// Called is a name of the tables in a sentence: its short one.
func Called[T ~string](name T) message.Arg { return message.Name(Short(string(name))) }

func plainly(name string) string { return strings.ToLower(parse.Unbracketed(name)) }

// plainNames are the names of the tables as they stand in sentences: they are asked for at every turn.
var plainNames = sync.OnceValue(func() map[string]string {
	out := map[string]string{}
	for _, i := range Ingredients.All() {
		out[i.Name] = plainly(i.Name)
	}
	for _, f := range Fruits.All() {
		out[f.Name] = plainly(f.Name)
	}
	for _, t := range Toppings.All() {
		out[t.Name] = plainly(t.Name)
	}
	for _, x := range Thickeners.All() {
		out[x.Name] = plainly(x.Name)
	}
	for _, m := range Materials.All() {
		out[m.Name] = plainly(m.Name)
	}
	for _, b := range Bases.All() {
		out[b.Name] = plainly(b.Name)
	}
	return out
})

// FruitRole is the role of a fruit where it stands among ingredients.
const FruitRole = "fruit"
