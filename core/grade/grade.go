package grade

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/source"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
)

// Options say how a class is graded.
type Options struct {
	Env   judge.Env
	Build judge.BuildOptions
	Last  bool // a person's last try counts, and not the best
	// Each is told every event of a try, with the indices of the person and of the try; nil: nobody is.
	Each func(person, try int, event judge.Event)
}

// A Progress says how far a class is.
type Progress struct {
	Done, Total int // tries
	Name        string
}

// A Result is what a class reached.
type Result struct {
	People []Graded
	Cases  []CaseCount // those that failed for somebody, the most failed first
	Alike  []Pair
	Pupils int // people who handed something in
}

// A Graded is what a person reached.
type Graded struct {
	Person
	Counts int // index of the try that counts; -1: there is none
	Tries  []Tried
}

// A Tried is how a try ended.
type Tried struct {
	Verdict  verdict.Verdict
	Message  string // why, in a line; empty where it was accepted
	Language string
	Passed   int
	Cases    int
	Score    *verdict.Score // nil where no group is worth points
	Groups   map[string]GroupCount
	failed   []int // indices of cases
	ended    bool
}

// A GroupCount is how many cases of a group passed.
type GroupCount struct{ Passed, Cases int }

// A CaseCount is for how many people a case failed.
type CaseCount struct {
	Case   int // index
	Failed int
}

// batch is how many tries are built before they run, so that the first results come soon.
const batch = 8

// Run judges what people handed in. An error is the context's, or says what failed on our side.
func Run(ctx context.Context, p *problem.Problem, people []Person, o Options, tell func(Progress)) (*Result, error) {
	j, err := judge.Open(p, o.Env)
	if err != nil {
		return nil, err
	}
	scratch, err := box.NewScratch(os.TempDir(), "cold-verdict-class-")
	if err != nil {
		return nil, errors.Join(err, j.Close())
	}
	r := &run{problem: p, judge: j, options: o, tell: tell, folder: scratch.Dir, result: &Result{}}
	err = r.all(ctx, people)
	err = errors.Join(err, j.Close(), scratch.Remove())
	if err != nil {
		return nil, err
	}
	r.conclude()
	return r.result, nil
}

// A run is one call of Run.
type run struct {
	problem *problem.Problem
	judge   *judge.Judge
	options Options
	tell    func(Progress)
	folder  string
	result  *Result
	handed  []handed
}

// A place is a try of a person.
type place struct{ person, try int }

func (r *run) all(ctx context.Context, people []Person) error {
	var places []place
	for i, one := range people {
		r.result.People = append(r.result.People, Graded{Person: one, Counts: -1, Tries: make([]Tried, len(one.Tries))})
		for k := range one.Tries {
			places = append(places, place{i, k})
		}
	}
	for at := 0; at < len(places); at += batch {
		if err := r.batch(ctx, places, at, min(at+batch, len(places))); err != nil {
			return err
		}
	}
	return nil
}

// batch builds and runs some tries.
func (r *run) batch(ctx context.Context, places []place, from, to int) error {
	var solutions []problem.Solution
	var owner []int // of each solution, the place that it is for: several where the problem has parts
	for n, at := range places[from:to] {
		one := r.result.People[at.person].Person.Tries[at.try]
		path, err := r.alone(one, from+n)
		if err != nil {
			return err
		}
		for _, part := range r.problem.InParts(problem.Solution{File: path, Role: problem.Candidate}) {
			solutions, owner = append(solutions, part), append(owner, from+n)
		}
		r.compare(at.person, path)
	}
	build := r.options.Build
	build.MissingIsFault = false
	name := func(i int) string { return r.result.People[places[owner[i]].person].Name }
	prepared, err := r.judge.Prepare(ctx, solutions, build, func(e judge.Event) {
		if e, ok := e.(judge.Building); ok {
			r.tell(Progress{owner[e.Solution], len(places), name(e.Solution)})
		}
	})
	if err != nil {
		return err
	}
	current := 0
	_, err = prepared.Run(ctx, r.problem.Cases, judge.RunOptions{Apart: true}, func(e judge.Event) {
		if began, ok := e.(judge.Began); ok {
			current = began.Solution
			r.tell(Progress{owner[current], len(places), name(current)})
		}
		at := places[owner[current]]
		r.note(&r.result.People[at.person].Tries[at.try], e)
		if r.options.Each != nil {
			r.options.Each(at.person, at.try, e)
		}
	})
	return errors.Join(err, os.RemoveAll(r.folder+"/batch"))
}

// alone copies a source, and what lies beside it in the person's own folder, into a folder of its own.
func (r *run) alone(t Try, n int) (path string, err error) {
	dir := filepath.Join(r.folder, "batch", fmt.Sprint(n))
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	for _, from := range append([]string{t.Path}, t.Beside...) {
		info, err := os.Stat(from)
		if err != nil || info.Size() > largestFile {
			continue // a build that needs it says so
		}
		text, err := os.ReadFile(from)
		if err != nil {
			continue
		}
		if err := os.WriteFile(filepath.Join(dir, filepath.Base(from)), text, 0o644); err != nil {
			return "", err
		}
	}
	return filepath.Join(dir, filepath.Base(t.Path)), nil
}

// compare reads a source for the search for those that are alike.
func (r *run) compare(person int, path string) {
	text, err := os.ReadFile(path)
	if err != nil {
		return
	}
	family := ""
	if l, _, err := r.languages().Choose(filepath.Base(path), ""); err == nil {
		family = source.Family(l.Extensions)
	}
	r.handed = append(r.handed, newHanded(person, family, text))
}

func (r *run) languages() *toolchain.Languages {
	if r.options.Env.Languages != nil {
		return r.options.Env.Languages
	}
	return toolchain.Ours()
}

// note takes an event of a try.
func (r *run) note(t *Tried, event judge.Event) {
	switch e := event.(type) {
	case judge.Began:
		t.Language = e.Plan.Language
		if t.Groups == nil {
			t.Groups = map[string]GroupCount{}
		}
	case judge.Case:
		c := &r.problem.Cases[e.Index]
		g := t.Groups[c.Group]
		t.Cases++
		g.Cases++
		if e.Outcome.Verdict.Passing() {
			t.Passed++
			g.Passed++
		} else if e.Outcome.Verdict != verdict.Skipped {
			if len(t.failed) == 0 {
				t.Message = c.Name + ": " + e.Outcome.Said()
			}
			t.failed = append(t.failed, e.Index)
		}
		t.Groups[c.Group] = g
	case judge.Ended:
		t.end(e)
	}
}

// end takes the end of a solution: the whole of a try, or what answers one part of the problem.
func (t *Tried) end(e judge.Ended) {
	if t.ended {
		t.Verdict = verdict.OfSolution([]verdict.Verdict{t.Verdict, e.Verdict})
	} else {
		t.Verdict = e.Verdict
	}
	t.ended = true
	if e.Message != "" && t.Message == "" {
		t.Message = e.Message
	}
	if e.Score == nil {
		return
	}
	if t.Score == nil {
		t.Score = &verdict.Score{}
	}
	for _, g := range e.Score.Groups {
		t.Score.Add(g)
	}
}

// conclude says which tries count, and what is to be said of all together.
func (r *run) conclude() {
	failed := map[int]int{}
	for i := range r.result.People {
		one := &r.result.People[i]
		if len(one.Tries) == 0 {
			continue
		}
		r.result.Pupils++
		one.Counts = len(one.Tries) - 1
		if !r.options.Last {
			for k := range one.Tries {
				if better(&one.Tries[k], &one.Tries[one.Counts]) {
					one.Counts = k
				}
			}
		}
		for _, index := range one.Tries[one.Counts].failed {
			failed[index]++
		}
	}
	for index, n := range failed {
		r.result.Cases = append(r.result.Cases, CaseCount{index, n})
	}
	slices.SortFunc(r.result.Cases, func(a, b CaseCount) int {
		return cmp.Or(cmp.Compare(b.Failed, a.Failed), cmp.Compare(a.Case, b.Case))
	})
	r.result.Alike = alike(r.handed)
}

// better reports that a try reached more than another.
func better(a, b *Tried) bool {
	points := func(t *Tried) float64 {
		if t.Score == nil {
			return 0
		}
		return t.Score.Points
	}
	accepted := func(t *Tried) int {
		if t.Verdict == verdict.Accepted {
			return 1
		}
		return 0
	}
	return cmp.Or(cmp.Compare(points(a), points(b)), cmp.Compare(accepted(a), accepted(b)), cmp.Compare(a.Passed, b.Passed)) > 0
}
