//go:build linux

package ready

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/shape"
	"coldverdict/internal/testenv"
)

const unsetAnswer = `#include <cstdio>
int main() {
    long a, b, sum;
    if (scanf("%ld %ld", &a, &b) != 2) return 1;
    if (a > 90) sum = 0;
    if (a <= 90 && b > 90) sum = 0;
    sum += a + b;
    printf("%ld\n", sum);
}
`

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// An answer that depends on what was never set shows though nobody knows the answer.
func TestWhatIsNeverSetShowsWithoutAReference(t *testing.T) {
	testenv.Need(t, "g++")
	s, err := shape.Parse("a: int 0..99, b: int 0..99\n")
	require.NoError(t, err)
	p := &problem.Problem{Dir: t.TempDir(), Shape: s}
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "unset.cpp"), []byte(unsetAnswer), 0o644))
	o := Options{Candidate: problem.Solution{File: "unset.cpp"}, Time: time.Minute, Env: judge.Env{Cache: testenv.SharedDir()}}
	r, err := Run(t.Context(), p, o, func(Event) {})
	require.NoError(t, err)
	last := r.Checks[len(r.Checks)-1]
	assert.Equal(t, NotReady, r.Outcome)
	assert.Equal(t, "checked build", last.Name)
	assert.Contains(t, last.Message, "which is what it answers in the usual build; it depends on memory that was never set")
	require.NotNil(t, r.Found)
	input, err := r.Found.Cases[0].Input.Head(100)
	require.NoError(t, err, "the folder of edge cases is gone by now")
	assert.NotEmpty(t, input)
	assert.NotEmpty(t, r.Found.Outcome.Difference, "what the two answered is shown")
	// What varies in the usual build, too, is told as that.
	require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "unset.cpp"), []byte("#include <chrono>\n#include <cstdio>\nint main() { printf(\"%d\\n\", (int)(std::chrono::steady_clock::now().time_since_epoch().count() % 99991)); }\n"), 0o644))
	r, err = Run(t.Context(), p, o, func(Event) {})
	require.NoError(t, err)
	last = r.Checks[len(r.Checks)-1]
	assert.Equal(t, NotReady, r.Outcome)
	assert.Contains(t, last.Message, "every run")
}
