package steps

import (
	"cmp"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// record records a source on an input.
func record(t *testing.T, name, source, input string, o Options) *Recording {
	t.Helper()
	return recordAs(t, "", name, source, input, o)
}

// recordAs takes the source for a language.
func recordAs(t *testing.T, language, name, source, input string, o Options) *Recording {
	t.Helper()
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(source), 0o644))
	languages := toolchain.Ours()
	p, err := problem.Load(dir, problem.Vocabulary{Modes: []string{"lines"}, IsSource: languages.IsSource})
	require.NoError(t, err)
	o.Env = judge.Env{Languages: languages}
	o.Time = cmp.Or(o.Time, time.Hour) // of a busy machine
	r, err := Record(context.Background(), p, problem.Solution{File: name, Language: language}, problem.Data{Text: []byte(input), Size: int64(len(input))}, o)
	require.NoError(t, err)
	return r
}

// told writes steps in short: "3: i = 1, prints 2".
func told(list []Step) (lines []string) {
	for _, s := range list {
		var parts []string
		for _, c := range s.Changes {
			parts = append(parts, c.Name+" = "+c.Value)
		}
		if s.Returned != "" {
			parts = append(parts, "returns "+s.Returned)
		}
		if s.Output != "" {
			parts = append(parts, fmt.Sprintf("prints %q", s.Output))
		}
		if s.Error != "" {
			parts = append(parts, "raises "+s.Error)
		}
		if s.Warning != "" {
			parts = append(parts, "warns "+s.Warning)
		}
		lines = append(lines, strings.TrimRight(fmt.Sprintf("%d: %s", s.Line, strings.Join(parts, ", ")), ": "))
	}
	return lines
}

func TestEveryLineIsRecordedWithWhatItChanged(t *testing.T) {
	for _, row := range []struct {
		needs, file, source string
		want                []string
	}{
		{"python3", "a.py", "def twice(x):\n    y = 2 * x\n    return y\n\nn = int(input())\na = [n]\na.append(twice(n))\nprint(a[1], 'é')\n",
			[]string{"1", "5: n = 4", "6: a = [4]", "7: a = [4, 8]", "2: x = 4, y = 8", "3: returns 8", `8: prints "8 é\n"`}},
		{"ruby", "a.rb", "def twice(x)\n  y = 2 * x\n  y\nend\nn = gets.to_i\na = [n]\na << twice(n)\nputs a[1]\n",
			[]string{"1", "5: n = 4", "6: a = [4]", "7: a = [4, 8]", "2: x = 4, y = 8", "3: returns 8", `8: prints "8\n"`}},
		{"lua5.4", "a.lua", "local function twice(x)\n  local y = 2 * x\n  return y\nend\nlocal n = io.read('n')\nlocal a = {n}\na[2] = twice(n)\nprint(a[2])\n",
			[]string{"4", "5: n = 4", "6: a = {4}", "7: a = {4, 8}", "2: x = 4, y = 8", "3", `8: prints "8\n"`}},
		{"node", "a.js", "const lines = require('fs').readFileSync(0, 'utf8').split('\\n');\nfunction twice(x) {\n  const y = 2 * x;\n  return y;\n}\nconst n = Number(lines[0]);\nconst a = [n];\na.push(twice(n));\nconsole.log(a[1]);\n",
			[]string{`1: lines = ["4", ""]`, "6: n = 4", "7: a = [4]", "8: a = [4, 8]", "3: x = 4, y = 8", "4: returns 8", `9: prints "8\n"`}},
		{"tsc", "a.ts", "interface Crate {\n  weight: number;\n}\nfunction twice(x: number): number {\n  const y: number = 2 * x;\n  return y;\n}\nconst n: number = Number(require('fs').readFileSync(0, 'utf8'));\nconst c: Crate = { weight: twice(n) };\nconsole.log(c.weight);\n",
			[]string{"8: n = 4", "9: c = {weight: 8}", "5: x = 4, y = 8", "6: returns 8", `10: prints "8\n"`}},
		{"node", "a.js", "function f(x) {\n  return x.y;\n}\ntry {\n  f(null);\n} catch (e) {\n}\nf(null);\n", []string{"2: x = null, raises TypeError: Cannot read properties of null (reading 'y')"}},
		{"python3", "a.py", "def f(a, i):\n    return a[i]\n\nf([1], int(input()))\n", []string{"1", "4: raises IndexError: list index out of range", "2: a = [1], i = 4, raises IndexError: list index out of range"}},
	} {
		t.Run(row.file+" "+row.needs, func(t *testing.T) {
			testenv.Need(t, row.needs)
			r := record(t, row.file, row.source, "4\n", Options{})
			got := strings.Join(told(r.Steps), "\n")
			for _, line := range row.want {
				assert.Contains(t, got+"\n", line+"\n")
			}
			assert.False(t, r.Cut)
			assert.Equal(t, len(r.Steps), r.Total)
		})
	}
}

func TestTheProgramDoesWhatItDoesUnrecorded(t *testing.T) {
	testenv.Need(t, "python3")
	const source = "import sys\nfrom collections import deque\nprint(__name__, sys.argv[1:], sys.stdin.readline().strip())\nfor line in sys.stdin:\n    print(line, end='')\nsys.stdout.write('x\\n')\nsys.stderr.write('aside\\n')\nsys.exit(3)\n"
	r := record(t, "a.py", source, "1\n2\n3\n", Options{})
	assert.Equal(t, "__main__ [] 1\n2\n3\nx\n", string(r.Output))
	assert.Equal(t, 3, r.Run.ExitCode)
	assert.Equal(t, "aside\n", string(r.Run.Stderr.Bytes))
}

func TestAThreadIsRecordedLikeACall(t *testing.T) {
	testenv.Need(t, "python3")
	r := record(t, "a.py", "import threading\ndef main():\n    x = 7\n    print(x)\nt = threading.Thread(target=main)\nt.start()\nt.join()\n", "", Options{})
	got := strings.Join(told(r.Steps), "\n")
	assert.Contains(t, got, "3: x = 7\n4: prints \"7\\n\"")
}

func TestWhatIsPrintedBelongsToItsLineAndHasItsMoment(t *testing.T) {
	testenv.Need(t, "python3")
	r := record(t, "a.py", "def f():\n    x = 1\n    return x\nprint(f())\n", "", Options{})
	require.Len(t, r.Steps, 4)
	assert.Equal(t, "1\n", r.Steps[1].Output)
	assert.Equal(t, 4, r.Steps[1].OutputAt, "the call comes first")
}

func TestARecordingIsBounded(t *testing.T) {
	testenv.Need(t, "python3")
	const endless = "i = 0\nwhile True:\n    i += 1\n    print(i)\n"
	for name, row := range map[string]struct {
		o    Options
		says string
		last string
	}{
		"by its events":     {Options{Most: 3000}, "it had more steps than are recorded", ""},
		"by what it prints": {Options{UntilLine: 20}, "line 20 was printed", `4: prints "20\n"`},
		"by a value":        {Options{Around: "7"}, "i had the value 7", ""},
		"by the line":       {Options{From: 4, Most: 100_000}, "so many steps from that line on were recorded", ""},
	} {
		t.Run(name, func(t *testing.T) {
			r := record(t, "a.py", endless, "", row.o)
			assert.True(t, r.Cut)
			assert.Contains(t, r.Why, row.says)
			assert.LessOrEqual(t, len(r.Steps), kept)
			if row.last != "" {
				assert.Equal(t, row.last, told(r.Steps[len(r.Steps)-1:])[0])
			}
		})
	}
}

func TestWhatHasNoRecorderIsTold(t *testing.T) {
	testenv.Need(t, "perl")
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "a.pl"), []byte("print 1;\n"), 0o644))
	languages := toolchain.Ours()
	p, err := problem.Load(dir, problem.Vocabulary{IsSource: languages.IsSource})
	require.NoError(t, err)
	_, err = Record(context.Background(), p, problem.Solution{File: "a.pl"}, problem.Data{}, Options{Env: judge.Env{Languages: languages}})
	var unable *UnableError
	require.ErrorAs(t, err, &unable)
	assert.Equal(t, "steps cannot be recorded in Perl; they can in C, C++, D, Go, Java, JavaScript, Kotlin, Lua, Pascal, PyPy, Python, Ruby, Rust, Scala, TypeScript", unable.Text)
}

// stepsOf makes steps of lines, each of which changes i to its place.
func stepsOf(lines ...int) (list []Step) {
	for n, line := range lines {
		list = append(list, Step{Number: n + 1, Line: line, Changes: []Change{{Name: "i", Value: fmt.Sprint(n)}}})
	}
	return list
}

func TestRoundsThatRepeatAreALoop(t *testing.T) {
	short := func(scenes []Scene) (words []string) {
		for _, one := range scenes {
			if l := one.Loop; l != nil {
				words = append(words, fmt.Sprintf("%v x%d", l.Lines, l.Times))
			} else {
				words = append(words, fmt.Sprint(one.Step.Line))
			}
		}
		return words
	}
	assert.Equal(t, []string{"1", "[2 3] x3", "4"}, short(Story(stepsOf(1, 2, 3, 2, 3, 2, 3, 4))))
	assert.Equal(t, []string{"1", "2", "1", "2"}, short(Story(stepsOf(1, 2, 1, 2))), "twice is no loop")
	assert.Equal(t, []string{"[5] x4"}, short(Story(stepsOf(5, 5, 5, 5))))
	printing := stepsOf(2, 3, 2, 3, 2, 3)
	printing[3].Output = "x"
	assert.Equal(t, []string{"2", "3", "2", "3", "2", "3"}, short(Story(printing)), "what is printed is not folded away")
	doubtful := stepsOf(2, 3, 2, 3, 2, 3, 2, 3)
	doubtful[7].Warning = "it does not fit"
	assert.Equal(t, []string{"[2 3] x3", "2", "3"}, short(Story(doubtful)), "nor what is hardly meant")
	loop := Story(stepsOf(2, 3, 2, 3, 2, 3))[0].Loop
	assert.Equal(t, []Range{{"i", "0", "5", 6}}, loop.Vars)
	assert.Equal(t, 6, loop.Last)
	assert.Empty(t, Story(nil))
}

func TestTheFirstOtherValueIsFound(t *testing.T) {
	of := func(changes ...[2]string) *Recording {
		r := &Recording{}
		for i, c := range changes {
			r.Steps = append(r.Steps, Step{Number: i + 1, Line: 10 + i, Changes: []Change{{Name: c[0], Value: c[1]}}})
		}
		r.Total = len(changes)
		return r
	}
	a := of([2]string{"n", "3"}, [2]string{"s", "1"}, [2]string{"s", "2"}, [2]string{"own", "9"}, [2]string{"t", "7"})
	b := of([2]string{"n", "3"}, [2]string{"s", "1"}, [2]string{"s", "4"}, [2]string{"t", "8"})
	assert.Equal(t, []Parting{{"s", "s", 2, "2", "4", 12, 12}, {"t", "t", 1, "7", "8", 14, 13}}, Partings(a, b, nil))
	assert.Equal(t, []Parting{{"s", "s", 2, "2", "", 12, 0}}, Partings(of([2]string{"s", "1"}, [2]string{"x", "0"}, [2]string{"s", "2"}), of([2]string{"s", "1"}), nil))
	assert.Empty(t, Partings(a, a, nil))
	assert.Contains(t, Partings(a, b, map[string]string{"own": "t"}), Parting{"own", "t", 1, "9", "8", 13, 13}, "by another name")
}

func TestWhatAProgramTellsByItselfIsBounded(t *testing.T) {
	told := &teller{depth: -1}
	fmt.Fprintf(told, "V 0 a\t%s\nS 1 0 f\n", strings.Repeat("x", 100_000))
	for range 30 {
		fmt.Fprintf(told, "O %s\n", strings.Repeat("y", 100_000))
	}
	fmt.Fprintf(told, "S 1 999999999 f\nS 1 -1 f\n")
	r := told.recording()
	require.Len(t, r.Steps, 1, "no program is so deep")
	assert.Less(t, len(r.Steps[0].Changes[0].Value), 10_000)
	assert.Len(t, r.Steps[0].Output, mostOutput)
}

func FuzzNothingThatIsToldBreaksTheRecording(f *testing.F) {
	f.Add("S 1 0 f\nV 0 a\t1\nR 0 x\nX 1 0 e\nO out\nM\n")
	f.Add("V 9 a\nS\nS 1\nS a b c\nR\nO \\n\\q\nS 99999999999999999999 0 x\n\n")
	f.Fuzz(func(t *testing.T, text string) {
		told := &teller{options: Options{UntilLine: 3, Around: "1"}}
		told.Write([]byte(text))
		r := told.recording()
		Story(r.Steps)
		Partings(r, r, nil)
	})
}
