package history

import (
	"cmp"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"time"

	"coldverdict/core/verdict"
)

// An Overview is what is known of a problem as a whole.
type Overview struct {
	Problem
	Opened  time.Time
	Tries   int
	Refused int       // tries that were not accepted
	Last    time.Time // of the last try; zero: there was none
	Solved  *Attempt  // the first that solved it; nil: none did
}

// An UnknownError says that the history holds nothing of what was asked for.
type UnknownError struct{ Text string }

func (e *UnknownError) Error() string { return e.Text }

// attemptColumns are the columns that scanAttempt reads.
const attemptColumns = `a.number, a.at, a.command, a.file, a.args, a.language, a.verdict, a.message, a.whole, a.solves, a.passed, a.cases,
	a.cpu, a.memory, a.time_limit, a.memory_limit, a.points, a.possible, a.details, p.opened`

// Overview returns what is known of a problem. The error is an UnknownError where it was never tried.
func (h *History) Overview(ctx context.Context, p Problem) (Overview, error) {
	list, err := h.overviews(ctx, "WHERE p.folder = ?", p.Folder)
	if err == nil && len(list) == 0 {
		err = &UnknownError{fmt.Sprintf("nothing was tried in %s yet; 'cold try' notes what it runs", p.Folder)}
	}
	if err != nil {
		return Overview{}, err
	}
	return list[0], nil
}

// Problems returns all problems, that of the last try first.
func (h *History) Problems(ctx context.Context) ([]Overview, error) {
	return h.overviews(ctx, "ORDER BY coalesce(p.last, p.opened) DESC, p.id DESC")
}

func (h *History) overviews(ctx context.Context, which string, values ...any) (list []Overview, err error) {
	rows, err := h.db.QueryContext(ctx, `SELECT p.folder, p.name, p.opened, coalesce(p.last, 0), p.tries, p.refused,
		p.solved IS NOT NULL, coalesce(p.solved, 0), coalesce(a.at, p.opened), coalesce(a.file, ''), coalesce(a.language, '')
		FROM problem p LEFT JOIN attempt a ON a.problem = p.id AND a.number = p.solved `+which, values...)
	if err != nil {
		return nil, h.of(err)
	}
	defer rows.Close()
	for rows.Next() {
		var o Overview
		var opened, last, at int64
		var solved bool
		var first Attempt
		if err := rows.Scan(&o.Folder, &o.Name, &opened, &last, &o.Tries, &o.Refused, &solved, &first.Number, &at, &first.File, &first.Language); err != nil {
			return nil, h.of(err)
		}
		o.Opened = time.UnixMilli(opened)
		if last > 0 {
			o.Last = time.UnixMilli(last)
		}
		if solved {
			first.At = time.UnixMilli(at)
			first.SinceOpened = first.At.Sub(o.Opened)
			first.Verdict, first.Solves = verdict.Accepted, true
			o.Solved = &first
		}
		list = append(list, o)
	}
	return list, h.of(rows.Err())
}

// Attempts returns the last attempts at a problem, the oldest of them first, without their sources;
// file selects those of one file, and most bounds them, if it is above 0.
func (h *History) Attempts(ctx context.Context, p Problem, file string, most int) (list []Attempt, err error) {
	query := "SELECT " + attemptColumns + " FROM attempt a JOIN problem p ON p.id = a.problem WHERE p.folder = ?"
	values := []any{p.Folder}
	if file != "" {
		query, values = query+" AND a.file = ?", append(values, file)
	}
	query += " ORDER BY a.number DESC"
	if most > 0 {
		query, values = query+" LIMIT ?", append(values, most)
	}
	rows, err := h.db.QueryContext(ctx, query, values...)
	if err != nil {
		return nil, h.of(err)
	}
	defer rows.Close()
	for rows.Next() {
		a, err := scanAttempt(rows)
		if err != nil {
			return nil, h.of(err)
		}
		list = append(list, a)
	}
	for i, j := 0, len(list)-1; i < j; i, j = i+1, j-1 {
		list[i], list[j] = list[j], list[i]
	}
	return list, h.of(rows.Err())
}

// Attempt returns an attempt with its source. The error is an UnknownError where there is none of that number.
func (h *History) Attempt(ctx context.Context, p Problem, number int) (Attempt, error) {
	var packed []byte
	row := h.db.QueryRowContext(ctx, "SELECT "+attemptColumns+", s.text FROM attempt a JOIN problem p ON p.id = a.problem LEFT JOIN source s ON s.id = a.source WHERE p.folder = ? AND a.number = ?", p.Folder, number)
	a, err := scanAttempt(row, &packed)
	switch {
	case errors.Is(err, sql.ErrNoRows):
		return a, &UnknownError{fmt.Sprintf("there is no try number %d; 'cold log' lists them", number)}
	case err == nil && packed != nil:
		a.Source, err = decompressed(packed)
	}
	return a, h.of(err)
}

// scanAttempt reads attemptColumns, and what stands behind them.
func scanAttempt(row interface{ Scan(...any) error }, more ...any) (a Attempt, err error) {
	var at, cpu, limit, opened int64
	var args, words, kept string
	columns := []any{&a.Number, &at, &a.Command, &a.File, &args, &a.Language, &words, &a.Message, &a.Whole, &a.Solves, &a.Passed, &a.Cases,
		&cpu, &a.Memory, &limit, &a.Limits.Memory, &a.Points, &a.Possible, &kept, &opened}
	if err := row.Scan(append(columns, more...)...); err != nil {
		return a, err
	}
	a.At = time.UnixMilli(at)
	a.SinceOpened = a.At.Sub(time.UnixMilli(opened))
	a.CPU, a.Limits.Time, a.Verdict = time.Duration(cpu), time.Duration(limit), parseVerdict(words)
	var d details
	if err := cmp.Or(json.Unmarshal([]byte(args), &a.Args), json.Unmarshal([]byte(kept), &d)); err != nil {
		return a, err
	}
	a.Groups, a.Answers = d.Groups, d.Answers
	return a, nil
}

// A Count is how many tries there were of something, and how they ended.
type Count struct {
	Of              string // a language, or the first day of a week as 2026-11-30
	Tries, Accepted int
	Solved          int // problems that were solved so, or then
}

// ByLanguage counts tries by language, the most used first.
func (h *History) ByLanguage(ctx context.Context) ([]Count, error) {
	return h.counts(ctx, "SELECT language, sum(tries), sum(accepted), sum(solved) FROM tally GROUP BY 1 ORDER BY 2 DESC, 1")
}

// ByWeek counts tries by week, which begin on Mondays, the last first.
func (h *History) ByWeek(ctx context.Context) ([]Count, error) {
	return h.counts(ctx, "SELECT week, sum(tries), sum(accepted), sum(solved) FROM tally GROUP BY 1 ORDER BY 1 DESC")
}

func (h *History) counts(ctx context.Context, query string) (list []Count, err error) {
	rows, err := h.db.QueryContext(ctx, query)
	if err != nil {
		return nil, h.of(err)
	}
	defer rows.Close()
	for rows.Next() {
		var c Count
		if err := rows.Scan(&c.Of, &c.Tries, &c.Accepted, &c.Solved); err != nil {
			return nil, h.of(err)
		}
		list = append(list, c)
	}
	return list, h.of(rows.Err())
}

// Forget deletes all that is known of problems; none are all. It returns how many tries are gone.
func (h *History) Forget(ctx context.Context, problems ...Problem) (tries int, err error) {
	err = h.change(ctx, func(tx *sql.Tx) error {
		where, values := "", []any{}
		if len(problems) > 0 {
			where = " WHERE folder IN (?" + strings.Repeat(", ?", len(problems)-1) + ")"
			for _, p := range problems {
				values = append(values, p.Folder)
			}
		}
		if err := tx.QueryRow("SELECT count(*) FROM attempt WHERE problem IN (SELECT id FROM problem"+where+")", values...).Scan(&tries); err != nil {
			return err
		}
		if _, err := tx.Exec("DELETE FROM problem"+where, values...); err != nil {
			return err
		}
		if _, err := tx.Exec("DELETE FROM clock WHERE id NOT IN (SELECT clock FROM clocked)"); err != nil {
			return err
		}
		_, err := tx.Exec("DELETE FROM source WHERE id NOT IN (SELECT source FROM attempt WHERE source IS NOT NULL)")
		return err
	})
	if err == nil { // what was deleted is not to be found in the file either
		_, err = h.db.ExecContext(ctx, "VACUUM")
	}
	if err == nil {
		_, err = h.db.ExecContext(ctx, "PRAGMA wal_checkpoint(TRUNCATE)")
	}
	return tries, h.of(err)
}

// A Standing is how a time compares with those of tries of one's own.
type Standing struct {
	Faster, Of  int           // it is less than in so many of all accepted tries of other sources
	Least, Most time.Duration // of those tries
}

// Standing compares the time of the slowest case of a solution with those of accepted tries of all cases, but for
// tries of the same text. Of is 0 where there is none.
func (h *History) Standing(ctx context.Context, p Problem, slowest time.Duration, source []byte) (s Standing, err error) {
	hash := sha256.Sum256(source)
	var least, most sql.NullInt64
	err = h.db.QueryRowContext(ctx, `SELECT count(*), coalesce(sum(cpu > ?), 0), min(cpu), max(cpu) FROM (
		SELECT min(a.cpu) AS cpu FROM attempt a JOIN problem p ON p.id = a.problem LEFT JOIN source s ON s.id = a.source
		WHERE p.folder = ? AND a.whole AND a.verdict = 'accepted' AND (s.hash IS NULL OR s.hash <> ?) GROUP BY coalesce(a.source, -a.id))`,
		int64(slowest), p.Folder, hash[:]).Scan(&s.Of, &s.Faster, &least, &most)
	s.Least, s.Most = time.Duration(least.Int64), time.Duration(most.Int64)
	return s, h.of(err)
}
