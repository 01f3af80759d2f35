package steps

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"coldverdict/internal/testenv"
)

// Ten small wrong programs are written in every language that is recorded, and run here as well: what is recorded must be
// what prints added by hand would show, value by value and line by line.

// An expr is a number, a variable, an element of an array, or two of them with an operator between.
type expr struct {
	number      int
	name        string // of a variable, or of an array
	index       *expr
	op          string
	left, right *expr
}

func n(v int) *expr                       { return &expr{number: v} }
func v(name string) *expr                 { return &expr{name: name} }
func el(a string, i *expr) *expr          { return &expr{name: a, index: i} }
func op(l *expr, o string, r *expr) *expr { return &expr{op: o, left: l, right: r} }

// A stmt stands on a line of its own.
type stmt struct {
	kind        string // set, list, element, call, print, return, while, if
	name        string
	list        []int
	index, e    *expr
	function    string
	args        []*expr
	body, other []*stmt
	line        int // in the text of a language
}

func set(name string, e *expr) *stmt    { return &stmt{kind: "set", name: name, e: e} }
func list(name string, of ...int) *stmt { return &stmt{kind: "list", name: name, list: of} }
func put(name string, i, e *expr) *stmt { return &stmt{kind: "element", name: name, index: i, e: e} }
func calls(name, f string, args ...*expr) *stmt {
	return &stmt{kind: "call", name: name, function: f, args: args}
}
func show(e *expr) *stmt                 { return &stmt{kind: "print", e: e} }
func give(e *expr) *stmt                 { return &stmt{kind: "return", e: e} }
func while(e *expr, body ...*stmt) *stmt { return &stmt{kind: "while", e: e, body: body} }
func when(e *expr, body []*stmt, other ...*stmt) *stmt {
	return &stmt{kind: "if", e: e, body: body, other: other}
}

// A wrong is a program with a fault; f is the function that it may have.
type wrong struct {
	name   string
	params []string
	f      []*stmt
	main   []*stmt
}

func count(name string) *stmt { return set(name, op(v(name), "+", n(1))) }

// wrongs are made anew for each language, since lines are noted in them.
func wrongs() []wrong {
	return []wrong{
		{name: "the last element is left out", main: []*stmt{
			list("a", 4, 7, 2, 9), set("s", n(0)), set("i", n(0)),
			while(op(v("i"), "<", n(3)), set("s", op(v("s"), "+", el("a", v("i")))), count("i")), show(v("s"))}},
		{name: "the largest of negative numbers is sought from 0", main: []*stmt{
			list("a", -4, -7, -2), set("most", n(0)), set("i", n(0)),
			while(op(v("i"), "<", n(3)), when(op(el("a", v("i")), ">", v("most")), []*stmt{set("most", el("a", v("i")))}), count("i")), show(v("most"))}},
		{name: "a swap without a third", main: []*stmt{
			list("a", 3, 1, 2), set("i", n(0)),
			while(op(v("i"), "<", n(2)),
				when(op(el("a", v("i")), ">", el("a", op(v("i"), "+", n(1)))), []*stmt{
					put("a", v("i"), el("a", op(v("i"), "+", n(1)))), put("a", op(v("i"), "+", n(1)), el("a", v("i")))}),
				count("i")), show(el("a", n(0)))}},
		{name: "a divisor that ends one too early", params: []string{"x", "y"},
			f:    []*stmt{when(op(op(v("x"), "%", v("y")), "==", n(1)), []*stmt{give(v("y"))}), calls("r", "f", v("y"), op(v("x"), "%", v("y"))), give(v("r"))},
			main: []*stmt{set("g", n(0)), calls("g", "f", n(17), n(5)), show(v("g"))}},
		{name: "a sequence that begins wrong", params: []string{"x"},
			f:    []*stmt{when(op(v("x"), "<", n(2)), []*stmt{give(n(1))}), calls("p", "f", op(v("x"), "-", n(1))), calls("q", "f", op(v("x"), "-", n(2))), give(op(v("p"), "+", v("q")))},
			main: []*stmt{set("t", n(0)), calls("t", "f", n(4)), show(v("t"))}},
		{name: "sums from one too far", main: []*stmt{
			list("a", 1, 2, 3), list("sum", 0, 0, 0, 0), set("i", n(0)),
			while(op(v("i"), "<", n(3)), put("sum", op(v("i"), "+", n(1)), op(el("sum", v("i")), "+", el("a", v("i")))), count("i")),
			set("d", op(el("sum", n(3)), "-", el("sum", n(0)))), show(v("d"))}},
		{name: "a search that leaves out its end", main: []*stmt{
			list("a", 1, 3, 5, 7), set("low", n(0)), set("high", n(3)), set("middle", n(0)),
			while(op(v("low"), "<", v("high")),
				set("middle", op(op(v("low"), "+", v("high")), "/", n(2))),
				when(op(el("a", v("middle")), "<", n(7)), []*stmt{set("low", op(v("middle"), "+", n(1)))}, set("high", op(v("middle"), "-", n(1))))),
			show(v("low"))}},
		{name: "halves that are not whole", main: []*stmt{
			set("x", n(7)), set("steps", n(0)),
			while(op(v("x"), "!=", n(1)), when(op(op(v("x"), "%", n(2)), "==", n(0)), []*stmt{set("x", op(v("x"), "/", n(2)))}, set("x", op(op(v("x"), "*", n(3)), "-", n(1)))), count("steps"), when(op(v("steps"), ">", n(9)), []*stmt{set("x", n(1))})),
			show(v("steps"))}},
		{name: "a sieve that begins at its own number", main: []*stmt{
			list("p", 0, 0, 1, 1, 1, 1, 1), set("i", n(2)), set("k", n(0)),
			while(op(v("i"), "<", n(7)),
				set("k", v("i")),
				while(op(v("k"), "<", n(7)), put("p", v("k"), n(0)), set("k", op(v("k"), "+", v("i")))),
				count("i")), show(el("p", n(5)))}},
		{name: "a list that is turned round twice", main: []*stmt{
			list("a", 1, 2, 3, 4), set("i", n(0)), set("keep", n(0)),
			while(op(v("i"), "<", n(4)),
				set("keep", el("a", v("i"))), put("a", v("i"), el("a", op(n(3), "-", v("i")))), put("a", op(n(3), "-", v("i")), v("keep")), count("i")),
			show(el("a", n(0)))}},
	}
}

// A dialect is how a language writes them. Verbs are filled in: %s for names, expressions, values.
type dialect struct {
	needs, file           string
	before, after         []string // around the main program; a function comes before it
	functionAt            int      // line of before behind which the function stands
	function, functionEnd string
	param                 string
	first, again          string // of a statement that sets for the first time, and again
	list                  string // of a first list
	element               string // index of an element
	whileIs, ifIs         string
	elseIs, close         string
	printIs               string
	ops                   map[string]string
	open                  string                               // around a list that is shown
	hoisted               func(names, lists []string) []string // declarations that stand before all
	give                  string
}

// dialects are the languages that have a recorder.
var dialects = []dialect{
	{needs: "gcc", file: "a.c", before: []string{"#include <stdio.h>", "int main(void) {"}, after: []string{"return 0;", "}"}, functionAt: 1, function: "long long f(%s) {", functionEnd: "}", param: "long long %s",
		first: "long long %s = %s;", again: "%s = %s;", list: "long long %s[] = {%s};", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: `printf("%%lld\n", %s);`, open: "{}", give: "return %s;"},
	{needs: "g++", file: "a.cpp", before: []string{"#include <iostream>", "#include <vector>", "int main() {"}, after: []string{"}"}, functionAt: 2, function: "long long f(%s) {", functionEnd: "}", param: "long long %s",
		first: "long long %s = %s;", again: "%s = %s;", list: "std::vector<long long> %s = {%s};", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: `std::cout << %s << "\n";`, open: "{}", give: "return %s;"},
	{needs: "ldc2", file: "a.d", before: []string{"import std.stdio;", "void main() {"}, after: []string{"}"}, functionAt: 1, function: "long f(%s) {", functionEnd: "}", param: "long %s",
		first: "long %s = %s;", again: "%s = %s;", list: "long[] %s = [%s];", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "writeln(%s);", open: "[]", give: "return %s;"},
	{needs: "rustc", file: "a.rs", before: []string{"fn main() {"}, after: []string{"}"}, function: "fn f(%s) -> i64 {", functionEnd: "}", param: "%s: i64",
		first: "let mut %s: i64 = %s;", again: "%s = %s;", list: "let mut %s: Vec<i64> = vec![%s];", element: "(%s) as usize", whileIs: "while %s {", ifIs: "if %s {", elseIs: "} else {", close: "}", printIs: `println!("{}", %s);`, open: "[]", give: "return %s;"},
	{needs: "fpc", file: "a.pas", before: []string{"program wrong;", "begin"}, after: []string{"end."}, functionAt: 1, function: "function f(%s): int64;", functionEnd: "end;", param: "%s: int64",
		first: "%s := %s;", again: "%s := %s;", list: "%s := [%s];", whileIs: "while %s do begin", ifIs: "if %s then begin", elseIs: "end else begin", close: "end;", printIs: "writeln(%s);", open: "[]", give: "exit(%s);",
		ops: map[string]string{"/": "div", "%": "mod", "==": "=", "!=": "<>"}, hoisted: func(names, lists []string) (lines []string) {
			for _, name := range names {
				lines = append(lines, "var "+name+": int64;")
			}
			for _, name := range lists {
				lines = append(lines, "var "+name+": array of int64;")
			}
			return lines
		}},
	{needs: "go", file: "a.go", before: []string{"package main", `import "fmt"`, "func main() {"}, after: []string{"}"}, functionAt: 2, function: "func f(%s) int {", functionEnd: "}", param: "%s int",
		first: "%s := %s", again: "%s = %s", list: "%s := []int{%s}", whileIs: "for %s {", ifIs: "if %s {", elseIs: "} else {", close: "}", printIs: "fmt.Println(%s)", open: "[]", give: "return %s"},
	{needs: "javac", file: "A.java", before: []string{"public class A {", "public static void main(String[] none) {"}, after: []string{"}", "}"}, functionAt: 1, function: "static long f(%s) {", functionEnd: "}", param: "long %s",
		first: "long %s = %s;", again: "%s = %s;", list: "long[] %s = {%s};", element: "(int) (%s)", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "System.out.println(%s);", open: "[]", give: "return %s;"},
	{needs: "kotlinc", file: "a.kt", before: []string{"fun main() {"}, after: []string{"}"}, function: "fun f(%s): Int {", functionEnd: "}", param: "%s: Int",
		first: "var %s = %s", again: "%s = %s", list: "var %s = intArrayOf(%s)", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "println(%s)", open: "[]", give: "return %s"},
	{needs: "scalac", file: "A.scala", before: []string{"object A {", "def main(none: Array[String]): Unit = {"}, after: []string{"}", "}"}, functionAt: 1, function: "def f(%s): Int = {", functionEnd: "}", param: "%s: Int",
		first: "var %s = %s", again: "%s = %s", list: "var %s = Array(%s)", element: "%s", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "println(%s)", open: "[]", give: "return %s"},
	{needs: "node", file: "a.js", before: []string{"let unused = 0;"}, function: "function f(%s) {", functionEnd: "}", param: "%s", functionAt: 1,
		first: "let %s = %s;", again: "%s = %s;", list: "let %s = [%s];", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "console.log(%s);", open: "[]", give: "return %s;",
		ops: map[string]string{"==": "===", "!=": "!=="}},
	{needs: "tsc", file: "a.ts", before: []string{"let unused: number = 0;"}, function: "function f(%s): number {", functionEnd: "}", param: "%s: number", functionAt: 1,
		first: "let %s: number = %s;", again: "%s = %s;", list: "let %s: number[] = [%s];", whileIs: "while (%s) {", ifIs: "if (%s) {", elseIs: "} else {", close: "}", printIs: "console.log(%s);", open: "[]", give: "return %s;",
		ops: map[string]string{"==": "===", "!=": "!=="}},
	{needs: "python3", file: "a.py", function: "def f(%s):", param: "%s", first: "%s = %s", again: "%s = %s", list: "%s = [%s]", whileIs: "while %s:", ifIs: "if %s:", elseIs: "else:", printIs: "print(%s)", open: "[]", give: "return %s",
		ops: map[string]string{"/": "//"}},
	{needs: "ruby", file: "a.rb", function: "def f(%s)", functionEnd: "end", param: "%s", first: "%s = %s", again: "%s = %s", list: "%s = [%s]", whileIs: "while %s", ifIs: "if %s", elseIs: "else", close: "end", printIs: "puts(%s)", open: "[]", give: "return %s"},
	{needs: "lua5.4", file: "a.lua", function: "local function f(%s)", functionEnd: "end", param: "%s", first: "local %s = %s", again: "%s = %s", list: "local %s = {%s}", element: "%s + 1", whileIs: "while %s do", ifIs: "if %s then", elseIs: "else", close: "end",
		printIs: "print(%s)", open: "{}", give: "return %s", ops: map[string]string{"/": "//", "!=": "~="}},
}

// A writer writes a program in a dialect.
type writer struct {
	d     *dialect
	lines []string
	known map[string]bool // set in the function that is written
}

func (w *writer) say(deep int, text string) {
	w.lines = append(w.lines, strings.Repeat("    ", deep)+text)
}

func (w *writer) expr(e *expr) string {
	switch {
	case e.op != "":
		sign := e.op
		if other, ok := w.d.ops[sign]; ok {
			sign = other
		}
		text := w.expr(e.left) + " " + sign + " " + w.expr(e.right)
		if e.op == "/" && (w.d.file == "a.js" || w.d.file == "a.ts") {
			return "Math.trunc(" + text + ")"
		}
		if strings.ContainsAny(e.op, "<>=") {
			return text
		}
		return "(" + text + ")"
	case e.index != nil:
		index := w.expr(e.index)
		if w.d.element != "" {
			index = fmt.Sprintf(w.d.element, index)
		}
		if strings.HasSuffix(w.d.file, ".scala") {
			return e.name + "(" + index + ")"
		}
		return e.name + "[" + index + "]"
	case e.name != "":
		return e.name
	}
	return strconv.Itoa(e.number)
}

func (w *writer) set(name string) string {
	if w.known[name] {
		return w.d.again
	}
	w.known[name] = true
	return w.d.first
}

func (w *writer) block(list []*stmt, deep int) {
	for _, s := range list {
		s.line = len(w.lines) + 1
		switch s.kind {
		case "set":
			value := w.expr(s.e)
			w.say(deep, fmt.Sprintf(w.set(s.name), s.name, value))
		case "list":
			w.known[s.name] = true
			w.say(deep, fmt.Sprintf(w.d.list, s.name, strings.Trim(strings.ReplaceAll(fmt.Sprint(s.list), " ", ", "), "[]")))
		case "element":
			w.say(deep, fmt.Sprintf(w.d.again, w.expr(el(s.name, s.index)), w.expr(s.e)))
		case "call":
			var args []string
			for _, a := range s.args {
				args = append(args, strings.TrimSuffix(strings.TrimPrefix(w.expr(a), "("), ")"))
			}
			w.say(deep, fmt.Sprintf(w.set(s.name), s.name, "f("+strings.Join(args, ", ")+")"))
		case "print":
			w.say(deep, fmt.Sprintf(w.d.printIs, w.expr(s.e)))
		case "return":
			w.say(deep, fmt.Sprintf(w.d.give, w.expr(s.e)))
		case "while", "if":
			w.say(deep, fmt.Sprintf(map[string]string{"while": w.d.whileIs, "if": w.d.ifIs}[s.kind], w.expr(s.e)))
			w.block(s.body, deep+1)
			if s.other != nil {
				w.say(deep, w.d.elseIs)
				w.block(s.other, deep+1)
			}
			if w.d.close != "" {
				w.say(deep, w.d.close)
			}
		}
	}
}

// names are those that statements set: numbers and lists.
func names(list []*stmt) (numbers, lists []string) {
	for _, s := range list {
		switch s.kind {
		case "set", "call":
			if !slices.Contains(numbers, s.name) {
				numbers = append(numbers, s.name)
			}
		case "list":
			lists = append(lists, s.name)
		}
	}
	return numbers, lists
}

// written is a program in a dialect; lines are noted in its statements.
func written(d *dialect, p wrong) string {
	w := &writer{d: d, known: map[string]bool{}}
	for _, line := range d.before[:d.functionAt] {
		w.say(0, line)
	}
	if p.f != nil {
		var params []string
		for _, name := range p.params {
			params = append(params, fmt.Sprintf(d.param, name))
			w.known[name] = true
		}
		between := ", "
		if d.hoisted != nil {
			between = "; "
		}
		w.say(0, fmt.Sprintf(d.function, strings.Join(params, between)))
		if d.hoisted != nil {
			numbers, _ := names(p.f)
			for _, line := range d.hoisted(numbers, nil) {
				w.say(0, line)
			}
			w.say(0, "begin")
		}
		w.block(p.f, 1)
		if d.functionEnd != "" {
			w.say(0, d.functionEnd)
		}
	}
	w.known = map[string]bool{}
	if d.hoisted != nil {
		numbers, lists := names(p.main)
		for _, line := range d.hoisted(numbers, lists) {
			w.say(0, line)
		}
	}
	deep := 0
	for _, line := range d.before[d.functionAt:] {
		w.say(0, line)
		deep = 1
	}
	if d.file == "a.js" || d.file == "a.ts" {
		deep = 0
	}
	w.block(p.main, deep)
	for _, line := range d.after {
		w.say(0, line)
	}
	return strings.Join(w.lines, "\n") + "\n"
}

// A machine runs a program, and notes what prints would show.
type machine struct {
	p       wrong
	open    string
	silent  bool // what is nowhere declared has a value before it is set
	changes map[string][]string
	lines   []int
	output  strings.Builder
}

type machineCall struct {
	numbers map[string]int
	lists   map[string][]int
	shown   map[string]string
}

func (m *machine) value(c *machineCall, e *expr) int {
	switch {
	case e.op != "":
		a, b := m.value(c, e.left), m.value(c, e.right)
		is := func(yes bool) int {
			if yes {
				return 1
			}
			return 0
		}
		switch e.op {
		case "+":
			return a + b
		case "-":
			return a - b
		case "*":
			return a * b
		case "/":
			return a / b
		case "%":
			return a % b
		case "<":
			return is(a < b)
		case ">":
			return is(a > b)
		case "==":
			return is(a == b)
		}
		return is(a != b)
	case e.index != nil:
		return c.lists[e.name][m.value(c, e.index)]
	case e.name != "":
		return c.numbers[e.name]
	}
	return e.number
}

func (m *machine) note(c *machineCall, name, text string) {
	before, known := c.shown[name]
	if m.silent && !known {
		before, known = map[bool]string{true: "[]", false: "0"}[strings.HasPrefix(text, m.open[:1])], true
	}
	if !known || before != text {
		m.changes[name] = append(m.changes[name], text)
	}
	c.shown[name] = text
}

func (m *machine) noteList(c *machineCall, name string) {
	m.note(c, name, m.open[:1]+strings.Trim(strings.ReplaceAll(fmt.Sprint(c.lists[name]), " ", ", "), "[]")+m.open[1:])
}

func (m *machine) run(c *machineCall, list []*stmt) (result int, over bool) {
	for _, s := range list {
		switch s.kind {
		case "while":
			for m.value(c, s.e) != 0 {
				if result, over = m.run(c, s.body); over {
					return result, true
				}
			}
			continue
		case "if":
			branch := s.other
			if m.value(c, s.e) != 0 {
				branch = s.body
			}
			if result, over = m.run(c, branch); over {
				return result, true
			}
			continue
		}
		m.lines = append(m.lines, s.line)
		switch s.kind {
		case "set":
			c.numbers[s.name] = m.value(c, s.e)
			m.note(c, s.name, strconv.Itoa(c.numbers[s.name]))
		case "list":
			c.lists[s.name] = slices.Clone(s.list)
			m.noteList(c, s.name)
		case "element":
			c.lists[s.name][m.value(c, s.index)] = m.value(c, s.e)
			m.noteList(c, s.name)
		case "call":
			inner := &machineCall{numbers: map[string]int{}, shown: map[string]string{}}
			silent := m.silent
			m.silent = false
			for i, name := range m.p.params {
				inner.numbers[name] = m.value(c, s.args[i])
				m.note(inner, name, strconv.Itoa(inner.numbers[name]))
			}
			c.numbers[s.name], _ = m.run(inner, m.p.f)
			m.silent = silent
			m.note(c, s.name, strconv.Itoa(c.numbers[s.name]))
		case "print":
			fmt.Fprintln(&m.output, m.value(c, s.e))
		case "return":
			return m.value(c, s.e), true
		}
	}
	return 0, false
}

// some of them are tried where a person waits for the compilers.
func some(all []wrong) []wrong {
	if testenv.InCI() && !testing.Short() {
		return all
	}
	return all[3:6] // with a function, and with lists
}

func TestWhatIsRecordedIsWhatPrintsByHandWouldShow(t *testing.T) {
	for i := range dialects {
		d := &dialects[i]
		t.Run(d.file, func(t *testing.T) {
			testenv.Need(t, d.needs)
			for _, p := range some(wrongs()) {
				source := written(d, p)
				m := &machine{p: p, open: d.open, silent: d.hoisted != nil, changes: map[string][]string{}}
				m.run(&machineCall{numbers: map[string]int{}, lists: map[string][]int{}, shown: map[string]string{}}, p.main)
				r := record(t, d.file, source, "", Options{})
				assert.Equal(t, m.output.String(), string(r.Output), "%s\n%s", p.name, source)
				type timed struct {
					at          int
					name, value string
				}
				var all []timed
				var lines []int
				own := map[int]bool{}
				for _, line := range m.lines {
					own[line] = true
				}
				for _, s := range r.Steps {
					for _, c := range s.Changes {
						all = append(all, timed{c.At, c.Name, c.Value})
					}
					if own[s.Line] {
						lines = append(lines, s.Line)
					}
				}
				slices.SortStableFunc(all, func(a, b timed) int { return a.at - b.at })
				changes := map[string][]string{}
				for _, c := range all {
					if _, ok := m.changes[c.name]; ok {
						changes[c.name] = append(changes[c.name], c.value)
					}
				}
				assert.Equal(t, m.changes, changes, "%s\n%s", p.name, source)
				assert.Equal(t, m.lines, lines, "%s\n%s", p.name, source)
			}
		})
	}
}

func TestARecordingBeginsWithALine(t *testing.T) {
	for i := range dialects {
		d := &dialects[i]
		t.Run(d.file, func(t *testing.T) {
			testenv.Need(t, d.needs)
			p := wrongs()[0]
			source := written(d, p)
			last := p.main[len(p.main)-1].line // where the sum is printed
			r := record(t, d.file, source, "", Options{From: last, Most: 20})
			if assert.NotEmpty(t, r.Steps, source) {
				assert.Equal(t, last, r.Steps[0].Line, source)
				assert.Contains(t, told(r.Steps[:1])[0], "s = 13", source)
			}
			assert.Equal(t, "13\n", string(r.Output))
		})
	}
}
