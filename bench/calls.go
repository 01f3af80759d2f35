package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
)

// callers are functions, and programs that read the same arguments with their
// language's own JSON library and print how many seconds that took; empty where the
// language comes without one.
var callers = []struct{ title, file, text, reader, own string }{
	{"Python", "f.py", "def f(temps):\n    return len(temps)\n", "own.py",
		"import json, sys, time\nbegan = time.perf_counter()\njson.loads(sys.stdin.buffer.readline())\nprint(time.perf_counter() - began)\n"},
	{"Java", "F.java", "class F { static int f(int[] temps) { return temps.length; } }\n", "", ""},
	{"C++", "f.cpp", "#include <vector>\nint f(const std::vector<int> &temps) { return temps.size(); }\n", "", ""},
	{"JavaScript", "f.js", "function f(temps) { return temps.length; }\n", "own.js",
		"const began = process.hrtime.bigint();\nJSON.parse(require('fs').readFileSync(0));\nconsole.log(Number(process.hrtime.bigint() - began) / 1e9);\n"},
	{"Ruby", "f.rb", "def f(temps) = temps.size\n", "own.rb",
		"require 'json'\nbegan = Process.clock_gettime(Process::CLOCK_MONOTONIC)\nJSON.parse($stdin.read)\nputs Process.clock_gettime(Process::CLOCK_MONOTONIC) - began\n"},
	{"Go", "f.go", "package f\n\nfunc f(temps []int) int { return len(temps) }\n", "own.go",
		"package main\n\nimport (\n\t\"encoding/json\"\n\t\"fmt\"\n\t\"os\"\n\t\"time\"\n)\n\nfunc main() {\n\tbegan := time.Now()\n\tvar args [1][]int\n\tif err := json.NewDecoder(os.Stdin).Decode(&args); err != nil {\n\t\tpanic(err)\n\t}\n\tfmt.Println(time.Since(began).Seconds())\n}\n"},
	{"C", "f.c", "int f(const int *temps, int n) { return n; }\n", "", ""},
	{"Rust", "f.rs", "fn f(temps: Vec<i32>) -> usize { temps.len() }\n", "", ""},
	{"C#", "f.cs", "class F { static int f(int[] temps) { return temps.Length; } }\n", "", ""},
	{"Scala", "f.scala", "object F { def f(temps: Array[Int]) = temps.length }\n", "", ""},
	{"Kotlin", "f.kt", "fun f(temps: IntArray) = temps.size\n", "", ""},
}

var ownRunners = map[string][]string{"own.py": {"python3"}, "own.js": {"node"}, "own.rb": {"ruby"}, "own.go": {"go", "run"}}

const callTable = "[limits]\ntime = \"20s\"\nmemory = \"2GiB\"\n\n[call]\nname = \"f\"\ntakes = [\"temps: int[]\"]\nreturns = \"int\"\n"

// calls measures what one call costs where many share a process, beside one in a
// process of its own, and what it costs to hand a million integers over, beside
// reading them with the language's own library.
func (b *bench) calls() error {
	many, err := b.callProblem("calls-many", 10000, func(i int) (string, int) {
		return fmt.Sprintf("[%d, 2, 3, 4, 5, 6, 7, 8, 9, 10]", i), 10
	})
	if err != nil {
		return err
	}
	million := strings.Repeat("1234567, ", 999999) + "1"
	large, err := b.callProblem("calls-large", 2, func(i int) (string, int) { return []string{"[]", "[" + million + "]"}[i], 1000000 * i })
	if err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join(large, "own.json"), []byte("[["+strings.ReplaceAll(million, " ", "")+"]]\n"), 0o644); err != nil {
		return err
	}
	for _, c := range callers {
		for _, dir := range []string{many, large} {
			if err := os.WriteFile(filepath.Join(dir, c.file), []byte(c.text), 0o644); err != nil {
				return err
			}
		}
		if _, _, err := timed(many, b.cold, "try", c.file, "--case", "many/1"); err != nil { // builds it
			return fmt.Errorf("%s: %w", c.title, err)
		}
		if c.title == "Python" || c.title == "Java" || c.title == "C++" {
			if err := b.oneProcess(many, c.title, c.file); err != nil {
				return err
			}
		}
		if c.reader != "" {
			if err := os.WriteFile(filepath.Join(large, c.reader), []byte(c.own), 0o644); err != nil {
				return err
			}
		}
		if err := b.decoding(large, c.title, "a million integers from the case into the function", c.file, c.reader); err != nil {
			return err
		}
	}
	return b.nodes()
}

// callProblem writes a problem of n cases.
func (b *bench) callProblem(name string, n int, one func(int) (temps string, result int)) (string, error) {
	dir := b.path(name)
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", err
	}
	text := []byte("# Many\n\n")
	for i := range n {
		temps, result := one(i)
		text = fmt.Appendf(text, "## %d\n```call\ntemps = %s\n```\n```returns\n%d\n```\n", i, temps, result)
	}
	if err := os.WriteFile(filepath.Join(dir, "cases.md"), text, 0o644); err != nil {
		return "", err
	}
	return dir, os.WriteFile(filepath.Join(dir, "verdict.toml"), []byte(callTable), 0o644)
}

// oneProcess times many calls in one process and some in a process each, all that
// both need besides left out: what a run on one case takes.
func (b *bench) oneProcess(dir, title, file string) error {
	var each, alone, gain []float64
	for range b.rounds {
		none, _, err := timed(dir, b.cold, "try", file, "--case", "many/1")
		if err != nil {
			return err
		}
		together, _, err := timed(dir, b.cold, "try", file)
		if err != nil {
			return err
		}
		apart, _, err := timed(dir, b.cold, "try", file, "--alone", "--jobs", "1", "--case", "many/1??")
		if err != nil {
			return err
		}
		shared := (together - none).Seconds() / 9999 * 1e6
		own := (apart - none).Seconds() / 99 * 1e6
		each, alone, gain = append(each, shared), append(alone, own), append(gain, own/shared)
	}
	fmt.Printf("calls: %s: %s µs a call in one process, %s µs in a process each: %s times as many a second\n", title, spread(each, "%.1f"), spread(alone, "%.0f"), spread(gain, "%.0f"))
	return nil
}

// decoding times how long the arguments of a case take into the function: they are
// read, checked, passed on and decoded.
func (b *bench) decoding(dir, title, what, file, own string) error {
	var ours, theirs, ratio []float64
	for i := range b.rounds + 1 {
		none, _, err := timed(dir, b.cold, "try", file, "--case", "many/0")
		if err != nil {
			return fmt.Errorf("%s: %w", title, err)
		}
		one, _, err := timed(dir, b.cold, "try", file, "--case", "many/1")
		if err != nil {
			return fmt.Errorf("%s: %w", title, err)
		}
		if i == 0 { // fills what cold and the runtimes keep
			continue
		}
		took := 1e3 * (one - none).Seconds()
		ours = append(ours, took)
		if own == "" {
			continue
		}
		seconds, err := ownSeconds(dir, own)
		if err != nil {
			return err
		}
		theirs, ratio = append(theirs, 1e3*seconds), append(ratio, took/(1e3*seconds))
	}
	beside := "no JSON library of its own"
	if own != "" {
		beside = fmt.Sprintf("its own library decodes them in %s ms; %s times its time", spread(theirs, "%.0f"), spread(ratio, "%.2f"))
	}
	fmt.Printf("calls: %s: %s in %s ms; %s\n", title, what, spread(ours, "%.0f"), beside)
	return nil
}

// ownSeconds runs a program that says how long its language's library took.
func ownSeconds(dir, program string) (float64, error) {
	input, err := os.Open(filepath.Join(dir, "own.json"))
	if err != nil {
		return 0, err
	}
	defer input.Close()
	runner := append(ownRunners[program], program)
	cmd := exec.Command(runner[0], runner[1:]...)
	cmd.Dir, cmd.Stdin, cmd.Stderr = dir, input, os.Stderr
	text, err := cmd.Output()
	if err != nil {
		return 0, err
	}
	return strconv.ParseFloat(strings.TrimSpace(string(text)), 64)
}
