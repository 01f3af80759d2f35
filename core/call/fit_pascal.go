package call

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
	"coldverdict/core/verdict"
	"coldverdict/internal/lazy"
)

// fitPascal puts calls of the function in the place of the program's own statements. How a value is read and
// written is told by its type in the problem, and by overloading.
func fitPascal(f *fitting) error {
	if err := fitPlain(f); err != nil {
		return err
	}
	for _, field := range f.fields() {
		if strings.Contains(field.Type.String(), "?") {
			return refuse("Pascal has no usual way to pass what may be absent, as %s may", field.Type)
		}
	}
	text := maskPascal(string(f.source))
	if regexp.MustCompile(`(?i)^\s*unit\b`).MatchString(text) {
		return refuse("%s is a unit; a program can be called, or a function that stands alone", f.file)
	}
	found := regexp.MustCompile(`(?is)\b(function|procedure)\s+(?:(\w+)\.)?(`+strings.Join(Spellings(f.function.Name), "|")+`)\b\s*(?:\(([^)]*)\))?\s*(?::\s*([\w.]+))?\s*;`).FindAllStringSubmatch(text, -1)
	if found == nil {
		return f.absent()
	}
	m := found[len(found)-1]
	var params []string // their types
	for _, group := range strings.Split(m[4], ";") {
		if strings.TrimSpace(group) == "" {
			continue
		}
		names, kind, _ := strings.Cut(group, ":")
		for range strings.Split(names, ",") {
			kind, _, _ = strings.Cut(kind, "=")
			params = append(params, strings.TrimSpace(kind))
		}
	}
	results := f.function.Results()
	outs := len(results)
	if f.function.Changes > 0 {
		outs-- // one is an argument
	}
	function := strings.EqualFold(m[1], "function")
	if function {
		outs--
	}
	takes := len(f.function.Takes)
	if len(params) != takes+outs {
		besides := ""
		if outs > 0 {
			besides = ", gives " + verdict.Count(outs, "result") + " by parameters behind them"
		}
		return otherwiseDeclared("the function", takes, "argument", besides, len(params))
	}

	// A result, where there is one, comes first; what parameters give follows.
	var vars, reads, args, gives strings.Builder
	deepest := 0
	declare := func(name, kind string, t value.Type) {
		_, depth := t.Element()
		deepest = max(deepest, depth)
		fmt.Fprintf(&vars, "  %s: %s;\n", name, kind)
	}
	for i, kind := range params {
		name, t := fmt.Sprintf("ColdA%d", i+1), value.Type{}
		if i < takes {
			t = f.function.Takes[i].Type
			fmt.Fprintf(&reads, "  ColdArgument(%d, '%s');\n%s", i+1, kind, readPascal(name, t, 0))
		}
		declare(name, kind, t)
		if i > 0 {
			args.WriteString(", ")
		}
		args.WriteString(name)
	}
	callee := m[3]
	if m[2] != "" {
		callee = m[2] + ".Create." + m[3]
	}
	call := fmt.Sprintf("%s(%s)", callee, args.String())
	if len(params) == 0 {
		call = callee
	}
	next, out := 0, takes
	if function {
		call = "ColdR := " + call
		declare("ColdR", m[5], value.Type{})
	}
	for i, field := range results {
		name := fmt.Sprintf("ColdA%d", out+1)
		switch {
		case f.function.Changes > 0 && i == len(results)-1:
			name = fmt.Sprintf("ColdA%d", f.function.Changes)
		case function && i == 0:
			name = "ColdR"
		default:
			out++
		}
		if next++; next > 1 {
			gives.WriteString("  ColdWord(',');\n")
		}
		_, depth := field.Type.Element()
		deepest = max(deepest, depth)
		gives.WriteString(givePascal(name, field.Type, 0))
	}
	if len(results) > 1 {
		gives = *bracketed(&gives)
	}
	for i := range deepest {
		fmt.Fprintf(&vars, "  ColdN%d: int64;\n", i)
	}
	serve := fmt.Sprintf("procedure ColdCall;\nvar\n%s  ColdUnused: boolean;\nbegin\n%s  ColdBegin;\n  %s;\n  ColdReturned;\n%send;\n\nbegin\n  ColdServe(@ColdCall);\nend.\n", vars.String(), reads.String(), call, gives.String())
	f.source = append(slices.Clone(f.source[:mainOfPascal(text)]), serve...)

	if m := regexp.MustCompile(`(?i)\buses\b`).FindStringIndex(text); m != nil {
		f.source = slices.Insert(f.source, m[1], []byte(" cold_driver,")...)
		return nil
	}
	at := len(text) - len(strings.TrimLeft(text, " \t\r\n"))
	if m := regexp.MustCompile(`(?i)^\s*program\b[^;]*;`).FindStringIndex(text); m != nil {
		at = m[1]
	}
	f.source = slices.Insert(f.source, at, []byte(" uses cold_driver; ")...)
	return nil
}

func bracketed(b *strings.Builder) *strings.Builder {
	var all strings.Builder
	all.WriteString("  ColdWord('[');\n" + b.String() + "  ColdWord(']');\n")
	return &all
}

// readPascal reads a value into a variable; an array grows as its elements come.
func readPascal(name string, t value.Type, depth int) string {
	if t.Kind != value.Array {
		return fmt.Sprintf("  ColdRead(%s);\n", name)
	}
	n := fmt.Sprintf("ColdN%d", depth)
	return fmt.Sprintf("  %[1]s := 0; SetLength(%[2]s, 0);\n  while ColdMore(%[1]s) do begin\n  if %[1]s > High(%[2]s) then SetLength(%[2]s, 2 * %[1]s + 4);\n%[3]s  inc(%[1]s);\n  end;\n  SetLength(%[2]s, %[1]s);\n",
		n, name, readPascal(name+"["+n+"]", *t.Of, depth+1))
}

// givePascal writes a value.
func givePascal(name string, t value.Type, depth int) string {
	switch t.Kind {
	case value.BigInt:
		return fmt.Sprintf("  ColdBigInt(%s);\n", name)
	case value.Array:
		n := fmt.Sprintf("ColdN%d", depth)
		return fmt.Sprintf("  ColdWord('[');\n  for %[1]s := Low(%[2]s) to High(%[2]s) do begin\n  if %[1]s > Low(%[2]s) then ColdWord(',');\n%[3]s  end;\n  ColdWord(']');\n",
			n, name, givePascal(name+"["+n+"]", *t.Of, depth+1))
	}
	return fmt.Sprintf("  ColdGive(%s);\n", name)
}

var commentOfPascal = lazy.New(`(?s)\{.*?\}|\(\*.*?\*\)|//[^\n]*|'[^'\n]*'`)

// maskPascal blanks comments, directives and texts.
func maskPascal(text string) string { return commentOfPascal().ReplaceAllStringFunc(text, blanked) }

var wordOfPascal = lazy.New(`(?i)\b(?:begin|case|try|asm|end)\b`)

// mainOfPascal is where the statements of a program begin; the end of the source where it has none.
func mainOfPascal(text string) int {
	if !regexp.MustCompile(`(?i)\bend\s*\.\s*$`).MatchString(text) {
		return len(text)
	}
	depth := 0
	for _, m := range slices.Backward(wordOfPascal().FindAllStringIndex(text, -1)) {
		if strings.EqualFold(text[m[0]:m[1]], "end") {
			depth++
		} else if depth--; depth == 0 {
			return m[0]
		}
	}
	return len(text)
}
