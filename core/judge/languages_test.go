package judge

import (
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// In each language, a program that takes memory without end: at once on the
// input "sudden", and otherwise bit by bit; and that on the input "burn" uses
// 0.3 seconds of processor time and prints what it used by its own clock.
var hogs = map[string]struct{ tool, text string }{
	"hog.c": {"gcc", `
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>
int main(void)
{
    char word[20] = "";
    if (scanf("%19s", word) == 1 && !strcmp(word, "burn")) {
        while (clock() < 0.3 * CLOCKS_PER_SEC) {}
        return printf("%f\n", (double)clock() / CLOCKS_PER_SEC) < 0;
    }
    if (!strcmp(word, "sudden")) memset(malloc(1L << 31), 1, 1L << 31);
    for (;;) { memset(malloc(1 << 16), 1, 1 << 16); usleep(100); }
}
`},
	"hog.cpp": {"g++", `
#include <ctime>
#include <iostream>
#include <string>
#include <vector>
int main()
{
    std::string word;
    std::cin >> word;
    if (word == "burn") {
        while (clock() < 0.3 * CLOCKS_PER_SEC) {}
        std::cout << double(clock()) / CLOCKS_PER_SEC << "\n";
        return 0;
    }
    if (word == "sudden") std::vector<long long> all(1LL << 40, 1);
    std::vector<std::string> all;
    for (;;) all.emplace_back(1 << 16, 'x');
}
`},
	"hog.py": {"python3", `
import time
word = input()
if word == "burn":
    while time.process_time() < 0.3: pass
    print(time.process_time())
    raise SystemExit
everything = bytearray(1 << 40) if word == "sudden" else []
while True: everything.append("x" * (1 << 16) + str(len(everything)))
`},
	"Hog.java": {"javac", `
import java.util.*;
public class Hog {
    public static void main(String[] a) {
        String word = new Scanner(System.in).next();
        var system = (com.sun.management.OperatingSystemMXBean) java.lang.management.ManagementFactory.getOperatingSystemMXBean();
        if (word.equals("burn")) {
            long began = system.getProcessCpuTime();
            while (system.getProcessCpuTime() - began < 300_000_000L) {}
            System.out.println(system.getProcessCpuTime() / 1e9);
            return;
        }
        List<long[]> all = new ArrayList<>();
        if (word.equals("sudden")) all.add(new long[1 << 30]);
        for (;;) all.add(new long[1 << 13]);
    }
}
`},
	"hog.js": {"node", `
const word = require("fs").readFileSync(0, "utf8").trim();
const used = () => { const u = process.cpuUsage(); return (u.user + u.system) / 1e6; };
if (word === "burn") {
    while (used() < 0.3) {}
    console.log(used());
} else {
    const all = [];
    if (word === "sudden") all.push(new Array(1 << 27).fill(1.5));
    for (;;) all.push(new Array(1 << 12).fill(all.length));
}
`},
	"hog.go": {"go", `
package main

import (
	"fmt"
	"syscall"
)

func used() float64 {
	var u syscall.Rusage
	syscall.Getrusage(0, &u)
	return float64(u.Utime.Nano()+u.Stime.Nano()) / 1e9
}

func main() {
	var word string
	fmt.Scan(&word)
	if word == "burn" {
		for used() < 0.3 {
		}
		fmt.Println(used())
		return
	}
	var all [][]int64
	if word == "sudden" {
		all = append(all, make([]int64, 1<<28))
		for i := range all[0] {
			all[0][i] = 1
		}
	}
	for {
		one := make([]int64, 1<<13)
		for i := range one {
			one[i] = 1
		}
		all = append(all, one)
	}
}
`},
}

func TestMemoryAndTimeInEveryLanguage(t *testing.T) {
	testenv.NotShort(t, "it builds in every language")
	for name, hog := range hogs {
		t.Run(name, func(t *testing.T) {
			testenv.Need(t, "gcc", hog.tool)
			testenv.SweepUnlessQuick(t, name)
			r := newTry(t, "sudden\n", "-", "slow\n", "-", "burn\n", "-")
			require.NoError(t, os.WriteFile(filepath.Join(r.problem.Dir, name), []byte(hog.text), 0o644))
			r.solution.File = name
			r.options.KeepAll = true
			r.problem.Limits = problem.Limits{General: verdict.Limits{
				Time: 20 * time.Second, Wall: 40 * time.Second, Memory: 192 << 20, Output: 1 << 20, Processes: 500,
			}}
			outcomes, _ := r.outcomes(t)
			require.Len(t, outcomes, 3)
			for i, how := range []string{"sudden", "slow"} {
				o := outcomes[i]
				assert.Equal(t, verdict.MemoryLimit, o.Verdict, "%s: %s %s %s", how, o.Message, o.Signal, o.Stderr.Bytes)
			}
			burner := outcomes[2]
			require.Equal(t, verdict.Unjudged, burner.Verdict, "%s %s", burner.Message, burner.Stderr.Bytes)
			own, err := strconv.ParseFloat(strings.TrimSpace(string(burner.Stdout.Bytes)), 64)
			require.NoError(t, err)
			// Beyond its own figure it can only have started and ended.
			assert.GreaterOrEqual(t, burner.Usage.CPU.Seconds(), own-0.002)
			assert.Less(t, burner.Usage.CPU.Seconds(), own+0.25)
		})
	}
}
