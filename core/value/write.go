package value

import (
	"math"
	"math/big"
	"strconv"
	"unicode/utf8"
)

// Append writes a value as JSON behind text. Arrays have a blank behind each
// comma if spaced is set.
func Append(text []byte, v any, spaced bool) []byte {
	w := writer{text: text, spaced: spaced, mark: -1}
	w.value(v, nil, false)
	return w.text
}

// Write returns a value as people read it: JSON with a blank behind each comma.
func Write(v any) string { return string(Append(nil, v, true)) }

// Marked writes a value as Write does, and returns where in it, in bytes, the
// part begins that a path leads to; where the path leads beyond the value, the
// end of the innermost array that it does lead to.
func Marked(v any, path []any) (text string, at int) {
	w := writer{spaced: true, mark: -1}
	w.value(v, path, true)
	if w.mark < 0 {
		w.mark = 0
	}
	return string(w.text), w.mark
}

// Plain returns a value in which reals that JSON has no word for are texts: "NaN",
// "Infinity", "-Infinity".
func Plain(v any) any {
	switch v := v.(type) {
	case float64:
		if math.IsNaN(v) || math.IsInf(v, 0) {
			return Write(v)
		}
	case []any:
		list := make([]any, len(v))
		for i, item := range v {
			list[i] = Plain(item)
		}
		return list
	case Object:
		o := make(Object, len(v))
		for i, m := range v {
			o[i] = Member{m.Name, Plain(m.Value)}
		}
		return o
	}
	return v
}

// Widened returns a value in which every bigint, every long that a 64-bit real does not hold
// exactly, and every real that JSON has no number for is a text.
func Widened(v any, t Type) any {
	element, depth := t.Element()
	if element.Kind.IsNodes() {
		element, depth = *element.Of, depth+1
		t = Type{Kind: Array, Of: &element}
	}
	if element.Kind != Long && element.Kind != BigInt && element.Kind != Real {
		return v
	}
	switch v := v.(type) {
	case float64:
		switch {
		case math.IsNaN(v):
			return "NaN"
		case math.IsInf(v, 1):
			return "Infinity"
		case math.IsInf(v, -1):
			return "-Infinity"
		}
	case int64:
		const exact = 1 << 53
		if element.Kind == BigInt || v > exact || v < -exact {
			return strconv.FormatInt(v, 10)
		}
	case *big.Int:
		return v.String()
	case []any:
		if depth == 0 {
			return v
		}
		list := make([]any, len(v))
		for i, item := range v {
			list[i] = Widened(item, t)
		}
		return list
	}
	return v
}

type writer struct {
	text   []byte
	spaced bool
	mark   int
}

// value writes v. onPath says that the marked part lies in it, at path.
func (w *writer) value(v any, path []any, onPath bool) {
	if onPath && len(path) == 0 {
		w.mark = len(w.text)
		onPath = false
	}
	if o, ok := v.(Object); ok {
		w.object(o, path, onPath)
		return
	}
	list, ok := v.([]any)
	if !ok {
		if onPath {
			w.mark = len(w.text)
		}
		w.single(v)
		return
	}
	step := -1
	if onPath {
		step, _ = path[0].(int)
	}
	w.text = append(w.text, '[')
	for i, item := range list {
		if i > 0 {
			w.text = append(w.text, ',')
			if w.spaced {
				w.text = append(w.text, ' ')
			}
		}
		if i == step {
			w.value(item, path[1:], true)
		} else {
			w.value(item, nil, false)
		}
	}
	if step >= len(list) {
		w.mark = len(w.text)
	}
	w.text = append(w.text, ']')
}

func (w *writer) object(o Object, path []any, onPath bool) {
	step := ""
	if onPath {
		step, _ = path[0].(string)
	}
	w.text = append(w.text, '{')
	for i, m := range o {
		if i > 0 {
			w.text = append(w.text, ',')
			if w.spaced {
				w.text = append(w.text, ' ')
			}
		}
		w.text = append(appendText(w.text, m.Name), ':')
		if w.spaced {
			w.text = append(w.text, ' ')
		}
		if onPath && "."+m.Name == step {
			w.value(m.Value, path[1:], true)
		} else {
			w.value(m.Value, nil, false)
		}
	}
	if onPath && w.mark < 0 {
		w.mark = len(w.text)
	}
	w.text = append(w.text, '}')
}

func (w *writer) single(v any) {
	switch v := v.(type) {
	case nil:
		w.text = append(w.text, "null"...)
	case bool:
		w.text = strconv.AppendBool(w.text, v)
	case int64:
		w.text = strconv.AppendInt(w.text, v, 10)
	case *big.Int:
		w.text = v.Append(w.text, 10)
	case float64:
		w.text = appendReal(w.text, v)
	case string:
		w.text = appendText(w.text, v)
	}
}

// appendReal writes the shortest decimal that is read back the same, and so
// that it is seen to be a real.
func appendReal(text []byte, x float64) []byte {
	switch {
	case math.IsNaN(x):
		return append(text, "NaN"...)
	case math.IsInf(x, 1):
		return append(text, "Infinity"...)
	case math.IsInf(x, -1):
		return append(text, "-Infinity"...)
	}
	if size := math.Abs(x); size != 0 && (size < 1e-6 || size >= 1e21) {
		return strconv.AppendFloat(text, x, 'e', -1, 64)
	}
	began := len(text)
	text = strconv.AppendFloat(text, x, 'f', -1, 64)
	for _, c := range text[began:] {
		if c == '.' {
			return text
		}
	}
	return append(text, ".0"...)
}

const hex = "0123456789abcdef"

// appendText writes a text in quotes. Only what must be is escaped, and what is
// no Unicode is written as the replacement character.
func appendText(text []byte, s string) []byte {
	text = append(text, '"')
	from := 0
	for i := 0; i < len(s); {
		c := s[i]
		if c >= utf8.RuneSelf {
			r, size := utf8.DecodeRuneInString(s[i:])
			if r == utf8.RuneError && size == 1 {
				text = append(append(text, s[from:i]...), "\ufffd"...)
				from = i + 1
			}
			i += size
			continue
		}
		if c >= ' ' && c != '"' && c != '\\' && c != 0x7f {
			i++
			continue
		}
		text = append(text, s[from:i]...)
		switch c {
		case '"', '\\':
			text = append(text, '\\', c)
		case '\n':
			text = append(text, '\\', 'n')
		case '\t':
			text = append(text, '\\', 't')
		default:
			text = append(text, '\\', 'u', '0', '0', hex[c>>4], hex[c&15])
		}
		i++
		from = i
	}
	return append(append(text, s[from:]...), '"')
}
