package cli

import (
	"maps"
	"slices"
	"strings"

	"github.com/urfave/cli/v3"

	"coldverdict/core/settings"
)

// What people write who mean something that has another name here.

// meanings are commands by the words that are used for them, too.
var meanings = map[string]string{
	"check": "try", "test": "try", "tests": "try", "run": "try", "judge": "try", "exec": "try", "verify": "try", "grade": "try", "submit": "try", "watch": "try --watch",
	"stress": "cross", "fuzz": "cross", "compare": "cross", "diff": "cross", "search": "cross",
	"growth": "grow", "scale": "grow", "complexity": "grow", "scaling": "grow", "bench": "rank", "benchmark": "rank", "fastest": "rank", "faster": "rank", "speed": "rank", "versus": "rank", "vs": "rank", "profile": "grow", "predict": "grow",
	"new": "open", "create": "open", "init": "open", "start": "open", "begin": "open", "problem": "open",
	"sample": "case add", "samples": "case list", "add": "case add", "cases": "case list", "import": "case import", "keep": "case keep",
	"generate": "shape make", "gen": "shape make", "make": "shape make", "edges": "shape edges", "input": "shape", "validate": "shape check",
	"interact": "talk", "interactive": "talk", "chat": "talk",
	"env": "host", "info": "host", "languages": "host --languages", "system": "host", "version": "--version",
	"tour": "demo", "example": "demo", "examples": "demo", "tutorial": "demo",
}

// nearCommand is the command that a name means, or that is spelled nearly so; "": there is none.
func nearCommand(parent *cli.Command, name string) string {
	name = strings.ToLower(name)
	if meant, ok := meanings[name]; ok && parent == parent.Root() {
		return meant
	}
	var names []string
	for _, c := range parent.VisibleCommands() {
		names = append(names, c.Name)
	}
	near := settings.Near(name, names)
	if near == "" && parent == parent.Root() {
		near = meanings[settings.Near(name, slices.Collect(maps.Keys(meanings)))]
	}
	return near
}

// optionMeanings are options by the words that are used for them, too. Of several, a command
// has one at the most.
var optionMeanings = map[string][]string{
	"tl": {"time"}, "timeout": {"time"}, "cpu": {"time"}, "ms": {"time"}, "duration": {"seconds"},
	"ml": {"memory"}, "ram": {"memory"}, "mb": {"memory"}, "space": {"memory"},
	"std": {"lang"}, "compiler": {"lang"}, "file": {"solution", "case"}, "src": {"solution"}, "source": {"solution"}, "brute": {"against"}, "reference": {"against"},
	"sample": {"case"}, "name": {"case"}, "subtask": {"group"}, "parallel": {"jobs"}, "threads": {"jobs"}, "workers": {"jobs"},
	"asan": {"checked"}, "sanitize": {"checked"}, "debug": {"checked"}, "stdin": {"input"}, "errors": {"stderr"}, "iterations": {"count"}, "tests": {"count"}, "rounds": {"count"},
	"format": {"json"}, "force": {"yes"}, "assume-yes": {"yes"}, "all": {"every-solution"}, "fail-fast": {"until-failure"}, "stop": {"until-failure"}, "expected": {"output", "answer"}, "reason": {"why"},
	"url": {"from"}, "statement": {"from"}, "signature": {"call"}, "function": {"call"}, "dir": {"out", "directory"}, "folder": {"out", "directory"}, "random": {"seed"},
}

// nearOption is the option that a name means, is spelled nearly like, or shares its beginning
// with; "": there is none.
func nearOption(name string, known []string) string {
	name = strings.ToLower(name)
	for _, meant := range optionMeanings[name] {
		if slices.Contains(known, meant) {
			return meant
		}
	}
	if near := settings.Near(name, known); near != "" {
		return near
	}
	const least = 3 // letters that say something
	for _, k := range slices.Sorted(slices.Values(known)) {
		if len(name) >= least && strings.HasPrefix(k, name) || len(k) >= least && strings.HasPrefix(name, k) {
			return k
		}
	}
	return ""
}

// wrongOption says what is wrong with an option, and which one may have been meant.
func wrongOption(c *cli.Command, err error) error {
	words := err.Error()
	if name, ok := strings.CutPrefix(words, "flag provided but not defined: "); ok {
		name = strings.TrimLeft(name, "-")
		var names []string
		for _, f := range c.Flags {
			names = append(names, f.Names()...)
		}
		names = slices.DeleteFunc(names, func(n string) bool { return len(n) < 2 })
		words = "there is no option --" + name
		if near := nearOption(name, names); near != "" {
			return usageError("%s; did you mean --%s?", words, near)
		}
	}
	return usageError("%s; 'cold%s --help' lists the options", words, commandPath(c))
}

// tongues are languages by the words that are used for them, too.
var tongues = map[string]string{
	"c++": "cpp", "g++": "cpp", "gcc": "c", "cxx": "cpp", "cc": "cpp", "clang": "c-clang", "clang++": "cpp-clang", "c++17": "cpp17", "c++20": "cpp20", "c++14": "cpp14", "c++23": "cpp23",
	"py": "python", "python3": "python", "py3": "python", "pypy3": "pypy", "js": "javascript", "node": "javascript", "nodejs": "javascript", "ts": "typescript",
	"golang": "go", "rs": "rust", "kt": "kotlin", "scalac": "scala", "sc": "scala", "cs": "csharp", "c#": "csharp", "mono": "csharp", "dotnet": "csharp", "rb": "ruby", "hs": "haskell", "ghc": "haskell",
	"ml": "ocaml", "pas": "pascal", "fpc": "pascal", "clj": "clojure", "sh": "bash", "shell": "bash", "pl": "perl", "dlang": "d", "ldc": "d", "gawk": "awk",
}

// nearLanguage says which language may have been meant.
func nearLanguage(name string, known []string) string {
	if meant, ok := tongues[strings.ToLower(name)]; ok && slices.Contains(known, meant) {
		return "did you mean \"" + meant + "\"?"
	}
	return settings.Nearest(name, known)
}
