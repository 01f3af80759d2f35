package problem

import (
	"bytes"
	"fmt"
	"path"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/settings"
	"coldverdict/internal/lazy"
)

// A problem in parts asks several questions about one input. Each part is a group of cases. A source answers
// one part, which stands in its name or in verdict.toml; or it is told the part by an argument; or it prints
// the answers of all parts, in their order or each behind the name of its part.

// mostParts bounds how many parts a problem has.
const mostParts = 20

// parts reads the parts of a problem: their names, how many there are, or a table.
func (c *configReader) parts(at string, value any) {
	p := c.problem
	switch v := value.(type) {
	case int64:
		if v < 1 || v > mostParts {
			c.WrongAt(at, "%s is %d; it can be 1 to %d", at, v, mostParts)
			return
		}
		for i := range v {
			p.Parts = append(p.Parts, "part-"+strconv.FormatInt(i+1, 10))
		}
	case []any:
		c.Texts(&p.Parts)(at, value)
		for _, name := range p.Parts {
			if name != GroupName(name) || name == "" {
				c.WrongAt(at, "%q names no group, as cases have it: lower case with hyphens, such as %q", name, GroupName(name))
			}
		}
		if len(p.Parts) > mostParts {
			c.WrongAt(at, "there are %d parts; there can be %d", len(p.Parts), mostParts)
		}
		if len(slices.Compact(slices.Sorted(slices.Values(p.Parts)))) < len(p.Parts) {
			c.WrongAt(at, "two parts have one name")
		}
	case map[string]any:
		c.Table(at, value, settings.Fields{"names": c.parts, "argument": c.Truth(&p.PartArgument)})
		if len(p.Parts) == 0 && !c.Has(at+".names") {
			c.WrongAt(at, "say which parts there are: names = [\"first\", \"second\"], or names = 2")
		}
	default:
		c.WrongAt(at, "%s is a list of names, such as [\"first\", \"second\"], or how many there are", at)
	}
}

// partOf is the part that a source answers by its name: it stands there as a word, or its number does at the
// end; "": none.
func (p *Problem) partOf(file string) string {
	stem := stemOf(file)
	for i, name := range p.Parts {
		if wordIn(stem, name) || strings.HasSuffix(stem, strconv.Itoa(i+1)) && partNumber().MatchString(stem) {
			return name
		}
	}
	return ""
}

// partNumber is a name that ends in the number of a part: "2", "part2", "bags-2".
var partNumber = lazy.New(`^(?:|part|.*[-_.]part|.*[-_.])\d$`)

// wordIn reports that a word stands in a name, between other characters than letters and digits.
func wordIn(name, word string) bool {
	for at := 0; ; {
		i := strings.Index(name[at:], word)
		if i < 0 {
			return false
		}
		before, after := name[:at+i], name[at+i+len(word):]
		if !strings.HasSuffix(alphanumeric(before), "x") && !strings.HasPrefix(alphanumeric(after), "x") {
			return true
		}
		at += i + 1
	}
}

// alphanumeric has an x for each letter and digit, and a blank for all else.
func alphanumeric(text string) string {
	return strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r >= 0x80 {
			return 'x'
		}
		return ' '
	}, text)
}

// InParts returns a solution once for every part that it answers, or as it is: where the problem has
// no parts, and where verdict.toml says which groups it runs.
func (p *Problem) InParts(s Solution) (list []Solution) {
	if len(p.Parts) == 0 || len(s.Groups) > 0 {
		return []Solution{s}
	}
	for _, name := range p.Parts {
		one := s
		one.Groups = []string{name}
		switch own := p.partOf(s.File); {
		case own != "" && own != name:
			continue
		case own == name: // it prints this answer and nothing else
		case p.PartArgument:
			one.Args = append(slices.Clone(s.Args), name)
		default:
			one.Part = name
		}
		list = append(list, one)
	}
	return list
}

// ChooseParts returns what answers the parts of a problem: for each the candidate edited last of those that
// answer it. A part that nothing answers is left out.
func (p *Problem) ChooseParts() (list []Solution, err error) {
	for _, name := range p.Parts {
		var able []Solution
		for _, file := range p.Sources {
			for _, s := range p.entries(file) {
				if p.judges(file) || playsPart(file) && s.Line == 0 || s.Role != Candidate || s.Expect != "" && s.Expect != "accepted" && s.Expect != "unjudged" {
					continue
				}
				able = append(able, slices.DeleteFunc(p.InParts(s), func(one Solution) bool { return !one.Runs(name) })...)
			}
		}
		last, err := p.editedLast(able)
		if err != nil { // of those that were edited at one moment, what answers this part alone comes first
			last, err = p.editedLast(slices.DeleteFunc(able, func(s Solution) bool { return s.Part != "" }))
		}
		if err != nil {
			return nil, err
		}
		if last != nil {
			list = append(list, *last)
		}
	}
	if len(list) == 0 {
		return nil, &RequestError{fmt.Sprintf("no candidate in %s; name a source file, or write one", p.Dir)}
	}
	return list, nil
}

// AnswerOfPart finds the answer of a part in what a program printed for all of them: behind the name of the
// part or its number ("most: 4", "part 2 = 4"); or, where no line names a part, as the line, or the block between
// empty lines, in the order of the parts. The words say why there is none.
func (p *Problem) AnswerOfPart(part string, output []byte) (answer []byte, why string) {
	lines := strings.Split(strings.TrimRight(string(Plain(output)), "\n"), "\n")
	var within []string
	of, any := "", false
	for _, line := range lines {
		if named, rest, ok := p.labelled(line); ok {
			of, any = named, true
			if of == part && rest != "" {
				within = append(within, rest)
			}
			continue
		}
		if of == part && any {
			within = append(within, line)
		}
	}
	switch text := strings.TrimRight(strings.Join(within, "\n"), " \n"); {
	case any && text == "":
		return nil, "it prints no answer to " + part
	case any:
		return []byte(text + "\n"), ""
	}
	at := slices.Index(p.Parts, part)
	full := slices.DeleteFunc(slices.Clone(lines), func(line string) bool { return strings.TrimSpace(line) == "" })
	if len(full) > len(p.Parts) {
		if full = blocks(lines); len(full) > len(p.Parts) || len(full) == 1 {
			return nil, fmt.Sprintf("which of its lines is the answer to %s cannot be told; print a line a part, or %q", part, part+": …")
		}
	}
	if at >= len(full) {
		return nil, "it prints no answer to " + part
	}
	return []byte(full[at] + "\n"), ""
}

// labelled takes the name of a part off a line.
func (p *Problem) labelled(line string) (part, rest string, ok bool) {
	m := label().FindStringSubmatch(line)
	if m == nil {
		return "", "", false
	}
	name := GroupName(m[1])
	for i, part := range p.Parts {
		if number := strconv.Itoa(i + 1); name == part || name == number || name == "part-"+number || name == "part"+number {
			return part, strings.TrimSpace(m[2]), true
		}
	}
	return "", "", false
}

var label = lazy.New(`^\s*([\pL\pN][\pL\pN _-]{0,60}?)\s*[:=]\s*(.*)$`)

// blocks are the texts between empty lines.
func blocks(lines []string) (list []string) {
	var open []string
	for _, line := range append(slices.Clone(lines), "") {
		switch {
		case strings.TrimSpace(line) != "":
			open = append(open, line)
		case len(open) > 0:
			list, open = append(list, strings.Join(open, "\n")), nil
		}
	}
	return list
}

// confirmedLine says since when an answer is known from elsewhere.
const confirmedLine = "Confirmed on "

// Confirmed reports that the answer was confirmed elsewhere, as Confirm notes it.
func (c Case) Confirmed() bool {
	return strings.HasPrefix(c.Reason, confirmedLine) || strings.Contains(c.Reason, "\n"+confirmedLine)
}

// Confirm writes down an answer that was confirmed elsewhere: it proves what any expected output does. One that
// was kept from a run is confirmed by the same answer. It returns the file that was changed.
func (p *Problem) Confirm(c Case, answer []byte, on string) (where string, err error) {
	err = p.changingCase(c, func(now *Problem, c Case) (err error) {
		if len(c.Accepted) == 0 {
			where, err = now.write(c, answer, confirmedLine+on+".\n\n", "")
			return err
		}
		known, err := c.Accepted[0].Head(largestRefused + 1)
		switch {
		case err != nil:
			return err
		case !now.sameAnswer(known, answer):
			return &RequestError{fmt.Sprintf("the answer of %s is known as %q; 'cold case edit %s' changes it", c.Name, shortText(known), c.Name)}
		case c.Kept == "":
			return &RequestError{fmt.Sprintf("%s has this answer already", c.Name)}
		}
		where, err = now.confirmKept(c, on)
		return err
	})
	return where, err
}

// confirmKept takes back that a kept answer proves no more than the program that printed it.
func (p *Problem) confirmKept(c Case, on string) (where string, err error) {
	where, old, from, to, err := p.blocksOf(c)
	if err != nil {
		return "", err
	}
	part := old[from:to]
	at := keptBlock().FindIndex(part)
	if at == nil {
		return "", &RequestError{fmt.Sprintf("the word \"kept\" of %s was not found in %s; take it out there", c.Name, path.Base(where))}
	}
	changed := append(bytes.Clone(part[:at[0]]), keptBlock().ReplaceAll(part[at[0]:at[1]], []byte("$1$2"))...)
	changed = append(changed, part[at[1]:]...)
	changed = keptSentence().ReplaceAll(changed, []byte(confirmedLine+on+"."))
	return where, p.rewrite(where, old, slices.Concat(old[:from], changed, old[to:]))
}

var (
	keptBlock    = lazy.New("(?m)^(`{3,}\\S+)[ \\t]+kept\\b(.*)$")
	keptSentence = lazy.New(`(?m)^` + keptWord + `on \d{4}-\d\d-\d\d: .* printed it\.`)
)
