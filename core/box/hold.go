package box

import (
	"fmt"
	"slices"
)

// Walls are what keeps a program from the rest of the machine.
type Walls string

// The walls, the best first.
const (
	Namespaces Walls = "namespaces" // a tree, processes and a network of its own
	Rules      Walls = "rules"      // Landlock's
	NoWalls    Walls = "none"
)

// A Hold says how a box holds what runs in it: what the kernel gave.
type Hold struct {
	Walls     Walls
	Contained bool     // it was asked to keep programs from the rest of the machine
	Apart     bool     // programs have process numbers of their own
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

// Promises lists what the box holds, in words for a person.
func (h Hold) Promises() []Promise {
	memory := "a watch on all processes of the run, at least every 10 ms; the exact peak at the end decides"
	processes := "counted where they start, and by the watch"
	if h.Groups != "" {
		memory += "; the kernel stops what outruns it"
		processes += "; the kernel refuses more"
	}
	list := []Promise{
		{What: "time", How: "processor time of all processes of the run, looked at when the limit could be reached"},
		{What: "wall clock", How: "the same watch"},
		{What: "memory", How: memory},
		{What: "processes", How: processes},
		{What: "output", How: "counted while it is read"},
	}
	return append(list, h.folder(), h.leftovers(), h.network(), h.files(), h.answers(), h.privileges())
}

func (h Hold) folder() Promise {
	p := Promise{What: "working folder", How: "in memory, no larger than the output limit"}
	if h.Walls != Namespaces {
		p.How = "on disk, its size looked at by the watch"
	}
	return p
}

func (h Hold) leftovers() Promise {
	if h.Apart {
		return Promise{What: "nothing left", How: "process numbers of its own: what a run leaves is killed at one stroke, and dies with cold"}
	}
	return Promise{What: "nothing left", How: "what descends from a run is found and killed",
		Lack: "a program can send signals to your other programs"}
}

func (h Hold) network() Promise {
	switch {
	case h.Walls == Namespaces && h.Filter:
		return Promise{What: "no network", How: "none is there, and sockets that lead outside are refused" + h.seen()}
	case h.Walls == Namespaces:
		return Promise{What: "no network", How: "none is there"}
	case h.Filter:
		return Promise{What: "no network", How: "sockets that lead outside are refused" + h.seen()}
	}
	return Promise{What: "no network", How: "-", Lack: "a program can use the network"}
}

func (h Hold) seen() string {
	if h.Told {
		return ", and told"
	}
	return ""
}

func (h Hold) files() Promise {
	switch h.Walls {
	case Namespaces:
		return Promise{What: "your files", How: "read-only, all of them; no devices"}
	case Rules:
		return Promise{What: "your files", How: "read-only, by Landlock rules"}
	}
	return Promise{What: "your files", How: "-", Lack: "a program can change your files"}
}

func (h Hold) answers() Promise {
	switch h.Walls {
	case Namespaces:
		return Promise{What: "expected outputs", How: "the problem's folder is hidden"}
	case Rules:
		return Promise{What: "expected outputs", How: "the problem's folder is not among what may be read"}
	}
	return Promise{What: "expected outputs", How: "-", Lack: "a program can read the expected outputs"}
}

func (h Hold) privileges() Promise {
	if h.Walls == NoWalls {
		return Promise{What: "privileges", How: "those of the one who starts it", Lack: "a program can do all that you can"}
	}
	return Promise{What: "privileges", How: "none, and none to be gained"}
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
	return fmt.Sprintf("walls: %s; %s", h.Walls, groups)
}
