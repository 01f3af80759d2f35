// Package testenv tells tests what the machine offers them: tools, time, and a folder that all
// tests of a package share. Only tests use it.
package testenv

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"sync"
	"testing"
)

// InCI reports that nothing may be skipped because it is missing or takes long.
func InCI() bool { return os.Getenv("CI") == "true" }

// Main runs the tests of a package, removes what SharedDir made, and exits. The hooks are called
// first: a test binary also serves as the programs that the package starts.
func Main(m *testing.M, hooks ...func()) {
	for _, hook := range hooks {
		hook()
	}
	// No test writes into the history of whoever runs it.
	os.Setenv("XDG_STATE_HOME", filepath.Join(SharedDir(), "state"))
	code := m.Run()
	if shared.dir != "" {
		os.RemoveAll(shared.dir)
	}
	os.Exit(code)
}

var shared struct {
	sync.Mutex
	dir string
}

// SharedDir returns a folder that exists until the last test of the package has ended. It panics
// if it cannot be made: no test could run then.
func SharedDir() string {
	shared.Lock()
	defer shared.Unlock()
	if shared.dir == "" {
		dir, err := os.MkdirTemp("", "cold-test-")
		if err != nil {
			panic(err)
		}
		shared.dir = dir
	}
	return shared.dir
}

// Need skips a test for which a tool is missing; in CI that is a failure.
func Need(t testing.TB, tools ...string) {
	t.Helper()
	for _, tool := range tools {
		if _, err := exec.LookPath(tool); err != nil {
			Missing(t, tool+" is missing")
		}
	}
}

// Missing ends a test for which something is missing: it is skipped, and in CI it fails.
func Missing(t testing.TB, why any) {
	t.Helper()
	if InCI() {
		t.Fatal(why)
	}
	t.Skip(why)
}

// Sweep marks a test that takes minutes: it runs in CI, and without -short.
func Sweep(t testing.TB, why string) {
	t.Helper()
	if testing.Short() || !InCI() {
		t.Skip(why + ": it is a part of .ci/run, and of CI=true go test")
	}
}

// Of returns how many of some rounds, or rows, are tried: all of them where CI=true asks for that,
// and otherwise a few.
func Of(all, few int) int {
	if testing.Short() || !InCI() {
		return min(all, few)
	}
	return all
}

// Quick reports whether a source is tried also where CI=true does not ask for all: its language
// builds in a moment.
func Quick(file string) bool {
	switch filepath.Ext(file) {
	case ".c", ".py", ".js", ".rb", ".sh", ".awk":
		return true
	}
	return InCI() && !testing.Short()
}

// SweepUnlessQuick marks a test of a source that takes long to build as Sweep does.
func SweepUnlessQuick(t testing.TB, file string) {
	t.Helper()
	if !Quick(file) {
		Sweep(t, "to build "+filepath.Base(file)+" takes long")
	}
}

// NotShort skips a test under -short, as it is given to the race detector, and says why.
func NotShort(t testing.TB, why string) {
	t.Helper()
	if testing.Short() {
		t.Skip(why)
	}
}

// Busy starts loops, each of which keeps a processor busy until the test ends.
func Busy(t testing.TB, loops int) {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	for range loops {
		loop := exec.CommandContext(ctx, "/bin/sh", "-c", "while kill -0 $PPID; do n=0; while [ $n -lt 100000 ]; do n=$((n+1)); done; done") // not past a test that was ended
		if err := loop.Start(); err != nil {
			t.Fatal(err)
		}
		t.Cleanup(func() { loop.Wait() })
	}
	t.Cleanup(cancel)
}
