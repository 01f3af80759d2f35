package problem

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// OwnFolder is a folder of ours in the problem's folder. It holds the case that
// was dropped last, and what an import has not finished.
const OwnFolder = ".cold"

const (
	droppedFolder = OwnFolder + "/dropped"
	droppedRecord = droppedFolder + "/record.json"
)

// A dropped is what it takes to bring back the case that was dropped last.
type dropped struct {
	Name  string
	Group string
	// Where it stood in cases.md: its text, the offset, and the sum of the text
	// without it.
	Text string            `json:",omitempty"`
	At   int               `json:",omitempty"`
	Sum  string            `json:",omitempty"`
	Kept map[string]string `json:",omitempty"` // files of its own, by the name that they have meanwhile
}

// Drop takes a case out. It can be brought back until another one is dropped.
// Data that only a block of cases.md points to stays where it is.
func (p *Problem) Drop(c Case) error {
	return p.changingCase(c, func(now *Problem, c Case) error { return now.drop(c) })
}

func (p *Problem) drop(c Case) error {
	if err := p.notShared(c); err != nil {
		return err
	}
	if err := os.RemoveAll(p.full(droppedFolder)); err != nil {
		return err
	}
	if err := os.MkdirAll(p.full(droppedFolder), 0o755); err != nil {
		return err
	}
	if c.inFile() {
		return p.dropFiles(c)
	}
	old, err := os.ReadFile(p.full(CasesFile))
	if err != nil {
		return err
	}
	s, err := findSection(old, c)
	if err != nil {
		return err
	}
	text := append(old[:s.from:s.from], old[s.to:]...)
	if err := p.record(dropped{Name: c.Name, Group: c.Group, Text: string(old[s.from:s.to]), At: s.from, Sum: sumOf(text)}); err != nil {
		return err
	}
	return p.rewrite(CasesFile, old, text)
}

// notShared reports that another case points to the files of one.
func (p *Problem) notShared(c Case) error {
	if !c.inFile() {
		return nil
	}
	for _, other := range p.Cases {
		data := append(slices.Clone(other.Accepted), other.Input)
		if other.Name != c.Name && slices.ContainsFunc(data, func(d Data) bool { return d.Path != "" && d.Path == c.Input.Path }) {
			return &RequestError{fmt.Sprintf("%s is the input of %s, too; move that first", c.Where, other.Name)}
		}
	}
	return nil
}

func (p *Problem) dropFiles(c Case) error {
	d := dropped{Name: c.Name, Group: c.Group, Kept: map[string]string{}}
	for _, extension := range caseExtensions {
		if name := c.beside(extension); exists(p.full(name)) {
			d.Kept["case"+extension] = name
		}
	}
	if err := p.record(d); err != nil {
		return err
	}
	// The input first: where this is killed in between, an output without an
	// input is a mistake that is told, and can be undone.
	for _, extension := range caseExtensions {
		if was, ok := d.Kept["case"+extension]; ok {
			if err := os.Rename(p.full(was), p.full(droppedFolder+"/case"+extension)); err != nil {
				return err
			}
		}
	}
	return nil
}

func (p *Problem) record(d dropped) error {
	text, err := json.MarshalIndent(d, "", "  ")
	if err != nil {
		return err
	}
	return WriteWhole(p.full(droppedRecord), text, 0o644)
}

func sumOf(text []byte) string {
	sum := sha256.Sum256(text)
	return hex.EncodeToString(sum[:])
}

func exists(path string) bool {
	_, err := os.Lstat(path)
	return err == nil
}

// Undrop brings back the case that was dropped last, to the byte where nothing
// else was changed meanwhile, and returns its name.
func (p *Problem) Undrop() (name string, err error) {
	err = p.changing(func(now *Problem) (err error) {
		name, err = now.undrop()
		return err
	})
	return name, err
}

func (p *Problem) undrop() (name string, err error) {
	text, err := os.ReadFile(p.full(droppedRecord))
	if errors.Is(err, os.ErrNotExist) {
		return "", &RequestError{"there is no dropped case to bring back"}
	}
	var d dropped
	if err == nil {
		err = json.Unmarshal(text, &d)
	}
	if err != nil {
		return "", fmt.Errorf("cannot read %s: %w", droppedRecord, err)
	}
	for _, c := range p.Cases {
		if c.Name == d.Name {
			return "", &RequestError{fmt.Sprintf("there is a case %q again, at %s; rename it first", d.Name, c.Where)}
		}
	}
	if d.Text != "" {
		err = p.undropText(d)
	} else {
		err = p.undropFiles(d)
	}
	if err != nil {
		return "", err
	}
	os.RemoveAll(p.full(droppedFolder))
	os.Remove(p.full(OwnFolder)) // unless something else is in it
	return d.Name, nil
}

func (p *Problem) undropText(d dropped) error {
	old, err := os.ReadFile(p.full(CasesFile))
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	if d.At <= len(old) && sumOf(old) == d.Sum {
		return p.rewrite(CasesFile, old, append(append(old[:d.At:d.At], d.Text...), old[d.At:]...))
	}
	at, found := groupEnd(old, d.Group)
	added := strings.ReplaceAll(d.Text, "\r\n", "\n")
	if !found {
		added = "# " + d.Group + "\n\n" + added
	}
	return p.rewrite(CasesFile, old, insert(old, at, added))
}

func (p *Problem) undropFiles(d dropped) error {
	for name, was := range d.Kept {
		if exists(p.full(droppedFolder+"/"+name)) && exists(p.full(was)) {
			return &RequestError{fmt.Sprintf("%s is there again and stays as it is; move it away first", was)}
		}
	}
	for _, extension := range slices.Backward(caseExtensions) {
		name := "case" + extension
		was, ok := d.Kept[name]
		if !ok || !exists(p.full(droppedFolder+"/"+name)) { // it never got there, or is back
			continue
		}
		if err := os.MkdirAll(filepath.Dir(p.full(was)), 0o755); err != nil {
			return err
		}
		if err := os.Rename(p.full(droppedFolder+"/"+name), p.full(was)); err != nil {
			return err
		}
	}
	return nil
}
