package report

import (
	"encoding/csv"
	"fmt"
	"io"
	"strconv"
	"strings"

	"coldverdict/core/growth"
	"coldverdict/core/problem"
	"coldverdict/core/rank"
	"coldverdict/core/verdict"
)

// A ranking is the JSON form of cold rank, described by docs/rank.schema.json.
type ranking struct {
	Format  string   `json:"format"`
	Version int      `json:"version"`
	Problem string   `json:"problem"`
	Cases   []string `json:"cases"`
	Rounds  int      `json:"rounds"`
	Places  []placed `json:"places"`
}

type placed struct {
	File    string           `json:"file"`
	Verdict *verdict.Verdict `json:"verdict,omitempty"`
	Message string           `json:"message,omitempty"`
	Time    *float64         `json:"cpu_seconds,omitempty"`
	Slowest *float64         `json:"slowest_cpu_seconds,omitempty"`
	Memory  *int64           `json:"memory_bytes,omitempty"`
	Bytes   int64            `json:"source_bytes"`
	Lines   int              `json:"source_lines"`
	Ratio   *ratio           `json:"ratio,omitempty"`
}

type ratio struct {
	Ratio   float64 `json:"ratio"`
	Low     float64 `json:"low"`
	High    float64 `json:"high"`
	Differs bool    `json:"differs"`
}

// WriteRanking writes what cold rank found.
func WriteRanking(out io.Writer, p *problem.Problem, r *rank.Result) error {
	all := ranking{Format: "cold-verdict/rank", Version: 1, Problem: p.Title, Cases: []string{}, Rounds: r.Rounds, Places: []placed{}}
	for _, i := range r.Cases {
		all.Cases = append(all.Cases, p.Cases[i].Name)
	}
	for _, one := range r.Places {
		place := placed{File: one.Plan.Solution.File, Bytes: one.Bytes, Lines: one.Lines}
		if one.Failed != nil {
			place.Verdict, place.Message = &one.Failed.Verdict, one.Failed.Message
		} else {
			seconds, slowest := one.Time.Seconds(), one.Slowest.Seconds()
			place.Time, place.Slowest, place.Memory = &seconds, &slowest, &one.Memory
			place.Ratio = &ratio{one.Ratio.Ratio, one.Ratio.Low, one.Ratio.High, one.Ratio.Shows()}
		}
		all.Places = append(all.Places, place)
	}
	return writeIndented(out, all)
}

// A comparing is the JSON form of cold rank --by-size, described by docs/rank.schema.json too.
type comparing struct {
	Format    string        `json:"format"`
	Version   int           `json:"version"`
	Problem   string        `json:"problem"`
	Steps     []comparedAt  `json:"steps"`
	Crossings []crossedOver `json:"crossings"`
}

type comparedAt struct {
	Size map[string]int64   `json:"size"`
	CPU  map[string]float64 `json:"cpu_seconds"`
}

type crossedOver struct {
	First string           `json:"faster_below"`
	Other string           `json:"faster_from"`
	Below map[string]int64 `json:"below"`
	From  map[string]int64 `json:"from"`
}

// WriteComparison writes what cold rank --by-size found.
func WriteComparison(out io.Writer, p *problem.Problem, c *growth.Comparison) error {
	all := comparing{Format: "cold-verdict/rank", Version: 1, Problem: p.Title, Steps: []comparedAt{}, Crossings: []crossedOver{}}
	for _, step := range c.Steps {
		one := comparedAt{named(c.Names, step.Sizes), map[string]float64{}}
		for i, took := range step.CPU {
			if took > 0 {
				one.CPU[c.Plans[i].Solution.File] = took.Seconds()
			}
		}
		all.Steps = append(all.Steps, one)
	}
	for _, x := range c.Crossings {
		all.Crossings = append(all.Crossings, crossedOver{c.Plans[x.First].Solution.File, c.Plans[x.Other].Solution.File, named(c.Names, x.Below), named(c.Names, x.From)})
	}
	return writeIndented(out, all)
}

// rankingHead are the columns of the table, as CSV and Markdown have it.
var rankingHead = []string{"solution", "verdict", "cpu_seconds", "slowest_cpu_seconds", "memory_bytes", "source_bytes", "source_lines", "ratio", "ratio_low", "ratio_high"}

func rankingRows(r *rank.Result) (rows [][]string) {
	for _, p := range r.Places {
		row := []string{p.Plan.Solution.File, "ranked", "", "", "", strconv.FormatInt(p.Bytes, 10), strconv.Itoa(p.Lines), "", "", ""}
		if p.Failed != nil {
			row[1] = p.Failed.Verdict.String()
		} else {
			row[2], row[3], row[4] = fmt.Sprintf("%.6f", p.Time.Seconds()), fmt.Sprintf("%.6f", p.Slowest.Seconds()), strconv.FormatInt(p.Memory, 10)
			row[7], row[8], row[9] = fmt.Sprintf("%.3f", p.Ratio.Ratio), fmt.Sprintf("%.3f", p.Ratio.Low), fmt.Sprintf("%.3f", p.Ratio.High)
		}
		rows = append(rows, row)
	}
	return rows
}

// WriteRankingCSV writes the table as CSV, RFC 4180.
func WriteRankingCSV(out io.Writer, r *rank.Result) error {
	w := csv.NewWriter(out)
	if err := w.WriteAll(append([][]string{rankingHead}, rankingRows(r)...)); err != nil {
		return err
	}
	return w.Error()
}

// WriteRankingMarkdown writes the table as Markdown.
func WriteRankingMarkdown(out io.Writer, r *rank.Result) error {
	rows := append([][]string{rankingHead, make([]string, len(rankingHead))}, rankingRows(r)...)
	for i := range rows[1] {
		rows[1][i] = "---"
	}
	for _, row := range rows {
		for i := range row {
			row[i] = strings.ReplaceAll(row[i], "|", "\\|")
		}
		if _, err := fmt.Fprintf(out, "| %s |\n", strings.Join(row, " | ")); err != nil {
			return err
		}
	}
	return nil
}
