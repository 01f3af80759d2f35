package ready

import (
	"bytes"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"coldverdict/core/judge"
	"coldverdict/core/prelude"
	"coldverdict/core/problem"
	"coldverdict/core/source"
	"coldverdict/internal/lazy"
)

// A Finding is something in a source that a judge may refuse or misread.
type Finding struct {
	Line int    // 0: it is about the whole file
	Text string // in words
	Sure bool   // a judge refuses it; otherwise a person should look
}

// matters are the warnings of a C or C++ compiler that often mean a wrong answer.
var matters = lazy.New(`^[^:\s][^:]*:(\d+):\d+: warning: (.*) \[-W(?:maybe-)?(?:uninitialized|format=|format|return-type|array-bounds=?|overflow|div-by-zero|parentheses|sequence-point|shift-count-overflow|shift-overflow=|stringop-overflow=|infinite-recursion|int-in-bool-context|bool-compare|logical-op|tautological-compare)\]$`)

// warnings are the findings in what a compiler said of a source that it built.
func warnings(log string) (list []Finding) {
	for line := range strings.Lines(log) {
		if m := matters().FindStringSubmatch(strings.TrimRight(line, "\n")); m != nil {
			n, _ := strconv.Atoi(m[1])
			list = append(list, Finding{Line: n, Text: "the compiler warns: " + m[2]})
		}
	}
	return list
}

// A rule finds one kind of thing in sources of some languages.
type rule struct {
	families string // of languages, by their first extension: "cpp java"; empty: all
	text     bool   // it looks at the text as it stands, and otherwise at what is no comment and no string
	pattern  lazy.Regexp
	sure     bool
	words    string // $1 stands for the first group
}

func re(expression string) lazy.Regexp { return lazy.New("(?m)" + expression) }

var rules = []rule{
	{"c cpp", false, re(`\bfreopen\s*\(`), false, "freopen sends the input or the output to a file"},
	{"c cpp", false, re(`^\s*#\s*pragma\b.*`), false, "a judge may not take a #pragma"},
	{"c cpp", true, re(`%I64[du]`), false, "%I64d prints garbage on many judges; write %lld"},
	{"c cpp", false, re(`\b(?:std\s*::\s*)?(?:locale|setlocale)\s*[({]`), false, "a judge may not know this locale"},
	{"c cpp", false, re(`\b(?:srand|mt19937(?:_64)?\s+\w+)\s*[({].*\b(?:time|now)\b`), false, "randomness that is seeded by the time does not do the same on every run"},
	{"c cpp", false, re(`\brandom_device\b`), false, "randomness that is seeded by the machine does not do the same on every run"},
	{"c cpp", false, re(`\bcerr\s*<<|\bfprintf\s*\(\s*stderr\b`), false, "it writes to standard error, which costs time"},
	{"c cpp", false, re(`\bsystem\s*\(`), false, "a judge lets no program start another"},
	{"java", false, source.PackageLine, true, "a package line: most judges look for the class outside of any package; take it out"},
	{"kt scala", false, source.PackageLine, false, "a package line: many judges look for the program outside of any package"},
	{"java", false, re(`\bSystem\s*\.\s*err\b`), false, "it writes to standard error, which costs time"},
	{"java kt scala", false, re(`\bThread\s*\.\s*sleep\b`), false, "it sleeps"},
	{"py", false, re(`\bbreakpoint\s*\(|\bpdb\s*\.\s*set_trace\b`), true, "it stops in the debugger"},
	{"py", false, re(`\bfile\s*=\s*sys\.stderr\b|\bsys\.stderr\.write\b`), false, "it writes to standard error, which costs time"},
	{"py", true, re(`^[^#'"\n]*\binput\s*\(\s*[rf]?['"]`), false, "input(\"…\") prints its prompt, which a judge takes for a part of the answer"},
	{"py", true, re(`^[^#'"\n]*\bopen\s*\(\s*['"]`), false, "it opens a file by its name"},
	{"js ts", true, re(`^[^/'"\n]*\breadFileSync\s*\(\s*['"](?:[^/0'"]|/[^d])`), false, "it opens a file by its name"},
	{"js ts", false, re(`\bconsole\s*\.\s*error\b`), false, "it writes to standard error, which costs time"},
	{"js ts", false, re(`^\s*debugger\b`), false, "it stops in the debugger"},
	{"rs", false, re(`\b(?:eprintln|eprint|dbg)!`), false, "it writes to standard error, which costs time"},
	{"rs", false, source.RustModule, true, "the module $1 is a file of its own, which the judge has not; 'cold final' puts it in"},
	{"rb", true, source.RubyRequire, true, "$1 is a file of your own, which the judge has not; 'cold final' puts it in"},
	{"js ts", true, re(`^[^/\n]*\b(?:require\s*\(\s*|from\s+)['"](\.[^'"]+)['"]`), true, "$1 is a file of your own, which the judge has not; 'cold final' puts it in"},
	{"php", true, re(`^\s*(?:require|include)(?:_once)?\s*\(?\s*['"]([^'"]+)['"]`), true, "$1 is a file of your own, which the judge has not"},
	{"rb", false, re(`\bwarn\b|\$stderr\b`), false, "it writes to standard error, which costs time"},
	{"go", false, re(`\bos\s*\.\s*Stderr\b`), false, "it writes to standard error, which costs time"},
}

// Read looks at a source as a judge would that compiles it alone.
func Read(p *problem.Problem, plan judge.Plan, text []byte) (list []Finding) {
	in := source.Family(plan.Build.Language.Extensions)
	code := source.Blanked(text, in)
	found := func(at int, sure bool, format string, args ...any) {
		line := 0
		if at >= 0 {
			line = 1 + bytes.Count(text[:at], []byte("\n"))
		}
		list = append(list, Finding{line, fmt.Sprintf(format, args...), sure})
	}
	for _, r := range rules {
		if !slices.Contains(strings.Fields(r.families), in) {
			continue
		}
		looked := code
		if r.text {
			looked = text
		}
		if m := r.pattern().FindSubmatchIndex(looked); m != nil {
			words := r.words
			if len(m) > 2 && m[2] >= 0 {
				words = strings.ReplaceAll(words, "$1", string(text[m[2]:m[3]]))
			}
			at := m[0]
			for at < len(text)-1 && text[at] <= ' ' { // where the pattern begins with blanks
				at++
			}
			found(at, r.sure, "%s", words)
		}
	}
	ofItsOwn(p, plan, in, text, code, found)
	if p.Call != nil && !p.Call.Bare && !p.Judge.Imports {
		if lines := prelude.Of(in, text); len(lines) > 0 {
			found(-1, false, "it relies on what judges supply (%s): 'cold final' writes that in, and imports = true in [judge] says that this judge has it", prelude.Says(lines))
		}
	}
	named(p, in, text, code, found)
	classes(p, in, code, found)
	versions(p, in, code, found)
	if at := bytes.IndexFunc(code, func(r rune) bool { return r > 127 && r != utf8.RuneError && r != '\ufeff' }); at >= 0 && source.Lexed(in) {
		found(at, false, "a name outside of ASCII, which not every compiler takes")
	}
	if bytes.HasPrefix(text, []byte("\ufeff")) {
		found(-1, false, "the file begins with a byte order mark, which some judges refuse")
	}
	if in == "py" {
		mixedTabs(text, found)
	}
	if in == "c" || in == "cpp" {
		shortLong(p, code, found)
	}
	if most := p.Judge.SourceLimit; most > 0 && int64(len(text)) > most {
		found(-1, true, "the source has %d bytes, and the judge takes %d", len(text), most)
	}
	slices.SortStableFunc(list, func(a, b Finding) int { return a.Line - b.Line })
	return list
}

// A finder takes what was found at a byte of the source; -1: it is about the whole file.
type finder func(at int, sure bool, format string, args ...any)

// ofItsOwn finds what lies beside the source and would not be handed in.
func ofItsOwn(p *problem.Problem, plan judge.Plan, in string, text, code []byte, found finder) {
	folder := filepath.Dir(p.Path(plan.Solution))
	beside := func(at int, name string) {
		if info, err := os.Stat(filepath.Join(folder, name)); err == nil && info.Mode().IsRegular() {
			found(at, true, "%s is a file of your own, which the judge has not; 'cold final' puts it in", name)
		}
	}
	switch in {
	case "c", "cpp":
		for _, m := range source.Include().FindAllSubmatchIndex(text, -1) {
			if !source.IsBlank(code, m[0], m[1]) {
				beside(m[2], string(text[m[2]:m[3]]))
			}
		}
	case "py":
		for _, one := range source.PythonImports(code) {
			beside(one.At, one.Module+".py")
		}
	}
}

var openedFile = re(`\b(?:ifstream|ofstream|fstream)\s+\w+\s*[({]\s*"([^"]+)"|\bfopen\s*\(\s*"([^"]+)"|\bnew\s+(?:FileReader|FileWriter|File|FileInputStream|PrintWriter)\s*\(\s*"([^"]+)"`)

// named finds files that are opened by their names, but for those that the problem names.
func named(p *problem.Problem, in string, text, code []byte, found finder) {
	if !slices.Contains([]string{"c", "cpp", "java"}, in) {
		return
	}
	for _, m := range openedFile().FindAllSubmatchIndex(text, -1) {
		if bytes.IndexByte(code[m[0]:m[1]], '(') < 0 && bytes.IndexByte(code[m[0]:m[1]], '{') < 0 {
			continue // within a comment
		}
		for g := 2; g < len(m); g += 2 {
			if m[g] >= 0 {
				if name := string(text[m[g]:m[g+1]]); name != p.Files.Input && name != p.Files.Output && !strings.HasPrefix(name, "/dev/") {
					found(m[0], false, "it opens the file %s, which the judge may not have", name)
				}
			}
		}
	}
}

var mainMethod = re(`\bstatic\s+(?:public\s+)?void\s+main\s*\(|\bpublic\s+static\s+void\s+main\s*\(`)

// classes looks at the class that a judge starts.
func classes(p *problem.Problem, in string, code []byte, found finder) {
	if in != "java" || p.Call != nil {
		return
	}
	wanted := p.Judge.Class
	if m := source.PublicClass().FindSubmatchIndex(code); m != nil && wanted != "" && string(code[m[2]:m[3]]) != wanted {
		found(m[2], true, "the public class is %s, and the judge wants %s; 'cold final' renames it", code[m[2]:m[3]], wanted)
	} else if m == nil && wanted != "" && !slices.ContainsFunc(source.Class().FindAllSubmatch(code, -1), func(m [][]byte) bool { return string(m[1]) == wanted }) {
		found(-1, true, "there is no class %s, which the judge wants; 'cold final' renames it", wanted)
	} else if wanted == "" && m != nil && string(code[m[2]:m[3]]) != "Main" {
		found(m[2], false, "the public class is %s; many judges want another name ([judge] class = \"Main\" says which)", code[m[2]:m[3]])
	}
	if all := mainMethod().FindAllIndex(code, -1); len(all) > 1 {
		found(all[1][0], false, "there is a second main")
	}
}

// A feature is something that came with a version of a language.
type feature struct {
	language string
	version  float64
	syntax   bool // an older version cannot read it; otherwise the name may also be the person's own
	pattern  lazy.Regexp
	words    string
}

var features = []feature{
	{"java", 9, false, re(`\b(?:List|Set|Map)\s*\.\s*of\s*\(`), "List.of and its like"},
	{"java", 10, true, re(`^\s*(?:final\s+)?var\s+\w+\s*=|\(\s*var\s+\w+\s*:`), "var"},
	{"java", 11, false, re(`\.\s*(?:isBlank|strip)\s*\(\s*\)|\.\s*repeat\s*\(`), "methods of String such as repeat and strip"},
	{"java", 14, true, re(`\bcase\b[^:\n]*->`), "switch with arrows"},
	{"java", 16, true, re(`\brecord\s+\w+\s*\([^)]*\)\s*(?:implements\b[^{]*)?\{`), "records"},
	{"java", 16, true, re(`\binstanceof\s+\w+\s+\w+\b\s*[)&|]`), "instanceof that names a variable"},
	{"java", 16, false, re(`\.\s*toList\s*\(\s*\)`), "Stream.toList"},
	{"java", 17, true, re(`\bsealed\s+(?:interface|class)\b`), "sealed classes"},
	{"py", 3.06, true, re(`\b[fF](?:"|')`), "f-strings"},
	{"py", 3.08, true, re(`:=`), "the operator :="},
	{"py", 3.09, false, re(`\.\s*remove(?:prefix|suffix)\s*\(`), "removeprefix and removesuffix"},
	{"py", 3.09, false, re(`\b(?:def\b.*|:\s*)(?:list|dict|set|tuple)\[`), "list[int] and its like"},
	{"py", 3.10, true, re(`^\s*match\b[^=\n\[]*:[ \t]*$`), "match"},
	{"py", 3.10, false, re(`\b(?:pairwise|bit_count)\s*\(`), "pairwise and bit_count"},
	{"py", 3.12, true, re(`^\s*type\s+\w+\s*=`), "type aliases"},
	{"py", 3.12, false, re(`\bbatched\s*\(`), "batched"},
}

// versionKeys are the keys of [judge] for the versions of languages, by family.
var versionKeys = map[string]string{"java": "java", "py": "python"}

// versions finds what is newer than the judge's version of a language.
func versions(p *problem.Problem, in string, code []byte, found finder) {
	said := p.Judge.Versions[versionKeys[in]]
	has := versionOf(in, said)
	if has == 0 {
		return
	}
	for _, f := range features {
		if f.language != in || f.version <= has {
			continue
		}
		if m := f.pattern().FindIndex(code); m != nil {
			at := m[0]
			for at < m[1]-1 && code[at] <= ' ' {
				at++
			}
			found(at, f.syntax, "the judge has version %s, and %s came later", said, f.words)
		}
	}
}

// versionOf makes a version comparable: 3.8 of Python is older than 3.10. 0: it is none.
func versionOf(in, said string) float64 {
	major, minor, _ := strings.Cut(said, ".")
	n, err := strconv.Atoi(major)
	if err != nil {
		return 0
	}
	if in == "java" && n == 1 { // 1.8 is 8
		n, _ = strconv.Atoi(minor)
		return float64(n)
	}
	minor, _, _ = strings.Cut(minor, ".")
	m, _ := strconv.Atoi(minor)
	return float64(n) + float64(m)/100
}

// mixedTabs finds lines of Python that are indented with tabs beside others that are not.
func mixedTabs(text []byte, found finder) {
	tabs, blanks, at := -1, false, 0
	for line := range bytes.Lines(text) {
		switch {
		case bytes.HasPrefix(line, []byte("\t")) && tabs < 0:
			tabs = at
		case bytes.HasPrefix(line, []byte("  ")):
			blanks = true
		}
		at += len(line)
	}
	if tabs >= 0 && blanks {
		found(tabs, false, "it is indented with tabs here and with blanks elsewhere")
	}
}

var longType = lazy.New(`\b(?:unsigned\s+|signed\s+)?long\b(?:\s+(?:int|unsigned))?(\s+(?:long|double)\b)?`)

// shortLong finds a long that may have 32 bits elsewhere, where one of 64 may be needed.
func shortLong(p *problem.Problem, code []byte, found finder) {
	if p.Call != nil {
		return
	}
	for at := 0; at < len(code); {
		m := longType().FindSubmatchIndex(code[at:])
		if m == nil {
			return
		}
		if m[2] < 0 {
			found(at+m[0], false, "long has 32 bits on some judges' systems; long long has 64 everywhere")
			return
		}
		at += m[1]
	}
}
