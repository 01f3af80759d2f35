package page

import (
	"embed"
	"html/template"
	"io"
	"strings"
)

//go:embed page.html page.css page.js
var files embed.FS

// layout is the page, with its style and its script in it.
func layout() (*template.Template, error) {
	style, err := files.ReadFile("page.css")
	if err != nil {
		return nil, err
	}
	script, err := files.ReadFile("page.js")
	if err != nil {
		return nil, err
	}
	return template.New("page.html").Funcs(template.FuncMap{
		"style":  func() template.CSS { return template.CSS(style) },
		"script": func() template.JS { return template.JS(script) },
		"svg":    func(f Figure) template.HTML { return template.HTML(f.SVG) },
		"value":  Cell.value,
		"percent": func(share float64) float64 {
			return 100 * min(max(share, 0), 1)
		},
		"visible": visible,
	}).ParseFS(files, "page.html")
}

// writeHTML writes the page as one file that needs no other.
func writeHTML(w io.Writer, p *Page) error {
	t, err := layout()
	if err != nil {
		return err
	}
	return t.Execute(w, p)
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
