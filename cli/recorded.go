package cli

import (
	"context"
	"time"

	"coldverdict/core/history"
	"coldverdict/core/judge"
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

// noteOpened notes that a problem was opened.
func (a *app) noteOpened(dir, name string) {
	a.noted(func(h *history.History) error {
		p, err := history.NewProblem(dir, name)
		if err != nil {
			return err
		}
		return h.Opened(context.Background(), p, time.Now())
	})
}

// noteAttempts notes what a recorder has. It is done even where the command was interrupted since.
func (a *app) noteAttempts(p *problem.Problem, attempts []history.Attempt) {
	if len(attempts) == 0 {
		return
	}
	a.noted(func(h *history.History) error {
		of, err := historyOf(p)
		if err != nil {
			return err
		}
		return h.Record(context.Background(), of, attempts)
	})
}

// recorder returns what makes attempts of the events of a command; nil: they are not a person's tries.
func (t *trial) recorder(p *problem.Problem) *history.Recorder {
	f := t.flags
	if f.every || t.app.own != nil && t.app.own.Forgets {
		return nil
	}
	return history.NewRecorder(p, history.Options{Command: "try", Eased: f.checked || f.run.time != "" || f.run.memory != ""}, time.Now)
}

// tellRecorder tells an event to a recorder, if there is one.
func tellRecorder(r *history.Recorder, event judge.Event) {
	if r != nil {
		r.Tell(event)
	}
}
