package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
)

// handers are functions that return the list or the tree that they take, in those languages of callers that have nodes.
var handers = map[string]string{
	"Python": "def f(top):\n    return top\n", "JavaScript": "function f(top) { return top; }\n", "Ruby": "def f(top) = top\n",
	"Java": "class F { static NODE f(NODE top) { return top; } }\n", "C++": "NODE *f(NODE *top) { return top; }\n", "Go": "package f\n\nfunc f(top *NODE) *NODE { return top }\n",
	"C": "struct NODE *f(struct NODE *top) { return top; }\n", "Rust": "fn f(top: RUST) -> RUST { top }\n", "C#": "class F { static NODE f(NODE top) { return top; } }\n", "Kotlin": "fun f(top: NODE?) = top\n",
}

// rustNodes are what Rust has for the classes of nodes.
var rustNodes = map[string]string{"ListNode": "Option<Box<ListNode>>", "TreeNode": "Option<std::rc::Rc<std::cell::RefCell<TreeNode>>>"}

// manyNodes is how many nodes are handed in and back.
const manyNodes = 100_000

// nodes measures what a list and a tree of 100,000 nodes cost to hand in and to take back, beside reading the
// same array with the language's own library.
func (b *bench) nodes() error {
	numbers := strings.Repeat("1234567, ", manyNodes-1) + "1"
	for _, kind := range []struct{ word, class string }{{"list", "ListNode"}, {"tree", "TreeNode"}} {
		dir := b.path("calls-" + kind.word)
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
		files := map[string]string{
			"verdict.toml": "[limits]\ntime = \"20s\"\nmemory = \"2GiB\"\n\n[call]\nname = \"f\"\ntakes = [\"top: " + kind.word + "(int)\"]\nreturns = \"" + kind.word + "(int)\"\n",
			"cases.md":     "# Many\n\n## 0\n```call\ntop: []\n```\n```returns\n[]\n```\n\n## 1\n```call\ntop: [" + numbers + "]\n```\n```returns\n[" + numbers + "]\n```\n",
			"own.json":     "[[" + strings.ReplaceAll(numbers, " ", "") + "]]\n",
		}
		for _, c := range callers {
			files[c.file] = strings.NewReplacer("NODE", kind.class, "RUST", rustNodes[kind.class]).Replace(handers[c.title])
			if c.reader != "" {
				files[c.reader] = c.own
			}
		}
		for name, text := range files {
			if err := os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644); err != nil {
				return err
			}
		}
		for _, c := range callers {
			if handers[c.title] == "" {
				continue
			}
			if err := b.decoding(dir, c.title, "a "+kind.word+" of 100,000 nodes in and out", c.file, c.reader); err != nil {
				return err
			}
		}
	}
	return b.sequences()
}

// logs are classes that are called in sequences.
var logs = []struct{ title, file, text string }{
	{"Python", "log.py", "class Log:\n    def __init__(self):\n        self.sum = 0\n\n    def add(self, n):\n        self.sum += n\n        return self.sum\n"},
	{"Java", "Log.java", "class Log {\n    int sum;\n    int add(int n) { return sum += n; }\n}\n"},
	{"C++", "log.cpp", "class Log {\n    int sum = 0;\n\npublic:\n    int add(int n) { return sum += n; }\n};\n"},
	{"JavaScript", "log.js", "class Log {\n  constructor() { this.sum = 0; }\n  add(n) { return this.sum += n; }\n}\n"},
	{"Go", "log.go", "package main\n\ntype Log struct{ sum int }\n\nfunc (l *Log) Add(n int) int { l.sum += n; return l.sum }\n"},
}

// sequences measures 10,000 sequences of 30 calls of a class, beside as many calls of a function that each
// take a case.
func (b *bench) sequences() error {
	const cases, length = 10000, 30
	dir := b.path("calls-sequences")
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return err
	}
	var text strings.Builder
	text.WriteString("# Many\n\n")
	for i := range cases {
		fmt.Fprintf(&text, "## %d\n```calls\nnew()\n", i)
		sum := 0
		for k := range length - 1 {
			sum += k
			fmt.Fprintf(&text, "add(%d) -> %d\n", k, sum)
		}
		text.WriteString("```\n")
	}
	table := "[limits]\ntime = \"20s\"\nmemory = \"2GiB\"\n\n[class]\nname = \"Log\"\nmethods = [\"add(n: int) -> int\"]\n"
	for name, content := range map[string]string{"cases.md": text.String(), "verdict.toml": table} {
		if err := os.WriteFile(filepath.Join(dir, name), []byte(content), 0o644); err != nil {
			return err
		}
	}
	for _, l := range logs {
		if err := os.WriteFile(filepath.Join(dir, l.file), []byte(l.text), 0o644); err != nil {
			return err
		}
		var each, call []float64
		for i := range b.rounds + 1 {
			none, _, err := timed(dir, b.cold, "try", l.file, "--case", "many/1")
			if err != nil {
				return fmt.Errorf("%s: %w", l.title, err)
			}
			all, _, err := timed(dir, b.cold, "try", l.file)
			if err != nil {
				return fmt.Errorf("%s: %w", l.title, err)
			}
			if i == 0 { // it was built
				continue
			}
			took := (all - none).Seconds() * 1e6 / (cases - 1)
			each, call = append(each, took), append(call, took/length)
		}
		fmt.Printf("calls: %s: 10,000 sequences of 30 calls: %s µs a sequence, %s µs a call\n", l.title, spread(each, "%.0f"), spread(call, "%.1f"))
	}
	return nil
}
