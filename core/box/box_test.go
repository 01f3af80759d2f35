//go:build linux && !portable

package box

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

func TestMain(m *testing.M) {
	Supervise()
	if len(os.Args) == 3 && os.Args[1] == "run-until-killed" {
		runUntilKilled(os.Args[2])
	}
	if dir := os.Getenv("COLD_TEST_PROGRAMS"); dir != "" {
		compiled.dir, compiled.before = dir, true
		os.Exit(m.Run())
	}
	dir, err := os.MkdirTemp("", "cold-box-test-")
	if err != nil {
		panic(err)
	}
	compiled.dir = dir
	code := m.Run()
	os.RemoveAll(dir)
	os.Exit(code)
}

// slowness is how many times slower than usual this machine is, such as one
// that is emulated.
var slowness = func() time.Duration {
	if n, err := strconv.Atoi(os.Getenv("COLD_TEST_SLOWNESS")); err == nil {
		return time.Duration(n)
	}
	return 1
}()

// unhurried are limits with the time that they take on this machine: those of
// a run that is to end in another way than by its time.
func unhurried(limits verdict.Limits) verdict.Limits {
	limits.Time, limits.Wall = slowness*limits.Time, slowness*limits.Wall
	return limits
}

// generous is far more than any of the programs below needs.
var generous = unhurried(verdict.Limits{
	Time: 10 * time.Second, Wall: 20 * time.Second,
	Memory: 1 << 30, Output: 1 << 30, Processes: 256,
})

var compiled = struct {
	sync.Mutex
	dir    string
	before bool // they are in dir already
	paths  map[string]string
}{paths: map[string]string{}}

// program compiles testdata/NAME.c once, statically, or takes what was compiled
// before.
func program(t testing.TB, name string, args ...string) Program {
	compiled.Lock()
	defer compiled.Unlock()
	if compiled.before {
		return Program{Path: filepath.Join(compiled.dir, strings.ReplaceAll(name, "/", "-")), Args: args}
	}
	if compiled.paths[name] == "" {
		testenv.Need(t, "gcc")
		path := filepath.Join(compiled.dir, strings.ReplaceAll(name, "/", "-"))
		out, err := exec.Command("gcc", "-O1", "-static", "-pthread", "-o", path, "testdata/"+name+".c").CombinedOutput()
		require.NoError(t, err, string(out))
		compiled.paths[name] = path
	}
	return Program{Path: compiled.paths[name], Args: args}
}

func open(t testing.TB) *Box {
	return openWith(t, Options{})
}

func openWith(t testing.TB, o Options) *Box {
	o.Scratch, o.Visible = t.TempDir(), append(o.Visible, compiled.dir)
	b, err := Open(o)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, b.Close()) })
	return b
}

func run(t testing.TB, b *Box, p Program, limits verdict.Limits) Result {
	result, err := b.Run(t.Context(), Run{Program: p, Limits: limits})
	require.NoError(t, err)
	return result
}

func TestEachEndingIsToldAsWhatItIs(t *testing.T) {
	tight := verdict.Limits{Time: 250 * time.Millisecond, Wall: 3 * time.Second, Memory: 64 << 20, Output: 1 << 20, Processes: 50}
	tests := []struct {
		act  string
		want Result // Usage, Written and Filled are not compared
	}{
		{"nothing", Result{Ending: Exited}},
		{"exit 7", Result{Ending: Exited, ExitCode: 7}},
		{"crash", Result{Ending: Exited, Signal: int(unix.SIGSEGV)}},
		{"abort", Result{Ending: Exited, Signal: int(unix.SIGABRT)}},
		{"raise size", Result{Ending: Exited, Signal: int(unix.SIGXFSZ)}},
		{"own size", Result{Ending: Exited, Signal: int(unix.SIGXFSZ)}},
		{"kill group", Result{Ending: Exited, Signal: int(unix.SIGKILL)}},
		{"close early", Result{Ending: Exited, ExitCode: 3}},
		{"tty", Result{Ending: Exited, ExitCode: 0}},
		{"descriptors", Result{Ending: Exited, ExitCode: 0}},
		{"loop", Result{Ending: PassedTime, Signal: int(unix.SIGKILL)}},
		{"sleep", Result{Ending: PassedWall, Signal: int(unix.SIGKILL)}},
		{"stop", Result{Ending: PassedWall, Signal: int(unix.SIGKILL)}},
		{"hog", Result{Ending: PassedMemory, Signal: int(unix.SIGKILL)}},
		{"flood", Result{Ending: PassedOutput, Signal: int(unix.SIGKILL)}},
		{"flood errors", Result{Ending: PassedOutput, Signal: int(unix.SIGKILL)}},
		{"flood file", Result{Ending: PassedOutput, Signal: int(unix.SIGXFSZ)}},
	}
	b := open(t)
	for _, tt := range tests {
		t.Run(tt.act, func(t *testing.T) {
			got := run(t, b, program(t, "act", tt.act), tight)
			got.Usage, got.Written, got.Filled, got.Stack = verdict.Usage{}, 0, false, 0
			assert.Equal(t, tt.want, got)
		})
	}
}

func TestAForkBombIsEndedAndNothingOfItIsLeft(t *testing.T) {
	b := open(t)
	got := run(t, b, program(t, "act", "forks"), unhurried(verdict.Limits{Time: time.Second, Wall: 10 * time.Second, Processes: 100}))
	assert.Equal(t, PassedProcess, got.Ending)
	assertNoChildren(t, b)
}

func TestADaemonThatIgnoresSignalsIsNotLeftBehind(t *testing.T) {
	b := open(t)
	began := time.Now()
	got := run(t, b, program(t, "act", "daemon"), generous)
	assert.Equal(t, Exited, got.Ending)
	assert.Equal(t, 1, got.Left, "the daemon; its parent ended by itself")
	assert.Less(t, time.Since(began), slowness*2*time.Second)
	assertNoChildren(t, b)
}

func assertNoChildren(t *testing.T, b *Box) {
	t.Helper()
	all, err := b.alive()
	require.NoError(t, err)
	assert.Empty(t, all)
}

func TestDeepRecursionIsBoundedByMemoryAlone(t *testing.T) {
	b := open(t)
	limits := generous
	limits.Memory = 256 << 20
	got := run(t, b, program(t, "act", "deep"), limits)
	assert.Equal(t, 0, got.Signal)
	assert.Greater(t, got.Usage.Memory, int64(64<<20))
}

// counter counts bytes and remembers how many came at once at the most.
type counter struct{ total, most int }

func (c *counter) Write(p []byte) (int, error) {
	c.total += len(p)
	c.most = max(c.most, len(p))
	return len(p), nil
}

func TestOutputFlowsThroughWhole(t *testing.T) {
	b := open(t)
	var out counter
	got, err := b.Run(t.Context(), Run{Program: program(t, "act", "write 100M"), Limits: generous, Output: &out})
	require.NoError(t, err)
	assert.Equal(t, 100<<20, out.total)
	assert.EqualValues(t, 100<<20, got.Written)
	assert.LessOrEqual(t, out.most, wide)
}

func TestInputGoesInAndBothOutputsComeOutApart(t *testing.T) {
	b := open(t)
	for _, text := range []string{"", "7 teams\n", strings.Repeat("crate\x00\xff\n", 100_000)} {
		input, err := Memory([]byte(text))
		require.NoError(t, err)
		var out bytes.Buffer
		_, err = b.Run(t.Context(), Run{Program: program(t, "act", "echo"), Limits: generous, Input: input, Output: &out})
		require.NoError(t, err)
		assert.True(t, out.String() == text, "%d bytes came back of %d", out.Len(), len(text))
		input.Close()
	}
	var out, errs bytes.Buffer
	_, err := b.Run(t.Context(), Run{Program: program(t, "act", "say"), Limits: generous, Output: &out, Errors: &errs})
	require.NoError(t, err)
	assert.Equal(t, "out\n", out.String())
	assert.Equal(t, "err\n", errs.String())
}

type refusing struct{ calls int }

func (r *refusing) Write([]byte) (int, error) { r.calls++; return 0, os.ErrClosed }

func TestAReaderThatHasSeenEnoughDoesNotEndTheRun(t *testing.T) {
	b := open(t)
	var sink refusing
	got, err := b.Run(t.Context(), Run{Program: program(t, "act", "write 100M"), Limits: generous, Output: &sink})
	require.NoError(t, err)
	assert.Equal(t, 0, got.ExitCode)
	assert.Equal(t, 1, sink.calls)
}

func TestOneRunLeavesNothingForTheNext(t *testing.T) {
	b := open(t)
	run(t, b, program(t, "act", "litter"), generous)
	assert.Equal(t, 0, run(t, b, program(t, "act", "look around"), generous).ExitCode, "files")
	run(t, b, program(t, "act", "remove folder"), generous)
	assert.Equal(t, 0, run(t, b, program(t, "act", "look around"), generous).ExitCode, "the folder is made anew")
	run(t, b, program(t, "act", "nonblocking"), generous)
	assert.Equal(t, 0, run(t, b, program(t, "act", "flags"), generous).ExitCode, "pipe flags")
}

func TestPipesThatWereMadeTooSmallAreMadeAnew(t *testing.T) {
	b := open(t)
	run(t, b, program(t, "act", "nothing"), generous)
	require.NotEmpty(t, b.pipes, "those of the next run are there already")
	for _, ends := range b.pipes {
		_, err := unix.FcntlInt(uintptr(ends[0]), unix.F_SETPIPE_SZ, 4096)
		require.NoError(t, err)
	}
	ends, err := b.openStreams()
	require.NoError(t, err)
	for _, fd := range ends {
		size, err := unix.FcntlInt(uintptr(fd), unix.F_GETPIPE_SZ, 0)
		require.NoError(t, err)
		assert.Equal(t, narrow, size)
		unix.Close(fd)
	}
}

func TestEveryOneOfManyWorkersOpens(t *testing.T) {
	eachMode(t, func(t *testing.T, m mode) {
		p, options := program(t, "act", "nothing"), m.options(t)
		var together sync.WaitGroup
		for range 4 {
			together.Go(func() {
				for range 8 {
					b, err := Open(options)
					if !assert.NoError(t, err) {
						return
					}
					result, err := b.Run(t.Context(), Run{Program: p, Limits: generous})
					assert.NoError(t, err)
					assert.Equal(t, Exited, result.Ending)
					assert.NoError(t, b.Close())
				}
			})
		}
		together.Wait()
	})
}

func TestWhatCannotBeStartedIsAnErrorThatSaysWhy(t *testing.T) {
	dir := t.TempDir()
	b := openWith(t, Options{Visible: []string{dir}})
	text := filepath.Join(dir, "text")
	require.NoError(t, os.WriteFile(text, []byte("no program"), 0o755))
	for _, tt := range []struct{ path, says string }{
		{filepath.Join(t.TempDir(), "absent"), "does not exist"},
		{dir, "permission denied"},
		{text, "no program for this machine"},
	} {
		_, err := b.Run(t.Context(), Run{Program: Program{Path: tt.path}, Limits: generous})
		assert.ErrorContains(t, err, tt.says)
	}
	assert.Equal(t, 7, run(t, b, program(t, "act", "exit 7"), generous).ExitCode, "the box still works")
}

func TestAnEndedContextEndsTheRun(t *testing.T) {
	b := open(t)
	for _, act := range []string{"loop", "sleep", "flood", "stop"} {
		ctx, cancel := context.WithTimeout(t.Context(), 50*time.Millisecond)
		began := time.Now()
		_, err := b.Run(ctx, Run{Program: program(t, "act", act), Limits: verdict.Limits{Wall: time.Minute}})
		assert.ErrorIs(t, err, context.DeadlineExceeded, act)
		assert.Less(t, time.Since(began), slowness*time.Second, act)
		cancel()
		assertNoChildren(t, b)
	}
	assert.Equal(t, 7, run(t, b, program(t, "act", "exit 7"), generous).ExitCode, "the box still works")
}

func TestNoSignalReachesPastTheBox(t *testing.T) {
	b := open(t)
	if !b.Hold().Apart {
		t.Skip("the kernel denies namespaces here: signals of a program reach all processes of its user")
	}
	assert.Less(t, run(t, b, program(t, "act", "process number"), generous).ExitCode, 20, "it sees few processes")
	for _, act := range []string{"kill parent", "kill all"} {
		got := run(t, b, program(t, "act", act), generous)
		assert.Equal(t, 4, got.ExitCode, act)
		assertNoChildren(t, b)
	}
	assert.Equal(t, 7, run(t, b, program(t, "act", "exit 7"), generous).ExitCode, "the box still works")
}

func TestALostSupervisorIsAnError(t *testing.T) {
	b := open(t)
	p := program(t, "act", "loop")
	go func() {
		time.Sleep(50 * time.Millisecond)
		b.supervisor.Kill()
	}()
	_, err := b.Run(t.Context(), Run{Program: p, Limits: generous})
	assert.ErrorContains(t, err, "lost the worker")
	_, err = b.Run(t.Context(), Run{Program: p, Limits: generous})
	assert.ErrorContains(t, err, "lost the worker")
}

// runUntilKilled is what the test below starts: a process with a box in which
// the program at path runs for ever.
func runUntilKilled(path string) {
	b, err := Open(Options{Scratch: os.TempDir(), Visible: []string{filepath.Dir(path)}})
	if err != nil {
		os.Exit(1)
	}
	fmt.Println(b.supervisor.Pid)
	b.Run(context.Background(), Run{Program: Program{Path: path, Args: []string{"daemon"}}, Limits: generous})
	b.Run(context.Background(), Run{Program: Program{Path: path, Args: []string{"loop"}}, Limits: verdict.Limits{}})
}

func TestNothingSurvivesAKilledCaller(t *testing.T) {
	for name, stuck := range map[string]bool{"at work": false, "stuck": true} {
		t.Run("with a supervisor "+name, func(t *testing.T) {
			p := program(t, "act")
			cmd := exec.Command("/proc/self/exe", "run-until-killed", p.Path)
			cmd.Env = append(os.Environ(), "TMPDIR="+t.TempDir())
			out, err := cmd.StdoutPipe()
			require.NoError(t, err)
			require.NoError(t, cmd.Start())
			defer cmd.Process.Kill()
			var supervisor int
			_, err = fmt.Fscan(out, &supervisor)
			require.NoError(t, err)
			var running []process
			require.Eventually(t, func() bool {
				running, _, err = descendants(supervisor)
				return err == nil && slices.ContainsFunc(running, func(p process) bool {
					used, err := processTime(p.pid)
					return err == nil && used > 100*time.Millisecond // more than it takes to start anything
				})
			}, 10*time.Second, 5*time.Millisecond)
			if stuck {
				require.NoError(t, syscall.Kill(supervisor, syscall.SIGSTOP))
			}
			require.NoError(t, cmd.Process.Kill())
			cmd.Wait()
			assert.Eventually(t, func() bool {
				return !slices.ContainsFunc(append(running, process{pid: supervisor}), func(p process) bool { return syscall.Kill(p.pid, 0) != syscall.ESRCH })
			}, 5*time.Second, 5*time.Millisecond)
		})
	}
}

func TestARunEndsThoughItsSupervisorIsStuck(t *testing.T) {
	limits := verdict.Limits{Time: time.Second, Wall: 300 * time.Millisecond, Memory: 64 << 20, Output: 1 << 20}
	eachMode(t, func(t *testing.T, m mode) {
		b := openMode(t, m)
		p := program(t, "act", "sleep")
		result := make(chan error, 1)
		began := time.Now()
		go func() {
			_, err := b.Run(t.Context(), Run{Program: p, Limits: limits})
			result <- err
		}()
		var running []process
		require.Eventually(t, func() bool {
			running, _ = b.alive()
			return len(running) > 0
		}, 10*time.Second, time.Millisecond)
		require.NoError(t, b.supervisor.Signal(syscall.SIGSTOP))
		select {
		case err := <-result:
			assert.ErrorIs(t, err, ErrLost)
			assert.ErrorContains(t, err, "was not ended")
			t.Logf("ended after %v", time.Since(began))
		case <-time.After(slowness * 20 * time.Second):
			b.supervisor.Kill()
			t.Fatal("it does not end")
		}
		assert.Eventually(t, func() bool {
			return !slices.ContainsFunc(running, func(p process) bool { return syscall.Kill(p.pid, 0) != syscall.ESRCH })
		}, 5*time.Second, 5*time.Millisecond)
	})
}

func TestAnyNumberOfPathsCanBeHidden(t *testing.T) {
	var hidden []string
	for i := range 5000 {
		hidden = append(hidden, fmt.Sprintf("/not/there/%d/%s", i, strings.Repeat("x", 100)))
	}
	b := openWith(t, Options{Hidden: hidden})
	assert.Equal(t, Exited, run(t, b, program(t, "act", "nothing"), generous).Ending)
}
