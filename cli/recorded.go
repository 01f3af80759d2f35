package cli

import (
	"context"
	"time"

	"coldverdict/core/history"
	"coldverdict/core/problem"
	"coldverdict/term"
)

// historyOf is the history's name for a problem.
func historyOf(p *problem.Problem) (history.Problem, error) {
	return history.NewProblem(p.Dir, p.Name())
}

// noted does something with the history, which is made where there is none. What goes wrong is told beside
// the results: a verdict does not depend on it.
func (a *app) noted(note func(*history.History) error) {
	if a.own != nil && a.own.Forgets {
		return
	}
	path, err := history.DefaultPath()
	if err == nil {
		err = notedAt(path, note)
	}
	if err != nil && !a.complained {
		a.complained = true
		a.screen.Remark("note: the log does not have this: %s; 'history = false' in %s ends these notes", term.Visible(err.Error()), settingsFile)
	}
}

func notedAt(path string, note func(*history.History) error) error {
	h, err := history.Open(path)
	if err != nil {
		return err
	}
	defer h.Close()
	return note(h)
}

// known does something with the history where there is one that is not forgotten. What goes wrong is no matter of
// the result.
func (a *app) known(do func(*history.History) error) {
	path, err := history.DefaultPath()
	if err != nil || a.own != nil && a.own.Forgets {
		return
	}
	h, err := history.OpenExisting(path)
	if err != nil {
		return
	}
	defer h.Close()
	_ = do(h)
}

// noteOpened notes that a problem was opened.
func (a *app) noteOpened(dir, name string) {
	a.noted(func(h *history.History) error {
		p, err := history.NewProblem(dir, name)
		if err != nil {
			return err
		}
		now := time.Now()
		if isNew, err := h.Opened(context.Background(), p, now); err != nil || !isNew {
			return err
		}
		return h.StartClock(context.Background(), history.Clock{Began: now, Problems: []history.Timed{{Problem: p}}}, true)
	})
}

// remember notes attempts in the history, but for those that are no tries of the person's: --every-solution is about
// the problem. It is done even where the command was interrupted since.
func (t *trial) remember(p *problem.Problem, attempts []history.Attempt) {
	if len(attempts) == 0 || t.flags.every {
		return
	}
	t.app.noted(func(h *history.History) error {
		of, err := historyOf(p)
		if err != nil {
			return err
		}
		return h.Record(context.Background(), of, attempts)
	})
}
