package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"coldverdict/core/problem"
	"coldverdict/demo"
)

// A crossing is what is read of the JSON form of cold cross.
type crossing struct {
	Inputs  int
	Seconds float64
	Found   []struct {
		Way           string
		Inputs        int
		Seconds       float64
		First         int `json:"first_bytes"`
		Bytes         int
		ShrinkSeconds float64 `json:"shrink_seconds"`
		Smallest      bool
		Cases         []struct{ Input string }
		Outcome       struct{ Verdict string }
	}
}

// cross runs cold cross.
func (b *bench) cross(dir string, args ...string) (c crossing, err error) {
	cmd := exec.Command(b.cold, append([]string{"cross", "--json"}, args...)...)
	cmd.Dir = dir
	var out, errs bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errs
	if err := cmd.Run(); err != nil && !errors.As(err, new(*exec.ExitError)) {
		return c, err
	}
	if err := json.Unmarshal(out.Bytes(), &c); err != nil {
		return c, fmt.Errorf("cold cross %s: %w\n%s%s", strings.Join(args, " "), err, out.String(), errs.String())
	}
	return c, nil
}

const (
	oneCase = "#include <cstdio>\nint main() {\n    int n; long long s = 0, x;\n    scanf(\"%d\", &n);\n    for (int i = 0; i < n; i++) { scanf(\"%lld\", &x); s += x; }\n    printf(\"%lld\\n\", s);\n}\n"

	manyCases = "#include <cstdio>\nint main() {\n    int t;\n    scanf(\"%d\", &t);\n    while (t--) {\n        int n; long long s = 0, x;\n        scanf(\"%d\", &n);\n        for (int i = 0; i < n; i++) { scanf(\"%lld\", &x); s += x; }\n        printf(\"%lld\\n\", s);\n    }\n}\n"

	aFunction = "#include <vector>\nlong long litres(const std::vector<long long> &a) {\n    long long s = 0;\n    for (long long x : a) s += x;\n    return s;\n}\n"

	// byHand makes a small random input from a seed, as people write such programs.
	byHand = "#include <cstdio>\n#include <cstdlib>\n#include <random>\nint main(int argc, char **argv) {\n    std::mt19937 r(atoi(argv[1]));\n    int n = r() % 8 + 1;\n    if (argc > 2) printf(\"1\\n\");\n    printf(\"%d\\n\", n);\n    for (int i = 0; i < n; i++) printf(\"%d \", int(r() % 1000000000) + 1);\n    printf(\"\\n\");\n}\n"
)

// inTheLoop is how many rounds of the loop of shell are timed.
const inTheLoop = 200

// crossRounds compares rounds a second, one being an input through two programs whose
// answers are compared, with a loop of shell around a program that makes inputs, the
// two programs, and cmp.
func (b *bench) crossRounds() error {
	shapeOfOne := "n: int 1..1000\na: int[n] 1..1e9\n"
	for _, p := range []struct {
		title, source, shape, config, perLoop string
	}{
		{"one case a file", oneCase, shapeOfOne, "", ""},
		{"ten thousand cases a file", manyCases, "cases t: int 1..1e4 {\n  n: int 1..1000\n  a: int[n] 1..1e9\n  total n <= 2e5\n}\n", "", "cases"},
		{"a function", aFunction, "a: int[1..1000] 1..1e9\n", "[call]\nname = \"litres\"\ntakes = [\"a: long[]\"]\nreturns = \"long\"\n", ""},
	} {
		dir := b.path("cross-" + strings.ReplaceAll(p.title, " ", "-"))
		hand := p.source
		if p.config != "" {
			hand = oneCase
		}
		for name, text := range map[string]string{
			"one.cpp": p.source, "two.cpp": p.source + "// the other\n", "input.shape": p.shape, "verdict.toml": p.config,
			"hand/one.cpp": hand, "hand/two.cpp": hand, "hand/make.cpp": byHand,
		} {
			path := filepath.Join(dir, name)
			if err := os.MkdirAll(filepath.Dir(path), 0o755); err != nil {
				return err
			}
			if err := os.WriteFile(path, []byte(text), 0o644); err != nil {
				return err
			}
		}
		for _, name := range []string{"one", "two", "make"} {
			cmd := exec.Command("g++", "-O2", "-o", name, name+".cpp")
			cmd.Dir = filepath.Join(dir, "hand")
			if out, err := cmd.CombinedOutput(); err != nil {
				return fmt.Errorf("%w\n%s", err, out)
			}
		}
		for _, shell := range []string{"sh", "bash"} {
			pair := besideLoop{p.title, shell, dir, p.perLoop, [2]string{"one.cpp", "two.cpp"}, [2]string{"./one", "./two"}, inTheLoop, "4"}
			if err := b.besideTheLoop(pair); err != nil {
				return err
			}
		}
	}
	return b.crossRuntimes()
}

// sums are programs that print the sum of what they read, and how they are started by hand.
var sums = map[string][2]string{
	"One.java": {"import java.util.*;\npublic class One { public static void main(String[] a) { Scanner in = new Scanner(System.in); long s = 0; for (int n = in.nextInt(); n > 0; n--) s += in.nextLong(); System.out.println(s); } }\n", "java -cp . One"},
	"Two.java": {"import java.util.*;\npublic class Two { public static void main(String[] a) { Scanner in = new Scanner(System.in); long s = 0; for (int n = in.nextInt(); n > 0; n--) s += in.nextLong(); System.out.println(s); } }\n", "java -cp . Two"},
	"two.py":   {"n = int(input())\nprint(sum(map(int, input().split())))\n", "python3 two.py"},
	"one.js":   {"const [n, ...a] = require('fs').readFileSync(0, 'utf8').split(/\\s+/).filter(Boolean).map(Number);\nconsole.log(a.reduce((x, y) => x + y, 0));\n", "node one.js"},
	"one.cpp":  {oneCase, "./one"},
}

// crossRuntimes compares rounds a second as crossRounds does, where runtimes take long to start.
func (b *bench) crossRuntimes() error {
	dir := b.path("cross-runtimes")
	for name, one := range sums {
		for _, folder := range []string{dir, filepath.Join(dir, "hand")} {
			if err := os.MkdirAll(folder, 0o755); err != nil {
				return err
			}
			if err := os.WriteFile(filepath.Join(folder, name), []byte(one[0]), 0o644); err != nil {
				return err
			}
		}
	}
	if err := os.WriteFile(filepath.Join(dir, "input.shape"), []byte("n: int 1..8\na: int[n] 1..1e9\n"), 0o644); err != nil {
		return err
	}
	build := "cat > make.cpp && g++ -O2 -o make make.cpp && g++ -O2 -o one one.cpp && javac One.java Two.java"
	cmd := exec.Command("sh", "-c", build)
	cmd.Dir, cmd.Stdin = filepath.Join(dir, "hand"), strings.NewReader(byHand)
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("%w\n%s", err, out)
	}
	for _, pair := range [][2]string{{"one.cpp", "two.py"}, {"One.java", "Two.java"}, {"one.js", "two.py"}} {
		one := besideLoop{pair[0] + " against " + pair[1], "sh", dir, "", pair, [2]string{sums[pair[0]][1], sums[pair[1]][1]}, 20, "20"}
		if err := b.besideTheLoop(one); err != nil {
			return err
		}
	}
	return nil
}

// A besideLoop is a search beside a loop of shell.
type besideLoop struct {
	title, shell, dir, extra string
	files, byHand            [2]string // candidate and reference, and how they are started
	times                    int       // that the loop goes round
	seconds                  string    // of the search
}

func (b *bench) besideTheLoop(l besideLoop) error {
	loop := fmt.Sprintf("i=0; while [ $i -lt %d ]; do i=$((i+1)); ./make $i %s > in; %s < in > a; %s < in > b; cmp -s a b || echo $i; done", l.times, l.extra, l.byHand[0], l.byHand[1])
	var ours, theirs, ratios []float64
	for range b.rounds {
		took, _, err := timed(filepath.Join(l.dir, "hand"), l.shell, "-c", loop)
		if err != nil {
			return err
		}
		c, err := b.cross(l.dir, l.files[0], "--against", l.files[1], "--seconds", l.seconds, "--size", "0.25")
		if err != nil {
			return err
		}
		if len(c.Found) > 0 {
			return fmt.Errorf("%s: two copies of one program part: %+v", l.title, c.Found)
		}
		hand, mine := float64(l.times)/took.Seconds(), float64(c.Inputs)/c.Seconds
		ours, theirs, ratios = append(ours, mine), append(theirs, hand), append(ratios, mine/hand)
	}
	fmt.Printf("rounds: %s: %s a second; a loop in %s %s; %s times as many\n", l.title, spread(ours, "%.0f"), l.shell, spread(theirs, "%.0f"), spread(ratios, "%.0f"))
	return nil
}

// bordersOf are candidates that are wrong on hardly any input of those that are drawn
// evenly, but at a border: of their sum of n numbers up to 10^9.
var bordersOf = []struct{ title, wrong string }{
	{"equal ends", "if (n > 4 && a[0] == a[n - 1]) s++;"},
	{"a power of two past a million", "for (long long x : a) if (x > 1000000 && (x & (x - 1)) == 0) s++;"},
	{"the largest value, last", "if (n > 1 && a[n - 1] == 1000000000) s++;"},
	{"all alike", "if (n > 3 && std::count(a.begin(), a.end(), a[0]) == n) s++;"},
}

// crosses tells for each wrong solution of the demo how soon cold cross finds where it
// fails, and of right ones, which are crossed for so many seconds, that nothing is
// found; and how soon it finds borders.
func (b *bench) crosses(seconds int) error {
	dir, err := b.tour()
	if err != nil {
		return err
	}
	fmt.Printf("cross: %-24s %-22s %8s %8s %9s %7s %8s\n", "solution", "found", "seconds", "inputs", "bytes", "to", "shrink s")
	for _, stop := range demo.Tour() {
		folder := filepath.Join(dir, stop.Folder)
		p, err := problem.Load(folder, vocabulary())
		if err != nil {
			return err
		}
		var right []string
		seen := map[string]bool{}
		for _, s := range p.Solutions {
			if seen[s.File] || s.Expect == "compile error" {
				continue
			}
			seen[s.File] = true
			if s.Expect == "" || s.Expect == "accepted" {
				if s.Role != problem.Reference && slices.Contains([]string{".cpp", ".py", ".c"}, filepath.Ext(s.File)) && len(s.Args) == 0 {
					right = append(right, s.File)
				}
				continue
			}
			args := []string{s.File, "--seconds", "10"}
			switch {
			case stop.Folder == "logbook": // nobody knows its answers; a right solution must serve
				args = append(args, "--against", "logbook.py")
			case s.Role == problem.Reference: // it is slow
				args = append(args, "--against", "thaw.py")
			}
			if err := b.crossOne(stop.Folder, folder, args); err != nil {
				return err
			}
		}
		if len(right) == 0 {
			continue
		}
		began := time.Now()
		args := append(right, "--seconds", fmt.Sprint(seconds))
		if stop.Folder == "logbook" {
			args = append(args, "--against", "logbook.py")
		}
		c, err := b.cross(folder, args...)
		if err != nil {
			return err
		}
		fmt.Printf("cross: %s: %s, right, for %.0f s: %d inputs, %d accused\n", stop.Folder, strings.Join(right, ", "), time.Since(began).Seconds(), c.Inputs, len(c.Found))
	}
	return b.borders()
}

func (b *bench) crossOne(title, folder string, args []string) error {
	c, err := b.cross(folder, args...)
	if err != nil {
		return err
	}
	name := title + "/" + args[0]
	if len(c.Found) == 0 {
		fmt.Printf("cross: %-24s %-22s %8.1f %8d\n", name, "NOTHING", c.Seconds, c.Inputs)
		return nil
	}
	f := c.Found[0]
	smallest := ""
	if !f.Smallest {
		smallest = "  perhaps not the smallest"
	}
	input := f.Cases[len(f.Cases)-1].Input
	if len(input) > 40 {
		input = input[:40] + "…"
	}
	fmt.Printf("cross: %-24s %-22s %8.2f %8d %9d %7d %8.2f%s  %q\n", name, f.Outcome.Verdict, f.Seconds, f.Inputs, f.First, f.Bytes, f.ShrinkSeconds, smallest, input)
	return nil
}

// borders looks for failures that evenly drawn inputs hardly ever show.
func (b *bench) borders() error {
	dir := b.path("cross-borders")
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return err
	}
	source := func(wrong string) []byte {
		return []byte("#include <algorithm>\n#include <iostream>\n#include <vector>\nint main() {\n    long long n, s = 0;\n    std::cin >> n;\n    std::vector<long long> a(n);\n    for (auto &x : a) { std::cin >> x; s += x; }\n    " +
			wrong + "\n    std::cout << s << '\\n';\n}\n")
	}
	files := map[string][]byte{"input.shape": []byte("n: int 1..1000\na: int[n] 1..1e9\n"), "right.cpp": source("")}
	for i, border := range bordersOf {
		files[fmt.Sprintf("border%d.cpp", i)] = source(border.wrong)
	}
	for name, text := range files {
		if err := os.WriteFile(filepath.Join(dir, name), text, 0o644); err != nil {
			return err
		}
	}
	for i, border := range bordersOf {
		var took []float64
		missed := 0
		for seed := range b.rounds {
			c, err := b.cross(dir, fmt.Sprintf("border%d.cpp", i), "--against", "right.cpp", "--seconds", "60", "--seed", fmt.Sprint(1000*seed))
			if err != nil {
				return err
			}
			if len(c.Found) == 0 {
				missed++
				continue
			}
			took = append(took, c.Found[0].Seconds)
		}
		if len(took) == 0 {
			took = []float64{60}
		}
		fmt.Printf("border: %s: found after %s s; %d of %d seeds find nothing in a minute\n", border.title, spread(took, "%.2f"), missed, b.rounds)
	}
	return nil
}
