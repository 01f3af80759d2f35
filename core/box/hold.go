package box

import (
	"fmt"
	"slices"
)

// Isolation is what keeps a program from the rest of the machine.
type Isolation string

// The ways to isolate programs, the best first.
const (
	Namespaces  Isolation = "namespaces" // a tree, processes and a network of its own
	Rules       Isolation = "rules"      // Landlock's
	NotIsolated Isolation = "none"
)

// A Hold says how a box holds what runs in it: what the kernel gave.
type Hold struct {
	Isolation Isolation
	Contained bool     // it was asked to keep programs from the rest of the machine
	Apart     bool     // programs have process numbers of their own
	Near      bool     // no signal of a program reaches another one outside
	Filter    bool     // system calls that lead outside are refused
	Told      bool     // and it is seen when one was tried
	Groups    string   // which control groups the kernel holds limits with; empty: none
	Denied    []string // what was tried before, and why it could not be had
}

// A Promise is one thing that a box holds, and how.
type Promise struct {
	What string
	How  string
	Lack string // what does not hold; empty: all of it does
}

// Lacks lists what does not hold here though it was asked for, in words that
// follow "here".
func (h Hold) Lacks() (all []string) {
	if !h.Contained {
		return nil
	}
	for _, p := range h.Promises() {
		if p.Lack != "" && !slices.Contains(all, p.Lack) {
			all = append(all, p.Lack)
		}
	}
	return all
}

// String says in a few words what the box stands on.
func (h Hold) String() string {
	groups := h.Groups
	if groups == "" {
		groups = "no control groups"
	}
	return fmt.Sprintf("isolation: %s; %s", h.Isolation, groups)
}

// A Remedy is something that this machine could give and does not, and how a
// person gets it.
type Remedy struct {
	Want string
	Do   string
}

// A way is one way to start a supervisor.
type way struct {
	isolation Isolation
	apart     bool // the first process of namespaces of its own
	newUser   bool // a user namespace among them
}
