package page

import (
	"bytes"
	"embed"
	"html/template"
	"io"
	"strings"
	"time"
)

//go:embed page.html page.css page.js steps.html steps.css steps.js
var files embed.FS

// layout is the page of a name, with its style and its script in it.
func layout(name string) (*template.Template, error) {
	texts := map[string]string{}
	for _, file := range []string{"page.css", "steps.css", name + ".js"} {
		text, err := files.ReadFile(file)
		if err != nil {
			return nil, err
		}
		texts[file] = string(text)
	}
	return template.New(name+".html").Funcs(template.FuncMap{
		"style":      func() template.CSS { return template.CSS(texts["page.css"]) },
		"stepsStyle": func() template.CSS { return template.CSS(texts["steps.css"]) },
		"script":     func() template.JS { return template.JS(texts[name+".js"]) },
		"inc":        func(i int) int { return i + 1 },
		"svg":        func(f Figure) template.HTML { return template.HTML(f.SVG) },
		"value":      Cell.value,
		"percent": func(share float64) float64 {
			return 100 * min(max(share, 0), 1)
		},
		"visible": visible,
	}).ParseFS(files, name+".html")
}

// writeHTML writes the page as one file that needs no other.
func writeHTML(w io.Writer, p *Page) error {
	t, err := layout("page")
	if err != nil {
		return err
	}
	return t.Execute(w, p)
}

// A Walk is a page on which the steps of a program are walked through.
type Walk struct {
	Title   string
	Outcome string
	Kind    Kind
	Note    string // may be empty
	Maker   string
	Made    time.Time
	Source  []string // lines
	// Steps are what JSON makes a list of, each with number, line, depth, function, changes, output, error and
	// returned.
	Steps any
}

// WriteWalk writes a walk as one HTML file that needs no other.
func WriteWalk(out io.Writer, walk *Walk) error {
	t, err := layout("steps")
	if err != nil {
		return err
	}
	var text bytes.Buffer
	if err := t.Execute(&text, walk); err != nil {
		return err
	}
	_, err = out.Write(text.Bytes())
	return err
}

// visible replaces control characters by their pictures, and what changes the direction of a text by U+FFFD.
func visible(text string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\t':
			return r
		case r < ' ':
			return '␀' + r
		case r == 0x7f:
			return '␡'
		case r >= 0x202a && r <= 0x202e, r >= 0x2066 && r <= 0x2069, r == 0x200e, r == 0x200f:
			return '\uFFFD'
		}
		return r
	}, text)
}
