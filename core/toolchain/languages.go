package toolchain

import (
	"bytes"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
)

// A Language is one entry of the table: all that the program knows of it.
//
// Build and Run are command lines. In them {compiler} and {runtime} stand for
// the tools that were found, {standard} for the standard, {source} for the
// name of the source file, {folder} for the folder it came from, {main} for
// what Main returned, and {memory} for the memory limit in MiB. Commands run
// in the folder of the build, which holds the source; Run gets {build} as its
// absolute path.
type Language struct {
	Name       string // "cpp"
	Title      string // "C++"
	Extensions []string
	Compiler   Tool
	Runtime    Tool
	Standard   string            // the name used where a solution names none; empty: there is no choice
	Standards  map[string]string // names and what {standard} becomes: "cpp17" and "gnu++17"
	Build      [][]string        // tried in turn until one succeeds; Else says when
	Else       string            // the next Build is tried only if the log contains this
	Includes   string            // file that Build writes the names of included files to, as make(1) reads them
	BuildEnv   []string          // KEY=value, above the person's own environment
	Run        []string
	// FileName returns the name that the source must have to be built; nil:
	// its own.
	FileName func(name string, source []byte) string
	// Main looks into a finished build for what Run must name.
	Main func(dir, source string) string
	// MemoryMarks are words in the error output with which the runtime says
	// that it got no more memory.
	MemoryMarks []string
}

// A Tool is a program of a language: a compiler or a runtime.
type Tool struct {
	Commands []string // names to look for, the best first
	Version  []string // arguments that make it print its version
	// Locate are arguments that make it print the path of its own executable
	// on the first line and its version on the second, for runtimes that are
	// often started through a script.
	Locate []string
	// Depends names files ("~/...") and variables ("$...") that decide which
	// version such a script starts.
	Depends []string
	Package string // what to install where it is missing
}

var languages = []Language{
	{
		Name: "c", Title: "C", Extensions: []string{".c"},
		Compiler:  Tool{Commands: []string{"gcc", "clang"}, Version: []string{"--version"}, Package: "gcc"},
		Standard:  "c17",
		Standards: map[string]string{"c11": "gnu11", "c17": "gnu17", "c23": "gnu2x"},
		Build: [][]string{
			{"{compiler}", "-O2", "-std={standard}", "-static", "-MMD", "-MF", "includes", "-iquote", "{folder}", "-o", "program", "{source}", "-lm"},
			{"{compiler}", "-O2", "-std={standard}", "-MMD", "-MF", "includes", "-iquote", "{folder}", "-o", "program", "{source}", "-lm"},
		},
		Else:     "cannot find -l",
		Includes: "includes",
		Run:      []string{"{build}/program"},
	},
	{
		Name: "cpp", Title: "C++", Extensions: []string{".cpp", ".cc", ".cxx", ".c++"},
		Compiler:  Tool{Commands: []string{"g++", "clang++"}, Version: []string{"--version"}, Package: "g++"},
		Standard:  "cpp20",
		Standards: map[string]string{"cpp14": "gnu++14", "cpp17": "gnu++17", "cpp20": "gnu++20", "cpp23": "gnu++23"},
		Build: [][]string{
			{"{compiler}", "-O2", "-std={standard}", "-static", "-MMD", "-MF", "includes", "-iquote", "{folder}", "-o", "program", "{source}"},
			{"{compiler}", "-O2", "-std={standard}", "-MMD", "-MF", "includes", "-iquote", "{folder}", "-o", "program", "{source}"},
		},
		Else:        "cannot find -l",
		Includes:    "includes",
		Run:         []string{"{build}/program"},
		MemoryMarks: []string{"std::bad_alloc"},
	},
	{
		Name: "python", Title: "Python", Extensions: []string{".py"},
		Runtime: Tool{
			Commands: []string{"python3", "python"},
			Locate:   []string{"-c", "import sys; print(sys.executable); print('Python', sys.version.split()[0])"},
			Depends:  []string{"$PYENV_VERSION", "~/.pyenv/version", "$VIRTUAL_ENV"},
			Package:  "python3",
		},
		Build:       [][]string{{"{runtime}", "-m", "py_compile", "{source}"}},
		Run:         []string{"{runtime}", "{build}/{source}"},
		MemoryMarks: []string{"MemoryError"},
	},
	{
		Name: "java", Title: "Java", Extensions: []string{".java"},
		Compiler: Tool{Commands: []string{"javac"}, Version: []string{"-version"}, Package: "default-jdk-headless"},
		Runtime:  Tool{Commands: []string{"java"}, Version: []string{"-version"}, Package: "default-jre-headless"},
		Build:    [][]string{{"{compiler}", "-encoding", "UTF-8", "-d", ".", "{source}"}},
		Run: []string{"{runtime}", "-XX:+UseSerialGC", "-XX:-UsePerfData", "-Xmx{memory}m", "-Xss{stack}m",
			"-cp", "{build}", "{main}"},
		FileName:    publicClassFile,
		Main:        mainClass,
		MemoryMarks: []string{"java.lang.OutOfMemoryError"},
	},
	{
		Name: "javascript", Title: "JavaScript", Extensions: []string{".js", ".mjs", ".cjs"},
		Runtime: Tool{
			Commands: []string{"node", "nodejs"},
			Locate:   []string{"-p", "process.execPath + '\\nNode.js ' + process.versions.node"},
			Package:  "nodejs",
		},
		Build:       [][]string{{"{runtime}", "--check", "{source}"}},
		Run:         []string{"{runtime}", "--max-old-space-size={memory}", "{build}/{source}"},
		MemoryMarks: []string{"JavaScript heap out of memory"},
	},
	{
		Name: "go", Title: "Go", Extensions: []string{".go"},
		Compiler: Tool{Commands: []string{"go"}, Version: []string{"version"}, Package: "golang-go"},
		Build:    [][]string{{"{compiler}", "build", "-trimpath", "-o", "program", "{source}"}},
		// Nothing may be downloaded, and a go.mod further up is no part of the solution.
		BuildEnv:    []string{"GOTOOLCHAIN=local", "GOPROXY=off", "GOFLAGS=", "GOWORK=off", "CGO_ENABLED=0"},
		Run:         []string{"{build}/program"},
		MemoryMarks: []string{"fatal error: out of memory", "runtime: out of memory", "cannot allocate memory"},
	},
}

// Find returns the entry that a language's name, or the name of one of its
// standards, stands for, with the standard's name.
func Find(name string) (l *Language, standard string, ok bool) {
	for i := range languages {
		l := &languages[i]
		if l.Name == name {
			return l, l.Standard, true
		}
		if _, ok := l.Standards[name]; ok {
			return l, name, true
		}
	}
	return nil, "", false
}

// ForFile returns the entry for a source file, by its extension.
func ForFile(name string) (*Language, bool) {
	for i := range languages {
		if slices.Contains(languages[i].Extensions, filepath.Ext(name)) {
			return &languages[i], true
		}
	}
	return nil, false
}

// IsSource reports whether the extension of a file names a language.
func IsSource(name string) bool {
	_, ok := ForFile(name)
	return ok
}

// Names lists the languages, in the order of the table.
func Names() (names []string) {
	for _, l := range languages {
		names = append(names, l.Name)
	}
	return names
}

// NamesWithStandards lists all that a solution may give as its language.
func NamesWithStandards() (names []string) {
	for _, l := range languages {
		names = append(names, l.Name)
		for standard := range l.Standards {
			names = append(names, standard)
		}
	}
	slices.Sort(names)
	return names
}

var publicClass = regexp.MustCompile(`(?m)^\s*public\s+(?:(?:final|abstract|sealed|strictfp)\s+)*(?:class|interface|enum|record)\s+(\w+)`)

// publicClassFile names a Java file after its public class, as the compiler
// demands; judges rename it in the same way.
func publicClassFile(name string, source []byte) string {
	if m := publicClass.FindSubmatch(source); m != nil {
		return string(m[1]) + ".java"
	}
	return name
}

// mainClass returns the class that has a main method: the one named after the
// source or Main if they have it, and otherwise the first.
func mainClass(dir, source string) string {
	var found []string
	filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".class") {
			return nil
		}
		text, err := os.ReadFile(path)
		// In a class file's table of constants every text has a tag and its
		// length before it (Java Virtual Machine Specification, 4.4.7).
		if err == nil && bytes.Contains(text, []byte("\x01\x00\x04main")) &&
			bytes.Contains(text, []byte("\x01\x00\x16([Ljava/lang/String;)V")) {
			name, _ := filepath.Rel(dir, strings.TrimSuffix(path, ".class"))
			found = append(found, strings.ReplaceAll(name, string(filepath.Separator), "."))
		}
		return nil
	})
	for _, name := range []string{strings.TrimSuffix(source, ".java"), "Main"} {
		if slices.Contains(found, name) {
			return name
		}
	}
	if len(found) > 0 {
		return found[0]
	}
	return strings.TrimSuffix(source, ".java")
}
