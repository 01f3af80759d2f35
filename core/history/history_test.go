package history

import (
	"context"
	"database/sql"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
)

func TestMain(m *testing.M) {
	if path := os.Getenv("COLD_TEST_HISTORY"); path != "" {
		recordForever(path)
	}
	os.Exit(m.Run())
}

var (
	teams  = Problem{Folder: "/hoarfrost/teams", Name: "teams"}
	depots = Problem{Folder: "/hoarfrost/depots", Name: "depots"}
	monday = time.Date(2026, 11, 30, 9, 0, 0, 0, time.Local)
)

func opened(t *testing.T) *History {
	t.Helper()
	h, err := Open(filepath.Join(t.TempDir(), "state", "history.db"))
	require.NoError(t, err)
	t.Cleanup(func() { h.Close() })
	return h
}

// tried is an attempt some minutes after monday.
func tried(minutes int, v verdict.Verdict, source string) Attempt {
	return Attempt{At: monday.Add(time.Duration(minutes) * time.Minute), Command: "try", File: "teams.cpp", Args: []string{"longest"}, Language: "cpp",
		Source: []byte(source), Verdict: v, Message: "line 1", Whole: true, Solves: v == verdict.Accepted, Passed: 2, Cases: 3, CPU: 3 * time.Millisecond, Memory: 1 << 20,
		Limits: verdict.Limits{Time: time.Second, Memory: 1 << 28}, Groups: []Group{{"samples", v, 2, 3}}, Answers: []Answer{{"longest/logbook", "42", "open"}}}
}

func TestAnAttemptComesBackAsItWasNoted(t *testing.T) {
	h, ctx := opened(t), context.Background()
	_, err := h.Opened(ctx, teams, monday)
	require.NoError(t, err)
	half := 2.5
	noted := tried(7, verdict.WrongAnswer, "int main() {}\n")
	noted.Points, noted.Possible = &half, 10
	require.NoError(t, h.Record(ctx, teams, []Attempt{noted}))
	got, err := h.Attempt(ctx, teams, 1)
	require.NoError(t, err)
	assert.Equal(t, 7*time.Minute, got.SinceOpened)
	noted.Number, noted.SinceOpened = 1, got.SinceOpened
	assert.WithinDuration(t, noted.At, got.At, 0)
	got.At = noted.At
	assert.Equal(t, noted, got)

	_, err = h.Attempt(ctx, teams, 2)
	var unknown *UnknownError
	assert.ErrorAs(t, err, &unknown)
	_, err = h.Overview(ctx, depots)
	assert.ErrorAs(t, err, &unknown, "another problem has none of it")
}

func TestAProblemIsSolvedOnceAllCasesPass(t *testing.T) {
	h, ctx := opened(t), context.Background()
	some := tried(3, verdict.Accepted, "c")
	some.Whole, some.Solves = false, false
	_, err := h.Opened(ctx, teams, monday)
	require.NoError(t, err)
	require.NoError(t, h.Record(ctx, teams, []Attempt{tried(1, verdict.WrongAnswer, "a"), tried(2, verdict.Unjudged, "b"), some}))
	o, err := h.Overview(ctx, teams)
	require.NoError(t, err)
	assert.Nil(t, o.Solved, "a part of the cases proves nothing")
	assert.Equal(t, [2]int{3, 1}, [2]int{o.Tries, o.Refused}, "what nobody can judge is not refused")

	require.NoError(t, h.Record(ctx, teams, []Attempt{tried(4, verdict.Accepted, "d"), tried(9, verdict.WrongAnswer, "e"), tried(10, verdict.Accepted, "f")}))
	o, err = h.Overview(ctx, teams)
	require.NoError(t, err)
	require.NotNil(t, o.Solved)
	assert.Equal(t, 4, o.Solved.Number, "the first time counts")
	assert.Equal(t, 4*time.Minute, o.Solved.SinceOpened)
	assert.Equal(t, monday.Add(10*time.Minute).UnixMilli(), o.Last.UnixMilli())

	last, err := h.Attempts(ctx, teams, "", 2)
	require.NoError(t, err)
	assert.Equal(t, []int{5, 6}, []int{last[0].Number, last[1].Number})
	none, err := h.Attempts(ctx, teams, "other.py", 0)
	require.NoError(t, err)
	assert.Empty(t, none)
}

func TestATimeIsComparedWithOnesOwnPast(t *testing.T) {
	h, ctx := opened(t), context.Background()
	var list []Attempt
	for i, ms := range []int{10, 20, 20, 40} { // the two of 20 ms are one source
		one := tried(i, verdict.Accepted, strconv.Itoa(ms))
		one.CPU = time.Duration(ms) * time.Millisecond
		list = append(list, one)
	}
	some := tried(9, verdict.Accepted, "part")
	some.Whole, some.CPU = false, time.Millisecond
	require.NoError(t, h.Record(ctx, teams, append(list, some, tried(10, verdict.WrongAnswer, "wrong"))))
	s, err := h.Standing(ctx, teams, 15*time.Millisecond, []byte("new"))
	require.NoError(t, err)
	assert.Equal(t, Standing{Faster: 2, Of: 3, Least: 10 * time.Millisecond, Most: 40 * time.Millisecond}, s)
	s, err = h.Standing(ctx, teams, 15*time.Millisecond, []byte("40"))
	require.NoError(t, err)
	assert.Equal(t, [2]int{1, 2}, [2]int{s.Faster, s.Of}, "no source is compared with itself")
	s, err = h.Standing(ctx, depots, 1, nil)
	require.NoError(t, err)
	assert.Zero(t, s)
}

func TestCountsAreByLanguageAndByWeek(t *testing.T) {
	h, ctx := opened(t), context.Background()
	python := tried(60, verdict.Accepted, "p")
	python.Language = "python"
	sunday := tried(-1, verdict.WrongAnswer, "s") // a minute is not enough: nine o'clock is on the same day
	sunday.At = monday.Add(-10 * time.Hour)
	require.NoError(t, h.Record(ctx, teams, []Attempt{sunday, tried(0, verdict.WrongAnswer, "a"), tried(1, verdict.Accepted, "b"), tried(2, verdict.Accepted, "b")}))
	require.NoError(t, h.Record(ctx, depots, []Attempt{python}))
	languages, err := h.ByLanguage(ctx)
	require.NoError(t, err)
	assert.Equal(t, []Count{{"cpp", 4, 2, 1}, {"python", 1, 1, 1}}, languages)
	weeks, err := h.ByWeek(ctx)
	require.NoError(t, err)
	assert.Equal(t, []Count{{"2026-11-30", 4, 3, 2}, {"2026-11-23", 1, 0, 0}}, weeks)
}

func TestWhatIsForgottenIsInNoFileAnyMore(t *testing.T) {
	h, ctx := opened(t), context.Background()
	secret := tried(1, verdict.WrongAnswer, "x")
	secret.Message = "the beacon is called Rimefall"
	require.NoError(t, h.Record(ctx, teams, []Attempt{secret}))
	require.NoError(t, h.Record(ctx, depots, []Attempt{tried(1, verdict.Accepted, "y")}))
	n, err := h.Forget(ctx, teams)
	require.NoError(t, err)
	assert.Equal(t, 1, n)
	left, err := h.Problems(ctx)
	require.NoError(t, err)
	require.Len(t, left, 1)
	assert.Equal(t, depots, left[0].Problem)
	files, err := filepath.Glob(h.path + "*")
	require.NoError(t, err)
	for _, file := range files {
		text, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.NotContains(t, string(text), "Rimefall", file)
	}
	_, err = h.Forget(ctx)
	require.NoError(t, err)
	left, err = h.Problems(ctx)
	require.NoError(t, err)
	assert.Empty(t, left)
}

func TestSeveralProcessesNoteAtOnce(t *testing.T) {
	path := filepath.Join(t.TempDir(), "history.db")
	var all sync.WaitGroup
	for range 8 {
		all.Go(func() { // each opens the file by itself, as processes do
			h, err := Open(path)
			if assert.NoError(t, err) {
				for n := range 20 {
					assert.NoError(t, h.Record(context.Background(), teams, []Attempt{tried(n, verdict.WrongAnswer, strconv.Itoa(n))}))
				}
				assert.NoError(t, h.Close())
			}
		})
	}
	all.Wait()
	h, err := OpenExisting(path)
	require.NoError(t, err)
	defer h.Close()
	list, err := h.Attempts(context.Background(), teams, "", 0)
	require.NoError(t, err)
	require.Len(t, list, 160)
	for i, a := range list {
		require.Equal(t, i+1, a.Number)
	}
}

// recordForever notes attempts, and says after each how many there are.
func recordForever(path string) {
	h, err := Open(path)
	for n := 1; err == nil; n++ {
		if err = h.Record(context.Background(), teams, []Attempt{tried(n, verdict.WrongAnswer, strings.Repeat(strconv.Itoa(n), 1000))}); err == nil {
			fmt.Println(n)
		}
	}
	fmt.Fprintln(os.Stderr, err)
	os.Exit(1)
}

func TestAKillLosesNothingThatWasNoted(t *testing.T) {
	for round := range 5 {
		path := filepath.Join(t.TempDir(), "history.db")
		self, err := os.Executable()
		require.NoError(t, err)
		process := exec.Command(self)
		process.Env = append(os.Environ(), "COLD_TEST_HISTORY="+path)
		out, err := process.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, process.Start())
		noted := 0
		for noted < 20+round*37 {
			_, err := fmt.Fscan(out, &noted)
			require.NoError(t, err)
		}
		require.NoError(t, process.Process.Signal(syscall.SIGKILL))
		process.Wait()
		h, err := OpenExisting(path)
		require.NoError(t, err)
		list, err := h.Attempts(context.Background(), teams, "", 0)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, len(list), noted)
		a, err := h.Attempt(context.Background(), teams, len(list))
		require.NoError(t, err)
		assert.Equal(t, strings.Repeat(strconv.Itoa(len(list)), 1000), string(a.Source))
		require.NoError(t, h.Record(context.Background(), teams, []Attempt{tried(1, verdict.Accepted, "after")}))
		require.NoError(t, h.Close())
	}
}

func TestWhatIsNoHistoryIsLeftAsItIs(t *testing.T) {
	dir := t.TempDir()
	for name, row := range map[string]struct{ text, says string }{
		"a text":          {strings.Repeat("no database, but long enough\n", 100), "not a database"},
		"a newer history": {"", "newer version of cold"},
	} {
		t.Run(name, func(t *testing.T) {
			path := filepath.Join(dir, name)
			if row.text != "" {
				require.NoError(t, os.WriteFile(path, []byte(row.text), 0o600))
			} else {
				db, err := sql.Open("sqlite", path)
				require.NoError(t, err)
				_, err = db.Exec("PRAGMA user_version = 99")
				require.NoError(t, err)
				require.NoError(t, db.Close())
			}
			before, err := os.ReadFile(path)
			require.NoError(t, err)
			_, err = Open(path)
			require.ErrorContains(t, err, row.says)
			assert.ErrorContains(t, err, path)
			after, err := os.ReadFile(path)
			require.NoError(t, err)
			assert.Equal(t, before[:18], after[:18])
			assert.Len(t, after, len(before))
		})
	}
	_, err := OpenExisting(filepath.Join(dir, "none"))
	assert.ErrorIs(t, err, fs.ErrNotExist)
}

func TestAFullDiskEndsOneNoteAndHarmsNothing(t *testing.T) {
	h, ctx := opened(t), context.Background()
	require.NoError(t, h.Record(ctx, teams, []Attempt{tried(1, verdict.WrongAnswer, "a")}))
	var pages int
	require.NoError(t, h.db.QueryRow("PRAGMA page_count").Scan(&pages))
	_, err := h.db.Exec(fmt.Sprintf("PRAGMA max_page_count = %d", pages+2)) // which fails as a full disk does
	require.NoError(t, err)
	large := tried(2, verdict.WrongAnswer, "b")
	large.Message = strings.Repeat("m", 100_000)
	require.ErrorContains(t, h.Record(ctx, teams, []Attempt{tried(2, verdict.WrongAnswer, "b"), large}), "full")
	list, err := h.Attempts(ctx, teams, "", 0)
	require.NoError(t, err)
	assert.Len(t, list, 1, "all attempts of one note are there, or none")
	_, err = h.db.Exec("PRAGMA max_page_count = 1000000")
	require.NoError(t, err)
	require.NoError(t, h.Record(ctx, teams, []Attempt{large}))
}
