package cli

import (
	"context"
	"os"
	"strconv"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/report"
	"coldverdict/report/page"
)

// mostShares bounds how many machines make a run together.
const mostShares = 10_000

// parseShare reads "3/8".
func parseShare(text string) (s report.Share, err error) {
	number, of, ok := strings.Cut(text, "/")
	s.Number, err = strconv.Atoi(number)
	if err == nil {
		s.Of, err = strconv.Atoi(of)
	}
	if !ok || err != nil || s.Number < 1 || s.Of > mostShares || s.Number > s.Of {
		return s, usageError("--share is %q; write which share it is of how many, such as 3/8", text)
	}
	return s, nil
}

// shared is the part of a selection that a share runs, and what the whole would be: the indices of its cases. Where
// every solution runs, the solutions are shared, and else the cases; every share has all cases of the groups that
// others need, since those decide what is run at all.
func shared(s *selection, which report.Share) (whole []int, all []problem.Solution) {
	p := s.problem
	whole, all = s.options.run.Only, s.solutions
	if whole == nil {
		for i := range p.Cases {
			whole = append(whole, i)
		}
	}
	if which.Solutions {
		var part []problem.Solution
		for i, one := range s.solutions {
			if which.Has(i) {
				part = append(part, one)
			}
		}
		s.solutions = part
		return whole, all
	}
	needed := map[string]bool{}
	for _, rule := range p.Rules {
		for _, name := range rule.Needs {
			needed[name] = true
		}
	}
	part := []int{}
	for at, i := range whole {
		if which.Has(at) || needed[p.Cases[i].Group] {
			part = append(part, i)
		}
	}
	s.options.run.Only = part
	return whole, all
}

func (a *app) mergeCommand() *cli.Command {
	var json, file string
	return &cli.Command{
		Name:      "merge",
		Usage:     "join the results of a run that several machines made, a share each",
		ArgsUsage: "FILE FILE ...",
		Description: "Reads what 'cold try --share 1/8 --json FILE' wrote, all shares in any order, and ends as one run\n" +
			"would have: with the same verdicts, points and exit status.\n\n" +
			"   cold merge share-*.json\n" +
			"   cold merge share-*.json --json whole.json --report whole.xml",
		Flags: []cli.Flag{
			&cli.StringFlag{Name: "json", Usage: "write the joined results as JSON to `FILE`, or to standard output (-)", Destination: &json, TakesFile: true},
			reportFlag(&file),
		},
		Action: func(_ context.Context, c *cli.Command) error { return a.merge(c.Args().Slice(), json, file) },
	}
}

func (a *app) merge(files []string, json, into string) error {
	if len(files) == 0 {
		return usageError("name the files that hold the shares: cold merge share-*.json")
	}
	if err := a.checkReport(into); err != nil {
		return err
	}
	var parts []*report.Try
	for _, name := range files {
		file, err := os.Open(a.path(name))
		if err != nil {
			return usageError("%v", err)
		}
		one, err := report.ReadTry(file)
		file.Close()
		if err != nil {
			return usageError("%s: %v", name, err)
		}
		parts = append(parts, one)
	}
	whole, err := report.Merge(parts)
	if err != nil {
		return usageError("%v", err)
	}
	if json != "" {
		if err := a.writeJSON(json, whole); err != nil {
			return err
		}
	}
	if err := a.writeReport(into, func() *page.Page { return report.MergedPage(maker(), whole) }); err != nil {
		return err
	}
	if json != "-" {
		for _, one := range whole.Lines() {
			a.screen.Merged(one.Name, one.Verdict, one.Message, one.Counts, one.Cases, one.Points, one.Of, one.Expect)
		}
	}
	verdicts, met := whole.Verdicts()
	if whole.Expects() {
		return expectedExit(verdicts, met)
	}
	if err := verdictsExit(verdicts); !whole.Differ() || err == exit(exitFault) {
		return err
	}
	return exit(exitRejected)
}

// expectedExit is the exit status where each solution has a verdict that it must get, and met says whether it did.
func expectedExit(verdicts []verdict.Verdict, met []bool) error {
	held := false
	for i, v := range verdicts {
		switch {
		case v == verdict.Skipped:
			continue
		case v == verdict.Fault && !met[i]:
			return exit(exitFault)
		case !met[i]:
			return exit(exitRejected)
		}
		held = true
	}
	if !held {
		return exit(exitUnjudged)
	}
	return nil
}
