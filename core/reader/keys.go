package reader

import (
	"slices"
	"strings"

	"mabbin/core/parse"
)

// fruitsNear are the fruits that a sentence, or else the one before it, names.
func (k *reading) fruitsNear() []string { return k.keysNear(true) }

// withNear is what else they name.
func (k *reading) withNear() []string { return k.keysNear(false) }

func (k *reading) keysNear(fruit bool) []string {
	of := k.keysIn(k.s, 0, len(k.s.text), fruit)
	if !k.namesFruit(k.s) && k.i > 0 {
		for i := k.i - 1; i >= max(0, k.i-2); i-- {
			if k.namesFruit(k.method[i]) {
				return append(k.keysIn(k.method[i], 0, len(k.method[i].text), fruit), of...)
			}
		}
	}
	return of
}

func (k *reading) namesFruit(s sentence) bool { return len(k.keysIn(s, 0, len(s.text), true)) > 0 }

// isFilling is whether a thing is fruit or a vegetable of the filling.
func (k *reading) isFilling(key string) bool {
	if k.isFruit(key) {
		return true
	}
	t, _ := k.p.Get(key)
	return t.Role == "aromatic" || key == "onion" || key == "leek" || key == "sweet_pepper" || key == "garlic"
}

// keysIn are the keys that a part of a sentence names: the fruit, or all that is not.
func (k *reading) keysIn(s sentence, from, to int, fruit bool) []string {
	var out []string
	for _, m := range s.mentions {
		if m.Start < from || m.End > to {
			continue
		}
		key := k.keyHere(s, m)
		if key != "" && k.isFilling(key) == fruit && !slices.Contains(out, key) {
			out = append(out, key)
		}
	}
	return out
}

// keyHere is the key that a mention means in its sentence: of two sugars the one whose heading the sentence's other
// things are under.
func (r *recipe) keyHere(s sentence, m parse.Mention) string {
	best, most := "", 0
	for _, x := range r.items {
		t, ok := r.p.Get(x.Key)
		if !ok || x.Key != m.Thing.Key && (t.Role != m.Thing.Role || !byRole[t.Role]) {
			continue
		}
		n := 1
		for _, other := range s.mentions {
			for _, y := range r.items {
				if y != x && y.Key == other.Thing.Key && y.Key != x.Key && r.headings[y] == r.headings[x] {
					n++
				}
			}
		}
		if x.Key == m.Thing.Key {
			n++
		}
		if n > most {
			best, most = x.Key, n
		}
	}
	if best != "" {
		return best
	}
	return r.keyOf(m)
}

// keyOf is the key of the recipe's own item that a mention means: "sugar" is the caster sugar of the list.
func (r *recipe) keyOf(m parse.Mention) string {
	for _, x := range r.items {
		if x.Key == m.Thing.Key {
			return x.Key
		}
	}
	for _, x := range r.items {
		t, ok := r.p.Get(x.Key)
		if ok && t.Role == m.Thing.Role && byRole[t.Role] {
			return x.Key
		}
		if ok && t.Fruit && m.Thing.Fruit && strings.Split(x.Key, "_")[0] == strings.Split(m.Thing.Key, "_")[0] {
			return x.Key
		}
	}
	for _, x := range r.items { // the cream of the list, whichever it is
		if t, ok := r.p.Get(x.Key); ok && t.Role == m.Thing.Role && lastWord(x.Key) == lastWord(m.Thing.Key) {
			return x.Key
		}
	}
	name, _, _ := strings.Cut(strings.ToLower(m.Thing.Name), ",")
	for _, x := range r.items { // "the cider" of "1/2 cup apple cider"
		if t, ok := r.p.Get(
			x.Key,
		); ok && t.Role == m.Thing.Role && t.Role != "spice" &&
			strings.Contains(strings.ToLower(x.Name), name) {
			return x.Key
		}
	}
	return m.Thing.Key
}

func lastWord(key string) string { return key[strings.LastIndex(key, "_")+1:] }

var byRole = map[string]bool{"sugar": true, "flour": true, "oat": true, "crumb": true, "pastry": true}
