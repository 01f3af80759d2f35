package call

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

func fitJava(f *fitting) error {
	if f.function.Class != nil {
		return f.machineClass(javaNode)
	}
	s, o, err := f.chosen()
	if err != nil {
		return err
	}
	f.words["CLASS_LIST"] = quoted(o.typeNames(s, packagePrefix(f.source)), "", "")
	f.behind(f.nodeClasses(javaNode))
	if len(f.function.Given) > 0 {
		f.provideMethods("java", last(s.scopes))
	}
	return nil
}

// last is the last of some names; empty: there is none.
func last(names []string) string {
	if len(names) == 0 {
		return ""
	}
	return names[len(names)-1]
}

// machineClass names the class that is asked for as its machine does.
func (f *fitting) machineClass(node nodeForm) error {
	class, err := f.classNamed(outlined(f.source, nil))
	if err != nil {
		return err
	}
	f.words["CLASS_LIST"] = quoted([]string{packagePrefix(f.source) + class.path}, "", "")
	f.behind(f.nodeClasses(node))
	return nil
}

// fitKotlin has to know that functions outside of any class belong to one that
// is named after the file.
func fitKotlin(f *fitting) error {
	if f.function.Class != nil {
		return f.machineClass(kotlinNode)
	}
	s, o, err := f.chosen()
	if err != nil {
		return err
	}
	name := []rune(stem(f.file))
	for i, r := range name {
		if r != '_' && !unicode.IsLetter(r) && !unicode.IsDigit(r) {
			name[i] = '_'
		}
	}
	file := strings.ToUpper(string(name[:1])) + string(name[1:]) + "Kt"
	if len(name) > 0 && unicode.IsDigit(name[0]) {
		file = "_" + file
	}
	prefix := packagePrefix(f.source)
	classes := o.typeNames(s, prefix)
	if len(s.classes) == 0 {
		classes = append([]string{prefix + file}, classes...)
	}
	f.words["CLASS_LIST"] = quoted(classes, "", "")
	f.behind(f.nodeClasses(kotlinNode))
	if len(f.function.Given) > 0 {
		functions, _ := f.provide("kotlin")
		f.behind(f.baseClasses("kotlin", "") + functions)
	}
	return nil
}

// fitCSharp names the class, too: the driver looks for the method among its own.
func fitCSharp(f *fitting) error {
	if f.function.Class != nil {
		class, err := f.classNamed(outlined(f.source, nil))
		if err != nil {
			return err
		}
		f.words["CLASS_TEXT"] = strconv.Quote(strings.ReplaceAll(class.path, "$", "+"))
		f.behind(f.nodeClasses(csharpNode))
		return nil
	}
	s, _, err := f.chosen()
	if err != nil {
		return err
	}
	var space []string
	class := ""
	for i, kind := range s.kinds {
		switch {
		case kind == "namespace":
			space = append(space, s.scopes[i])
		case class == "":
			class = s.scopes[i]
		default:
			class += "+" + s.scopes[i]
		}
	}
	if m := fileNamespace().FindStringSubmatch(mask(string(f.source))); m != nil {
		space = append([]string{m[1]}, space...)
	}
	f.words["CLASS_TEXT"] = strconv.Quote(strings.Join(append(space, class), "."))
	f.behind(f.nodeClasses(csharpNode))
	if len(f.function.Given) > 0 {
		f.provideMethods("csharp", last(s.scopes))
	}
	return nil
}

var fileNamespace = lazy.New(`(?m)^\s*namespace\s+([\w.]+)\s*;`)

var packageLine = lazy.New(`(?m)^\s*package\s+([\w.]+)`)

func packagePrefix(source []byte) string {
	if m := packageLine().FindStringSubmatch(mask(string(source))); m != nil {
		return m[1] + "."
	}
	return ""
}

// moduleWords are the words of a module, and what takes their place in a script. What is kept
// for the compiler of TypeScript, which makes a script by itself, says so.
var moduleWords = []struct {
	word      lazy.Regexp
	becomes   string
	forScript bool // not in TypeScript
}{
	{lazy.New(`(?m)^export\s+(?:default\s+)?((?:async\s+)?function\s*\*?\s*\w|class\s+\w|const\b|let\b|var\b)`), "$1", false},
	{lazy.New(`(?m)^export\s+default\s+`), "exports.default = ", true},
	{lazy.New(`(?m)^import\s+(\w+)\s*,\s*(\{[^}]+\})\s*from\s+(['"][^'"\n]+['"])`), "const $1 = require($3), $2 = $1", false},
	{lazy.New(`(?m)^import\s+(?:\*\s+as\s+)?(\w+)\s+from\s+(['"][^'"\n]+['"])`), "const $1 = require($2)", false},
	{lazy.New(`(?m)^import\s+(\{[^}]+\})\s*from\s+(['"][^'"\n]+['"])`), "const $1 = require($2)", false},
	{lazy.New(`(?m)^import\s+(['"][^'"\n]+['"])`), "require($1)", true},
}

// constructor is a function whose name begins as a class's does.
var constructor = lazy.New(`\bfunction\s+([A-Z]\w*)\s*\(`)

// prototype is where a function is used as a class.
var prototype = lazy.New(`\b([A-Za-z_$][\w$]*)\.prototype\b`)

var exportList = lazy.New(`(?m)^export\s*\{[^}]*\}[ \t]*;?`)

// timersOfTypeScript declares what the compiler knows nothing of.
const timersOfTypeScript = `declare function setTimeout(f: (...args: any[]) => void, ms?: number, ...args: any[]): number;
declare function setInterval(f: (...args: any[]) => void, ms?: number, ...args: any[]): number;
declare function clearTimeout(id?: number | null): void;
declare function clearInterval(id?: number | null): void;
declare const performance: { now(): number };
`

// fitJavaScript makes a plain script of a module, so that it need not matter
// whether it is one. Its lines stay where they are.
func fitJavaScript(f *fitting) error {
	script, typed := f.file, filepath.Ext(f.file) == ".ts"
	if typed {
		script = stem(f.file) + ".js"
	}
	f.words["SCRIPT_TEXT"] = strconv.Quote(script)
	var classes []string
	for _, t := range slices.Backward(outlined(f.source, nil).types) {
		if t.kind == "class" && !strings.Contains(t.path, "$") {
			classes = append(classes, t.name)
		}
	}
	for _, m := range prototype().FindAllStringSubmatch(mask(string(f.source)), -1) {
		if !slices.Contains(classes, m[1]) {
			classes = append(classes, m[1])
		}
	}
	f.words["CLASSES"] = quoted(classes, "[", "]")
	var functions []string
	for _, m := range constructor().FindAllStringSubmatch(mask(string(f.source)), -1) {
		functions = append(functions, m[1])
	}
	f.words["NODES"] = quoted(functions, "[", "]")
	node := jsNode
	if typed {
		node = tsNode
	}
	f.behind(f.nodeClasses(node))
	f.behind(f.otherNode())
	if len(f.function.Given) > 0 {
		functions, methods := f.provide("typescript")
		f.words["UNDECLARED"] = quoted(f.undeclaredBases("typescript"), "[", "]")
		if typed {
			f.behind(functions + f.baseClasses("typescript", methods))
		}
	}
	if typed && f.function.Scripted() {
		f.behind(timersOfTypeScript)
	}
	source := string(f.source)
	for _, w := range moduleWords {
		if w.forScript && typed {
			continue
		}
		source = w.word().ReplaceAllStringFunc(source, func(text string) string {
			return strings.ReplaceAll(w.word().ReplaceAllString(text, w.becomes), " as ", ": ")
		})
	}
	if !typed {
		source = exportList().ReplaceAllStringFunc(source, func(text string) string { return strings.Repeat("\n", strings.Count(text, "\n")) })
	}
	f.source = []byte(source)
	return nil
}

// fitGo makes the source a part of the driver's package, and lets it have a main
// of its own.
func fitGo(f *fitting) error {
	if !packageLine().MatchString(mask(string(f.source))) {
		f.source = append([]byte("package main; "), f.source...)
	}
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, f.file, f.source, 0)
	if err != nil {
		f.words["FUNCTION"], f.words["CHAR"] = Spellings(f.function.Name)[0], "false"
		return nil // the compiler says it better
	}
	at := func(n ast.Node) (from, to int) { return set.Position(n.Pos()).Offset, set.Position(n.End()).Offset }
	text := string(f.source)
	type edit struct {
		from, to int
		text     string
	}
	from, to := at(file.Name)
	edits := []edit{{from, to, "main"}}
	source := func(n ast.Node) string { from, to := at(n); return text[from:to] }
	for _, d := range file.Decls {
		if function, ok := d.(*ast.FuncDecl); ok && function.Name.Name == "main" && function.Recv == nil {
			from, to := at(function.Name)
			edits = append(edits, edit{from, to, "coldUnusedMain"})
		}
	}
	function := ""
	if f.function.Class != nil {
		if err := f.goClass(file); err != nil {
			return err
		}
		function = f.words["FUNCTION"]
	} else {
		function, _ = f.goFunction(file, source)
	}
	if function == "" {
		return f.absent()
	}
	f.words["FUNCTION"] = function
	f.words["CHAR"] = strconv.FormatBool(f.returns(value.Char))
	slices.SortFunc(edits, func(a, b edit) int { return b.from - a.from })
	for _, e := range edits {
		text = text[:e.from] + e.text + text[e.to:]
	}
	f.source = []byte(text)
	f.behind(f.nodeClasses(goNode))
	f.words["GIVEN_FUNCTIONS"], _ = f.provide("go")
	return nil
}

// goFunction is an expression for the function to be called, chosen as chosen does, and its
// type where it is declared; "": there is none.
func (f *fitting) goFunction(file *ast.File, source func(ast.Node) string) (best string, declared *ast.FuncType) {
	names, count := Spellings(f.function.Name), len(f.function.Takes)
	least := []int{9}
	offer := func(expression string, as *ast.FuncType, belonging int, name string) {
		wrong := 0
		if as != nil && as.Params.NumFields() != count {
			wrong = 1
		}
		if rank := []int{wrong, belonging, slices.Index(names, name)}; slices.Compare(rank, least) <= 0 {
			best, declared, least = expression, as, rank
		}
	}
	for _, d := range file.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			if !slices.Contains(names, d.Name.Name) {
				continue
			}
			if d.Recv == nil {
				offer(d.Name.Name, d.Type, 1, d.Name.Name)
				continue
			}
			belonging := 2
			if strings.TrimPrefix(source(d.Recv.List[0].Type), "*") == "Solution" {
				belonging = 0
			}
			offer(goMethod(d, source), d.Type, belonging, d.Name.Name)
		case *ast.GenDecl:
			for _, spec := range d.Specs {
				v, ok := spec.(*ast.ValueSpec)
				if !ok {
					continue
				}
				for i, name := range v.Names {
					if !slices.Contains(names, name.Name) {
						continue
					}
					var as *ast.FuncType
					if i < len(v.Values) {
						if literal, ok := v.Values[i].(*ast.FuncLit); ok {
							as = literal.Type
						}
					}
					offer(name.Name, as, 1, name.Name)
				}
			}
		}
	}
	return best, declared
}

// goMethod is a function that calls a method on a value of its own.
func goMethod(m *ast.FuncDecl, source func(ast.Node) string) string {
	receiver := strings.TrimPrefix(source(m.Recv.List[0].Type), "*")
	var params, args []string
	for _, field := range m.Type.Params.List {
		for range max(1, len(field.Names)) {
			name := fmt.Sprintf("a%d", len(args))
			params = append(params, name+" "+source(field.Type))
			if _, rest := field.Type.(*ast.Ellipsis); rest {
				name += "..."
			}
			args = append(args, name)
		}
	}
	results, give := "", ""
	if m.Type.Results != nil {
		results, give = source(m.Type.Results), "return "
	}
	return fmt.Sprintf("func(%s) %s { %snew(%s).%s(%s) }", strings.Join(params, ", "), results, give, receiver, m.Name.Name, strings.Join(args, ", "))
}

var rustMain = lazy.New(`\bfn(\s+)main(\s*\()`)

// fitRust takes the arguments as the declaration has them: what it borrows is
// owned by the driver.
func fitRust(f *fitting) error {
	if err := f.without(value.Any, "Rust"); err != nil {
		return err
	}
	f.words["BIGINT"] = strconv.FormatBool(f.returns(value.BigInt))
	f.words["SPENT"], f.words["UNSAFE"] = "now() - began", ""
	if f.standard >= "2024" {
		f.words["UNSAFE"] = "unsafe "
	}
	if f.function.Class != nil {
		return f.rustClass()
	}
	s, o, err := f.chosen()
	if err != nil {
		return err
	}
	nodes, err := f.rustNodes(o)
	if err != nil {
		return err
	}
	f.words["NODES"], f.words["GIVE"] = nodes, "if let Some(words) = result.fails() { eprintln!(\"Error: {}\", words); failed = true; } else { settle(&mut settled); result.give(&mut out) }"
	f.words["COUNTED"] = ""
	if f.function.Changes > 0 {
		f.words["COUNTED"] = "                        settle(&mut settled);\n"
	}
	if f.function.UpTo {
		f.words["COUNTED"] += "                        out.push('[');\n                        result.give(&mut out);\n                        out.push(',');\n"
	}
	if results := f.function.Results(); f.function.Changes > 0 {
		f.words["GIVE"] = "{}"
	} else if len(results) == 1 && isNodes(results[0].Type) {
		f.words["GIVE"] = "{ settle(&mut settled); let mut result = result; result.give_nodes(&mut out, &mut r.misfit); result.drop_nodes() }"
	}
	f.rustWithoutMain()
	places, err := f.rustPlaces()
	if err != nil {
		return err
	}
	if f.function.NodeOf() > 0 {
		f.words["GIVE"] = "{ settle(&mut settled); let mut result = result; give_place(&result, &mut out, &mut r.misfit); result.drop_nodes() }"
	}
	if f.function.CopyOf > 0 {
		f.words["COUNTED"] = "                        settle(&mut settled);\n                        let mut result = result;\n                        out.push('[');\n                        result.give_nodes(&mut out, &mut r.misfit);\n                        copied(&mut r.misfit);\n                        result.drop_nodes();\n                        out.push(',');\n"
	}
	params := split(s.params)
	callee := "super::" + s.path("::")
	f.source = append(f.source, undeclared(string(f.source))...)
	f.behind(f.nodeClasses(rustNode))
	owner := ""
	if len(s.scopes) > 0 && s.kinds[len(s.kinds)-1] != "mod" {
		owner = s.scopes[len(s.scopes)-1]
	}
	f.provideInRust(owner)
	if len(params) > 0 && receiverParameter().MatchString(params[0]) {
		owner := "super::" + rustValue(o.text, strings.Join(s.scopes, "::"), s.scopes[len(s.scopes)-1])
		borrow := ""
		if strings.HasPrefix(params[0], "&") {
			borrow = "&mut "
		}
		callee = "(" + borrow + owner + ")." + s.name
		params = params[1:]
	}
	takes := f.function.Takes
	if len(params) != len(takes) {
		return otherwiseDeclared(s.name, len(takes), "argument", "", len(params))
	}
	var take, args []string
	for i, param := range params {
		_, declared, _ := strings.Cut(param, ":")
		owned, borrow := rustOwned(strings.TrimSpace(declared))
		how := "<" + owned + " as Take>::take"
		if isNodes(takes[i].Type) {
			how = "Nodes::take_nodes" // of the type that the call says
		} else if takes[i].Type.Kind == value.Place {
			how = "place" // the node is found when all arguments are there
		}
		take = append(take, fmt.Sprintf("            r.next();\n            r.parameter = %d;\n            let mut a%d = %s(&mut r);", i+1, i, how))
		args = append(args, fmt.Sprintf("%sa%d", borrow, i))
		if f.function.Changes == i+1 && borrow != "&mut " {
			return refuse("%s changes its argument %d, which must be declared as &mut", s.name, i+1)
		}
	}
	f.words["TAKE"] = strings.Join(append(take, places...), "\n")
	f.words["CALL"] = callee + "(" + strings.Join(args, ", ") + ")"
	if rustIterator().MatchString(s.after) { // what is computed only when it is read is a part of the call
		f.words["CALL"] += ".into_iter().collect::<Vec<_>>()"
	}
	f.words["CHANGED"] = ""
	if len(places) > 0 {
		f.words["CHANGED"] = "                let mut original = original;\n                original.drop_nodes();"
	}
	if f.function.CopyOf > 0 {
		f.words["CHANGED"] = "                if !failed {\n                    original.give_nodes(&mut out, &mut r.misfit);\n                    out.push(']');\n                }\n" + f.words["CHANGED"]
	}
	if n := f.function.Changes; n > 0 {
		give := "give(&mut out)"
		if isNodes(f.function.Takes[n-1].Type) {
			give = "give_nodes(&mut out, &mut r.misfit)"
		}
		f.words["CHANGED"] = fmt.Sprintf("                if !failed {\n                    a%d.%s;\n                    if BOTH {\n                        out.push(']');\n                    }\n                }", n-1, give)
	}
	return nil
}

// rustWithoutMain lets the driver have a main of its own.
func (f *fitting) rustWithoutMain() {
	// In its own place, so that lines stay, and only where it is no text.
	for _, m := range slices.Backward(rustMain().FindAllStringIndex(mask(string(f.source)), -1)) {
		f.source = append(f.source[:m[0]:m[0]], append(rustMain().ReplaceAll(f.source[m[0]:m[1]], []byte("fn${1}cold_unused_main$2")), f.source[m[1]:]...)...)
	}
}

// without refuses a kind of values for which a language has no usual type.
func (f *fitting) without(kind value.Kind, title string) error {
	for _, field := range f.fields() {
		if e, _ := field.Type.Element(); e.Kind == kind {
			return refuse("%s has no usual way to pass %s", title, field.Type)
		}
	}
	return nil
}

func isNodes(t value.Type) bool {
	e, _ := t.Element()
	return e.Kind.IsNodes()
}

// rustValue is an expression that makes a value of a type, by what its source has for that.
func rustValue(text, path, name string) string {
	name = regexp.QuoteMeta(name)
	switch {
	case regexp.MustCompile(`\bimpl\s+Default\s+for\s+` + name + `\b|\bderive\s*\([^)]*\bDefault\b[^)]*\)\s*\]\s*(?:#\[[^\]]*\]\s*)*(?:pub\s+)?struct\s+` + name + `\b`).MatchString(text):
		return path + "::default()"
	case regexp.MustCompile(`\bimpl\s+` + name + `\s*\{(?s:.*?)\bfn\s+new\s*\(\s*\)`).MatchString(text):
		return path + "::new()"
	}
	return path + " {}"
}

var rustImpl = lazy.New(`(?m)(?:^|;)\s*impl\s+(\w+)\s*\{`)

// undeclared declares the types to which functions belong and that judges declare.
func undeclared(source string) (text string) {
	source = mask(source)
	for _, m := range rustImpl().FindAllStringSubmatch(source, -1) {
		if !regexp.MustCompile(`\b(?:struct|enum|union|trait|type)\s+` + m[1] + `\b`).MatchString(source + text) {
			text += "\nstruct " + m[1] + ";"
		}
	}
	return text
}

var rustBorrow = lazy.New(`^&\s*(?:'\w+\s+)?(mut\s+)?`)

// rustOwned returns the type of which a declared one is, or borrows, a value.
func rustOwned(declared string) (owned, borrow string) {
	m := rustBorrow().FindStringSubmatch(declared)
	if m == nil {
		return declared, ""
	}
	borrow = "&"
	if m[1] != "" {
		borrow = "&mut "
	}
	owned = strings.TrimSpace(declared[len(m[0]):])
	switch {
	case owned == "str":
		owned = "String"
	case strings.HasPrefix(owned, "[") && strings.HasSuffix(owned, "]") && !strings.Contains(owned, ";"):
		owned = "Vec<" + owned[1:len(owned)-1] + ">"
	}
	return owned, borrow
}
