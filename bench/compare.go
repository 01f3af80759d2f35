package main

import (
	"bufio"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"

	"coldverdict/core/compare"
)

// compareSize is how large the compared files are, in bytes.
const compareSize = 1_000_000_000

// compareWord is the first argument of this program when it is started again
// to compare two files, so that its memory can be measured.
const compareWord = "compare-two-files"

// compareTwo compares two files in a mode and says nothing if they are equal.
func compareTwo(mode, order, expected, got string) error {
	want, err := os.Open(expected)
	if err != nil {
		return err
	}
	c, err := compare.New(compare.Settings{Mode: mode, AnyOrder: order, Absolute: 1e-6, Relative: 1e-6}, want)
	if err != nil {
		return err
	}
	defer c.Close()
	file, err := os.Open(got)
	if err != nil {
		return err
	}
	defer file.Close()
	buffer := make([]byte, 1<<20) // as large as the pipe that a box reads from
	for {
		n, err := file.Read(buffer)
		c.Write(buffer[:n])
		if err == io.EOF {
			break
		}
		if err != nil {
			return err
		}
	}
	d, err := c.Result()
	if d != nil {
		err = fmt.Errorf("they differ: %s in line %d", d.Reason, d.Line)
	}
	return err
}

// compares compares two files of 1 GB in each mode, beside cmp
// and diff -q: the same bytes twice, and then texts that differ wherever the
// mode lets them.
func (b *bench) compares() error {
	files, err := b.compared()
	defer func() {
		for _, path := range files {
			os.Remove(path)
		}
	}()
	if err != nil {
		return err
	}
	same := files["same"]
	self, err := os.Executable()
	if err != nil {
		return err
	}
	for _, m := range []struct{ words, mode, order, got string }{
		{"exact, the same bytes", "exact", "", same},
		{"lines, the same bytes", "lines", "", same},
		{"lines, a blank more at each line's end", "lines", "", files["lines"]},
		{"tokens, the same bytes", "tokens", "", same},
		{"tokens, a line for each word", "tokens", "", files["tokens"]},
		{"numbers, the same bytes", "numbers", "", same},
		{"numbers, a digit more each second word", "numbers", "", files["numbers"]},
		{"any order of lines", "lines", "lines", same},
		{"any order of words", "tokens", "tokens", same},
	} {
		var cmp, diff, rate, peak []float64
		for range b.rounds {
			bare, _, err := timed(b.dir, "cmp", files["expected"], same)
			if err != nil {
				return err
			}
			other, _, err := timed(b.dir, "diff", "-q", files["expected"], same)
			if err != nil {
				return err
			}
			took, most, err := timed(b.dir, self, compareWord, m.mode, m.order, files["expected"], m.got)
			if err != nil {
				return err
			}
			cmp, diff = append(cmp, took.Seconds()/bare.Seconds()), append(diff, took.Seconds()/other.Seconds())
			rate, peak = append(rate, compareSize/took.Seconds()/1e6), append(peak, float64(most)/(1<<20))
		}
		fmt.Printf("compare: %s: %s MB/s, %s times the time of cmp, %s of diff -q; peak %s MiB\n",
			m.words, spread(rate, "%.0f"), spread(cmp, "%.2f"), spread(diff, "%.2f"), spread(peak, "%.0f"))
	}
	return nil
}

// compared writes the files that are compared, also where it fails.
func (b *bench) compared() (files map[string]string, err error) {
	write := func(name string, line func(i int) string) (string, error) {
		path := b.path(name)
		file, err := os.Create(path)
		if err != nil {
			return "", err
		}
		w := bufio.NewWriterSize(file, 1<<20)
		for i := range compareSize / len("100000000 0.100000000\n") {
			if _, err := w.WriteString(line(i)); err != nil {
				return "", err
			}
		}
		if err := w.Flush(); err != nil {
			return "", err
		}
		return path, file.Close()
	}
	number := func(i int) string { return strconv.Itoa(100_000_000 + i*7919%900_000_000) }
	files = map[string]string{}
	for name, line := range map[string]func(i int) string{
		"expected": func(i int) string { return number(i) + " 0." + number(i+1) + "\n" },
		"lines":    func(i int) string { return number(i) + " 0." + number(i+1) + " \n" },
		"tokens":   func(i int) string { return number(i) + "\n0." + number(i+1) + "\n" },
		"numbers":  func(i int) string { return number(i) + " 0." + number(i+1) + "4\n" },
	} {
		path, err := write(name, line)
		if err != nil {
			return files, err
		}
		files[name] = path
	}
	files["same"] = b.path("same")
	return files, exec.Command("cp", files["expected"], files["same"]).Run()
}

// talks times 1,000 interactive runs of 30 exchanges each, and the cost of one
// exchange beside a bare ping-pong over pipes.
func (b *bench) talks() error {
	const runs, exchanges = 1000, 30
	problems := map[int]string{}
	for _, n := range []int{0, exchanges} {
		dir, err := b.problem(fmt.Sprint("talk-", n), "echo.c", 0)
		if err != nil {
			return err
		}
		problems[n] = dir
		script, err := os.ReadFile("bench/programs/echo.star")
		if err != nil {
			return err
		}
		files := map[string]string{"talk.star": string(script), "verdict.toml": "[interactive]\nscript = \"talk.star\"\n[limits]\ntime = \"10s\"\n"}
		for i := range runs {
			files[filepath.Join("cases", strconv.Itoa(i)+".in")] = fmt.Sprintln(n)
		}
		for name, text := range files {
			if err := os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644); err != nil {
				return err
			}
		}
	}
	var each, ratio, whole []float64
	for range b.rounds {
		text, err := exec.Command(b.path("pingpong"), "30000").Output()
		if err != nil {
			return err
		}
		bare, err := strconv.ParseFloat(strings.TrimSpace(string(text)), 64)
		if err != nil {
			return err
		}
		took := map[int]float64{}
		for n, dir := range problems {
			t, _, err := timed(dir, b.cold, "try", "--jobs", "1") // fails unless every run is accepted
			if err != nil {
				return err
			}
			took[n] = t.Seconds()
		}
		one := (took[exchanges] - took[0]) / runs / exchanges
		each, ratio = append(each, 1e6*one), append(ratio, one/(bare/30_000))
		whole = append(whole, took[exchanges]/runs*1000)
	}
	fmt.Printf("talk: %d runs of %d exchanges, all accepted: %s ms a run; one exchange %s µs, %s times a bare ping-pong's\n",
		runs, exchanges, spread(whole, "%.1f"), spread(each, "%.0f"), spread(ratio, "%.1f"))
	return nil
}
