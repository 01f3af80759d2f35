package problem

import (
	"bytes"
	"errors"
	"fmt"
	"os"
	"regexp"

	"coldverdict/core/settings"
	"coldverdict/core/verdict"
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
	sealedLine = regexp.MustCompile(`(?m)^[ \t]*sealed[ \t]*=[^\n]*\n?`)
	nextTable  = regexp.MustCompile(`(?m)^[ \t]*\[`)
)

// Seal writes into verdict.toml that groups are sealed, or that they are not any more. A group
// that has no table there gets one.
func (p *Problem) Seal(groups []string, sealed bool) error {
	return p.changing(func(now *Problem) error {
		old, err := os.ReadFile(now.full(ConfigFile))
		if err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
		text := bytes.Clone(old)
		for _, group := range groups {
			text = sealedIn(text, group, now.ruleLine(text, group), sealed)
		}
		if bytes.Equal(text, old) {
			return nil
		}
		if err != nil { // there was none
			return WriteWhole(now.full(ConfigFile), text, 0o644)
		}
		return now.rewrite(ConfigFile, old, text)
	})
}

// ruleLine is the line of the table of a group in a text of verdict.toml; 0: it has none.
func (p *Problem) ruleLine(text []byte, group string) int {
	r, tree := settings.Read(text, func(int, string, ...any) {})
	if tree == nil {
		return 0
	}
	list, _ := tree["group"].([]any)
	for i, item := range list {
		if table, ok := item.(map[string]any); ok && table["name"] == group {
			return r.Line(fmt.Sprintf("group[%d]", i))
		}
	}
	return 0
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
	if m := nextTable.FindIndex(text[from:]); m != nil {
		to = from + m[0]
	}
	inside := sealedLine.ReplaceAll(text[from:to], nil)
	if sealed {
		inside = append([]byte("sealed = true\n"), inside...)
	}
	return bytes.Join([][]byte{text[:from], inside, text[to:]}, nil)
}

// SealedGroups are the groups that are sealed, in the order of verdict.toml.
func (p *Problem) SealedGroups() (list []string) {
	for _, r := range p.Rules {
		if r.Sealed {
			list = append(list, r.Name)
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
		case c.inFile() && (m.File == c.Where || m.File == c.beside(".out")):
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
