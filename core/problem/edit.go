package problem

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"github.com/pelletier/go-toml/v2"
)

// FindCase returns the one case that a name means: "group/name", or "name"
// where only one group has it.
func (p *Problem) FindCase(name string) (Case, error) {
	indices, err := p.SelectCases([]string{name})
	switch {
	case err != nil:
		return Case{}, err
	case len(indices) == 1:
		return p.Cases[indices[0]], nil
	}
	for _, i := range indices {
		if p.Cases[i].Name == name {
			return p.Cases[i], nil
		}
	}
	return Case{}, &RequestError{fmt.Sprintf("%q means %d cases, %s and %s among them; name one", name, len(indices), p.Cases[indices[0]].Name, p.Cases[indices[1]].Name)}
}

// inFile reports that a case has files of its own, and does not stand in
// cases.md.
func (c Case) inFile() bool { return !strings.HasPrefix(c.Where, CasesFile+":") }

// caseExtensions are those of the files that a case may have.
var caseExtensions = []string{".in", ".out", notesExtension, keptExtension}

// shortName is the case's name without its group.
func (c Case) shortName() string { return strings.TrimPrefix(c.Name, c.Group+"/") }

// beside returns the name of a file that belongs to the case, relative to the
// problem's folder, with slashes.
func (c Case) beside(extension string) string {
	if c.inFile() {
		return strings.TrimSuffix(c.Where, ".in") + extension
	}
	if c.Group == CasesFolder {
		return path.Join(CasesFolder, c.shortName()+extension)
	}
	return path.Join(CasesFolder, c.Group, c.shortName()+extension)
}

// full returns the path of a file that is named relative to the folder.
func (p *Problem) full(name string) string { return filepath.Join(p.Dir, filepath.FromSlash(name)) }

// Keep writes down what a solution printed for a case as its expected output,
// with a line that says from which source it is and when. It returns the file
// that it was written to.
func (p *Problem) Keep(c Case, output []byte, from string, when time.Time) (where string, err error) {
	err = p.changingCase(c, func(now *Problem, c Case) (err error) {
		where, err = now.keep(c, output, from, when)
		return err
	})
	return where, err
}

func (p *Problem) keep(c Case, output []byte, from string, when time.Time) (where string, err error) {
	if len(c.Accepted) > 0 {
		return "", &RequestError{fmt.Sprintf("the answer of %s is known already; 'cold case edit %s' changes it", c.Name, c.Name)}
	}
	return p.write(c, output, keptLine(from, when), " kept")
}

// write writes down an expected output of a case that has none, behind a text, in a block with a word. It returns
// the file that was changed.
func (p *Problem) write(c Case, output []byte, text, word string) (where string, err error) {
	with := c
	with.Accepted = []Data{{Text: output, Size: int64(len(output))}}
	if wrong := p.refusedMistake(&with); wrong != "" {
		return "", &RequestError{c.Name + ": " + wrong}
	}
	_, outputWord := p.dataWords()
	if !c.inFile() && len(output) <= inlineMost && isText(output) {
		var block strings.Builder
		writeBlock(&block, outputWord+word, output)
		return CasesFile, p.note(c, text+block.String())
	}
	name := c.beside(keptExtension)
	if strings.ContainsAny(name, "\"`") {
		return "", &RequestError{fmt.Sprintf("the name of %s has a quote, so that no block can point to its file; rename the case first", c.Name)}
	}
	if err := os.MkdirAll(filepath.Dir(p.full(name)), 0o755); err != nil {
		return "", err
	}
	// The data first: a note without it would be a mistake.
	if err := writeNew(p.full(name), output); err != nil {
		if errors.Is(err, os.ErrExist) {
			err = &RequestError{fmt.Sprintf("%s is there already and stays as it is; move it away", name)}
		}
		return "", err
	}
	return name, p.note(c, text+"```"+outputWord+word+" "+fileWord(name)+"\n```\n")
}

// keptLine says from which source an output is, and when.
func keptLine(from string, when time.Time) string {
	source := strings.Join(strings.FieldsFunc(from, func(r rune) bool { return r < ' ' }), " ")
	return fmt.Sprintf("%son %s: %s printed it.\n\n", keptWord, when.Format(time.DateOnly), source)
}

// largestRefused bounds an answer that is noted as wrong, in bytes.
const largestRefused = inlineMost

// Refuse notes that an answer is known to be wrong, and what is known of the one that is
// sought: SoughtLarger, SoughtSmaller, or nothing. It returns the file that was changed.
func (p *Problem) Refuse(c Case, answer []byte, sought string) (where string, err error) {
	err = p.changingCase(c, func(now *Problem, c Case) (err error) {
		where, err = now.refuse(c, answer, sought)
		return err
	})
	return where, err
}

func (p *Problem) refuse(c Case, answer []byte, sought string) (where string, err error) {
	if len(answer) > largestRefused || !isText(answer) {
		return "", &RequestError{fmt.Sprintf("this answer has %d bytes or is no text; only text up to %d bytes can be noted", len(answer), largestRefused)}
	}
	for _, r := range c.Refused {
		if known, err := r.Answer.Head(largestRefused + 1); err == nil && r.Sought == sought && bytes.Equal(known, answer) {
			return "", &RequestError{fmt.Sprintf("this answer of %s is refused already", c.Name)}
		}
	}
	with := c
	with.Refused = append(slices.Clone(c.Refused), Refused{Data{Text: answer, Size: int64(len(answer))}, sought})
	if wrong := p.refusedMistake(&with); wrong != "" {
		return "", &RequestError{c.Name + ": " + wrong}
	}
	_, kind := p.dataWords()
	kind += " refused"
	if sought != "" {
		kind += " " + sought
	}
	var block strings.Builder
	writeBlock(&block, kind, answer)
	if c.inFile() {
		where = c.beside(notesExtension)
	} else {
		where = CasesFile
	}
	return where, p.note(c, block.String())
}

// note adds text behind the last block of a case, and leaves all else as it is
// to the byte.
func (p *Problem) note(c Case, text string) error {
	name := CasesFile
	if c.inFile() {
		name = c.beside(notesExtension)
	}
	old, err := os.ReadFile(p.full(name))
	if err != nil && !(c.inFile() && errors.Is(err, os.ErrNotExist)) {
		return err
	}
	at := len(old)
	if !c.inFile() {
		s, err := findSection(old, c)
		if err != nil {
			return err
		}
		at = s.data
	}
	return p.rewrite(name, old, insert(old, at, text))
}

// insert puts text, which is whole lines, at an offset, with an empty line
// around it.
func insert(old []byte, at int, text string) []byte {
	before, after := old[:at], old[at:]
	switch plain := bytes.ReplaceAll(before, []byte{'\r'}, nil); {
	case len(before) == 0 || bytes.HasSuffix(plain, []byte("\n\n")):
	case bytes.HasSuffix(plain, []byte("\n")):
		text = "\n" + text
	default:
		text = "\n\n" + text
	}
	if rest := bytes.TrimLeft(after, "\r"); len(rest) > 0 && rest[0] != '\n' {
		text += "\n"
	}
	if bytes.Contains(old, []byte("\r\n")) {
		text = strings.ReplaceAll(text, "\n", "\r\n")
	}
	return append(append(bytes.Clone(before), text...), after...)
}

// rewrite replaces a file, unless somebody else has changed it since it was
// read.
func (p *Problem) rewrite(name string, old, text []byte) error {
	if len(text) > LargestCasesFile {
		return &RequestError{fmt.Sprintf("%s would grow past %d MB; put data into %s/", name, int(LargestCasesFile/1e6), CasesFolder)}
	}
	if err := toml.Unmarshal(Plain(text), new(map[string]any)); err != nil && name == ConfigFile {
		return &RequestError{fmt.Sprintf("%s says this in a way that cannot be added to (%s); write it there by hand: %s", name, strings.TrimPrefix(err.Error(), "toml: "), added(old, text))}
	}
	now, err := os.ReadFile(p.full(name))
	if err != nil && !errors.Is(err, os.ErrNotExist) || !bytes.Equal(now, old) {
		return &RequestError{fmt.Sprintf("%s was changed by somebody else at this moment and stays as it is; try again", name)}
	}
	return WriteWhole(p.full(name), text, 0o644)
}

// added is what was to be written behind a text, in one line.
func added(old, text []byte) string {
	return strings.Join(strings.Fields(string(bytes.TrimPrefix(text, old))), " ")
}

// findSection returns the section of cases.md that holds a case.
func findSection(text []byte, c Case) (section, error) {
	sections, _ := outline(text)
	for _, s := range sections {
		if s.level == 2 && s.group == c.Group && s.name == c.shortName() {
			return s, nil
		}
	}
	return section{}, &RequestError{fmt.Sprintf("%s holds no case %s any more", CasesFile, c.Name)}
}

// Rename gives a case another name within its group.
func (p *Problem) Rename(c Case, name string) error {
	return p.changingCase(c, func(now *Problem, c Case) error { return now.rename(c, name) })
}

func (p *Problem) rename(c Case, name string) error {
	if group, short, ok := strings.Cut(name, "/"); ok {
		if group != c.Group {
			return &RequestError{fmt.Sprintf("%s can only be renamed within its group, %s/…; 'cold case edit' opens the file to move it", c.Name, c.Group)}
		}
		name = short
	}
	if err := checkName(name); err != nil {
		return err
	}
	for _, other := range p.Cases {
		if other.Name == c.Group+"/"+name {
			return &RequestError{fmt.Sprintf("there is a case %q already, at %s; choose another name", other.Name, other.Where)}
		}
	}
	if !c.inFile() {
		old, err := os.ReadFile(p.full(CasesFile))
		if err != nil {
			return err
		}
		s, err := findSection(old, c)
		if err != nil {
			return err
		}
		line := old[s.from:s.body]
		end := line[len(bytes.TrimRight(line, "\r\n")):]
		text := append(append(bytes.Clone(old[:s.from]), "## "+name...), end...)
		return p.rewrite(CasesFile, old, append(text, old[s.body:]...))
	}
	if err := p.notShared(c); err != nil {
		return err
	}
	renamed := c
	renamed.Where = path.Join(path.Dir(c.Where), name+".in")
	for _, extension := range caseExtensions {
		if _, err := os.Lstat(p.full(renamed.beside(extension))); err == nil {
			return &RequestError{fmt.Sprintf("%s is there already and stays as it is; choose another name", renamed.beside(extension))}
		}
	}
	for _, extension := range slices.Backward(caseExtensions) {
		err := os.Rename(p.full(c.beside(extension)), p.full(renamed.beside(extension)))
		if err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	notes := renamed.beside(notesExtension)
	old, err := os.ReadFile(p.full(notes))
	if err != nil {
		return nil // there are none
	}
	pointer := func(c Case) []byte { return []byte(fileWord(c.beside(keptExtension))) }
	return p.rewrite(notes, old, bytes.ReplaceAll(old, pointer(c), pointer(renamed)))
}

// checkName reports a name that no case can have.
func checkName(name string) error {
	if name == "" || strings.HasPrefix(name, ".") || !validName(name) || strings.TrimSpace(name) != name || strings.Trim(name, "#") != name {
		return &RequestError{fmt.Sprintf("a case cannot be named %q; use letters, digits and hyphens", name)}
	}
	return nil
}
