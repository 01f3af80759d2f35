//go:build linux

package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/charmbracelet/x/ansi"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/demo"
	"coldverdict/internal/testenv"
)

// summer adds two numbers; joiner prints them as one.
const (
	summer = "read a b\necho $((a + b))\n"
	joiner = "read a b\necho $a$b\n"
)

const openCase = "# Log\n\n## part\n\n```input\n1 2\n```\n"

func read(t testing.TB, s session, name string) string {
	text, err := os.ReadFile(filepath.Join(s.dir, name))
	require.NoError(t, err)
	return string(text)
}

var colours = regexp.MustCompile("\x1b\\[[0-9;]*[mK]")

// converse answers each prompt of a command with what stands behind it, and
// returns all that was shown, and the exit status.
func converse(t testing.TB, s session, steps [][2]string, args ...string) (string, int) {
	cmd, master := onTerminal(t, s, 100, args...)
	var all strings.Builder
	for _, step := range steps {
		shown := screen(t, master, step[0])
		all.WriteString(shown)
		require.Contains(t, shown, step[0])
		_, err := master.WriteString(step[1])
		require.NoError(t, err)
	}
	all.WriteString(screen(t, master, ""))
	cmd.Wait()
	return colours.ReplaceAllString(all.String(), ""), cmd.ProcessState.ExitCode()
}

func TestOneInputPrintsTheProgramsOwnBytes(t *testing.T) {
	testenv.Need(t, "bash")
	files := map[string]string{"sum.sh": summer, "raw.sh": "cat; printf '\\033[31m\\xff\\0no end'", "big.txt": "20 22\n"}
	s := folder(t, files)
	got := s.run(t, "try", "sum.sh", "--input", "big.txt")
	assert.Equal(t, "42\n", got.out)
	assert.Equal(t, 10, got.status, "nothing was judged")
	assert.Regexp(t, `sum\.sh: ran to its end, .* of 2 s \(default\), .* of 256 MiB \(default\)`, got.errors)

	s.input = "a\nb"
	got = s.run(t, "try", "raw.sh", "--input", "-", "--json", "r.json")
	assert.Equal(t, "a\nb\x1b[31m\xff\x00no end", got.out, "to the byte")
	assert.Contains(t, read(t, s, "r.json"), `"name": "input/stdin"`)

	cmd := s.command(t, "try", "long.sh", "--input", "big.txt", "--time", "30s")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "long.sh"), []byte("for ((i = 0; i < 200000; i++)); do echo $i; done\n"), 0o644))
	var said strings.Builder
	cmd.Stderr = &said
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	out.Read(make([]byte, 10))
	out.Close()
	cmd.Wait()
	assert.Equal(t, 10, cmd.ProcessState.ExitCode(), "a reader that has seen enough is no fault:\n%s", &said)

	files["verdict.toml"] = "[[solution]]\nfile = \"sum.sh\"\nrole = \"reference\"\n"
	s = folder(t, files)
	got = s.run(t, "try", "raw.sh", "--input", "big.txt")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.errors, "sum.sh (reference): prints something else")
	assert.Contains(t, got.errors, "42")
	got = s.run(t, "try", "sum.sh", "--input", "big.txt")
	assert.NotContains(t, got.errors, "(reference)", "it is not compared with itself")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "same.sh"), []byte(summer), 0o644))
	got = s.run(t, "try", "same.sh", "--input", "big.txt")
	assert.Equal(t, 0, got.status)
	assert.Contains(t, got.errors, "sum.sh (reference): prints the same")

	for _, tt := range []struct {
		args []string
		want string
	}{
		{[]string{"--input", "absent"}, "there is no file absent"},
		{[]string{"--input", "."}, "is a folder"},
		{[]string{"--input", "big.txt", "--case", "x"}, "leave out --case"},
		{[]string{"--input", "big.txt", "--json", "-"}, "standard output has what the program prints"},
		{[]string{"--input", "big.txt", "sum.sh", "same.sh"}, "name one"},
	} {
		got := s.run(t, append([]string{"try", "raw.sh"}, tt.args...)...)
		assert.Equal(t, 64, got.status, tt.args)
		assert.Contains(t, got.errors, tt.want)
	}
}

func TestOnATerminalOneInputCannotMoveTheCursor(t *testing.T) {
	testenv.Need(t, "bash")
	s := folder(t, map[string]string{"raw.sh": "read a\nprintf '\\033[2J%s' $a"})
	shown, status := converse(t, s, [][2]string{{"type the input", "high\x7f\x7fello\r%%\r"}}, "try", "--input", "-")
	assert.Contains(t, shown, "\\x1b[2Jhiello\r\n")
	assert.NotContains(t, shown, "\x1b[2J")
	assert.Equal(t, 10, status)
}

func TestALongPasteComesInWholeAndTheReasonIsAsked(t *testing.T) {
	s := folder(t, map[string]string{"sum.sh": summer})
	long := strings.Repeat("123456789 ", 2000) // a terminal's own lines end at 4,095 bytes
	shown, status := converse(t, s, [][2]string{
		{"paste the input, then a line %% or Ctrl-D", long + "\r7\r%%\r"},
		{"paste the expected output", "9\r\x04"},
		{"why does this case exist?", "a long line\n"},
	}, "case", "add", "deep", "--group", "Full load")
	assert.Equal(t, 0, status, shown)
	assert.Equal(t, long+"\n7\n", read(t, s, "cases/full-load/deep.in"))
	assert.Equal(t, "9\n", read(t, s, "cases/full-load/deep.out"))
	assert.Equal(t, "a long line\n", read(t, s, "cases/full-load/deep.md"))
	assert.Contains(t, s.run(t, "case", "list").out, "a long line")

	shown, status = converse(t, s, [][2]string{{"paste the input", "1\r\x03"}}, "case", "add")
	assert.Equal(t, 130, status, shown)
	assert.NoFileExists(t, filepath.Join(s.dir, "cases.md"))
}

// tool makes a command of a name that runs a script, and puts it first on the
// path.
func (s *session) tool(t testing.TB, name, script string) string {
	dir := t.TempDir()
	path := filepath.Join(dir, name)
	require.NoError(t, os.WriteFile(path, []byte("#!/bin/sh\n"+script), 0o755))
	s.env = append(s.env, "PATH="+dir+":"+os.Getenv("PATH"), "WAYLAND_DISPLAY=")
	return path
}

func TestACaseComesFromTheClipboard(t *testing.T) {
	s := folder(t, map[string]string{"sum.sh": summer})
	s.tool(t, "xclip", "cat \"$COPIED\"\n")
	copied := filepath.Join(t.TempDir(), "copied")
	s.env = append(s.env, "COPIED="+copied)
	require.NoError(t, os.WriteFile(copied, []byte("1 2\r\n%%\r\n3"), 0o644))
	got := s.run(t, "case", "add", "--clipboard")
	require.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, "# Samples\n\n## 1\n\n```input\n1 2\n```\n\n```output\n3\n```\n", read(t, s, "cases.md"))

	require.NoError(t, os.WriteFile(copied, []byte("4 5\n"), 0o644))
	shown, status := converse(t, s, [][2]string{{"copy the input", "\n"}, {"copy the expected output", "-\n"}, {"why does this case exist", "\n"}}, "case", "add", "--clipboard")
	assert.Equal(t, 0, status, shown)
	assert.Contains(t, shown, "its answer is not known")
	assert.Contains(t, read(t, s, "cases.md"), "## 2\n\n```input\n4 5\n```\n")
}

func TestACaseIsWrittenInTheEditorAndOpenedThereAtItsLine(t *testing.T) {
	s := folder(t, map[string]string{"sum.sh": summer})
	editor := s.tool(t, "quill", "if [ \"$1\" = +5 ]; then sed -i s/2/8/ $2; else sed -i -e 's/NAME/ties/' -e 's/^Why.*/Two alike./' -e '0,/```input/s//```input\\n1 1/' $1; fi\n")
	s.env = append(s.env, "VISUAL="+editor, "EDITOR=false")
	got := s.run(t, "case", "add", "--editor", "--group", "Edge cases")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "added edge-cases/ties to cases.md\nits answer is not known")
	assert.Equal(t, "# Edge cases\n\n## ties\nTwo alike.\n\n```input\n1 1\n```\n", read(t, s, "cases.md"))

	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "cases.md"), []byte("# Log\n\n\n\n## part\n```input\n1 2\n```\n"), 0o644))
	got = s.run(t, "case", "edit", "part")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, read(t, s, "cases.md"), "1 8")

	s.env = append(s.env, "VISUAL="+s.tool(t, "blot", "echo '## x\n```imput\n' >$1\n"))
	before := read(t, s, "cases.md")
	got = s.run(t, "case", "add", "--editor")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, "case.md:2: this block is never closed")
	_, kept, _ := strings.Cut(got.errors, "what you wrote is in ")
	kept, _, _ = strings.Cut(kept, "\n")
	text, err := os.ReadFile(kept)
	require.NoError(t, err, "what was written is not lost")
	assert.Equal(t, "## x\n```imput\n\n", string(text))
	assert.Equal(t, before, read(t, s, "cases.md"))
	os.RemoveAll(filepath.Dir(kept))

	s.env = append(s.env, "VISUAL=true")
	got = s.run(t, "case", "add", "--editor")
	assert.Contains(t, got.errors, "nothing was added")
}

func TestAConfirmedAnswerIsKeptAndAWrongOneRefused(t *testing.T) {
	testenv.Need(t, "bash")
	s := folder(t, map[string]string{"join.sh": joiner, "cases.md": openCase})
	got := s.run(t, "case", "keep", "part")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, `this would ask "keep this as the expected output?"`)
	assert.Equal(t, openCase, read(t, s, "cases.md"), "nothing was changed")

	shown, status := converse(t, s, [][2]string{{"note this answer as wrong? [y/N]", "y\n"}}, "case", "refuse", "log/part", "--sought", "smaller")
	assert.Equal(t, 0, status, shown)
	assert.Equal(t, openCase+"\n```output refused sought-smaller\n12\n```\n", read(t, s, "cases.md"))
	got = s.run(t, "try", "join.sh")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "this very answer was refused; the answer sought is smaller")
	got = s.run(t, "case", "keep", "part", "--yes")
	assert.Equal(t, 64, got.status, "a refused answer is not kept")
	assert.Contains(t, got.errors, "log/part is not kept: join.sh got wrong answer")

	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "more.sh"), []byte("echo 30\n"), 0o644))
	got = s.run(t, "try", "more.sh")
	assert.Contains(t, got.out, "the answer sought is smaller than 12")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "sum.sh"), []byte(summer), 0o644))
	got = s.run(t, "try", "sum.sh")
	assert.Equal(t, 10, got.status)
	assert.Contains(t, got.out, "printed 3; the answer sought is smaller than 12")

	shown, status = converse(t, s, [][2]string{{"keep this as the expected output? [y/N]", "n\n"}}, "case", "keep", "part", "--solution", "sum.sh")
	assert.Equal(t, 1, status)
	assert.Contains(t, shown, "nothing was changed")
	shown, status = converse(t, s, [][2]string{{"keep this as the expected output? [y/N]", "y\n"}}, "case", "keep", "part", "--solution", "sum.sh")
	assert.Equal(t, 0, status, shown)
	assert.Contains(t, read(t, s, "cases.md"), fmt.Sprintf("Kept on %s: sum.sh printed it.\n\n```output kept\n3\n```\n", time.Now().Format(time.DateOnly)))
	got = s.run(t, "try", "sum.sh")
	assert.Equal(t, 0, got.status)
	assert.Regexp(t, `AC .* part +kept`, got.out)
	assert.Contains(t, got.out, "1 of these kept from a run")
	assert.Regexp(t, `part +4 B +kept`, s.run(t, "case", "list").out)

	got = s.run(t, "case", "refuse", "part", "5")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, `cold case refuse part --answer "5"`)
	got = s.run(t, "case", "refuse", "part", "--answer", "5", "--sought", "small")
	assert.Contains(t, got.errors, "it can be larger or smaller")
}

func TestTheLogbooksAnswersAreConfirmedOneByOne(t *testing.T) {
	testenv.Need(t, "python3")
	s := folder(t, nil)
	require.NoError(t, demo.Write(s.dir))
	s.dir = filepath.Join(s.dir, "logbook")
	whole := read(t, s, "cases.md")
	got := s.run(t, "try", "logbook.py", "--case", "logbook")
	assert.Equal(t, 10, got.status, got.errors)
	assert.Contains(t, got.out, "printed 2566; the answer sought is larger than 1412")
	assert.Contains(t, got.out, "printed 18")
	got = s.run(t, "case", "keep", "most/logbook", "--solution", "logbook.py", "--yes")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Equal(t, fmt.Sprintf("%s\nKept on %s: logbook.py most printed it.\n\n```output kept\n18\n```\n", whole, time.Now().Format(time.DateOnly)), read(t, s, "cases.md"))
	got = s.run(t, "try", "logbook.py", "--case", "logbook", "--json", "-")
	assert.Contains(t, got.out, "\"kept\": true")
	got = s.run(t, "try", "midnight.py", "--input", "logbook.txt")
	assert.Equal(t, "1412\n", got.out)
}

func TestACaseIsRenamedAndDroppedAndBroughtBack(t *testing.T) {
	s := folder(t, map[string]string{"sum.sh": summer, "cases.md": openCase})
	assert.Equal(t, 0, s.run(t, "case", "rename", "part", "whole").status)
	renamed := strings.Replace(openCase, "part", "whole", 1)
	assert.Equal(t, renamed, read(t, s, "cases.md"))
	shown, status := converse(t, s, [][2]string{{"drop log/whole? [y/N]", "\n"}}, "case", "drop", "whole")
	assert.Equal(t, 1, status)
	assert.Contains(t, shown, "1 2", "what would be dropped is shown")
	assert.Equal(t, renamed, read(t, s, "cases.md"))
	_, status = converse(t, s, [][2]string{{"drop log/whole? [y/N]", "y\n"}}, "case", "drop", "whole")
	assert.Equal(t, 0, status)
	assert.Equal(t, "# Log\n\n", read(t, s, "cases.md"))
	assert.Equal(t, 0, s.run(t, "case", "drop", "--undo").status)
	assert.Equal(t, renamed, read(t, s, "cases.md"))
	assert.Contains(t, s.run(t, "case", "drop", "--undo").errors, "no dropped case")
}

func TestAFolderIsTakenOverAfterAQuestion(t *testing.T) {
	s := folder(t, map[string]string{
		"sum.sh": summer, "off/in/2.txt": "1 2\n", "off/out/2.txt": "3\n", "off/in/10.txt": "5 6\n", "off/out/10.txt": "11\n", "off/note": "",
	})
	got := s.run(t, "case", "import", "off")
	assert.Equal(t, 64, got.status)
	assert.NoDirExists(t, filepath.Join(s.dir, "cases"))
	shown, status := converse(t, s, [][2]string{{"copy 2 cases to teams/cases/? [y/N]", "y\n"}}, "case", "import", "off", "--group", "official")
	assert.Equal(t, 0, status, shown)
	assert.Regexp(t, `(?s)2 +in/2\.txt +out/2\.txt.*10 +in/10\.txt +out/10\.txt.*note +neither an input nor an output`, shown)
	assert.Equal(t, "3\n", read(t, s, "cases/official/2.out"))
	assert.Contains(t, s.run(t, "case", "import", "off/in").errors, "no two belong together")
	assert.Contains(t, s.run(t, "case", "import", "absent.zip").errors, "there is no folder or archive")
}

func TestAStatementOpensAProblem(t *testing.T) {
	page, err := filepath.Abs("../../core/statement/testdata/pages/lines.html")
	require.NoError(t, err)
	s := folder(t, nil)
	config := t.TempDir()
	s.env = append(s.env, "XDG_CONFIG_HOME="+config)
	require.NoError(t, os.MkdirAll(filepath.Join(config, "cold-verdict/templates"), 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(config, "cold-verdict/templates/java.txt"), []byte("// {{title}}\nclass {{class}} {}\n"), 0o644))
	got := s.run(t, "open", "cores", "--from", page, "--lang", "java", "--memory", "64MiB")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "input, line 9, 2 lines, 8 B")
	assert.Contains(t, got.out, "added samples/2 to cases.md")
	assert.Contains(t, got.out, "the input is taken to be in the file cores.in")
	config = read(t, s, "cores/verdict.toml")
	for _, want := range []string{"title = \"Ice cores\"", "time     = \"500ms\"", "memory   = \"64MiB\"", "input    = \"cores.in\"", "output   = \"cores.out\""} {
		assert.Contains(t, config, want)
	}
	assert.Contains(t, read(t, s, "cores/Main.java"), "// Ice cores\nclass Main {}")
	assert.Contains(t, s.run(t, "-C", "cores", "case", "list").out, "From lines.html, line 9.")
	again := s.run(t, "open", "cores", "--from", page)
	assert.Contains(t, again.out, "among the cases already")
	assert.Contains(t, s.run(t, "open", "x", "--from", "absent.html").errors, "save the page first")
}

func TestNamedFilesAreReadAndWritten(t *testing.T) {
	testenv.Need(t, "bash")
	s := folder(t, map[string]string{
		"right.sh": "read a b <ice.in\necho $((a + b)) >ice.out\necho talk\n", "silent.sh": summer,
		"verdict.toml": "[files]\ninput = \"ice.in\"\noutput = \"ice.out\"\n", "cases.md": caseText,
	})
	got := s.run(t, "try", "right.sh")
	assert.Equal(t, 0, got.status, got.out)
	got = s.run(t, "try", "silent.sh")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "it wrote no file ice.out")
	assert.Contains(t, got.out, "hint the input is in the file ice.in, which the source does not name; standard input is empty")
	for text, want := range map[string]string{
		"input = \"../ice.in\"":         "write a plain name",
		"input = \"a\"\noutput = \"a\"": "input and output are one file",
		"input = \"a\"\noutpt = \"b\"":  "did you mean \"output\"?",
	} {
		require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), []byte("[files]\n"+text+"\n"), 0o644))
		got := s.run(t, "try", "right.sh")
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, want)
	}
}

func TestOnlySomeCasesAreRun(t *testing.T) {
	testenv.Need(t, "bash")
	s := folder(t, map[string]string{
		"join.sh": joiner, "a.in": "0 2\n", "a.out": "2\n", "cases/hard/b.in": "1 2\n", "cases/hard/b.out": "3\n", "cases/hard/c.in": "0 4\n", "cases/hard/c.out": "4\n",
	})
	s.env = append(s.env, "XDG_CACHE_HOME="+t.TempDir())
	lenient := "read a b\necho $((10#$a$b))\n" // right where the first is 0
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "join.sh"), []byte(lenient), 0o644))
	assert.Contains(t, s.run(t, "try", "--failed").out, "nothing failed when it was run last")
	assert.Contains(t, s.run(t, "try", "--group", "hard").out, "2 of 3 cases: 1 accepted, 1 wrong answer")
	assert.Contains(t, s.run(t, "try", "--failed").out, "1 of 3 cases: 1 wrong answer")
	assert.Contains(t, s.run(t, "try", "--until-failure", "--jobs", "1").out, "(1 of 3 cases: 1 wrong answer)")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "join.sh"), []byte(summer), 0o644))
	assert.Contains(t, s.run(t, "try", "--failed").out, "join.sh: accepted (1 of 3 cases: 1 accepted)")
	assert.Equal(t, 10, s.run(t, "try", "--failed").status)
	assert.Contains(t, s.run(t, "try", "--group", "hrad").errors, "did you mean \"hard\"?")
}

func TestAWatchRunsAgainAtEachSaveAndShowsWhatChanged(t *testing.T) {
	testenv.Need(t, "bash")
	s := folder(t, map[string]string{"sum.sh": joiner, "a.in": "1 2\n", "a.out": "3\n", "b.in": "0 5\n", "b.out": "05\n"})
	s.env = append(s.env, "XDG_CACHE_HOME="+t.TempDir())
	cmd, master := onTerminal(t, s, 100, "try", "--watch")
	save := func(text string) {
		require.NoError(t, os.WriteFile(filepath.Join(s.dir, "sum.sh"), []byte(text), 0o644))
	}
	shown := screen(t, master, "waiting for a save")
	assert.Contains(t, shown, "2 cases: 1 accepted, 1 wrong answer")

	save(summer)
	shown = screen(t, master, "waiting for a save")
	assert.Regexp(t, `AC.* a +.*was WA`, shown, "what failed last runs first")
	assert.Regexp(t, `WA.* b +.*was AC`, shown)
	assert.Less(t, strings.Index(shown, "was WA"), strings.Index(shown, "was AC"))

	save(summer + "\n")
	shown = screen(t, master, "waiting for a save")
	assert.Contains(t, shown, "as before")
	assert.NotContains(t, shown, "expected", "what did not change is not shown again")

	save("while true; do :; done\n")
	screen(t, master, "0 of 2 cases")
	save(joiner)
	shown = screen(t, master, "waiting for a save")
	assert.Contains(t, shown, "1 accepted, 1 wrong answer")
	assert.NotContains(t, shown, "TLE", "a save stops the run")

	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "verdict.toml"), []byte("tine = 1\n"), 0o644))
	shown = screen(t, master, "waiting for a save")
	assert.Contains(t, shown, "verdict.toml:1: unknown key", "a mistake does not end the watch")
	_, err := master.WriteString("\x03")
	require.NoError(t, err)
	screen(t, master, "")
	cmd.Wait()
	assert.Equal(t, 130, cmd.ProcessState.ExitCode())
}

func TestAWatchHonoursEveryOption(t *testing.T) {
	testenv.Need(t, "bash")
	const rejects = "def decide(case, got, expected):\n    return reject(\"no\")\n"
	s := folder(t, map[string]string{
		"sum.sh": summer, "verdict.toml": "[compare]\nscript = \"check.star\"\n[[solution]]\nfile = \"sum.sh\"\n", "check.star": rejects,
		"cases.md": "## a\n```input\n1 2\n```\n```output accept\n3\n```\n", "extra.in": "4 5\n",
	})
	accepts := strings.Replace(rejects, "reject(\"no\")", "accept()", 1)
	for _, tt := range []struct {
		args          []string
		first, second string // what is shown before and after the checker is saved
	}{
		{[]string{"--checker"}, "1 wrong", "1 right"},
		{[]string{"--every-solution"}, "expected: accepted", "as expected: accepted"},
		{[]string{"--input", "extra.in"}, "ran to its end", "ran to its end"},
	} {
		t.Run(tt.args[0], func(t *testing.T) {
			require.NoError(t, os.WriteFile(filepath.Join(s.dir, "check.star"), []byte(rejects), 0o644))
			cmd, master := onTerminal(t, s, 100, append([]string{"try", "--watch"}, tt.args...)...)
			assert.Contains(t, ansi.Strip(screen(t, master, "waiting for a save")), tt.first)
			require.NoError(t, os.WriteFile(filepath.Join(s.dir, "check.star"), []byte(accepts), 0o644))
			assert.Contains(t, ansi.Strip(screen(t, master, "waiting for a save")), tt.second)
			_, err := master.WriteString("\x03")
			require.NoError(t, err)
			cmd.Wait()
			assert.Equal(t, 130, cmd.ProcessState.ExitCode())
		})
	}
}

func TestAKillOrAFullDiskLeavesTheOldFileOrTheNew(t *testing.T) {
	old := "# Samples\n\n" + strings.Repeat("A line of prose.\n", 300_000)
	s := folder(t, map[string]string{"sum.sh": summer, "cases.md": old})
	whole := func() {
		text := read(t, s, "cases.md")
		assert.True(t, strings.HasPrefix(text, old), "all of the old text")
		assert.Equal(t, strings.Count(text, "```")%4, 0, "and whole cases")
		if len(text) > len(old) {
			assert.True(t, strings.HasSuffix(text, "```\n"))
		}
	}
	path, err := binary()
	require.NoError(t, err)
	for i := range 24 {
		cmd := exec.Command(path, "case", "add", fmt.Sprint(i))
		cmd.Dir, cmd.Stdin = s.dir, strings.NewReader("1 2\n%%\n3\n")
		require.NoError(t, cmd.Start())
		time.Sleep(time.Duration(i) * 2 * time.Millisecond)
		cmd.Process.Kill()
		cmd.Wait()
		whole()
	}
	pairs := t.TempDir()
	for i := range 400 {
		for _, extension := range []string{".in", ".out"} {
			require.NoError(t, os.WriteFile(filepath.Join(pairs, fmt.Sprint(i, extension)), []byte("1 2\n"), 0o644))
		}
	}
	for i := range 12 {
		cmd := exec.Command(path, "case", "import", pairs, "--group", fmt.Sprint("given-", i), "--yes")
		cmd.Dir = s.dir
		require.NoError(t, cmd.Start())
		time.Sleep(time.Duration(10+7*i) * time.Millisecond)
		cmd.Process.Kill()
		cmd.Wait()
		inputs, _ := filepath.Glob(filepath.Join(s.dir, "cases", fmt.Sprint("given-", i), "*.in"))
		for _, input := range inputs {
			output, err := os.ReadFile(strings.TrimSuffix(input, ".in") + ".out")
			require.NoError(t, err)
			require.Equal(t, "1 2\n", string(output))
		}
	}
	os.RemoveAll(filepath.Join(s.dir, "cases")) // one that was killed between an output and its input is told as a mistake
	// A disk without room for more than 1 MB of a file.
	before := read(t, s, "cases.md")
	cmd := exec.Command("sh", "-c", "ulimit -f 2000; exec "+path+" case add last")
	cmd.Dir, cmd.Stdin = s.dir, strings.NewReader("1 2\n%%\n3\n")
	assert.Error(t, cmd.Run())
	assert.Equal(t, before, read(t, s, "cases.md"))
	assert.True(t, cmd.ProcessState.ExitCode() != 0 || cmd.ProcessState.Sys().(syscall.WaitStatus).Signaled())
	got := s.run(t, "case", "list")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Empty(t, got.errors, "what a killed write left does not show")
}

func TestACaseIsAddedToAGroupThatHasNoneYet(t *testing.T) {
	s := folder(t, map[string]string{
		"cases.md":     "# Small\n\n## one\n```input\n1\n```\n```output\n1\n```\n",
		"verdict.toml": "[[group]]\nname = \"small\"\npoints = 30\n[[group]]\nname = \"large\"\npoints = 70\nneeds = [\"small\"]\n",
		"a.py":         "print(input())\n",
	})
	got := s.ask(t, "try", "a.py")
	assert.Equal(t, 64, got.status)
	assert.Contains(t, got.errors, `no case is in the group "large"`)
	s.input = "7\n%%\n7\n"
	got = s.ask(t, "case", "add", "seven", "--group", "large")
	assert.Equal(t, 0, got.status, got.errors)
	s.input = ""
	got = s.ask(t, "case", "list")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "seven")
}
