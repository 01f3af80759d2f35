package intake

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"strings"

	"github.com/maruel/natural"

	"coldverdict/core/problem"
	"coldverdict/internal/lazy"
)

// A Pair is an input with its output.
type Pair struct {
	Group  string // name of the group, from the folders that it lies in; empty: none
	Name   string // of the case
	Input  string // path in the source
	Output string // empty: the answer is not known
	Size   int64  // bytes of both
}

// A Left is a file that was not paired.
type Left struct {
	Path string
	Why  string
}

// A Pairing is what a source's files amount to, in natural order.
type Pairing struct {
	Pairs []Pair
	Left  []Left
}

// The words that tell inputs from outputs, each as a whole word in a file name,
// an extension or a folder. Digits end a word: "in07" has the word "in".
var kindWords = map[string]bool{
	"in": true, "input": true,
	"out": false, "output": false, "ans": false, "answer": false, "expected": false, "sol": false,
}

var letters = lazy.New(`[A-Za-z]+`)

// A reading is what a path says of the file: that it is an input or an output,
// of whatever remains when the word that says so is taken out.
type reading struct {
	input bool
	rest  string
}

// readings returns all that a path may say. With several words of one kind,
// taking out all of them counts as well ("in/1.in").
func readings(name string) (all []reading) {
	var spans [2][][]int // of outputs, of inputs
	for _, span := range letters().FindAllStringIndex(name, -1) {
		input, ok := kindWords[strings.ToLower(name[span[0]:span[1]])]
		if !ok {
			continue
		}
		kind := 0
		if input {
			kind = 1
		}
		spans[kind] = append(spans[kind], span)
		all = append(all, reading{input, without(name, span)})
	}
	for kind, several := range spans {
		if len(several) > 1 {
			all = append(all, reading{kind == 1, without(name, several...)})
		}
	}
	return all
}

// without takes words out of a path, with the marks that set them apart.
func without(name string, spans ...[]int) string {
	const hole = "\x00"
	var b strings.Builder
	at := 0
	for _, span := range spans {
		b.WriteString(name[at:span[0]] + hole)
		at = span[1]
	}
	b.WriteString(name[at:])
	parts := strings.Split(b.String(), "/")
	kept := parts[:0]
	for i, part := range parts {
		if strings.Contains(part, hole) {
			part = around().ReplaceAllStringFunc(part, func(gap string) string {
				first, last := gap[:1], gap[len(gap)-1:]
				if first != hole && last != hole {
					return first // marks on both sides: one of them stays
				}
				return ""
			})
			part = strings.Trim(part, marks)
			if part == "" && i < len(parts)-1 {
				continue
			}
		}
		kept = append(kept, part)
	}
	return strings.Join(kept, "/")
}

const marks = "._- "

var around = lazy.New(`[._\- ]*\x00[._\- \x00]*`)

// Patterns say how inputs and outputs are named where no word does: each with "*" or "?" for what both have in
// common. Alone says that inputs without an output are taken, too.
type Patterns struct {
	Inputs, Outputs string
	Alone           bool
}

// compiled makes an expression of a pattern, whose groups are what its marks stand for. One without a slash is about
// the names of files, in any folder.
func compiled(pattern string) *regexp.Regexp {
	text := regexp.QuoteMeta(pattern)
	text = strings.NewReplacer(`\*`, `([^/]*)`, `\?`, `([^/])`).Replace(text)
	return regexp.MustCompile("^" + text + "$")
}

// under reads a path by a pattern.
func under(pattern string, name string) (rest string, ok bool) {
	dir, base := path.Split(name)
	if strings.Contains(pattern, "/") {
		dir, base = "", name
	}
	m := compiled(pattern).FindStringSubmatch(base)
	if m == nil {
		return "", false
	}
	return dir + strings.Join(m[1:], "-"), true
}

// readingsOf are the readings of a path by patterns, or else by its words.
func (o Patterns) readingsOf(name string) (all []reading) {
	if o.Inputs == "" && o.Outputs == "" {
		if all = readings(name); len(all) == 0 {
			if rest, ok := strings.CutSuffix(name, ".a"); ok { // an answer
				return []reading{{false, rest}}
			}
		}
		return all
	}
	if rest, ok := under(o.Inputs, name); ok && o.Inputs != "" {
		all = append(all, reading{true, rest})
	}
	if rest, ok := under(o.Outputs, name); ok && o.Outputs != "" {
		all = append(all, reading{false, rest})
	}
	return all
}

// PairUp pairs inputs with outputs. Two files pair when what remains of their
// paths is the same; one that could pair with several is left over. A file without a word is an input where
// an output has its name.
func PairUp(files []File, o Patterns) Pairing {
	type sides struct{ inputs, outputs []int }
	byRest := map[string]*sides{}
	said := make([][]reading, len(files))
	for i, f := range files {
		said[i] = o.readingsOf(f.Path)
		for _, r := range said[i] {
			s := byRest[r.rest]
			if s == nil {
				s = &sides{}
				byRest[r.rest] = s
			}
			if r.input {
				s.inputs = append(s.inputs, i)
			} else {
				s.outputs = append(s.outputs, i)
			}
		}
	}
	if o.Inputs == "" {
		for i, f := range files {
			if s := byRest[f.Path]; len(said[i]) == 0 && s != nil && len(s.inputs) == 0 && len(s.outputs) > 0 {
				s.inputs = append(s.inputs, i)
			}
		}
	}
	partners := make([]map[int]string, len(files)) // by partner what both have in common
	note := func(a, b int, rest string) {
		if partners[a] == nil {
			partners[a] = map[int]string{}
		}
		if known, ok := partners[a][b]; !ok || len(rest) < len(known) {
			partners[a][b] = rest
		}
	}
	isInput := make([]bool, len(files))
	const crowd = 8 // so many that want the same partner are told as unclear without a list
	for rest, s := range byRest {
		for _, in := range s.inputs[:min(len(s.inputs), crowd)] {
			for _, out := range s.outputs[:min(len(s.outputs), crowd)] {
				if in != out {
					note(in, out, rest)
					note(out, in, rest)
					isInput[in] = true
				}
			}
		}
	}
	var p Pairing
	for i, f := range files {
		partner, rest, alone := only(partners[i])
		if _, _, mutual := only(partners[partner]); alone && mutual {
			if isInput[i] {
				p.Pairs = append(p.Pairs, Pair{Name: rest, Input: f.Path, Output: files[partner].Path, Size: f.Size + files[partner].Size})
			}
			continue
		}
		if o.Alone && len(said[i]) > 0 && said[i][0].input && len(partners[i]) == 0 {
			p.Pairs = append(p.Pairs, Pair{Name: said[i][0].rest, Input: f.Path, Size: f.Size})
			continue
		}
		p.Left = append(p.Left, Left{f.Path, whyLeft(said[i], partners[i], partner, alone, files)})
	}
	p.name()
	return p
}

// only returns the single partner, if there is exactly one.
func only(partners map[int]string) (partner int, rest string, ok bool) {
	for partner, rest = range partners {
	}
	return partner, rest, len(partners) == 1
}

func whyLeft(said []reading, partners map[int]string, partner int, alone bool, files []File) string {
	switch {
	case len(said) == 0:
		return "neither an input nor an output by its name"
	case alone:
		return fmt.Sprintf("%s could belong to several", files[partner].Path)
	case len(partners) > 1:
		var names []string
		for i := range partners {
			names = append(names, files[i].Path)
		}
		slices.SortFunc(names, natural.Compare)
		return fmt.Sprintf("could belong to %s and to %s", names[0], names[1])
	case said[0].input:
		return "an input without an output"
	}
	return "an output without an input"
}

// dataExtensions say nothing about a case.
var dataExtensions = []string{".txt", ".dat", ".data", ".text"}

// name makes names of cases and groups of what the paths of a pair have in
// common, and brings the pairs into natural order.
func (p *Pairing) name() {
	common := commonFolder(p.Pairs)
	taken := map[string]string{}
	pairs := p.Pairs[:0]
	for _, pair := range p.Pairs {
		dir, base := path.Split(strings.TrimPrefix(pair.Name, common))
		for _, extension := range dataExtensions {
			base = strings.TrimSuffix(base, extension)
		}
		if slices.Contains(dataExtensions, "."+base) {
			base = "" // there was nothing but the word
		}
		pair.Name = strings.Trim(strings.TrimSpace(base), "#. ")
		pair.Group = problem.GroupName(dir)
		if pair.Name == "" {
			pair.Name = "1"
		}
		key := strings.ToLower(pair.Group + "/" + pair.Name)
		if other, ok := taken[key]; ok {
			why := fmt.Sprintf("would be the case %s, as %s is", key, other)
			p.Left = append(p.Left, Left{pair.Input, why})
			if pair.Output != "" {
				p.Left = append(p.Left, Left{pair.Output, why})
			}
			continue
		}
		taken[key] = pair.Input
		pairs = append(pairs, pair)
	}
	p.Pairs = pairs
	slices.SortFunc(p.Pairs, func(a, b Pair) int { return natural.Compare(a.Group+"/"+a.Name, b.Group+"/"+b.Name) })
	slices.SortFunc(p.Left, func(a, b Left) int { return natural.Compare(a.Path, b.Path) })
}

// commonFolder is the longest folder that all names begin with.
func commonFolder(pairs []Pair) string {
	if len(pairs) == 0 {
		return ""
	}
	common, _ := path.Split(pairs[0].Name)
	for _, pair := range pairs[1:] {
		for !strings.HasPrefix(pair.Name, common) {
			common, _ = path.Split(strings.TrimSuffix(common, "/"))
		}
	}
	return common
}
