package problem

import (
	"cmp"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/verdict"

	"github.com/pelletier/go-toml/v2"
	"github.com/pelletier/go-toml/v2/unstable"
)

// largestConfig bounds verdict.toml, in bytes.
const largestConfig = 1e6

// config reads verdict.toml.
func (l *loader) config() {
	text, ok := l.read(ConfigFile, largestConfig, "keep data in cases/")
	if !ok {
		return
	}
	var tree map[string]any
	if err := toml.Unmarshal(text, &tree); err != nil {
		line, message := 0, strings.TrimPrefix(err.Error(), "toml: ")
		if at, ok := err.(*toml.DecodeError); ok {
			line, _ = at.Position()
		}
		l.wrong(ConfigFile, line, "%s", message)
		return
	}
	c := &configReader{loader: l, lines: keyLines(text)}
	p := l.problem
	c.table("", tree, fields{
		"title":       c.text(&p.Title),
		"limits":      c.limits,
		"compare":     c.compare,
		"solution":    c.solutions,
		"make":        c.later,
		"files":       c.later,
		"call":        c.later,
		"interactive": c.later,
		"group":       c.later,
	})
	if err := c.settingsFit(); err != "" {
		l.wrong(ConfigFile, c.lines["compare"], "%s", err)
	}
	slices.SortStableFunc(l.mistakes, func(a, b Mistake) int { return cmp.Compare(a.Line, b.Line) })
}

// keyLines maps every key, as a dotted path with indices ("solution[0].file"),
// to its line.
func keyLines(text []byte) map[string]int {
	lines := map[string]int{}
	counts := map[string]int{}
	var parser unstable.Parser
	parser.Reset(text)
	table := ""
	for parser.NextExpression() {
		node := parser.Expression()
		path, line := keyPath(&parser, node)
		switch node.Kind {
		case unstable.Table:
			table = path
			note(lines, table, line)
		case unstable.ArrayTable:
			table = path + "[" + strconv.Itoa(counts[path]) + "]"
			counts[path]++
			note(lines, path, line)
			note(lines, table, line)
		case unstable.KeyValue:
			noteValue(&parser, lines, table, node)
		}
	}
	return lines
}

// note remembers where a path stands first, and with it the tables around it.
func note(lines map[string]int, path string, line int) {
	for path != "" {
		if _, ok := lines[path]; !ok {
			lines[path] = line
		}
		path = path[:max(0, strings.LastIndexByte(path, '.'))]
	}
}

func noteValue(parser *unstable.Parser, lines map[string]int, table string, node *unstable.Node) {
	path, line := keyPath(parser, node)
	path = join(table, path)
	note(lines, path, line)
	if value := node.Value(); value.Kind == unstable.InlineTable {
		for it := value.Children(); it.Next(); {
			noteValue(parser, lines, path, it.Node())
		}
	}
}

func keyPath(parser *unstable.Parser, node *unstable.Node) (path string, line int) {
	for it := node.Key(); it.Next(); {
		key := it.Node()
		path = join(path, string(key.Data))
		if line == 0 {
			line = parser.Shape(key.Raw).Start.Line
		}
	}
	return path, line
}

func join(path, key string) string {
	if path == "" {
		return key
	}
	return path + "." + key
}

// A configReader takes the values out of a decoded verdict.toml and reports
// each that is not what it should be.
type configReader struct {
	*loader
	lines map[string]int
}

// fields are the keys that a table may have. Each takes the path and the value.
type fields map[string]func(at string, value any)

func (c *configReader) wrongAt(at, format string, args ...any) {
	c.wrong(ConfigFile, c.lines[at], format, args...)
}

// table reads a table's keys in the order of their lines.
func (c *configReader) table(at string, value any, known fields) {
	table, ok := value.(map[string]any)
	if !ok {
		c.wrongAt(at, "%s must be a table, such as [%s]", at, at)
		return
	}
	for key, value := range table {
		path := join(at, key)
		if take := known[key]; take != nil {
			take(path, value)
			continue
		}
		names := make([]string, 0, len(known))
		for name := range known {
			names = append(names, name)
		}
		c.wrongAt(path, "unknown key %q; %s", path, nearest(key, names))
	}
}

// later refuses what only a later version can serve: to pass over it in
// silence would make every verdict doubtful.
func (c *configReader) later(at string, _ any) {
	c.wrongAt(at, "this version of cold does not serve [%s]; take it out, or use a version that does", at)
}

func (c *configReader) text(into *string) func(string, any) {
	return func(at string, value any) {
		s, ok := value.(string)
		if !ok {
			c.wrongAt(at, "%s must be text in double quotes", at)
			return
		}
		*into = s
	}
}

func (c *configReader) texts(into *[]string) func(string, any) {
	return func(at string, value any) {
		list, ok := value.([]any)
		for _, item := range list {
			s, isText := item.(string)
			ok = ok && isText
			*into = append(*into, s)
		}
		if !ok {
			c.wrongAt(at, "%s must be a list of texts, such as [\"one\", \"two\"]", at)
		}
	}
}

func (c *configReader) oneOf(into *string, words []string) func(string, any) {
	return func(at string, value any) {
		s, ok := value.(string)
		if !ok || !slices.Contains(words, s) {
			c.wrongAt(at, "%s is %v; %s", at, quoted(value), nearest(fmt.Sprint(value), words))
			return
		}
		*into = s
	}
}

func quoted(value any) string {
	if s, ok := value.(string); ok {
		return strconv.Quote(s)
	}
	return fmt.Sprint(value)
}

func (c *configReader) duration(into *time.Duration) func(string, any) {
	return func(at string, value any) {
		d, err := ParseTime(fmt.Sprint(value))
		if err != nil {
			c.wrongAt(at, "%s: %v", at, err)
		}
		*into = d
	}
}

func (c *configReader) size(into *int64) func(string, any) {
	return func(at string, value any) {
		n, err := ParseSize(fmt.Sprint(value))
		if err != nil {
			c.wrongAt(at, "%s: %v", at, err)
		}
		*into = n
	}
}

func (c *configReader) count(into *int) func(string, any) {
	return func(at string, value any) {
		n, ok := value.(int64)
		if !ok || n < 1 || n > 1e6 {
			c.wrongAt(at, "%s is %v; it must be a whole number from 1 to 1000000", at, quoted(value))
			return
		}
		*into = int(n)
	}
}

func (c *configReader) tolerance(into *float64) func(string, any) {
	return func(at string, value any) {
		switch n := value.(type) {
		case float64:
			*into = n
		case int64:
			*into = float64(n)
		default:
			c.wrongAt(at, "%s must be a number, such as 1e-6", at)
		}
		if !(*into >= 0 && *into < 1e300) {
			c.wrongAt(at, "%s is %v; it must be a number from 0, such as 1e-6", at, value)
		}
	}
}

func (c *configReader) truth(into *bool) func(string, any) {
	return func(at string, value any) {
		b, ok := value.(bool)
		if !ok {
			c.wrongAt(at, "%s must be true or false", at)
		}
		*into = b
	}
}

func (c *configReader) limitFields(l *verdict.Limits) fields {
	return fields{
		"time": c.duration(&l.Time), "wall": c.duration(&l.Wall),
		"memory": c.size(&l.Memory), "output": c.size(&l.Output),
		"processes": c.count(&l.Processes),
	}
}

func (c *configReader) limits(at string, value any) {
	p := c.problem
	p.Limits.Language = map[string]verdict.Limits{}
	known := c.limitFields(&p.Limits.General)
	for _, name := range c.words.LimitNames {
		known[name] = func(at string, value any) {
			var l verdict.Limits
			c.table(at, value, c.limitFields(&l))
			p.Limits.Language[name] = l
		}
	}
	c.table(at, value, known)
}

func (c *configReader) compare(at string, value any) {
	compare := &c.problem.Compare
	c.table(at, value, fields{
		"mode":        c.oneOf(&compare.Mode, c.words.Modes),
		"absolute":    c.tolerance(&compare.Absolute),
		"relative":    c.tolerance(&compare.Relative),
		"ignore_case": c.truth(&compare.IgnoreCase),
		"any_order":   c.oneOf(&compare.AnyOrder, append([]string{""}, c.words.AnyOrders...)),
		"script":      c.later,
		"program":     c.later,
	})
}

// settingsFit returns what is wrong with the comparison as a whole, or "".
func (c *configReader) settingsFit() string {
	compare := &c.problem.Compare
	numbers := compare.Mode == "numbers"
	_, absolute := c.lines["compare.absolute"]
	_, relative := c.lines["compare.relative"]
	switch {
	case numbers && compare.AnyOrder != "":
		return "any_order compares text and cannot be joined with mode \"numbers\"; choose one of them"
	case (absolute || relative) && !numbers:
		return "a tolerance counts only with mode = \"numbers\"; set that, or take the tolerance out"
	}
	if numbers && !absolute && !relative {
		compare.Absolute, compare.Relative = 1e-6, 1e-6
	}
	return ""
}

func (c *configReader) solutions(at string, value any) {
	list, ok := value.([]any)
	if !ok {
		c.wrongAt(at, "solutions are written as [[solution]], with two brackets")
		return
	}
	for i, item := range list {
		at := fmt.Sprintf("%s[%d]", at, i)
		s := Solution{Role: Candidate, Line: c.lines[at]}
		c.table(at, item, fields{
			"file":     c.text(&s.File),
			"role":     c.oneOf(&s.Role, []string{Candidate, Reference}),
			"expect":   c.oneOf(&s.Expect, verdict.All()),
			"args":     c.texts(&s.Args),
			"groups":   c.texts(&s.Groups),
			"language": c.oneOf(&s.Language, c.words.Languages),
		})
		c.checkSolution(at, s)
		c.problem.Solutions = append(c.problem.Solutions, s)
	}
}

func (c *configReader) checkSolution(at string, s Solution) {
	if s.File == "" {
		c.wrongAt(at, "a [[solution]] needs a file, such as file = \"main.cpp\"")
		return
	}
	path := s.File
	if !filepath.IsAbs(path) {
		path = filepath.Join(c.problem.Dir, path)
	}
	line := at + ".file"
	info, err := os.Stat(path)
	switch {
	case err != nil:
		c.wrongAt(line, "there is no file %q here", s.File)
	case !info.Mode().IsRegular():
		c.wrongAt(line, "%q is %s; a source file was expected", s.File, kind(info))
	case s.Language == "" && !c.words.IsSource(s.File):
		c.wrongAt(line, "the extension of %q names no language that is known; say which with language = \"…\"", s.File)
	}
}

// nearest suggests the known word that is closest to what was written, or
// lists them all if none is close.
func nearest(word string, known []string) string {
	known = slices.DeleteFunc(slices.Sorted(slices.Values(known)), func(s string) bool { return s == "" })
	best, distance := "", 1+len(word)/3
	for _, k := range known {
		if d := editDistance(strings.ToLower(word), k); d <= distance && (best == "" || d < distance) {
			best, distance = k, d
		}
	}
	if best != "" {
		return fmt.Sprintf("did you mean %q?", best)
	}
	return "it can be " + orList(known)
}

func orList(words []string) string {
	for i, w := range words {
		words[i] = strconv.Quote(w)
	}
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// editDistance counts the least insertions, deletions and replacements that
// turn a into b (Wagner and Fischer, 1974), and a swap of neighbours as one.
func editDistance(a, b string) int {
	rows := make([][]int, len(a)+1)
	for i := range rows {
		rows[i] = make([]int, len(b)+1)
		rows[i][0] = i
	}
	for j := range rows[0] {
		rows[0][j] = j
	}
	for i := 1; i <= len(a); i++ {
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			rows[i][j] = min(rows[i-1][j]+1, rows[i][j-1]+1, rows[i-1][j-1]+cost)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				rows[i][j] = min(rows[i][j], rows[i-2][j-2]+1)
			}
		}
	}
	return rows[len(a)][len(b)]
}
