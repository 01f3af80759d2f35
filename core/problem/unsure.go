package problem

import (
	"bytes"
	"fmt"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
)

// unsureWords are what every failure of a doubtful sample says.
func (c Case) unsureWords() string {
	from := ""
	if m := takenFrom.FindStringSubmatch(c.Reason); m != nil {
		from = " from " + m[1]
	}
	return fmt.Sprintf("this sample was taken with doubt%s; check it against the statement, then say 'cold case sure %s'", from, c.Name)
}

var takenFrom = regexp.MustCompile(`^\s*From (.+?, line \d+)`)

var unsureBlock = regexp.MustCompile(`[ \t]+` + unsureWord + `(\s|$)`)

// sure takes the word out of the first lines of blocks between two places of a text.
func sure(text []byte, from, to int) (changed []byte) {
	_, blocks := outline(text)
	done := 0
	for _, at := range blocks {
		line, _, _ := bytes.Cut(text[at:], []byte("\n"))
		if m := unsureBlock.FindIndex(line); m != nil && from <= at && at < to {
			changed = append(changed, text[done:at+m[0]]...)
			done = at + m[0] + len(bytes.TrimRight(line[m[0]:m[1]], " \t\r"))
		}
	}
	return append(changed, text[done:]...)
}

// blocksOf is the file in which the blocks of a case stand, with its text, and where in it they are.
func (p *Problem) blocksOf(c Case) (where string, text []byte, from, to int, err error) {
	where = CasesFile
	if c.inFile() {
		where = c.beside(notesExtension)
	}
	if text, err = os.ReadFile(p.full(where)); err != nil || c.inFile() {
		return where, text, 0, len(text), err
	}
	s, err := findSection(text, c)
	return where, text, s.body, s.data, err
}

// Sure takes back that a sample was taken with doubt. It returns the file that was changed.
func (p *Problem) Sure(c Case) (where string, err error) {
	err = p.changingCase(c, func(now *Problem, c Case) error {
		if !c.Unsure {
			return &RequestError{fmt.Sprintf("%s was not taken with doubt", c.Name)}
		}
		var old []byte
		var from, to int
		if where, old, from, to, err = now.blocksOf(c); err != nil {
			return err
		}
		changed := sure(old, from, to)
		if bytes.Equal(changed, old) {
			return &RequestError{fmt.Sprintf("the word %q of %s was not found in %s; take it out there", unsureWord, c.Name, where)}
		}
		return now.rewrite(where, old, changed)
	})
	return where, err
}

// The parts that sources play by their names, where verdict.toml says nothing of them.
var (
	referenceNames = []string{"reference", "brute", "slow"}
	otherParts     = []string{"check", "checker", "gen", "generate", "generator", "interactor", "interact", "validator", "validate"}
)

func stemOf(name string) string {
	base := strings.ToLower(path.Base(name))
	return strings.TrimSuffix(base, path.Ext(base))
}

// playsPart reports that a source is no candidate by its name.
func playsPart(name string) bool {
	return slices.Contains(referenceNames, stemOf(name)) || slices.Contains(otherParts, stemOf(name))
}

// references takes sources for references by their names, where none is declared.
func (l *loader) references() {
	p := l.problem
	if slices.ContainsFunc(p.Solutions, func(s Solution) bool { return s.Role == Reference }) {
		return
	}
	for _, stem := range referenceNames {
		for _, name := range p.Sources {
			named := slices.ContainsFunc(p.Solutions, func(s Solution) bool { return path.Clean(s.File) == name })
			if stemOf(name) == stem && !named {
				p.Solutions = append(p.Solutions, Solution{File: name, Role: Reference, ByName: true})
			}
		}
	}
}

// IsBegun reports that a folder has more of a problem than a source.
func IsBegun(dir string) bool {
	return slices.ContainsFunc([]string{ConfigFile, CasesFile, CasesFolder}, func(name string) bool {
		_, err := os.Stat(filepath.Join(dir, name))
		return err == nil
	})
}
