package problem

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"time"
	"unicode/utf8"
)

// A NewCase is a case to be written down.
type NewCase struct {
	Group  string // heading of the group, as it is to be written; not empty
	Name   string // empty: the next free number
	Reason string // may be empty
	Input  []byte
	Output []byte // nil: not known
	Unsure bool   // it was taken with doubt
	// From is the solution that printed the output, which proves no more than that,
	// and When that was; empty: it is known from elsewhere.
	From string
	When time.Time
	// shared is the file of another case that holds the same input, relative to the folder.
	shared string
}

// inlineMost is the size of an input and output together up to which a case
// goes to cases.md, in bytes.
const inlineMost = 4 << 10

// Add writes a case down and returns its name and where it went: small text to
// the end of its group in cases.md, whose other text stays as it is to the
// byte, and everything else to cases/.
// Of several processes that do so at once each adds its own.
func (p *Problem) Add(c NewCase) (name, where string, err error) {
	err = p.changing(func(now *Problem) (err error) {
		name, where, err = now.add(c)
		return err
	})
	return name, where, err
}

func (p *Problem) add(c NewCase) (name, where string, err error) {
	group := GroupName(c.Group)
	if group == "" {
		return "", "", &RequestError{fmt.Sprintf("%q makes no name of a group; use letters and digits", c.Group)}
	}
	if c, err = p.WithCalls(c); err != nil {
		return "", "", err
	}
	if err := errors.Join(p.checkData(c), p.checkAdded(c.Input)); err != nil {
		return "", "", err
	}
	if c.Name == "" {
		c.Name = p.freeName(group)
	}
	if err := checkName(c.Name); err != nil {
		return "", "", err
	}
	name = group + "/" + c.Name
	for _, other := range p.Cases {
		if other.Name == name {
			return "", "", &RequestError{fmt.Sprintf("there is a case %q already, at %s; choose another name", name, other.Where)}
		}
	}
	if len(c.Output) <= inlineMost && isText(c.Output) && (len(c.Input) > inlineMost || !isText(c.Input)) {
		c.shared = p.fileWith(c.Input)
	}
	if c.shared == "" && (len(c.Input)+len(c.Output) > inlineMost || !isText(c.Input) || !isText(c.Output)) {
		where, err = p.addFiles(group, c)
		if err == nil && c.From != "" {
			_, err = p.keep(Case{Name: name, Group: group, Where: where}, c.Output, c.From, c.When)
		}
	} else {
		where, err = CasesFile, p.addText(group, c)
	}
	return name, where, err
}

// fileWith finds a file of the folder that is another case's input and holds these bytes; "":
// there is none.
func (p *Problem) fileWith(input []byte) string {
	for _, c := range p.Cases {
		inside, err := filepath.Rel(p.Dir, c.Input.Path)
		if c.Sealed || c.Input.Path == "" || c.Input.Size != int64(len(input)) || err != nil || !filepath.IsLocal(inside) || strings.ContainsAny(inside, "\"`\n") {
			continue
		}
		if text, err := c.Input.Head(int64(len(input)) + 1); err == nil && bytes.Equal(text, input) {
			return filepath.ToSlash(inside)
		}
	}
	return ""
}

// freeName returns the least number that no case of a group has as its name.
func (p *Problem) freeName(group string) string {
	taken := map[string]bool{}
	for _, c := range p.Cases {
		taken[c.Name] = true
	}
	for n := 1; ; n++ {
		if name := strconv.Itoa(n); !taken[group+"/"+name] {
			return name
		}
	}
}

// isText reports whether data can stand in cases.md and come back the same.
func isText(data []byte) bool {
	return utf8.Valid(data) && !bytes.ContainsFunc(data, func(c rune) bool {
		return c < ' ' && c != '\n' && c != '\t' || c == 0x7f || c == 0xfeff
	})
}

// addFiles writes NAME.in and NAME.out, and neither if one of them is there.
func (p *Problem) addFiles(group string, c NewCase) (where string, err error) {
	dir := filepath.Join(p.Dir, CasesFolder)
	where = CasesFolder + "/"
	if group != CasesFolder {
		dir = filepath.Join(dir, group)
		where += group + "/"
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	input, output := filepath.Join(dir, c.Name+".in"), filepath.Join(dir, c.Name+".out")
	for _, path := range []string{input, output, filepath.Join(dir, c.Name+notesExtension)} {
		if _, err := os.Lstat(path); err == nil {
			return "", &RequestError{fmt.Sprintf("%s is there already and stays as it is; choose another name", path)}
		}
	}
	// The output first: an input without an output would be a whole case.
	if c.Output != nil && c.From == "" {
		if err := WriteWhole(output, c.Output, 0o644); err != nil {
			return "", err
		}
	}
	if err := WriteWhole(input, c.Input, 0o644); err != nil {
		return "", errors.Join(err, os.Remove(output))
	}
	notes := ""
	if reason := strings.TrimSpace(c.Reason); reason != "" {
		notes = escapedProse(reason) + "\n"
	}
	if c.Unsure && c.Output != nil {
		_, word := p.dataWords()
		notes += fmt.Sprintf("\n```%s %s %s\n```\n", word, unsureWord, fileWord(strings.TrimSuffix(where, "/")+"/"+c.Name+".out"))
	}
	if notes != "" {
		if err := writeNew(filepath.Join(dir, c.Name+notesExtension), []byte(notes)); err != nil {
			return "", err
		}
	}
	return where + c.Name + ".in", nil
}

// addText writes a case at the end of its group in cases.md.
func (p *Problem) addText(group string, c NewCase) error {
	old, err := os.ReadFile(p.full(CasesFile))
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	at, found := groupEnd(old, group)
	text := p.markdown(c)
	if !found {
		text = fmt.Sprintf("# %s\n\n%s", strings.TrimSpace(c.Group), text)
	}
	return p.rewrite(CasesFile, old, insert(old, at, text))
}

// groupEnd returns the offset in cases.md at which a group ends: where the
// next group begins, or the end of the text.
func groupEnd(text []byte, group string) (at int, found bool) {
	inside := group == CasesFolder // cases above the first heading
	sections, _ := outline(text)
	for _, s := range sections {
		switch {
		case s.level != 1:
		case inside:
			return s.from, true
		default:
			inside = s.group == group
			found = found || inside
		}
	}
	return len(text), found || inside
}

// markdown is a case as cases.md holds it.
func (p *Problem) markdown(c NewCase) string {
	var b strings.Builder
	fmt.Fprintf(&b, "## %s\n", c.Name)
	if reason := strings.TrimSpace(c.Reason); reason != "" {
		fmt.Fprintf(&b, "%s\n", escapedProse(reason))
	}
	b.WriteString("\n")
	input, output := p.dataWords()
	if whole, ok := p.withResults(c); ok {
		writeBlock(&b, input, whole)
		return b.String()
	}
	if c.shared != "" {
		fmt.Fprintf(&b, "```%s %s\n```\n", input, fileWord(c.shared))
	} else {
		writeBlock(&b, input, c.Input)
	}
	if c.Output != nil {
		b.WriteString("\n")
		if c.From != "" {
			b.WriteString(keptLine(c.From, c.When))
			output += " kept"
		}
		if c.Unsure {
			output += " " + unsureWord
		}
		writeBlock(&b, output, c.Output)
	}
	return b.String()
}

// escapedProse keeps a reason from being read as a heading, a fence or a
// comment.
func escapedProse(text string) string {
	lines := strings.Split(strings.ReplaceAll(text, "\r", ""), "\n")
	for i, line := range lines {
		line = strings.TrimSpace(line)
		if strings.HasPrefix(line, "<!--") || heading(line) > 0 || fenceLength(line) > 0 || misplacedFence(line) {
			line = `\` + line
		}
		lines[i] = line
	}
	return strings.Join(lines, "\n")
}

// writeBlock writes a fenced block whose fence is longer than any in the data.
func writeBlock(b *strings.Builder, kind string, data []byte) {
	fence := "```"
	for bytes.Contains(data, []byte(fence)) {
		fence += "`"
	}
	if len(data) > 0 && data[len(data)-1] != '\n' {
		kind += " no-newline"
		data = append(bytes.Clone(data), '\n')
	}
	fmt.Fprintf(b, "%s%s\n%s%s\n", fence, kind, data, fence)
}

// CaseTemplate is a text in which a person can write a case down, as cases.md
// has it.
func (p *Problem) CaseTemplate(c NewCase) []byte {
	input, output := p.dataWords()
	name := c.Name
	if name == "" {
		name = "NAME"
	}
	reason := strings.TrimSpace(c.Reason)
	if reason == "" {
		reason = "Why this case exists."
	}
	return []byte("# " + c.Group + "\n\n## " + name + "\n" + escapedProse(reason) +
		"\n\n```" + input + "\n```\n\n<!-- left empty: the answer is not known -->\n\n```" + output + "\n```\n")
}

// ReadNew reads cases that a person wrote down in a text like cases.md. Its
// error is a Mistakes if the text is at fault.
func (p *Problem) ReadNew(text []byte) (cases []NewCase, err error) {
	l := &loader{problem: &Problem{Dir: p.Dir, Call: p.Call}}
	r := &casesReader{loader: l, rest: Plain(text), file: "case.md", group: CasesFolder}
	r.all()
	r.close()
	if len(l.mistakes) > 0 {
		return nil, l.mistakes
	}
	input, _ := p.dataWords()
	if len(l.problem.Cases) == 0 {
		return nil, &RequestError{"there is no case in it; write a heading '## name' and below it a block ```" + input}
	}
	titles := map[string]string{}
	for line := range strings.Lines(string(Plain(text))) {
		if heading(line) == 1 {
			title := strings.TrimSpace(strings.Trim(strings.TrimSpace(line), "#"))
			titles[GroupName(title)] = title
		}
	}
	for _, c := range l.problem.Cases {
		n := NewCase{Group: c.Group, Name: c.shortName(), Reason: c.Reason, Input: c.Input.Text}
		if title := titles[c.Group]; title != "" {
			n.Group = title
		}
		if c.Input.Path != "" || len(c.Accepted) > 1 || len(c.Refused) > 0 || len(c.Accepted) == 1 && c.Accepted[0].Path != "" {
			return nil, &RequestError{"a case with several answers, or with data in files, is written into cases.md itself: 'cold case edit'"}
		}
		if len(c.Accepted) == 1 && len(c.Accepted[0].Text) > 0 {
			n.Output = c.Accepted[0].Text
		}
		cases = append(cases, n)
	}
	return cases, nil
}
