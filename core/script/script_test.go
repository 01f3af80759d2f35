package script

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, Main) }

// write writes a script, and returns its path.
func write(t testing.TB, text string) string {
	path := filepath.Join(t.TempDir(), "check.star")
	require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
	return path
}

// decided runs the body of a checker, on got, and returns its line.
func decided(t testing.TB, body, got string) (string, error) {
	folder := t.TempDir()
	for name, text := range map[string]string{InputFile: "3 4\nice\n", GotFile: got, ExpectedFile: "7\n"} {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), []byte(text), 0o644))
	}
	path := write(t, "def decide(case, got, expected):\n    "+strings.ReplaceAll(body, "\n", "\n    ")+"\n")
	var out bytes.Buffer
	err := decide(path, folder, &out)
	return out.String(), err
}

func TestACheckerSaysItsDecisionInOneLine(t *testing.T) {
	for _, tt := range []struct{ body, got, says string }{
		{"return accept()", "", "accept\n"},
		{"return reject('no\\n  good')", "", "reject no good\n"},
		{"return share(0.4, 'nearly')", "", "share 0.4 nearly\n"},
		{"return share(1)", "", "share 1\n"},
		{"return accept() if got.ints == expected.ints else reject('other')", " 7 \n", "accept\n"},
		{"return reject(got.text + '|' + str(got.lines) + str(got.tokens))", "a b\r\n\nc", "reject a b c|[\"a b\", \"\", \"c\"][\"a\", \"b\", \"c\"]\n"},
		{"return reject(str(got.ints[0] + 1))", "123456789012345678901234567890", "reject 123456789012345678901234567891\n"},
		{"return accept() if got.ints else accept()", "1\n2 x\n", "reject line 2: expected an integer, got \"x\"\n"},
		{"got.ints\nreturn accept()", "1 2.5", "reject line 1: expected an integer, got \"2.5\"\n"},
		{"return reject(str(sum(got.reals)))\ndef sum(x): return x[0] + x[1]", "1.5 2e3", "reject 2001.5\n"},
		{"got.reals\nreturn accept()", "1 nan", "reject line 1: expected a number, got \"nan\"\n"},
		{"integer(got.tokens[0])\nreturn accept()", "1_0", "reject \"1_0\" is no integer\n"},
		{"real(got.tokens[0])\nreturn accept()", "0x1p3", "reject \"0x1p3\" is no number\n"},
		{"n = 0\nwhile n < 5: n += 1\nreturn reject(str(n) + str(set([n])) + str(math.sqrt(16)))", "", "reject 5set([5])4.0\n"},
		{"return reject(str(deep(500)))\ndef deep(n): return 0 if n == 0 else 1 + deep(n - 1)", "", "reject 500\n"},
	} {
		body, rest, nested := strings.Cut(tt.body, "\ndef ")
		if nested {
			body = "def " + rest + "\n" + body
		}
		said, err := decided(t, body, tt.got)
		require.NoError(t, err, tt.body)
		assert.Equal(t, tt.says, said, tt.body)
	}
}

func TestAFailingCheckerNamesFileAndLine(t *testing.T) {
	for body, says := range map[string]string{
		"return None":                        "check.star:1:1: decide returned None; it must return accept(), reject",
		"return True":                        "decide returned True; it must",
		"x = got.tokens[3]\nreturn accept()": "check.star:2:19: in decide: list index 3 out of range",
		"return share(1.5)":                  "check.star:2:17: in decide: share(1.5): the part must be a number from 0 to 1",
		"case.ints\nreturn accept()":         "check.star:2:9: in decide: input, line 2: \"ice\" is not an integer",
		"fail('the data is wrong')":          "in decide: fail: the data is wrong",
		"got.tokens.append(1)":               "cannot append to frozen list",
		"return got.word":                    "check.star:2:15: in decide: text has no .word field or method",
		"while True: pass":                   "in decide: passed 300000000 steps; does a loop have no end?",
		"load('x.star', 'y')":                "check.star:2:5: load statement within a function",
	} {
		if strings.HasPrefix(body, "while") && testenv.Of(2, 1) == 1 { // it takes seconds
			continue
		}
		_, err := decided(t, body, "1\n")
		assert.ErrorContains(t, err, says, body)
	}
	folder := t.TempDir()
	assert.Error(t, decide(write(t, "def decide(case, got, expected): return accept()"), folder, &bytes.Buffer{}), "there is nothing to decide on")
}

func TestAScriptIsCheckedBeforeItIsRun(t *testing.T) {
	for text, says := range map[string]string{
		"def decide(case, got, expected)\n  return accept()\n":                 "check.star:2:1: got newline, want ':'",
		"def decide(case, got, expected):\n  return acept()\n":                 "check.star:2:10: undefined: acept",
		"def check(case, got, expected):\n  return accept()\n":                 "check.star defines no decide; write def decide(case, got, expected):",
		"def decide(case, got, expected):\n  hear()\n":                         "check.star:2:3: undefined: hear",
		"def decide(case, got, expected):\n  return accept()\nx = hear_ints\n": "undefined: hear_ints",
	} {
		assert.ErrorContains(t, Check(write(t, text), Decides), says)
	}
	assert.NoError(t, Check(write(t, "def decide(case, got, expected):\n  return accept()\n"), Decides))
	assert.NoError(t, Check(write(t, "def talk(case, say, hear):\n  return hear_ints()\n"), Talks))
	assert.ErrorContains(t, Check(write(t, "def decide(case, got, expected):\n  return accept()\n"), Talks), "write def talk(case, say, hear):")
}

// spoken runs the interactor of a talk with a candidate that says all at once.
func spoken(t testing.TB, body, candidate string) (says, decision string, err error) {
	input := filepath.Join(t.TempDir(), "input")
	require.NoError(t, os.WriteFile(input, []byte("5\n"), 0o644))
	var out, said bytes.Buffer
	path := write(t, "def talk(case, say, hear):\n    "+strings.ReplaceAll(body, "\n", "\n    ")+"\n")
	err = talk(path, input, strings.NewReader(candidate), &out, &said)
	return out.String(), said.String(), err
}

func TestTheInteractorOfATalkSaysAndHears(t *testing.T) {
	for _, tt := range []struct{ body, candidate, says, decision string }{
		{"say(case.ints[0], 'metres')\nreturn accept()", "", "5 metres\n", "accept\n"},
		{"line = hear()\nreturn reject(line)", "probe 3\r\n", "", "reject probe 3\n"},
		{"hear()\nreturn reject(str(hear()))", "no line end", "", "reject None\n"},
		{"return accept() if hear_ints(2) == [1, -2] else reject('other')", "1 -2\n", "", "accept\n"},
		{"hear()\nhear_ints()", "1\n2 x\n", "", "reject its line 2, \"2 x\": expected integers\n"},
		{"hear_ints(count=2)", "1 2 3\n", "", "reject its line 1, \"1 2 3\": expected 2 integers, got 3\n"},
		{"hear_ints()", "", "", "reject it ended where integers were expected\n"},
		{"hear()\nreturn accept()", "1\n2\nstill here\n", "", "accept\nunread \"2\\nstill here\\n\"\n"},
		{"hear()\nreturn accept()", "1\n \n\n", "", "accept\n"},
	} {
		says, decision, err := spoken(t, tt.body, tt.candidate)
		require.NoError(t, err, tt.body)
		assert.Equal(t, tt.says, says, tt.body)
		assert.Equal(t, tt.decision, decision, tt.body)
	}
	_, _, err := spoken(t, "hear()", "1\n")
	assert.ErrorContains(t, err, "talk returned None; it must return accept()")
}

func TestAScriptRunsInAProcessOfItsOwn(t *testing.T) {
	folder := t.TempDir()
	for _, name := range []string{InputFile, GotFile, ExpectedFile} {
		require.NoError(t, os.WriteFile(filepath.Join(folder, name), []byte("1\n"), 0o644))
	}
	run := func(body string) (string, string, error) {
		p, err := Decide(write(t, "def deep(n): return deep(n + 1)\ndef decide(case, got, expected):\n    "+body+"\n"), folder)
		require.NoError(t, err)
		cmd := exec.Command(p.Path, p.Args...)
		cmd.Env = p.Env
		var out, errs bytes.Buffer
		cmd.Stdout, cmd.Stderr = &out, &errs
		err = cmd.Run()
		return out.String(), errs.String(), err
	}
	out, errs, err := run("print('looking'); return accept()")
	require.NoError(t, err)
	assert.Equal(t, "accept\n", out)
	assert.Equal(t, "looking\n", errs)
	out, errs, err = run("return 1 // 0")
	assert.Error(t, err)
	assert.Empty(t, out)
	assert.Contains(t, errs, "check.star:3:14: in decide: floored division by zero")
	_, errs, err = run("return deep(0)")
	assert.Error(t, err)
	assert.Equal(t, "check.star:1:21: in deep: Starlark stack overflow\n", errs)
}
