// Package history remembers what was tried: for every problem when it was opened, and for every
// try of a solution its verdict, its figures, its answers and the text of the source.
//
// It is one SQLite database of the person's. Several processes may use it at once, and one that is
// killed loses nothing but what it was about to note. Sources are kept once, however often they
// were tried, and compressed.
package history

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"modernc.org/sqlite" // also the driver "sqlite"

	"coldverdict/core/verdict"
)

// A History is an open database. Its methods may be called by several goroutines.
type History struct {
	db   *sql.DB
	path string
}

// An Attempt is one try of one solution.
type Attempt struct {
	Number      int           // within its problem, from 1; given by Record
	At          time.Time     // when it began
	SinceOpened time.Duration // since the problem was opened; set when it is read

	Command  string // "try", "ready", or Kept
	File     string // as the person names it within the problem's folder
	Args     []string
	Language string // name of the language; empty: it is not known
	Source   []byte // nil: it was not kept, since it is larger than MostSource

	Verdict verdict.Verdict
	Message string // in addition to the verdict; may be empty
	// Whole says that the cases are all that the problem has for the solution.
	Whole bool
	// Solves says that with this attempt every case of the problem passed, under its limits.
	Solves        bool
	Passed, Cases int
	CPU           time.Duration // the most that a case took
	Memory        int64         // bytes; the most that a case took
	Limits        verdict.Limits
	Points        *float64 // nil: there are none, or they are not known
	Possible      float64
	Groups        []Group  // in the order of the problem
	Answers       []Answer // to cases whose answer was not known or not confirmed
}

// A Group is what a solution reached in a group of cases.
type Group struct {
	Name          string
	Verdict       verdict.Verdict
	Passed, Cases int
}

// An Answer is what a solution answered to a case.
type Answer struct {
	Case  string
	Text  string // at most MostAnswer bytes
	State string // "open", "kept" or "refused"
}

// Bounds of what is kept of a try.
const (
	MostSource = 1 << 20
	MostAnswer = 1 << 10
	mostNoted  = 40 // answers
)

// Kept is the command of an attempt that was never run: a source that was about to be replaced.
const Kept = "kept"

// Refused reports that something did not pass.
func (a Attempt) Refused() bool {
	return !a.Verdict.Passing() && a.Verdict != verdict.Skipped && a.Verdict != verdict.Fault
}

// DefaultPath is where a person's history lies: cold-verdict/history.db under XDG_STATE_HOME, which
// is ~/.local/state where nothing is said. The error says that there is no home folder.
func DefaultPath() (string, error) {
	base := os.Getenv("XDG_STATE_HOME")
	if !filepath.IsAbs(base) { // the specification says that a relative one does not count
		home, err := os.UserHomeDir()
		if err != nil {
			return "", fmt.Errorf("%w; set XDG_STATE_HOME to a folder that can be written", err)
		}
		base = filepath.Join(home, ".local", "state")
	}
	return filepath.Join(base, "cold-verdict", "history.db"), nil
}

// busy is how long a write waits for that of another process.
const busy = 5 * time.Second

// Open opens the history at path, and makes it where there is none.
func Open(path string) (*History, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, err
	}
	return open(path, "rwc")
}

// OpenExisting opens the history at path. The error is fs.ErrNotExist where there is none yet.
func OpenExisting(path string) (*History, error) {
	if _, err := os.Stat(path); err != nil {
		return nil, err
	}
	return open(path, "rw")
}

func open(path, mode string) (*History, error) {
	options := url.Values{"mode": {mode}, "_txlock": {"immediate"}, "_pragma": {
		fmt.Sprintf("busy_timeout(%d)", busy.Milliseconds()), "journal_mode(wal)", "synchronous(normal)", "foreign_keys(1)",
	}}
	name := url.URL{Scheme: "file", OmitHost: true, Path: path, RawQuery: options.Encode()}
	db, err := sql.Open("sqlite", name.String())
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(1)
	h := &History{db: db, path: path}
	// A database that becomes one with a write-ahead log at this moment refuses whoever does the same, without
	// waiting.
	for began := time.Now(); ; time.Sleep(2 * time.Millisecond) {
		err := h.migrate()
		if err == nil {
			return h, nil
		}
		if !isBusy(err) || time.Since(began) > busy {
			db.Close()
			return nil, h.of(err)
		}
	}
}

// isBusy reports that another process has the database.
func isBusy(err error) bool {
	const busyCode, primary = 5, 0xff // SQLITE_BUSY; extended codes stand above the primary ones
	failed, ok := errors.AsType[*sqlite.Error](err)
	return ok && failed.Code()&primary == busyCode
}

// Close closes the database.
func (h *History) Close() error { return h.db.Close() }

// of names the database in an error.
func (h *History) of(err error) error {
	if err == nil || errors.Is(err, context.Canceled) || errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return fmt.Errorf("%s: %w", h.path, err)
}

// changes bring a database from each version of the form to the next. A change that was released
// is never edited: another one follows it.
var changes = []string{`
	CREATE TABLE problem (
		id      INTEGER PRIMARY KEY,
		folder  TEXT NOT NULL UNIQUE,
		name    TEXT NOT NULL,
		opened  INTEGER NOT NULL,           -- milliseconds since 1970, as all times are
		solved  INTEGER,                    -- number of the first try that solved it
		numbers INTEGER NOT NULL DEFAULT 0, -- that were given to attempts
		tries   INTEGER NOT NULL DEFAULT 0, -- attempts that were run
		refused INTEGER NOT NULL DEFAULT 0, -- tries that were not accepted
		last    INTEGER                     -- time of the last try
	);
	CREATE TABLE source (
		id   INTEGER PRIMARY KEY,
		hash BLOB NOT NULL UNIQUE,         -- SHA-256 of the text
		text BLOB NOT NULL                 -- compressed (RFC 1951)
	);
	CREATE TABLE attempt (
		id           INTEGER PRIMARY KEY,
		problem      INTEGER NOT NULL REFERENCES problem ON DELETE CASCADE,
		number       INTEGER NOT NULL,
		at           INTEGER NOT NULL,
		command      TEXT NOT NULL,
		file         TEXT NOT NULL,
		args         TEXT NOT NULL,        -- JSON
		language     TEXT NOT NULL,
		source       INTEGER REFERENCES source,
		verdict      TEXT NOT NULL,
		message      TEXT NOT NULL,
		whole        INTEGER NOT NULL,
		solves       INTEGER NOT NULL,
		passed       INTEGER NOT NULL,
		cases        INTEGER NOT NULL,
		cpu          INTEGER NOT NULL,     -- nanoseconds
		memory       INTEGER NOT NULL,     -- bytes
		time_limit   INTEGER NOT NULL,     -- nanoseconds
		memory_limit INTEGER NOT NULL,     -- bytes
		points       REAL,
		possible     REAL NOT NULL,
		details      TEXT NOT NULL,        -- JSON: groups and answers
		UNIQUE (problem, number)
	);
	CREATE TABLE clock (
		id      INTEGER PRIMARY KEY,
		began   INTEGER NOT NULL,
		ended   INTEGER,
		length  INTEGER NOT NULL,          -- milliseconds; 0: without an end
		penalty INTEGER NOT NULL           -- milliseconds
	);
	CREATE TABLE clocked (                 -- a problem of a clock
		clock   INTEGER NOT NULL REFERENCES clock ON DELETE CASCADE,
		problem INTEGER NOT NULL REFERENCES problem ON DELETE CASCADE,
		place   INTEGER NOT NULL,
		ended   INTEGER,
		wrong   INTEGER NOT NULL DEFAULT 0,
		PRIMARY KEY (clock, problem)
	) WITHOUT ROWID;
	CREATE INDEX attempt_by_source ON attempt (source);
	CREATE TABLE tally (                   -- sums of attempts, so that nobody has to read them all
		problem  INTEGER NOT NULL REFERENCES problem ON DELETE CASCADE,
		week     TEXT NOT NULL,            -- its Monday, as 2026-11-30
		language TEXT NOT NULL,
		tries    INTEGER NOT NULL,
		accepted INTEGER NOT NULL,
		solved   INTEGER NOT NULL,
		PRIMARY KEY (problem, week, language)
	) WITHOUT ROWID;
`}

// migrate brings the database to the form of this version.
func (h *History) migrate() error {
	var version int
	if err := h.db.QueryRow("PRAGMA user_version").Scan(&version); err != nil {
		return err
	}
	switch {
	case version == len(changes):
		return nil
	case version > len(changes):
		return fmt.Errorf("it was written by a newer version of cold (form %d; this one knows %d); use that, or move the file away", version, len(changes))
	}
	return h.change(context.Background(), func(tx *sql.Tx) error {
		if err := tx.QueryRow("PRAGMA user_version").Scan(&version); err != nil {
			return err
		}
		for ; version < len(changes); version++ { // another process may have been faster
			if _, err := tx.Exec(changes[version]); err != nil {
				return err
			}
		}
		_, err := tx.Exec(fmt.Sprintf("PRAGMA user_version = %d", version))
		return err
	})
}

// change makes a change whole, or none.
func (h *History) change(ctx context.Context, do func(*sql.Tx) error) error {
	tx, err := h.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	if err := do(tx); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}
