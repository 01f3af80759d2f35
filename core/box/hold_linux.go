//go:build !portable

package box

import (
	"os"
	"strings"
)

// Promises lists what the box holds, in words for a person.
func (h Hold) Promises() []Promise {
	memory := "a watch on all processes of the run, at least every 50 ms; the exact peak at the end decides"
	time := "processor time of all processes of the run, looked at when the limit could be reached"
	processes := "counted where they start, and by the watch"
	if h.Groups != "" {
		memory += "; the kernel counts too, and stops what outruns it"
		time += "; the kernel counts too"
		processes += "; the kernel refuses more"
	} else {
		memory += "; " + weaker + ": of what the kernel keeps for a program only some is seen"
	}
	list := []Promise{
		{What: "time", How: time},
		{What: "wall clock", How: "the same watch, by a clock that nobody can set"},
		{What: "memory", How: memory},
		{What: "processes", How: processes},
		{What: "output", How: "counted while it is read"},
	}
	return append(list, h.supervisor(), h.folder(), h.leftovers(), h.network(),
		h.byIsolation("your files", "not to be seen: only runtimes, the build and a few devices are, read-only",
			"only runtimes and the build may be read, by Landlock rules", "a program can change your files"),
		h.byIsolation("expected outputs", "not to be seen, whatever links lead there", "not among what may be read", "a program can read the expected outputs"),
		h.byIsolation("builds", "in the same sandbox; they also see the source, and what lies beside it except cases, checkers, references and settings",
			"in the same sandbox, by Landlock rules", "code that runs while a source is built can do all that you can"),
		h.privileges())
}

const weaker = "weaker without control groups"

// Weaker says what holds less well here than it could; empty: nothing.
func (h Hold) Weaker() string {
	if h.Groups == "" {
		return "memory: " + weaker
	}
	return ""
}

// supervisor says what keeps a program from what measures it.
func (h Hold) supervisor() Promise {
	p := Promise{What: "the supervisor", How: "outside of the program's process numbers; system calls are an allow-list"}
	switch {
	case !h.Apart && h.Filter && h.Told:
		p.How = "system calls are an allow-list, and signals are looked at; a program can see that other processes are there"
	case !h.Apart:
		p.Lack = "a program can end what measures it, which is told as a fault"
	case !h.Filter:
		p.How = "outside of the program's process numbers"
	}
	return p
}

func (h Hold) folder() Promise {
	p := Promise{What: "working folder", How: "in memory, no larger than the output limit"}
	if h.Isolation != Namespaces {
		p.How = "on disk, its size looked at by the watch"
	}
	return p
}

func (h Hold) leftovers() Promise {
	if h.Apart {
		return Promise{What: "nothing left", How: "process numbers of its own: what a run leaves is killed at one stroke, and dies with cold"}
	}
	p := Promise{What: "nothing left", How: "what descends from a run is found and killed"}
	if !h.Near && !h.Told {
		p.Lack = "a program can send signals to your other programs"
	}
	return p
}

func (h Hold) network() Promise {
	switch {
	case h.Isolation == Namespaces && h.Filter:
		return Promise{What: "no network", How: "none is there, and connections are refused" + h.seen()}
	case h.Isolation == Namespaces:
		return Promise{What: "no network", How: "none is there"}
	case h.Filter:
		return Promise{What: "no network", How: "connections are refused" + h.seen()}
	}
	return Promise{What: "no network", How: "-", Lack: "a program can use the network"}
}

func (h Hold) seen() string {
	if h.Told {
		return ", and told"
	}
	return ""
}

// byIsolation is a promise that each kind of isolation holds in its own way, and that
// is a lack without any.
func (h Hold) byIsolation(what, namespaces, rules, lack string) Promise {
	switch h.Isolation {
	case Namespaces:
		return Promise{What: what, How: namespaces}
	case Rules:
		return Promise{What: what, How: rules}
	}
	return Promise{What: what, How: "-", Lack: lack}
}

func (h Hold) privileges() Promise {
	if h.Isolation == NotIsolated {
		return Promise{What: "privileges", How: "those of the one who starts it", Lack: "a program can do all that you can"}
	}
	return Promise{What: "privileges", How: "none, and none to be gained"}
}

// Remedies lists what could be had here and is not, with how to get it.
func (h Hold) Remedies() (list []Remedy) {
	if h.Isolation != Namespaces && h.Contained {
		list = append(list, Remedy{"a sandbox of namespaces", namespacesRemedy()})
	}
	if !h.Filter && h.Contained {
		list = append(list, Remedy{"a filter of system calls", "a kernel built with CONFIG_SECCOMP_FILTER"})
	}
	if h.Groups == "" {
		list = append(list, Remedy{"control groups", "work in a session of systemd (loginctl shows it), or start 'systemd-run --user --scope -p Delegate=yes' " +
			"with a shell and work in there; without them the watch holds the limits alone"})
	}
	return list
}

// namespacesRemedy finds the switch that keeps namespaces from this user.
func namespacesRemedy() string {
	for _, one := range []struct{ file, denies, set string }{
		{"/proc/sys/kernel/unprivileged_userns_clone", "0", "kernel.unprivileged_userns_clone=1"},
		{"/proc/sys/kernel/apparmor_restrict_unprivileged_userns", "1", "kernel.apparmor_restrict_unprivileged_userns=0"},
		{"/proc/sys/user/max_user_namespaces", "0", "user.max_user_namespaces=10000"},
	} {
		if text, err := os.ReadFile(one.file); err == nil && strings.TrimSpace(string(text)) == one.denies {
			return "as root: sysctl -w " + one.set
		}
	}
	return "Linux 5.12 or later, outside of a container that denies them"
}
