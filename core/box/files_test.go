package box

import (
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
)

// shell runs a script on an input, with a file for each of input and output.
func shell(t testing.TB, b *Box, script, text string, files Files, limits verdict.Limits) (out string, file *string, result Result) {
	input, err := Memory([]byte(text))
	require.NoError(t, err)
	defer input.Close()
	var said strings.Builder
	run := Run{
		Program: Program{Path: "/bin/sh", Args: []string{"-c", script}, Env: []string{"PATH=/usr/bin:/bin"}},
		Limits:  limits, Input: input, Output: &said, Files: files,
	}
	result, err = b.Run(t.Context(), run)
	require.NoError(t, err)
	if result.File == nil {
		return said.String(), nil, result
	}
	made, err := io.ReadAll(result.File)
	require.NoError(t, err)
	require.NoError(t, result.File.Close())
	whole := string(made)
	return said.String(), &whole, result
}

func TestNamedFilesTakeThePlaceOfStandardInputAndOutput(t *testing.T) {
	b, err := Open(Options{Scratch: t.TempDir()})
	require.NoError(t, err)
	defer b.Close()
	room := verdict.Limits{Output: 1 << 20}
	both := Files{"ice.in", "ice.out"}
	of := func(text string) *string { return &text }
	for _, tt := range []struct {
		name, script string
		text         string
		files        Files
		out          string
		file         *string
	}{
		{"both", "tr a-z A-Z <ice.in >ice.out; echo said", "core\n", both, "said\n", of("CORE\n")},
		{"standard input is empty", "cat; ls", "core\n", both, "ice.in\n", nil},
		{"input only", "cat ice.in; echo x >ice.out", "core\n", Files{Input: "ice.in"}, "core\n", nil},
		{"output only", "cat >ice.out", "core\n", Files{Output: "ice.out"}, "", of("core\n")},
		{"nothing is left of the run before", "ls; cat ice.in >ice.out", "2\n", both, "ice.in\n", of("2\n")},
		{"a link leads nowhere", "ln -s /etc/passwd ice.out", "", both, "", nil},
		{"a folder is no output", "mkdir ice.out", "", both, "", nil},
		{"the input may be larger than what may be written", "wc -c <ice.in; echo ok >ice.out", strings.Repeat("7", 3<<20), both, "3145728\n", of("ok\n")},
	} {
		t.Run(tt.name, func(t *testing.T) {
			out, file, result := shell(t, b, tt.script, tt.text, tt.files, room)
			assert.Equal(t, strings.TrimSpace(tt.out), strings.TrimSpace(out))
			assert.Equal(t, tt.file, file)
			assert.Equal(t, Exited, result.Ending)
		})
	}
	_, _, result := shell(t, b, "exec yes >ice.out", "core\n", both, room)
	assert.Equal(t, PassedOutput, result.Ending, "an output without end")
}
