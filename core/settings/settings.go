// Package settings reads tables that a person wrote in TOML, key by key, so
// that each mistake is told with its line and with what to write instead. What
// keys there are is for its callers to say.
package settings

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/pelletier/go-toml/v2"
	"github.com/pelletier/go-toml/v2/unstable"
)

// A Reader takes values out of one text. A value stands at a path of keys, as
// in "compare.mode" or "solution[0].file".
type Reader struct {
	// Wrong takes a mistake: its line, 0 for the whole text, and what is
	// wrong and what to do, in lower case.
	Wrong func(line int, format string, args ...any)

	lines map[string]int
}

// Read decodes a text. A text that is no TOML is told to wrong, and its tree is
// nil.
func Read(text []byte, wrong func(line int, format string, args ...any)) (r *Reader, tree map[string]any) {
	r = &Reader{Wrong: wrong}
	if err := toml.Unmarshal(text, &tree); err != nil {
		line := 0
		if at, ok := err.(*toml.DecodeError); ok {
			line, _ = at.Position()
		}
		wrong(line, "%s", strings.TrimPrefix(err.Error(), "toml: "))
		return r, nil
	}
	r.lines = keyLines(text)
	return r, tree
}

// Line returns the line of a path, 0 if the text does not have it.
func (r *Reader) Line(at string) int { return r.lines[at] }

// Has reports whether the text has a path.
func (r *Reader) Has(at string) bool { return r.lines[at] > 0 }

// WrongAt tells a mistake at a path.
func (r *Reader) WrongAt(at, format string, args ...any) {
	r.Wrong(r.lines[at], format, args...)
}

// Fields are the keys that a table may have. Each takes the path and the value.
type Fields map[string]func(at string, value any)

// Table hands each value of a table to the field of its key, and tells of keys
// that there are not.
func (r *Reader) Table(at string, value any, known Fields) {
	table, ok := value.(map[string]any)
	if !ok {
		example := "[" + at + "]"
		if list, _, ok := strings.Cut(at, "["); ok {
			example = "[[" + list + "]]"
		}
		r.WrongAt(at, "%s must be a table, such as %s", at, example)
		return
	}
	for key, value := range table {
		path := join(at, key)
		if take := known[key]; take != nil {
			take(path, value)
			continue
		}
		names := make([]string, 0, len(known))
		for name := range known {
			names = append(names, name)
		}
		r.WrongAt(path, "unknown key %q; %s", path, Nearest(key, names))
	}
}

// Text returns a field that takes text.
func (r *Reader) Text(into *string) func(string, any) {
	return func(at string, value any) {
		s, ok := value.(string)
		if !ok {
			r.WrongAt(at, "%s must be text in double quotes", at)
			return
		}
		*into = s
	}
}

// Texts returns a field that takes a list of texts.
func (r *Reader) Texts(into *[]string) func(string, any) {
	return func(at string, value any) {
		list, ok := value.([]any)
		for _, item := range list {
			s, isText := item.(string)
			ok = ok && isText
			*into = append(*into, s)
		}
		if !ok {
			r.WrongAt(at, "%s must be a list of texts, such as [\"one\", \"two\"]", at)
		}
	}
}

// OneOf returns a field that takes one of the words.
func (r *Reader) OneOf(into *string, words []string) func(string, any) {
	return func(at string, value any) {
		s, ok := value.(string)
		if !ok || !slices.Contains(words, s) {
			r.WrongAt(at, "%s is %v; %s", at, quoted(value), Nearest(fmt.Sprint(value), words))
			return
		}
		*into = s
	}
}

func quoted(value any) string {
	if s, ok := value.(string); ok {
		return strconv.Quote(s)
	}
	return fmt.Sprint(value)
}

// Count returns a field that takes a whole number from 1 to a million.
func (r *Reader) Count(into *int) func(string, any) {
	return func(at string, value any) {
		n, ok := value.(int64)
		if !ok || n < 1 || n > 1e6 {
			r.WrongAt(at, "%s is %v; it must be a whole number from 1 to 1000000", at, quoted(value))
			return
		}
		*into = int(n)
	}
}

// Tolerance returns a field that takes a number from 0.
func (r *Reader) Tolerance(into *float64) func(string, any) {
	return func(at string, value any) {
		switch n := value.(type) {
		case float64:
			*into = n
		case int64:
			*into = float64(n)
		default:
			r.WrongAt(at, "%s must be a number, such as 1e-6", at)
		}
		if !(*into >= 0 && *into < 1e300) {
			r.WrongAt(at, "%s is %v; it must be a number from 0, such as 1e-6", at, value)
		}
	}
}

// Amount returns a field that takes a number from 0 to a million, such as points.
func (r *Reader) Amount(into *float64) func(string, any) {
	return func(at string, value any) {
		switch n := value.(type) {
		case float64:
			*into = n
		case int64:
			*into = float64(n)
		default:
			r.WrongAt(at, "%s is %v; it must be a number, such as 60", at, quoted(value))
			return
		}
		if !(*into >= 0 && *into <= 1e6) {
			r.WrongAt(at, "%s is %v; it must be a number from 0 to 1000000", at, value)
		}
	}
}

// Truth returns a field that takes true or false.
func (r *Reader) Truth(into *bool) func(string, any) {
	return func(at string, value any) {
		b, ok := value.(bool)
		if !ok {
			r.WrongAt(at, "%s must be true or false", at)
		}
		*into = b
	}
}

// A lineReader finds the lines of keys.
type lineReader struct {
	parser unstable.Parser
	ends   []int // of lines, as offsets
	lines  map[string]int
}

// keyLines maps every key, as a dotted path with indices ("solution[0].file"),
// to its line.
func keyLines(text []byte) map[string]int {
	l := &lineReader{lines: map[string]int{}}
	for i, b := range text {
		if b == '\n' {
			l.ends = append(l.ends, i)
		}
	}
	counts := map[string]int{}
	l.parser.Reset(text)
	table := ""
	for l.parser.NextExpression() {
		node := l.parser.Expression()
		path, line := l.keyPath(node)
		switch node.Kind {
		case unstable.Table:
			table = indexed(path, counts)
			l.note(table, line)
		case unstable.ArrayTable:
			around, key := cutLast(path)
			path = join(indexed(around, counts), key)
			table = path + "[" + strconv.Itoa(counts[path]) + "]"
			counts[path]++
			l.note(path, line)
			l.note(table, line)
		case unstable.KeyValue:
			l.noteValue(table, node)
		}
	}
	return l.lines
}

// note remembers where a path stands first, and with it the tables around it.
func (l *lineReader) note(path string, line int) {
	for path != "" {
		if _, ok := l.lines[path]; !ok {
			l.lines[path] = line
		}
		path, _ = cutLast(path)
	}
}

// indexed is the path of a table, with the index of each list of tables on the way, of which there are counts so
// far: what stands behind [[group]] as [group.x] is of the last group.
func indexed(path string, counts map[string]int) (all string) {
	for key := range strings.SplitSeq(path, ".") {
		all = join(all, key)
		if n := counts[all]; n > 0 {
			all += "[" + strconv.Itoa(n-1) + "]"
		}
	}
	return all
}

// cutLast parts a path before its last key.
func cutLast(path string) (around, key string) {
	at := strings.LastIndexByte(path, '.')
	return path[:max(0, at)], path[at+1:]
}

func (l *lineReader) noteValue(table string, node *unstable.Node) {
	path, line := l.keyPath(node)
	path = join(table, path)
	l.note(path, line)
	l.noteInside(path, node.Value(), line)
}

// noteInside remembers where the tables within a value stand. The parser knows where a key stands, and of a
// table without one only what it lies in.
func (l *lineReader) noteInside(path string, value *unstable.Node, line int) {
	it := value.Children()
	switch value.Kind {
	case unstable.InlineTable:
		for it.Next() {
			l.noteValue(path, it.Node())
		}
	case unstable.Array:
		for i := 0; it.Next(); i++ {
			at := path + "[" + strconv.Itoa(i) + "]"
			l.noteInside(at, it.Node(), line)
			l.note(at, line)
		}
	}
}

func (l *lineReader) keyPath(node *unstable.Node) (path string, line int) {
	for it := node.Key(); it.Next(); {
		key := it.Node()
		path = join(path, string(key.Data))
		if line == 0 {
			before, _ := slices.BinarySearch(l.ends, int(key.Raw.Offset))
			line = before + 1
		}
	}
	return path, line
}

func join(path, key string) string {
	if path == "" {
		return key
	}
	return path + "." + key
}

// Nearest suggests the known word that is closest to what was written, or
// lists them all if none is close.
func Nearest(word string, known []string) string {
	if best := Near(word, known); best != "" {
		return fmt.Sprintf("did you mean %q?", best)
	}
	known = slices.DeleteFunc(slices.Sorted(slices.Values(known)), func(s string) bool { return s == "" })
	if len(known) == 0 {
		return "there is none"
	}
	return "it can be " + orList(known)
}

// Near is the known word that is closest to what was written; "" if none is close.
func Near(word string, known []string) string {
	known = slices.DeleteFunc(slices.Sorted(slices.Values(known)), func(s string) bool { return s == "" })
	best, distance := "", 1+len(word)/3
	for _, k := range known {
		if d := editDistance(strings.ToLower(word), k); d <= distance && (best == "" || d < distance) {
			best, distance = k, d
		}
	}
	return best
}

func orList(words []string) string {
	for i, w := range words {
		words[i] = strconv.Quote(w)
	}
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// editDistance counts the least insertions, deletions and replacements that
// turn a into b (Wagner and Fischer, 1974), and a swap of neighbours as one.
func editDistance(a, b string) int {
	rows := make([][]int, len(a)+1)
	for i := range rows {
		rows[i] = make([]int, len(b)+1)
		rows[i][0] = i
	}
	for j := range rows[0] {
		rows[0][j] = j
	}
	for i := 1; i <= len(a); i++ {
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			rows[i][j] = min(rows[i-1][j]+1, rows[i][j-1]+1, rows[i-1][j-1]+cost)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				rows[i][j] = min(rows[i][j], rows[i-2][j-2]+1)
			}
		}
	}
	return rows[len(a)][len(b)]
}
