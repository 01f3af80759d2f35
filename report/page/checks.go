package page

import (
	"encoding/xml"
	"fmt"
	"io"
	"strconv"
	"strings"
)

// The elements of JUnit XML, as its common readers take them: what a suite counts stands in its attributes.
type (
	xmlSuites struct {
		XMLName  xml.Name   `xml:"testsuites"`
		Name     string     `xml:"name,attr"`
		Tests    int        `xml:"tests,attr"`
		Failures int        `xml:"failures,attr"`
		Errors   int        `xml:"errors,attr"`
		Time     string     `xml:"time,attr"`
		Suites   []xmlSuite `xml:"testsuite"`
	}
	xmlSuite struct {
		Name     string    `xml:"name,attr"`
		Tests    int       `xml:"tests,attr"`
		Failures int       `xml:"failures,attr"`
		Errors   int       `xml:"errors,attr"`
		Skipped  int       `xml:"skipped,attr"`
		Time     string    `xml:"time,attr"`
		Stamp    string    `xml:"timestamp,attr"`
		Cases    []xmlCase `xml:"testcase"`
	}
	xmlCase struct {
		Name    string  `xml:"name,attr"`
		Class   string  `xml:"classname,attr"`
		Time    string  `xml:"time,attr"`
		Skipped *xmlWhy `xml:"skipped"`
		Error   *xmlWhy `xml:"error"`
		Failure *xmlWhy `xml:"failure"`
	}
	xmlWhy struct {
		Message string `xml:"message,attr"`
		Type    string `xml:"type,attr,omitempty"`
		Text    string `xml:",cdata"`
	}
)

func seconds(s float64) string { return strconv.FormatFloat(s, 'f', 6, 64) }

// writeXML writes the checks as JUnit XML. Characters that XML does not have become U+FFFD.
func writeXML(w io.Writer, p *Page) error {
	all := xmlSuites{Name: p.Title}
	total := 0.0
	names, checks := p.suites()
	for _, name := range names {
		one := xmlSuite{Name: name, Stamp: p.Made.UTC().Format("2006-01-02T15:04:05")}
		took := 0.0
		for _, c := range checks[name] {
			one.add(c)
			took += c.Seconds
		}
		one.Time = seconds(took)
		total += took
		all.Suites = append(all.Suites, one)
		all.Tests, all.Failures, all.Errors = all.Tests+one.Tests, all.Failures+one.Failures, all.Errors+one.Errors
	}
	all.Time = seconds(total)
	if _, err := io.WriteString(w, xml.Header); err != nil {
		return err
	}
	e := xml.NewEncoder(w)
	e.Indent("", "  ")
	if err := e.Encode(all); err != nil {
		return err
	}
	_, err := io.WriteString(w, "\n")
	return err
}

func (s *xmlSuite) add(c Check) {
	one := xmlCase{Name: c.Name, Class: c.Suite, Time: seconds(c.Seconds)}
	words := c.Words
	if c.Message != "" {
		words += ": " + c.Message
	}
	why := &xmlWhy{Message: words, Type: c.Words, Text: xmlText(c.Text)}
	s.Tests++
	switch c.State {
	case Failed:
		one.Failure = why
		s.Failures++
	case Errored:
		one.Error = why
		s.Errors++
	case Skipped:
		one.Skipped = &xmlWhy{Message: words}
		s.Skipped++
	}
	s.Cases = append(s.Cases, one)
}

// xmlText replaces the characters that XML does not have by U+FFFD, since nothing does so within CDATA.
func xmlText(text string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\t' || r == '\n' || r == '\r', r >= ' ' && r < 0xfffe, r >= 0x10000:
			return r
		}
		return '\uFFFD'
	}, text)
}

// description escapes what TAP gives a meaning to.
var description = strings.NewReplacer("\\", "\\\\", "#", "\\#", "\n", " ", "\r", " ")

// writeTAP writes the checks as TAP, version 14, with a YAML block for each that did not pass.
func writeTAP(w io.Writer, p *Page) error {
	var b strings.Builder
	fmt.Fprintf(&b, "TAP version 14\n1..%d\n", len(p.Checks))
	for i, c := range p.Checks {
		ok := "ok"
		if c.State == Failed || c.State == Errored {
			ok = "not ok"
		}
		fmt.Fprintf(&b, "%s %d - %s", ok, i+1, description.Replace(c.Suite+": "+c.Name))
		if c.State == Skipped {
			fmt.Fprintf(&b, " # SKIP %s", description.Replace(strings.TrimSuffix(c.Words+": "+c.Message, ": ")))
		}
		b.WriteString("\n")
		if ok == "ok" {
			continue
		}
		fmt.Fprintf(&b, "  ---\n  verdict: %s\n", yamlText(c.Words))
		if c.Message != "" {
			fmt.Fprintf(&b, "  message: %s\n", yamlText(c.Message))
		}
		fmt.Fprintf(&b, "  seconds: %s\n", seconds(c.Seconds))
		if c.Text != "" {
			b.WriteString("  evidence:\n")
			for line := range strings.Lines(c.Text) {
				fmt.Fprintf(&b, "    - %s\n", yamlText(strings.TrimSuffix(line, "\n")))
			}
		}
		b.WriteString("  ...\n")
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// yamlText is a text as YAML has it in double quotes, which is what JSON has, too.
func yamlText(text string) string {
	var b strings.Builder
	b.WriteByte('"')
	for _, r := range strings.ToValidUTF8(text, "\uFFFD") {
		switch {
		case r == '"' || r == '\\':
			b.WriteByte('\\')
			b.WriteRune(r)
		case r < ' ' || r == 0x7f:
			fmt.Fprintf(&b, "\\x%02x", r)
		default:
			b.WriteRune(r)
		}
	}
	b.WriteByte('"')
	return b.String()
}
