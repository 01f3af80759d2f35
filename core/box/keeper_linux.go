//go:build !portable

package box

import (
	"fmt"
	"runtime"

	"golang.org/x/sys/unix"
)

// The thread that starts programs gives up its privileges for good, and sees what
// they see. Two others of the supervisor keep theirs: the keeper, which sees the same
// tree and changes what is mounted there between runs, and any other thread, which
// sees the machine as it is.

// A keeper does things in the programs' tree that take privileges.
type keeper struct{ work chan func() }

// newKeeper starts a keeper in the tree of the thread that calls it.
func newKeeper() (*keeper, error) {
	tree, err := openProc("thread-self/ns/mnt", unix.O_RDONLY)
	if err != nil {
		return nil, fmt.Errorf("cannot find the programs' tree: %w", err)
	}
	k := &keeper{make(chan func())}
	entered := make(chan error)
	go func() {
		runtime.LockOSThread()
		err := unix.Unshare(unix.CLONE_FS)
		if err == nil {
			err = unix.Setns(tree, unix.CLONE_NEWNS)
		}
		unix.Close(tree)
		entered <- err
		for do := range k.work {
			do()
		}
	}()
	if err := <-entered; err != nil {
		return nil, fmt.Errorf("cannot enter the programs' tree: %w", err)
	}
	return k, nil
}

// do has the keeper do something, and waits for it.
func (k *keeper) do(what func() error) error {
	done := make(chan error)
	k.work <- func() { done <- what() }
	return <-done
}

// outside does something on a thread that sees the machine as it is.
func outside(what func() error) error {
	done := make(chan error)
	go func() { done <- what() }()
	return <-done
}
