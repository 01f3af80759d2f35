package main

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestTheStepsBeforeAWrongOutputAreTold(t *testing.T) {
	testenv.Need(t, "python3")
	const wrong = "n = int(input())\ns = 0\nfor i in range(1, n):\n    s += i\nprint(s)\nprint('more')\n"
	s := folder(t, map[string]string{
		"sum.py": wrong, "right.py": strings.Replace(wrong, "range(1, n)", "range(1, n + 1)", 1),
		"cases.md": "# Samples\n## ten\n```input\n10\n```\n```output\n55\nmore\n```\n## three\n```input\n3\n```\n```output\n6\nmore\n```\n",
		"sum.pl":   "print 1;\n", "broken.py": "def f(:\n",
		"sum.c": "#include <stdio.h>\n\nint twice(int x) {\n    return 2 * x;\n}\n\nint main(void) {\n    int n, s = 2147483647;\n    scanf(\"%d\", &n);\n    s += twice(n);\n    printf(\"%d\\nmore\\n\", n);\n    return 0;\n}\n",
	})
	require.Equal(t, 1, s.run(t, "try", "sum.py").status)
	got := s.run(t, "steps", "sum.py", "--beside", "right.py")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "sum.py on samples/three: wrong answer, line 1: expected 6, got 3\n", "the smallest that failed")
	assert.Contains(t, got.out, "it ends here, since line 1 was printed")
	assert.Contains(t, got.out, "prints 3\n")
	assert.NotContains(t, got.out, "prints more")
	assert.Contains(t, got.out, "first other values than in right.py\n  s, change 4: nothing more, theirs 6 (line 4)\n  i, change 3: nothing more, theirs 3 (line 3)\n")
	got = s.run(t, "steps", "sum.py", "--beside", "right.py", "--same", "s=i")
	assert.Contains(t, got.out, "s (theirs i), change 1: 0 (line 2), theirs 1 (line 3)\n")
	got = s.run(t, "steps", "sum.py", "--case", "ten")
	assert.Contains(t, got.out, "lines 3 to 4, 9 times\n")
	assert.Contains(t, got.out, "s from 1 to 45\n")
	got = s.run(t, "steps", "sum.py", "--json")
	require.Equal(t, 0, got.status, got.errors)
	validates(t, "steps.schema.json", got.out)
	assert.Contains(t, s.run(t, "steps", "right.py", "--case", "ten", "--from", "99").errors, "note: line 99 did not run\n")
	assert.Contains(t, s.run(t, "steps", "right.py", "--case", "ten", "--around", "77").errors, "note: no variable had the value 77")
	testenv.Need(t, "gcc")
	testenv.Need(t, "perl")
	got = s.run(t, "steps", "sum.c", "--case", "ten", "--calls", "--page", "steps.html")
	require.Equal(t, 0, got.status, got.errors)
	assert.Contains(t, got.out, "10      s += twice(n);                            20 + 2147483647 does not fit in 'int', s = -21474…\n")
	assert.Contains(t, got.out, " 4        return 2 * x;                           x = 10, returns 20\n")
	assert.Contains(t, got.out, "calls\n  main()\n    twice(x = 10) = 20\n")
	page, err := os.ReadFile(filepath.Join(s.dir, "steps.html"))
	require.NoError(t, err)
	assert.Contains(t, string(page), `"warning":"20 + 2147483647 does not fit in`)
	for args, says := range map[string]string{
		"steps sum.pl --case ten":                 "steps cannot be recorded in Perl; they can in C, C++, D, Go, Java",
		"steps sum.py --same s=i":                 "name that, too",
		"steps sum.py --beside right.py --same s": "such as total=sum",
		"steps sum.py --walk":                     "--walk needs a terminal",
		"steps sum.py --walk --json":              "exclude each other",
		"steps broken.py":                         "was not run, so that it has no steps: compile error, line 1",
		"steps sum.py right.py":                   "those of one solution",
		"steps sum.py --last 0":                   "--last is 0",
		"steps sum.py --case nowhere":             `no case matches "nowhere"`,
		"steps sum.py --beside gone.py":           "there is no file gone.py",
	} {
		got := s.run(t, strings.Fields(args)...)
		assert.Equal(t, 64, got.status, args)
		assert.Contains(t, got.errors, says)
	}
}
