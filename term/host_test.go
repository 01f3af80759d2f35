package term

import (
	"bytes"
	"errors"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

var (
	whole = box.Hold{Isolation: box.Namespaces, Contained: true, Apart: true, Near: true, Filter: true, Told: true, Groups: "cgroup v2, below /user"}
	half  = box.Hold{Isolation: box.NotIsolated, Contained: true, Apart: true, Near: true, Denied: []string{"namespaces: not permitted"}}
	open  = box.Hold{Isolation: box.NotIsolated, Apart: true, Near: true}
)

func TestHostSaysWhatHoldsAndHowToGetWhatDoesNot(t *testing.T) {
	for _, columns := range []string{"60", "100"} {
		s, out := plainScreen(columns)
		s.Host(Host{
			System: "Linux 6.18, amd64, 2 processors", User: "ice\x1b[2J", Jobs: 2, Hold: half,
			Trial: verdict.Usage{CPU: 5 * time.Millisecond, Memory: 8 << 20}, Ungrouped: "cgroup v2 is not mounted\nno bus",
			Tools: []toolchain.Survey{
				{Title: "C++", Versions: []string{"g++ (Debian 12.2.0-14) 12.2.0"}},
				{Title: "Java", Missing: errors.New("Java cannot be run: no javac on this machine")},
			},
		})
		s.Flush()
		text := strings.Join(strings.Fields(out.String()), " ")
		for _, words := range []string{
			`run as ice\x1b[2J; 2 cases beside each other`, "holds output", "no no network a program can use the network",
			"control groups: none", "a trial run took 5 ms of processor time and 8 MiB", "what is missing a sandbox of namespaces:",
			"tried: namespaces: not permitted", "tried: no bus", "found C++ g++ 12.2.0", "no Java no javac on this machine",
		} {
			assert.Contains(t, text, words, columns)
		}
	}
	s, out := plainScreen("100")
	s.Host(Host{Hold: whole})
	s.Flush()
	assert.NotContains(t, out.String(), "what is missing")
	assert.NotContains(t, out.String(), "\n    no ")
	assert.Contains(t, out.String(), "control groups: cgroup v2, below /user")
}

func TestWhatDoesNotHoldIsSaidBeforeAnythingRunsAndWithTheVerdict(t *testing.T) {
	for _, tt := range []struct {
		hold                  box.Hold
		before, within, after string
	}{
		{whole, "", "", "(1 case: 1 accepted)\n"},
		{half, "note: on this machine a program can use the network, a program can change your files", "", "1 accepted), not fully contained\n"},
		{open, "note: memory: weaker without control groups; 'cold host' says why and what to do", "\n  not contained: it can use the network and your files\n", "1 accepted), not contained\n"},
	} {
		var out, remarks bytes.Buffer
		s := NewScreen(&out, &remarks, []string{"COLUMNS=120", "NO_COLOR=1"})
		view := &TryView{Screen: s, Problem: &problem.Problem{Cases: []problem.Case{{Name: "samples/one", Group: "samples"}}}}
		view.Tell(judge.Held{Hold: tt.hold})
		assert.Contains(t, remarks.String(), tt.before)
		assert.Equal(t, tt.before == "", remarks.Len() == 0, "nothing else is remarked")
		view.Tell(judge.Began{Plan: judge.Plan{Solution: problem.Solution{File: "a.py"}}})
		assert.Contains(t, out.String()+flushed(s, &out), tt.within)
		view.Tell(judge.Case{Outcome: verdict.Outcome{
			Verdict: verdict.Accepted, Ran: true, Message: "close: 81 % of the time limit",
			Spread: &verdict.Spread{Runs: 5, Least: 7 * time.Millisecond, Most: 9 * time.Millisecond},
		}})
		view.Tell(judge.Ended{Verdict: verdict.Accepted})
		assert.Contains(t, flushed(s, &out), tt.after)
		assert.Contains(t, out.String(), "5 runs, 7 ms to 9 ms; close: 81 %")
	}
}

func flushed(s *Screen, out *bytes.Buffer) string {
	s.Flush()
	return out.String()
}
