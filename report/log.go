package report

import (
	"encoding/csv"
	"io"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/history"
	"coldverdict/core/verdict"
)

// A log is the JSON form of cold log, described by docs/log.schema.json.
type log struct {
	Format   string          `json:"format"`
	Version  int             `json:"version"`
	Problems []loggedProblem `json:"problems"`
	Tries    []loggedTry     `json:"tries,omitempty"`
	Language []loggedCount   `json:"by_language,omitempty"`
	Weeks    []loggedCount   `json:"by_week,omitempty"`
}

type loggedProblem struct {
	Name    string     `json:"name"`
	Folder  string     `json:"folder"`
	Opened  time.Time  `json:"opened"`
	Last    *time.Time `json:"last,omitempty"`
	Tries   int        `json:"tries"`
	Refused int        `json:"not_accepted"`
	Solved  *solvedBy  `json:"solved,omitempty"`
}

type solvedBy struct {
	Number  int       `json:"number"`
	At      time.Time `json:"at"`
	Seconds float64   `json:"seconds_since_opened"`
	File    string    `json:"file"`
}

type loggedTry struct {
	Number   int             `json:"number"`
	At       time.Time       `json:"at"`
	Seconds  float64         `json:"seconds_since_opened"`
	Command  string          `json:"command"`
	File     string          `json:"file"`
	Args     []string        `json:"args,omitempty"`
	Language string          `json:"language,omitempty"`
	Verdict  verdict.Verdict `json:"verdict"`
	Message  string          `json:"message,omitempty"`
	Whole    bool            `json:"all_cases"`
	Passed   int             `json:"passed"`
	Cases    int             `json:"cases"`
	CPU      *float64        `json:"cpu_seconds,omitempty"`
	Memory   *int64          `json:"memory_bytes,omitempty"`
	Points   *float64        `json:"points,omitempty"`
	Possible *float64        `json:"points_possible,omitempty"`
	Groups   []loggedGroup   `json:"groups,omitempty"`
	Answers  []loggedAnswer  `json:"answers,omitempty"`
}

type loggedGroup struct {
	Name    string          `json:"name"`
	Verdict verdict.Verdict `json:"verdict"`
	Passed  int             `json:"passed"`
	Cases   int             `json:"cases"`
}

type loggedAnswer struct {
	Case  string `json:"case"`
	Text  string `json:"text"`
	State string `json:"state"`
}

type loggedCount struct {
	Of       string `json:"of"`
	Tries    int    `json:"tries"`
	Accepted int    `json:"accepted"`
	Solved   int    `json:"solved"`
}

func newLog() log { return log{Format: "cold-verdict/log", Version: 1, Problems: []loggedProblem{}} }

func newLoggedProblem(o history.Overview) loggedProblem {
	p := loggedProblem{Name: o.Name, Folder: o.Folder, Opened: o.Opened, Tries: o.Tries, Refused: o.Refused}
	if !o.Last.IsZero() {
		p.Last = &o.Last
	}
	if s := o.Solved; s != nil {
		p.Solved = &solvedBy{s.Number, s.At, s.SinceOpened.Seconds(), s.File}
	}
	return p
}

func newLoggedTry(a history.Attempt) loggedTry {
	one := loggedTry{Number: a.Number, At: a.At, Seconds: a.SinceOpened.Seconds(), Command: a.Command, File: a.File, Args: a.Args, Language: a.Language,
		Verdict: a.Verdict, Message: a.Message, Whole: a.Whole, Passed: a.Passed, Cases: a.Cases, Points: a.Points}
	if a.Cases > 0 {
		cpu := a.CPU.Seconds()
		one.CPU, one.Memory = &cpu, &a.Memory
	}
	if a.Possible > 0 {
		one.Possible = &a.Possible
	}
	for _, g := range a.Groups {
		one.Groups = append(one.Groups, loggedGroup(g))
	}
	for _, answer := range a.Answers {
		one.Answers = append(one.Answers, loggedAnswer(answer))
	}
	return one
}

// WriteLog writes the tries of a problem as JSON.
func WriteLog(out io.Writer, o history.Overview, list []history.Attempt) error {
	all := newLog()
	all.Problems = append(all.Problems, newLoggedProblem(o))
	for _, a := range list {
		all.Tries = append(all.Tries, newLoggedTry(a))
	}
	return writeIndented(out, all)
}

// WriteProblems writes all problems as JSON.
func WriteProblems(out io.Writer, list []history.Overview, languages, weeks []history.Count) error {
	all := newLog()
	for _, o := range list {
		all.Problems = append(all.Problems, newLoggedProblem(o))
	}
	for _, c := range languages {
		all.Language = append(all.Language, loggedCount(c))
	}
	for _, c := range weeks {
		all.Weeks = append(all.Weeks, loggedCount(c))
	}
	return writeIndented(out, all)
}

// WriteLogCSV writes the tries of a problem as CSV, RFC 4180.
func WriteLogCSV(out io.Writer, list []history.Attempt) error {
	rows := [][]string{{"number", "at", "seconds_since_opened", "command", "file", "args", "language", "verdict", "message", "all_cases", "passed", "cases", "cpu_seconds", "memory_bytes", "points"}}
	for _, a := range list {
		given := ""
		if a.Points != nil {
			given = number(*a.Points)
		}
		rows = append(rows, []string{strconv.Itoa(a.Number), a.At.Format(time.RFC3339), number(a.SinceOpened.Seconds()), a.Command, a.File, strings.Join(a.Args, " "), a.Language,
			a.Verdict.String(), a.Message, strconv.FormatBool(a.Whole), strconv.Itoa(a.Passed), strconv.Itoa(a.Cases), number(a.CPU.Seconds()), strconv.FormatInt(a.Memory, 10), given})
	}
	return csv.NewWriter(out).WriteAll(rows)
}

// WriteProblemsCSV writes all problems as CSV, RFC 4180.
func WriteProblemsCSV(out io.Writer, list []history.Overview) error {
	rows := [][]string{{"problem", "folder", "opened", "tries", "not_accepted", "solved_with", "seconds_to_solve", "solved_in"}}
	for _, o := range list {
		row := []string{o.Name, o.Folder, o.Opened.Format(time.RFC3339), strconv.Itoa(o.Tries), strconv.Itoa(o.Refused), "", "", ""}
		if s := o.Solved; s != nil {
			row[5], row[6], row[7] = strconv.Itoa(s.Number), number(s.SinceOpened.Seconds()), s.File
		}
		rows = append(rows, row)
	}
	return csv.NewWriter(out).WriteAll(rows)
}

// number is a number as CSV has it, in as few digits as tell it.
func number(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
