// Command bench measures cold beside outside yardsticks, in one run, and
// prints ratios: a bare C loop of posix_spawn and wait4, cmp, and a line of
// shell. From the project's folder:
//
//	go run ./bench
//
// Absolute times depend on the machine and on what else it does; only the
// ratios of one run are worth quoting. Rounds alternate between cold and its
// yardstick, and the median ratio is printed with the least and the largest.
package main

import (
	"bytes"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"

	"coldverdict/core/box"
)

// A bench is a folder with everything that is needed, built.
type bench struct {
	dir    string
	cold   string
	rounds int
}

func main() {
	box.Supervise()
	if len(os.Args) == 6 && os.Args[1] == compareWord {
		if err := compareTwo(os.Args[2], os.Args[3], os.Args[4], os.Args[5]); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		return
	}
	rounds := flag.Int("rounds", 5, "rounds of each measurement")
	only := flag.String("only", "", "make one measurement only: start, spawn, held, late, quiet, cases, pour, compare, talk, calls, nodes, shape, shrink, edges, rounds, grow, ready, cross, edit, import or watch")
	seconds := flag.Int("right", 10, "seconds for which right solutions are crossed")
	flag.Parse()
	if err := run(*rounds, *seconds, *only); err != nil {
		fmt.Fprintln(os.Stderr, "bench:", err)
		os.Exit(1)
	}
}

func run(rounds, seconds int, only string) error {
	dir, err := os.MkdirTemp("", "cold-bench-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	b := &bench{dir: dir, cold: filepath.Join(dir, "cold"), rounds: rounds}
	for _, build := range []string{
		"go build -o " + b.cold + " ./cmd/cold",
		"gcc -O2 -o " + b.path("spawn") + " bench/programs/spawn.c",
		"g++ -O2 -static -o " + b.path("tiny") + " bench/programs/tiny.cpp",
		"g++ -O2 -o " + b.path("tiny-dynamic") + " bench/programs/tiny.cpp",
		"gcc -O2 -static -o " + b.path("tiny-c") + " bench/programs/tiny.c",
		"gcc -O2 -static -o " + b.path("late") + " bench/programs/late.c",
		"gcc -O2 -o " + b.path("pingpong") + " bench/programs/pingpong.c",
		"gcc -O2 -static -o " + b.path("pour") + " bench/programs/pour.c",
		"gcc -O2 -static -o " + b.path("dump") + " bench/programs/dump.c",
		"g++ -O2 -static -o " + b.path("planted") + " bench/programs/planted.cpp",
	} {
		words := strings.Fields(build)
		cmd := exec.Command(words[0], words[1:]...)
		cmd.Env = append(os.Environ(), "CGO_ENABLED=0")
		if out, err := cmd.CombinedOutput(); err != nil {
			return fmt.Errorf("%s: %w\n%s", build, err, out)
		}
	}
	for _, m := range []struct {
		name    string
		measure func() error
	}{
		{"start", b.start}, {"spawn", b.spawn}, {"held", b.held}, {"late", b.late}, {"quiet", b.quiet}, {"cases", b.manyCases}, {"pour", b.pour}, {"compare", b.compares}, {"talk", b.talks}, {"calls", b.calls}, {"shape", b.shapes}, {"shrink", b.shrinks}, {"edges", b.edges}, {"rounds", b.crossRounds}, {"grow", b.growth}, {"ready", b.ready}, {"cross", func() error { return b.crosses(seconds) }}, {"edit", b.edit}, {"import", b.imports}, {"watch", b.watch},
	} {
		if only != "" && only != m.name {
			continue
		}
		if err := m.measure(); err != nil {
			return err
		}
	}
	if only == "nodes" { // a part of calls
		return b.nodes()
	}
	return nil
}

func (b *bench) path(name string) string { return filepath.Join(b.dir, name) }

// problem makes a problem of n tiny cases with a source.
func (b *bench) problem(name, source string, n int) (string, error) {
	dir := b.path(name)
	cases := filepath.Join(dir, "cases")
	if err := os.MkdirAll(cases, 0o755); err != nil {
		return "", err
	}
	text, err := os.ReadFile(filepath.Join("bench", "programs", source))
	if err != nil {
		return "", err
	}
	if err := os.WriteFile(filepath.Join(dir, source), text, 0o644); err != nil {
		return "", err
	}
	for i := range n {
		base := filepath.Join(cases, strconv.Itoa(i))
		if err := os.WriteFile(base+".in", fmt.Appendf(nil, "%d 4\n", i), 0o644); err != nil {
			return "", err
		}
		if err := os.WriteFile(base+".out", fmt.Appendf(nil, "%d\n", i+4), 0o644); err != nil {
			return "", err
		}
	}
	return dir, nil
}

// timed runs a command and returns how long it took, and its peak memory in
// bytes, followed while it runs.
func timed(dir, name string, args ...string) (time.Duration, int64, error) {
	cmd := exec.Command(name, args...)
	cmd.Dir = dir
	var errors bytes.Buffer
	cmd.Stderr = &errors
	began := time.Now()
	if err := cmd.Start(); err != nil {
		return 0, 0, err
	}
	ended := make(chan struct{})
	peak := make(chan int64)
	go func() { peak <- follow(cmd.Process.Pid, ended) }()
	err := cmd.Wait()
	took := time.Since(began)
	close(ended)
	if err != nil {
		err = fmt.Errorf("%s %s: %w\n%s", name, strings.Join(args, " "), err, errors.String())
	}
	return took, <-peak, err
}

// follow returns the high-water mark of a process. What wait4 reports would
// carry over that of the process that started it.
func follow(pid int, ended chan struct{}) (peak int64) {
	for {
		text, _ := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
		if _, rest, ok := bytes.Cut(text, []byte("VmHWM:")); ok {
			fmt.Sscan(string(rest), &peak)
		}
		select {
		case <-ended:
			return peak << 10
		case <-time.After(5 * time.Millisecond):
		}
	}
}

// spread is the median of some figures, with the least and the largest.
func spread(figures []float64, format string) string {
	sorted := slices.Sorted(slices.Values(figures))
	return fmt.Sprintf(format+" ("+format+" to "+format+")", sorted[len(sorted)/2], sorted[0], sorted[len(sorted)-1])
}

// start measures the program's own start, and what cold try adds to one run.
func (b *bench) start() error {
	dir, err := b.problem("start", "tiny.cpp", 1)
	if err != nil {
		return err
	}
	if _, _, err := timed(dir, b.cold, "try"); err != nil { // builds
		return err
	}
	var version, first []float64
	for range 4 * b.rounds {
		took, _, err := timed(dir, b.cold, "--version")
		if err != nil {
			return err
		}
		version = append(version, took.Seconds()*1000)
		if took, _, err = timed(dir, b.cold, "try"); err != nil {
			return err
		}
		first = append(first, took.Seconds()*1000)
	}
	fmt.Printf("start: cold --version takes %s ms\n", spread(version, "%.1f"))
	fmt.Printf("start: cold try on a cached build and one tiny case takes %s ms in all\n", spread(first, "%.1f"))
	return nil
}

// spawn compares 10,000 tiny cases with the bare loop.
func (b *bench) spawn() error {
	const n = 10_000
	dir, err := b.problem("runs", "tiny.cpp", n)
	if err != nil {
		return err
	}
	input := filepath.Join(dir, "cases", "1.in")
	for _, workers := range []string{"1", "2"} {
		var ratios, extra []float64
		for range b.rounds {
			text, err := exec.Command(b.path("spawn"), strconv.Itoa(n), workers, input, b.path("tiny")).Output()
			if err != nil {
				return err
			}
			bare, err := strconv.ParseFloat(strings.TrimSpace(string(text)), 64)
			if err != nil {
				return err
			}
			took, _, err := timed(dir, b.cold, "try", "--jobs", workers)
			if err != nil {
				return err
			}
			ratios = append(ratios, took.Seconds()/bare)
			extra = append(extra, (took.Seconds()-bare)/n*1000)
		}
		fmt.Printf("spawn: %d tiny cases, %s side by side: %s times the bare loop's time; %s ms more a run\n",
			n, workers, spread(ratios, "%.2f"), spread(extra, "%.2f"))
	}
	return nil
}

// manyCases compares the cost of a case among 20,000 and among 200.
func (b *bench) manyCases() error {
	few, err := b.problem("few", "tiny.cpp", 200)
	if err != nil {
		return err
	}
	many, err := b.problem("many", "tiny.cpp", 20_000)
	if err != nil {
		return err
	}
	var ratios, fewPeak, manyPeak []float64
	for range b.rounds {
		each := map[string]float64{}
		for dir, n := range map[string]int{few: 200, many: 20_000} {
			took, peak, err := timed(dir, b.cold, "try")
			if err != nil {
				return err
			}
			each[dir] = took.Seconds() / float64(n)
			if dir == few {
				fewPeak = append(fewPeak, float64(peak)/(1<<20))
			} else {
				manyPeak = append(manyPeak, float64(peak)/(1<<20))
			}
		}
		ratios = append(ratios, each[many]/each[few])
	}
	fmt.Printf("cases: one case among 20,000 costs %s times one among 200; cold's peak is %s MiB, against %s\n",
		spread(ratios, "%.2f"), spread(manyPeak, "%.0f"), spread(fewPeak, "%.0f"))
	return nil
}

// pour compares judging an output of 1 GB with piping it into cmp.
func (b *bench) pour() error {
	dir, err := b.problem("output", "pour.c", 0)
	if err != nil {
		return err
	}
	expected := filepath.Join(dir, "cases", "1.out")
	if err := os.WriteFile(filepath.Join(dir, "cases", "1.in"), nil, 0o644); err != nil {
		return err
	}
	if out, err := exec.Command("sh", "-c", b.path("pour")+" > "+expected).CombinedOutput(); err != nil {
		return fmt.Errorf("%w: %s", err, out)
	}
	config := "[limits]\ntime = \"1min\"\noutput = \"2GB\"\n"
	if err := os.WriteFile(filepath.Join(dir, "verdict.toml"), []byte(config), 0o644); err != nil {
		return err
	}
	var ratios, peaks []float64
	for range b.rounds {
		bare, _, err := timed(dir, "sh", "-c", b.path("pour")+" | cmp - "+expected)
		if err != nil {
			return err
		}
		took, peak, err := timed(dir, b.cold, "try")
		if err != nil {
			return err
		}
		ratios = append(ratios, took.Seconds()/bare.Seconds())
		peaks = append(peaks, float64(peak)/(1<<20))
	}
	fmt.Printf("pour: an output of 1 GB in mode lines: %s times the time of the same bytes piped into cmp; cold's peak is %s MiB\n",
		spread(ratios, "%.2f"), spread(peaks, "%.0f"))
	return nil
}
