package call

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// OCaml has neither overloading nor reflection: how a value is read and written is put together from its type, as
// the source declares it. Where it declares none, it is that of the problem; an array is a list then, or an array,
// as the source uses them, and the other one where it does not build so.

// fitOCaml finds the function, and writes how it is called.
func fitOCaml(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	text := maskOCaml(string(f.source))
	m := regexp.MustCompile(`(?m)^let\s+(?:rec\s+)?(` + strings.Join(Spellings(f.function.Name), "|") + `)\b|^and\s+(` + strings.Join(Spellings(f.function.Name), "|") + `)\b`).FindStringSubmatchIndex(text)
	if m == nil {
		return f.absent()
	}
	holds := "list"
	if usesArrays().MatchString(text) {
		holds = "array"
	}
	if f.second {
		holds = map[string]string{"list": "array", "array": "list"}[holds]
	}
	params, result := declaredInOCaml(text[m[1]:])
	if len(params) == 0 && result == "" {
		params = make([]string, len(f.function.Takes)) // fun a b -> …, function …
	}
	if len(params) < len(f.function.Takes) && strings.Contains(result, "->") { // the type of the whole
		parts := splitAt(result, "->")
		params, result = append(params, parts[:len(parts)-1]...), parts[len(parts)-1]
	}
	if len(f.function.Takes) == 0 && len(params) == 1 {
		params = nil
	}
	if len(params) < len(f.function.Takes) && result == "" && functionWordOCaml().MatchString(text[m[1]:]) {
		params = append(params, make([]string, len(f.function.Takes)-len(params))...)
	}
	if len(params) != len(f.function.Takes) {
		return otherwiseDeclared("the function", len(f.function.Takes), "argument", "", len(params))
	}
	kinds := make([]string, len(params))
	var b strings.Builder
	args := ""
	for i, field := range f.function.Takes {
		if kinds[i] = params[i]; kinds[i] == "" || strings.Contains(kinds[i], "'") {
			kinds[i] = typeOfOCaml(field.Type, holds)
		}
		how, err := howOCaml("take", kinds[i], field.Type)
		if err != nil {
			return err
		}
		fmt.Fprintf(&b, "    let a%d = argument %d %s in\n", i+1, i+1, how)
		args += fmt.Sprintf(" a%d", i+1)
	}
	if args == "" {
		args = " ()"
	}
	// The text is a name of the source's, which lies before the driver.
	fmt.Fprintf(&b, "    starts ();\n    let result = returned (%s%s) in\n", string(f.source[max(m[2], m[4]):max(m[3], m[5])]), args)
	results := f.function.Results()
	var gives []string
	whole := func(kind string, fields []value.Field) error {
		parts := splitAt(kind, "*")
		if len(fields) > 1 && len(parts) == len(fields) {
			var names []string
			for i := range parts {
				names = append(names, fmt.Sprintf("r%d", i+1))
			}
			fmt.Fprintf(&b, "    let (%s) = result in\n", strings.Join(names, ", "))
			for i, part := range parts {
				how, err := howOCaml("give", part, fields[i].Type)
				if err != nil {
					return err
				}
				gives = append(gives, fmt.Sprintf("%s r%d", how, i+1))
			}
			return nil
		}
		how, err := howOCaml("give", kind, fields[0].Type)
		gives = append(gives, how+" result")
		return err
	}
	if result == "" || strings.Contains(result, "'") {
		var kinds []string
		for i, field := range results {
			if f.function.UpTo && i == 1 || f.function.Changes > 0 && !f.function.UpTo {
				continue
			}
			kinds = append(kinds, typeOfOCaml(field.Type, holds))
		}
		result = strings.Join(kinds, " * ")
		if len(kinds) == 0 {
			result = "unit"
		}
	}
	if f.function.Changes == 0 || f.function.UpTo {
		fields := results
		if f.function.UpTo {
			fields = results[:1]
		}
		if err := whole(result, fields); err != nil {
			return err
		}
	} else {
		b.WriteString("    ignore result;\n")
	}
	if n := f.function.Changes; n > 0 {
		how, err := howOCaml("give", kinds[n-1], f.function.Takes[n-1].Type)
		if err != nil {
			return err
		}
		gives = append(gives, fmt.Sprintf("%s a%d", how, n))
	}
	if len(gives) == 1 {
		b.WriteString("    " + gives[0])
	} else {
		b.WriteString("    give_several [(fun () -> " + strings.Join(gives, "); (fun () -> ") + ")]")
	}
	f.words["CALL"] = b.String()
	return nil
}

var (
	usesArrays        = lazy.New(`\bArray\.|\.\(|\[\|`)
	functionWordOCaml = lazy.New(`^[^\n=]*=\s*fun(?:ction)?\b`)
	commentOfOCaml    = lazy.New(`(?s)\(\*.*?\*\)|"(?:[^"\\]|\\.)*"`)
)

// maskOCaml blanks comments and texts.
func maskOCaml(text string) string { return commentOfOCaml().ReplaceAllStringFunc(text, blanked) }

// declaredInOCaml reads what stands between a function's name and its "=": the types of its parameters, empty
// where none is given, and of its result.
func declaredInOCaml(text string) (params []string, result string) {
	depth, from := 0, 0
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '(' || c == '[' || c == '{':
			if depth++; depth == 1 {
				from = i + 1
			}
		case c == ')' || c == ']' || c == '}':
			if depth--; depth == 0 {
				_, kind, _ := strings.Cut(text[from:i], ":")
				params = append(params, strings.TrimSpace(kind))
			}
		case depth > 0:
		case c == '=':
			return params, ""
		case c == ':':
			kind, _, _ := strings.Cut(text[i+1:], "=")
			return params, strings.Join(strings.Fields(kind), " ")
		case c == '_' || c >= 'a' && c <= 'z':
			to := i
			for to < len(text) && (text[to] == '_' || text[to] == '\'' || text[to] >= '0' && text[to] <= '9' || text[to] >= 'A' && text[to] <= 'Z' || text[to] >= 'a' && text[to] <= 'z') {
				to++
			}
			params = append(params, "")
			i = to - 1
		}
	}
	return params, ""
}

// splitAt splits a type where a word lies in no parentheses.
func splitAt(text, at string) (parts []string) {
	depth, from := 0, 0
	for i := range len(text) {
		switch {
		case text[i] == '(':
			depth++
		case text[i] == ')':
			depth--
		case depth == 0 && strings.HasPrefix(text[i:], at):
			parts = append(parts, strings.TrimSpace(text[from:i]))
			from = i + len(at)
		}
	}
	parts = append(parts, strings.TrimSpace(text[from:]))
	if len(parts) == 1 && strings.HasPrefix(parts[0], "(") && strings.HasSuffix(parts[0], ")") {
		return splitAt(parts[0][1:len(parts[0])-1], at)
	}
	return parts
}

var kindsOfOCaml = map[value.Kind]string{value.Int: "int", value.Long: "int", value.BigInt: "string", value.Real: "float", value.Bool: "bool", value.Text: "string", value.Char: "char"}

// typeOfOCaml is a type where a source declares none.
func typeOfOCaml(t value.Type, holds string) string {
	switch t.Kind {
	case value.Array:
		return typeOfOCaml(*t.Of, holds) + " " + holds
	case value.Optional:
		return typeOfOCaml(*t.Of, holds) + " option"
	}
	return kindsOfOCaml[t.Kind]
}

// howOCaml is a function that takes or gives a value of a type.
func howOCaml(what, kind string, t value.Type) (string, error) {
	kind = strings.TrimSpace(kind)
	for strings.HasPrefix(kind, "(") && strings.HasSuffix(kind, ")") {
		kind = strings.TrimSpace(kind[1 : len(kind)-1])
	}
	name := ""
	if what == "take" {
		name = fmt.Sprintf(" %q", kind)
	}
	if i := strings.LastIndexByte(kind, ' '); i >= 0 && slices.Contains([]string{"list", "array", "option"}, kind[i+1:]) {
		if (kind[i+1:] == "option") != (t.Kind == value.Optional) || t.Of == nil {
			return "", refuse("it declares %s where the problem has %s", kind, t)
		}
		inner, err := howOCaml(what, kind[:i], *t.Of)
		if kind[i+1:] == "option" {
			name = ""
		}
		return fmt.Sprintf("(%s_%s%s %s)", what, kind[i+1:], name, inner), err
	}
	if t.Kind == value.BigInt && kind == "string" {
		return what + "_digits", nil
	}
	if t.Of != nil || !slices.Contains([]string{"int", "int32", "int64", "float", "bool", "string", "char", "unit"}, kind) {
		return "", refuse("it declares %s where the problem has %s", kind, t)
	}
	return what + "_" + kind, nil
}
