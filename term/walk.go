package term

import (
	"context"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	tea "charm.land/bubbletea/v2"

	"coldverdict/core/steps"
	"coldverdict/core/verdict"
)

// Walk shows a recording on the whole terminal, and lets a person walk through it until they leave. Keys come from in.
func (s *Screen) Walk(ctx context.Context, in io.Reader, out io.Writer, name, of string, r *steps.Recording, outcome verdict.Outcome) error {
	s.Flush()
	w := newWalker(name+" on "+of, r, outcome)
	w.width, w.height = s.Width, leastHeight
	_, err := tea.NewProgram(w, tea.WithContext(ctx), tea.WithInput(in), tea.WithOutput(out), tea.WithColorProfile(s.profile)).Run()
	return err
}

// A walker is where somebody stands in a recording, and what they chose.
type walker struct {
	title   string
	outcome verdict.Outcome
	r       *steps.Recording
	prints  func(*steps.Step) bool
	names   []string // of variables
	chosen  int      // among names
	at      int      // among the steps that were kept
	typed   string   // of a line's number
	tree    []callLine
	calls   bool // the calls are shown in place of the variables
	width   int
	height  int
}

// The walk is laid out for this many rows at the least, and shows so many of the output.
const (
	leastHeight    = 24
	outputRows     = 4
	mostStateLines = 200 // of variables, before further calls are only counted
)

func newWalker(title string, r *steps.Recording, outcome verdict.Outcome) *walker {
	return &walker{
		title: title, outcome: outcome, r: r, prints: r.Prints(), names: r.Names(), at: max(0, len(r.Steps)-1),
		tree: callLines(r.CallTree()), width: pipeWidth, height: leastHeight,
	}
}

// Init begins nothing: all is recorded.
func (w *walker) Init() tea.Cmd { return nil }

// Update does what a key says.
func (w *walker) Update(m tea.Msg) (tea.Model, tea.Cmd) {
	switch m := m.(type) {
	case tea.WindowSizeMsg:
		w.width, w.height = max(m.Width, leastWidth), max(m.Height, leastHeight/2)
	case tea.KeyPressMsg:
		if w.key(m.String()) {
			return w, tea.Quit
		}
	}
	return w, nil
}

// key does what one says, and reports that the walk is over.
func (w *walker) key(key string) (over bool) {
	if len(key) == 1 && key[0] >= '0' && key[0] <= '9' {
		w.typed += key
		return false
	}
	typed := w.typed
	w.typed = ""
	depth := 0
	if len(w.r.Steps) > 0 {
		depth = w.r.Steps[w.at].Depth
	}
	outer := func(s *steps.Step) bool { return s.Depth <= depth }
	switch key {
	case "q", "esc", "ctrl+c":
		return true
	case "right", "l", "space":
		w.at = min(w.at+1, max(0, len(w.r.Steps)-1))
	case "left", "h":
		w.at = max(0, w.at-1)
	case "down", "j":
		w.at = w.r.Next(w.at, outer)
	case "up", "k":
		w.at = w.r.Previous(w.at, outer)
	case "home", "g":
		w.at = 0
	case "end", "G":
		w.at = max(0, len(w.r.Steps)-1)
	case "o":
		w.at = w.r.Next(w.at, w.prints)
	case "O":
		w.at = w.r.Previous(w.at, w.prints)
	case "w":
		w.at = w.r.Next(w.at, func(s *steps.Step) bool { return s.Warning != "" || s.Error != "" })
	case "v", "V":
		if len(w.names) == 0 {
			break
		}
		if is := steps.Changes(w.names[w.chosen]); key == "v" {
			w.at = w.r.Next(w.at, is)
		} else {
			w.at = w.r.Previous(w.at, is)
		}
	case "tab", "shift+tab":
		if n := len(w.names); n > 0 {
			by := 1
			if key == "shift+tab" {
				by = n - 1
			}
			w.chosen = (w.chosen + by) % n
		}
	case "c":
		w.calls = !w.calls
	case "backspace":
		w.typed = typed[:max(0, len(typed)-1)]
	case "enter":
		if line, err := strconv.Atoi(typed); err == nil {
			w.at = w.r.Next(w.at, func(s *steps.Step) bool { return s.Line == line })
		}
	}
	return false
}

// View is the whole screen.
func (w *walker) View() tea.View {
	v := tea.NewView(strings.Join(w.lines(), "\n"))
	v.AltScreen = true
	return v
}

func (w *walker) lines() (lines []string) {
	state := w.r.At(w.at)
	lines = append(lines, fit(strong.Render(Visible(w.title))+": "+verdictStyle(w.outcome.Verdict).Render(w.outcome.Said()), w.width))
	if state.Step == nil {
		return append(lines, "nothing was recorded; q leaves")
	}
	where := fmt.Sprintf("step %s of %s, line %d", thousands(int64(state.Step.Number)), thousands(int64(w.r.Total)), state.Step.Line)
	if w.r.Cut && w.at == len(w.r.Steps)-1 {
		where += "; it ends here, since " + w.r.Why
	}
	lines = append(lines, fit(dim.Render(where), w.width), "")
	rows := max(4, w.height-len(lines)-outputRows-3)
	left := w.width * 11 / 20
	source, state2 := w.source(state, rows, left-1), w.variables(state, w.width-left-2)
	if w.calls {
		state2 = w.callRows(rows, w.width-left-2)
	}
	for i := range rows {
		row := pad(at(source, i), left) + dim.Render("│") + " " + at(state2, i)
		if len(state2) > rows && i == rows-1 {
			row = pad(at(source, i), left) + dim.Render("│ …")
		}
		lines = append(lines, strings.TrimRight(row, " "))
	}
	lines = append(lines, dim.Render("output so far"))
	printed := strings.Split(strings.TrimSuffix(state.Output, "\n"), "\n")
	printed = printed[max(0, len(printed)-outputRows+1):]
	for i := range outputRows - 1 {
		lines = append(lines, fit("  "+Visible(at(printed, i)), w.width))
	}
	return append(lines, fit(w.hints(), w.width))
}

// hints say what keys do, as many of them as there is room for.
func (w *walker) hints() string {
	if w.typed != "" {
		return "to line " + strong.Render(w.typed) + "  ⏎ goes there"
	}
	all := []string{"←→ step", "↑↓ over calls", "o output", "c calls", "12⏎ line 12", "w doubt"}
	if len(w.names) > 0 {
		all = slices.Insert(all, 2, "v change of "+strong.Render(Visible(w.names[w.chosen]))+" (tab)")
	}
	const last = "q leave"
	keys := ""
	for _, one := range all {
		if width(keys+one+"  "+last) <= w.width {
			keys += one + "  "
		}
	}
	return keys + last
}

func at(list []string, i int) string {
	if i < len(list) {
		return list[i]
	}
	return ""
}

// source shows lines around the one that runs.
func (w *walker) source(state steps.State, rows, columns int) (lines []string) {
	first := max(1, min(state.Step.Line-rows/2, len(w.r.Source)-rows+1))
	lead := len(strconv.Itoa(len(w.r.Source)))
	for n := first; n < first+rows && n <= len(w.r.Source); n++ {
		sign, style := "  ", normal
		switch {
		case n == state.Step.Line:
			sign, style = "▶ ", marked
		case slices.ContainsFunc(state.Calls, func(c steps.Call) bool { return c.Line == n }):
			sign = "· " // a call goes out from there
		}
		text := Visible(strings.ReplaceAll(w.r.Text(n), "\t", "    "))
		lines = append(lines, fit(sign+dim.Render(padLeft(strconv.Itoa(n), lead))+"  "+style.Render(text), columns))
	}
	return lines
}

// variables shows what calls hold, the innermost first.
func (w *walker) variables(state steps.State, columns int) (lines []string) {
	step := state.Step
	if step.Error != "" || step.Warning != "" {
		lines = append(lines, wrapWords(verdictStyle(verdict.RuntimeError).Render(Visible(strings.TrimSpace(step.Error+" "+step.Warning))), columns)...)
	}
	returns := w.at+1 >= len(w.r.Steps) || w.r.Steps[w.at+1].Depth <= step.Depth
	if step.Returned != "" && returns {
		lines = append(lines, fit("returns "+Visible(step.Returned), columns))
	}
	show := func(list []steps.Variable) {
		for _, v := range list {
			sign, style := "  ", normal
			if v.Changed {
				sign, style = "• ", marked
			}
			whole := wrapWords(style.Render(Visible(v.Name)+" = "+Visible(v.Value)), columns-2)
			for i, line := range whole {
				if i == 3 {
					lines = append(lines, "    …")
					break
				}
				lead := sign
				if i > 0 {
					lead = "    "
				}
				lines = append(lines, fit(lead+line, columns))
			}
		}
	}
	for i, call := range slices.Backward(state.Calls) {
		if len(lines) > mostStateLines {
			lines = append(lines, dim.Render(count(i+1, "call")+" further out"))
			break
		}
		lines = append(lines, fit(strong.Render(Visible(call.Function))+dim.Render(fmt.Sprintf(", line %d", call.Line)), columns))
		show(call.Variables)
	}
	if len(state.Globals) > 0 {
		lines = append(lines, strong.Render("of no call"))
		show(state.Globals)
	}
	return lines
}

// callRows shows the calls around the one that runs.
func (w *walker) callRows(rows, columns int) (lines []string) {
	now := 0
	for i, one := range w.tree {
		if one.node != nil && one.node.First <= w.at && w.at <= one.node.Last {
			now = i
		}
	}
	first := max(0, min(now-rows/2, len(w.tree)-rows))
	for i := first; i < min(first+rows, len(w.tree)); i++ {
		sign, style := "  ", normal
		if i == now {
			sign, style = "▶ ", marked
		}
		lines = append(lines, fit(sign+style.Render(w.tree[i].text), columns))
	}
	return lines
}

// A callLine is a call in the list of all, or what stands for several of them.
type callLine struct {
	text string
	node *steps.CallNode // nil: several
}

// Bounds of the list of calls.
const (
	mostCallLines = 2000
	mostSiblings  = 40 // calls of one call
)

// callLines write the calls below each other, those that one made further in.
func callLines(roots []*steps.CallNode) (lines []callLine) {
	var add func(nodes []*steps.CallNode, depth int)
	add = func(nodes []*steps.CallNode, depth int) {
		lead := strings.Repeat("  ", min(depth, 20))
		for i, n := range nodes {
			if rest := len(nodes) - i; i == mostSiblings-1 && rest > 1 || len(lines) >= mostCallLines {
				lines = append(lines, callLine{text: lead + count(rest, "call") + " more"})
				return
			}
			lines = append(lines, callLine{lead + callText(n), n})
			add(n.Calls, depth+1)
		}
	}
	add(roots, 0)
	return lines
}

// callText writes a call: "gcd(a = 36, b = 24) = 12".
func callText(n *steps.CallNode) string {
	var given []string
	for _, c := range n.Arguments {
		if c.Name == "this" || c.Name == "self" { // whose method it is says little of the call
			continue
		}
		given = append(given, Visible(c.Name)+" = "+Visible(c.Value))
	}
	text := Visible(n.Function) + "(" + strings.Join(given, ", ") + ")"
	switch {
	case n.Error != "":
		text += ": " + Visible(n.Error)
	case n.Returned != "":
		text += " = " + Visible(n.Returned)
	}
	return text
}

// Calls shows which call made which.
func (s *Screen) Calls(r *steps.Recording) {
	s.Print("")
	s.Print("%s", strong.Render("calls"))
	for _, one := range callLines(r.CallTree()) {
		s.Print("%s", fit("  "+one.text, s.Width))
	}
	s.Flush()
}
