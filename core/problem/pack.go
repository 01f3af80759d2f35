package problem

import (
	"bytes"
	"errors"
	"fmt"
	"maps"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/internal/lazy"
)

// A Packed is a problem as it is given to others: without what is sealed, and without solutions.
type Packed struct {
	Files   map[string][]byte // by their names, with slashes
	Cases   int               // that are in it
	LeftOut int               // sealed cases
	Groups  []string          // sealed groups, which are left out

	words Vocabulary
}

// Names are the files of a packed problem, in order.
func (k *Packed) Names() []string { return slices.Sorted(maps.Keys(k.Files)) }

// given are the names of files that are told to whoever solves a problem.
var given = lazy.New(`(?i)^(?:statement|readme|licen[cs]e)(?:\..*)?$`)

// Pack returns the problem as it is given to others, with more files of its folder. The error is a RequestError
// where one of them cannot be read, or where what stays needs what is sealed.
func (p *Problem) Pack(with []string) (*Packed, error) {
	k := &Packed{Files: map[string][]byte{}, words: p.words}
	var err error
	if k.Groups, err = p.SealedGroups(); err != nil {
		return nil, err
	}
	for _, c := range p.Cases {
		if c.Sealed {
			k.LeftOut++
		} else {
			k.Cases++
		}
	}
	for _, step := range []func(*Packed) error{p.packConfig, p.packCasesFile, p.packCases, p.packOthers} {
		if err := step(k); err != nil {
			return nil, err
		}
	}
	for _, name := range with {
		inside, err := filepath.Rel(p.Dir, p.PathOf(name))
		if err != nil || !filepath.IsLocal(inside) {
			return nil, &RequestError{fmt.Sprintf("%s does not lie in %s; copy it there, or into the new folder", name, p.Dir)}
		}
		if err := p.packFile(k, filepath.ToSlash(inside)); err != nil {
			return nil, &RequestError{err.Error()}
		}
	}
	return k, nil
}

// packFile adds a file of the folder as it is.
func (p *Problem) packFile(k *Packed, name string) error {
	text, err := os.ReadFile(p.full(name))
	if err == nil {
		k.Files[name] = text
	}
	return err
}

// packConfig adds verdict.toml without its solutions and without the tables of sealed groups.
func (p *Problem) packConfig(k *Packed) error {
	text, err := os.ReadFile(p.full(ConfigFile))
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	var kept bytes.Buffer
	keep := true
	for _, table := range tomlTables(text) {
		switch {
		case table.name == "solution" || strings.HasPrefix(table.name, "solution."):
			keep = false
		case table.name == "group":
			keep = !slices.Contains(sealedGroups(table.text), nameIn(table.text))
		case table.name == "case" && slices.ContainsFunc(k.Groups, func(group string) bool { return strings.HasPrefix(nameIn(table.text), group) }):
			keep = false
		case strings.HasPrefix(table.name, "group.") || strings.HasPrefix(table.name, "case."): // goes with the one before
		default:
			keep = true
		}
		if keep {
			kept.Write(table.text)
		}
	}
	text = kept.Bytes()
	for _, group := range k.Groups {
		if bytes.Contains(text, []byte("\""+group+"\"")) {
			return &RequestError{fmt.Sprintf("%s needs or names the sealed group %s outside of its own table; take that out, or unseal the group, and pack again", ConfigFile, group)}
		}
	}
	k.Files[ConfigFile] = text
	return nil
}

// A tomlTable is a table of a TOML text, with its heading; the first has none.
type tomlTable struct {
	name string
	text []byte
}

var tableHeading = lazy.New(`^[ \t]*\[\[?[ \t]*([^\[\]"']+?)[ \t]*\]\]?[ \t]*(?:#.*)?\r?\n?$`)

// tomlTables cuts a TOML text at the headings of its tables. What stands in strings of several lines is no heading.
func tomlTables(text []byte) (all []tomlTable) {
	all = []tomlTable{{}}
	quoted := ""
	for line := range bytes.Lines(text) {
		if m := tableHeading().FindSubmatch(line); m != nil && quoted == "" {
			all = append(all, tomlTable{name: string(m[1])})
		}
		for _, quotes := range []string{`"""`, `'''`} {
			if bytes.Count(line, []byte(quotes))%2 == 1 && (quoted == "" || quoted == quotes) {
				quoted = map[bool]string{true: quotes, false: ""}[quoted == ""]
			}
		}
		last := &all[len(all)-1]
		last.text = append(last.text, line...)
	}
	return all
}

var nameLine = lazy.New(`(?m)^[ \t]*name[ \t]*=[ \t]*["']([^"']*)["']`)

// nameIn is what a table has for its name.
func nameIn(table []byte) string {
	if m := nameLine().FindSubmatch(table); m != nil {
		return string(m[1])
	}
	return ""
}

// packCasesFile adds cases.md without the sections of sealed groups.
func (p *Problem) packCasesFile(k *Packed) error {
	text, err := os.ReadFile(p.full(CasesFile))
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	sections, _ := outline(text)
	var kept []byte
	at := 0
	for _, s := range sections {
		if p.Rule(s.group).Sealed {
			kept = append(kept, text[at:s.from]...)
			at = s.to
		}
	}
	k.Files[CasesFile] = append(kept, text[at:]...)
	return nil
}

// packCases adds the files of cases that are not sealed, and those that they point to.
func (p *Problem) packCases(k *Packed) error {
	for _, c := range p.Cases {
		if c.Sealed {
			continue
		}
		data := slices.Concat([]Data{c.Input}, c.Accepted)
		for _, r := range c.Refused {
			data = append(data, r.Answer)
		}
		for _, t := range c.Trials {
			data = append(data, t.Answer)
		}
		for _, d := range data {
			if d.Path == "" {
				continue
			}
			inside, err := filepath.Rel(p.Dir, d.Path)
			if err != nil || !filepath.IsLocal(inside) {
				return &RequestError{fmt.Sprintf("%s points to %s, which does not lie in %s; copy it there", c.Name, d.Path, p.Dir)}
			}
			if err := p.packFile(k, filepath.ToSlash(inside)); err != nil {
				return err
			}
		}
		if c.inFile() {
			if err := p.packFile(k, c.beside(notesExtension)); err != nil && !errors.Is(err, os.ErrNotExist) {
				return err
			}
		}
	}
	return nil
}

// packOthers adds the shape, what judges, and what tells of the problem.
func (p *Problem) packOthers(k *Packed) error {
	names := []string{ShapeFile, p.Talk.Script, p.Talk.Program, p.Compare.Script, p.Compare.Program}
	for _, c := range p.Cases {
		if !c.Sealed {
			names = append(names, c.Compare.Script, c.Compare.Program)
		}
	}
	if p.Shape != nil {
		names = append(names, scriptsOf(p)...)
	}
	entries, err := os.ReadDir(p.Dir)
	if err != nil {
		return err
	}
	for _, e := range entries {
		if !e.IsDir() && given().MatchString(e.Name()) {
			names = append(names, e.Name())
		}
	}
	for _, name := range names {
		if name == "" || filepath.IsAbs(name) {
			continue
		}
		if err := p.packFile(k, path.Clean(filepath.ToSlash(name))); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	return nil
}

// scriptsOf are the scripts that a shape asks, and what makes inputs.
func scriptsOf(p *Problem) []string {
	list := []string{p.Make.Script, p.Make.Program}
	text, err := os.ReadFile(p.full(ShapeFile))
	if err != nil {
		return list
	}
	for _, m := range holdsScript().FindAllSubmatch(text, -1) {
		list = append(list, string(m[1]))
	}
	return list
}

var holdsScript = lazy.New(`(?m)^\s*holds\s+"([^"]+)"`)

// Write writes a packed problem into a new folder, whole or not at all, after it was read as a problem.
func (k *Packed) Write(dir string) (err error) {
	if _, err := os.Lstat(dir); err == nil {
		return &RequestError{fmt.Sprintf("%s is there already and stays as it is; name a new folder", dir)}
	}
	made, err := os.MkdirTemp(filepath.Dir(dir), ".cold-verdict-pack-")
	if err != nil {
		return &RequestError{fmt.Sprintf("cannot make a folder beside %s: %v", dir, err)}
	}
	defer os.RemoveAll(made)
	for _, name := range k.Names() {
		path := filepath.Join(made, filepath.FromSlash(name))
		if err := os.MkdirAll(filepath.Dir(path), 0o755); err != nil {
			return err
		}
		if err := os.WriteFile(path, k.Files[name], 0o644); err != nil {
			return err
		}
	}
	if _, err := Load(made, k.words); err != nil {
		return &RequestError{strings.ReplaceAll(fmt.Sprintf("what would be packed is no problem that can be read, so that nothing was written:\n%v", err), made, dir)}
	}
	if err := os.Chmod(made, 0o755); err != nil {
		return err
	}
	return os.Rename(made, dir)
}
