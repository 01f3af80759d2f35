package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/cli"
	"coldverdict/core/box"
	"coldverdict/core/script"
	"coldverdict/demo"
	"coldverdict/internal/testenv"
)

// program keeps all that the built program consists of in the test as well, so
// that a change to any of it makes go test run these tests again.
var program = main

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// binary builds the program once, static.
var binary = sync.OnceValues(func() (string, error) {
	path := filepath.Join(testenv.SharedDir(), "cold")
	build := exec.Command("go", "build", "-o", path, ".")
	build.Env = append(os.Environ(), "CGO_ENABLED=0") // as it is shipped: C's threads take more of an address space
	out, err := build.CombinedOutput()
	if err != nil {
		return "", fmt.Errorf("%w: %s", err, out)
	}
	return path, nil
})

// a session is one call of the program in a folder.
type session struct {
	dir   string
	input string
	env   []string
}

type said struct {
	out, errors string
	status      int
}

func (s session) command(t testing.TB, args ...string) *exec.Cmd {
	path, err := binary()
	require.NoError(t, err)
	cmd := exec.Command(path, args...)
	cmd.Dir = s.dir
	cmd.Stdin = strings.NewReader(s.input)
	cmd.Env = append(os.Environ(), s.env...)
	return cmd
}

func (s session) run(t testing.TB, args ...string) said {
	cmd := s.command(t, args...)
	var out, errs bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errs
	err := cmd.Run()
	if cmd.ProcessState == nil {
		require.NoError(t, err)
	}
	return said{out.String(), errs.String(), cmd.ProcessState.ExitCode()}
}

// ask calls the command line within this process: what is refused before anything runs needs no other.
func (s session) ask(t *testing.T, args ...string) said {
	t.Helper()
	t.Chdir(s.dir)
	var out, errs bytes.Buffer
	status := cli.Run(append([]string{"cold"}, args...), strings.NewReader(s.input), &out, &errs)
	return said{out.String(), errs.String(), status}
}

// folder makes a folder of names and texts.
func folder(t testing.TB, files map[string]string) session {
	dir := filepath.Join(t.TempDir(), "teams")
	require.NoError(t, os.Mkdir(dir, 0o755))
	for name, text := range files {
		path := filepath.Join(dir, name)
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	}
	return session{dir: dir}
}

// adder prints the sum of two numbers.
const adder = "#include <stdio.h>\nint main(void){long a,b;if(scanf(\"%ld %ld\",&a,&b)!=2)return 1;printf(\"%ld\\n\",a+b);return 0;}\n"

const caseText = "# Samples\n## one\n```input\n1 2\n```\n```output\n3\n```\n"

func TestASourceAndTwoFilesAreEnough(t *testing.T) {
	testenv.Need(t, "gcc")
	for _, files := range []map[string]string{
		{"add.c": adder, "1.in": "1 2\n", "1.out": "3\n"},
		{"add.c": adder, "cases/1.in": "1 2\n", "cases/1.out": "3\n"},
		{"add.c": adder, "cases.md": strings.ReplaceAll("\ufeff"+caseText, "\n", "\r\n"), "verdict.toml": "\ufeff[limits]\r\ntime = \"1s\"\r\n"},
	} {
		got := folder(t, files).run(t, "try")
		assert.Equal(t, 0, got.status, got.errors)
		assert.Contains(t, got.out, "add.c: C17, gcc ")
		assert.Contains(t, got.out, "add.c: accepted (1 case: 1 accepted)")
		assert.Empty(t, got.errors)
		assert.NotContains(t, got.out, "\x1b", "a pipe gets no colour")
	}
}

func TestExitStatuses(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	s := folder(t, map[string]string{
		"add.c": adder, "bad.c": "int main(", "wrong.py": "print(7)\n", "cases.md": caseText + "## open\n```input\n1 1\n```\n",
		"verdict.toml": "[[solution]]\nfile = \"wrong.py\"\nexpect = \"wrong answer\"\n[[solution]]\nfile = \"bad.c\"\nexpect = \"compile error\"\n",
	})
	tests := []struct {
		args   string
		status int
		says   string
	}{
		{"try", 0, "add.c (edited last): C17, gcc"},
		{"try add.c wrong.py", 1, "wrong.py: wrong answer (2 cases:"},
		{"try bad.c", 1, "bad.c: compile error\n"},
		{"try --case open", 10, "add.c: unjudged (1 of 2 cases: 1 unjudged)"},
		{"try --every-solution", 0, "as expected: compile error"},
		{"try --jobs 1 --time 1s --memory 64MiB --evidence 3 wrong.py", 1, "time 1 s, wall 3 s (default), memory 64 MiB"},
		{"try wrong.py --lang c", 1, "compile error"},
	}
	for _, tt := range tests {
		got := s.run(t, strings.Fields(tt.args)...)
		assert.Equal(t, tt.status, got.status, "%s: %s", tt.args, got.errors)
		assert.Contains(t, got.out, tt.says, tt.args)
	}
	tools, err := os.MkdirTemp(t.TempDir(), "")
	require.NoError(t, err)
	s.env = []string{"PATH=" + tools}
	got := s.run(t, "try", "wrong.py")
	assert.Equal(t, 70, got.status, "named by the person")
	assert.Contains(t, got.out, "no python3 or python on this machine; install it")
}

func TestBadInputIsToldInItsOwnWords(t *testing.T) {
	now := time.Now()
	tests := []struct {
		name  string
		files map[string]string
		args  string
		says  string
	}{
		{"no source", map[string]string{"1.in": "1\n"}, "try", "no candidate in"},
		{"no case", map[string]string{"add.c": adder}, "try --case one", "has no case; add one with 'cold case add'"},
		{"edited at the same moment", map[string]string{"a.c": "", "b.c": "", "1.in": ""}, "try", "a.c and b.c were edited at the same moment"},
		{"unknown key", map[string]string{"a.c": "", "verdict.toml": "[limits]\ntine = \"1s\"\n"}, "try", `verdict.toml:2: unknown key "limits.tine"; did you mean "time"?`},
		{"no size", map[string]string{"a.c": "", "verdict.toml": "limits.memory = \"big\"\n"}, "try", `verdict.toml:1: limits.memory: "big" is no size`},
		{"open fence", map[string]string{"a.c": "", "cases.md": "## x\n```input\n"}, "try", "cases.md:2: this block is never closed"},
		{"two outputs", map[string]string{"a.c": "", "cases.md": caseText + "```output\n4\n```\n"}, "try", `cases.md:9: a second output under "one"`},
		{"pattern", map[string]string{"a.c": "", "cases.md": caseText}, "try --case smaples", `no case matches "smaples"; did you mean "samples"?`},
		{"two of one name", map[string]string{"a.c": "", "1.in": "", "cases/1.in": ""}, "try", `there are two cases named "cases/1"`},
		{"output alone", map[string]string{"a.c": "", "cases/1.out": ""}, "try", "cases/1.out: an output without an input"},
		{"no problem", map[string]string{"notes.txt": ""}, "try", "is not a problem's folder"},
		{"folder for a file", map[string]string{"a.c": "", "cases.md/x": ""}, "try", "cases.md: is a folder; a file was expected"},
		{"large cases.md", map[string]string{"a.c": "", "cases.md": strings.Repeat("x", 50e6)}, "try", "cases.md: has 50 MB, more than the 16 MB"},
		{"unknown command", nil, "tyr", `there is no command "tyr"; did you mean "try"?`},
		{"unknown subcommand", map[string]string{"a.c": ""}, "case lst", `there is no command "lst"; did you mean "case list"?`},
		{"help on nothing", nil, "help tyr", `there is no command "tyr"; did you mean "try"?`},
		{"unknown option", nil, "try --tiem 1s", "there is no option --tiem; did you mean --time?"},
		{"no time", map[string]string{"a.c": "", "1.in": ""}, "try --time 3", `--time: "3" has no unit; write "3s"`},
		{"no memory", map[string]string{"a.c": "", "1.in": ""}, "try --memory lots", `--memory: "lots" is no size`},
		{"no jobs", map[string]string{"a.c": "", "1.in": ""}, "try --jobs 0", "--jobs is 0"},
		{"no such solution", map[string]string{"main.c": "", "1.in": ""}, "try mian.c", `there is no file mian.c here; did you mean "main.c"?`},
		{"no language", map[string]string{"a.c": "", "1.in": ""}, "try a.c --lang cobol", `there is no language "cobol"`},
		{"no such folder", nil, "try -C gone", "there is no such folder"},
		{"nothing expected", map[string]string{"a.c": "", "1.in": ""}, "try --every-solution", "names no [[solution]]"},
		{"case of no name", map[string]string{"a.c": "", "1.in": ""}, "case show", "name a case"},
		{"output without input", map[string]string{"a.c": ""}, "case add --output x", "has no --input beside it"},
		{"a paste of nothing", map[string]string{"a.c": ""}, "case add", "nothing came on standard input"},
		{"open without a name", nil, "open", "name the folder"},
		{"open with a language", nil, "open x --lang cobol", `there is no language "cobol"`},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			s := folder(t, tt.files)
			for name := range tt.files {
				require.NoError(t, os.Chtimes(filepath.Join(s.dir, name), now, now))
			}
			got := s.ask(t, strings.Fields(tt.args)...)
			assert.Equal(t, 64, got.status, got.out+got.errors)
			assert.Contains(t, got.errors, tt.says)
			assert.Empty(t, got.out)
			assert.True(t, strings.HasPrefix(got.errors, "cold: "), got.errors)
		})
	}
}

func TestAnUnreadableFileIsToldBeforeAnythingRuns(t *testing.T) {
	s := folder(t, map[string]string{"a.c": "", "cases/1.in": "", "verdict.toml": ""})
	for name, says := range map[string]string{"cases/1.in": "may not be read", "verdict.toml": "cannot be read"} {
		require.NoError(t, os.Chmod(filepath.Join(s.dir, name), 0))
		cmd := s.command(t, "try")
		if os.Geteuid() == 0 {
			// Root may read everything; somebody else may not.
			makeReachable(t, s.dir)
			path, err := binary()
			require.NoError(t, err)
			makeReachable(t, filepath.Dir(path))
			cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
		}
		out, err := cmd.CombinedOutput()
		require.Error(t, err)
		assert.Equal(t, 64, cmd.ProcessState.ExitCode(), string(out))
		assert.Contains(t, string(out), name+": "+says)
		require.NoError(t, os.Chmod(filepath.Join(s.dir, name), 0o644))
	}
}

// makeReachable lets everybody enter a folder below the one for temporary files.
func makeReachable(t testing.TB, dir string) {
	for dir != os.TempDir() && dir != "/" {
		require.NoError(t, os.Chmod(dir, 0o755))
		dir = filepath.Dir(dir)
	}
}

// validate checks what was printed against the schema in the manual.
func validate(t *testing.T, printed string) {
	schema, err := jsonschema.NewCompiler().Compile("../../docs/try.schema.json")
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(strings.NewReader(printed))
	require.NoError(t, err, "standard output holds nothing else")
	assert.NoError(t, schema.Validate(value))
}

func TestJSONIsWhatTheSchemaSays(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	s := folder(t, map[string]string{
		"add.c": adder, "odd.py": "import sys\nprint(int(input().split()[0]) * 3)\nsys.exit('\\x1b[31mno')\n", "loop.c": "int main(void){for(;;);}",
		"cases.md": caseText + "## two\n```input\n2 2\n```\n```output\n6\n```\n",
	})
	got := s.run(t, "try", "add.c", "odd.py", "loop.c", "--time", "100ms", "--json", "-")
	assert.Equal(t, 1, got.status)
	validate(t, got.out)

	require.Equal(t, 1, s.run(t, "try", "add.c", "--json", "out.json").status)
	text, err := os.ReadFile(filepath.Join(s.dir, "out.json"))
	require.NoError(t, err)
	var all struct {
		Problem   string
		Solutions []struct {
			File, Verdict string
			Cases         []struct {
				Name, Verdict, Stdout string
				Difference            map[string]any
			}
		}
	}
	require.NoError(t, json.Unmarshal(text, &all))
	assert.Equal(t, "teams", all.Problem)
	require.Len(t, all.Solutions[0].Cases, 2)
	assert.Equal(t, "3\n", all.Solutions[0].Cases[0].Stdout)
	assert.Equal(t, map[string]any{"line": 1.0, "column": 1.0, "expected": "6", "got": "4", "differ": 1.0, "unit": "line"}, all.Solutions[0].Cases[1].Difference)
}

func TestAProblemFromOpeningToTrying(t *testing.T) {
	testenv.Need(t, "g++", "python3")
	s := session{dir: t.TempDir()}
	got := s.run(t, "open", "beacons", "--lang", "cpp", "--lang", "python", "--time", "1s")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "made beacons/beacons.cpp")
	config := filepath.Join(s.dir, "beacons/verdict.toml")
	require.NoError(t, os.WriteFile(config, []byte("title = \"mine\"\n"), 0o644))
	again := s.run(t, "open", "beacons", "--lang", "java")
	assert.Contains(t, again.out, "kept beacons/verdict.toml as it was")
	assert.Contains(t, again.out, "made beacons/Main.java")
	text, err := os.ReadFile(config)
	require.NoError(t, err)
	assert.Equal(t, "title = \"mine\"\n", string(text))

	s.dir = filepath.Join(s.dir, "beacons")
	s.input = "2\n5 6\n%%\n2\n"
	got = s.run(t, "case", "add", "--why", "from the statement")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "added samples/1 to cases.md")
	s.input = "3\n1 2 3"
	got = s.run(t, "case", "add", "later", "--group", "Edge cases")
	assert.Contains(t, got.out, "its answer is not known")
	big := strings.Repeat("7 ", 10_000)
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "big.txt"), []byte(big), 0o644))
	got = s.run(t, "case", "add", "--input", "big.txt", "--output", "big.txt", "--group", "Full load")
	assert.Contains(t, got.out, "added full-load/1 to cases/full-load/1.in")

	list := s.run(t, "case", "list").out
	for _, part := range []string{"samples\n", "from the statement", "later", "no answer", "full-load\n", "19.5 KiB", "3 cases"} {
		assert.Contains(t, list, part)
	}
	show := s.run(t, "case", "show", "samples/1").out
	for _, part := range []string{"samples/1  cases.md:", "from the statement", "input, 2 lines", "5 6", "output, 1 line"} {
		assert.Contains(t, show, part)
	}
	tried := s.run(t, "try", "beacons.cpp", "--case", "samples")
	assert.Equal(t, 0, tried.status, tried.out+tried.errors)
	assert.Contains(t, tried.out, "(1 of 3 cases: 1 accepted)")
}

func TestHelpAndVersion(t *testing.T) {
	require.NotNil(t, program)
	s := session{dir: t.TempDir()}
	for _, args := range []string{"--help", "try --help", "case --help", "case add --help", "case list --help", "case show --help", "open --help", "demo --help", "help", "help try"} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 0, got.status, args)
		assert.Contains(t, got.out, "   cold ", "%s has an example", args)
		for line := range strings.Lines(got.out) {
			assert.LessOrEqual(t, len([]rune(line)), 126, "%s: %s", args, line)
		}
	}
	assert.Regexp(t, `^cold \d+\.\d+\.\d+ \(linux/`, s.run(t, "--version").out)
	for _, shell := range []string{"bash", "zsh", "fish"} {
		got := s.run(t, "completion", shell)
		assert.Equal(t, 0, got.status)
		assert.Contains(t, got.out, "cold", shell)
	}
	assert.Contains(t, s.run(t, "--generate-shell-completion").out, "try")
}

// processes lists all processes whose command line contains a word.
func processes(t testing.TB, word string) (found []string) {
	lines, err := filepath.Glob("/proc/[0-9]*/cmdline")
	require.NoError(t, err)
	for _, name := range lines {
		text, _ := os.ReadFile(name)
		if bytes.Contains(text, []byte(word)) {
			found = append(found, name+" "+string(text))
		}
	}
	return found
}

// shellStatus is the exit status as a shell shows it. A signal may come before
// the program can act on it.
func shellStatus(cmd *exec.Cmd) int {
	if status := cmd.ProcessState.Sys().(syscall.WaitStatus); status.Signaled() {
		return 128 + int(status.Signal())
	}
	return cmd.ProcessState.ExitCode()
}

func TestCtrlCEndsEverythingAtAnyMoment(t *testing.T) {
	testenv.Need(t, "gcc", "g++")
	slow := "#include <bits/stdc++.h>\nint main(){ for(;;) { volatile int x = 0; (void)x; } }\n"
	for _, wait := range []time.Duration{0, 5, 20, 60, 200, 500, 1500} {
		s := folder(t, map[string]string{"loop.cpp": slow, "1.in": "", "2.in": "", "3.in": ""})
		scratch := t.TempDir()
		cache := t.TempDir()
		s.env = []string{"TMPDIR=" + scratch, "XDG_CACHE_HOME=" + cache}
		cmd := s.command(t, "try", "--time", "1min")
		var out bytes.Buffer
		cmd.Stdout, cmd.Stderr = &out, &out
		require.NoError(t, cmd.Start())
		time.Sleep(wait*time.Millisecond + 15*time.Millisecond)
		began := time.Now()
		require.NoError(t, cmd.Process.Signal(os.Interrupt))
		cmd.Wait()
		// The promise is 200 ms; a loaded test machine is given more.
		assert.Less(t, time.Since(began), 2*time.Second, "after %d ms", wait)
		assert.Equal(t, 130, shellStatus(cmd), "after %d ms: %s", wait, out.String())
		left, err := os.ReadDir(scratch)
		require.NoError(t, err)
		assert.Empty(t, left, "after %d ms", wait)
		assert.Empty(t, processes(t, cache), "after %d ms", wait)
		stages, err := filepath.Glob(filepath.Join(cache, "cold-verdict", "stage-*"))
		require.NoError(t, err)
		assert.Empty(t, stages, "after %d ms", wait)
	}
}

func TestMemoryDoesNotGrowWithOutput(t *testing.T) {
	testenv.Need(t, "gcc")
	const mib = 200
	source := "#include <stdio.h>\n#include <string.h>\nint main(void){static char b[1<<20];for(int i=0;i<(1<<20);i++)b[i]=(i&63)==63?'\\n':'7';for(int i=0;i<%d;i++)fwrite(b,1,sizeof b,stdout);return 0;}\n"
	s := folder(t, map[string]string{"write.c": fmt.Sprintf(source, mib), "1.in": "", "verdict.toml": "[limits]\noutput = \"1GiB\"\ntime = \"20s\"\n"})
	line := strings.Repeat("7", 63) + "\n"
	expected, err := os.Create(filepath.Join(s.dir, "1.out"))
	require.NoError(t, err)
	block := strings.Repeat(line, (1<<20)/len(line))
	for range mib {
		_, err := expected.WriteString(block)
		require.NoError(t, err)
	}
	require.NoError(t, expected.Close())
	cmd := s.command(t, "try")
	require.NoError(t, cmd.Start())
	peak, ended := make(chan int), make(chan struct{})
	go func() { peak <- peakUntil(cmd.Process.Pid, ended) }()
	err = cmd.Wait()
	close(ended)
	assert.NoError(t, err)
	kib := <-peak
	assert.Positive(t, kib)
	assert.Less(t, kib, 64<<10, "KiB; the output has %d MiB", mib)
}

// peakUntil follows the high-water mark of a process, in KiB. What wait4
// reports would carry over that of this test.
func peakUntil(pid int, ended chan struct{}) (peak int) {
	for {
		text, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
		if _, rest, ok := bytes.Cut(text, []byte("VmHWM:")); ok {
			fmt.Sscan(string(rest), &peak)
		}
		select {
		case <-ended:
			return peak
		case <-time.After(2 * time.Millisecond):
		}
	}
}

func TestTheDemoGetsEveryVerdict(t *testing.T) {
	testenv.Sweep(t, "it judges a hundred solutions")
	testenv.Need(t, "gcc", "g++", "python3", "java", "javac", "node", "go")
	dir := t.TempDir()
	got := session{dir: dir}.run(t, "demo", "--out", "tour")
	assert.Equal(t, 0, got.status, got.out+got.errors)
	skipped := 0
	if m := regexp.MustCompile(`(\d+) solutions? skipped`).FindStringSubmatch(got.out); m != nil {
		fmt.Sscan(m[1], &skipped)
	}
	assert.Contains(t, got.out, fmt.Sprintf("%d solutions: every verdict came out as it should.", demoSolutions(t)-skipped))
	if testenv.InCI() {
		assert.Zero(t, skipped, "every language is tried")
	}
	again := session{dir: dir}.run(t, "demo", "--out", "tour")
	assert.Equal(t, 64, again.status)
	assert.Contains(t, again.errors, "stays as it is; choose a new folder")
}

func TestTheDemoShowsWhatIsMissing(t *testing.T) {
	testenv.Sweep(t, "it judges two dozen solutions")
	testenv.Need(t, "gcc", "g++")
	tools := t.TempDir()
	for _, tool := range []string{"gcc", "g++", "cc1", "as", "ld"} {
		if path, err := exec.LookPath(tool); err == nil {
			require.NoError(t, os.Symlink(path, filepath.Join(tools, tool)))
		}
	}
	got := session{dir: t.TempDir(), env: []string{"PATH=" + tools}}.run(t, "demo")
	assert.Equal(t, 0, got.status, got.out+got.errors)
	assert.Contains(t, got.out, fmt.Sprintf("29 solutions: every verdict came out as it should. %d solutions skipped", demoSolutions(t)-29))
	assert.Regexp(t, `skipped for want of a compiler: (.|\n)*nothing\.js`, got.out)
}

// demoSolutions counts the solutions of the demo.
func demoSolutions(t *testing.T) (n int) {
	for _, stop := range demo.Tour() {
		text, err := os.ReadFile("../../demo/problems/" + stop.Folder + "/verdict.toml")
		require.NoError(t, err)
		n += strings.Count(string(text), "[[solution]]")
	}
	return n
}

// ofAnother finds the process whose control group a path is.
var ofAnother = regexp.MustCompile(`/cold-verdict-(\d+)-\d+$`)

// traces lists what a run can leave on the machine: folders, control groups. Those of a process that
// is alive are left out: other packages are tried at the same time.
func traces(scratch, cache string) (left []string) {
	for _, pattern := range []string{
		scratch + "/*", cache + "/cold-verdict/stage-*",
		"/sys/fs/cgroup/memory/cold-verdict-*", "/sys/fs/cgroup/memory/*/*/cold-verdict-*", "/sys/fs/cgroup/pids/cold-verdict-*",
		"/sys/fs/cgroup/cold-verdict-*", "/sys/fs/cgroup/*/cold-verdict-*",
	} {
		found, _ := filepath.Glob(pattern)
		for _, path := range found {
			if of := ofAnother.FindStringSubmatch(path); of != nil {
				if _, err := os.Stat("/proc/" + of[1]); err == nil {
					continue
				}
			}
			left = append(left, path)
		}
	}
	return left
}

func TestWhatAKilledProgramLeavesTheNextOneRemoves(t *testing.T) {
	testenv.Need(t, "gcc")
	s := folder(t, map[string]string{
		"loop.c": "#include <unistd.h>\nint main(void){ if (fork() == 0) { setsid(); for (;;) pause(); } for (;;) {} }\n",
		"1.in":   "", "2.in": "", "3.in": "", "quick.c": "int main(void){ return 0; }\n",
	})
	scratch, cache := t.TempDir(), t.TempDir()
	s.env = []string{"TMPDIR=" + scratch, "XDG_CACHE_HOME=" + cache}
	before := traces(scratch, cache)
	for _, wait := range []time.Duration{10, 100, 1200} { // while it builds, and while it runs
		cmd := s.command(t, "try", "loop.c", "--time", "1min")
		require.NoError(t, cmd.Start())
		time.Sleep(wait * time.Millisecond)
		require.NoError(t, cmd.Process.Kill())
		cmd.Wait()
		assert.Eventually(t, func() bool { return len(processes(t, cache)) == 0 }, 5*time.Second, 10*time.Millisecond, "no process is left")
		assert.Equal(t, 10, s.run(t, "try", "quick.c").status)
		assert.Equal(t, before, traces(scratch, cache), "after %d ms", wait)
	}
}

func TestWhatAProgramTriesIsRefusedAndTold(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	s := folder(t, map[string]string{
		"cases/1.in": "1\n", "cases/1.out": "7\n",
		"radio.py": "import socket\ntry: socket.create_connection(('192.0.2.1', 80), 1)\nexcept OSError: pass\nprint(7)\n",
		"peek.py":  "import os, sys\nfor path in sys.argv[1:]:\n    try: print(open(path).read())\n    except OSError as e: print(type(e).__name__)\n",
		"diary.py": "import os\nopen(os.path.expanduser('~/planted'), 'w')\n",
		"own.py":   "import tempfile\nopen('notes', 'w').write('x')\ntempfile.TemporaryFile()\nprint(7)\n",
	})
	home := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"),
		fmt.Appendf(nil, "[[solution]]\nfile = \"peek.py\"\nargs = [%q]\n", filepath.Join(s.dir, "cases", "1.out")), 0o644))
	s.env = []string{"HOME=" + home}
	got := s.run(t, "try", "radio.py")
	assert.Equal(t, 0, got.status, got.out)
	assert.Contains(t, got.out, "tried to open a network connection")
	assert.NotContains(t, got.out, "contained")
	assert.Equal(t, 0, s.run(t, "try", "own.py").status)

	got = s.run(t, "try", "peek.py")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "Error")
	got = s.run(t, "try", "peek.py", "--uncontained")
	assert.Equal(t, 0, got.status, got.out)
	assert.Contains(t, got.out, "not contained: it can use the network and your files")
	assert.Contains(t, got.out, "1 accepted), not contained")

	assert.Equal(t, 1, s.run(t, "try", "diary.py").status)
	assert.NoFileExists(t, filepath.Join(home, "planted"))

	for _, args := range [][]string{{}, {"--uncontained"}} {
		got = s.run(t, append([]string{"try", "own.py", "--json", "-", "--repeat", "3"}, args...)...)
		var report struct {
			Solutions []struct {
				Contained *bool
				Cases     []struct{ Runs struct{ Count int } }
			}
		}
		require.NoError(t, json.Unmarshal([]byte(got.out), &report), got.out)
		require.NotNil(t, report.Solutions[0].Contained)
		assert.Equal(t, len(args) == 0, *report.Solutions[0].Contained)
		assert.Equal(t, 3, report.Solutions[0].Cases[0].Runs.Count)
	}
	assert.Equal(t, 64, s.run(t, "try", "own.py", "--repeat", "0").status)
}

func TestHostSaysHowLimitsAreHeldAndWhichLanguagesThereAre(t *testing.T) {
	testenv.Need(t, "gcc")
	got := session{dir: t.TempDir()}.run(t, "host")
	assert.Contains(t, []int{0, 1}, got.status, "1 where something does not hold")
	for _, words := range []string{"how a run is held", "memory", "no network", "expected outputs", "control groups", "found  C ", "gcc"} {
		assert.Contains(t, got.out, words)
	}
	for line := range strings.Lines(got.out) {
		assert.LessOrEqual(t, len([]rune(line)), 101, line)
	}
	assert.Equal(t, 64, session{dir: t.TempDir()}.run(t, "host", "extra").status)
}

func TestHostileProgramsGetTheirVerdicts(t *testing.T) {
	testenv.Need(t, "gcc")
	files := map[string]string{
		"cases/1.in": "1\n", "cases/1.out": "", "cases/2.in": "2\n", "cases/2.out": "",
	}
	config := "[limits]\ntime = \"500ms\"\nwall = \"3s\"\nmemory = \"64MiB\"\noutput = \"4MiB\"\nprocesses = 50\n"
	for _, row := range []struct{ file, act, expect string }{
		{"processes", "bomb", "runtime error"},
		{"processes", "daemon", "accepted"},
		{"processes", "ignore", "time limit exceeded"},
		{"processes", "stop", "stalled"},
		{"processes", "deny children", "time limit exceeded"},
		{"processes", "leave a writer", "wrong answer"},
		{"memory", "sudden", "memory limit exceeded"},
		{"memory", "children", "memory limit exceeded"},
		{"memory", "deep for ever", "memory limit exceeded"},
		{"output", "stdout", "output limit exceeded"},
		{"output", "file", "output limit exceeded"},
		{"output", "many files", "output limit exceeded"},
		{"output", "long line", "output limit exceeded"},
		{"output", "garbage", "wrong answer"},
		{"reach", "parent", "accepted"},
		{"reach", "sockets", "accepted"},
	} {
		text, err := os.ReadFile(filepath.Join("../../core/box/testdata/hostile", row.file+".c"))
		require.NoError(t, err)
		files[row.file+".c"] = string(text)
		config += fmt.Sprintf("[[solution]]\nfile = %q\nargs = [%q]\nexpect = %q\n", row.file+".c", row.act, row.expect)
	}
	files["verdict.toml"] = config
	s := folder(t, files)
	for _, jobs := range []string{"4", "1"}[:testenv.Of(2, 1)] {
		got := s.run(t, "try", "--every-solution", "--evidence", "0", "--jobs", jobs)
		assert.Equal(t, 0, got.status, got.out+got.errors)
		assert.NotContains(t, got.out, "fault")
		assert.NotContains(t, got.out, "\x1b")
	}
}
