package cli

import (
	"io"
	"time"

	"github.com/urfave/cli/v3"

	"coldverdict/core/problem"
	"coldverdict/report"
	"coldverdict/report/page"
)

func reportFlag(into *string) cli.Flag {
	return &cli.StringFlag{Name: "report", Usage: "write a report to `FILE`, by its ending: .html, .xml (JUnit), .tap, .csv or .md", Destination: into, TakesFile: true}
}

// maker says which program makes a report.
func maker() report.Maker { return report.Maker{Version: Version, Now: time.Now()} }

// checkReport reports a file that no report can be written to, before anything is run for it.
func (a *app) checkReport(file string) error {
	switch {
	case file == "":
		return nil
	case !page.Knows(file):
		return usageError("--report: %v", page.Write(nil, file, nil))
	}
	if err := problem.CanWrite(a.path(file)); err != nil {
		return usageError("--report: %v", err)
	}
	return nil
}

// writeReport writes a report to a file, if there is to be one.
func (a *app) writeReport(file string, made func() *page.Page) error {
	if file == "" {
		return nil
	}
	return a.writeTo("--report", file, func(out io.Writer) error { return page.Write(out, file, made()) })
}
