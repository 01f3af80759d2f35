//go:build linux && (amd64 || arm64)

package judge

import (
	"context"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
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

// traced opens a tracer of a source.
func traced(t *testing.T, name, source string) *Tracer {
	one := newTry(t)
	require.NoError(t, os.WriteFile(filepath.Join(one.problem.Dir, name), []byte(source), 0o644))
	tracer, err := OpenTracer(context.Background(), one.problem, problem.Solution{File: name}, one.options.Limits, one.options.env())
	require.NoError(t, err)
	if tracer != nil {
		t.Cleanup(func() { assert.NoError(t, tracer.Close()) })
	}
	return tracer
}

func TestATracerSaysWhichPartsRan(t *testing.T) {
	tracer := traced(t, "branching.c", branching)
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
	assert.Nil(t, traced(t, "broken.c", "int main(void) { return }"))
	assert.Nil(t, traced(t, "script.sh", "cat\n"))
	one := newTry(t)
	one.problem.Files.Output = "out.txt"
	tracer, err := OpenTracer(context.Background(), one.problem, one.solution, one.options.Limits, one.options.env())
	require.NoError(t, err)
	assert.Nil(t, tracer)
}
