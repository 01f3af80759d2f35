package page

import (
	"encoding/csv"
	"fmt"
	"io"
	"slices"
	"strings"
)

// writeCSV writes the main table as CSV, RFC 4180.
func writeCSV(w io.Writer, p *Page) error {
	if len(p.Tables) == 0 {
		return nil
	}
	t := p.Tables[max(0, slices.IndexFunc(p.Tables, func(t Table) bool { return t.Main }))]
	rows := make([][]string, 1, len(t.Rows)+1)
	for _, c := range t.Columns {
		if c.Key != "" {
			rows[0] = append(rows[0], c.Key)
		}
	}
	for _, cells := range t.Rows {
		var row []string
		for i, c := range cells {
			if t.Columns[i].Key != "" {
				row = append(row, c.value())
			}
		}
		rows = append(rows, row)
	}
	return csv.NewWriter(w).WriteAll(rows)
}

// markdown escapes a text for Markdown, on one line.
var markdown = strings.NewReplacer("\\", "\\\\", "|", "\\|", "*", "\\*", "_", "\\_", "`", "\\`", "<", "&lt;", "&", "&amp;", "[", "\\[", "#", "\\#", "\r", "", "\n", " ")

// writeMarkdown writes a page as Markdown, with tables as GitHub's form of it has them.
func writeMarkdown(w io.Writer, p *Page) error {
	var b strings.Builder
	fmt.Fprintf(&b, "# %s\n\n**%s**\n", markdown.Replace(p.Title), markdown.Replace(p.Outcome))
	for i, f := range p.Facts {
		if i == 0 {
			b.WriteString("\n")
		}
		fmt.Fprintf(&b, "- %s: %s\n", markdown.Replace(f.Name), markdown.Replace(f.Text))
	}
	for _, t := range p.ForPeople() {
		if t.Title != "" {
			fmt.Fprintf(&b, "\n## %s\n", markdown.Replace(t.Title))
		}
		b.WriteString("\n|")
		for _, c := range t.Columns {
			fmt.Fprintf(&b, " %s |", markdown.Replace(c.Name))
		}
		b.WriteString("\n|")
		for _, c := range t.Columns {
			if c.Number {
				b.WriteString(" ---: |")
			} else {
				b.WriteString(" --- |")
			}
		}
		b.WriteString("\n")
		for _, row := range t.Rows {
			b.WriteString("|")
			for _, c := range row {
				fmt.Fprintf(&b, " %s |", markdown.Replace(c.Text))
			}
			b.WriteString("\n")
		}
	}
	for _, d := range p.Details {
		d.markdown(&b)
	}
	for i, note := range p.Notes {
		if i == 0 {
			b.WriteString("\n## Notes\n\n")
		}
		fmt.Fprintf(&b, "- %s\n", markdown.Replace(note))
	}
	fmt.Fprintf(&b, "\n%s, %s\n", markdown.Replace(p.Maker), p.Made.Format("2006-01-02 15:04"))
	_, err := io.WriteString(w, b.String())
	return err
}

func (d Detail) markdown(b *strings.Builder) {
	fmt.Fprintf(b, "\n## %s\n", markdown.Replace(d.Title))
	if d.Reason != "" {
		fmt.Fprintf(b, "\n%s\n", markdown.Replace(d.Reason))
	}
	for _, block := range d.Blocks {
		text := block.text()
		fence := "```"
		for strings.Contains(text, fence) {
			fence += "`"
		}
		fmt.Fprintf(b, "\n%s:\n\n%s\n%s%s\n", markdown.Replace(block.Title), fence, text, fence)
	}
	for _, hint := range d.Hints {
		fmt.Fprintf(b, "\nHint: %s\n", markdown.Replace(hint))
	}
}

// text are the lines of a block, of which those that differ are marked.
func (k Block) text() string {
	var b strings.Builder
	for _, line := range k.Lines {
		if line.Differs {
			b.WriteString("» ")
		} else if k.differs() {
			b.WriteString("  ")
		}
		b.WriteString(strings.ReplaceAll(line.Text+line.Marked+line.Behind, "\r", "␍") + "\n")
	}
	if k.Cut != "" {
		b.WriteString("… " + k.Cut + "\n")
	}
	return b.String()
}

func (k Block) differs() bool {
	for _, line := range k.Lines {
		if line.Differs {
			return true
		}
	}
	return false
}

// Plain is the evidence as plain text.
func (d Detail) Plain() string {
	var b strings.Builder
	for _, block := range d.Blocks {
		fmt.Fprintf(&b, "%s:\n%s", block.Title, block.text())
	}
	for _, hint := range d.Hints {
		fmt.Fprintf(&b, "hint: %s\n", hint)
	}
	return b.String()
}
