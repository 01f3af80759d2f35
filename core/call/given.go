package call

import (
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// Functions that a site provides are there for the source in every form in which sites provide them: as a free
// function, as a method of a class that the source's own is made from, and as a method of its own.

// given tells drivers of the functions that are provided: of each its name, its spellings and the type of what it
// returns.
func (f *fitting) given() string {
	list := []any{}
	for _, g := range f.function.Given {
		list = append(list, []any{g.Name, Spellings(g.Name), g.Returns.String()})
	}
	text, _ := json.Marshal(list) // of texts alone
	return string(text)
}

// A givenForm is how a language writes a function that asks the judge. In its texts stand {name}, one of its
// spellings, {asked}, its name, {params}, {args} and {more}, the same with a comma before it, and {result}.
type givenForm struct {
	function, method string // a free function, and one of a class; empty: there are none
	class            string // with {name}, {methods} and {wanted}, what must be there of the solution itself
	param            string // a format that is given name and type
}

var givenForms = map[string]givenForm{
	"cpp":    {"{result} {name}({params}) { return cold_driver::asked<{result}>(\"{asked}\"{more}); }\n", "{result} {name}({params}) { return ::{name}({args}); } ", "struct {name} { {methods}};\n", "%[2]s %[1]s"},
	"java":   {"", "static {result} {name}({params}) { return ({result}) ColdDriver.asked(\"{asked}\", {result}.class{more}); } ", "class {name} { {methods}}\n", "%[2]s %[1]s"},
	"csharp": {"", "protected {result} {name}({params}) { return ({result})ColdDriver.Asked(\"{asked}\", typeof({result}){more}); } ", "public class {name} { {methods}}\n", "%[2]s %[1]s"},
	"kotlin": {"fun {name}({params}): {result} = Class.forName(\"ColdDriver\").getDeclaredMethod(\"asked\", String::class.java, Class::class.java, Array<Any?>::class.java).invoke(null, \"{asked}\", {result}::class.java, arrayOf<Any?>({args})) as {result}\n",
		"", "abstract class {name} { {wanted}}\n", "%s: %s"},
	"go":         {"func {name}({params}) (result {result}) {\n\tcoldQuestion(&result, \"{asked}\"{more})\n\treturn result\n}\n\n", "", "", "%s %s"},
	"typescript": {"declare function {name}({params}): {result};\n", "{name}({params}): {result}; ", "declare class {name} { {methods}}\n", "%s: %s"},
}

// provide writes the functions that are provided in a language, whose names the source does not have itself.
func (f *fitting) provide(language string) (functions, methods string) {
	form, w := givenForms[language], starter{dialect: dialects[language]}
	for _, g := range f.function.Given {
		var params, args []string
		for i, field := range g.Takes {
			name := fmt.Sprintf("a%d", i)
			params, args = append(params, fmt.Sprintf(form.param, name, w.kind(field.Type))), append(args, name)
		}
		more := ""
		if len(args) > 0 {
			more = ", " + strings.Join(args, ", ")
		}
		for _, name := range Spellings(g.Name) {
			fill := strings.NewReplacer("{name}", name, "{asked}", g.Name, "{params}", strings.Join(params, ", "), "{args}", strings.Join(args, ", "), "{more}", more, "{result}", w.kind(g.Returns))
			functions, methods = functions+fill.Replace(form.function), methods+fill.Replace(form.method)
		}
	}
	return functions, methods
}

// baseOf finds what a class of the source is made from, by language.
var baseOf = map[string]lazy.Regexp{
	"cpp": lazy.New(`\b(?:class|struct)\s+\w+\s*:\s*(?:public\s+)?(\w+)`), "java": lazy.New(`\bclass\s+\w+\s+extends\s+(\w+)`),
	"csharp": lazy.New(`\bclass\s+\w+\s*:\s*(\w+)`), "kotlin": lazy.New(`\bclass\s+\w+\s*(?:\(\s*\))?\s*:\s*(\w+)\s*\(\s*\)`),
	"typescript": lazy.New(`\bclass\s+\w+\s+extends\s+(\w+)`),
}

// undeclaredBases are the classes from which others are made and which the source does not declare.
func (f *fitting) undeclaredBases(language string) (names []string) {
	for _, m := range baseOf[language]().FindAllStringSubmatch(mask(string(f.source)), -1) {
		if !classDeclared(f.source, m[1]) && !slices.Contains(names, m[1]) {
			names = append(names, m[1])
		}
	}
	return names
}

// baseClasses are the classes that the source is made from, with what is provided as their methods.
func (f *fitting) baseClasses(language, methods string) (text string) {
	for _, name := range f.undeclaredBases(language) {
		wanted := ""
		if language == "kotlin" && regexp.MustCompile(`\boverride\s+fun\b`).Match(f.source) {
			w := starter{dialect: dialects[language], function: f.function}
			wanted = fmt.Sprintf("abstract fun %s(%s): %s ", spelled(f.function.Name, camel), w.params("%s: %s"), w.result("Unit", func([]string) string { return "Any" }))
		}
		text += strings.NewReplacer("{name}", name, "{methods}", methods, "{wanted}", wanted).Replace(givenForms[language].class)
	}
	return text
}

// provideMethods makes the class of the function one that has what is provided, where it is made from no other.
func (f *fitting) provideMethods(language, class string) {
	_, methods := f.provide(language)
	if bases := f.baseClasses(language, methods); bases != "" || class == "" {
		f.behind(bases)
		return
	}
	word := map[string]string{"java": " extends ", "csharp": " : "}[language]
	header := regexp.MustCompile(`\bclass\s+` + regexp.QuoteMeta(class) + `\b(\s*\{)`)
	if m := header.FindSubmatchIndex([]byte(mask(string(f.source)))); m != nil {
		f.source = slices.Insert(f.source, m[2], []byte(word+givenClass)...)
		f.behind(strings.NewReplacer("{name}", givenClass, "{methods}", methods).Replace(givenForms[language].class))
	}
}

// givenClass is the name of a class that has what is provided.
const givenClass = "ColdGiven"

// provideInC writes the functions that are provided: how they are declared, before the source, and what they do,
// behind it. Where the source declares one itself, what that returns is taken.
func (f *fitting) provideInC() (declared, functions string, err error) {
	for _, g := range f.function.Given {
		for _, field := range append(slices.Clone(g.Takes), value.Field{Name: g.Name, Type: g.Returns}) {
			if e, depth := field.Type.Element(); hasOptional(field.Type) || usual[e.Kind] == "" || depth > 2 {
				return "", "", refuse("C has no usual way to provide %s, which takes or returns %s", g.Name, field.Type)
			}
		}
		for _, name := range Spellings(g.Name) {
			head, body, err := f.givenInC(g, name)
			if err != nil {
				return "", "", err
			}
			declared, functions = declared+head+";\n", functions+body
		}
	}
	if functions != "" {
		functions = nodeText("given.c") + functions
	}
	return declared, functions, nil
}

// givenInC writes one spelling of a function that is provided. An array that it returns has its length, and
// those of its rows, written to pointers behind all else.
func (f *fitting) givenInC(g problem.Given, name string) (head, function string, err error) {
	w := &cWriter{}
	var params []string
	ask := fmt.Sprintf("    struct cold_text cold_before = cold_question(%q);\n", g.Name)
	for i, field := range g.Takes {
		if i > 0 {
			ask += "    cold_say(\",\");\n"
		}
		e, depth := field.Type.Element()
		one := fmt.Sprintf("a%d", i)
		params = append(params, usual[e.Kind]+" "+strings.Repeat("*", depth)+one)
		if depth == 0 {
			ask += "    " + put(field.Type, one) + "\n"
			continue
		}
		given := &cWriter{}
		given.giveArray(e, depth, one, one+"_length", one+"_lengths")
		ask += given.give.String()
		if params = append(params, "int "+one+"_length"); depth == 2 {
			params = append(params, "int *"+one+"_lengths")
		}
	}
	e, depth := g.Returns.Element()
	result := usual[e.Kind] + strings.Repeat("*", depth)
	if own := declaredInC(f.source, name); own != "" {
		result = own
	}
	base := strings.TrimSuffix(result, strings.Repeat("*", depth))
	read, err := w.read(e, base)
	if err != nil {
		return "", "", err
	}
	switch own := "given_" + name; depth {
	case 1:
		w.array(own, base, read)
		params = append(params, "int *returned_length")
		read = fmt.Sprintf("cold_array_%s(&cold_length)", own)
	case 2:
		w.array(own, base, read)
		w.lengths(own, base, "int")
		params = append(params, "int *returned_length", "int **returned_lengths")
		read = fmt.Sprintf("cold_rows_%s(&cold_length, returned_lengths)", own)
	}
	if len(params) == 0 {
		params = []string{"void"}
	}
	head = fmt.Sprintf("%s %s(%s)", result, name, strings.Join(params, ", "))
	function = fmt.Sprintf("%s%s {\n%s    cold_asks(cold_before);\n    long long cold_length = 0;\n    %s cold_result = %s;\n    while (cold_peek() >= 0 && cold_next() != '\\n') {}\n", w.helpers.String(), head, ask, result, read)
	if depth > 0 {
		function += "    *returned_length = cold_length;\n"
	}
	return head, function + "    (void)cold_length;\n    return cold_result;\n}\n", nil
}

// declaredInC is what a function returns by a declaration in the source, outside of all functions; empty: there
// is none.
func declaredInC(source []byte, name string) string {
	text := mask(string(source))
	for _, m := range regexp.MustCompile(`(?m)^[ \t]*(?:extern\s+)?(\w[\w ]*?[\s*]+)`+name+`\s*\([^)]*\)\s*;`).FindAllStringSubmatchIndex(text, -1) {
		if strings.Count(text[:m[0]], "{") == strings.Count(text[:m[0]], "}") {
			return cType(text[m[2]:m[3]])
		}
	}
	return ""
}

// provideInRust adds the functions that are provided, free and as methods of the solution's own type.
func (f *fitting) provideInRust(owner string) {
	text := mask(string(f.source))
	w := starter{dialect: dialects["rust"], language: "rust"}
	free, methods := "", ""
	for _, g := range f.function.Given {
		var params, args []string
		for i, field := range g.Takes {
			params = append(params, fmt.Sprintf("a%d: %s", i, w.kind(field.Type)))
			args = append(args, fmt.Sprintf("&a%d", i))
		}
		for _, name := range Spellings(g.Name) {
			if regexp.MustCompile(`\bfn\s+` + name + `\b`).MatchString(text) {
				continue
			}
			body := fmt.Sprintf(" -> %s { cold_driver::asked(%q, &[%s]) }\n", w.kind(g.Returns), g.Name, strings.Join(args, ", "))
			free += fmt.Sprintf("#[allow(non_snake_case, dead_code)]\nfn %s(%s)%s", name, strings.Join(params, ", "), body)
			self := []string{"&self"}
			if regexp.MustCompile(`\b(?:Self|` + regexp.QuoteMeta(owner) + `)\s*::\s*` + name + `\b`).MatchString(text) {
				self = nil
			}
			methods += fmt.Sprintf("    #[allow(non_snake_case, dead_code)]\n    fn %s(%s)%s", name, strings.Join(append(self, params...), ", "), body)
		}
	}
	f.behind(free)
	if owner != "" && methods != "" {
		f.behind("impl " + owner + " {\n" + methods + "}\n")
	}
}
