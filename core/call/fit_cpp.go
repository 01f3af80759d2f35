package call

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// fitCpp lets the driver take the function's address, from which it knows the declared types.
// Of an overload, a template or a function with defaults the address does not say enough: it
// is called as a judge calls it, with the problem's own types, and the compiler chooses.
func fitCpp(f *fitting) error {
	if f.function.Class != nil {
		return f.cppClass()
	}
	s, o, err := f.chosen()
	if err != nil {
		return err
	}
	if err := f.without(value.Any, "C++"); err != nil {
		return err
	}
	nodes, err := f.cppNodes(o)
	if err != nil {
		return err
	}
	if len(f.function.Given) > 0 {
		functions, methods := f.provide("cpp")
		f.words["GIVEN_FUNCTIONS"] = functions
		f.words["PRELUDE"] += "\n" + regexp.MustCompile(`(?m) \{.*$`).ReplaceAllString(functions, ";") + f.baseClasses("cpp", methods)
	}
	if cppViews().MatchString(mask(string(f.source))) {
		nodes += nodeText("views.cpp")
	}
	defer func() { f.words["SETUP"] = nodes + f.words["SETUP"] }()
	params := split(s.params)
	generic := strings.Contains(s.before, "template") || regexp.MustCompile(`\bauto\b`).MatchString(s.params)
	least, most := arity(params)
	takes := len(f.function.Takes)
	switch {
	case least <= takes && takes < most, generic, o.overloads(s) > 1:
		return f.cppByCall(s, params, o.cppOwner(s))
	}
	f.words["SETUP"] = ""
	f.words["SERVE"] = "cold_driver::run(&" + s.path("::") + ");"
	if owner := o.cppOwner(s); owner != "" {
		f.words["SERVE"] = fmt.Sprintf("cold_driver::runOn<%s>(&%s);", owner, s.path("::"))
	}
	return nil
}

// cppOwner is the class whose objects a method is called on: its own, or the last one that is made
// from that; "" for a free function.
func (o *outline) cppOwner(s site) string {
	if len(s.classes) == 0 {
		return ""
	}
	path, name := strings.Join(s.scopes, "::"), s.classes[len(s.classes)-1].name
	for _, t := range o.types {
		if _, bases, ok := strings.Cut(t.header, ":"); ok && !strings.Contains(t.path, "$") && regexp.MustCompile(`\b`+regexp.QuoteMeta(name)+`\b`).MatchString(bases) {
			path, name = strings.Join(append(slices.Clone(s.scopes[:len(s.scopes)-len(s.classes)]), t.name), "::"), t.name
		}
	}
	return "::" + path
}

// cppByCall calls the function with the problem's own types.
func (f *fitting) cppByCall(s site, params []string, class string) error {
	var setup strings.Builder
	var types, args, moved []string
	for i, field := range f.function.Takes {
		param := ""
		if i < len(params) {
			param = params[i]
		}
		fmt.Fprintf(&setup, "typedef %s cold_a%d;\n", cppType(field.Type, param), i)
		types = append(types, fmt.Sprintf("cold_a%d", i))
		args = append(args, fmt.Sprintf("a%d", i))
		moved = append(moved, fmt.Sprintf("std::move(a%d)", i))
	}
	callee, owner := "::"+s.path("::"), "cold_driver::Nothing"
	if class != "" {
		owner, callee = class, "o."+s.name
	}
	lent, any, anyLent := make([]string, len(types)), "class O", "" // the types depend on the template, or a call that does not fit would be an error
	for i, t := range types {
		lent[i] = fmt.Sprintf("%s &a%d", t, i)
		any += fmt.Sprintf(", class A%d", i)
		anyLent += fmt.Sprintf(", A%d &a%[1]d", i)
	}
	list := strings.Join(lent, ", ")
	fmt.Fprintf(&setup, `struct cold_call {
    template <%[6]s> static auto make(int, [[maybe_unused]] O &o%[7]s) -> decltype(%[2]s(%[3]s)) { return %[2]s(%[3]s); }
    template <%[6]s> static auto make(long, [[maybe_unused]] O &o%[7]s) -> decltype(%[2]s(%[4]s)) { return %[2]s(%[4]s); }
    cold_driver::Fresh<%[5]s> fresh;
    auto operator()(%[1]s) -> decltype(make(0, fresh.value(), %[3]s)) { return make(0, fresh.value(), %[3]s); }
};
`, list, callee, strings.Join(args, ", "), strings.Join(moved, ", "), owner, any, anyLent)
	f.words["SETUP"] = setup.String()
	for i, t := range types {
		types[i] = t + " &"
	}
	f.words["SERVE"] = fmt.Sprintf("cold_driver::runCall<cold_call, %s>();", strings.Join(types, ", "))
	return nil
}

var (
	cppViews     = lazy.New(`\b(?:views|ranges)\s*::|\bgenerator\s*<`)
	cppContainer = lazy.New(`\b(?:vector|deque|list|multiset|unordered_set|set)\b`)
	cppNumber    = lazy.New(`\b(?:unsigned\s+)?(?:long\s+long(?:\s+int)?|long\s+double|u?int(?:8|16|32|64)_t|long|short|int|unsigned|size_t|double|float|ll|i64|__int128)\b`)
)

// cppPointer is a pointer to a class, whose name it has.
var cppPointer = lazy.New(`([A-Za-z_]\w*)\s*\*`)

// cppType is how a judge declares an argument, or, where the parameter says it otherwise in
// words that are known, that.
func cppType(t value.Type, param string) string {
	number := cppNumber().FindString(param)
	switch number {
	case "ll", "i64":
		number = "long long"
	}
	var of func(t value.Type) string
	containers := cppContainer().FindAllString(param, -1)
	of = func(t value.Type) string {
		switch t.Kind {
		case value.Array:
			container := "vector"
			if len(containers) > 0 {
				container, containers = containers[0], containers[1:]
			}
			return "std::" + container + "<" + of(*t.Of) + ">"
		case value.Optional:
			return "std::optional<" + of(*t.Of) + ">"
		case value.Place:
			return of(*t.Of)
		case value.Map:
			return "std::map<" + dialects["cpp"].kinds[t.Key] + ", " + of(*t.Of) + ">"
		case value.List, value.List2, value.Tree, value.Nary, value.Graph:
			class := nodeShapes[t.Kind].class
			if m := cppPointer().FindStringSubmatch(param); m != nil {
				class = m[1]
			}
			return class + " *"
		case value.Int, value.Long, value.Real:
			if number != "" {
				return number
			}
		}
		return dialects["cpp"].kinds[t.Kind]
	}
	return of(t)
}
