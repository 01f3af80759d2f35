package judge

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/core/box"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

var second = verdict.Limits{Time: time.Second, Wall: 2 * time.Second, Memory: 64 << 20, Output: 1 << 10, Processes: 50}

func TestEachEndHasOneVerdictAndOneRemark(t *testing.T) {
	usage := func(cpu, wall time.Duration, memory int64) verdict.Usage {
		return verdict.Usage{CPU: cpu, Wall: wall, Memory: memory}
	}
	reading := func(kind, message string, line int) toolchain.Reading {
		return toolchain.Reading{Kinds: []string{kind}, Message: message, Line: line}
	}
	quick := usage(time.Millisecond, time.Millisecond, 1<<20)
	for _, tt := range []struct {
		name   string
		m      measured
		stderr string
		want   verdict.Verdict
		remark string
	}{
		{"it ended well", measured{result: box.Result{Ending: box.Exited, Usage: quick}}, "", verdict.Accepted, ""},
		{"it ended well within its limits to the last", measured{result: box.Result{Ending: box.Exited, Usage: usage(time.Second, 2*time.Second, 64<<20)}}, "", verdict.Accepted, ""},
		{"memory, by the sandbox", measured{result: box.Result{Ending: box.PassedMemory, Usage: quick}}, "", verdict.MemoryLimit, ""},
		{"memory, seen at its end", measured{result: box.Result{Ending: box.Exited, Usage: usage(0, 0, 64<<20+1)}}, "", verdict.MemoryLimit, ""},
		{"memory before output, time and failure", measured{result: box.Result{Ending: box.PassedMemory, Usage: usage(3*time.Second, 3*time.Second, 1)}, tooLong: true, threw: true}, "", verdict.MemoryLimit, ""},
		{"output, by the sandbox", measured{result: box.Result{Ending: box.PassedOutput, Usage: quick}}, "", verdict.OutputLimit, "it wrote more than 1 KiB"},
		{"its folder", measured{result: box.Result{Ending: box.PassedOutput, Usage: quick, Filled: true}}, "", verdict.OutputLimit, "it filled its working folder"},
		{"output before time", measured{result: box.Result{Ending: box.PassedOutput, Usage: usage(2*time.Second, 2*time.Second, 1)}}, "", verdict.OutputLimit, "it wrote more than 1 KiB"},
		{"a call printed too much", measured{result: box.Result{Ending: box.Exited, Usage: quick}, printed: 2000}, "", verdict.OutputLimit, "it wrote more than 1 KiB"},
		{"a call returned too much", measured{result: box.Result{Ending: box.Exited, Usage: quick}, tooLong: true}, "", verdict.OutputLimit, "it returned more than 1 KiB"},
		{"time, by the sandbox", measured{result: box.Result{Ending: box.PassedTime, Usage: quick}}, "", verdict.TimeLimit, ""},
		{"time, seen at its end", measured{result: box.Result{Ending: box.Exited, Usage: usage(time.Second+1, time.Second+1, 1)}}, "", verdict.TimeLimit, ""},
		{"time before elapsed time", measured{result: box.Result{Ending: box.PassedWall, Usage: usage(1500*time.Millisecond, 3*time.Second, 1)}}, "", verdict.TimeLimit, ""},
		{"time before a crash", measured{result: box.Result{Ending: box.Exited, Usage: usage(2*time.Second, 2*time.Second, 1), Signal: 11}}, "", verdict.TimeLimit, ""},
		{"elapsed time", measured{result: box.Result{Ending: box.PassedWall, Usage: usage(time.Millisecond, 2*time.Second, 1)}}, "", verdict.Stalled, "it waited: 0.00 s of processor time in 2.00 s"},
		{"elapsed time that was the machine's", measured{result: box.Result{Ending: box.Exited, Usage: verdict.Usage{Wall: 5 * time.Second, Starved: 4 * time.Second}}}, "", verdict.Accepted, ""},
		{"its runtime had no memory", measured{result: box.Result{Ending: box.Exited, ExitCode: 1, Usage: quick}, reading: reading(toolchain.KindMemory, "MemoryError", 3)}, "", verdict.MemoryLimit, "it asked for more than it was given, and failed at line 3"},
		{"its runtime had no memory, nobody knows where", measured{result: box.Result{Ending: box.Exited, ExitCode: 1, Usage: quick}, reading: reading(toolchain.KindMemory, "bad_alloc", 0)}, "", verdict.MemoryLimit, "it asked for more than it was given, and failed"},
		{"its runtime could not read the source", measured{result: box.Result{Ending: box.Exited, ExitCode: 1, Usage: quick}, reading: reading(toolchain.KindCompile, "SyntaxError", 2)}, "", verdict.CompileError, "line 2: SyntaxError"},
		{"its runtime names an error", measured{result: box.Result{Ending: box.Exited, ExitCode: 1, Usage: quick}, reading: reading("index", "IndexError", 2)}, "x", verdict.RuntimeError, "line 2: IndexError"},
		{"an exit status", measured{result: box.Result{Ending: box.Exited, ExitCode: 3, Usage: quick}}, "a\nlast words\n\n", verdict.RuntimeError, "exit status 3: last words"},
		{"a signal", measured{result: box.Result{Ending: box.Exited, Signal: 11, Usage: quick}}, "", verdict.RuntimeError, "segmentation fault (signal 11)"},
		{"a signal that kills", measured{result: box.Result{Ending: box.Exited, Signal: 9, Usage: quick}}, "", verdict.RuntimeError, "killed (signal 9), by itself or by the system"},
		{"too many processes", measured{result: box.Result{Ending: box.PassedProcess, Usage: quick}}, "", verdict.RuntimeError, "more than 50 processes and threads at once"},
		{"more processes than there is memory for", measured{result: box.Result{Ending: box.PassedProcess, Usage: quick, Room: 30}}, "", verdict.RuntimeError, "more than 30 processes at once, for which this machine has no memory"},
		{"a call that threw", measured{result: box.Result{Ending: box.Exited, Usage: quick}, threw: true, reading: reading("index", "IndexError", 0)}, "", verdict.RuntimeError, "IndexError"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			v := classify(tt.m, second)
			assert.Equal(t, tt.want.String(), v.String())
			assert.Equal(t, tt.remark, tt.m.remark(v, second, []byte(tt.stderr)))
		})
	}
}

func TestWithoutALimitNothingIsPassed(t *testing.T) {
	m := measured{result: box.Result{Ending: box.Exited, Usage: verdict.Usage{CPU: time.Hour, Wall: time.Hour, Memory: 1 << 40}}, printed: 1 << 40}
	assert.Equal(t, verdict.Accepted, classify(m, verdict.Limits{}))
}

func TestHowACheckerFailsIsToldInWords(t *testing.T) {
	for want, m := range map[string]measured{
		"": {result: box.Result{Ending: box.Exited}},
		"passed its limit of 1s of processor time; [limits.checker] sets another": {result: box.Result{Ending: box.PassedTime}},
		"passed its limit of 2s; [limits.checker] sets another":                   {result: box.Result{Ending: box.PassedWall}},
		"passed its limit of 64 MiB of memory; [limits.checker] sets another":     {result: box.Result{Ending: box.PassedMemory}},
		"passed its limit of 1 KiB of output; [limits.checker] sets another":      {result: box.Result{Ending: box.PassedOutput}},
		"passed its limit of 50 processes; [limits.checker] sets another":         {result: box.Result{Ending: box.PassedProcess}},
		"was ended before it decided":                                             {result: box.Result{Ending: box.EndedByRequest}},
		"crashed: segmentation fault (signal 11)":                                 {result: box.Result{Ending: box.Exited, Signal: 11}},
		"ended with exit status 2: no":                                            {result: box.Result{Ending: box.Exited, ExitCode: 2}},
	} {
		assert.Equal(t, want, m.helperFailed(second, false, []byte("no\n")))
	}
	assert.Equal(t, "failed: line 3", measured{result: box.Result{Ending: box.Exited, ExitCode: 1}}.helperFailed(second, true, []byte("line 3")))
}
