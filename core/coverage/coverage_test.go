//go:build linux && (amd64 || arm64)

package coverage

import (
	"context"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

const branching = `#include <stdio.h>
#include <stdlib.h>
int main(void) {
    int n;
    if (scanf("%d", &n) != 1)
        return 1;
    if (n > 9)
        puts("large");
    if (n == 5)
        abort();
    for (int i = 0; i < n; i++)
        puts("crate");
}
`

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise) }

// traced opens a tracer of a source.
func traced(t *testing.T, name, source string, files problem.Files) *Tracer {
	testenv.Need(t, "gcc")
	p := &problem.Problem{Dir: t.TempDir(), Files: files}
	p.Limits.General = verdict.Limits{Time: time.Second, Wall: 4 * time.Second, Memory: 64 << 20, Output: 1 << 20}
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, name), []byte(source), 0o644))
	tracer, err := Open(t.Context(), p, problem.Solution{File: name}, verdict.Limits{}, judge.Env{Cache: testenv.SharedDir()})
	require.NoError(t, err)
	if tracer != nil {
		t.Cleanup(func() { assert.NoError(t, tracer.Close()) })
	}
	return tracer
}

func TestATracerSaysWhichPartsRan(t *testing.T) {
	tracer := traced(t, "branching.c", branching, problem.Files{})
	require.NotNil(t, tracer)
	trace := func(input string) []uint64 {
		parts, err := tracer.Trace(context.Background(), []byte(input))
		require.NoError(t, err)
		return parts
	}
	none := trace("0\n")
	assert.NotEmpty(t, none)
	assert.Equal(t, none, trace("0\n"))
	ran, of, missed := tracer.Reached()
	assert.Equal(t, len(none), ran)
	assert.Greater(t, of, ran)
	assert.Equal(t, []int{6, 8, 10, 12}, missed)
	assert.Greater(t, len(trace("3\n")), len(none))
	trace("12\n")
	trace("")
	assert.Empty(t, trace("5\n"), "it was ended before it could say")
	_, _, missed = tracer.Reached()
	assert.Equal(t, []int{10}, missed)
}

func TestWhatCannotBeTracedHasNoTracer(t *testing.T) {
	assert.Nil(t, traced(t, "broken.c", "int main(void) { return }", problem.Files{}))
	assert.Nil(t, traced(t, "script.sh", "cat\n", problem.Files{}))
	assert.Nil(t, traced(t, "file.c", branching, problem.Files{Output: "out.txt"}))
}
