// Package statement takes in what a saved page, or a copied text, says of a problem: samples, limits, names of files,
// tolerances, the signature of a function.
//
// What it takes is right, or said to be doubtful: a sample that is silently wrong costs more than none. So a sample
// has the place that it came from, and the doubts about it; half a sample is never passed over in silence.
package statement

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/internal/lazy"
)

// A Page is what was read. One that holds several problems has them in its order.
type Page struct {
	Problems []Statement
	Unsure   []string // of the page as a whole, in words
}

// A Statement is what a page says that a problem can begin with.
type Statement struct {
	Title     string
	Letter    string // by which it is called among others: "B"; empty: it has none
	Time      string // as verdict.toml has it: "2s"; empty: nothing was found
	Memory    string // "256MiB"
	Languages []LanguageTime
	Files     problem.Files
	Absolute  string // the error that is allowed, as verdict.toml has it: "1e-6"
	Relative  string
	Signature string // of the function that is asked for, as the page declares it
	// Samples are in the order of the page. None has an empty input.
	Samples []Sample
	Took    []Taken  // what was taken from where, in that order
	Unsure  []string // what a person should look at, in words
	Perhaps []string // what may need a checker, in words
}

// A LanguageTime is a time limit that one language has to itself.
type LanguageTime struct{ Language, Time string }

// A Sample is an input with its output.
type Sample struct {
	Input, Output []byte
	Line, OutLine int    // in the page, from 1
	Reason        string // what the page says of it
	Doubts        []string
	// Arguments says that the input is the arguments of a function, as statements print them: x = 3, y = 4.
	Arguments bool
}

// A Taken is something that was found on a page.
type Taken struct {
	Line int // from 1
	What string
}

// A piece is a part of a page, in reading order.
type piece struct {
	kind   pieceKind
	level  int // of a heading, from 1
	text   string
	line   int    // from 1
	group  int    // of what belongs to one paragraph or cell
	inside int    // the element of the page that it shares with what stands beside it; 0: it is not known
	lead   string // how the text begins, in bold print
	label  string // the head of its column
	headed bool   // which is marked as one
	head   bool   // it is the head of a column itself, and marked as one
	last   int    // of a block of a page: the line on which it ends
	cell   int    // its cell among those of all tables, from 1; 0: it is in none
	cut    bool   // the page ends in it
	doubts []string
}

// at is the line of the page on which a line of a block stands, from 0. Elements end lines, too, so that a block may have
// more of them than the page.
func (p *piece) at(i int) int {
	if p.last == 0 {
		return p.line + i
	}
	return min(p.line+i, p.last)
}

type pieceKind int

const (
	prose   pieceKind = iota // a line of a paragraph, or a cell of a table
	heading                  // a heading, or text that stands like one
	block                    // preformatted text
	gap                      // an empty line of plain text
	edge                     // the end of a block that was read as text
)

// boldLevel is the level of what is no heading and is printed like one.
const boldLevel = 7

func itoa(n int) string { return strconv.Itoa(n) }

// Read reads a saved page: HTML, Markdown or plain text, told apart by what is in it, in any usual encoding. It never
// fails; a page without samples has a Statement without.
func Read(page []byte) Page {
	text, guessed := decoded(page)
	var pieces []piece
	title := ""
	if htmlPage().Match(text[:min(len(text), 1<<16)]) {
		pieces, title = htmlPieces(text)
		pieces = opened(pieces)
	} else {
		pieces = textPieces(text)
	}
	var p Page
	if guessed != "" {
		p.Unsure = append(p.Unsure, guessed)
	}
	sections := sectionsOf(pieces)
	for _, s := range sections {
		r := &reader{pieces: s.pieces, common: s.common}
		r.title(s, title, len(sections))
		r.limits()
		r.files()
		r.tolerance()
		r.checkers()
		r.signature()
		r.samples()
		slices.SortStableFunc(r.statement.Took, func(a, b Taken) int { return a.Line - b.Line })
		p.Problems = append(p.Problems, r.statement)
	}
	if len(sections) == 1 {
		p.Problems[0].Unsure = append(p.Unsure, p.Problems[0].Unsure...)
	}
	return p
}

// opened reads the preformatted blocks of a page that hold a whole statement, or samples in columns, as the text that
// they are.
func opened(pieces []piece) (all []piece) {
	for i, p := range pieces {
		awaited := p.label != ""
		if i > 0 && pieces[i-1].kind != block {
			l := labelOf(pieces[i-1].text)
			awaited = awaited || (l.kind == "input" || l.kind == "output") && l.rest == ""
		}
		if p.kind != block || awaited || !holdsText(p.text) {
			all = append(all, p)
			continue
		}
		text := p.text
		if !p.cut && !strings.HasSuffix(text, "\n") {
			text += "\n"
		}
		for _, one := range textPieces([]byte(text)) {
			one.line, one.last = p.at(one.line-1), p.last
			one.group += p.group << 20
			one.cut = one.cut || p.cut
			all = append(all, one)
		}
		all = append(all, piece{kind: edge, line: p.at(strings.Count(text, "\n"))})
	}
	return all
}

// holdsText reports a block that is more than data: labels of samples stand in it, behind other text, or beside each
// other.
func holdsText(block string) bool {
	in, out, first := false, false, true
	for line := range strings.Lines(block) {
		line = strings.TrimRight(line, "\n")
		if strings.TrimSpace(line) == "" {
			continue
		}
		if _, _, ok := columnHeads(line); ok {
			return true
		}
		l := labelOf(line)
		if first && l.kind != "" && l.kind != "problem" {
			return false // the labels part it
		}
		first = false
		in = in || l.kind == "input" && l.sample
		out = out || l.kind == "output" && (l.sample || in)
	}
	return in && out
}

var htmlPage = lazy.New(`(?i)<(!doctype html|html|head|body|div|pre|h[1-6]|table|p|section|article|span|li)[\s>]`)

// A section is what belongs to one of the problems of a page.
type section struct {
	head   *piece
	pieces []piece
	common []piece // what stands before all of them
}

// sectionsOf parts a page where two headings of one level each have a sample of their own below them.
func sectionsOf(pieces []piece) []section {
	for level := 1; level <= 6; level++ {
		var heads []int
		for i, p := range pieces {
			if p.kind == heading && p.level == level && labelOf(p.text).kind == "" {
				heads = append(heads, i)
			}
		}
		var own []section
		for _, from := range heads {
			to := len(pieces)
			for i := from + 1; i < len(pieces); i++ {
				if pieces[i].kind == heading && pieces[i].level <= level && labelOf(pieces[i].text).kind == "" {
					to = i
					break
				}
			}
			one := section{&pieces[from], pieces[from:to], pieces[:heads[0]]}
			r := &reader{pieces: one.pieces}
			r.samples()
			if len(r.statement.Samples) > 0 {
				own = append(own, one)
			}
		}
		if len(own) > 1 {
			return own
		}
	}
	return []section{{nil, pieces, nil}}
}

// A reader makes a statement of the pieces of a page.
type reader struct {
	pieces    []piece
	common    []piece
	statement Statement
}

func (r *reader) took(line int, format string, args ...any) {
	r.statement.Took = append(r.statement.Took, Taken{line, fmt.Sprintf(format, args...)})
}

func (r *reader) unsure(format string, args ...any) {
	r.statement.Unsure = append(r.statement.Unsure, fmt.Sprintf(format, args...))
}

var letterAt = lazy.New(`^(?:(?i:problem|task|aufgabe|problema|problème|zadanie|задача|题目|問題|문제)\s+)?([A-Z][0-9]?|[0-9]{1,2})(?:[.):]|\s+[-–—]|\s*$)`)

// title takes the first heading, or else the title of the page.
func (r *reader) title(s section, fallback string, of int) {
	for _, p := range r.pieces {
		if p.kind == heading && labelOf(p.text).kind == "" && len(p.text) < 120 && p.level != boldLevel {
			r.statement.Title = strings.TrimRight(strings.Join(strings.Fields(p.text), " "), ":")
			r.took(p.line, "title %q", r.statement.Title)
			break
		}
	}
	if r.statement.Title == "" && fallback != "" {
		r.statement.Title = fallback
		r.took(1, "title %q", fallback)
	}
	if m := letterAt().FindStringSubmatch(r.statement.Title); m != nil && of > 1 {
		r.statement.Letter = m[1]
	}
}

const (
	number     = `([0-9]+(?:[.,][0-9]+)?|\b(?:half a|one|two|three|four|five|six|eight|ten|eine|zwei|drei|une?|dos|tres|deux|trois|dois|três)\b)\s*`
	timeUnit   = `(milliseconds?|millis|msecs?|ms|milisegundos?|millisekunden|millisecondes?|milisekund[ya]?|миллисекунд[аы]?|мс|毫秒|ミリ秒|밀리초|seconds?|secs?|s|sekunden?|segundos?|secondes?|sekund[ay]?|секунд[аы]?|сек|с|秒钟?|초)(?:\b|[^\pL]|$)`
	memoryUnit = `(kilobytes?|kibibytes?|kib|kb|килобайта?|кб|megabytes?|mebibytes?|megabajt(?:ów|y)?|mégaoctets?|mo|mib|mb|m|мегабайта?|мб|兆|gigabytes?|gibibytes?|gigaoctets?|go|gib|gb|g|гигабайта?|гб)(?:\b|[^\pL]|$)`
	between    = `[^0-9\n]{0,40}\n?[^0-9\n]{0,20}`
	fileName   = `([\w-]+\.[a-zA-Z]\w{0,7})`
	timeWords  = `(?:time[ -]?limit|zeitlimit|zeitgrenze|límite de tiempo|limite de temps|limite de tempo|limit czasu|ограничение по времени|лимит времени|时间限制|時間限制|実行時間制限|実行時間|시간 ?제한)`
	spaceWords = `(?:memory(?:[ -]?limit|\s+usage)|speicherlimit|speichergrenze|límite de memoria|limite (?:de )?mémoire|limite de memória|limit pamięci|ограничение по памяти|лимит памяти|内存限制|空间限制|記憶體限制|メモリ制限|メモリ|메모리 ?제한)`
)

var (
	timeLimit   = lazy.New(`(?i)` + timeWords + between + number + timeUnit)
	timeText    = lazy.New(`(?i)\b(?:within|exceed|at most|runs? (?:for|in)|no more than)\s+` + number + `(milliseconds?|ms|seconds?)()\b`)
	memoryLimit = lazy.New(`(?i)` + spaceWords + between + number + memoryUnit)
	memoryText  = lazy.New(`(?i)` + number + `(kilobytes?|megabytes?|mebibytes?|mib|mb|gigabytes?|gib|gb)\s+of\s+(?:memory|ram)`)
	inputFile   = lazy.New(`(?i)(?:\b(?:input|eingabe|entrada|entrée|wejście)|входно(?:й|го)|输入|入力)(?:[\s-]*(?:file(?:\s*name)?|datei|файла?|文件|ファイル)|:|：)\s*[:：\n]?\s*` + fileName)
	outputFile  = lazy.New(`(?i)(?:\b(?:output|ausgabe|salida|saída|sortie|wyjście)|выходно(?:й|го)|输出|出力)(?:[\s-]*(?:file(?:\s*name)?|datei|файла?|文件|ファイル)|:|：)\s*[:：\n]?\s*` + fileName)
	ownTime     = lazy.New(`(?i)\b(java|python|pypy|kotlin|c#|go|ruby|javascript|node(?:\.js)?|rust|scala|haskell)\b[^0-9a-zA-Z]{0,4}(?:(?:is|gets|has|time limit)\s+)*(?:(?:×|x|times)\s*([0-9]+(?:\.[0-9]+)?)|([0-9]+(?:\.[0-9]+)?)\s*(?:×|x\b|times)|(twice|double|doppelt|vdvoe|вдвое)|(three times|triple)|([0-9]+(?:[.,][0-9]+)?)\s*(ms|milliseconds?|s|sec|seconds?)\b)`)
)

// numberWords are small numbers as statements write them.
var numberWords = map[string]string{
	"half a": "0.5", "one": "1", "two": "2", "three": "3", "four": "4", "five": "5", "six": "6", "eight": "8", "ten": "10", "eine": "1", "zwei": "2", "drei": "3",
	"un": "1", "une": "1", "dos": "2", "tres": "3", "deux": "2", "trois": "3", "dois": "2", "três": "3",
}

// languageNames are those of languages as verdict.toml has them.
var languageNames = map[string]string{"c#": "csharp", "node": "javascript", "node.js": "javascript"}

// limits looks for limits first where they are named as such, and then in running text.
func (r *reader) limits() {
	text, lines := r.running()
	s := &r.statement
	s.Time = r.limit(text, lines, "time limit", timeLimit(), timeText(), func(n, unit string) string {
		switch unit = strings.ToLower(unit); {
		case strings.HasPrefix(unit, "m"), strings.HasPrefix(unit, "м"), strings.HasPrefix(unit, "毫"), strings.HasPrefix(unit, "ミ"), strings.HasPrefix(unit, "밀"):
			return n + "ms"
		}
		return n + "s"
	})
	s.Memory = r.limit(text, lines, "memory limit", memoryLimit(), memoryText(), func(n, unit string) string {
		switch unit = strings.ToLower(unit); {
		case strings.HasPrefix(unit, "k"), strings.HasPrefix(unit, "к"):
			return n + "KiB"
		case strings.HasPrefix(unit, "g"), strings.HasPrefix(unit, "г"):
			return n + "GiB"
		}
		return n + "MiB"
	})
	for _, at := range timeLimit().FindAllStringIndex(text, 1) {
		r.ownTimes(text[at[1]:min(len(text), at[1]+200)], lines(at[0]))
	}
}

// ownTimes takes what languages have to themselves, as factors or as times.
func (r *reader) ownTimes(text string, line int) {
	for _, m := range ownTime().FindAllStringSubmatch(text, -1) {
		name := strings.ToLower(m[1])
		if other, ok := languageNames[name]; ok {
			name = other
		}
		factor := 0.0
		switch {
		case m[2]+m[3] != "":
			factor, _ = strconv.ParseFloat(m[2]+m[3], 64)
		case m[4] != "":
			factor = 2
		case m[5] != "":
			factor = 3
		}
		own := ""
		if usual, err := problem.ParseTime(r.statement.Time); factor > 0 && err == nil {
			own = strconv.FormatFloat(factor*usual.Seconds(), 'f', -1, 64) + "s"
		} else if m[6] != "" {
			own = strings.Replace(m[6], ",", ".", 1) + map[bool]string{true: "ms", false: "s"}[strings.HasPrefix(strings.ToLower(m[7]), "m")]
		}
		if own == "" || slices.ContainsFunc(r.statement.Languages, func(l LanguageTime) bool { return l.Language == name }) {
			continue
		}
		r.statement.Languages = append(r.statement.Languages, LanguageTime{name, own})
		r.took(line, "time limit %s for %s (%q)", own, name, strings.TrimSpace(m[0]))
	}
}

func (r *reader) limit(text string, lines func(int) int, what string, named, running *regexp.Regexp, words func(n, unit string) string) (limit string) {
	found := named.FindAllStringSubmatchIndex(text, -1)
	fromText := len(found) == 0
	if fromText {
		found = running.FindAllStringSubmatchIndex(text, -1)
	}
	for _, at := range found {
		n, unit := strings.Replace(text[at[2]:at[3]], ",", ".", 1), text[at[4]:at[5]]
		if digits, ok := numberWords[strings.ToLower(n)]; ok {
			n = digits
		}
		value := words(n, unit)
		line := lines(at[2])
		switch {
		case limit == "":
			limit = value
			r.took(line, "%s %s (%q)", what, value, strings.Join(strings.Fields(text[at[0]:at[5]]), " "))
			if fromText {
				r.unsure("line %d: the %s: it is said in running text", line, what)
			}
		case value != limit:
			r.unsure("line %d: another %s, %s; the first was taken", line, what, value)
			return limit
		}
	}
	return limit
}

// running is all text but the blocks, with the line that each byte is from.
func (r *reader) running() (text string, line func(int) int) {
	var b strings.Builder
	var starts, lines []int
	for _, p := range slices.Concat(r.common, r.pieces) {
		if p.kind != block && p.kind != gap {
			starts, lines = append(starts, b.Len()), append(lines, p.line)
			b.WriteString(strings.Join(strings.Fields(p.text), " ") + "\n")
		}
	}
	return b.String(), func(at int) int {
		i, _ := slices.BinarySearch(starts, at+1)
		if i == 0 {
			return 1
		}
		return lines[i-1]
	}
}

// files looks for the names of files to read and write.
func (r *reader) files() {
	text, lines := r.running()
	for _, one := range []struct {
		pattern *regexp.Regexp
		into    *string
		what    string
	}{{inputFile(), &r.statement.Files.Input, "input"}, {outputFile(), &r.statement.Files.Output, "output"}} {
		if at := one.pattern.FindStringSubmatchIndex(text); at != nil {
			*one.into = text[at[2]:at[3]]
			r.took(lines(at[2]), "%s file %s", one.what, *one.into)
			r.unsure("line %d: the %s is taken to be in the file %s; without it take [files] out of verdict.toml", lines(at[2]), one.what, *one.into)
		}
	}
}

var (
	allowedError = lazy.New(`(?i)(?:error|difference|precision|tolerance|accuracy|fehler|abweichung|erreur|erro|diferencia|błąd|błędem|погрешност\pL*|ошибк\pL*|误差|精度|誤差|오차)`)
	absoluteWord = lazy.New(`(?i)absol|абсолют|bezwzgl|绝对|絶対|절대`)
	relativeWord = lazy.New(`(?i)relat|относит|względ|相对|相対|상대`)
	smallNumber  = lazy.New(`10\s*(?:\^|\*\*)\s*\{?\s*-\s*([0-9]{1,2})\s*\}?|10(⁻[⁰¹²³⁴⁵⁶⁷⁸⁹]+)|\b([1-9](?:\.[0-9])?)[eE]-0?([0-9]{1,2})\b|\b(0[.,]0*1)\b|\b10\s*-\s*([0-9]{1,2})\b`)
)

var sentenceEnd = lazy.New(`\.\s|\n|。`)

// tolerance looks for the error that answers may have.
func (r *reader) tolerance() {
	text, lines := r.running()
	text = strings.NewReplacer("−", "  -", "–", "  -", "$", " ", "\\", " ", "\u00a0", "  ").Replace(text) // as many bytes as before
	for _, at := range smallNumber().FindAllStringSubmatchIndex(text, -1) {
		before := text[max(0, at[0]-160):at[0]]
		if i := strings.LastIndexAny(before, ".\n。"); i >= 0 && !allowedError().MatchString(before[i:]) {
			before = before[i:]
		}
		after := text[at[1]:min(len(text), at[1]+80)]
		if i := sentenceEnd().FindStringIndex(after); i != nil {
			after = after[:i[0]]
		}
		around := before + after
		if !allowedError().MatchString(around) && !(absoluteWord().MatchString(around) && relativeWord().MatchString(around)) {
			continue
		}
		m := smallNumber().FindStringSubmatch(text[at[0]:at[1]])
		value := ""
		switch {
		case m[1] != "":
			value = "1e-" + strings.TrimLeft(m[1], "0")
		case m[2] != "":
			value = "1e-" + plainDigits(strings.TrimPrefix(m[2], "⁻"))
		case m[3] != "":
			value = m[3] + "e-" + m[4]
		case m[6] != "": // copied without what was raised
			value = "1e-" + strings.TrimLeft(m[6], "0")
			r.unsure("line %d: %q was taken for the error %s", lines(min(at[0], len(text)-1)), strings.Join(strings.Fields(m[0]), ""), value)
		default:
			value = strings.Replace(m[5], ",", ".", 1)
		}
		absolute, relative := absoluteWord().MatchString(around), relativeWord().MatchString(around)
		if absolute || !relative {
			r.statement.Absolute = value
		}
		if relative || !absolute {
			r.statement.Relative = value
		}
		words := map[[2]bool]string{{true, true}: "absolute or relative", {true, false}: "absolute", {false, true}: "relative", {false, false}: "absolute or relative"}[[2]bool{absolute, relative}]
		r.took(lines(min(at[0], len(text)-1)), "an %s error of %s is allowed", words, value)
		if !absolute && !relative {
			r.unsure("the page says neither absolute nor relative of the error %s; both were taken", value)
		}
		return
	}
}

func plainDigits(raised string) (digits string) {
	for _, c := range raised {
		for i, one := range []rune("⁰¹²³⁴⁵⁶⁷⁸⁹") {
			if c == one {
				digits += itoa(i)
			}
		}
	}
	return digits
}

var (
	anyAnswer  = lazy.New(`(?i)[^.\n]*(?:\b(?:any (?:one )?of (?:them|these|the)|any (?:valid|such|correct|optimal|possible|order)|in any order|multiple (?:solutions|answers)|several (?:solutions|answers)|more than one (?:solution|answer)|beliebige[rn]? (?:davon|reihenfolge)|cualquiera|n'importe (?:lequel|quel)|qualquer uma?|dowolną?)|любо(?:й|е|м) (?:из|порядке)|выведите любо|任意一|任意顺序|どれ(?:を|か)|任意の順|아무거나)[^.\n]*`)
	anyOrdered = lazy.New(`(?i)any order|любом порядке|任意顺序|任意の順|beliebige[rn]? reihenfolge`)
)

// checkers tells of answers that are not the only ones.
func (r *reader) checkers() {
	text, lines := r.running()
	for _, at := range anyAnswer().FindAllStringIndex(text, 3) {
		words := strings.Join(strings.Fields(text[at[0]:at[1]]), " ")
		if len(words) > 160 {
			words = string([]rune(words)[:min(len([]rune(words)), 120)]) + " …"
		}
		line := lines(at[0] + len(text[at[0]:at[1]]) - len(strings.TrimLeft(text[at[0]:at[1]], " \n")))
		if anyOrdered().MatchString(words) {
			r.statement.Perhaps = append(r.statement.Perhaps, fmt.Sprintf("line %d: %q: perhaps any_order belongs into [compare], or a checker is needed", line, words))
			continue
		}
		r.statement.Perhaps = append(r.statement.Perhaps, fmt.Sprintf("line %d: %q: perhaps a checker is needed", line, words))
	}
}
