package main

import (
	"bufio"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
)

var heldLimits = verdict.Limits{Time: 2 * time.Second, Wall: 5 * time.Second, Memory: 256 << 20, Output: 64 << 20, Processes: 2048}

// openBox opens a box as cold try does, with isolation and groups.
func (b *bench) openBox() (*box.Box, error) {
	groups, _ := box.OpenGroups()
	visible := []string{b.dir}
	if python, err := exec.Command("python3", "-c", "import sys; print(sys.prefix)").Output(); err == nil {
		visible = append(visible, strings.TrimSpace(string(python)))
	}
	return box.Open(box.Options{Scratch: b.dir, Groups: groups, Visible: visible})
}

// held compares a run under all limits and in the sandbox with the bare loop, for a
// static C program, a dynamic C++ program, and Python.
func (b *bench) held() error {
	python, err := exec.Command("python3", "-c", "import sys; print(sys.executable)").Output()
	if err != nil {
		return err
	}
	source, err := os.ReadFile(filepath.Join("bench", "programs", "tiny.py"))
	if err != nil {
		return err
	}
	if err := os.WriteFile(b.path("tiny.py"), source, 0o644); err != nil {
		return err
	}
	input := b.path("held.in")
	if err := os.WriteFile(input, []byte("3 4\n"), 0o644); err != nil {
		return err
	}
	one, err := b.openBox()
	if err != nil {
		return err
	}
	defer one.Close()
	two, err := b.openBox()
	if err != nil {
		return err
	}
	defer two.Close()
	fmt.Printf("held: %s\n", one.Hold())
	for _, p := range []struct {
		name    string
		command []string
		pairs   int // for each round asked for
		batch   int // runs with one worker, and with two
	}{
		{"static C", []string{b.path("tiny-c")}, 500, 500},
		{"dynamic C++", []string{b.path("tiny-dynamic")}, 300, 300},
		{"Python", []string{strings.TrimSpace(string(python)), b.path("tiny.py")}, 100, 20},
	} {
		bare, ours, extra, err := b.inTurn(p.pairs*b.rounds, input, p.command, one)
		if err != nil {
			return err
		}
		var gain []float64
		for range b.rounds {
			alone, err := runMany(p.batch, input, p.command, one)
			if err != nil {
				return err
			}
			both, err := runMany(p.batch, input, p.command, one, two)
			if err != nil {
				return err
			}
			gain = append(gain, alone.Seconds()/both.Seconds())
		}
		fmt.Printf("held: %s: bare %s ms a run, held %s ms; %s ms more (middle half of %d pairs), %s; with 2 workers %s times as many a second\n",
			p.name, half(bare), half(ours), half(extra), len(extra), certain(extra), spread(gain, "%.2f"))
	}
	return nil
}

// half is the median of some figures, with the quarters beside it.
func half(figures []float64) string {
	sorted := slices.Sorted(slices.Values(figures))
	n := len(sorted)
	return fmt.Sprintf("%.2f (%.2f to %.2f)", sorted[n/2], sorted[n/4], sorted[n-1-n/4])
}

// certain says between which figures the true median lies, 19 times of 20: how
// many of n figures are below it varies by half the square root of n.
func certain(figures []float64) string {
	sorted := slices.Sorted(slices.Values(figures))
	n := float64(len(sorted))
	away := int(math.Ceil(0.98 * math.Sqrt(n)))
	return fmt.Sprintf("the median is %.2f to %.2f with 95 %% certainty", sorted[max(0, len(sorted)/2-away)], sorted[min(len(sorted)-1, len(sorted)/2+away)])
}

// A bareLoop runs a program when asked.
type bareLoop struct {
	cmd   *exec.Cmd
	asks  io.WriteCloser
	tells *bufio.Scanner
}

func (b *bench) startLoop(input string, command []string) (*bareLoop, error) {
	cmd := exec.Command(b.path("spawn"), append([]string{"0", "1", input}, command...)...)
	asks, err := cmd.StdinPipe()
	if err != nil {
		return nil, err
	}
	tells, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	return &bareLoop{cmd, asks, bufio.NewScanner(tells)}, cmd.Start()
}

// once runs the program once and returns how long that took.
func (l *bareLoop) once() (time.Duration, error) {
	if _, err := l.asks.Write([]byte{'.'}); err != nil {
		return 0, err
	}
	if !l.tells.Scan() {
		return 0, errors.Join(errors.New("the bare loop has ended"), l.tells.Err())
	}
	return time.ParseDuration(l.tells.Text() + "s")
}

func (l *bareLoop) end() error {
	l.asks.Close()
	return l.cmd.Wait()
}

// inTurn runs a program n times in the bare loop and n times in a box, and
// returns the milliseconds of each, and how many more those in the box were. It
// goes one by one, since a machine's pace drifts, and each is first as often as
// second, since what comes second finds the machine as the first has left it.
func (b *bench) inTurn(n int, input string, command []string, in *box.Box) (bare, ours, extra []float64, err error) {
	loop, err := b.startLoop(input, command)
	if err != nil {
		return nil, nil, nil, err
	}
	runs := []func() error{
		func() error {
			took, err := loop.once()
			bare = append(bare, took.Seconds()*1000)
			return err
		},
		func() error {
			took, err := runMany(1, input, command, in)
			ours = append(ours, took.Seconds()*1000)
			return err
		},
	}
	for i := range n {
		for j := range runs {
			if err := runs[(i+j)%len(runs)](); err != nil {
				return nil, nil, nil, err
			}
		}
		extra = append(extra, ours[i]-bare[i])
	}
	return bare, ours, extra, loop.end()
}

// runMany runs a program n times, spread over boxes.
func runMany(n int, input string, command []string, boxes ...*box.Box) (time.Duration, error) {
	began := time.Now()
	failed := make([]error, len(boxes))
	var group sync.WaitGroup
	for i, b := range boxes {
		group.Go(func() {
			for range n / len(boxes) {
				file, err := os.Open(input)
				if err == nil {
					// The same environment as the bare loop's, since runtimes do more without one.
					run := box.Run{Program: box.Program{Path: command[0], Args: command[1:], Env: os.Environ()}, Limits: heldLimits, Input: file, Output: io.Discard}
					_, err = b.Run(context.Background(), run)
					file.Close()
				}
				if err != nil {
					failed[i] = err
					return
				}
			}
		})
	}
	group.Wait()
	return time.Since(began), errors.Join(failed...)
}

// late measures how long after passing a limit a run is over, as its caller
// sees it.
func (b *bench) late() error {
	const runs = 100
	one, err := b.openBox()
	if err != nil {
		return err
	}
	defer one.Close()
	for _, l := range []struct {
		what   string
		amount float64
		limits verdict.Limits
		want   box.Ending
	}{
		{"time", 0.05, verdict.Limits{Time: 50 * time.Millisecond, Wall: 5 * time.Second}, box.PassedTime},
		{"wall", 0.05, verdict.Limits{Time: time.Second, Wall: 50 * time.Millisecond}, box.PassedWall},
		{"memory", 64 << 20, verdict.Limits{Time: 5 * time.Second, Wall: 10 * time.Second, Memory: 64 << 20}, box.PassedMemory},
	} {
		var all []float64
		for range runs {
			out := &box.Head{Most: 64}
			run := box.Run{Program: box.Program{Path: b.path("late"), Args: []string{l.what, fmt.Sprint(l.amount)}}, Limits: l.limits, Output: out}
			result, err := one.Run(context.Background(), run)
			var now unix.Timespec
			unix.ClockGettime(unix.CLOCK_MONOTONIC, &now)
			if err != nil {
				return err
			}
			if result.Ending != l.want {
				return fmt.Errorf("late %s: it ended by %s", l.what, result.Ending)
			}
			moment, err := strconv.ParseFloat(strings.TrimSpace(string(out.Text)), 64)
			if err != nil { // it was ended before it had said so
				moment = float64(now.Nano()) / 1e9
			}
			all = append(all, float64(now.Nano())/1e6-moment*1e3)
		}
		fmt.Printf("late: %s: over %s ms after passing its limit, of %d runs\n", l.what, spread(all, "%.1f"), runs)
	}
	return nil
}

// quiet compares the processor time of cases that run beside each other, as
// many as cold chooses by itself, with that of the same cases alone.
func (b *bench) quiet() error {
	dir, err := b.problem("quiet", "sort.cpp", 12)
	if err != nil {
		return err
	}
	var ratios []float64
	for range b.rounds {
		used := map[string]float64{}
		for _, jobs := range []string{"", "1"} {
			args := []string{"try", "--time", "10s", "--json", "results.json"}
			if jobs != "" {
				args = append(args, "--jobs", jobs)
			}
			if _, _, err := timed(dir, b.cold, args...); err != nil {
				return err
			}
			text, err := os.ReadFile(filepath.Join(dir, "results.json"))
			if err != nil {
				return err
			}
			var results struct {
				Solutions []struct {
					Cases []struct {
						CPU float64 `json:"cpu_seconds"`
					}
				}
			}
			if err := json.Unmarshal(text, &results); err != nil {
				return err
			}
			for _, c := range results.Solutions[0].Cases {
				used[jobs] += c.CPU
			}
		}
		ratios = append(ratios, used[""]/used["1"])
	}
	fmt.Printf("quiet: cases that sort 1.5 million numbers beside each other take %s times the processor time of the same one at a time\n", spread(ratios, "%.2f"))
	return nil
}
