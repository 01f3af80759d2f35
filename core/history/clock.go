package history

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"
)

// A Clock measures how long problems take: one, from when it was opened, or several of a contest. It waits for
// nothing and ends nothing; it only says what time it is.
type Clock struct {
	Began    time.Time
	Ended    time.Time     // zero: it goes on
	Length   time.Duration // of a contest; 0: it has no end of its own
	Penalty  time.Duration // for each submission that was wrong, once the problem is solved
	Problems []Timed
}

// A Timed is a problem of a clock.
type Timed struct {
	Problem
	Ended time.Time // zero: it goes on
	Wrong int       // submissions that were wrong
}

// Taken is how long a problem took, or takes so far, with its penalties where it has ended.
func (c *Clock) Taken(t Timed, now time.Time) time.Duration {
	if t.Ended.IsZero() {
		if !c.Ended.IsZero() {
			now = c.Ended
		}
		return now.Sub(c.Began)
	}
	return t.Ended.Sub(c.Began) + time.Duration(t.Wrong)*c.Penalty
}

// Left is how much is left of a contest: negative where it is over; ok is false where a clock has no end.
func (c *Clock) Left(now time.Time) (left time.Duration, ok bool) {
	return c.Began.Add(c.Length).Sub(now), c.Length > 0
}

// Running returns the clock that goes on for a problem, the one that began last; nil: there is none. With an empty
// problem it is any clock of several problems, and else any.
func (h *History) Running(ctx context.Context, p Problem) (*Clock, error) {
	var c *Clock
	err := h.change(ctx, func(tx *sql.Tx) (err error) {
		id, err := running(tx, p)
		if err != nil || id == 0 {
			return err
		}
		c, err = readClock(tx, id)
		return err
	})
	return c, h.of(err)
}

func running(tx *sql.Tx, p Problem) (id int64, err error) {
	query := "SELECT c.id FROM clock c WHERE c.ended IS NULL ORDER BY (SELECT count(*) > 1 FROM clocked WHERE clock = c.id) DESC, c.began DESC, c.id DESC LIMIT 1"
	values := []any{}
	if p.Folder != "" {
		query = `SELECT c.id FROM clock c JOIN clocked k ON k.clock = c.id JOIN problem p ON p.id = k.problem
			WHERE c.ended IS NULL AND p.folder = ? ORDER BY c.began DESC, c.id DESC LIMIT 1`
		values = append(values, p.Folder)
	}
	err = tx.QueryRow(query, values...).Scan(&id)
	if errors.Is(err, sql.ErrNoRows) {
		return 0, nil
	}
	return id, err
}

func readClock(tx *sql.Tx, id int64) (*Clock, error) {
	var c Clock
	var began, length, penalty int64
	var ended sql.NullInt64
	if err := tx.QueryRow("SELECT began, ended, length, penalty FROM clock WHERE id = ?", id).Scan(&began, &ended, &length, &penalty); err != nil {
		return nil, err
	}
	c.Began, c.Ended = time.UnixMilli(began), moment(ended)
	c.Length, c.Penalty = time.Duration(length)*time.Millisecond, time.Duration(penalty)*time.Millisecond
	rows, err := tx.Query("SELECT p.folder, p.name, k.ended, k.wrong FROM clocked k JOIN problem p ON p.id = k.problem WHERE k.clock = ? ORDER BY k.place", id)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	for rows.Next() {
		var t Timed
		if err := rows.Scan(&t.Folder, &t.Name, &ended, &t.Wrong); err != nil {
			return nil, err
		}
		t.Ended = moment(ended)
		c.Problems = append(c.Problems, t)
	}
	return &c, rows.Err()
}

func moment(ms sql.NullInt64) time.Time {
	if !ms.Valid {
		return time.Time{}
	}
	return time.UnixMilli(ms.Int64)
}

// StartClock starts a clock for problems. The error is an UnknownError where one of them has a clock already, unless
// gently, which leaves that as it is.
func (h *History) StartClock(ctx context.Context, c Clock, gently bool) error {
	err := h.change(ctx, func(tx *sql.Tx) error {
		for _, t := range c.Problems {
			id, err := running(tx, t.Problem)
			switch {
			case err != nil:
				return err
			case id != 0 && gently:
				return nil
			case id != 0:
				return &UnknownError{fmt.Sprintf("a clock goes on for %s already; 'cold clock stop' ends it", t.Name)}
			}
		}
		return insertClock(tx, c)
	})
	return h.of(err)
}

func insertClock(tx *sql.Tx, c Clock) error {
	var id int64
	if err := tx.QueryRow("INSERT INTO clock (began, length, penalty) VALUES (?, ?, ?) RETURNING id", c.Began.UnixMilli(), c.Length.Milliseconds(), c.Penalty.Milliseconds()).Scan(&id); err != nil {
		return err
	}
	for place, t := range c.Problems {
		problem, err := problemID(tx, t.Problem, c.Began)
		if err != nil {
			return err
		}
		if _, err := tx.Exec("INSERT INTO clocked (clock, problem, place) VALUES (?, ?, ?)", id, problem, place); err != nil {
			return err
		}
	}
	return nil
}

// StopClock ends a problem's part of the clock that goes on for it, and the clock with its last problem. Without a
// problem it ends the clock whole. It returns the clock; nil: none goes on.
func (h *History) StopClock(ctx context.Context, p Problem, at time.Time) (c *Clock, err error) {
	err = h.change(ctx, func(tx *sql.Tx) error {
		id, err := running(tx, p)
		if err != nil || id == 0 {
			return err
		}
		if p.Folder != "" {
			if _, err := tx.Exec("UPDATE clocked SET ended = coalesce(ended, ?) WHERE clock = ? AND problem = (SELECT id FROM problem WHERE folder = ?)", at.UnixMilli(), id, p.Folder); err != nil {
				return err
			}
		}
		if _, err := tx.Exec("UPDATE clock SET ended = ? WHERE id = ? AND (? OR NOT EXISTS (SELECT 1 FROM clocked WHERE clock = ? AND ended IS NULL))", at.UnixMilli(), id, p.Folder == "", id); err != nil {
			return err
		}
		c, err = readClock(tx, id)
		return err
	})
	return c, h.of(err)
}

// Wrong notes that a submission of a problem was wrong. It returns the clock; nil: none goes on for it.
func (h *History) Wrong(ctx context.Context, p Problem) (c *Clock, err error) {
	err = h.change(ctx, func(tx *sql.Tx) error {
		id, err := running(tx, p)
		if err != nil || id == 0 {
			return err
		}
		if _, err := tx.Exec("UPDATE clocked SET wrong = wrong + 1 WHERE clock = ? AND problem = (SELECT id FROM problem WHERE folder = ?)", id, p.Folder); err != nil {
			return err
		}
		c, err = readClock(tx, id)
		return err
	})
	return c, h.of(err)
}
