package call

import (
	"bytes"
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// The drivers of some languages serve single values and arrays of them, to any depth.

// fitPlain is for drivers that look for the function when they run.
func fitPlain(f *fitting) error {
	for _, field := range f.fields() {
		if e, _ := field.Type.Element(); e.Kind > value.Char {
			return refuse("%s has no usual way to pass %s", f.title, field.Type)
		}
	}
	return nil
}

// fitLua refuses what a table cannot hold, too.
func fitLua(f *fitting) error {
	for _, field := range f.fields() {
		if strings.Contains(field.Type.String(), "?[]") {
			return refuse("a table of Lua cannot hold what is absent, as %s may", field.Type)
		}
	}
	return fitPlain(f)
}

// fitPHP begins the source as PHP, where that was left out.
func fitPHP(f *fitting) error {
	if !bytes.Contains(f.source, []byte("<?")) {
		f.source = append([]byte("<?php "), f.source...)
	}
	return fitPlain(f)
}

var (
	moduleOfD = lazy.New(`(?m)^\s*module\s+([\w.]+)\s*;`)
	mainOfD   = lazy.New(`\b(?:void|int|auto)\s+main(\s*\()`)
)

// fitD finds the function, and lets the driver have a main of its own.
func fitD(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	module := regexp.MustCompile(`\W`).ReplaceAllString(stem(f.file), "_")
	if m := moduleOfD().FindStringSubmatch(mask(string(f.source))); m != nil {
		module = m[1]
	} else if module != stem(f.file) {
		f.source = append([]byte("module "+module+"; "), f.source...)
	}
	for _, m := range slices.Backward(mainOfD().FindAllStringSubmatchIndex(mask(string(f.source)), -1)) {
		f.source = slices.Insert(f.source, m[2], []byte("ColdUnused")...)
	}
	s, _, err := f.chosen()
	if err != nil {
		return err
	}
	callee := module + "." + s.path(".")
	f.words["SERVE"] = "serve!(" + callee + ")(r);"
	if len(s.scopes) > 0 {
		owner := module + "." + strings.Join(s.scopes, ".")
		f.words["SERVE"] = "static if (__traits(isStaticFunction, " + callee + ")) serve!(" + callee + ")(r);\n    else\n    {\n" +
			"        alias P = Parameters!(" + callee + ");\n        static auto fresh()() { static if (is(" + owner + " == class)) return new " + owner + "(); else return " + owner + "(); }\n" +
			"        static ReturnType!(" + callee + ") call(P args) { auto o = fresh(); return o." + s.name + "(args); }\n        serve!call(r);\n    }"
	}
	f.words["MODULE"] = module
	return nil
}

// fitScala takes the arguments as the declaration has them, by names that stand where the function does. What
// belongs to no class is put into an object.
func fitScala(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	s, _, err := f.chosen()
	if err != nil {
		return err
	}
	owners := slices.Clone(s.scopes)
	if len(s.classes) == 0 {
		f.source = slices.Concat([]byte("object ColdSource { "), f.source, []byte("\n}\n"))
		owners = append(owners, "ColdSource")
	} else if packaged := packagePrefix(f.source); packaged != "" {
		owners[0] = packaged + owners[0]
	}
	owner := strings.Join(owners, ".")
	f.words["IMPORT"] = "import " + owner + "._"
	if n := len(s.kinds); n > 0 && s.kinds[n-1] != "object" {
		owner = "coldObject"
		f.words["IMPORT"] = "val coldObject = new " + strings.Join(owners, ".") + "\n      import coldObject._"
	}
	params := split(s.params)
	if len(params) < len(f.function.Takes) {
		return otherwiseDeclared(s.name, len(f.function.Takes), "argument", "", len(params))
	}
	var take, arguments []string
	for i := range f.function.Takes {
		_, declared, _ := strings.Cut(params[i], ":")
		declared = strings.TrimPrefix(strings.TrimSpace(declared), "=>")
		if at := defaultAt(declared); at >= 0 {
			declared = declared[:at]
		}
		declared = strings.TrimSpace(declared)
		name := fmt.Sprintf("coldA%d", i+1)
		passed := name
		if one, any := strings.CutSuffix(declared, "*"); any {
			declared, passed = "Seq["+one+"]", name+": _*"
		}
		take = append(take, fmt.Sprintf("      val %s = take[%s](coldReader, %d)", name, declared, i+1))
		arguments = append(arguments, passed)
	}
	f.words["TAKE"] = strings.Join(take, "\n")
	f.words["CALL"] = owner + "." + s.name + "(" + strings.Join(arguments, ", ") + ")"
	f.words["GIVE"] = "coldResult"
	if n := f.function.Changes; n > 0 {
		f.words["GIVE"] = arguments[n-1]
		if f.function.UpTo {
			f.words["GIVE"] = "Vector(coldResult, " + arguments[n-1] + ")"
		}
	}
	return nil
}

var procOfNim = lazy.New("(?m)^(?:proc|func)[ \t]+`?(\\w+)`?")

// fitNim finds the procedure, whose name Nim reads without its underscores and, but for the first letter, its capitals.
func fitNim(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	plainly := func(name string) string {
		return name[:1] + strings.ToLower(strings.ReplaceAll(name[1:], "_", ""))
	}
	for _, m := range procOfNim().FindAllSubmatch(f.source, -1) {
		for _, name := range Spellings(f.function.Name) {
			if plainly(string(m[1])) == plainly(name) {
				f.words["CALLEE"], f.words["MODULE"] = string(m[1]), stem(f.file)
				return nil
			}
		}
	}
	return f.absent()
}

var (
	headOfHaskell   = lazy.New(`(?m)^module\b[^()]*?(?:\((?:[^()]|\([^()]*\))*\)\s*)?\bwhere\b`)
	beginsOfHaskell = lazy.New(`(?m)^[A-Za-z_]`)
)

// typesOfHaskell are what the problem's types are, where a source does not say it.
var typesOfHaskell = map[value.Kind]string{value.Int: "Int", value.Long: "Int", value.BigInt: "Integer", value.Real: "Double", value.Bool: "Bool", value.Text: "String", value.Char: "Char"}

func typeOfHaskell(t value.Type) string {
	switch t.Kind {
	case value.Array:
		return "[" + typeOfHaskell(*t.Of) + "]"
	case value.Optional:
		return "(Maybe " + typeOfHaskell(*t.Of) + ")"
	}
	return typesOfHaskell[t.Kind]
}

// fitHaskell makes a module of the source that exports all it has, and finds the function in it. Where a source
// says nothing of its type, or that it is any of some, it is that of the problem.
func fitHaskell(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	if f.function.Changes > 0 && !f.function.UpTo && len(f.function.Takes) == 0 {
		return f.absent()
	}
	text := maskDashes(string(f.source))
	defined := regexp.MustCompile(`(?m)^(` + strings.Join(Spellings(f.function.Name), "|") + `)\b`).FindStringSubmatch(text)
	if defined == nil {
		return f.absent()
	}
	f.words["CALLEE"] = "ColdSource." + defined[1]
	said := regexp.MustCompile(`(?m)^` + defined[1] + `\s*::(.*(?:\n[ \t]+.*)*)`).FindStringSubmatch(text)
	if said == nil || regexp.MustCompile(`=>|\b[a-z]`).MatchString(said[1]) {
		parts := []string{}
		for _, field := range f.function.Takes {
			parts = append(parts, typeOfHaskell(field.Type))
		}
		var results []string
		for _, field := range f.function.Results() {
			results = append(results, typeOfHaskell(field.Type))
		}
		f.words["CALLEE"] += " :: " + strings.Join(append(parts, "("+strings.Join(results, ", ")+")"), " -> ")
	}
	head := "module ColdSource where"
	if m := headOfHaskell().FindStringIndex(text); m != nil {
		head += strings.Repeat("\n", strings.Count(text[m[0]:m[1]], "\n"))
		f.source = slices.Concat(f.source[:m[0]], []byte(head), f.source[m[1]:])
	} else if m := beginsOfHaskell().FindStringIndex(text); m != nil {
		head += fmt.Sprintf("\n{-# LINE %d %q #-}\n", strings.Count(text[:m[0]], "\n")+1, f.file)
		f.source = slices.Insert(f.source, m[0], []byte(head)...)
	}
	f.words["TUPLES"] = tuplesOfHaskell()
	return nil
}

// tuplesOfHaskell says how results of three to eight parts are written.
func tuplesOfHaskell() string {
	var b strings.Builder
	for n := 3; n <= 8; n++ {
		var needs, parts, types, given, inner []string
		for i := range n {
			v := string(rune('a' + i))
			needs, parts, types = append(needs, "Cold "+v), append(parts, v), append(types, "t"+v)
			given, inner = append(given, "give t"+v+" "+v), append(inner, "give (inner kind) "+v)
		}
		tuple := strings.Join(parts, ", ")
		fmt.Fprintf(&b, "instance (%s) => Cold (%s) where\n  take_ _ = lacks \"a tuple\" \"an array\"\n  give kind (%s) = listed [%s]\n  several (%s : _) (%s) = listed [%s]\n  several (t : _) v = give t v\n",
			strings.Join(needs, ", "), tuple, tuple, strings.Join(inner, ", "), strings.Join(types, " : "), tuple, strings.Join(given, ", "))
	}
	return b.String()
}

// maskDashes blanks comments of Haskell.
func maskDashes(text string) string {
	return commentOfHaskell().ReplaceAllStringFunc(text, blanked)
}

var commentOfHaskell = lazy.New(`(?m)--+(?:[^!#$%&*+./<=>?@\\^|~:\n-].*)?$|(?s:\{-.*?-\})`)

// blanked is as long as a text, and has its lines.
func blanked(text string) string {
	return strings.Map(func(r rune) rune {
		if r == '\n' {
			return r
		}
		return ' '
	}, text)
}
