package call

import (
	"go/ast"
	"go/parser"
	"go/token"
	"regexp"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// A Found says how other code in the same file calls a person's function.
type Found struct {
	// Callee calls it, with the arguments in parentheses behind.
	Callee string
	Name   string   // as the source spells it
	Params []string // as declared, without the object that it belongs to; nil where nothing need be
	Result string   // what its declaration says of the result; nothing in languages that need say nothing
	Class  string   // the outermost class that it belongs to; empty: it is free
	// Missing declares what the source leaves to a judge, and stands behind it.
	Missing string
}

// Find finds the function in a source of a language, as Around does. The error says that
// there is none, or that the language has no function problems.
func Find(function *problem.Call, l *toolchain.Language, file string, source []byte) (found Found, err error) {
	if _, ok := of(l); !ok {
		return found, refuse("function problems cannot be served in %s; they can in %s", l.Title, strings.Join(Languages(), ", "))
	}
	f := &fitting{function: function, file: file, source: source}
	family := l.Name
	if _, ok := table[family]; !ok {
		family = l.Like
	}
	switch family {
	case "python":
		return f.scripted(scriptedPython)
	case "ruby":
		return f.scripted(scriptedRuby)
	case "javascript", "typescript", "typescript-node":
		return f.inScript()
	case "go":
		return f.inGo()
	}
	s, o, err := f.chosen()
	if err != nil {
		return found, err
	}
	found = Found{Callee: s.name, Name: s.name, Params: withoutReceiver(split(s.params)), Result: s.before}
	if len(s.classes) > 0 {
		found.Class = s.classes[0].name
	}
	switch family {
	case "cpp":
		found.Callee = s.path("::")
		if owner := o.cppOwner(s); owner != "" {
			found.Callee = strings.TrimPrefix(owner, "::") + "()." + s.name
		}
	case "java", "csharp", "kotlin":
		found.Callee = o.method(s, family == "kotlin")
	case "rust":
		found.Callee, found.Result, found.Missing = s.path("::"), s.after, undeclared(string(source))
		if params := split(s.params); len(params) > 0 && receiverParameter().MatchString(params[0]) {
			found.Callee = "(" + rustValue(o.text, strings.Join(s.scopes, "::"), s.scopes[len(s.scopes)-1]) + ")." + s.name
		}
	}
	return found, nil
}

var staticWord = lazy.New(`\bstatic\b`)

// method is how a method of a machine's language is called: on its class where it is static, and
// otherwise on a new object, of a class that is made from its own where there is one.
func (o *outline) method(s site, kotlin bool) string {
	var owners []string
	for i, kind := range s.kinds {
		if name := s.scopes[i]; name != "" && !(kind == "object" && name == "Companion") {
			owners = append(owners, name)
		}
	}
	if len(owners) == 0 {
		return s.name
	}
	last := s.kinds[len(s.kinds)-1]
	if kotlin && last == "object" || staticWord().MatchString(s.before) {
		return strings.Join(owners, ".") + "." + s.name
	}
	own := regexp.MustCompile(`(?::|\bextends\b|\bimplements\b).*\b` + regexp.QuoteMeta(owners[len(owners)-1]) + `\b`)
	for _, t := range o.types {
		if t.kind == "class" && own.MatchString(strings.ReplaceAll(t.header, "\n", " ")) {
			owners[len(owners)-1] = t.name
		}
	}
	if kotlin {
		return strings.Join(owners, ".") + "()." + s.name
	}
	return "new " + strings.Join(owners, ".") + "()." + s.name
}

// inGo finds a function of Go.
func (f *fitting) inGo() (found Found, err error) {
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, f.file, f.source, 0)
	if err != nil {
		return found, refuse("%v", err)
	}
	source := func(n ast.Node) string {
		return string(f.source[set.Position(n.Pos()).Offset:set.Position(n.End()).Offset])
	}
	function, declared := f.goFunction(file, source)
	if function == "" {
		return found, f.absent()
	}
	found.Callee, found.Name = function, function
	if strings.HasPrefix(function, "func(") {
		found.Callee, found.Name = "("+function+")", ""
	}
	if declared == nil {
		return found, nil
	}
	for _, field := range declared.Params.List {
		for range max(1, len(field.Names)) {
			found.Params = append(found.Params, "a "+source(field.Type))
		}
	}
	if declared.Results != nil {
		found.Result = source(declared.Results)
	}
	return found, nil
}

// A scriptedForm says how a language without braces declares functions and classes.
type scriptedForm struct {
	function string // of which NAMES are the names; group 1: the indentation, 2: "self." or nothing, 3: the name
	class    lazy.Regexp
	object   string
}

var (
	scriptedPython = scriptedForm{`(?m)^([ \t]*)(?:async[ \t]+)?def[ \t]+()(NAMES)[ \t]*\(`, lazy.New(`(?m)^class[ \t]+(\w+)`), "()"}
	scriptedRuby   = scriptedForm{`(?m)^([ \t]*)def[ \t]+(self\.)?(NAMES)\b`, lazy.New(`(?m)^(?:class|module)[ \t]+(\w+)`), ".new"}
)

// scripted finds a function by where its line is indented.
func (f *fitting) scripted(form scriptedForm) (found Found, err error) {
	pattern := regexp.MustCompile(strings.ReplaceAll(form.function, "NAMES", strings.Join(Spellings(f.function.Name), "|")))
	text := string(f.source)
	for _, m := range pattern.FindAllStringSubmatchIndex(text, -1) {
		one := Found{Name: text[m[6]:m[7]]}
		one.Callee = one.Name
		if m[2] < m[3] { // it is indented
			classes := form.class().FindAllStringSubmatch(text[:m[0]], -1)
			if len(classes) == 0 || found.Name != "" && classes[len(classes)-1][1] != "Solution" {
				continue
			}
			one.Class = classes[len(classes)-1][1]
			one.Callee = one.Class + form.object + "." + one.Name
			if m[4] >= 0 && m[4] < m[5] || strings.HasPrefix(classes[len(classes)-1][0], "module") {
				one.Callee = one.Class + "." + one.Name
			}
		} else if found.Class == "Solution" {
			continue
		}
		found = one
	}
	if found.Name == "" {
		if m := regexp.MustCompile(`(?m)^(` + strings.Join(Spellings(f.function.Name), "|") + `)[ \t]*=`).FindStringSubmatch(text); m != nil {
			return Found{Callee: m[1], Name: m[1]}, nil
		}
		return found, f.absent()
	}
	return found, nil
}

// inScript finds a function of JavaScript, which may be a value with a name.
func (f *fitting) inScript() (found Found, err error) {
	names := strings.Join(Spellings(f.function.Name), "|")
	s, o, err := f.chosen()
	if err == nil {
		found = Found{Callee: s.name, Name: s.name}
		if n := len(s.classes); n > 0 {
			found.Class = s.classes[0].name
			found.Callee = o.method(s, false)
			if regexp.MustCompile(`\bmodule\.exports\s*=\s*class\b[^=]*$`).MatchString(s.classes[n-1].header) {
				found.Callee = "new module.exports()." + s.name
			}
		}
		return found, nil
	}
	text := mask(string(f.source))
	find := func(pattern string) []int {
		return regexp.MustCompile(strings.ReplaceAll(pattern, "NAMES", names)).FindStringSubmatchIndex(text)
	}
	if m := find(`\b(?:const|let|var)\s+(NAMES)\b`); m != nil {
		return Found{Callee: text[m[2]:m[3]], Name: text[m[2]:m[3]]}, nil
	}
	if m := find(`\b(\w+)\.prototype\.(NAMES)\s*=`); m != nil {
		return Found{Callee: "new " + text[m[2]:m[3]] + "()." + text[m[4]:m[5]], Name: text[m[4]:m[5]], Class: text[m[2]:m[3]]}, nil
	}
	if m := find(`\b((?:module\.)?exports|\w+)\.(NAMES)\s*=`); m != nil {
		return Found{Callee: text[m[2]:m[3]] + "." + text[m[4]:m[5]], Name: text[m[4]:m[5]]}, nil
	}
	if m := find(`[{;\n]\s*(static\s+)?(NAMES)\s*=`); m != nil {
		for _, t := range o.types {
			if t.from < m[0] && m[0] < t.to || t.from == m[0] {
				found = Found{Callee: "new " + t.name + "()." + text[m[4]:m[5]], Name: text[m[4]:m[5]], Class: t.name}
				if m[2] >= 0 {
					found.Callee = t.name + "." + found.Name
				}
				return found, nil
			}
		}
	}
	return found, err
}

// TypeIn writes a type as a language declares it; empty where nothing need be declared.
func TypeIn(l *toolchain.Language, t value.Type) string {
	for _, name := range []string{l.Name, l.Like} {
		if d, ok := dialects[name]; ok {
			return (&starter{dialect: d}).kind(t)
		}
	}
	return ""
}

// Main finds the main function of a source with braces: where it begins, and where its body does.
func Main(source []byte) (from, open int, ok bool) {
	o := outlined(source, []string{"main", "Main"})
	for _, s := range o.sites {
		// It begins with its line, unless other code does; what is before may have no end of its own.
		from = strings.LastIndexByte(o.text[:s.at], '\n') + 1
		if rest := strings.TrimLeft(s.before, " \t\r\n"); s.at-len(rest) > from && strings.TrimSpace(o.text[from:s.at-len(rest)]) != "" {
			from = s.at - len(rest)
		}
		if at := strings.IndexByte(o.text[s.at:], '{'); at >= 0 {
			return from, s.at + at, true
		}
	}
	return 0, 0, false
}
