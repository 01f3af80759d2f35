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
)

func fitCpp(f *fitting) error {
	s, err := f.declared()
	if err == nil && (strings.Contains(s.before, "template") || strings.Contains(s.params, "auto ")) {
		return refuse("%s is a template; write it for the types of the problem: %s", s.name, f.function)
	}
	f.words["FUNCTION"] = s.path("::")
	return err
}

func fitJava(f *fitting) error {
	s, err := f.declared()
	f.words["CLASS_LIST"] = quoted([]string{packagePrefix(f.source) + strings.Join(s.scopes, "$")}, "", "")
	return err
}

// fitKotlin has to know that functions outside of any class belong to one that
// is named after the file.
func fitKotlin(f *fitting) error {
	s, err := f.declared()
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
	class := strings.Join(s.scopes, "$")
	if class == "" {
		class = file
	}
	f.words["CLASS_LIST"] = quoted([]string{packagePrefix(f.source) + class}, "", "")
	return err
}

var packageLine = regexp.MustCompile(`(?m)^\s*package\s+([\w.]+)`)

func packagePrefix(source []byte) string {
	if m := packageLine.FindStringSubmatch(mask(string(source))); m != nil {
		return m[1] + "."
	}
	return ""
}

var (
	exported    = regexp.MustCompile(`(?m)^export\s+(?:default\s+)?((?:async\s+)?function|class|const|let|var)\b`)
	importAll   = regexp.MustCompile(`(?m)^import\s+(?:\*\s+as\s+)?(\w+)\s+from\s+(['"][^'"\n]+['"])`)
	importNames = regexp.MustCompile(`(?m)^import\s+(\{[^}\n]+\})\s+from\s+(['"][^'"\n]+['"])`)
)

// fitJavaScript makes a plain script of a module, so that it need not matter
// whether it is one.
func fitJavaScript(f *fitting) error {
	source := exported.ReplaceAllString(string(f.source), "$1")
	source = importAll.ReplaceAllString(source, "const $1 = require($2)")
	source = importNames.ReplaceAllStringFunc(source, func(line string) string {
		m := importNames.FindStringSubmatch(line)
		return fmt.Sprintf("const %s = require(%s)", strings.ReplaceAll(m[1], " as ", ": "), m[2])
	})
	f.source = []byte(source)
	script := f.file
	if filepath.Ext(f.file) == ".ts" {
		script = stem(f.file) + ".js"
	}
	f.words["SCRIPT_TEXT"] = strconv.Quote(script)
	return nil
}

// fitGo makes the source a part of the driver's package, and lets it have a main
// of its own.
func fitGo(f *fitting) error {
	if !packageLine.MatchString(mask(string(f.source))) {
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
	names, found := Spellings(f.function.Name), (*ast.FuncDecl)(nil)
	type edit struct {
		from, to int
		text     string
	}
	from, to := at(file.Name)
	edits := []edit{{from, to, "main"}}
	for _, d := range file.Decls {
		function, ok := d.(*ast.FuncDecl)
		if !ok {
			continue
		}
		if function.Name.Name == "main" && function.Recv == nil {
			from, to := at(function.Name)
			edits = append(edits, edit{from, to, "coldUnusedMain"})
		}
		if slices.Contains(names, function.Name.Name) && found == nil {
			found = function
		}
	}
	if found == nil {
		return refuse("there is no function %s in %s", strings.Join(names, " or "), f.file)
	}
	f.words["FUNCTION"] = found.Name.Name
	if found.Recv != nil {
		source := func(n ast.Node) string { from, to := at(n); return text[from:to] }
		f.words["FUNCTION"] = goMethod(found, source)
	}
	f.words["CHAR"] = strconv.FormatBool(f.returns(value.Char))
	slices.SortFunc(edits, func(a, b edit) int { return b.from - a.from })
	for _, e := range edits {
		text = text[:e.from] + e.text + text[e.to:]
	}
	f.source = []byte(text)
	return nil
}

// goMethod is a function that calls a method on a value of its own.
func goMethod(m *ast.FuncDecl, source func(ast.Node) string) string {
	receiver := strings.TrimPrefix(source(m.Recv.List[0].Type), "*")
	var params, args []string
	for _, field := range m.Type.Params.List {
		for range max(1, len(field.Names)) {
			name := fmt.Sprintf("a%d", len(args))
			params, args = append(params, name+" "+source(field.Type)), append(args, name)
		}
	}
	results, give := "", ""
	if m.Type.Results != nil {
		results, give = source(m.Type.Results), "return "
	}
	return fmt.Sprintf("func(%s) %s { %snew(%s).%s(%s) }", strings.Join(params, ", "), results, give, receiver, m.Name.Name, strings.Join(args, ", "))
}

var rustMain = regexp.MustCompile(`\bfn(\s+)main(\s*\()`)

// fitRust takes the arguments as the declaration has them: what it borrows is
// owned by the driver.
func fitRust(f *fitting) error {
	s, err := f.declared()
	if err != nil {
		return err
	}
	// In its own place, so that lines stay, and only where it is no text.
	for _, m := range slices.Backward(rustMain.FindAllStringIndex(mask(string(f.source)), -1)) {
		f.source = append(f.source[:m[0]:m[0]], append(rustMain.ReplaceAll(f.source[m[0]:m[1]], []byte("fn${1}cold_unused_main$2")), f.source[m[1]:]...)...)
	}
	params := split(s.params)
	callee := "super::" + s.path("::")
	f.source = append(f.source, undeclared(string(f.source))...)
	if len(params) > 0 && regexp.MustCompile(`^&?\s*(?:'\w+\s+)?(?:mut\s+)?self\b`).MatchString(params[0]) {
		owner := "super::" + strings.Join(s.scopes, "::")
		borrow := ""
		if strings.HasPrefix(params[0], "&") {
			borrow = "&mut "
		}
		callee = "(" + borrow + owner + " {})." + s.name
		params = params[1:]
	}
	takes := f.function.Takes
	if len(params) != len(takes) {
		return refuse("%s takes %d arguments in this problem, and is declared with %d parameters", s.name, len(takes), len(params))
	}
	var take, args []string
	for i, param := range params {
		_, declared, _ := strings.Cut(param, ":")
		owned, borrow := rustOwned(strings.TrimSpace(declared))
		take = append(take, fmt.Sprintf("            r.next();\n            r.parameter = %d;\n            let mut a%d = <%s as Take>::take(&mut r);", i+1, i, owned))
		args = append(args, fmt.Sprintf("%sa%d", borrow, i))
		if f.function.Changes == i+1 && borrow != "&mut " {
			return refuse("%s changes its argument %d, which must be declared as &mut", s.name, i+1)
		}
	}
	f.words["TAKE"] = strings.Join(take, "\n")
	f.words["CALL"] = callee + "(" + strings.Join(args, ", ") + ")"
	f.words["CHANGED"] = ""
	if n := f.function.Changes; n > 0 {
		f.words["CHANGED"] = fmt.Sprintf("                if !failed {\n                    a%d.give(&mut out);\n                }", n-1)
	}
	f.words["BIGINT"] = strconv.FormatBool(f.returns(value.BigInt))
	f.words["UNSAFE"] = ""
	if f.standard >= "2024" {
		f.words["UNSAFE"] = "unsafe "
	}
	return nil
}

var rustImpl = regexp.MustCompile(`(?m)^\s*impl\s+(\w+)\s*\{`)

// undeclared declares the types to which functions belong and that judges declare.
func undeclared(source string) (text string) {
	source = mask(source)
	for _, m := range rustImpl.FindAllStringSubmatch(source, -1) {
		if !regexp.MustCompile(`\b(?:struct|enum|union|trait|type)\s+` + m[1] + `\b`).MatchString(source + text) {
			text += "\nstruct " + m[1] + ";"
		}
	}
	return text
}

var rustBorrow = regexp.MustCompile(`^&\s*(?:'\w+\s+)?(mut\s+)?`)

// rustOwned returns the type of which a declared one is, or borrows, a value.
func rustOwned(declared string) (owned, borrow string) {
	m := rustBorrow.FindStringSubmatch(declared)
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
