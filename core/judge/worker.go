package judge

import (
	"context"
	"errors"
	"fmt"
	"os"

	"coldverdict/core/box"
)

// A worker runs programs one at a time in a box that is opened when needed.
type worker struct {
	options box.Options
	box     *box.Box
	number  int
	checker *worker                // runs checkers and interactors for this one's programs; nil: there are none
	there   map[string]os.FileInfo // what programs may read, as it was found first
}

func (w *worker) open() (err error) {
	if w.box == nil {
		w.box, err = box.Open(w.options)
	}
	return err
}

// Contains reports that programs which run here are kept from files.
func (w *worker) Contains() bool { return !w.options.Uncontained }

func (w *worker) close() (err error) {
	if w.box != nil {
		err = w.box.Close()
		w.box = nil
	}
	return err
}

// Run implements toolchain.Runner. A box that was lost is replaced before the
// next run.
func (w *worker) Run(ctx context.Context, run box.Run) (result box.Result, err error) {
	if err := w.open(); err != nil {
		return box.Result{}, err
	}
	w.lookFor(run.Program.Reads)
	if result, err = w.box.Run(ctx, run); errors.Is(err, box.ErrLost) {
		w.close()
	}
	if ctx.Err() == nil && (err != nil || !result.Succeeded()) {
		if gone := w.stillThere(run.Program.Reads); gone != nil {
			err = gone
		}
	}
	return result, err
}

// lookFor notes which of some paths are there.
func (w *worker) lookFor(paths []string) {
	if w.there == nil {
		w.there = map[string]os.FileInfo{}
	}
	for _, path := range paths {
		if _, known := w.there[path]; !known {
			w.there[path], _ = os.Stat(path) // nil: it is not there
		}
	}
}

// stillThere says which of the paths that were there is no more, so that what a program
// missed is not taken for its own failure.
func (w *worker) stillThere(paths []string) error {
	for _, path := range paths {
		was := w.there[path]
		if was == nil {
			continue
		}
		is, err := os.Stat(path)
		if err == nil && os.SameFile(was, is) {
			continue
		}
		if err == nil { // it is back, and programs see it when the worker starts anew
			w.there[path] = is
			w.close()
		}
		return fmt.Errorf("%s was removed while programs ran; try again", path)
	}
	return nil
}
