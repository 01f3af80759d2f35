package call

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/lazy"
)

// A source may declare several functions of the name: helpers, overloads, methods of other
// classes. The one to be called is the one that a judge would call:
//
//  1. it takes as many arguments as the problem has, where the others do not;
//  2. nothing in its declaration contradicts the problem's types;
//  3. it is public;
//  4. it belongs to the class Solution, or to the one that is named after the file; else to no
//     class; else to a class that no other code in the file uses;
//  5. it lies in fewer classes;
//  6. it comes last.

// chosen returns the function to be called, and all that were declared. The error is a refusal.
func (f *fitting) chosen() (site, *outline, error) {
	names := Spellings(f.function.Name)
	o := outlined(f.source, names)
	if len(o.sites) == 0 {
		return site{}, o, f.absent()
	}
	rank := make(map[int][]int, len(o.sites))
	for _, s := range o.sites {
		rank[s.at] = f.rank(s, o)
	}
	best := slices.MinFunc(o.sites, func(a, b site) int { return slices.Compare(rank[a.at], rank[b.at]) })
	return best, o, nil
}

// absent refuses a source that has no function of the name.
func (f *fitting) absent() error {
	return refuse("there is no function %s in %s%s", strings.Join(Spellings(f.function.Name), " or "), f.file, f.nearly())
}

// functionNames finds what is declared as a function, in any language.
var functionNames = lazy.New(`\b(?:def|fun|func|fn|function)\s+(?:\([^)]*\)\s*)?(?:self\.)?(\w+)|\b(\w+)\s*\([^;{}()]*\)\s*(?:const\s*|throws\s+[\w, .]+)?\{|\b(?:const|let|var)\s+(\w+)\s*=`)

// nearly suggests a function that is nearly named as the one that is lacking; "" where none is.
func (f *fitting) nearly() string {
	plainly := func(name string) string { return strings.ToLower(strings.ReplaceAll(name, "_", "")) }
	named := map[string]string{}
	for _, m := range functionNames().FindAllStringSubmatch(mask(string(f.source)), -1) {
		if name := strings.Join(m[1:], ""); !slices.Contains([]string{"if", "for", "while", "switch", "catch", "main", "constructor", "initialize"}, name) {
			named[plainly(name)] = name
		}
	}
	if near := settings.Near(plainly(f.function.Name), slices.Collect(maps.Keys(named))); near != "" {
		return fmt.Sprintf("; is it %s? 'name' in [call] is what it is called", named[near])
	}
	return ""
}

// rank is smaller for what is likelier to be called.
func (f *fitting) rank(s site, o *outline) []int {
	wrong := 0
	params := withoutReceiver(split(s.params))
	if least, most := arity(params); len(f.function.Takes) < least || len(f.function.Takes) > most {
		wrong = 1
	}
	contradictions := 0
	for i, field := range f.function.Takes {
		if i < len(params) && contradicts(params[i], field.Type) {
			contradictions++
		}
	}
	depth := 0
	for i, kind := range s.kinds {
		if s.scopes[i] != "" && kind != "namespace" {
			depth++
		}
	}
	return []int{wrong, contradictions, b2i(s.private), f.belonging(s, o), depth, -s.at}
}

// belonging ranks what a function belongs to.
func (f *fitting) belonging(s site, o *outline) int {
	if len(s.classes) == 0 {
		return 1
	}
	class := s.classes[len(s.classes)-1]
	switch {
	case class.kind == "trait":
		return 4
	case class.name == "Solution" || class.name == stem(f.file):
		return 0
	case o.uses(class):
		return 3
	}
	return 2
}

// uses reports that other code than a class itself names it.
func (o *outline) uses(class *scope) bool {
	for _, m := range regexp.MustCompile(`\b`+regexp.QuoteMeta(class.name)+`\b\s*(::)?`).FindAllStringSubmatchIndex(o.text, -1) {
		inside := m[0] > class.from-len(class.header) && m[0] < class.to
		if !inside && m[2] < 0 {
			return true
		}
	}
	return false
}

// otherwiseDeclared refuses a function that is declared with another number of parameters than the problem has.
func otherwiseDeclared(name string, wanted int, of, besides string, declared int) error {
	return refuse("%s takes %s in this problem%s, and is declared with %s", name, verdict.Count(wanted, of), besides, verdict.Count(declared, "parameter"))
}

// rustIterator is a result of Rust's that is computed only when it is read.
var rustIterator = lazy.New(`->\s*(?:impl|Box\s*<\s*dyn)\b[^{]*\b(?:Into)?Iterator\b`)

var receiverParameter = lazy.New(`^&?\s*(?:'\w+\s+)?(?:mut\s+)?self\b`)

// withoutReceiver leaves out the object of a method, where that is declared first.
func withoutReceiver(params []string) []string {
	if len(params) > 0 && (receiverParameter().MatchString(params[0]) || strings.HasPrefix(params[0], "this ")) {
		return params[1:]
	}
	if len(params) == 1 && params[0] == "void" {
		return nil
	}
	return params
}

// arity is how many arguments parameters take at the least and at the most.
func arity(params []string) (least, most int) {
	for _, p := range params {
		if strings.Contains(p, "...") || strings.HasPrefix(p, "params ") || strings.HasPrefix(p, "vararg ") {
			return least, 1 << 20
		}
		most++
		if defaultAt(p) < 0 {
			least++
		}
	}
	return least, most
}

// defaultAt is where the default of a parameter begins, or -1.
func defaultAt(param string) int {
	depth := 0
	for i, c := range param {
		switch c {
		case '(', '[', '{', '<':
			depth++
		case ')', ']', '}', '>':
			depth--
		case '=':
			if depth <= 0 {
				return i
			}
		}
	}
	return -1
}

var (
	arrayWord  = lazy.New(`[\[*]|\b(?:vector|span|array|deque|list|multiset|set|unordered_set|initializer_list|valarray|I?List|IEnumerable|ICollection|IReadOnlyList|Collection|Iterable|Sequence|Set|Queue|Deque|ArrayList|LinkedList|\w*Array|Vec|VecDeque|LinkedList|BTreeSet|HashSet)\b`)
	textWord   = lazy.New(`\b(?:string|String|StringBuilder|CharSequence|str|string_view)\b`)
	numberWord = lazy.New(`\b(?:int|long|short|Int|Long|Short|Integer|BigInteger|double|float|Double|Float|i32|i64|u32|u64|usize|i128|f64|f32|u8|unsigned|size_t|u?int\d+(?:_t)?|ll)\b`)
	boolWord   = lazy.New(`\b(?:bool|boolean|Boolean|_Bool)\b`)
)

// contradicts reports that a parameter is declared as something that an argument of a type can
// surely not be. Names that are not known contradict nothing.
func contradicts(param string, t value.Type) bool {
	element, depth := t.Element()
	array, text := arrayWord().MatchString(param), textWord().MatchString(param)
	number, truth := numberWord().MatchString(param), boolWord().MatchString(param)
	switch {
	case depth > 0 && !array:
		return text || number || truth
	case depth == 0 && array && !strings.Contains(param, "*"):
		return element.Kind != value.Text || number // a text may be an array of characters
	}
	switch element.Kind {
	case value.Int, value.Long, value.Real:
		return text || truth && !number
	case value.Bool:
		return text
	case value.Text:
		return (number || truth) && !text
	}
	return false
}

// overloads are how many functions of its name and place a site is one of.
func (o *outline) overloads(s site) (n int) {
	for _, other := range o.sites {
		if slices.Equal(other.scopes, s.scopes) && other.name == s.name {
			n++
		}
	}
	return n
}

// typeNames lists the classes of a source by the names that their machine has for them, the
// one that a site belongs to first, and the last before the first.
func (o *outline) typeNames(s site, prefix string) []string {
	var names []string
	if n := len(s.classes); n > 0 {
		names = append(names, prefix+s.classes[n-1].path)
	}
	for _, t := range slices.Backward(o.types) {
		if name := prefix + t.path; !slices.Contains(names, name) {
			names = append(names, name)
		}
	}
	return names
}
