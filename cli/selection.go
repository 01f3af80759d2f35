package cli

import (
	"slices"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/settings"
	"coldverdict/core/toolchain"
)

// runFlags say how the solutions of a command are run.
type runFlags struct {
	time, memory, lang string
	jobs               int
	uncontained        bool
}

func (f *runFlags) timeFlag(unit string) cli.Flag {
	return &cli.StringFlag{Name: "time", Usage: "limit the processor time of a " + unit + " to `D`, such as 1.5s", Destination: &f.time}
}

func (f *runFlags) memoryFlag(unit string) cli.Flag {
	return &cli.StringFlag{Name: "memory", Usage: "limit the memory of a " + unit + " to `S`, such as 256MiB", Destination: &f.memory}
}

func (f *runFlags) jobsFlag(usage string) cli.Flag {
	return &cli.IntFlag{Name: "jobs", Usage: usage, DefaultText: "one a processor core", Destination: &f.jobs}
}

func (f *runFlags) langFlag(usage string) cli.Flag {
	return &cli.StringFlag{Name: "lang", Usage: usage, Destination: &f.lang}
}

func (f *runFlags) uncontainedFlag() cli.Flag {
	return &cli.BoolFlag{Name: "uncontained", Usage: "let programs use the network and your files; every result says so", Destination: &f.uncontained}
}

// judging turns them into how the command judges.
func (f runFlags) judging(a *app, c *cli.Command) (o judging, err error) {
	if err := a.ownSettings(); err != nil {
		return o, err
	}
	if f.time != "" {
		if o.build.Limits.Time, err = problem.ParseTime(f.time); err != nil {
			return o, usageError("--time: %v", err)
		}
	}
	if f.memory != "" {
		if o.build.Limits.Memory, err = problem.ParseSize(f.memory); err != nil {
			return o, usageError("--memory: %v", err)
		}
	}
	if c.IsSet("jobs") && (f.jobs < 1 || f.jobs > 256) {
		return o, usageError("--jobs is %d; it can be 1 to 256", f.jobs)
	}
	o.env.Jobs, o.env.Uncontained, o.env.Warm = f.jobs, f.uncontained, a.warmer()
	if !c.IsSet("jobs") {
		o.env.Jobs = a.own.Jobs
	}
	return o, nil
}

// A choice says which solutions of a problem a command runs.
type choice struct {
	names  []string           // of sources or of entries in verdict.toml; none: the candidate edited last
	from   string             // the folder that names are relative to
	lang   string             // takes the place of each one's language; empty: they keep theirs
	every  bool               // all entries of verdict.toml, and nothing else
	except []problem.Solution // no candidates, unless they are named
}

// of returns the solutions that are chosen, and how, if not by name.
func (ch choice) of(p *problem.Problem, languages *toolchain.Languages) (list []problem.Solution, how string, err error) {
	switch {
	case ch.every:
		list = slices.DeleteFunc(slices.Clone(p.Solutions), func(s problem.Solution) bool { return s.ByName })
		if len(list) == 0 {
			return nil, "", usageError("verdict.toml names no [[solution]]; name one there, or leave out --every-solution")
		}
	case len(ch.names) == 0 && len(p.Parts) > 0 && len(ch.except) == 0:
		if list, err = p.ChooseParts(); err != nil {
			return nil, "", err
		}
		if len(p.Sources) > 1 {
			how = "edited last"
		}
	case len(ch.names) == 0:
		s, err := p.ChooseCandidate(ch.except...)
		if err != nil {
			return nil, "", err
		}
		list = p.InParts(s)
		if len(p.Sources) > 1 {
			how = "edited last"
		}
	}
	for _, name := range ch.names {
		entries, err := p.FindSolutions(name, ch.from)
		if err != nil {
			return nil, "", err
		}
		for _, one := range entries {
			list = append(list, p.InParts(one)...)
		}
	}
	for i := range list {
		if list[i], err = ch.inLanguage(list[i], languages); err != nil {
			return nil, "", err
		}
	}
	return list, how, nil
}

// inLanguage is a solution in the language that it is taken for.
func (ch choice) inLanguage(s problem.Solution, languages *toolchain.Languages) (problem.Solution, error) {
	if ch.lang != "" {
		s.Language = ch.lang
	}
	return s, checkLanguage(languages, s)
}

// forCase chooses the one solution that is to answer a case: the one that is named, or the
// candidate edited last, of which the part counts that runs the case's group.
func (ch choice) forCase(p *problem.Problem, one problem.Case, languages *toolchain.Languages) (s problem.Solution, err error) {
	switch {
	case len(ch.names) == 0 && slices.Contains(p.Parts, one.Group):
		var list []problem.Solution
		if list, err = p.ChooseParts(); err == nil {
			s = list[max(0, slices.IndexFunc(list, func(s problem.Solution) bool { return s.Runs(one.Group) }))]
		}
	case len(ch.names) == 0:
		s, err = p.CandidateFor(one.Group)
	default:
		var entries []problem.Solution
		if entries, err = p.FindSolutions(ch.names[0], ch.from); err == nil {
			s = entries[max(0, slices.IndexFunc(entries, func(s problem.Solution) bool { return s.Runs(one.Group) }))]
		}
	}
	if err != nil {
		return s, err
	}
	for _, part := range p.InParts(s) {
		if part.Runs(one.Group) {
			s = part
		}
	}
	if s, err = ch.inLanguage(s, languages); err != nil {
		return s, err
	}
	if !s.Runs(one.Group) {
		return s, usageError("%s does not run the group %s; name one that does with --solution", s.File, one.Group)
	}
	return s, nil
}

// reference is what answers are compared with: the one that is named, or the reference of
// verdict.toml that answers the same part as a candidate; nil: there is none.
func (ch choice) reference(p *problem.Problem, candidate problem.Solution, languages *toolchain.Languages) (*problem.Solution, error) {
	if len(ch.names) == 0 {
		return servesAs(p.Solutions, candidate), nil
	}
	entries, err := p.FindSolutions(ch.names[0], ch.from)
	if err != nil {
		return nil, err
	}
	if err := checkLanguage(languages, entries[0]); err != nil {
		return nil, err
	}
	for i := range entries {
		entries[i].Role = problem.Reference
	}
	if s := servesAs(entries, candidate); s != nil {
		return s, nil
	}
	return &entries[0], nil
}

// servesAs finds a reference for a candidate: where a problem has several parts, one
// that answers the same part.
func servesAs(list []problem.Solution, candidate problem.Solution) *problem.Solution {
	var serves *problem.Solution
	for _, s := range list {
		if s.Role != problem.Reference {
			continue
		}
		if slices.Equal(s.Groups, candidate.Groups) {
			return &s
		}
		if serves == nil && len(candidate.Groups) == 0 && slices.Equal(s.Args, candidate.Args) {
			serves = &s
		}
	}
	return serves
}

// others returns the reference solutions, but for the one that is tried.
func others(p *problem.Problem, tried problem.Solution) (list []problem.Solution) {
	for _, s := range p.Solutions {
		if s.Role == problem.Reference && s.File != tried.File {
			list = append(list, s)
		}
	}
	return list
}

// ofGroups leaves the solutions that run all of some groups.
func ofGroups(list []problem.Solution, groups ...string) []problem.Solution {
	return slices.DeleteFunc(list, func(s problem.Solution) bool {
		return slices.ContainsFunc(groups, func(group string) bool { return !s.Runs(group) })
	})
}

// onePart leaves the solutions that answer one part of a problem, since what others
// answer is no expected output for them. An empty group is any.
func onePart(list []problem.Solution, group string) ([]problem.Solution, error) {
	if group != "" {
		if list = ofGroups(list, group); len(list) == 0 {
			return nil, usageError("no part of these sources runs the group %s", group)
		}
	}
	for _, s := range list[1:] {
		if !slices.Equal(s.Groups, list[0].Groups) && len(list[0].Groups) > 0 && len(s.Groups) > 0 {
			return nil, usageError("%s answers several parts of this problem, or other ones than %s; choose one by its group: --group %s", s.File, list[0].File, list[0].Groups[0])
		}
	}
	return list, nil
}

// withCases leaves out the parts of a source that none of the chosen cases is
// for, where another part has some.
func withCases(p *problem.Problem, list []problem.Solution, cases []int) []problem.Solution {
	serves := func(s problem.Solution) bool {
		return slices.ContainsFunc(cases, func(i int) bool { return s.Runs(p.Cases[i].Group) })
	}
	return slices.DeleteFunc(slices.Clone(list), func(s problem.Solution) bool {
		return !serves(s) && slices.ContainsFunc(list, func(other problem.Solution) bool { return other.File == s.File && serves(other) })
	})
}

// together reports that several solutions are shown in one table, since they run the same cases: all of them, or a
// part of the problem.
func together(p *problem.Problem, list []problem.Solution) bool {
	by := map[string]int{}
	for _, s := range list {
		if len(s.Groups) > 0 && len(p.Parts) == 0 {
			return false
		}
		by[strings.Join(s.Groups, " ")]++
	}
	for _, n := range by {
		if n > 1 {
			return true
		}
	}
	return false
}

// checkLanguage reports a solution whose language is not known.
func checkLanguage(languages *toolchain.Languages, s problem.Solution) error {
	if _, ok := languages.Find(s.Language); s.Language != "" && !ok {
		return noSuchLanguage(languages, s.Language)
	}
	if s.Language == "" && !languages.IsSource(s.File) {
		return usageError("the extension of %s names no language; say which with --lang, one of %s", s.File, strings.Join(languages.Names(), ", "))
	}
	return nil
}

func noSuchLanguage(languages *toolchain.Languages, name string) error {
	return usageError("there is no language %q; %s; 'cold host --languages' lists all", name, nearLanguage(name, languages.NamesWithStandards()))
}

// caseFlags say which cases of a problem a command runs.
type caseFlags struct {
	patterns, groups []string
	failed           bool
}

func (f *caseFlags) flags() []cli.Flag {
	return []cli.Flag{
		&cli.StringSliceFlag{Name: "case", Usage: "run only the cases that match `PATTERN`: a name, a group, or one with * and ?", Destination: &f.patterns},
		&cli.StringSliceFlag{Name: "group", Usage: "run only the cases of the group `NAME`", Destination: &f.groups},
		&cli.BoolFlag{Name: "failed", Usage: "run only the cases that failed when they were run last", Destination: &f.failed},
	}
}

// isSet reports that certain cases were asked for.
func (f caseFlags) isSet() bool { return len(f.patterns)+len(f.groups) > 0 || f.failed }

// of returns the indices of the cases that are chosen, ascending.
func (f caseFlags) of(p *problem.Problem, memory *remembered, solutions []problem.Solution) ([]int, error) {
	indices, err := p.SelectCases(f.patterns)
	if err != nil {
		return nil, err
	}
	if len(f.groups) > 0 {
		groups := p.Groups()
		for _, name := range f.groups {
			if !slices.Contains(groups, name) {
				return nil, usageError("no case is in the group %q; %s", name, settings.Nearest(name, groups))
			}
		}
		indices = slices.DeleteFunc(indices, func(i int) bool { return !slices.Contains(f.groups, p.Cases[i].Group) })
		if len(indices) == 0 {
			return nil, usageError("no case matches both --case and --group")
		}
	}
	if f.failed {
		failed := memory.failed(solutions)
		indices = slices.DeleteFunc(indices, func(i int) bool { return !failed[p.Cases[i].Name] })
	}
	return indices, nil
}
