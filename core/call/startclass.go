package call

import (
	"fmt"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
)

// A classForm is how a language writes an empty class. In its texts stand {class}, its name; {method}, that of
// a method; {params}, what it takes, and {more}, the same with a comma before it; {result}, what it returns.
type classForm struct {
	begin, maker, method, end string
	param                     string // a format that is given name and type
	nothing                   string // the type of what returns nothing
	gives                     string // what a method does that returns something
}

var classForms = map[string]classForm{
	"python":     {"class {class}:\n", "    def __init__(self{more}):\n        pass\n", "\n    def {method}(self{more}) -> {result}:\n        pass\n", "", "%s: %s", "None", ""},
	"javascript": {"class {class} {\n", "  constructor({params}) {\n  }\n", "\n  {method}({params}) {\n  }\n", "}\n", "%.0[2]s%[1]s", "", ""},
	"typescript": {"class {class} {\n", "  constructor({params}) {\n  }\n", "\n  {method}({params}): {result} {\n{gives}  }\n", "}\n", "%s: %s", "void",
		"    throw new Error('to be written');\n"},
	"ruby": {"class {class}\n", "  def initialize({params})\n  end\n", "\n  def {method}({params})\n  end\n", "end\n", "%.0[2]s%[1]s", "", ""},
	"java": {"import java.math.BigInteger;\nimport java.util.*;\n\nclass {class} {\n", "    public {class}({params}) {\n    }\n", "\n    public {result} {method}({params}) {\n{gives}    }\n", "}\n",
		"%[2]s %[1]s", "void", "        throw new UnsupportedOperationException(\"to be written\");\n"},
	"kotlin": {"import java.math.BigInteger\n\nclass {class}({params}) {\n", "", "\n    fun {method}({params}): {result} {\n{gives}    }\n", "}\n", "%s: %s", "Unit", "        throw NotImplementedError()\n"},
	"csharp": {"using System;\nusing System.Collections.Generic;\nusing System.Linq;\nusing System.Numerics;\n\npublic class {class}\n{\n", "    public {class}({params})\n    {\n    }\n",
		"\n    public {result} {method}({params})\n    {\n{gives}    }\n", "}\n", "%[2]s %[1]s", "void", "        throw new NotImplementedException();\n"},
	"go":   {"package main\n\ntype {class} struct {\n}\n", "\nfunc Constructor({params}) {class} {\n\treturn {class}{}\n}\n", "\nfunc (o *{class}) {method}({params}) {result}{\n{gives}}\n", "", "%s %s", "", "\treturn\n"},
	"rust": {"struct {class} {\n}\n\nimpl {class} {\n", "    fn new({params}) -> Self {\n        {class} {}\n    }\n", "\n    fn {method}(&mut self{more}){result} {\n{gives}    }\n", "}\n", "%s: %s", "", "        todo!()\n"},
	"cpp": {"#include <algorithm>\n#include <optional>\n#include <string>\n#include <vector>\n\nclass {class} {\npublic:\n", "    {class}({params}) {\n    }\n", "\n    {result} {method}({params}) {\n{gives}    }\n", "};\n",
		"%[2]s %[1]s", "void", "        return {};\n"},
}

// startClass is a source to begin with, the empty class, whose name it returns.
func startClass(function *problem.Call, l *toolchain.Language, language string) (class, text string, err error) {
	if language == "c" {
		return startClassInC(function)
	}
	form, ok := classForms[language]
	if !ok {
		return "", "", fmt.Errorf("problems that ask for a class cannot be served in %s", l.Title)
	}
	d := dialects[language]
	class = spelled(function.Name, pascal)
	if language == "go" {
		d.spelling = pascal
	}
	written := func(text, name string, takes []value.Field, returns *value.Type) string {
		w := &starter{dialect: d, language: language, function: &problem.Call{Takes: takes}}
		params := w.params(form.param)
		if language == "cpp" {
			params = w.cppParams(0)
		}
		more, result, gives := "", form.nothing, ""
		if params != "" {
			more = ", " + params
		}
		if returns != nil {
			result, gives = w.kind(*returns), form.gives
			switch language {
			case "go":
				result = "(result " + result + ") "
			case "rust":
				result = " -> " + result
			}
		}
		return strings.NewReplacer("{class}", class, "{method}", spelled(name, d.spelling), "{params}", params, "{more}", more, "{result}", result, "{gives}", gives).Replace(text)
	}
	var b strings.Builder
	b.WriteString(written(form.begin+form.maker, "", function.Class.New, nil))
	for _, m := range function.Class.Methods {
		b.WriteString(written(form.method, m.Name, m.Takes, m.Returns))
	}
	b.WriteString(form.end)
	text = b.String()
	if strings.Count(text, "BigInteger") == 1 { // it is only imported
		text = strings.NewReplacer("import java.math.BigInteger;\n", "", "import java.math.BigInteger\n\n", "").Replace(text)
	}
	if language == "go" && strings.Contains(text, "*big.Int") {
		text = strings.Replace(text, "package main\n", "package main\n\nimport \"math/big\"\n", 1)
	}
	return class, text, nil
}
