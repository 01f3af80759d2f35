package call

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// In C a class is a struct, and functions whose names begin with its own: what makes an object returns a pointer
// to it (cacheCreate, cache_new), methods take that first (cacheGet, cache_put), and what frees it may be there.

var calledInC = lazy.New(`\b(\w+)\s*\(`)

// cMethod finds a function whose name is that of the class and one of some endings, in any spelling.
func (f *fitting) cMethod(o *outline, endings ...string) (site, bool) {
	plain := func(name string) string { return strings.ToLower(strings.ReplaceAll(name, "_", "")) }
	for _, ending := range endings {
		for _, m := range calledInC().FindAllStringSubmatch(o.text, -1) {
			if plain(m[1]) != plain(f.function.Name+ending) {
				continue
			}
			if sites := outlined(f.source, []string{m[1]}).sites; len(sites) > 0 {
				return sites[0], true
			}
		}
	}
	return site{}, false
}

// cClass writes what reads and makes the calls of a class.
func (f *fitting) cClass() error {
	o := outlined(f.source, nil)
	class := f.function.Class
	nodes, err := f.cNodes(o)
	if err != nil {
		return err
	}
	f.words["NODES"] = nodes
	var helpers, steps strings.Builder
	object := ""
	for i, m := range append([]problem.Method{{Name: "new", Takes: class.New}}, class.Methods...) {
		endings := []string{m.Name}
		if i == 0 {
			endings = []string{"create", "new", "init", "make", "constructor"}
		}
		s, ok := f.cMethod(o, endings...)
		if !ok {
			wanted := spelled(f.function.Name, camel) + spelled(endings[0], pascal)
			return refuse("there is no function %s in %s; in C the functions of a class begin with its name", wanted, f.file)
		}
		one := problem.Call{Name: s.name, Takes: m.Takes}
		if m.Returns != nil {
			one.Returns = []value.Field{{Type: *m.Returns}}
		} else {
			one.Returns = []value.Field{{Type: value.Type{Kind: value.Int}}} // nothing
		}
		if err := cServes(&one); err != nil {
			return err
		}
		w := &cWriter{function: s.name, params: split(s.params)}
		if len(w.params) == 1 && w.params[0] == "void" {
			w.params = nil
		}
		returned := cType(s.before)
		if i == 0 {
			if object = returned; !strings.HasSuffix(object, "*") {
				return refuse("%s returns %s; what makes an object returns a pointer to it", s.name, object)
			}
		} else if len(w.params) == 0 || !strings.HasSuffix(w.next(), "*") {
			return refuse("%s does not take a %s first", s.name, object)
		}
		wanted := cWanted(&one, returned)
		if i == 0 || m.Returns == nil {
			wanted = cWanted(&problem.Call{Takes: m.Takes, Changes: 1}, returned)
		}
		if len(wanted) != len(w.params) {
			return otherwiseDeclared(s.name, len(wanted), "parameter", " ("+strings.Join(wanted, ", ")+")", len(w.params))
		}
		var again strings.Builder
		for j, field := range m.Takes {
			if err := w.argument(j, field, false); err != nil {
				return err
			}
			again.WriteString(w.again(j, field))
		}
		give := "cold_say(\"null\")"
		if i > 0 && m.Returns != nil {
			var err error
			if give, err = w.result(*m.Returns, returned); err != nil {
				return err
			}
		}
		if len(m.Takes) == 0 {
			w.take.WriteString("        cold_next();\n")
		}
		invoke := strings.Join(w.args, ", ")
		switch {
		case i == 0:
			invoke = fmt.Sprintf("cold_objects[cold_object] = %s(%s)", s.name, invoke)
		case len(w.args) == 0:
			invoke = fmt.Sprintf("%s(cold_objects[cold_object])", s.name)
		default:
			invoke = fmt.Sprintf("%s(cold_objects[cold_object], %s)", s.name, invoke)
		}
		if i > 0 && m.Returns != nil && returned != "void" {
			invoke = returned + " cold_result = " + invoke
		}
		if i > 0 && m.Returns != nil && returned == "void" {
			return refuse("%s returns nothing, and the problem asks for %s", s.name, m.Returns)
		}
		own := strings.NewReplacer("cold_array_", fmt.Sprintf("cold_array_%d_", i), "cold_rows_", fmt.Sprintf("cold_rows_%d_", i))
		helpers.WriteString(own.Replace(w.helpers.String()))
		steps.WriteString(own.Replace(fmt.Sprintf("    if (!strcmp(cold_name, %q)) {\n%s        cold_next();\n        cold_uses();\n%s        if (cold_misfit[0]) return;\n        long long cold_began = cold_now();\n        %s;\n        cold_spent[cold_steps] = cold_now() - cold_began;\n        %s;\n%s%s        return;\n    }\n",
			m.Name, w.take.String(), again.String(), invoke, give, w.give.String(), w.free.String())))
	}
	free := ""
	if s, ok := f.cMethod(o, "free", "destroy", "delete", "dispose"); ok && len(split(s.params)) == 1 {
		free = fmt.Sprintf("        if (cold_objects[i]) %s(cold_objects[i]);\n", s.name)
	}
	f.words["HELPERS"] = strings.NewReplacer("OBJECT", object, "HELPERS", helpers.String(), "STEPS", steps.String(), "FREE", free).Replace(nodeText("sequences.c"))
	f.words["TAKE"], f.words["FREE"] = "        cold_sequence();", ""
	f.words["CALL"] = "            cold_spent_in_all(&cold_spent);"
	return nil
}

// again reads an argument anew from what an earlier call returned.
func (w *cWriter) again(i int, field value.Field) string {
	_, depth := field.Type.Element()
	take := fmt.Sprintf("cold_lacks(\"is what an earlier call returned, and C cannot hand on %s\");", field.Type)
	name := fmt.Sprintf("a%d", i)
	switch {
	case depth == 1:
		take = fmt.Sprintf("%[1]s = cold_array_%[1]s(&%[1]s_length_wide);\n            %[1]s_length = %[1]s_length_wide;", name)
	case depth == 2:
		take = fmt.Sprintf("%[1]s = cold_rows_%[1]s(&%[1]s_length_wide, &%[1]s_lengths);\n            %[1]s_length = %[1]s_length_wide;", name)
	case field.Type.Kind != value.Optional:
		// As it was read before: "int a0 = READ;".
		text := w.take.String()
		text = text[strings.LastIndex(text, name+" = "):]
		take = strings.TrimSpace(text)
	}
	return fmt.Sprintf("        if (cold_handed(%d)) {\n            %s\n            cold_back();\n        }\n", i, take)
}

// startClassInC is a source to begin with: a struct, and what makes one, does its methods, and frees it.
func startClassInC(function *problem.Call) (class, text string, err error) {
	class = spelled(function.Name, pascal)
	begins := spelled(function.Name, camel)
	var b strings.Builder
	fmt.Fprintf(&b, "#include <stdbool.h>\n#include <stdlib.h>\n#include <string.h>\n\ntypedef struct {\n    int unused;\n} %s;\n", class)
	write := func(kind, name, first string, takes []value.Field, returns *value.Type, body string) error {
		one := &problem.Call{Takes: takes, Changes: 1}
		if returns != nil {
			one = &problem.Call{Takes: takes, Returns: []value.Field{{Type: *returns}}}
		}
		if err := cServes(&problem.Call{Takes: takes, Returns: one.Returns}); err != nil {
			return err
		}
		params := cWanted(one, kind)
		if first != "" {
			params = slices.Insert(params, 0, first)
		}
		list := starsAtNames().ReplaceAllString(strings.Join(params, ", "), " $1$2")
		if list == "" {
			list = "void"
		}
		plain := strings.TrimRight(kind, "*")
		fmt.Fprintf(&b, "\n%s %s%s%s(%s)\n{\n%s}\n", plain, kind[len(plain):], begins, name, list, body)
		return nil
	}
	if err := write(class+"*", "Create", "", function.Class.New, nil, fmt.Sprintf("    return calloc(1, sizeof(%s));\n", class)); err != nil {
		return "", "", err
	}
	for _, m := range function.Class.Methods {
		kind, body := "void", ""
		if m.Returns != nil {
			w := &starter{dialect: dialects["c"], language: "c", function: function}
			kind, body = w.kind(*m.Returns), "    return 0;\n"
			if isPointer(*m.Returns) || m.Returns.Kind == value.Optional && isPointer(*m.Returns.Of) {
				kind = "char*"
			}
		}
		if err := write(kind, spelled(m.Name, pascal), class+" *self", m.Takes, m.Returns, body); err != nil {
			return "", "", err
		}
	}
	fmt.Fprintf(&b, "\nvoid %sFree(%s *self)\n{\n    free(self);\n}\n", begins, class)
	return class, b.String(), nil
}
