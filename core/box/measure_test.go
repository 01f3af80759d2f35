//go:build linux && !portable

package box

import (
	"fmt"
	"math"
	"os"
	"os/exec"
	"runtime"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"

	"coldverdict/internal/testenv"
)

// runs is how often a row is tried; COLD_TEST_ROUNDS asks for more.
func runs(t testing.TB) int {
	if n, err := strconv.Atoi(os.Getenv("COLD_TEST_ROUNDS")); err == nil {
		return n
	}
	return testenv.Of(4, 2)
}

// worst keeps the largest error of a row: what was measured, less what is
// true.
type worst struct{ measured, truth float64 }

func (w *worst) add(measured, truth float64) {
	if math.Abs(measured-truth) >= math.Abs(w.measured-w.truth) {
		*w = worst{measured, truth}
	}
}

// The promise is 2 ms or 1 %. What a program does after it has looked at its
// clock, and before it has started its own, is not in its figure, and takes
// longer on a loaded machine.
const (
	timeError = 0.010
	timeShare = 0.02
)

// stolen is the time, in ticks, in which the machine below this one ran something
// else. The kernel takes it for the time of whatever program was running, also
// after that has looked at its clock for the last time.
func stolen() (ticks int64) {
	text, _ := os.ReadFile("/proc/stat")
	if fields := strings.Fields(string(text)); len(fields) > 8 {
		ticks, _ = strconv.ParseInt(fields[8], 10, 64)
	}
	return ticks
}

// ticksPerSecond is in what /proc/stat counts.
const ticksPerSecond = 100

// mostTries bounds how often a row is measured again because time was stolen.
const mostTries = 15

func TestProcessorTimeIsThatOfTheWholeTree(t *testing.T) {
	rows := []struct{ name, args string }{
		{"one thread", "0.2 1 0"},
		{"two threads", "0.1 2 0"},
		{"four threads", "0.05 4 0"},
		{"three children", "0.06 0 3"},
		{"threads and children", "0.04 2 2"},
		{"children that nobody waits for", "0.06 0 3 deny"},
	}
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for _, row := range rows {
			var w worst
			for counted, tries := 0, 0; counted < runs(t); tries++ {
				out := &Head{Most: 100}
				before := stolen()
				got, err := b.Run(t.Context(), Run{Program: program(t, "burn", strings.Fields(row.args)...), Limits: generous, Output: out})
				require.NoError(t, err)
				taken := stolen() - before
				if taken > 0 && tries < mostTries {
					continue
				}
				counted++
				own, err := strconv.ParseFloat(strings.TrimSpace(string(out.Text)), 64)
				require.NoError(t, err)
				measured := got.Usage.CPU.Seconds()
				if measured > own { // no more than what was stolen is forgiven
					measured = max(own, measured-float64(taken)/ticksPerSecond)
				}
				w.add(measured, own)
			}
			t.Logf("%-32s true %8.2f ms  measured %8.2f ms  worst error %6.2f ms", row.name, w.truth*1e3, w.measured*1e3, (w.measured-w.truth)*1e3)
			assert.InDelta(t, w.truth, w.measured, float64(slowness)*max(timeError, timeShare*w.truth), row.name)
		}
	})
}

func TestPeakMemoryIsWhatTheProgramTouched(t *testing.T) {
	// What the caller holds must not show in the figures of a small program.
	ballast := make([]byte, 64<<20)
	for i := 0; i < len(ballast); i += 4096 {
		ballast[i] = 1
	}
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		var empty worst
		for range runs(t) {
			empty.add(float64(run(t, b, program(t, "act", "nothing"), generous).Usage.Memory), 0)
		}
		t.Logf("%-32s measured %8.0f KiB", "nothing", empty.measured/1024)
		assert.Positive(t, empty.measured)
		assert.Less(t, empty.measured, float64(2<<20))
		for _, row := range []struct {
			mib   int64
			how   string
			share float64 // of the truth that the error may be
		}{
			{1, "plain", 0.01}, {16, "plain", 0.01}, {64, "plain", 0.01}, {512, "plain", 0.01},
			{16, "thread", 0.01}, {64, "thread", 0.01}, {512, "thread", 0.01},
			{128, "children", 0.05},
		} {
			var w worst
			truth := float64(row.mib << 20)
			if row.how != "children" {
				truth += empty.measured
			}
			for range runs(t) {
				w.add(float64(run(t, b, program(t, "touch", strconv.FormatInt(row.mib, 10), row.how), generous).Usage.Memory), truth)
			}
			name := fmt.Sprintf("%d MiB, %s", row.mib, row.how)
			t.Logf("%-32s true %8.0f KiB measured %8.0f KiB worst error %6.0f KiB", name, truth/1024, w.measured/1024, (w.measured-truth)/1024)
			assert.InDelta(t, truth, w.measured, max(row.share*truth, 256<<10), name)
		}
	})
	assert.NotZero(t, ballast[4096])
}

func TestLimitsEndARunSoonAfterTheyArePassed(t *testing.T) {
	// The promise is 50 ms on a quiet machine, which the benchmarks measure; of a machine whose
	// host takes most of its time nothing more can be said than that it ends.
	late := slowness * 20 * time.Second
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for _, tt := range []struct {
			act    string
			limits verdict.Limits
			want   Ending
		}{
			{"loop", verdict.Limits{Time: 100 * time.Millisecond, Wall: slowness * 10 * time.Second}, PassedTime},
			{"sleep", verdict.Limits{Time: time.Second, Wall: 100 * time.Millisecond}, PassedWall},
			{"stop", verdict.Limits{Time: time.Second, Wall: 100 * time.Millisecond}, PassedWall},
		} {
			var longest time.Duration
			for range runs(t) {
				began := time.Now()
				got := run(t, b, program(t, "act", tt.act), tt.limits)
				// How soon a program on a loaded machine comes to its limit of
				// processor time is not the watch's doing.
				after := time.Since(began) - tt.limits.Wall
				if tt.want == PassedTime {
					after = got.Usage.CPU - tt.limits.Time
				}
				longest = max(longest, after)
				assert.Equal(t, tt.want, got.Ending)
			}
			t.Logf("%-8s over %5.1f ms after the limit at the latest", tt.act, longest.Seconds()*1e3)
			assert.Positive(t, longest, "never before the limit")
			assert.Less(t, longest, late)
		}
	})
}

func TestTheMemoryOfManyProcessesIsTheSumOfWhatTheyTouched(t *testing.T) {
	limits := generous
	limits.Processes = 2048
	// What a process of its own costs beside what it touches: its stack, and the pages
	// of the program that it writes to.
	const own = 80 << 10
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		for _, row := range []struct{ processes, mib int64 }{{16, 128}, {100, 200}, {1000, 400}} {
			if slowness > 1 && row.processes > 16 {
				t.Logf("%5d processes: too many for a machine that is emulated", row.processes)
				continue
			}
			truth := row.mib << 20
			got := run(t, b, program(t, "touch", fmt.Sprint(row.mib), "herd", fmt.Sprint(row.processes)), limits)
			if !m.groups && got.Ending == PassedProcess { // more than this machine has memory for, if each took its limit
				t.Logf("%5d processes: too many without control groups", row.processes)
				continue
			}
			require.Equal(t, Exited, got.Ending)
			t.Logf("%5d processes  true %6.1f MiB  measured %6.1f MiB", row.processes, float64(truth)/(1<<20), float64(got.Usage.Memory)/(1<<20))
			share := 0.95
			if slowness > 1 || !m.groups { // looks come late on a machine that is busy
				share = 0.85
			}
			assert.GreaterOrEqual(t, float64(got.Usage.Memory), share*float64(truth))
			assert.LessOrEqual(t, float64(got.Usage.Memory), 1.05*float64(truth)+float64(own*row.processes))
		}
	})
}

func TestWhatEndsWhileASumIsMadeIsNotCountedTwice(t *testing.T) {
	ended := exec.Command("/bin/true")
	require.NoError(t, ended.Run())
	own := process{pid: os.Getpid(), parent: os.Getppid()}
	gone := process{pid: ended.Process.Pid, parent: own.pid}
	held, err := proportional(own.pid)
	require.NoError(t, err)
	tests := []struct {
		name string
		gone int64 // what the one that has ended held before
		want int64
	}{
		{"it had ended before", 0, held},
		{"all that it held may have been shared", 30 << 20, max(held-30<<20, 30<<20)},
		{"it was the largest", 1 << 40, 1 << 40},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			var s sum
			got, err := s.of([]*member{{pid: own.pid, parent: own.parent}, {pid: gone.pid, parent: gone.parent, resident: tt.gone}})
			require.NoError(t, err)
			assert.InDelta(t, tt.want, got, 8<<20)
		})
	}
}

// switches is how often all threads of a process have gone to sleep.
func switches(t *testing.T, process int) (total int) {
	base := fmt.Sprintf("/proc/%d/task/", process)
	threads, err := numbers(fmt.Sprintf("%d/task", process))
	require.NoError(t, err)
	for _, thread := range threads {
		text, err := os.ReadFile(base + strconv.Itoa(thread) + "/status")
		require.NoError(t, err)
		_, rest, found := strings.Cut(string(text), "\nvoluntary_ctxt_switches:")
		require.True(t, found)
		var n int
		_, err = fmt.Sscan(rest, &n)
		require.NoError(t, err)
		total += n
	}
	return total
}

// The runtime looks after threads that wait in the kernel, first every few ten
// microseconds, which would make more than 150 wake-ups here; calmed, it does so once in that time.
// A machine that is emulated takes long to start a program, which counts as well.
func TestAWorkerLetsItsProgramRunAlone(t *testing.T) {
	const most = 70 // beyond one in that time
	b := open(t)
	if h := b.Hold(); h.Isolation != Namespaces && os.Geteuid() != 0 {
		t.Skip("without namespaces an ordinary user has no right to calm the runtime")
	}
	least := math.MaxInt
	for tries := 0; least >= most && tries < 5; tries++ {
		before, began := switches(t, b.supervisor.Pid), time.Now()
		result := run(t, b, program(t, "act", "sleep"), verdict.Limits{Time: time.Second, Wall: 300 * time.Millisecond, Memory: 64 << 20})
		require.Equal(t, PassedWall, result.Ending)
		least = min(least, switches(t, b.supervisor.Pid)-before-int(time.Since(began)/calm))
	}
	assert.Less(t, least, most)
}

// loadMachine keeps every processor busy twice over while a test runs.
func loadMachine(t *testing.T) {
	for range 2 * runtime.NumCPU() {
		busy := exec.Command("/bin/sh", "-c", "while :; do :; done")
		require.NoError(t, busy.Start())
		t.Cleanup(func() {
			busy.Process.Kill()
			busy.Wait()
		})
	}
}

func TestWhatTheMachineDoesNotGiveIsNoWaiting(t *testing.T) {
	limits := verdict.Limits{Time: 20 * time.Second, Wall: 2500 * time.Millisecond, Memory: 64 << 20}
	loadMachine(t)
	b := open(t)
	// They take longer than that when half of a processor is all they get.
	for _, p := range []Program{program(t, "burn", "1.5", "1", "0"), program(t, "burn", "0.8", "1", "1")} {
		got := run(t, b, p, limits)
		assert.Equal(t, Exited, got.Ending, "%+v", got)
	}
	got := run(t, b, program(t, "act", "sleep"), limits)
	assert.Equal(t, PassedWall, got.Ending, "who sleeps waits, on a busy machine too")
	assert.Greater(t, got.Usage.Own(), limits.Wall)
}

func openMode(t testing.TB, m mode) *Box {
	b, err := Open(m.options(t))
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, b.Close()) })
	return b
}
