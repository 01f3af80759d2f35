package problem

import (
	"fmt"
	"strings"

	"coldverdict/core/value"
)

// ShapeExample is a shape with which one for a problem may begin: a field for each argument of its function, or a line
// for each method of its class, with small bounds; and one integer a line where its solutions are programs. It is empty where an
// argument has no form in shapes.
func (p *Problem) ShapeExample() string {
	switch {
	case p.Call == nil:
		return "n: int 1..100\n"
	case p.Call.Class != nil:
		return p.Call.Class.shapeExample()
	}
	var b strings.Builder
	for _, f := range p.Call.Data() {
		if f.Type.Kind == value.Graph {
			fmt.Fprintf(&b, "%[1]s_size: int 1..9\n%[1]s: tree(%[1]s_size)\n", f.Name)
			continue
		}
		form := exampleForm(f.Type, "")
		if form == "" {
			return ""
		}
		fmt.Fprintf(&b, "%s: %s\n", f.Name, form)
	}
	return b.String()
}

func (c *Class) shapeExample() string {
	calls := make([]string, 0, 1+len(c.Methods))
	for _, m := range append([]Method{{Name: makes, Takes: c.New}}, c.Methods...) {
		var fields []string
		for i, f := range m.Takes {
			form := exampleForm(f.Type, "")
			if form == "" || f.Type.Kind == value.Array && i < len(m.Takes)-1 {
				return ""
			}
			fields = append(fields, f.Name+": "+form)
		}
		calls = append(calls, m.Name+"("+strings.Join(fields, ", ")+")")
	}
	var b strings.Builder
	b.WriteString(calls[0] + "\nrepeat 1..30 {\n")
	for i, call := range calls[1:] {
		switch {
		case len(calls) == 2:
			fmt.Fprintf(&b, "  %s\n", call)
		case i == 0:
			fmt.Fprintf(&b, "  either { %s }\n", call)
		default:
			fmt.Fprintf(&b, "  or     { %s }\n", call)
		}
	}
	return b.String() + "}\n"
}

// exampleForm is how a shape may describe values of a type, with the lengths of the arrays around it; empty: in no way.
func exampleForm(t value.Type, lengths string) string {
	switch t.Kind {
	case value.Int, value.Long, value.BigInt:
		return "int" + lengths + " 0..9"
	case value.Real:
		return "real" + lengths + " 0..9 places 1"
	case value.Bool:
		return `pick("true", "false")` + lengths
	case value.Text:
		return `token(1..8, "a-z")` + lengths
	case value.Char:
		return `token(1, "a-z")` + lengths
	case value.Optional:
		return exampleForm(*t.Of, lengths)
	case value.Array, value.List, value.List2:
		if strings.Count(lengths, "[") < 2 {
			return exampleForm(*t.Of, lengths+"[1..9]")
		}
	case value.Tree, value.Nary:
		if lengths == "" && t.Of.Kind == value.Int {
			return "nodes(0..9) 0..9"
		}
	}
	return ""
}
