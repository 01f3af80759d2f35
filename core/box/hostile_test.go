//go:build linux && !portable

package box

import (
	"fmt"
	"io"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sys/unix"
)

// A mode is one way to hold programs that this machine may allow.
type mode struct {
	name   string
	way    way
	groups bool
}

// modes lists those that can be had here, the best first.
func modes(t testing.TB) (list []mode) {
	root := os.Geteuid() == 0
	all := []mode{
		{"namespaces and groups", way{Namespaces, true, true}, true},
		{"namespaces", way{Namespaces, true, true}, false},
		{"rules", way{Rules, false, false}, false},
		{"not isolated", way{NotIsolated, true, !root}, false},
		{"alone", way{NotIsolated, false, false}, false},
	}
	if root {
		all = append(all, mode{"root's namespaces", way{Namespaces, true, false}, false})
	}
	groups, why := OpenGroups()
	for _, m := range all {
		if m.groups && groups == nil {
			t.Logf("not tried: %s: %v", m.name, why)
			continue
		}
		b, err := Open(m.options(t))
		if err != nil {
			t.Logf("not tried: %s: %v", m.name, err)
			continue
		}
		require.NoError(t, b.Close())
		list = append(list, m)
	}
	return list
}

func (m mode) options(t testing.TB) Options {
	o := Options{Scratch: t.TempDir(), Visible: []string{compiled.dir}, Uncontained: m.way.isolation == NotIsolated, ways: []way{m.way}}
	if m.groups {
		groups, err := OpenGroups()
		require.NoError(t, err)
		o.Groups = groups
	}
	return o
}

// eachMode runs a test in every mode; outside of CI in the best.
func eachMode(t *testing.T, test func(*testing.T, mode)) {
	list := modes(t)
	for _, m := range list[:testenv.Of(len(list), 1)] {
		t.Run(m.name, func(t *testing.T) { test(t, m) })
	}
}

// strict are limits that make a hostile program's run short.
var strict = verdict.Limits{
	Time: 250 * time.Millisecond, Wall: 2 * time.Second,
	Memory: 64 << 20, Output: 16 << 20, Processes: 60,
}

type hostile struct {
	act  string // file and what it does
	want Ending
	code int             // exit status, where it ended by itself
	sign unix.Signal     // signal, where one ended it that was not ours
	left int             // processes left behind; -1: any number
	with *verdict.Limits // instead of strict
	// where says which isolation it takes to come to this end; empty: any
	where     Isolation
	apart     bool // it takes processes of its own
	grouped   bool // it takes control groups
	ungrouped bool // it takes that there are none
	dear      bool // it takes too long on a machine that is emulated, or too little of its longer limits
	tried     string
	memory    int64 // at the least
	atMost    int64
	megabyte  int    // of standard input
	text      string // likewise, in memory only
}

func limitsWith(change func(*verdict.Limits)) *verdict.Limits {
	l := strict
	change(&l)
	return &l
}

var (
	// On a loaded machine a program may get a third of a processor, or less.
	patient     = limitsWith(func(l *verdict.Limits) { l.Wall = 5 * time.Second })
	roomy       = limitsWith(func(l *verdict.Limits) { l.Time, l.Wall = 3*time.Second, 20*time.Second })
	manyThreads = limitsWith(func(l *verdict.Limits) { l.Processes, l.Wall, l.Time = 2048, 5*time.Second, 3*time.Second })
	longOutput  = limitsWith(func(l *verdict.Limits) { l.Output = 1 << 30; l.Wall, l.Time = 3*time.Second, 2*time.Second })
	herd        = limitsWith(func(l *verdict.Limits) { l.Processes = 2048 })
	deepStack   = limitsWith(func(l *verdict.Limits) { l.Memory, l.Time, l.Wall = 256<<20, 2*time.Second, 4*time.Second })
)

var hostiles = []hostile{
	{act: "processes bomb", want: PassedProcess, left: -1},
	{act: "processes bomb of threads", want: PassedProcess},
	{act: "processes daemon", want: Exited, left: 1},
	{act: "processes ignore", want: PassedTime, with: patient},
	{act: "processes stop", want: PassedWall},
	{act: "processes kill parent", want: Exited, sign: unix.SIGKILL, apart: true}, // which is nobody: itself
	{act: "processes kill group", want: Exited, sign: unix.SIGKILL},
	{act: "processes kill all", want: Exited, code: 4, apart: true},
	{act: "processes run away", want: Exited, left: -1},
	{act: "processes deny children", want: PassedTime, left: -1, with: patient},
	{act: "processes burn beside", want: PassedTime, left: -1, with: patient},
	{act: "processes thousand threads", want: Exited, with: manyThreads},
	{act: "processes leave a writer", want: Exited, left: 1},

	{act: "memory sudden", want: PassedMemory, memory: 64 << 20, with: longOutput},
	{act: "memory slow", want: PassedMemory, memory: 64 << 20, with: longOutput},
	{act: "memory children", want: PassedMemory, memory: 64 << 20, with: longOutput, left: -1},
	{act: "memory children share", want: Exited, memory: 50 << 20, with: longOutput, atMost: 60 << 20},
	{act: "memory shared", want: PassedMemory, memory: 64 << 20, with: longOutput},
	{act: "memory system v", want: Exited, where: Rules, with: longOutput},
	{act: "memory file", want: PassedMemory, memory: 64 << 20, with: longOutput, where: Namespaces},
	{act: "memory memfd", want: PassedMemory, memory: 64 << 20, with: longOutput, grouped: true},
	{act: "memory memfds unmapped", want: PassedMemory, memory: 50 << 20, with: longOutput, grouped: true},
	{act: "memory after the first thread", want: PassedMemory, memory: 64 << 20, with: longOutput},
	{act: "memory deep", want: Exited, memory: 64 << 20, with: deepStack},
	{act: "memory deep for ever", want: PassedMemory, memory: 64 << 20, with: longOutput},

	{act: "output stdout", want: PassedOutput},
	{act: "output stderr", want: PassedOutput},
	{act: "output file", want: PassedOutput, sign: unix.SIGXFSZ},
	{act: "output raised limit", want: PassedOutput, with: longOutputSmallFolder},
	{act: "output many files", want: PassedOutput, with: longOutputSmallFolder},
	{act: "output empty files", want: PassedOutput, with: longOutputSmallFolder, where: Namespaces},
	{act: "output deep folders", want: Exited, with: longOutputSmallFolder},
	{act: "output close early", want: Exited, code: 3},
	{act: "output read nothing", want: Exited, megabyte: 100},
	{act: "output long line", want: Exited, with: longOutput},
	{act: "output garbage", want: Exited},

	{act: "reach parent", want: Exited, where: Rules, tried: triedMemory},
	{act: "reach sockets SOCKET", want: Exited, where: Rules, tried: triedNetwork},
	{act: "reach look around SOCKET", want: Exited, where: Rules},
	{act: "reach surroundings", want: Exited, where: Rules, tried: triedMounts},
	{act: "reach read ANSWERS", want: Exited, where: Rules},
	{act: "reach write OUTSIDE", want: Exited, where: Rules},
	{act: "reach input", want: Exited, where: Rules, megabyte: 1},
	{act: "reach private", want: Exited, where: Namespaces},

	{act: "guard limits", want: Exited, tried: triedOthers},
	{act: "guard look at limits", want: Exited, tried: triedOthers},
	{act: "guard nicer", want: Exited, tried: triedOthers},
	{act: "guard idle", want: Exited},
	{act: "guard signals", want: Exited, apart: true},
	{act: "guard file signals", want: Exited},
	{act: "guard kill VICTIM", want: Exited, where: Rules, tried: "any"},
	{act: "guard strange calls", want: Exited, where: Rules, tried: triedMounts},
	{act: "guard memory", want: Exited, where: Rules, tried: triedMemory},
	{act: "guard see", want: Exited, apart: true},
	{act: "guard leave state", want: Exited, left: -1, where: Rules, tried: triedOthers},
	{act: "guard rewrite input", want: Exited, text: "4 10\n"},
	{act: "guard rewrite input", want: Exited, where: Rules, megabyte: 1},
	{act: "guard set the clock", want: Exited, tried: triedSystem},

	{act: "hide dropped shared pages", want: PassedMemory, memory: 64 << 20, with: longOutput},
	{act: "hide files in sockets", want: PassedMemory, memory: 50 << 20, with: longOutput, grouped: true},
	{act: "hide page tables", want: PassedMemory, memory: 50 << 20, with: longOutput},
	{act: "hide socket buffers", want: PassedMemory, memory: 50 << 20, with: longOutput, grouped: true},
	{act: "hide socket buffers", want: Exited, code: 6, memory: 50 << 20, with: longOutput, ungrouped: true},
	{act: "hide pipes", want: PassedMemory, memory: 50 << 20, with: longOutput, grouped: true, dear: true},
	{act: "hide forty small ones", want: PassedMemory, memory: 64 << 20, with: longOutput, left: -1, dear: true},
	{act: "hide a herd", want: PassedMemory, with: herd, left: -1, dear: true},
	{act: "hide a silent child", want: Exited, code: 5},
	{act: "hide memory behind a thread's exec", want: PassedMemory},
	{act: "hide memory behind an exec and an end", want: PassedMemory},
	{act: "hide time behind a thread's exec", want: PassedTime, with: patient},
	{act: "hide many execs", want: Exited, code: 5, with: roomy},
	{act: "hide children of a thread", want: PassedTime, with: patient, left: -1, dear: true},
	{act: "hide children of a thread's thread", want: PassedTime, with: patient, left: -1, dear: true},
	{act: "hide grandchildren nobody waits for", want: PassedTime, with: patient, left: -1, dear: true},
	{act: "hide short ones", want: PassedTime, with: patient, left: -1, dear: true},
}

var longOutputSmallFolder = limitsWith(func(l *verdict.Limits) { l.Wall, l.Time = 5*time.Second, 4*time.Second })

// reaches reports whether isolation is at least as strong as wanted.
func (w Isolation) reaches(wanted Isolation) bool {
	height := map[Isolation]int{"": 0, NotIsolated: 0, Rules: 1, Namespaces: 2}
	return height[w] >= height[wanted]
}

func TestHostileProgramsAreHeld(t *testing.T) {
	place := newPlace(t)
	eachMode(t, func(t *testing.T, m mode) {
		o := m.options(t)
		o.Hidden = []string{place.problem}
		files := openFiles(t)
		b, err := Open(o)
		require.NoError(t, err)
		for _, h := range hostiles {
			if !m.way.isolation.reaches(h.where) || h.apart && !m.way.apart || h.grouped && !m.groups || h.ungrouped && m.groups || h.dear && slowness > 1 {
				continue
			}
			t.Run(h.act, func(t *testing.T) { place.hold(t, b, h) })
		}
		supervisor, dir := b.supervisor.Pid, b.dir
		group := b.group
		require.NoError(t, b.Close())
		assert.Equal(t, unix.ESRCH, unix.Kill(supervisor, 0), "the supervisor is gone")
		assert.NoDirExists(t, dir)
		for _, folder := range group.Folders {
			assert.NoDirExists(t, folder)
		}
		assert.Equal(t, files, openFiles(t), "descriptors")
	})
}

// A place is a machine with things on it that nobody should get at.
type place struct {
	problem, outside, answer, input string
	socket, port                    string // something listens there
}

func newPlace(t testing.TB) *place {
	// Not below /tmp, which programs do not see anyway.
	dir, err := os.MkdirTemp(homeFolder(t), "hoarfrost-")
	require.NoError(t, err)
	p := &place{problem: filepath.Join(dir, "teams"), outside: filepath.Join(dir, "diary"), socket: filepath.Join(dir, "radio")}
	p.answer = filepath.Join(p.problem, "cases", "1.out")
	p.input = filepath.Join(p.problem, "cases", "1.in")
	require.NoError(t, os.MkdirAll(filepath.Dir(p.answer), 0o777))
	require.NoError(t, os.WriteFile(p.answer, []byte("2\n"), 0o666))
	require.NoError(t, os.WriteFile(p.input, []byte("4 10\n"), 0o666))
	require.NoError(t, os.WriteFile(p.outside, []byte("day 1\n"), 0o666))
	radio, err := net.Listen("unix", p.socket)
	require.NoError(t, err)
	phone, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	p.port = fmt.Sprint(phone.Addr().(*net.TCPAddr).Port)
	t.Cleanup(func() {
		radio.Close()
		phone.Close()
		os.RemoveAll(dir)
	})
	return p
}

// homeFolder is a folder that is no folder for temporary files.
func homeFolder(t testing.TB) string {
	if home := os.Getenv("COLD_TEST_HOME"); home != "" {
		return home
	}
	home, err := os.UserHomeDir()
	require.NoError(t, err)
	return home
}

func (p *place) hold(t *testing.T, b *Box, h hostile) {
	words := strings.SplitN(h.act, " ", 2)
	args := []string{words[1]}
	switch {
	case strings.HasSuffix(h.act, " SOCKET"):
		args = []string{strings.TrimSuffix(words[1], " SOCKET"), p.socket, p.port}
	case strings.HasSuffix(h.act, " ANSWERS"):
		args = []string{"read", p.answer, "../teams/cases/1.out", "../cases/1.out", "../1.out",
			fmt.Sprintf("/proc/%d/cwd/testdata/act.c", os.Getpid()), "/proc/1/root" + p.answer, "/proc/self/fd/0/../1.out",
			"/proc/self/root" + p.answer, "/proc/thread-self/root" + p.answer}
	case strings.HasSuffix(h.act, " VICTIM"):
		victim := exec.Command("/bin/sleep", "1000")
		victim.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
		require.NoError(t, victim.Start())
		args = []string{"kill", fmt.Sprint(victim.Process.Pid)}
		defer func() {
			var status syscall.WaitStatus
			ended, err := syscall.Wait4(victim.Process.Pid, &status, syscall.WNOHANG, nil)
			assert.NoError(t, err)
			assert.Zero(t, ended, "another process of the user's was killed")
			victim.Process.Kill()
			victim.Wait()
		}()
	case strings.HasSuffix(h.act, " OUTSIDE"):
		args = []string{"write", p.outside, p.answer, filepath.Join(homeFolder(t), "planted"), "/etc/planted", "/planted",
			"/dev/planted", "/dev/sda", "/dev/vda", "/dev/mem", "/dev/kmsg", "/sys/planted", "/proc/sys/kernel/core_pattern",
			"/proc/self/oom_score_adj", "/run/planted", "/proc/1/oom_score_adj", "/sys/fs/cgroup/planted", "/dev/ptmx", "/dev/tty"}
	}
	limits := strict
	if h.with != nil {
		limits = *h.with
	}
	// However little of a loaded machine it gets, no other limit comes first.
	switch h.want {
	case PassedTime, PassedWall:
	case Exited:
		limits.Wall = max(limits.Wall, 10*time.Second)
	default:
		limits.Wall, limits.Time = 30*time.Second, 20*time.Second
	}
	limits = unhurried(limits)
	run := Run{Program: program(t, "hostile/"+words[0], args...), Limits: limits, Input: p.standardInput(t, h.megabyte)}
	if h.text != "" {
		var err error
		run.Input, err = Memory([]byte(h.text))
		require.NoError(t, err)
	}
	if run.Input != nil {
		defer run.Input.Close()
	}
	complaints := &Head{Most: 1000}
	run.Errors = complaints
	before := ownMemory(t)
	began := time.Now()
	got, err := b.Run(t.Context(), run)
	require.NoError(t, err)
	// The promise is 50 ms on a quiet machine.
	const onAnyMachine = 10 * time.Second
	assert.Less(t, time.Since(began), limits.Wall+slowness*onAnyMachine, "it was over in time")
	assert.Equal(t, h.want, got.Ending, "%+v %s", got, complaints.Text)
	if h.want == Exited || h.sign != 0 {
		assert.Equal(t, int(h.sign), got.Signal)
		assert.Equal(t, h.code, got.ExitCode, "%s", complaints.Text)
	}
	if h.left >= 0 && h.want == Exited {
		assert.Equal(t, h.left, got.Left, "processes left")
	}
	if h.tried != "any" {
		assert.Equal(t, h.tried, got.Tried)
	}
	assert.GreaterOrEqual(t, got.Usage.Memory, h.memory)
	if h.atMost > 0 {
		assert.LessOrEqual(t, got.Usage.Memory, h.atMost)
	}
	assertNoChildren(t, b)
	assert.Less(t, ownMemory(t)-before, int64(16<<20), "what cold itself holds")
	text, err := os.ReadFile(p.outside)
	require.NoError(t, err)
	assert.Equal(t, "day 1\n", string(text))
	for _, p := range []Program{program(t, "act", "look around"), program(t, "hostile/guard", "find state")} {
		if b.hold.Isolation == NotIsolated && len(p.Args) > 0 && p.Args[0] == "find state" {
			continue
		}
		after, err := b.Run(t.Context(), Run{Program: p, Limits: generous})
		require.NoError(t, err)
		assert.Equal(t, Result{Ending: Exited, Usage: after.Usage, Stack: after.Stack}, after, "the next run starts afresh")
	}
}

func (p *place) standardInput(t testing.TB, megabytes int) *os.File {
	switch megabytes {
	case 0:
		return nil
	case 1:
		file, err := os.OpenFile(p.input, os.O_RDONLY, 0)
		require.NoError(t, err)
		return file
	}
	file, err := os.Create(filepath.Join(t.TempDir(), "large"))
	require.NoError(t, err)
	require.NoError(t, file.Truncate(int64(megabytes)<<20))
	return file
}

// ownMemory is what this process holds now, in bytes.
func ownMemory(t testing.TB) int64 {
	runtime.GC()
	held, err := resident(os.Getpid())
	require.NoError(t, err)
	return held
}

func openFiles(t testing.TB) int {
	all, err := os.ReadDir("/proc/self/fd")
	require.NoError(t, err)
	return len(all)
}

// ordinary is a user that exists nowhere.
const ordinary = 61234

// TestAsAnOrdinaryUser runs all other tests of this package again as somebody
// who is not root, where root runs them: hostile programs in every mode, the others in the best one.
func TestAsAnOrdinaryUser(t *testing.T) {
	if os.Geteuid() != 0 {
		t.Skip("the other tests run as an ordinary user already")
	}
	testenv.Sweep(t, "it runs all other tests once more")
	dir, err := os.MkdirTemp("/var/lib", "cold-ordinary-")
	require.NoError(t, err)
	defer os.RemoveAll(dir)
	for _, sub := range []string{"home", "tmp"} {
		require.NoError(t, os.Mkdir(filepath.Join(dir, sub), 0o700))
		require.NoError(t, os.Chown(filepath.Join(dir, sub), ordinary, ordinary))
	}
	require.NoError(t, os.Chmod(dir, 0o755))
	if !compiled.before {
		require.NoError(t, os.CopyFS(filepath.Join(dir, "testdata"), os.DirFS("testdata")))
	}
	self, err := os.Open("/proc/self/exe")
	require.NoError(t, err)
	defer self.Close()
	copied, err := os.OpenFile(filepath.Join(dir, "tests"), os.O_WRONLY|os.O_CREATE, 0o755)
	require.NoError(t, err)
	_, err = io.Copy(copied, self)
	require.NoError(t, err)
	require.NoError(t, copied.Close())
	const everyMode = "Hostile"
	for _, run := range []struct{ all, which, pattern string }{
		{"true", "-test.run", everyMode}, {"", "-test.skip", everyMode + "|TestAsAnOrdinaryUser"},
	} {
		cmd := exec.Command(copied.Name(), run.which, run.pattern, "-test.count", "1", "-test.short="+strconv.FormatBool(testing.Short()), "-test.v="+strconv.FormatBool(testing.Verbose()))
		cmd.Dir = dir
		cmd.Env = append(os.Environ(), "CI="+run.all, "HOME="+dir+"/home", "COLD_TEST_HOME="+dir+"/home", "TMPDIR="+dir+"/tmp")
		cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: ordinary, Gid: ordinary}}
		out, err := cmd.CombinedOutput()
		assert.NoError(t, err, string(out))
		t.Logf("as user %d:\n%s", ordinary, out)
	}
}
