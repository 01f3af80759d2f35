package call

import (
	"slices"
	"strings"

	"coldverdict/internal/lazy"
)

// A site is a place in a source at which a function is declared.
type site struct {
	name    string
	at      int      // offset of the name
	scopes  []string // classes, structs, namespaces and the like around it, the outermost first
	kinds   []string // what each of them is: "class"
	params  string   // what stands between its parentheses
	before  string   // what stands before its name: the type that it returns, and more
	after   string   // what stands between its parentheses and its body
	private bool     // it may only be called from its class
	classes []*scope // of the scopes those that are types
}

// path joins the names around a site, and its own.
func (s site) path(separator string) string {
	return strings.Join(append(slices.Clone(s.scopes), s.name), separator)
}

// An outline is what a source declares, as far as languages with braces have it in common.
// Comments and texts are passed over.
type outline struct {
	text  string   // masked
	sites []site   // of the function, under any of its names
	types []*scope // classes, structs and the like
}

// outlined returns the outline of a source, with the definitions of a function under any of its
// names that lie in no other function.
func outlined(source []byte, names []string) *outline {
	o := &outliner{outline: outline{text: mask(string(source))}, names: names}
	o.read()
	return &o.outline
}

// A scope is what lies between two braces.
type scope struct {
	kind, name string // kind is empty for a block or a function
	header     string // what stands before its brace
	path       string // of a type: the names of the types around it, and its own, joined by "$"
	from, to   int    // offsets of its braces
	private    bool   // what is declared here now is private
}

// isType reports that the scope is a class or the like, which a function can belong to.
func (s *scope) isType() bool {
	switch s.kind {
	case "class", "struct", "interface", "object", "record", "enum", "trait", "impl":
		return true
	}
	return false
}

type outliner struct {
	outline
	names  []string
	stack  []*scope
	header int // where what may be the header of the next block begins
	round  int // depth of parentheses
}

var scopeHeader = lazy.New(`\b(class|struct|namespace|interface|object|record|enum|trait|module|mod)\s+(?:class\s+)?([\w:.]+)\s*(?:<[^{}]*>\s*)?(?:[(:,[]|$|extends\b|implements\b|final\b|where\b|permits\b|private\b|internal\b)`)

var implHeader = lazy.New(`\bimpl\b\s*(?:<[^{}]*?>\s*)?(?:([\w:<>', ]+?)\s+for\s+)?(\w+)`)

var (
	functionWord = lazy.New(`\b(?:fun|fn|func)\b`)
	typeWord     = lazy.New(`\b(?:record|class|struct|enum|new|return|throw)\s*$`)
	qualifiers   = lazy.New(`(?:\b\w+\s*(?:<[^<>]*>)?\s*::\s*)+$`)
	privateWord  = lazy.New(`\b(?:private|protected)\b`)
)

func (o *outliner) read() {
	for i := 0; i < len(o.text); i++ {
		switch c := o.text[i]; {
		case c == '{':
			one := o.scopeOf(o.text[o.header:i])
			one.from = i
			if one.isType() {
				one.path = one.name
				for _, outer := range slices.Backward(o.stack) {
					if outer.isType() {
						one.path = outer.path + "$" + one.name
						break
					}
				}
				o.types = append(o.types, one)
			}
			o.stack = append(o.stack, one)
			o.header = i + 1
		case c == '}':
			if n := len(o.stack); n > 0 {
				o.stack[n-1].to = i
				o.stack = o.stack[:n-1]
			}
			o.header = i + 1
		case c == ';' && o.round == 0:
			o.header = i + 1
		case c == '(':
			o.round++
		case c == ')':
			o.round = max(0, o.round-1)
		case isWord(c):
			end := i
			for end < len(o.text) && isWord(o.text[end]) {
				end++
			}
			o.access(i, end)
			if s, ok := o.at(i, end); ok {
				o.sites = append(o.sites, s)
			}
			i = end - 1
		}
	}
	for _, open := range o.stack {
		open.to = len(o.text)
	}
}

// access takes a label such as "private:" in a class.
func (o *outliner) access(from, to int) {
	if len(o.stack) == 0 || to >= len(o.text) || o.text[to] != ':' || strings.HasPrefix(o.text[to:], "::") {
		return
	}
	switch top := o.stack[len(o.stack)-1]; o.text[from:to] {
	case "public":
		top.private, o.header = false, to+1
	case "private", "protected":
		top.private, o.header = true, to+1
	}
}

func isWord(c byte) bool {
	return c == '_' || c >= '0' && c <= '9' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= 0x80
}

func (o *outliner) scopeOf(header string) *scope {
	if m := implHeader().FindStringSubmatch(header); m != nil && !strings.Contains(header, "fn ") {
		kind := "impl"
		if m[1] != "" {
			kind = "trait" // of which this is one way
		}
		return &scope{kind: kind, name: m[2], header: header}
	}
	// What stands before it may be other declarations, without an end of their own.
	if all := scopeHeader().FindAllStringSubmatchIndex(header, -1); len(all) > 0 {
		m := all[len(all)-1]
		if !functionWord().MatchString(header[m[1]:]) {
			kind := header[m[2]:m[3]]
			return &scope{kind: kind, name: header[m[4]:m[5]], header: header, private: kind == "class" && o.labelled()}
		}
	}
	if strings.HasSuffix(strings.TrimSpace(header), "companion object") {
		return &scope{kind: "object", name: "Companion", header: header}
	}
	if strings.HasPrefix(strings.TrimSpace(header), "extern") || strings.TrimSpace(header) == "namespace" {
		return &scope{kind: "namespace", header: header}
	}
	return &scope{}
}

var publicLabel = lazy.New(`\bpublic\s*:[^:]`)

// labelled reports that the language says by labels what is private, and that a class
// begins with that.
func (o *outliner) labelled() bool { return publicLabel().MatchString(o.text) }

// at looks whether a word declares the function.
func (o *outliner) at(from, to int) (s site, ok bool) {
	if !slices.Contains(o.names, o.text[from:to]) || o.round > 0 {
		return s, false
	}
	for _, one := range o.stack {
		if one.kind == "" {
			return s, false
		}
	}
	if typeWord().MatchString(o.text[max(0, from-20):from]) {
		return s, false // a type of that name, or a call
	}
	open := to
	for open < len(o.text) && (o.text[open] == ' ' || o.text[open] == '\t' || o.text[open] == '\n' || o.text[open] == '\r') {
		open++
	}
	if open < len(o.text) && o.text[open] == '<' { // what it is generic in
		if end := strings.IndexByte(o.text[open:], '('); end > 0 {
			open += end
		}
	}
	if open == len(o.text) || o.text[open] != '(' {
		return s, false
	}
	end, depth := open, 0
	for ; end < len(o.text); end++ {
		if o.text[end] == '(' {
			depth++
		} else if o.text[end] == ')' {
			if depth--; depth == 0 {
				break
			}
		}
	}
	if end == len(o.text) {
		return s, false
	}
	body := strings.IndexAny(o.text[end:], "{;=")
	if body < 0 || o.text[end+body] == ';' {
		return s, false // it is declared here, and defined elsewhere
	}
	before := o.text[min(o.header, from):from]
	s = site{name: o.text[from:to], at: from, params: o.text[open+1 : end], before: before, after: o.text[end+1 : end+body], private: privateWord().MatchString(before)}
	for _, one := range o.stack {
		if one.name != "" {
			s.scopes, s.kinds = append(s.scopes, one.name), append(s.kinds, one.kind)
		}
		if one.isType() {
			s.classes = append(s.classes, one)
			s.private = s.private || one.private
		}
	}
	if q := qualifiers().FindString(before); q != "" { // it is declared in a class, and defined outside of it
		s.before = strings.TrimSuffix(before, q)
		for name := range strings.SplitSeq(strings.TrimSuffix(strings.TrimSpace(q), "::"), "::") {
			name = strings.TrimSpace(name)
			kind := "namespace"
			for _, t := range o.types {
				if t.name == name {
					kind = t.kind
					s.classes = append(s.classes, t)
				}
			}
			s.scopes, s.kinds = append(s.scopes, name), append(s.kinds, kind)
		}
	}
	return s, true
}

// mask puts blanks in the place of comments, texts and lines for a preprocessor,
// and leaves every other byte where it was.
func mask(text string) string {
	b := []byte(text)
	blank := func(from, to int) {
		for ; from < to && from < len(b); from++ {
			if b[from] != '\n' {
				b[from] = ' '
			}
		}
	}
	skipTo := func(from int, end string) int {
		if i := strings.Index(text[from:], end); i >= 0 {
			return from + i + len(end)
		}
		return len(text)
	}
	for i := 0; i < len(text); {
		var to int
		switch rest := text[i:]; {
		case strings.HasPrefix(rest, "//"), rest[0] == '#' && startsLine(text, i) && !strings.HasPrefix(rest, "#["):
			to = skipTo(i, "\n")
		case strings.HasPrefix(rest, "/*"):
			to = skipTo(i+2, "*/")
		case strings.HasPrefix(rest, `"""`):
			to = skipTo(i+3, `"""`)
		case strings.HasPrefix(rest, `R"(`):
			to = skipTo(i, `)"`)
		case rest[0] == '`':
			to = skipTo(i+1, "`")
		case rest[0] == '"':
			to = closing(text, i, '"')
		case rest[0] == '\'' && isCharacter(rest):
			to = closing(text, i, '\'')
		default:
			i++
			continue
		}
		blank(i, to)
		i = to
	}
	return string(b)
}

func startsLine(text string, i int) bool {
	line := text[strings.LastIndexByte(text[:i], '\n')+1 : i]
	return strings.TrimSpace(line) == ""
}

// isCharacter tells a character in quotes from the name of a lifetime, and from a
// quote within a number.
func isCharacter(rest string) bool {
	if len(rest) > 1 && rest[1] == '\\' {
		return true
	}
	end := strings.IndexByte(rest[1:], '\'')
	return end > 0 && end <= 4
}

// closing returns where a text in quotes on one line ends.
func closing(text string, from int, quote byte) int {
	for i := from + 1; i < len(text); i++ {
		switch text[i] {
		case '\\':
			i++
		case quote:
			return i + 1
		case '\n':
			return i
		}
	}
	return len(text)
}

// split cuts at commas that lie in no brackets.
func split(params string) (list []string) {
	depth, from := 0, 0
	for i := 0; i <= len(params); i++ {
		if i == len(params) || params[i] == ',' && depth == 0 {
			if one := strings.TrimSpace(params[from:i]); one != "" {
				list = append(list, one)
			}
			from = i + 1
			continue
		}
		switch params[i] {
		case '(', '[', '{', '<':
			depth++
		case ')', ']', '}', '>':
			if params[i] != '>' || i == 0 || params[i-1] != '-' && params[i-1] != '=' { // an arrow closes nothing
				depth--
			}
		}
	}
	return list
}
