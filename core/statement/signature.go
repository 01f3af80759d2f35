package statement

import (
	"fmt"
	"strings"

	"coldverdict/internal/lazy"
)

// Signatures are written in many languages, and mean the same: what a function takes, and what it returns.

// typeNames are names of types, in lower case, by what they are here.
var typeNames = map[string]string{
	"int": "int", "integer": "int", "i32": "int", "u32": "int", "usize": "int", "i16": "int", "u8": "int", "short": "int", "byte": "int", "number": "int", "unsigned": "int", "unsigned int": "int", "size_t": "int", "int32_t": "int", "fixnum": "int",
	"long": "long", "i64": "long", "u64": "long", "int64": "long", "int64_t": "long", "long long": "long", "long long int": "long", "long int": "long", "unsigned long long": "long", "ll": "long",
	"bigint": "bigint", "biginteger": "bigint", "i128": "bigint", "*big.int": "bigint",
	"double": "real", "float": "real", "f64": "real", "f32": "real", "float64": "real", "real": "real", "long double": "real",
	"bool": "bool", "boolean": "bool", "_bool": "bool",
	"string": "text", "str": "text", "&str": "text", "std::string": "text", "text": "text", "char*": "text", "charsequence": "text", "string_view": "text",
	"char": "char", "character": "char", "rune": "char",
	"any": "any", "object": "any", "unknown": "any",
	"intarray": "int[]", "longarray": "long[]", "doublearray": "real[]", "booleanarray": "bool[]", "chararray": "char[]",
	"listnode": "list(int)", "treenode": "tree(int)",
	"void": "", "none": "", "unit": "", "()": "", "undefined": "", "": "",
}

// listNames are names of what holds others.
var listNames = map[string]bool{
	"list": true, "vector": true, "array": true, "arraylist": true, "vec": true, "ienumerable": true, "ilist": true, "icollection": true, "collection": true, "iterable": true, "sequence": true, "deque": true, "set": true, "mutablelist": true, "readonlyarray": true, "span": true, "seq": true,
}

var (
	wordsBefore = lazy.New(`^(?:(?:const|final|readonly|mut|volatile|static|val|var|ref|in|params|vararg|&mut|out)\s+)+`)
	generic     = lazy.New(`^([\w.:]+)\s*[<\[](.*)[>\]]$`)
)

// TypeOf is a type of another language as it is written here; not ok where it is none that is known.
func TypeOf(text string) (is string, ok bool) {
	t := strings.TrimSpace(text)
	t = wordsBefore().ReplaceAllString(t, "")
	for _, word := range []string{"std::", "java.util.", "System.Collections.Generic.", "typing.", "collections.abc."} {
		t = strings.ReplaceAll(t, word, "")
	}
	t = strings.TrimSpace(strings.TrimSuffix(strings.TrimSuffix(strings.TrimSpace(t), "&&"), "&"))
	t = strings.ReplaceAll(strings.TrimSpace(strings.TrimPrefix(strings.TrimPrefix(t, "&mut "), "mut ")), " *", "*")
	lower := strings.ToLower(t)
	if is, ok = typeNames[lower]; ok {
		return is, true
	}
	if rest, found := strings.CutPrefix(t, "&"); found {
		return TypeOf(strings.TrimPrefix(strings.TrimSpace(rest), "mut "))
	}
	if rest, found := strings.CutSuffix(t, "?"); found {
		is, ok = TypeOf(rest)
		return optional(is), ok
	}
	if rest, found := strings.CutSuffix(t, "| null"); found {
		is, ok = TypeOf(rest)
		return optional(is), ok
	}
	if rest, found := strings.CutSuffix(t, "| None"); found {
		is, ok = TypeOf(rest)
		return optional(is), ok
	}
	if strings.HasPrefix(t, "(") && strings.HasSuffix(t, ")") {
		return TypeOf(t[1 : len(t)-1])
	}
	if rest, found := strings.CutSuffix(t, "[]"); found {
		is, ok = TypeOf(rest)
		return is + "[]", ok && is != ""
	}
	if rest, found := strings.CutPrefix(t, "[]"); found {
		is, ok = TypeOf(rest)
		return is + "[]", ok && is != ""
	}
	if m := generic().FindStringSubmatch(t); m != nil {
		name := strings.ToLower(m[1])
		switch parts := splitTop(m[2], ','); {
		case name == "optional" || name == "option" || name == "nullable":
			is, ok = TypeOf(m[2])
			return optional(is), ok
		case name == "box" || name == "rc" || name == "refcell" || name == "list" && len(parts) != 1:
			return TypeOf(m[2])
		case listNames[name] && len(parts) == 1:
			is, ok = TypeOf(m[2])
			return is + "[]", ok && is != ""
		case (name == "map" || name == "dict" || name == "dictionary" || name == "hashmap" || name == "unordered_map" || name == "record") && len(parts) == 2:
			key, ok1 := TypeOf(parts[0])
			held, ok2 := TypeOf(parts[1])
			return "map(" + key + ", " + held + ")", ok1 && ok2
		case name == "tree" || name == "list2" || name == "nary" || name == "graph":
			return t, true
		}
	}
	if ours().MatchString(t) {
		return t, true
	}
	if rest, found := strings.CutSuffix(t, "*"); found && rest != "" {
		rest = strings.TrimSpace(strings.TrimPrefix(strings.TrimSpace(rest), "struct "))
		if is, ok = typeNames[strings.ToLower(rest)]; ok && strings.Contains(is, "(") {
			return is, true // nodes are passed by their addresses
		}
		is, ok = TypeOf(rest)
		return is + "[]", ok && is != ""
	}
	if rest, found := strings.CutPrefix(t, "*"); found {
		return TypeOf(rest)
	}
	return "", false
}

// ours finds a type of this program's own that others have not.
var ours = lazy.New(`^(?:(?:list2?|tree|nary|graph)\(\w+\)|map\(\w+, *[\w\[\]?]+\)|function)\??(?:\[\]\??)*$`)

func optional(is string) string {
	if is == "" || strings.Contains(is, "(") || strings.HasSuffix(is, "?") {
		return is // nodes may be absent anyway
	}
	return is + "?"
}

// splitTop splits a text where a mark lies in no brackets.
func splitTop(text string, mark byte) (parts []string) {
	depth, from := 0, 0
	quote := byte(0)
	for i := range len(text) {
		switch c := text[i]; {
		case quote != 0:
			if c == quote && text[i-1] != '\\' {
				quote = 0
			}
		case c == '"' || c == '\'' && (i == 0 || !isWord(text[i-1])):
			quote = c
		case c == '(' || c == '[' || c == '{' || c == '<':
			depth++
		case c == ')' || c == ']' || c == '}' || c == '>' && (i == 0 || text[i-1] != '-'):
			depth--
		case c == mark && depth == 0:
			parts = append(parts, strings.TrimSpace(text[from:i]))
			from = i + 1
		}
	}
	if rest := strings.TrimSpace(text[from:]); rest != "" || len(parts) > 0 {
		parts = append(parts, rest)
	}
	return parts
}

func isWord(c byte) bool {
	return c == '_' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z'
}

var (
	modifiersOf = lazy.New(`^(?:(?:public|private|protected|static|final|virtual|inline|override|abstract|async|export|default|pub|suspend|def|fun|func|fn|function|sub|proc)\s+)+`)
	headed      = lazy.New(`^(.*?)([A-Za-z_]\w*)\s*(?:<[^()]*>)?\s*\(`)
	receiver    = lazy.New(`^(?:&?\s*(?:mut\s+)?self|cls|this)$`)
)

// Signature reads how a function is declared in any of the languages of function problems, or as this program has
// it, and says it as this program has it. The error says what is not understood.
func Signature(text string) (is string, err error) {
	text = strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(text), ";"))
	if i := strings.IndexByte(text, '\n'); i >= 0 && strings.Contains(text[:i], ")") {
		text = text[:i]
	}
	text = strings.Join(strings.Fields(text), " ")
	plain := modifiersOf().ReplaceAllString(text, "")
	m := headed().FindStringSubmatchIndex(plain)
	if m == nil {
		return "", fmt.Errorf("%q declares no function; write it as a language does, or as f(a: int[], b: text) -> int", text)
	}
	before, name := strings.TrimSpace(plain[m[2]:m[3]]), plain[m[4]:m[5]]
	end := closingOf(plain, m[1]-1)
	if end < 0 {
		return "", fmt.Errorf("the parenthesis behind %s is never closed", name)
	}
	after := strings.TrimSpace(plain[end+1:])
	after = strings.TrimSpace(strings.TrimRight(after, "{ :=;"))
	after = strings.TrimSpace(strings.TrimSuffix(after, "const"))
	returns, declared := before, "before its name"
	switch {
	case strings.HasPrefix(after, "->"):
		returns, declared = strings.TrimSpace(strings.TrimSuffix(after[2:], ":")), "behind ->"
	case strings.HasPrefix(after, ":"):
		returns, declared = strings.TrimSpace(after[1:]), "behind the colon"
	case after != "" && before == "":
		returns, declared = after, "behind the parentheses"
	}
	var params, kinds []string
	pending := 0 // names that stand before their type, in Go
	for _, one := range splitTop(plain[m[1]:end], ',') {
		if one == "" || one == "void" || receiver().MatchString(one) {
			continue
		}
		if at := defaultOf(one); at >= 0 {
			one = strings.TrimSpace(one[:at])
		}
		param, kind := "", ""
		if left, right, ok := strings.Cut(one, ":"); ok && !strings.HasPrefix(right, ":") && !strings.Contains(left, "std") {
			param, kind = left, right
		} else if words := strings.Fields(one); len(words) > 1 {
			first, last := words[0], words[len(words)-1]
			_, isType := TypeOf(strings.Join(words[1:], " "))
			if _, firstIs := TypeOf(first); isType && !firstIs && identifier().MatchString(first) {
				param, kind = first, strings.Join(words[1:], " ")
			} else {
				kind = strings.TrimSpace(strings.TrimSuffix(one, last))
				for last != "" && (last[0] == '*' || last[0] == '&') {
					kind, last = kind+last[:1], last[1:]
				}
				for strings.HasSuffix(last, "[]") {
					kind, last = kind+"[]", strings.TrimSuffix(last, "[]")
				}
				param = last
			}
		} else if identifier().MatchString(one) {
			params, kinds = append(params, one), append(kinds, "")
			pending++
			continue
		} else {
			return "", fmt.Errorf("the parameter %q of %s has no type", one, name)
		}
		t, ok := TypeOf(kind)
		if !ok || t == "" {
			return "", fmt.Errorf("the parameter %s of %s is declared as %s, which is none of the problem's types", strings.TrimSpace(param), name, strings.TrimSpace(kind))
		}
		for i := len(kinds) - pending; i < len(kinds); i++ {
			kinds[i] = t
		}
		pending = 0
		params, kinds = append(params, strings.Trim(strings.TrimSpace(param), "*& ")), append(kinds, t)
	}
	if pending > 0 {
		return "", fmt.Errorf("the parameter %s of %s has no type", params[len(params)-1], name)
	}
	list := make([]string, len(params))
	for i := range params {
		list[i] = params[i] + ": " + kinds[i]
	}
	result := ""
	if strings.HasPrefix(returns, "argument ") || strings.HasPrefix(returns, "copy of argument ") || strings.HasPrefix(returns, "node of argument ") || strings.HasPrefix(returns, "(") && strings.Contains(returns, ":") {
		result = returns // as this program has it
	} else {
		t, ok := TypeOf(returns)
		if !ok {
			return "", fmt.Errorf("%s is declared to return %s (%s), which is none of the problem's types", name, returns, declared)
		}
		if result = t; t == "" {
			changed := 0
			for i := len(kinds) - 1; i >= 0; i-- {
				if strings.HasSuffix(kinds[i], "[]") || strings.Contains(kinds[i], "(") {
					changed = i + 1
				}
			}
			if changed == 0 {
				return "", fmt.Errorf("%s returns nothing, and takes nothing that it could change", name)
			}
			result = fmt.Sprintf("argument %d", changed)
		}
	}
	return fmt.Sprintf("%s(%s) -> %s", name, strings.Join(list, ", "), result), nil
}

var identifier = lazy.New(`^[A-Za-z_]\w*$`)

// defaultOf is where the default of a parameter begins; -1: it has none.
func defaultOf(param string) int {
	depth := 0
	for i := range len(param) {
		switch param[i] {
		case '(', '[', '{', '<':
			depth++
		case ')', ']', '}', '>':
			depth--
		case '=':
			if depth == 0 {
				return i
			}
		}
	}
	return -1
}

// closingOf is where the parenthesis at a place is closed; -1: nowhere.
func closingOf(text string, open int) int {
	depth := 0
	for i := open; i < len(text); i++ {
		switch text[i] {
		case '(':
			depth++
		case ')':
			if depth--; depth == 0 {
				return i
			}
		}
	}
	return -1
}

// declares finds a line that declares a function, in the code that pages show to begin with.
var declaration = lazy.New(`(?m)^[ \t]*(?:(?:public|private|static|pub|export|async|def|fun|func|fn|function)\s+)+[^=;\n]*?\b[A-Za-z_]\w*\s*\([^;{}\n]*\)[^;{}\n]*[{:]?\s*$|^[ \t]*[\w:<>,&\[\] *]+[ &*]+[a-z]\w*\s*\([^;{}\n]*\)\s*(?:const\s*)?\{\s*$`)

// signature takes the first function that the page declares, and says so.
func (r *reader) signature() {
	for _, p := range r.pieces {
		if p.kind != block && p.kind != prose {
			continue
		}
		for _, at := range declaration().FindAllStringIndex(p.text, 4) {
			line := p.text[at[0]:at[1]]
			if strings.Contains(line, " main(") || strings.Contains(line, "__init__") || strings.Contains(line, "constructor(") {
				continue
			}
			is, err := Signature(line)
			if err != nil {
				continue
			}
			r.statement.Signature = is
			r.took(p.line+strings.Count(p.text[:at[0]], "\n"), "function %s", is)
			return
		}
	}
}
