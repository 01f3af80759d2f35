package call

import (
	"fmt"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// A dialect says how one language writes types and an empty function.
type dialect struct {
	kinds    map[value.Kind]string   // names of the single types
	array    func(string) string     // an array of a type
	optional func(string) string     // a type that may be absent
	node     func(value.Kind) string // what is made of nodes of the class NODE
	any      string                  // any value; empty: there is no such type
	spelling int                     // of the function's name
	source   func(w *starter) string
}

// mapForms say how languages write a map.
var mapForms = map[string]string{
	"python": "dict[{key}, {value}]", "javascript": "Object", "typescript": "Record<{key}, {value}>", "ruby": "Hash", "java": "Map<{key}, {value}>", "kotlin": "Map<{key}, {value}>",
	"csharp": "Dictionary<{key}, {value}>", "go": "map[{key}]{value}", "rust": "HashMap<{key}, {value}>", "cpp": "std::map<{key}, {value}>",
}

// A starter writes the empty function of one language.
type starter struct {
	dialect
	language string
	function *problem.Call
	problem  string // name of the problem
	name     string // of the function
}

// Start returns a source to begin with in a language: the empty function, with
// the right types. It is named after the problem.
func Start(function *problem.Call, l *toolchain.Language, name string) (file string, source []byte, err error) {
	var d dialect
	var ok bool
	language := ""
	for _, language = range []string{l.Name, l.Like} {
		if d, ok = dialects[language]; ok {
			break
		}
	}
	if !ok || len(l.Extensions) == 0 {
		return "", nil, fmt.Errorf("function problems cannot be served in %s; they can in %s", l.Title, strings.Join(Languages(), ", "))
	}
	if language == "c" && function.Class == nil {
		if err := cServes(function); err != nil {
			return "", nil, err
		}
	}
	w := &starter{dialect: d, language: language, function: function, problem: name, name: spelled(function.Name, d.spelling)}
	class, text := w.class(), ""
	if function.Class != nil {
		if class, text, err = startClass(function, l, language); err != nil {
			return "", nil, err
		}
	} else {
		text = d.source(w)
	}
	source = []byte(text)
	file = strings.ReplaceAll(name, " ", "-") + l.Extensions[0]
	if l.Name == "java" {
		file = class + ".java"
	}
	return l.FileName(file, source), source, nil
}

// class is a name for a class, made from that of the problem.
func (w *starter) class() string {
	name := spelled(strings.Map(func(r rune) rune {
		if r == '_' || r >= '0' && r <= '9' || r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' {
			return r
		}
		return '_'
	}, w.problem), pascal)
	if !value.IsName(name) {
		return "Solution"
	}
	return name
}

func (w *starter) kind(t value.Type) string {
	switch t.Kind {
	case value.Array:
		return w.array(w.kind(*t.Of))
	case value.Optional:
		return w.optional(w.kind(*t.Of))
	case value.Any:
		return w.any
	case value.Place:
		return w.kind(*t.Of)
	case value.Map:
		key := w.kinds[t.Key]
		if w.language == "java" || w.language == "kotlin" {
			key = boxed(key)
		}
		held := w.kind(*t.Of)
		if w.language == "java" {
			held = boxed(held)
		}
		return strings.NewReplacer("{key}", key, "{value}", held).Replace(mapForms[w.language])
	case value.Function:
		return map[string]string{"Any": "Callable", "any": "(...args: any[]) => any"}[w.any]
	}
	if t.Kind.IsNodes() {
		return strings.ReplaceAll(w.node(t.Kind), "NODE", nodeShapes[t.Kind].class)
	}
	return w.kinds[t.Kind]
}

// params lists the parameters, each by a format that is given name and type.
func (w *starter) params(format string) string {
	var list []string
	for _, f := range w.function.Takes {
		list = append(list, fmt.Sprintf(format, spelled(f.Name, min(w.spelling, camel)), w.kind(f.Type)))
	}
	return strings.Join(list, ", ")
}

// cppParams lists the parameters in C++, of which one is changed, by its number from 1; 0: none is.
func (w *starter) cppParams(changes int) string {
	var params []string
	for i, f := range w.function.Takes {
		kind := w.kind(f.Type)
		switch {
		case changes == i+1 && !f.Type.Kind.IsNodes(): // whose root stays where it is
			kind += "&"
		case strings.Contains(kind, "std::"):
			kind = "const " + kind + "&"
		}
		params = append(params, kind+" "+spelled(f.Name, camel))
	}
	return strings.Join(params, ", ")
}

// result is the type that is returned; nothing where an argument is changed.
func (w *starter) result(nothing string, several func([]string) string) string {
	if w.function.Changes > 0 && !w.function.UpTo {
		return nothing
	}
	var kinds []string
	for _, f := range w.function.Returns {
		kinds = append(kinds, w.kind(f.Type))
	}
	if len(kinds) == 1 {
		return kinds[0]
	}
	return several(kinds)
}

// around puts text around a type.
func around(before, after string) func(string) string {
	return func(t string) string { return before + t + after }
}

// listed joins several types, with text around them.
func listed(before, after string) func([]string) string {
	return func(kinds []string) string { return before + strings.Join(kinds, ", ") + after }
}

// nodeAs writes what is made of nodes in one way.
func nodeAs(text string) func(value.Kind) string { return func(value.Kind) string { return text } }

func rustNodeType(kind value.Kind) string {
	if kind == value.List {
		return "Option<Box<NODE>>"
	}
	return "Option<Rc<RefCell<NODE>>>"
}

// names lists kinds in the order in which they are declared.
func names(list ...string) map[value.Kind]string {
	m := map[value.Kind]string{}
	for i, name := range list {
		m[value.Kind(i)] = name
	}
	return m
}

var dialects = map[string]dialect{
	"php": {names("int", "int", "string", "float", "bool", "string", "string"), func(string) string { return "array" }, around("?", ""), nodeAs("NODE"), "mixed", camel, func(w *starter) string {
		return fmt.Sprintf("<?php\n\nclass Solution\n{\n    function %s(%s): %s\n    {\n    }\n}\n", w.name, w.params("%[2]s $%[1]s"), w.result("void", func([]string) string { return "array" }))
	}},
	"haskell": {names("Int", "Int", "Integer", "Double", "Bool", "String", "Char"), around("[", "]"), around("Maybe ", ""), nodeAs("NODE"), "", camel, func(w *starter) string {
		var kinds, params []string
		for _, f := range w.function.Takes {
			kinds, params = append(kinds, w.kind(f.Type)), append(params, spelled(f.Name, camel))
		}
		var results []string
		for _, f := range w.function.Results() {
			results = append(results, w.kind(f.Type))
		}
		result := strings.Join(results, ", ")
		if len(results) > 1 {
			result = "(" + result + ")"
		}
		return fmt.Sprintf("%[1]s :: %[2]s\n%[3]s = undefined\n", w.name, strings.Join(append(kinds, result), " -> "), strings.Join(append([]string{w.name}, params...), " "))
	}},
	"ocaml": {names("int", "int", "string", "float", "bool", "string", "char"), around("", " array"), around("", " option"), nodeAs("NODE"), "", snake, func(w *starter) string {
		params := ""
		for _, f := range w.function.Takes {
			params += fmt.Sprintf(" (%s : %s)", spelled(f.Name, snake), w.kind(f.Type))
		}
		if params == "" {
			params = " ()"
		}
		return fmt.Sprintf("let %s%s : %s =\n  failwith \"to be written\"\n", w.name, params, w.result("unit", func(kinds []string) string { return strings.Join(kinds, " * ") }))
	}},
	"nim": {names("int", "int", "string", "float", "bool", "string", "char"), around("seq[", "]"), around("Option[", "]"), nodeAs("NODE"), "", camel, func(w *starter) string {
		params := w.params("%s: %s")
		if n := w.function.Changes; n > 0 {
			name := spelled(w.function.Takes[n-1].Name, camel) + ": "
			params = strings.Replace(params, name, name+"var ", 1)
		}
		result := w.result("", func(kinds []string) string { return "(" + strings.Join(kinds, ", ") + ")" })
		if result != "" {
			result = ": " + result
		}
		imports := ""
		if strings.Contains(params+result, "Option[") {
			imports = "import std/options\n\n"
		}
		return fmt.Sprintf("%sproc %s(%s)%s =\n  discard\n", imports, w.name, params, result)
	}},
	"pascal": {names("longint", "int64", "string", "double", "boolean", "string", "char"), around("", "s"), around("", ""), nodeAs("NODE"), "", camel, startPascal},
	"lua": {names("integer", "integer", "string", "number", "boolean", "string", "string"), around("", "[]"), around("", "?"), nodeAs("NODE"), "any", snake, func(w *starter) string {
		return fmt.Sprintf("-- %s\nfunction %s(%s)\nend\n", w.function, w.name, w.params("%.0[2]s%[1]s"))
	}},
	"perl": {names("int", "int", "string", "num", "bool", "string", "string"), around("", "[]"), around("", "?"), nodeAs("NODE"), "any", snake, func(w *starter) string {
		return fmt.Sprintf("use strict;\nuse warnings;\n\n# %s; arrays are references to them\nsub %s {\n    my (%s) = @_;\n}\n\n1;\n", w.function, w.name, w.params("%.0[2]s$%[1]s"))
	}},
	"clojure": {names("int", "int", "int", "double", "bool", "string", "string"), around("", "[]"), around("", "?"), nodeAs("NODE"), "any", snake, func(w *starter) string {
		return fmt.Sprintf(";; %s\n(defn %s [%s]\n  nil)\n", w.function, strings.ReplaceAll(w.name, "_", "-"), strings.ReplaceAll(strings.ReplaceAll(w.params("%.0[2]s%[1]s"), ", ", " "), "_", "-"))
	}},
	"d": {names("int", "long", "BigInt", "double", "bool", "string", "dchar"), around("", "[]"), around("Nullable!(", ")"), nodeAs("NODE"), "", camel, func(w *starter) string {
		give := "    return typeof(return).init;\n"
		params := w.params("%[2]s %[1]s")
		if w.function.Changes > 0 {
			f := w.function.Takes[w.function.Changes-1]
			params = strings.Replace(params, w.kind(f.Type)+" "+spelled(f.Name, camel), "ref "+w.kind(f.Type)+" "+spelled(f.Name, camel), 1)
			give = ""
		}
		return fmt.Sprintf("import std.algorithm, std.array, std.bigint, std.typecons;\n\n%s %s(%s)\n{\n%s}\n", w.result("void", listed("Tuple!(", ")")), w.name, params, give)
	}},
	"python": {names("int", "int", "int", "float", "bool", "str", "str"), around("list[", "]"), around("", " | None"), nodeAs("Optional[NODE]"), "Any", snake, func(w *starter) string {
		return fmt.Sprintf("def %s(%s) -> %s:\n    pass\n", w.name, w.params("%s: %s"), w.result("None", listed("tuple[", "]")))
	}},
	"javascript": {names("number", "number", "bigint", "number", "boolean", "string", "string"), around("", "[]"), around("(", " | null)"), nodeAs("(NODE | null)"), "any", camel, func(w *starter) string {
		return fmt.Sprintf("// %s\nfunction %s(%s) {\n}\n", w.function, w.name, w.params("%.0[2]s%[1]s"))
	}},
	"typescript": {names("number", "number", "bigint", "number", "boolean", "string", "string"), around("", "[]"), around("(", " | null)"), nodeAs("(NODE | null)"), "any", camel, func(w *starter) string {
		return fmt.Sprintf("function %s(%s): %s {\n  throw new Error('to be written');\n}\n", w.name, w.params("%s: %s"), w.result("void", listed("[", "]")))
	}},
	"ruby": {names("Integer", "Integer", "Integer", "Float", "bool", "String", "String"), around("Array<", ">"), around("", "?"), nodeAs("NODE"), "Object", snake, func(w *starter) string {
		return fmt.Sprintf("# %s\ndef %s(%s)\nend\n", w.function, w.name, w.params("%.0[2]s%[1]s"))
	}},
	"java": {names("int", "long", "BigInteger", "double", "boolean", "String", "char"), around("", "[]"), boxed, nodeAs("NODE"), "Object", camel, func(w *starter) string {
		kind, record := w.result("void", func([]string) string { return "Result" }), ""
		if kind == "Result" {
			record = fmt.Sprintf("    record Result(%s) {}\n\n", w.results("%[2]s %[1]s"))
		}
		return fmt.Sprintf("import java.math.BigInteger;\nimport java.util.*;\n\nclass %s {\n%s    %s %s(%s) {\n        throw new UnsupportedOperationException(\"to be written\");\n    }\n}\n",
			w.class(), record, kind, w.name, w.params("%[2]s %[1]s"))
	}},
	"kotlin": {names("Int", "Long", "BigInteger", "Double", "Boolean", "String", "Char"), kotlinArray, around("", "?"), nodeAs("NODE?"), "Any?", camel, func(w *starter) string {
		kind, class := w.result("Unit", func([]string) string { return "Result" }), ""
		if kind == "Result" {
			class = fmt.Sprintf("data class Result(%s)\n\n", w.results("val %s: %s"))
		}
		return fmt.Sprintf("import java.math.BigInteger\n\n%sfun %s(%s): %s {\n    throw NotImplementedError()\n}\n", class, w.name, w.params("%s: %s"), kind)
	}},
	"scala": {names("Int", "Long", "BigInt", "Double", "Boolean", "String", "Char"), around("Array[", "]"), around("Option[", "]"), nodeAs("NODE"), "", camel, func(w *starter) string {
		return fmt.Sprintf("object Solution {\n  def %s(%s): %s = ???\n}\n", w.name, w.params("%s: %s"), w.result("Unit", listed("(", ")")))
	}},
	"csharp": {names("int", "long", "BigInteger", "double", "bool", "string", "char"), around("", "[]"), func(t string) string {
		return strings.TrimSuffix(t, "?") + map[bool]string{false: "?"}[t == "string" || strings.HasSuffix(t, "[]")]
	}, nodeAs("NODE"), "object", pascal, func(w *starter) string {
		return fmt.Sprintf("using System;\nusing System.Collections.Generic;\nusing System.Linq;\nusing System.Numerics;\n\npublic class %s\n{\n    public %s %s(%s)\n    {\n        throw new NotImplementedException();\n    }\n}\n",
			w.class(), w.result("void", listed("Tuple<", ">")), w.name, w.params("%[2]s %[1]s"))
	}},
	"go": {names("int", "int64", "*big.Int", "float64", "bool", "string", "rune"), around("[]", ""), around("*", ""), nodeAs("*NODE"), "any", camel, func(w *starter) string {
		results := ""
		switch {
		case len(w.function.Returns) > 1:
			results = " (" + w.results("%s %s") + ")"
		case w.function.Changes == 0 || w.function.UpTo:
			results = " (result " + w.kind(w.function.Returns[0].Type) + ")"
		}
		imports := ""
		if text := w.params("%s %s") + results; strings.Contains(text, "big.Int") {
			imports = "import \"math/big\"\n\n"
		}
		return fmt.Sprintf("package main\n\n%sfunc %s(%s)%s {\n\treturn\n}\n", imports, w.name, w.params("%s %s"), results)
	}},
	"rust": {names("i32", "i64", "i128", "f64", "bool", "String", "char"), around("Vec<", ">"), around("Option<", ">"), rustNodeType, "", snake, func(w *starter) string {
		params := w.params("%s: %s")
		if n := w.function.Changes; n > 0 {
			f := w.function.Takes[n-1]
			params = strings.Replace(params, f.Name+": ", f.Name+": &mut ", 1)
		}
		result := w.result("", listed("(", ")"))
		if result != "" {
			result = " -> " + result
		}
		return fmt.Sprintf("pub fn %s(%s)%s {\n    todo!()\n}\n", w.name, params, result)
	}},
	"cpp": {names("int", "long long", "std::string", "double", "bool", "std::string", "char"), around("std::vector<", ">"), around("std::optional<", ">"), nodeAs("NODE*"), "", camel, func(w *starter) string {
		give := "    return {};\n"
		if w.function.Changes > 0 && !w.function.UpTo {
			give = ""
		}
		return fmt.Sprintf("#include <algorithm>\n#include <optional>\n#include <string>\n#include <tuple>\n#include <vector>\n\n%s %s(%s) {\n%s}\n",
			w.result("void", listed("std::tuple<", ">")), w.name, w.cppParams(w.function.Changes), give)
	}},
	"c": {usual, around("", "*"), around("", "*"), nodeAs("struct NODE*"), "", snake, func(w *starter) string {
		kind := w.result("void", func([]string) string { return "void" })
		words := starsAtNames().ReplaceAllString(strings.Join(cWanted(w.function, kind), ", "), " $1$2")
		give := "    return 0;\n"
		if kind == "void" {
			give = ""
		}
		name := strings.TrimRight(kind, "*")
		kind = name + " " + kind[len(name):]
		return fmt.Sprintf("#include <stdbool.h>\n#include <stdlib.h>\n#include <string.h>\n\n%s%s(%s)\n{\n%s}\n", kind, w.name, words, give)
	}},
}

// starsAtNames finds where a star of C stands at its type.
var starsAtNames = lazy.New(`(\*+) +(\**)`)

// startPascal writes a program, in which the types of arrays have names.
func startPascal(w *starter) string {
	types, declared := "", map[string]bool{}
	var named func(t value.Type) string
	named = func(t value.Type) string {
		if t.Kind != value.Array {
			return w.kind(t)
		}
		inner := named(*t.Of)
		name := "T" + strings.ToUpper(inner[:1]) + inner[1:] + "s"
		if strings.HasPrefix(inner, "T") {
			name = inner + "s"
		}
		if !declared[name] {
			declared[name] = true
			types += fmt.Sprintf("  %s = array of %s;\n", name, inner)
		}
		return name
	}
	var params []string
	for i, f := range w.function.Takes {
		one := spelled(f.Name, camel) + ": " + named(f.Type)
		if w.function.Changes == i+1 {
			one = "var " + one
		}
		params = append(params, one)
	}
	results, head := w.function.Returns, "procedure "
	result := ""
	if w.function.Changes == 0 || w.function.UpTo {
		head, result = "function ", ": "+named(results[0].Type)
		for _, f := range results[1:] {
			if !w.function.UpTo {
				params = append(params, "out "+spelled(f.Name, camel)+": "+named(f.Type))
			}
		}
	}
	if types != "" {
		types = "type\n" + types + "\n"
	}
	list := ""
	if len(params) > 0 {
		list = "(" + strings.Join(params, "; ") + ")"
	}
	return fmt.Sprintf("{$mode objfpc}{$H+}\n%s%s%s%s%s;\nbegin\nend;\n\nbegin\nend.\n", types, head, w.name, list, result)
}

// results lists the results, each by a format that is given name and type.
func (w *starter) results(format string) string {
	var list []string
	for _, f := range w.function.Returns {
		list = append(list, fmt.Sprintf(format, spelled(f.Name, camel), w.kind(f.Type)))
	}
	return strings.Join(list, ", ")
}

// boxed is the class of a primitive of Java, which can be null.
func boxed(t string) string {
	switch t {
	case "int":
		return "Integer"
	case "char":
		return "Character"
	case "long", "double", "boolean":
		return strings.ToUpper(t[:1]) + t[1:]
	}
	return t
}

func kotlinArray(t string) string {
	switch t {
	case "Int", "Long", "Double", "Boolean", "Char":
		return t + "Array"
	}
	return "List<" + t + ">"
}
