// Package page writes reports that people open and other programs read: one self-contained HTML page, JUnit XML,
// TAP 14, CSV or Markdown, of one Page that says what is in them.
//
// The package knows nothing of solutions and cases. All text is escaped as each form wants it: what a program
// printed can neither break a page nor run in it.
package page

import (
	"bytes"
	"fmt"
	"io"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// A Page is what a report says.
type Page struct {
	Title   string
	Outcome string // in a few words
	Kind    Kind   // of the outcome
	Maker   string // the program and its version
	Made    time.Time
	Facts   []Fact
	Tables  []Table // CSV writes the one that is Main, or else the first
	Details []Detail
	Figures []Figure
	Notes   []string
	Checks  []Check // what JUnit XML and TAP list
}

// ForPeople are the tables as people see them.
func (p *Page) ForPeople() (tables []Table) {
	for _, t := range p.Tables {
		tables = append(tables, t.ForPeople())
	}
	return tables
}

// A Kind says how something is marked, beside what its words say.
type Kind string

// The kinds.
const (
	Plain    Kind = ""
	Good     Kind = "good"
	Wrong    Kind = "wrong"
	Exceeded Kind = "exceeded"
	Broken   Kind = "broken"
	Doubtful Kind = "doubtful"
)

// A Fact is a name with what stands behind it.
type Fact struct{ Name, Text string }

// A Table has rows of as many cells as there are columns.
type Table struct {
	Title   string
	Main    bool
	Columns []Column
	Rows    [][]Cell
}

// A Column is one of a table.
type Column struct {
	Name   string // for people
	Key    string // for programs; empty: the column is left out of CSV
	Number bool   // its cells are numbers, and sorted as such
	Hidden bool   // it is for programs only
}

// ForPeople is the table without the columns that are for programs only, or empty.
func (t Table) ForPeople() Table {
	shown := Table{Title: t.Title}
	keep := make([]bool, len(t.Columns))
	for i, c := range t.Columns {
		keep[i] = !c.Hidden && (len(t.Rows) == 0 || slices.ContainsFunc(t.Rows, func(row []Cell) bool { return row[i].Text != "" }))
		if keep[i] {
			shown.Columns = append(shown.Columns, c)
		}
	}
	for _, row := range t.Rows {
		var cells []Cell
		for i, c := range row {
			if keep[i] {
				cells = append(cells, c)
			}
		}
		shown.Rows = append(shown.Rows, cells)
	}
	return shown
}

// A Cell is a place in a table.
type Cell struct {
	Text  string
	Value string // for programs, and to sort by; empty: the text
	Kind  Kind
	Share float64 // drawn as a bar, from 0 to 1; 0: none
	Link  string  // the ID of a detail; empty: none
}

// value is the cell for programs.
func (c Cell) value() string {
	if c.Value == "" {
		return c.Text
	}
	return c.Value
}

// A Detail is something that can be unfolded: the evidence for a failure.
type Detail struct {
	ID     string // unique on the page
	Title  string
	Kind   Kind
	Reason string // may be empty
	Blocks []Block
	// Figures are drawings of what the blocks hold.
	Figures []Figure
	Hints   []string
}

// A Block is a text with a heading. Those with Beside stand beside the one before.
type Block struct {
	Title  string
	Lines  []Line
	Cut    string // what was left out behind the lines; empty: nothing
	Beside bool
}

// A Line is one of a text.
type Line struct {
	Number               int // 0: it has none
	Text, Marked, Behind string
	Differs              bool
}

// Text makes lines of a text, at most so many, and says what was left out.
func Text(text string, most int) (lines []Line, cut string) {
	if text == "" {
		return nil, ""
	}
	all := strings.Split(strings.TrimSuffix(text, "\n"), "\n")
	for i, line := range all[:min(len(all), most)] {
		lines = append(lines, Line{Number: i + 1, Text: bounded(line)})
	}
	if len(all) > most {
		cut = fmt.Sprintf("%d more lines", len(all)-most)
	}
	return lines, cut
}

// mostLine bounds a line that is shown, in bytes.
const mostLine = 2000

func bounded(line string) string {
	if len(line) > mostLine {
		return strings.ToValidUTF8(line[:mostLine], "") + " …"
	}
	return line
}

// A Figure is a drawing in SVG.
type Figure struct {
	Title string
	SVG   string
}

// A Check is one thing that passed or did not.
type Check struct {
	Suite   string // a solution
	Name    string // a case
	State   State
	Words   string  // a verdict, or what else is to be said
	Message string  // in addition; may be empty
	Text    string  // several lines; may be empty
	Seconds float64 // that it took
}

// A State is how a check ended.
type State int

// The states.
const (
	Passed  State = iota
	Failed        // what was checked is wrong
	Errored       // it could not be checked
	Skipped       // it was not checked
)

// forms are the forms of a report, by the endings of its file.
var forms = map[string]func(io.Writer, *Page) error{
	".html": writeHTML, ".htm": writeHTML, ".xml": writeXML, ".tap": writeTAP, ".csv": writeCSV, ".md": writeMarkdown,
}

// Endings are those of the files that Write knows, in order.
func Endings() []string { return []string{".html", ".xml", ".tap", ".csv", ".md"} }

// Knows reports that Write knows the ending of a file.
func Knows(file string) bool { return forms[strings.ToLower(filepath.Ext(file))] != nil }

// Write writes a page in the form that the ending of a file says. The error says that the ending is unknown, or
// is of the writer.
func Write(w io.Writer, file string, p *Page) error {
	write := forms[strings.ToLower(filepath.Ext(file))]
	if write == nil {
		return fmt.Errorf("the ending of %s is no form of a report; it can be one of %s", file, strings.Join(Endings(), ", "))
	}
	var text bytes.Buffer
	if err := write(&text, p); err != nil {
		return err
	}
	_, err := w.Write(text.Bytes())
	return err
}

// suites are the checks of each suite, in their order.
func (p *Page) suites() (names []string, checks map[string][]Check) {
	checks = map[string][]Check{}
	for _, c := range p.Checks {
		if !slices.Contains(names, c.Suite) {
			names = append(names, c.Suite)
		}
		checks[c.Suite] = append(checks[c.Suite], c)
	}
	return names, checks
}
