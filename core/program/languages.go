package program

import (
	"fmt"
	"go/format"
	"regexp"
	"strings"

	"coldverdict/core/call"
	"coldverdict/core/toolchain"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// A form is how programs are written in one language. In its templates {name}, {type}, {value},
// {size}, {i}, {call} and {text} are put in; a form has no more than its language needs.
type form struct {
	main         string // what stands behind the function: {statements}, {class}
	indent, step string // of the statements, and of what is within a loop
	// around changes the source itself, so that the program can stand behind it.
	around func(source []byte, class string) []byte

	next     string // statement: go to the next line
	rest     string // expression: the whole next line
	left     string // expression: how many words are left on the line
	sizeName string // how a name stands in an expression of sizes

	let    string // a value of a type gets a name
	count  string // a size gets a name
	counts bool   // every size needs one, and is an argument behind its array
	list   string // an empty list of a type begins
	loop   string // so many times, as {i}
	add    string // a value is added, as element {i}
	end    string // of the loop

	// param is the type of which a parameter takes a value; element that of a list's elements. Empty:
	// as is usual.
	param, element func(declared string) string
	// become is an expression for what a list that was built becomes, where it does not stay one.
	become   func(declared string) string
	reads    map[value.Kind]string // expressions that read a word
	argument func(w *writer, name, param string, sizes []string) string

	call  string // for what it changes
	keep  string // what it returns is the result
	apart bool   // keep gives each of several results a name of its own: {results}
	// fails finds, in what is declared of a result, that the function may say that it failed;
	// then orFail takes the place of keep.
	fails   lazy.Regexp
	orFail  string
	part    func(w *writer, result string, i int, name string) string
	several string                             // makes a list of several results that came with their {names}
	results func(w *writer, call string) error // in place of keep and part

	shows                 func(value.Kind) string // an expression for the text of {one}
	say, sayList, sayRows string
	items                 [3]string // what {one} is, by how many arrays are around it; empty: x

	// finish adds what some statements need.
	finish func(text string) string
}

func formOf(l *toolchain.Language) (form, bool) {
	for _, name := range []string{l.Name, l.Like} {
		if f, ok := forms[name]; ok {
			return f, true
		}
	}
	return form{}, false
}

// kinds lists expressions by kind, in the order in which those are declared.
func kinds(list ...string) map[value.Kind]string {
	m := map[value.Kind]string{}
	for i, one := range list {
		m[value.Kind(i)] = one
	}
	return m
}

func indexed(_ *writer, result string, i int, _ string) string {
	return fmt.Sprintf("%s[%d]", result, i)
}

func same(text string) func(value.Kind) string { return func(value.Kind) string { return text } }

var forms = map[string]form{
	"python": {
		indent: "    ", step: "    ",
		main: `def _program():
    import sys

    _lines = iter(sys.stdin.read().split("\n"))
    _words = iter(())

    def _line():
        return next(_lines).rstrip("\r")

    def _next():
        nonlocal _words
        _words = iter(_line().split())

    def _word():
        while (one := next(_words, None)) is None:
            _next()
        return one

    def _left():
        nonlocal _words
        rest = tuple(_words)
        _words = iter(rest)
        return len(rest)

    def _text(x):
        return {True: "true", False: "false"}[x] if isinstance(x, bool) else str(x)

{statements}


if __name__ == "__main__":
    _program()
`,
		next: "_next()", rest: "_line()", left: "_left()", sizeName: "%s",
		let: "{name} = {value}", count: "{name} = {value}", list: "{name} = []", loop: "for {i} in range({size}):", add: "{name}.append({value})",
		reads: kinds("int(_word())", "int(_word())", "int(_word())", "float(_word())", `_word() == "true"`, "_word()", "_word()"),
		call:  "{call}", keep: "result = {call}", part: indexed, several: "if isinstance(result, dict):\n    result = [result[name] for name in ({names})]",
		shows: func(k value.Kind) string {
			if k == value.Real {
				return "float({one})"
			}
			return "_text({one})"
		},
		say: "print({text})", sayList: "print(*[{text} for {one} in {name}])", sayRows: "for row in {name}:\n    print(*[{text} for {one} in row])",
	},
	"ruby": {
		indent: "  ", step: "  ",
		main: `if __FILE__ == $0
  _lines = $stdin.read.split("\n", -1).map { |one| one.chomp("\r") }
  _words = []
  _word = lambda do
    _words = _lines.shift.split while _words.empty?
    _words.shift
  end

{statements}
end
`,
		next: "_words = _lines.shift.split", rest: "_lines.shift", left: "_words.size", sizeName: "%s",
		let: "{name} = {value}", count: "{name} = {value}", list: "{name} = []", loop: "({size}).times do", add: "{name} << {value}", end: "end",
		reads: kinds("_word.call.to_i", "_word.call.to_i", "_word.call.to_i", "_word.call.to_f", `_word.call == "true"`, "_word.call", "_word.call"),
		call:  "{call}", keep: "result = {call}", part: indexed, several: "result = [{names}].map { |name| result.fetch(name) { result[name.to_sym] } } if result.is_a?(Hash)",
		shows: same("{one}"), say: "puts {text}", sayList: `puts {name}.to_a.join(" ")`, sayRows: `{name}.each { |row| puts row.to_a.join(" ") }`,
	},
	"javascript": {
		indent: "  ", step: "  ", around: withoutExport,
		main: `(async () => {
  const _lines = require("fs").readFileSync(0, "utf8").split("\n").map(one => one.replace(/\r$/, ""));
  let _at = 0, _words = [], _used = 0;
  const _rest = () => _lines[_at++];
  const _next = () => { _words = _rest().split(" ").filter(one => one !== ""); _used = 0; };
  const _word = () => { while (_used === _words.length) _next(); return _words[_used++]; };
  const _number = one => Number.isSafeInteger(Number(one)) ? Number(one) : BigInt(one);

{statements}
})();
`,
		next: "_next();", rest: "_rest()", left: "_words.length - _used", sizeName: "%s",
		let: "const {name} = {value};", count: "const {name} = {value};", list: "const {name} = [];", loop: "for (let {i} = {size}; {i} > 0; {i}--) {", add: "{name}.push({value});", end: "}",
		reads: kinds("Number(_word())", "_number(_word())", "BigInt(_word())", "Number(_word())", `_word() === "true"`, "_word()", "_word()"),
		call:  "await {call};", keep: "let result = await {call};", part: indexed, several: "if (!Array.isArray(result)) result = [{names}].map(name => result[name]);",
		shows: same("String({one})"), say: "console.log({text});", sayList: `console.log([...{name}].join(" "));`, sayRows: `for (const row of {name}) console.log([...row].join(" "));`,
	},
	"cpp": {
		indent: "    ", step: "    ",
		main: `
#include <iomanip>
#include <iostream>
#include <sstream>
#include <string>
#include <tuple>
#include <vector>

namespace program_io {

std::istringstream words;

std::string rest() {
    std::string text;
    std::getline(std::cin, text);
    if (!text.empty() && text.back() == '\r') text.pop_back();
    return text;
}

void next_line() { words.clear(), words.str(rest()); }

template <class T> T word() {
    T x{};
    while (!(words >> x) && std::cin) next_line();
    return x;
}

long long left() {
    if (!words.good()) return 0;
    std::istringstream copy(words.str().substr(words.tellg()));
    long long n = 0;
    for (std::string one; copy >> one;) n++;
    return n;
}

}

signed main() {
    std::ios::sync_with_stdio(false);
    std::cout << std::setprecision(17) << std::boolalpha;
{statements}
}
`,
		next: "program_io::next_line();", rest: "program_io::rest()", left: "program_io::left()", sizeName: "%s",
		let: "{type} {name} = {value};", count: "long long {name} = {value};", list: "{type} {name};", loop: "for (long long {i} = {size}; {i} > 0; {i}--) {", add: "{name}.insert({name}.end(), {value});", end: "}",
		param: cppParam, element: cppElement,
		reads: kinds("program_io::word<{type}>()", "program_io::word<{type}>()", "program_io::word<{type}>()", "program_io::word<{type}>()", `(program_io::word<std::string>() == "true")`, "program_io::word<std::string>()", "program_io::word<char>()"),
		call:  "{call};", keep: "auto result = {call};", part: func(_ *writer, result string, i int, _ string) string {
			return fmt.Sprintf("std::get<%d>(%s)", i, result)
		},
		shows: func(k value.Kind) string {
			if k == value.Bool {
				return "bool({one})"
			}
			return "{one}"
		},
		say: `std::cout << {text} << "\n";`, sayList: "for (const auto &{one} : {name}) std::cout << {text} << \" \";\nstd::cout << \"\\n\";",
		sayRows: "for (const auto &row : {name}) {\n    for (const auto &{one} : row) std::cout << {text} << \" \";\n    std::cout << \"\\n\";\n}",
	},
	"c": {
		indent: "    ", step: "    ",
		main: `
#include <stdbool.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

static char *program_after, *program_at; /* what was not read: of the input, and of its line */

static char *program_rest(void)
{
    char *text = program_after;
    if (*text == 0) exit(1); /* the input has ended */
    program_after += strcspn(program_after, "\n");
    if (*program_after) *program_after++ = 0;
    size_t n = strlen(text);
    if (n > 0 && text[n - 1] == '\r') text[n - 1] = 0;
    return text;
}

static void program_next(void) { program_at = program_rest(); }

static char *program_word(void)
{
    while (program_at += strspn(program_at, " \t"), *program_at == 0) program_next();
    char *one = program_at;
    program_at += strcspn(program_at, " \t");
    if (*program_at) *program_at++ = 0;
    return one;
}

static int program_left(void)
{
    int n = 0;
    for (char *p = program_at; p += strspn(p, " \t"), *p; p += strcspn(p, " \t")) n++;
    return n;
}

static void program_read(void)
{
    size_t size = 0, room = 1 << 16, got;
    char *input = malloc(room + 1);
    while ((got = fread(input + size, 1, room - size, stdin)) > 0)
        if ((size += got) == room) input = realloc(input, (room *= 2) + 1);
    input[size] = 0;
    program_after = input;
    program_at = input + size;
}

int main(void)
{
    program_read();
{statements}
    return 0;
}
`,
		next: "program_next();", rest: "program_rest()", left: "program_left()", sizeName: "%s",
		let: "{type} {name} = {value};", count: "int {name} = {value};", counts: true, loop: "for (int {i} = 0; {i} < {size}; {i}++) {", add: "{name}[{i}] = {value};", end: "}",
		list:  "{type} {name} = malloc(({size} + 1) * sizeof *{name});",
		param: cParam, element: func(declared string) string { return strings.TrimSpace(strings.TrimSuffix(declared, "*")) },
		reads:    kinds("atoi(program_word())", "atoll(program_word())", "program_word()", "atof(program_word())", `(strcmp(program_word(), "true") == 0)`, "program_word()", "*program_word()"),
		argument: cArgument, call: "{call};", results: cResults,
		shows: func(k value.Kind) string { return cFormats[k] },
		items: [3]string{"{name}", "{name}[i]", "{name}[i][j]"},
		say:   "printf({text});\nprintf(\"\\n\");", sayList: "for (int i = 0; i < {name}_count; i++) {\n    printf({text});\n    printf(\" \");\n}\nprintf(\"\\n\");",
		sayRows: "for (int i = 0; i < {name}_count; i++) {\n    for (int j = 0; j < {name}_lengths[i]; j++) {\n        printf({text});\n        printf(\" \");\n    }\n    printf(\"\\n\");\n}",
	},
	"java": {
		indent: "        ", step: "    ", around: javaAround,
		main: `public class {class} {
    static java.io.BufferedReader in = new java.io.BufferedReader(new java.io.InputStreamReader(System.in));
    static java.util.StringTokenizer words = new java.util.StringTokenizer("");

    static String rest() throws java.io.IOException { return in.readLine(); }

    static void next() throws java.io.IOException { words = new java.util.StringTokenizer(rest()); }

    static String word() throws java.io.IOException {
        while (!words.hasMoreTokens()) next();
        return words.nextToken();
    }

    static int left() { return words.countTokens(); }

    public static void main(String[] args) throws Exception {
        StringBuilder out = new StringBuilder();
{statements}
        System.out.print(out);
    }
}
`,
		next: "next();", rest: "rest()", left: "left()", sizeName: "%s",
		let: "{type} {name} = {value};", count: "int {name} = {value};", list: "java.util.List<{boxed}> {name} = new java.util.ArrayList<>();", loop: "for (long {i} = {size}; {i} > 0; {i}--) {", add: "{name}.add({value});", end: "}",
		param: lastWordOff, element: javaElement, become: javaBecome,
		reads: kinds("Integer.parseInt(word())", "Long.parseLong(word())", "new java.math.BigInteger(word())", "Double.parseDouble(word())", `word().equals("true")`, "word()", "word().charAt(0)"),
		call:  "{call};", keep: "var result = {call};", part: javaPart,
		shows: same("{one}"), say: `out.append({text}).append("\n");`, sayList: "for (var {one} : {name}) out.append({text}).append(\" \");\nout.append(\"\\n\");",
		sayRows: "for (var row : {name}) {\n    for (var {one} : row) out.append({text}).append(\" \");\n    out.append(\"\\n\");\n}",
		finish:  javaBooleans,
	},
	"kotlin": {
		indent: "    ", step: "    ",
		main: `private object ProgramInput {
    var words = java.util.StringTokenizer("")

    fun rest(): String = readLine()!!

    fun next() { words = java.util.StringTokenizer(rest()) }

    fun word(): String {
        while (!words.hasMoreTokens()) next()
        return words.nextToken()
    }
}

fun main() {
    val out = StringBuilder()
{statements}
    print(out)
}
`,
		next: "ProgramInput.next()", rest: "ProgramInput.rest()", left: "ProgramInput.words.countTokens()", sizeName: "%s",
		let: "val {name} = {value}", count: "val {name} = {value}", list: "val {name} = mutableListOf<{inner}>()", loop: "for ({i} in 1..{size}) {", add: "{name}.add({value})", end: "}",
		param: kotlinParam, element: kotlinElement, become: kotlinBecome,
		reads: kinds("ProgramInput.word().toInt()", "ProgramInput.word().toLong()", "java.math.BigInteger(ProgramInput.word())", "ProgramInput.word().toDouble()", `(ProgramInput.word() == "true")`, "ProgramInput.word()", "ProgramInput.word()[0]"),
		call:  "{call}", keep: "val result = {call}", part: func(_ *writer, result string, i int, _ string) string {
			return fmt.Sprintf("%s.component%d()", result, i+1)
		},
		shows: same("{one}"), say: `out.append({text}).append("\n")`, sayList: "for ({one} in {name}) out.append({text}).append(\" \")\nout.append(\"\\n\")",
		sayRows: "for (row in {name}) {\n    for ({one} in row) out.append({text}).append(\" \")\n    out.append(\"\\n\")\n}",
	},
	"csharp": {
		indent: "        ", step: "    ",
		main: `public static class FinalProgram
{
    static string[] words = new string[0];
    static int used;

    static string Rest() => System.Console.ReadLine();

    static void Next() { words = Rest().Split(' ', System.StringSplitOptions.RemoveEmptyEntries); used = 0; }

    static string Word()
    {
        while (used == words.Length) Next();
        return words[used++];
    }

    static int Left() => words.Length - used;

    public static void Main()
    {
        System.Threading.Thread.CurrentThread.CurrentCulture = System.Globalization.CultureInfo.InvariantCulture;
        var @out = new System.Text.StringBuilder();
{statements}
        System.Console.Write(@out);
    }
}
`,
		next: "Next();", rest: "Rest()", left: "Left()", sizeName: "%s",
		let: "{type} {name} = {value};", count: "int {name} = {value};", list: "var {name} = new System.Collections.Generic.List<{inner}>();", loop: "for (long {i} = {size}; {i} > 0; {i}--) {", add: "{name}.Add({value});", end: "}",
		param: lastWordOff, element: javaElement, become: csharpBecome,
		reads: kinds("int.Parse(Word())", "long.Parse(Word())", "System.Numerics.BigInteger.Parse(Word())", "double.Parse(Word())", `(Word() == "true")`, "Word()", "Word()[0]"),
		call:  "{call};", keep: "var result = {call};", part: func(_ *writer, result string, i int, _ string) string { return fmt.Sprintf("%s.Item%d", result, i+1) },
		shows: func(k value.Kind) string {
			if k == value.Bool {
				return `({one} ? "true" : "false")`
			}
			return "{one}"
		},
		say: "@out.Append({text}).Append('\\n');", sayList: "foreach (var {one} in {name}) @out.Append({text}).Append(' ');\n@out.Append('\\n');",
		sayRows: "foreach (var row in {name})\n{\n    foreach (var {one} in row) @out.Append({text}).Append(' ');\n    @out.Append('\\n');\n}",
	},
	"go": {
		indent: "\t", step: "\t", around: goAround,
		main: `var (
	programInput = programBufio.NewReaderSize(programOS.Stdin, 1<<20)
	programWords []string
)

func programRest() string {
	text, err := programInput.ReadString('\n')
	if err != nil && text == "" {
		panic("the input has ended")
	}
	return programStrings.TrimRight(text, "\r\n")
}

func programNext() { programWords = programStrings.Fields(programRest()) }

func programWord() string {
	for len(programWords) == 0 {
		programNext()
	}
	word := programWords[0]
	programWords = programWords[1:]
	return word
}

func programInt() int64 {
	n, err := programStrconv.ParseInt(programWord(), 10, 64)
	if err != nil {
		panic(err)
	}
	return n
}

func programReal() float64 {
	x, err := programStrconv.ParseFloat(programWord(), 64)
	if err != nil {
		panic(err)
	}
	return x
}

func main() {
	out := programBufio.NewWriter(programOS.Stdout)
	defer out.Flush()
{statements}
}
`,
		next: "programNext()", rest: "programRest()", left: "len(programWords)", sizeName: "int(%s)",
		let: "{name} := {value}", count: "{name} := {value}", list: "var {name} {type}", loop: "for {i} := {size}; {i} > 0; {i}-- {", add: "{name} = append({name}, {value})", end: "}",
		param: goParam, element: func(declared string) string { return strings.TrimPrefix(declared, "[]") },
		reads: kinds("{type}(programInt())", "{type}(programInt())", "programInteger(programWord())", "{type}(programReal())", `programWord() == "true"`, "programWord()", "{type}([]rune(programWord())[0])"),
		call:  "{call}", keep: "{results} := {call}", apart: true, fails: lazy.New(`\berror\s*\)$`), orFail: "{results}, err := {call}\nif err != nil {\n\tpanic(err)\n}",
		part: func(_ *writer, result string, i int, _ string) string { return fmt.Sprintf("%s%d", result, i+1) },
		argument: func(_ *writer, name, param string, _ []string) string {
			if strings.Contains(param, "...") {
				return name + "..."
			}
			return name
		},
		shows: func(k value.Kind) string {
			if k == value.Char {
				return "string({one})"
			}
			return "{one}"
		},
		say: "programFmt.Fprintln(out, {text})", sayList: "for _, {one} := range {name} {\n\tprogramFmt.Fprint(out, {text}, \" \")\n}\nprogramFmt.Fprintln(out)",
		sayRows: "for _, row := range {name} {\n\tfor _, {one} := range row {\n\t\tprogramFmt.Fprint(out, {text}, \" \")\n\t}\n\tprogramFmt.Fprintln(out)\n}",
		finish:  goFinish,
	},
	"rust": {
		indent: "    ", step: "    ",
		main: `struct ProgramInput {
    lines: std::io::Lines<std::io::StdinLock<'static>>,
    words: std::collections::VecDeque<String>,
}

#[allow(dead_code)]
impl ProgramInput {
    fn rest(&mut self) -> String { self.lines.next().unwrap().unwrap().trim_end_matches('\r').to_string() }

    fn next(&mut self) { self.words = self.rest().split_whitespace().map(String::from).collect(); }

    fn word<T: std::str::FromStr>(&mut self) -> T
    where
        T::Err: std::fmt::Debug,
    {
        while self.words.is_empty() {
            self.next();
        }
        self.words.pop_front().unwrap().parse().unwrap()
    }
}

fn main() {
    use std::io::Write;
    let mut reading = ProgramInput { lines: std::io::stdin().lines(), words: Default::default() };
    let mut out = std::io::BufWriter::new(std::io::stdout());
{statements}
}
`,
		next: "reading.next();", rest: "reading.rest()", left: "reading.words.len() as i64", sizeName: "(%s as i64)",
		let: "#[allow(unused_mut)]\nlet mut {name}: {type} = {value};", count: "let {name} = {value};", list: "let mut {name}: Vec<{inner}> = Vec::new();", loop: "for _ in 0..{size} {", add: "{name}.push({value});", end: "}",
		param: rustParam, element: between, become: func(declared string) string {
			if strings.HasPrefix(declared, "Vec<") {
				return ""
			}
			return "{name}.into_iter().collect()"
		},
		reads:    kinds("reading.word()", "reading.word()", "reading.word()", "reading.word()", "reading.word()", "reading.word()", "reading.word()"),
		argument: rustArgument, call: "{call};", keep: "let result = {call};", part: func(_ *writer, result string, i int, _ string) string { return fmt.Sprintf("%s.%d", result, i) },
		fails: lazy.New(`->\s*(?:\w+::)*Result\s*<`), orFail: "let Ok(result) = {call} else { panic!(\"it failed\") };",
		shows: same("{one}"), say: `writeln!(out, "{}", {text}).unwrap();`, sayList: "for {one} in {name}.iter() {\n    write!(out, \"{} \", {text}).unwrap();\n}\nwriteln!(out).unwrap();",
		sayRows: "for row in {name}.iter() {\n    for {one} in row.iter() {\n        write!(out, \"{} \", {text}).unwrap();\n    }\n    writeln!(out).unwrap();\n}",
	},
}

// languages that another one's form serves.
func init() {
	typed := forms["javascript"]
	typed.main = strings.NewReplacer("_number = one =>", "_number = (one: string): any =>", "let result", "let result: any").Replace(typed.main)
	typed.keep = "let result: any = await {call};"
	forms["typescript"], forms["typescript-node"] = typed, typed
}

var (
	jsExport   = lazy.New(`(?m)^export\s+(?:default\s+)?`)
	identifier = lazy.New(`\s*\b\w+\s*(?:=.*)?$`)
	generic    = lazy.New(`^[\w.:]+\s*<(.*)>$`)
	noType     = lazy.New(`\bauto\b|\bspan\b|\bstring_view\b|[*\[]|\.\.\.`)
)

func withoutExport(source []byte, _ string) []byte {
	return jsExport().ReplaceAll(source, nil)
}

// between is what stands between the outermost angle brackets of a type.
func between(declared string) string {
	if m := generic().FindStringSubmatch(strings.TrimSpace(declared)); m != nil {
		return strings.TrimSpace(m[1])
	}
	return ""
}

func cppParam(param string) string {
	param = strings.TrimSpace(identifier().ReplaceAllString(strings.NewReplacer("&", " ", "const ", " ").Replace(param), ""))
	if noType().MatchString(param) {
		return ""
	}
	return param
}

func cppElement(declared string) string { return between(declared) }

var cDeclared = lazy.New(`^(.*?)\w+\s*((?:\[[^\]]*\]\s*)*)$`)

func cParam(param string) string {
	m := cDeclared().FindStringSubmatch(strings.TrimSpace(strings.ReplaceAll(param, "const ", "")))
	if m == nil {
		return ""
	}
	return strings.TrimSpace(strings.ReplaceAll(strings.TrimSpace(m[1])+strings.Repeat("*", strings.Count(m[2], "[")), " *", "*"))
}

// cArgument passes the length of an array behind it, and those of its rows.
func cArgument(w *writer, name, _ string, sizes []string) string {
	switch {
	case len(sizes) < 1 || sizes[0] == "":
		return name
	case len(sizes) < 2 || sizes[1] == "":
		return name + ", " + sizes[0]
	}
	w.line("int *{name}_lengths = malloc(({size} + 1) * sizeof(int));\nfor (int i = 0; i < {size}; i++) {name}_lengths[i] = {columns};", "{name}", name, "{size}", sizes[0], "{columns}", sizes[1])
	return name + ", " + sizes[0] + ", " + name + "_lengths"
}

// cFormats print a value of a kind.
var cFormats = map[value.Kind]string{
	value.Int: `"%d", {one}`, value.Long: `"%lld", (long long)({one})`, value.BigInt: `"%s", {one}`, value.Real: `"%.17g", {one}`,
	value.Bool: `"%s", {one} ? "true" : "false"`, value.Text: `"%s", {one}`, value.Char: `"%c", {one}`,
}

func cResults(w *writer, invoked string) error {
	f := w.plan.function
	behind := func(more ...string) string {
		inside := strings.TrimSuffix(invoked, ")")
		if !strings.HasSuffix(inside, "(") {
			inside += ", "
		}
		return inside + strings.Join(more, ", ") + ")"
	}
	if len(f.Returns) > 1 {
		var list []string
		for i, field := range f.Returns {
			w.line(fmt.Sprintf("%s result%d;", call.TypeIn(w.language, field.Type), i))
			list = append(list, fmt.Sprintf("&result%d", i))
		}
		w.line(behind(list...) + ";")
		for i, field := range f.Returns {
			w.print(field.Type, fmt.Sprintf("result%d", i))
		}
		return nil
	}
	_, depth := f.Returns[0].Type.Element()
	result := strings.TrimSpace(strings.ReplaceAll(strings.NewReplacer("static ", "", "const ", "").Replace(w.found.Result), " *", "*"))
	switch depth {
	case 1:
		w.line("int result_count = 0;")
		invoked = behind("&result_count")
	case 2:
		w.line("int result_count = 0, *result_lengths = NULL;")
		invoked = behind("&result_count", "&result_lengths")
	}
	w.line(result + " result = " + invoked + ";")
	w.print(f.Returns[0].Type, "result")
	return nil
}

// lastWordOff takes the name off a parameter, with what else may stand around its type.
func lastWordOff(param string) string {
	param = regexp.MustCompile(`@\w+\s*|\b(?:final|params|ref|in|this)\s+`).ReplaceAllString(param, "")
	return strings.ReplaceAll(strings.TrimSpace(identifier().ReplaceAllString(param, "")), "...", "[]")
}

func javaElement(declared string) string {
	if inner, ok := strings.CutSuffix(declared, "[]"); ok {
		return inner
	}
	return between(declared)
}

var javaBoxes = map[string]string{"int": "Integer", "long": "Long", "double": "Double", "boolean": "Boolean", "char": "Character", "short": "Short", "byte": "Byte", "float": "Float"}

// javaBecome makes arrays of lists.
func javaBecome(declared string) string {
	inner, ok := strings.CutSuffix(declared, "[]")
	switch {
	case ok && (inner == "int" || inner == "long" || inner == "double"):
		box := javaBoxes[inner]
		return "{name}.stream().mapTo" + strings.ToUpper(inner[:1]) + inner[1:] + "(" + box + "::" + inner + "Value).toArray()"
	case inner == "char":
		return "{name}.stream().map(String::valueOf).collect(java.util.stream.Collectors.joining()).toCharArray()"
	case inner == "boolean":
		return "booleans({name})"
	case ok:
		base, dims, _ := strings.Cut(inner+"[", "[")
		return "{name}.toArray(new " + base + "[0]" + strings.TrimSuffix("["+dims, "[") + ")"
	case regexp.MustCompile(`^(?:java\.util\.)?(?:Set|Queue|Deque|\w+Set|\w+List|\w+Deque)<`).MatchString(declared) && !strings.HasPrefix(declared, "List<"):
		kind := strings.NewReplacer("java.util.", "").Replace(declared[:strings.Index(declared, "<")])
		class := map[string]string{"Set": "HashSet", "Queue": "ArrayDeque", "Deque": "ArrayDeque", "SortedSet": "TreeSet"}[kind]
		if class == "" {
			class = kind
		}
		return "new java.util." + class + "<>({name})"
	}
	return ""
}

var publicTop = lazy.New(`(?m)^public\s+((?:final\s+|abstract\s+|sealed\s+)*(?:class|record|interface|enum)\b)`)

// javaAround makes the person's classes such as may stand beside the program's.
func javaAround(source []byte, class string) []byte {
	source = publicTop().ReplaceAll(source, []byte("$1"))
	return regexp.MustCompile(`\b`+class+`\b`).ReplaceAll(source, []byte(class+"Function"))
}

// javaBooleans makes an array of a list of truths, for which Java has nothing.
func javaBooleans(text string) string {
	if !strings.Contains(text, "booleans(") {
		return text
	}
	return strings.Replace(text, "    public static void main(", `    static boolean[] booleans(java.util.List<Boolean> list) {
        boolean[] all = new boolean[list.size()];
        for (int i = 0; i < all.length; i++) all[i] = list.get(i);
        return all;
    }

    public static void main(`, 1)
}

// javaPart takes a result out of a record, or of a class with fields.
func javaPart(w *writer, result string, _ int, name string) string {
	for _, one := range call.Spellings(name) {
		if !strings.Contains(one, "_") && strings.ToLower(one[:1]) == one[:1] {
			name = one
		}
	}
	if regexp.MustCompile(`\brecord\s+\w+\s*\([^)]*\b` + name + `\b`).MatchString(w.source) {
		name += "()"
	}
	return result + "." + name
}

func kotlinParam(param string) string {
	_, declared, _ := strings.Cut(param, ":")
	declared, _, _ = strings.Cut(declared, "=")
	return strings.TrimSpace(declared)
}

func kotlinElement(declared string) string {
	if one, ok := strings.CutSuffix(declared, "Array"); ok && one != "" {
		return one
	}
	return between(declared)
}

func kotlinBecome(declared string) string {
	switch one, isArray := strings.CutSuffix(declared, "Array"); {
	case isArray && one != "":
		return "{name}.to" + declared + "()"
	case strings.HasPrefix(declared, "Array<"):
		return "{name}.toTypedArray()"
	case strings.HasPrefix(declared, "Set<"), strings.HasPrefix(declared, "MutableSet<"):
		return "{name}.toMutableSet()"
	}
	return ""
}

func csharpBecome(declared string) string {
	if strings.HasSuffix(declared, "[]") {
		return "{name}.ToArray()"
	}
	return ""
}

func goParam(param string) string {
	fields := strings.Fields(strings.ReplaceAll(param, "...", "[]"))
	if len(fields) < 2 {
		return ""
	}
	return strings.Join(fields[1:], " ")
}

// programImports are what a program imports, under names that nobody has.
const programImports = "import (\n\tprogramBufio \"bufio\"\n\tprogramFmt \"fmt\"\n\tprogramOS \"os\"\n\tprogramStrconv \"strconv\"\n\tprogramStrings \"strings\"\n)\n"

var goHead = lazy.New(`(?m)^package\s+\w+`)

// goAround makes the source a package with a program.
func goAround(source []byte, _ string) []byte {
	head := []byte("package main\n\n" + programImports)
	if at := goHead().FindIndex(source); at != nil {
		return append(append(append([]byte{}, source[:at[0]]...), head...), source[at[1]:]...)
	}
	return append(head, source...)
}

// goFinish formats a program, and lets it read integers of any size.
func goFinish(text string) string {
	if strings.Contains(text, "programInteger(") {
		text = withInteger(text)
	}
	if formatted, err := format.Source([]byte(text)); err == nil {
		text = string(formatted)
	}
	return text
}

func withInteger(text string) string {
	text = strings.Replace(text, "\tprogramBufio \"bufio\"\n", "\tprogramBufio \"bufio\"\n\tprogramBig \"math/big\"\n", 1)
	return text + `
func programInteger(word string) *programBig.Int {
	n, ok := new(programBig.Int).SetString(word, 10)
	if !ok {
		panic(word + " is no integer")
	}
	return n
}
`
}

var rustLent = lazy.New(`^&\s*(?:'\w+\s+)?(mut\s+)?`)

func rustParam(param string) string {
	_, declared, _ := strings.Cut(param, ":")
	declared = strings.TrimSpace(rustLent().ReplaceAllString(strings.TrimSpace(declared), ""))
	switch {
	case declared == "str":
		return "String"
	case strings.HasPrefix(declared, "[") && strings.HasSuffix(declared, "]"):
		return "Vec<" + declared[1:len(declared)-1] + ">"
	}
	return declared
}

func rustArgument(_ *writer, name, param string, _ []string) string {
	_, declared, _ := strings.Cut(param, ":")
	if m := rustLent().FindStringSubmatch(strings.TrimSpace(declared)); m != nil {
		return "&" + strings.TrimSpace(m[1]) + " " + name
	}
	return name
}
