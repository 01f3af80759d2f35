// Package judge turns a problem and its solutions into verdicts.
//
// Open makes a Judge for one problem. Its Prepare builds solutions, and the Prepared that comes
// of it runs them: Run judges cases under the limits and returns a Summary for each solution,
// Output returns what a solution prints, and Judge serves clients that make cases as they go.
// Checkers, interactors and generators run in a sandbox as solutions do; TryChecker and Talk
// run them without a candidate.
//
// What happens is told through a callback while it happens. Cases are told in case order,
// whatever order they finish in, and nothing of a case is kept once it was told: memory grows by
// a few bytes for each.
//
// Which program a case needs is the matter of an executor, of which there is one for programs,
// one for interactive problems and one for functions. What is run again, and how often, is decided
// in one place for all of them (retry.go), and so is what a run amounts to (ending.go).
package judge

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"sync"

	"coldverdict/core/box"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// KeptText bounds what is kept of one output of one run, in bytes.
const KeptText = 64 << 10

// Env is what a Judge takes from its surroundings. The zero value of each field is usable.
type Env struct {
	Jobs        int                  // runs beside each other; 0: DefaultJobs
	Languages   *toolchain.Languages // nil: ours
	Cache       string               // the folder of builds; empty: the user's
	Uncontained bool                 // programs may use the network and the person's files
	// Warm is told of headers that are to be compiled for later builds of a language; nil: nobody is.
	Warm func(language, text string, stepped bool)
}

// A Judge judges solutions of one problem. It owns the toolchain, a folder for temporary files,
// control groups and the sandboxes. It must be closed.
type Judge struct {
	problem  *problem.Problem
	manner   *manner // by the kind of the problem
	env      Env
	kit      *toolchain.Kit
	scratch  *box.Scratch
	groups   func() *box.Groups           // waits until they are known; nil: there are none
	folder   string                       // what checkers are given lies in here
	checkers map[checkerKey]*builtChecker // by what verdict.toml names
	workers  []*worker                    // all that were made
	// exclusive lets runs beside each other hold it for reading, and one that must have the
	// machine for itself for writing.
	exclusive sync.RWMutex
}

// Open makes a judge for a problem. The problem must not change while the judge is open.
func Open(p *problem.Problem, env Env) (*Judge, error) {
	if err := box.Suits(); err != nil {
		return nil, err
	}
	if env.Jobs <= 0 {
		env.Jobs = DefaultJobs()
	}
	if env.Cache == "" {
		env.Cache = toolchain.DefaultDir()
	}
	if env.Languages == nil {
		env.Languages = toolchain.Ours()
	}
	kit, err := toolchain.Open(env.Cache, env.Languages)
	if err != nil {
		return nil, err
	}
	kit.Warm = env.Warm
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-run-")
	if err != nil {
		kit.Close()
		return nil, fmt.Errorf("cannot make a working folder: %w", err)
	}
	j := &Judge{
		problem: p, manner: mannerOf(p), env: env, kit: kit, scratch: scratch, folder: filepath.Join(scratch.Dir, "checks"),
		checkers: map[checkerKey]*builtChecker{},
		groups: sync.OnceValue(func() *box.Groups {
			groups, _ := box.OpenGroups() // without them the watch alone enforces the limits
			return groups
		}),
	}
	go j.groups() // it takes a while, in which sources are built
	if err := os.Mkdir(j.folder, 0o700); err != nil {
		return nil, errors.Join(err, j.Close())
	}
	return j, nil
}

// Close ends all programs and leaves nothing behind.
func (j *Judge) Close() (err error) {
	for _, w := range j.workers {
		err = errors.Join(err, w.close())
		if w.checker != nil {
			err = errors.Join(err, w.checker.close())
		}
	}
	j.kit.Close()
	return errors.Join(err, j.scratch.Remove())
}

// DefaultJobs is the number of processor cores that this process may use, by
// its affinity and by what its control group may use of them; threads that
// share a core would slow each other down.
func DefaultJobs() int {
	cores := map[string]bool{}
	lists, _ := filepath.Glob("/sys/devices/system/cpu/cpu[0-9]*/topology/thread_siblings_list")
	for _, list := range lists {
		if text, err := os.ReadFile(list); err == nil {
			cores[string(text)] = true
		}
	}
	if len(cores) == 0 {
		return runtime.GOMAXPROCS(0)
	}
	return min(len(cores), runtime.GOMAXPROCS(0))
}

// builder makes a worker that runs compilers. They see what lies beside a source, but
// nothing that tells answers.
func (j *Judge) builder() *worker {
	return &worker{options: box.Options{Scratch: j.scratch.Dir, Uncontained: j.env.Uncontained, Hidden: j.secrets(), Coarse: true}}
}

// Build builds one source, in a sandbox of its own.
func (j *Judge) Build(ctx context.Context, source toolchain.Source) (build toolchain.Build, err error) {
	w := j.builder()
	build, err = j.kit.Build(ctx, w, source)
	return build, errors.Join(err, w.close())
}

// Limits are the problem's limits for a language, with others set above them, and those among
// them that nobody set.
func (j *Judge) Limits(l *toolchain.Language, set ...verdict.Limits) (limits, unset verdict.Limits) {
	var names []string
	if l != nil {
		names = j.env.Languages.Family(l)
	}
	return j.problem.Limits.For(names, set...)
}

// Runner makes a sandbox for one build, as a solution has it, which also lets the program write
// to the descriptor of decisions. It is closed with the judge, and serves one run at a time.
func (j *Judge) Runner(build *toolchain.Build) (toolchain.Runner, error) {
	options := j.sandbox()
	options.Decides = true
	if !options.Uncontained {
		hidden, err := j.hidden([]Plan{{Build: build}}, j.problem.Cases)
		if err != nil {
			return nil, err
		}
		options.Hidden = hidden
	}
	return j.newWorker(options), nil
}

// sandbox are the options of a worker that runs what was built.
func (j *Judge) sandbox() box.Options {
	return box.Options{Scratch: j.scratch.Dir, Uncontained: j.env.Uncontained, Groups: j.groups()}
}

// newWorker makes a worker that is closed with the judge.
func (j *Judge) newWorker(o box.Options) *worker {
	w := &worker{options: o}
	j.workers = append(j.workers, w)
	return w
}

// ownPaths takes the folder of a build, and the one that it was built in, out of
// what a program wrote, so that traces name the person's own file.
func (j *Judge) ownPaths(text []byte, build *toolchain.Build) []byte {
	if len(text) == 0 {
		return nil
	}
	return []byte(strings.ReplaceAll(j.kit.OwnPaths(string(text), build), "\t./", "\t"))
}
