package cli

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// remembered is which cases of a problem failed when they were run last, for
// each solution. It lies in the cache: to lose it does no harm.
type remembered struct {
	path    string
	changed bool
	Failed  map[string][]string // names of cases, by solution
	// Verdicts are the last ones, of all cases of the problem, by solution.
	Verdicts map[string]verdict.Verdict
}

func rememberedOf(p *problem.Problem) *remembered {
	sum := sha256.Sum256([]byte(p.Dir))
	r := &remembered{path: filepath.Join(toolchain.DefaultDir(), "tried", hex.EncodeToString(sum[:12])+".json")}
	if text, err := os.ReadFile(r.path); err == nil {
		json.Unmarshal(text, r) // what cannot be read is not known
	}
	if r.Failed == nil {
		r.Failed = map[string][]string{}
	}
	if r.Verdicts == nil {
		r.Verdicts = map[string]verdict.Verdict{}
	}
	return r
}

// solutionKey tells the entries of one source apart.
func solutionKey(s problem.Solution) string {
	return strings.Join(append([]string{s.File}, s.Args...), " ")
}

// failed returns the names of the cases that failed with any of some solutions.
func (r *remembered) failed(solutions []problem.Solution) map[string]bool {
	names := map[string]bool{}
	for _, s := range solutions {
		for _, name := range r.Failed[solutionKey(s)] {
			names[name] = true
		}
	}
	return names
}

// tell takes an event of the judge.
func (r *remembered) tell(p *problem.Problem, solutions []problem.Solution, event judge.Event) {
	e, ok := event.(judge.Case)
	if !ok || e.Outcome.Verdict == verdict.Fault {
		return
	}
	key, name := solutionKey(solutions[e.Solution]), p.Cases[e.Index].Name
	known := slices.Contains(r.Failed[key], name)
	switch passed := e.Outcome.Verdict.Passing(); {
	case passed && known:
		r.Failed[key] = slices.DeleteFunc(r.Failed[key], func(other string) bool { return other == name })
		r.changed = true
	case !passed && !known:
		r.Failed[key] = append(r.Failed[key], name)
		r.changed = true
	}
}

// ended takes the verdict of a solution on all cases of its problem, and returns the one before.
func (r *remembered) ended(s problem.Solution, v verdict.Verdict) (before verdict.Verdict, known bool) {
	key := solutionKey(s)
	before, known = r.Verdicts[key]
	if !known || before != v {
		r.Verdicts[key], r.changed = v, true
	}
	return before, known
}

// save writes down what changed, as far as that can be done.
func (r *remembered) save() {
	if !r.changed {
		return
	}
	r.changed = false
	maps.DeleteFunc(r.Failed, func(_ string, names []string) bool { return len(names) == 0 })
	text, err := json.Marshal(r)
	if err != nil || os.MkdirAll(filepath.Dir(r.path), 0o755) != nil {
		return
	}
	file, err := os.CreateTemp(filepath.Dir(r.path), "new-")
	if err != nil {
		return
	}
	_, err = file.Write(text)
	if file.Close() != nil || err != nil || os.Rename(file.Name(), r.path) != nil {
		os.Remove(file.Name())
	}
}
