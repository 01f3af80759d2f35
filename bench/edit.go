package main

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"time"
)

// edits are sources that are changed, built, run on one case and judged: by
// cold, and by a line of shell that does no more than that.
var edits = []struct{ title, file, comment, byHand string }{
	{"C++", "teams.cpp", "//", "g++ -O2 -std=gnu++20 -static -Wall -Wextra -o p teams.cpp && ./p < 1.in > got && cmp -s got 1.out"},
	{"C++ with all headers", "teams.cpp", "//", "g++ -O2 -std=gnu++20 -static -Wall -Wextra -o p teams.cpp && ./p < 1.in > got && cmp -s got 1.out"},
	{"Java", "Teams.java", "//", "javac -J-XX:TieredStopAtLevel=1 -J-XX:+UseSerialGC -encoding UTF-8 -d . Teams.java && java -XX:+UseSerialGC -XX:-UsePerfData -Xmx256m -Xss128m -cp . Teams < 1.in > got && cmp -s got 1.out"},
	{"Go", "teams.go", "//", "GOTOOLCHAIN=local GOPROXY=off GOFLAGS= GOWORK=off CGO_ENABLED=0 go build -trimpath -o p teams.go && ./p < 1.in > got && cmp -s got 1.out"},
}

// edit measures the time from an edit to the verdict, and the share of it that
// is neither the compiler's nor the program's.
func (b *bench) edit() error {
	for _, e := range edits {
		source, err := os.ReadFile(filepath.Join("demo", "problems", "teams", e.file))
		if err != nil {
			return err
		}
		if e.title == "C++ with all headers" {
			lines := regexp.MustCompile(`(?m)^#include .*\n`)
			source = append([]byte("#include <bits/stdc++.h>\n"), lines.ReplaceAll(source, nil)...)
		}
		dir := b.path("edit-" + strings.ReplaceAll(e.title, " ", "-"))
		if err := os.MkdirAll(dir, 0o755); err != nil {
			return err
		}
		for name, text := range map[string]string{"1.in": "9 5\n6 3 4 7 2\n", "1.out": "2\n"} {
			if err := os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644); err != nil {
				return err
			}
		}
		edited := func(name string, args ...string) (float64, error) {
			text := fmt.Appendf(nil, "%s%s edited at %d\n", source, e.comment, time.Now().UnixNano())
			if err := os.WriteFile(filepath.Join(dir, e.file), text, 0o644); err != nil {
				return 0, err
			}
			took, _, err := timed(dir, name, args...)
			return took.Seconds(), err
		}
		if strings.HasPrefix(e.title, "C++") { // what is done in the background after the first build at a terminal
			if err := os.WriteFile(filepath.Join(dir, e.file), source, 0o644); err != nil {
				return err
			}
			if _, _, err := timed(dir, b.cold, "host", "--warm", e.file); err != nil {
				return err
			}
		}
		var ours, byHand, share []float64
		for i := range 2*b.rounds + 1 {
			hand, err := edited("sh", "-c", e.byHand)
			if err != nil {
				return err
			}
			cold, err := edited(b.cold, "try", e.file)
			if err != nil {
				return err
			}
			if i == 0 { // fills what compilers and cold keep
				continue
			}
			ours, byHand, share = append(ours, cold), append(byHand, hand), append(share, 100*(cold-hand)/cold)
		}
		fmt.Printf("edit: %s, from an edit to the verdict: cold %s s, a line of shell %s s; cold's own share %s %%\n",
			e.title, spread(ours, "%.2f"), spread(byHand, "%.2f"), spread(share, "%.1f"))
	}
	return nil
}
