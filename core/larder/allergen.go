package larder

// Allergen is one that the tables know of ingredients.
type Allergen struct {
	Key  string
	Name Name // as it is said on a list
}

// Allergens are those that the tables know, by key.
var Allergens = []Allergen{
	{"egg", "egg"},
	{"gluten-oats", "oats (gluten)"},
	{"gluten-rye", "rye (gluten)"},
	{"gluten-wheat", "wheat (gluten)"},
	{"milk", "milk"},
	{"nut-almond", "almond (nut)"},
	{"nut-hazelnut", "hazelnut (nut)"},
	{"nut-pecan", "pecan (nut)"},
	{"nut-pistachio", "pistachio (nut)"},
	{"nut-walnut", "walnut (nut)"},
	{"sesame", "sesame"},
	{"soya", "soya"},
	{"sulphites", "sulphites"},
}

var allergenKeys, allergenNames = func() ([]string, map[string]Name) {
	keys, names := make([]string, len(Allergens)), map[string]Name{}
	for i, a := range Allergens {
		keys[i], names[a.Key] = a.Key, a.Name
	}
	return keys, names
}()

// AllergenName is what an allergen is called on a list.
func AllergenName(key string) Name {
	if n, ok := allergenNames[key]; ok {
		return n
	}
	return Name(key)
}
