package history

import (
	"bytes"
	"compress/flate"
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/json"
	"errors"
	"io"
	"path/filepath"
	"time"

	"coldverdict/core/verdict"
)

// A Problem is what tells a problem from others: its folder.
type Problem struct {
	Folder string // absolute
	Name   string
}

// NewProblem is the problem in a folder.
func NewProblem(folder, name string) (Problem, error) {
	folder, err := filepath.Abs(folder)
	if real, err := filepath.EvalSymlinks(folder); err == nil {
		folder = real
	}
	return Problem{folder, name}, err
}

// Opened notes that a problem was opened, and reports whether that is new. A problem that is known already keeps
// its time.
func (h *History) Opened(ctx context.Context, p Problem, at time.Time) (isNew bool, err error) {
	err = h.change(ctx, func(tx *sql.Tx) error {
		if err := tx.QueryRow("SELECT NOT EXISTS (SELECT 1 FROM problem WHERE folder = ?)", p.Folder).Scan(&isNew); err != nil {
			return err
		}
		_, err := problemID(tx, p, at)
		return err
	})
	return isNew, h.of(err)
}

// Record notes attempts at a problem, and numbers them.
func (h *History) Record(ctx context.Context, p Problem, attempts []Attempt) error {
	return h.of(h.change(ctx, func(tx *sql.Tx) error {
		if len(attempts) == 0 {
			return nil
		}
		id, err := problemID(tx, p, attempts[0].At)
		if err != nil {
			return err
		}
		for i := range attempts {
			if err := record(tx, id, &attempts[i]); err != nil {
				return err
			}
		}
		return nil
	}))
}

// problemID returns the row of a problem, which is made where there is none.
func problemID(tx *sql.Tx, p Problem, opened time.Time) (id int64, err error) {
	if _, err = tx.Exec("INSERT INTO problem (folder, name, opened) VALUES (?, ?, ?) ON CONFLICT (folder) DO UPDATE SET name = excluded.name", p.Folder, p.Name, opened.UnixMilli()); err != nil {
		return 0, err
	}
	err = tx.QueryRow("SELECT id FROM problem WHERE folder = ?", p.Folder).Scan(&id)
	return id, err
}

// details are what is kept of an attempt in one column.
type details struct {
	Groups  []Group  `json:"groups,omitempty"`
	Answers []Answer `json:"answers,omitempty"`
}

func record(tx *sql.Tx, problem int64, a *Attempt) error {
	source, err := sourceID(tx, a.Source)
	if err != nil {
		return err
	}
	kept, err := json.Marshal(details{a.Groups, a.Answers[:min(len(a.Answers), mostNoted)]})
	if err != nil {
		return err
	}
	args, err := json.Marshal(a.Args)
	if err != nil {
		return err
	}
	if err := tx.QueryRow("UPDATE problem SET numbers = numbers + 1 WHERE id = ? RETURNING numbers", problem).Scan(&a.Number); err != nil {
		return err
	}
	if a.Command != Kept {
		if err := count(tx, problem, a); err != nil {
			return err
		}
	}
	_, err = tx.Exec(`INSERT INTO attempt (problem, number, at, command, file, args, language, source, verdict, message, whole, solves, passed, cases,
		cpu, memory, time_limit, memory_limit, points, possible, details) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
		problem, a.Number, a.At.UnixMilli(), a.Command, a.File, args, a.Language, source, a.Verdict.String(), a.Message, a.Whole, a.Solves, a.Passed, a.Cases,
		int64(a.CPU), a.Memory, int64(a.Limits.Time), a.Limits.Memory, a.Points, a.Possible, kept)
	return err
}

// count adds an attempt to the sums of its problem.
func count(tx *sql.Tx, problem int64, a *Attempt) error {
	var solves bool
	if err := tx.QueryRow(`UPDATE problem SET tries = tries + 1, refused = refused + ?, last = ?, solved = coalesce(solved, iif(?, numbers, NULL))
		WHERE id = ? RETURNING coalesce(solved = numbers, 0)`, a.Refused(), a.At.UnixMilli(), a.Solves, problem).Scan(&solves); err != nil {
		return err
	}
	_, err := tx.Exec(`INSERT INTO tally (problem, week, language, tries, accepted, solved) VALUES (?, ?, ?, 1, ?, ?)
		ON CONFLICT DO UPDATE SET tries = tries + 1, accepted = accepted + excluded.accepted, solved = solved + excluded.solved`,
		problem, week(a.At), a.Language, a.Verdict == verdict.Accepted, solves)
	return err
}

// week is the Monday of the week in which a moment lies, where the person is.
func week(at time.Time) string {
	at = at.Local()
	return at.AddDate(0, 0, -(int(at.Weekday())+6)%7).Format(time.DateOnly)
}

// sourceID returns the row of a text, which is made where there is none; nil for no text.
func sourceID(tx *sql.Tx, text []byte) (any, error) {
	if text == nil || len(text) > MostSource {
		return nil, nil
	}
	hash := sha256.Sum256(text)
	var id int64
	err := tx.QueryRow("SELECT id FROM source WHERE hash = ?", hash[:]).Scan(&id)
	if err == nil || !errors.Is(err, sql.ErrNoRows) {
		return id, err
	}
	packed, err := compressed(text)
	if err != nil {
		return nil, err
	}
	err = tx.QueryRow("INSERT INTO source (hash, text) VALUES (?, ?) RETURNING id", hash[:], packed).Scan(&id)
	return id, err
}

func compressed(text []byte) ([]byte, error) {
	var packed bytes.Buffer
	w, err := flate.NewWriter(&packed, flate.DefaultCompression)
	if err != nil {
		return nil, err
	}
	_, err = w.Write(text)
	err = errors.Join(err, w.Close())
	return packed.Bytes(), err
}

func decompressed(packed []byte) ([]byte, error) {
	return io.ReadAll(io.LimitReader(flate.NewReader(bytes.NewReader(packed)), MostSource))
}

// parseVerdict reads a verdict that was noted; one of another version is unjudged.
func parseVerdict(text string) verdict.Verdict {
	v, _ := verdict.Parse(text)
	return v
}
