package judge

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The interactor says its input, hears a number, and accepts 42.
const (
	talkScript = `
def talk(case, say, hear):
    if case.tokens[0] == "broken": return 1 // 0
    if case.tokens[0] == "mute":
        while True: pass
    say(case.text.strip())
    if case.tokens[0] == "undecided": return None
    line = hear()
    if case.tokens[0] == "pingpong":
        for i in range(30):
            say(i)
            if hear_ints() != [i]: return reject("that was no echo")
    if line == None: return reject("it ended early")
    if integer(line) == 42: return share(0.5, "half of it") if case.tokens[0] == "half" else accept()
    return reject("it is not " + line)
`
	talkProgram = `
#include <stdio.h>
#include <string.h>
#include <unistd.h>
int main(int argc, char **argv)
{
    char word[100] = "", line[100] = "";
    FILE *input = fopen(argv[1], "r");
    if (!input || fscanf(input, "%99s", word) != 1) return 9;
    if (!strcmp(word, "broken")) return 3;
    puts(word);
    fflush(stdout);
    if (!strcmp(word, "slow")) sleep(100);
    if (!fgets(line, sizeof line, stdin)) dprintf(3, "reject it ended early\n");
    else dprintf(3, !strcmp(line, "42\n") ? "accept\n" : "reject it is something else\n");
    return 0;
}
`
	candidate = `
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>
static char word[100], more[100];
static int is(const char *other) { return !strcmp(word, other); }
static void say(const char *text) { fputs(text, stdout); fflush(stdout); }
int main(void)
{
    if (scanf("%99s", word) != 1) return 9;
    if (is("right") || is("half")) say("42\n");
    else if (is("in-pieces")) { say("4"); usleep(30000); say("2"); usleep(30000); say("\n"); }
    else if (is("wrong")) { say("41\n"); scanf("%99s", more); raise(SIGSEGV); }
    else if (is("unflushed")) { fputs("42\n", stdout); scanf("%99s", more); }
    else if (is("unended")) { say("42"); scanf("%99s", more); }
    else if (is("deaf")) scanf("%99s", more);
    else if (is("early")) return 0;
    else if (is("lost")) return 3;
    else if (is("crash")) { say("42"); raise(SIGSEGV); }
    else if (is("garbage")) { say("forty-two\n"); scanf("%99s", more); }
    else if (is("chatty")) { say("42\nand more\n"); scanf("%99s", more); }
    else if (is("late")) { say("42\n"); scanf("%99s", more); say("and more\n"); }
    else if (is("patient")) { say("42\n"); while (scanf("%99s", more) == 1) {} }
    else if (is("bad-end")) { say("42\n"); while (scanf("%99s", more) == 1) {} exit(4); }
    else if (is("burn")) for (;;) {}
    else if (is("sleep")) for (;;) sleep(1);
    else if (is("hog")) for (;;) memset(malloc(1 << 20), 1, 1 << 20);
    else if (is("flood")) for (;;) puts("ice ice ice ice ice ice ice ice ice ice ice ice ice");
    else if (is("pingpong")) { say("42\n"); for (int n; scanf("%d", &n) == 1;) { printf("%d\n", n); fflush(stdout); } }
    else scanf("%99s", more);
    return 0;
}
`
)

func talkTry(t testing.TB, talk problem.Talk, words ...string) *try {
	var pairs []string
	for _, word := range words {
		pairs = append(pairs, word+"\n", "-")
	}
	r := newTry(t, pairs...)
	r.problem.Talk = talk
	r.solution.File = "candidate.c"
	for name, text := range map[string]string{"talk.star": talkScript, "talk.c": talkProgram, "candidate.c": candidate} {
		require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, name), []byte(text), 0o644))
	}
	r.problem.Limits.Checker = verdict.Limits{Time: time.Second, Wall: time.Minute, Memory: 200 << 20}
	return r
}

func TestEachEndOfATalkGetsItsVerdict(t *testing.T) {
	list := []expectation{
		{"right", verdict.Accepted, "", 1},
		{"in-pieces", verdict.Accepted, "", 1},
		{"wrong", verdict.WrongAnswer, "it is not 41", 0}, // whatever it does after it was rejected
		{"unflushed", verdict.Stalled, "both sides wait for each other", 0},
		{"unended", verdict.Stalled, `both sides wait: its last words "42" have no line end`, 0},
		{"deaf", verdict.Stalled, "both sides wait for each other", 0},
		{"early", verdict.WrongAnswer, "it ended early", 0},
		{"lost", verdict.RuntimeError, "exit status 3", 0},
		{"crash", verdict.RuntimeError, "segmentation fault (signal 11)", 0},
		{"garbage", verdict.WrongAnswer, `"forty-two" is no integer`, 0},
		{"chatty", verdict.WrongAnswer, `it went on talking after the end: "and more"`, 0},
		{"late", verdict.WrongAnswer, `it went on talking after the end: "and more"`, 0},
		{"patient", verdict.Accepted, "", 1},
		{"half", verdict.Partial, "50 % of the points: half of it", 0.5},
		{"bad-end", verdict.RuntimeError, "exit status 4", 0},
		{"burn", verdict.TimeLimit, "", 0},
		{"hog", verdict.MemoryLimit, "", 0},
		{"flood", verdict.OutputLimit, "", 0},
		{"pingpong", verdict.Accepted, "", 1},
		{"broken", verdict.Fault, "the interactor talk.star failed: talk.star:3:45: in talk: floored division by zero", 0},
		{"mute", verdict.Fault, "the interactor talk.star passed its limit of 1s of processor time", 0},
		{"undecided", verdict.Fault, "talk returned None", 0},
	}
	r := talkTry(t, problem.Talk{Script: "talk.star"}, saidBy(list)...)
	began := time.Now()
	r.expect(t, list)
	assert.Less(t, time.Since(began), 40*time.Second, "nothing waits for a limit that need not")
	for _, e := range r.events {
		c, ok := e.(Case)
		if !ok || list[c.Index].says != "unended" {
			continue
		}
		assert.True(t, c.Outcome.Waited)
		require.Len(t, c.Outcome.Hints, 1)
		assert.Contains(t, c.Outcome.Hints[0], "not flushed")
		talk := c.Outcome.Talk
		assert.Equal(t, "talk.star", talk.Other)
		require.Len(t, talk.Lines, 2)
		assert.Equal(t, []any{"unended", true, false}, []any{talk.Lines[0].Text, talk.Lines[0].ByOther, talk.Lines[0].Open})
		assert.Equal(t, []any{"42", false, true}, []any{talk.Lines[1].Text, talk.Lines[1].ByOther, talk.Lines[1].Open})
	}
}

func TestTheInteractorCanBeAProgram(t *testing.T) {
	list := []expectation{
		{"right", verdict.Accepted, "", 1},
		{"wrong", verdict.WrongAnswer, "it is something else", 0},
		{"unflushed", verdict.Stalled, "both sides wait for each other", 0},
		{"early", verdict.WrongAnswer, "it ended early", 0},
		{"broken", verdict.Fault, "the interactor talk.c ended with exit status 3", 0},
		{"slow", verdict.Fault, "the interactor talk.c did not answer within 4s", 0},
	}
	talkTry(t, problem.Talk{Program: "talk.c"}, saidBy(list)...).expect(t, list)
}

func TestManyTalksNeitherHangNorLeaveAnythingOpen(t *testing.T) {
	r := talkTry(t, problem.Talk{Script: "talk.star"}, strings.Fields(strings.Repeat("pingpong deaf ", 40))...)
	r.options.Jobs = 2
	open := func() int {
		entries, err := os.ReadDir("/proc/self/fd")
		if err != nil {
			t.Skip("this system does not tell which files are open")
		}
		return len(entries)
	}
	before := open()
	require.NoError(t, r.run(t.Context()))
	counts := map[verdict.Verdict]int{}
	for _, e := range r.events {
		if c, ok := e.(Case); ok {
			counts[c.Outcome.Verdict]++
		}
	}
	assert.Equal(t, map[verdict.Verdict]int{verdict.Accepted: 40, verdict.Stalled: 40}, counts)
	assert.LessOrEqual(t, open(), before+2)
}

func TestATalkEndsWithTheContext(t *testing.T) {
	r := talkTry(t, problem.Talk{Script: "talk.star"}, "sleep")
	ctx, cancel := context.WithTimeout(t.Context(), 2*time.Second)
	defer cancel()
	r.problem.Limits.General.Wall = time.Minute
	assert.ErrorIs(t, r.run(ctx), context.DeadlineExceeded)
}

func TestAPersonCanBeTheCandidate(t *testing.T) {
	for says, want := range map[string]string{"42\n": "accepted ", "41\n": "wrong answer it is not 41", "": "wrong answer it ended early", "x": `wrong answer "x" is no integer`} {
		r := talkTry(t, problem.Talk{Script: "talk.star"}, "by-hand")
		var out bytes.Buffer
		o, err := opened(t, r.problem, r.options).Talk(t.Context(), 0, strings.NewReader(says), &out)
		require.NoError(t, err)
		assert.Equal(t, want, o.Verdict.String()+" "+o.Message)
		assert.Equal(t, "by-hand\n", out.String())
	}
	r := talkTry(t, problem.Talk{Script: "talk.star"}, "broken")
	o, err := opened(t, r.problem, r.options).Talk(t.Context(), 0, strings.NewReader(""), &bytes.Buffer{})
	require.NoError(t, err)
	assert.Equal(t, verdict.Fault, o.Verdict)
}

func TestALongTalkIsCutInTheMiddle(t *testing.T) {
	book := transcript{began: time.Now()}
	const lines = 5000
	for i := range lines {
		book.write(i%2 == 1, fmt.Appendf(nil, "line %d\n", i))
	}
	book.write(false, []byte("no "))
	book.write(true, []byte("meanwhile\n"))
	book.write(false, []byte(strings.Repeat("end", 1000)))
	talk := book.whole()
	assert.Less(t, len(talk.Lines), saidFirst+2*saidLast+1)
	assert.Equal(t, lines+2, len(talk.Lines)+talk.LeftOut)
	assert.Equal(t, "line 0", talk.Lines[0].Text)
	assert.Equal(t, fmt.Sprint("line ", saidFirst-1), talk.Lines[talk.Gap-1].Text)
	assert.Equal(t, fmt.Sprint("line ", saidFirst+talk.LeftOut), talk.Lines[talk.Gap].Text)
	last := talk.Lines[len(talk.Lines)-1]
	assert.True(t, last.Open && strings.HasPrefix(last.Text, "no endend") && len(last.Text) == saidLongest)
}

func TestHowMuchOfATalksTimeIsItsOwn(t *testing.T) {
	const step = 100 * time.Millisecond
	type moment struct {
		ready, said bool
		cpu         time.Duration // in the step before
	}
	for _, tt := range []struct {
		name    string
		moments []moment // one after each step
		starved time.Duration
		want    time.Duration
	}{
		{"both wait on a quiet machine", []moment{{}, {}, {}, {}}, 0, 4 * step},
		{"both compute on a quiet machine", []moment{{ready: true, cpu: step}, {ready: true, cpu: step}, {ready: true, cpu: step}}, 0, 3 * step},
		{"words go to and fro on a quiet machine", []moment{{said: true, cpu: step / 2}, {said: true, cpu: step / 2}, {said: true, cpu: step / 2}}, 0, 3 * step},
		{"they could compute, and the machine does not let them", []moment{{ready: true}, {ready: true, cpu: step / 10}, {ready: true}, {ready: true}}, 0, step / 10},
		{"words go to and fro on a busy machine", []moment{{said: true, cpu: step / 10}, {said: true, cpu: step / 10}, {said: true, cpu: step / 10}}, step, 3 * step / 10},
		{"both wait on a busy machine", []moment{{}, {}, {}, {}, {}}, step / 2, 4 * step},
		{"what is starved is never more than what passed", []moment{{}, {}}, 10 * step, 0},
	} {
		t.Run(tt.name, func(t *testing.T) {
			began := time.Unix(1000, 0)
			var l looking
			one := look{at: began}
			for _, m := range tt.moments {
				one.at, one.cpu, one.ready = one.at.Add(step), one.cpu+m.cpu, m.ready
				if m.said {
					one.said++
				}
				l.note(one)
			}
			assert.Equal(t, tt.want, l.own(one.at.Sub(began), tt.starved))
		})
	}
}
