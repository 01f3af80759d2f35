package call

import (
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
)

// Nodes of lists and trees are of a class that judges declare and solutions use. A source may declare
// it itself; else it is added: behind the source, or before it in languages that ask for that.

// A nodeShape says how nodes of a kind are made.
type nodeShape struct {
	class string   // that judges declare
	links []string // its fields beside the value, each of them one node
	many  string   // a field with any number of nodes; empty: none
}

var nodeShapes = map[value.Kind]nodeShape{
	value.List:  {"ListNode", []string{"next"}, ""},
	value.List2: {"Node", []string{"prev", "next"}, ""},
	value.Tree:  {"TreeNode", []string{"left", "right"}, ""},
	value.Nary:  {"Node", nil, "children"},
	value.Graph: {"Node", nil, "neighbors"},
}

// nodeKinds are the kinds of nodes that a function takes or returns, each once, with what they hold.
func (f *fitting) nodeKinds() (list []value.Type) {
	add := func(t value.Type) {
		if e, _ := t.Element(); e.Kind.IsNodes() && !slices.ContainsFunc(list, func(other value.Type) bool { return other.Kind == e.Kind }) {
			list = append(list, e)
		}
	}
	for _, field := range f.function.Takes {
		add(field.Type)
	}
	for _, field := range f.function.Results() {
		add(field.Type)
	}
	return list
}

// classDeclared finds where a source declares a class, in any language with braces.
func classDeclared(source []byte, name string) bool {
	return regexp.MustCompile(`\b(?:class|struct|record|type|function|interface)\s+` + name + `\b\s*(?:[^;{]*\{|\()`).MatchString(mask(string(source)))
}

// nodeClasses are the texts of the classes of nodes that a source does not declare itself.
func (f *fitting) nodeClasses(text func(s nodeShape, held value.Kind) string) string {
	var all strings.Builder
	var done []string
	for _, t := range f.nodeKinds() {
		s := nodeShapes[t.Kind]
		if slices.Contains(done, s.class) || classDeclared(f.source, s.class) {
			continue
		}
		done = append(done, s.class)
		held := t.Of.Kind
		if t.Kind == value.Graph {
			held = value.Int
		}
		all.WriteString(text(s, held))
	}
	return all.String()
}

// behind adds a text to the end of the source, so that its lines stay where they are.
func (f *fitting) behind(text string) {
	if text == "" {
		return
	}
	if n := len(f.source); n > 0 && f.source[n-1] != '\n' {
		f.source = append(f.source, '\n')
	}
	f.source = append(f.source, text...)
}

// jsNode writes a class of nodes in JavaScript, and with types in TypeScript.
func jsNode(typed bool) func(s nodeShape, held value.Kind) string {
	return func(s nodeShape, held value.Kind) string {
		var fields, params, sets strings.Builder
		kind := dialects["typescript"].kinds[held]
		declare := func(name, of, usual string) {
			if typed {
				fields.WriteString(name + ": " + of + "; ")
				params.WriteString(", " + name + "?: " + of)
			} else {
				params.WriteString(", " + name)
			}
			sets.WriteString(" this." + name + " = " + name + " === undefined ? " + usual + " : " + name + ";")
		}
		usual := map[value.Kind]string{value.Text: `""`, value.Char: `""`, value.Bool: "false", value.BigInt: "0n"}[held]
		if usual == "" {
			usual = "0"
		}
		declare("val", kind, usual)
		for _, link := range s.links {
			declare(link, s.class+" | null", "null")
		}
		if s.many != "" {
			declare(s.many, s.class+"[]", "[]")
		}
		return "class " + s.class + " { " + fields.String() + "constructor(" + strings.TrimPrefix(params.String(), ", ") + ") {" + sets.String() + " } }\n"
	}
}
