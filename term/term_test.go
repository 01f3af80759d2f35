package term

import (
	"bytes"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
	"unicode/utf8"

	"github.com/charmbracelet/x/ansi"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

var update = flag.Bool("update", false, "write the golden files anew")

// station is a problem with a case for each kind of evidence.
func station() (*problem.Problem, []judge.Event) {
	data := func(text string) problem.Data { return problem.Data{Text: []byte(text), Size: int64(len(text))} }
	p := &problem.Problem{Dir: "/station/depots", Title: "Fuel depots"}
	add := func(name, reason, input string) int {
		group, _, _ := strings.Cut(name, "/")
		p.Cases = append(p.Cases, problem.Case{Name: name, Group: group, Reason: reason, Input: data(input), Where: "cases.md:1"})
		return len(p.Cases) - 1
	}
	usage := verdict.Usage{CPU: 1234 * time.Microsecond, Wall: 2 * time.Millisecond, Memory: 3 << 20}
	language, _ := toolchain.Ours().Find("cpp")
	plan := judge.Plan{
		Solution: problem.Solution{File: "depots.cpp", Role: problem.Candidate}, Language: "cpp",
		Build:  &toolchain.Build{Language: language, Standard: "cpp20", Tool: "g++ 12.2.0", Command: "g++ -O2 depots.cpp", Duration: 800 * time.Millisecond},
		Limits: verdict.Limits{Time: time.Second, Wall: 3 * time.Second, Memory: 256 << 20, Output: 64 << 20},
		Unset:  verdict.Limits{Wall: 3 * time.Second, Output: 64 << 20},
	}
	events := []judge.Event{judge.Building{}, nil}
	tell := func(index int, o verdict.Outcome) {
		o.Ran = o.Verdict != verdict.Fault
		if o.Usage == (verdict.Usage{}) {
			o.Usage = usage
		}
		events = append(events, judge.Case{Index: index, Outcome: o})
		plan.Cases = append(plan.Cases, index)
	}
	tell(add("samples/one", "", "1\n"), verdict.Outcome{Verdict: verdict.Accepted})
	tell(add("samples/two-with-a-rather-long-name-that-says-a-lot-about-it", "", "2\n"), verdict.Outcome{Verdict: verdict.Accepted, Close: true, Message: "close: 91 % of the time limit", Usage: verdict.Usage{CPU: 912 * time.Millisecond, Memory: 80 << 20}})
	tell(add("edge-cases/wrong", "Two depots, the second one small: what the first leaves behind shows there.", "2\n3\n10 20 30\n1\n7\n"), verdict.Outcome{
		Verdict: verdict.WrongAnswer, Message: "line 2, column 3: expected 7, got 30", Hints: []string{"right up to answer 1 of 2"},
		Difference: &verdict.Difference{
			Line: 2, Column: 3, Expected: "7", Got: "30",
			ExpectedSide: verdict.Excerpt{FirstLine: 1, Lines: []string{"60 30", "7 7"}, Starts: []int{0, 0}, Mark: 1, Column: 3, AtStart: true, AtEnd: true},
			GotSide:      verdict.Excerpt{FirstLine: 1, Lines: []string{"60 30", "7 30", "8 \x1b[31m8"}, Starts: []int{0, 0, 0}, Mark: 1, Column: 3, AtStart: true},
		},
		Stderr: verdict.Text{Bytes: []byte("debug: \x07largest\t= 30\n")},
	})
	tell(add("edge-cases/short", "", strings.Repeat("7 ", 40)+"\n"+strings.Repeat("1\n", 20)), verdict.Outcome{
		Verdict: verdict.WrongAnswer, Message: "line 2: the output ends too early", Unsteady: true,
		Difference: &verdict.Difference{
			Line: 2, Column: 1, Expected: "7", Reason: "the output ends too early",
			ExpectedSide: verdict.Excerpt{FirstLine: 1, Lines: []string{"60 30", strings.Repeat("7", 100)}, Starts: []int{0, 40}, Mark: 1, Column: 101, AtStart: true, AtEnd: true},
			GotSide:      verdict.Excerpt{FirstLine: 1, Lines: []string{"60 30"}, Starts: []int{0}, Mark: 1, Column: 1, AtStart: true, AtEnd: true},
		},
	})
	tell(add("edge-cases/crash", "", ""), verdict.Outcome{Verdict: verdict.RuntimeError, Message: "segmentation fault (signal 11)", Signal: "segmentation fault (signal 11)"})
	tell(add("full-load/slow", "", "3\n"), verdict.Outcome{Verdict: verdict.TimeLimit, Usage: verdict.Usage{CPU: 1003 * time.Millisecond, Memory: 5 << 20}, Stdout: verdict.Text{Bytes: []byte("čtyři 氷\n\xff\xfe\n"), Cut: true}})
	tell(add("full-load/fault", "", "3\n"), verdict.Outcome{Verdict: verdict.Fault, Message: "cannot read the input: it is gone"})
	tell(add("full-load/unknown", "", "3\n"), verdict.Outcome{Verdict: verdict.Unjudged, Stdout: verdict.Text{Bytes: []byte("42\n")}})
	events[1] = judge.Began{Plan: plan}
	return p, append(events, judge.Ended{Verdict: verdict.WrongAnswer})
}

// show draws the station on a screen of a width.
func show(width int, colour bool, evidence int) string {
	var out bytes.Buffer
	environ := []string{fmt.Sprintf("COLUMNS=%d", width), "TERM=xterm-256color"}
	if colour {
		environ = append(environ, "CLICOLOR_FORCE=1", "COLORTERM=truecolor")
	} else {
		environ = append(environ, "NO_COLOR=1")
	}
	p, events := station()
	view := &TryView{Screen: NewScreen(&out, &bytes.Buffer{}, environ), Problem: p, Evidence: evidence, Chosen: "edited last"}
	for _, e := range events {
		view.Tell(e)
	}
	view.Screen.Flush()
	return out.String()
}

func TestTheViewIsAsDrawn(t *testing.T) {
	for _, width := range []int{60, 100, 200} {
		got := show(width, false, 9)
		path := filepath.Join("testdata", fmt.Sprintf("try-%d.txt", width))
		if *update {
			require.NoError(t, os.MkdirAll("testdata", 0o755))
			require.NoError(t, os.WriteFile(path, []byte(got), 0o644))
		}
		want, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.Equal(t, string(want), got, "run with -update and read the change")
	}
}

func TestEveryLineFitsTheScreen(t *testing.T) {
	for width := leastWidth; width <= greatestWidth; width += 7 {
		for line := range strings.Lines(show(width, width%2 == 0, 9)) {
			assert.LessOrEqual(t, ansi.StringWidth(strings.TrimRight(line, "\n")), width, "%q", line)
		}
	}
}

func TestColourAddsNothingButColour(t *testing.T) {
	coloured := show(100, true, 9)
	assert.Contains(t, coloured, "\x1b[")
	assert.Equal(t, show(100, false, 9), ansi.Strip(coloured))
}

func TestNoProgramReachesTheTerminal(t *testing.T) {
	plain := show(100, false, 9)
	assert.NotContains(t, plain, "\x1b")
	assert.NotContains(t, plain, "\x07")
	assert.Contains(t, plain, `8 \x1b[31m8`)
	assert.Contains(t, plain, `debug: \x07largest\t= 30`)
	assert.Contains(t, plain, `\xff\xfe`)
	assert.True(t, utf8.ValidString(plain))
}

func TestEvidenceIsForTheSmallestFailingInputs(t *testing.T) {
	one := show(100, false, 1)
	assert.Contains(t, one, "edge-cases/crash: runtime error", "its input is empty")
	assert.NotContains(t, one, "edge-cases/wrong: wrong answer")
	assert.NotContains(t, show(100, false, 0), "printed nothing")
	assert.Contains(t, show(100, false, 9), "full-load/unknown: unjudged", "outputs that nobody can judge come last")
}

func TestControlCharactersAreMadeVisible(t *testing.T) {
	for text, want := range map[string]string{
		"plain":               "plain",
		"čeština 氷":           "čeština 氷",
		"a\tb\r\n":            `a\tb\r\n`,
		"\x1b]0;title\x07":    `\x1b]0;title\x07`,
		"\x00\x7f":            `\x00\x7f`,
		"bad \xc3( utf8":      `bad \xc3( utf8`,
		"left\u202eright":     `left\u202eright`,
		"zero\u200bwidth":     `zero\u200bwidth`,
		"c1 \u009b31m":        `c1 \u009b31m`,
		"replacement \ufffd!": "replacement \ufffd!",
	} {
		assert.Equal(t, want, Visible(text))
	}
}

func TestTimesAndSizesAreShort(t *testing.T) {
	for d, want := range map[time.Duration]string{
		0: "0 µs", 50 * time.Microsecond: "50 µs", 640 * time.Microsecond: "0.6 ms", 9949 * time.Microsecond: "9.9 ms", 9950 * time.Microsecond: "10 ms",
		999 * time.Millisecond: "999 ms", 999600 * time.Microsecond: "1 s", 1500 * time.Millisecond: "1.5 s", 101 * time.Second: "101 s",
	} {
		assert.Equal(t, want, Duration(d))
	}
	for n, want := range map[int64]string{0: "0 B", 1: "1 B", 1023: "1023 B", 1024: "1 KiB", 867 << 10: "867 KiB", 1 << 20: "1 MiB", 1536 << 10: "1.5 MiB", 256 << 20: "256 MiB", 5 << 40: "5 TiB"} {
		assert.Equal(t, want, Size(n))
	}
	assert.Equal(t, "1 case", count(1, "case"))
	assert.Equal(t, "12,345 cases", count(12345, "case"))
	assert.Equal(t, "-1,234", thousands(-1234))
}

func TestALongLineIsCutAroundItsMark(t *testing.T) {
	line := strings.Repeat("a", 90) + "X" + strings.Repeat("b", 90)
	cut := cutLine(line, 0, 90, 40)
	assert.LessOrEqual(t, ansi.StringWidth(cut.text), 40)
	assert.Equal(t, "X", string([]rune(cut.text)[cut.column]))
	short := cutLine("12 13", 0, 3, 40)
	assert.Equal(t, cutText{"12 13", 3}, short)
	assert.Equal(t, cutText{`\t12`, 2}, cutLine("\t12", 0, 1, 40), "a mark stands under what is shown")
}
