package problem

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"slices"

	"coldverdict/core/settings"
	"coldverdict/core/verdict"
	"coldverdict/internal/lazy"
)

// A sealed group is one whose cases show nothing but verdicts, times and points. That is no lock:
// the files stay readable for whoever opens them.

// SealedWords stands where a sealed case would show something.
const SealedWords = "sealed"

// Open reports that a case may be shown; the error says how to unseal it.
func (c Case) Open() error {
	if !c.Sealed {
		return nil
	}
	return &RequestError{fmt.Sprintf("%s is sealed, and shows nothing but its verdict; 'cold case unseal %s' opens its group", c.Name, c.Group)}
}

// Shown is what may be told of a run of the case.
func (c Case) Shown(o verdict.Outcome) verdict.Outcome {
	if c.Unsure && !o.Verdict.Passing() {
		o.Hints = append([]string{c.unsureWords()}, o.Hints...)
	}
	if !c.Sealed {
		return o
	}
	return verdict.Outcome{Verdict: o.Verdict, Usage: o.Usage, Spread: o.Spread, Ran: o.Ran, Share: o.Share, Close: o.Close, Unsteady: o.Unsteady}
}

// seal marks the cases of sealed groups, and takes out what would hint at what they hold.
func (l *loader) seal() {
	p := l.problem
	for i := range p.Cases {
		c := &p.Cases[i]
		if !p.Rule(c.Group).Sealed {
			continue
		}
		c.Sealed, c.Reason, c.Input.Sealed = true, "", true
		for j := range c.Accepted {
			c.Accepted[j].Sealed = true
		}
		for j := range c.Refused {
			c.Refused[j].Answer.Sealed = true
		}
		for j := range c.Trials {
			c.Trials[j].Answer.Sealed = true
		}
	}
}

var (
	sealedLine = lazy.New(`(?m)^[ \t]*sealed[ \t]*=[^\n]*\n?`)
	nextTable  = lazy.New(`(?m)^[ \t]*\[`)
)

// Seal writes into verdict.toml that groups are sealed, or that they are not any more. A group
// that has no table there gets one. undo brings the file back as it was, unless somebody has changed
// it since.
func (p *Problem) Seal(groups []string, sealed bool) (undo func() error, err error) {
	var old, text []byte
	err = p.changing(func(now *Problem) error {
		if old, err = os.ReadFile(now.full(ConfigFile)); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
		text = bytes.Clone(old)
		for _, group := range groups {
			line := groupTable(text, group)
			text = sealedIn(text, group, line, sealed)
			if slices.Contains(sealedGroups(text), group) != sealed {
				word := "take \"sealed = true\" out"
				if sealed {
					word = "write \"sealed = true\""
				}
				return &RequestError{fmt.Sprintf("%s:%d: the group %s is not a table of lines of its own; %s there, and nothing was changed", ConfigFile, max(line, 1), group, word)}
			}
		}
		if bytes.Equal(text, old) {
			return nil
		}
		return now.rewrite(ConfigFile, old, text)
	})
	undo = func() error {
		return p.changing(func(now *Problem) error {
			if bytes.Equal(text, old) {
				return nil
			}
			if len(old) == 0 {
				return os.Remove(now.full(ConfigFile))
			}
			return now.rewrite(ConfigFile, text, old)
		})
	}
	return undo, err
}

// groupTable is the line on which the table of a group begins in a text of verdict.toml; 0: it has
// none.
func groupTable(text []byte, group string) (line int) {
	for at, table := range groupTables(text) {
		if table["name"] == group {
			return at
		}
	}
	return 0
}

// groupTables goes through the tables of groups in a text of verdict.toml, with their lines. Of a
// text that is no TOML there are none.
func groupTables(text []byte) func(yield func(int, map[string]any) bool) {
	return func(yield func(int, map[string]any) bool) {
		r, tree := settings.Read(Plain(text), func(int, string, ...any) {})
		list, _ := tree["group"].([]any)
		for i, item := range list {
			if table, ok := item.(map[string]any); ok && !yield(r.Line(fmt.Sprintf("group[%d]", i)), table) {
				return
			}
		}
	}
}

func sealedIn(text []byte, group string, line int, sealed bool) []byte {
	if line == 0 {
		if !sealed {
			return text
		}
		if len(text) > 0 && !bytes.HasSuffix(text, []byte("\n")) {
			text = append(text, '\n')
		}
		if len(text) > 0 {
			text = append(text, '\n')
		}
		return fmt.Appendf(text, "[[group]]\nname = %q\nsealed = true\n", group)
	}
	from := 0
	for range line {
		next := bytes.IndexByte(text[from:], '\n')
		if next < 0 {
			text = append(text, '\n')
			next = len(text) - 1 - from
		}
		from += next + 1
	}
	to := len(text)
	if m := nextTable().FindIndex(text[from:]); m != nil {
		to = from + m[0]
	}
	inside := sealedLine().ReplaceAll(text[from:to], nil)
	if sealed {
		inside = append([]byte("sealed = true\n"), inside...)
	}
	return bytes.Join([][]byte{text[:from], inside, text[to:]}, nil)
}

// SealedGroups are the groups that verdict.toml says are sealed, in its order. It is read anew, so
// that a problem whose cases cannot be read can be asked, too.
func (p *Problem) SealedGroups() (list []string, err error) {
	text, err := os.ReadFile(p.full(ConfigFile))
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return nil, err
	}
	return sealedGroups(text), nil
}

// sealedGroups are those that a text of verdict.toml says are sealed.
func sealedGroups(text []byte) (list []string) {
	for _, table := range groupTables(text) {
		if name, ok := table["name"].(string); ok && table["sealed"] == true {
			list = append(list, name)
		}
	}
	return list
}

// hideSealed takes out of mistakes what they say of cases of sealed groups.
func (l *loader) hideSealed() {
	for i, m := range l.mistakes {
		if group := l.sealedAt(m); group != "" {
			l.mistakes[i] = Mistake{File: ConfigFile, Text: fmt.Sprintf("a case of the sealed group %s is malformed; 'cold case unseal %[1]s' lets it be said where", group)}
		}
	}
}

// sealedAt is the sealed group in whose data a mistake lies; empty: it lies in none.
func (l *loader) sealedAt(m Mistake) string {
	group, nearest := "", 0
	for _, c := range l.problem.Cases {
		file, line := splitWhere(c.Where)
		switch {
		case c.inFile() && slices.ContainsFunc(caseExtensions, func(extension string) bool { return m.File == c.beside(extension) }):
			group = c.Group
		case file == m.File && line <= m.Line && line > nearest:
			group, nearest = c.Group, line
		}
	}
	if !l.problem.Rule(group).Sealed {
		return ""
	}
	return group
}
