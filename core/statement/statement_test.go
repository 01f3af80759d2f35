package statement

import (
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/internal/testenv"
)

func TestAStatementGivesItsSamplesAndLimits(t *testing.T) {
	tests := []struct {
		page    string
		title   string
		time    string
		memory  string
		files   problem.Files
		samples []string // input, output, input, output …
		took    string   // a line that says where something is from
		unsure  []string // parts of what it was unsure of
	}{
		{"sections.html", "Teams and crates", "2s", "256MiB", problem.Files{},
			[]string{"9 5\n6 3 4 7 2\n", "2\n", "10 3\n4 4 4\n", "0\n"}, "25 sample 1: input of 2 lines", nil},
		{"table.html", "Radio beacons", "1.5s", "64MiB", problem.Files{},
			[]string{"3 2\n1 2\n2 3\n", "connected\n", "3 1\n1 2\n", "apart\n"}, "9 sample 2: input of 2 lines", nil},
		{"lines.html", "Ice cores", "500ms", "1GiB", problem.Files{Input: "cores.in", Output: "cores.out"},
			[]string{"2\n10 40\n", "2\n", "1\n7 < 8\n", "1 & only\n"}, "4 input file cores.in", []string{"cores.in", "cores.out"}},
		{"thaw.md", "Longest thaw", "2s", "128MiB", problem.Files{},
			[]string{"5\n-1 2 3 -4 5\n", "2\n", "3\n-1 -2 -3\n", "0\n"}, "29 sample 2: input of 2 lines",
			[]string{"time limit: it is said in running text", "memory limit: it is said in running text"}},
		{"tents.txt", "Tents on the ice", "3s", "512MiB", problem.Files{},
			[]string{"3 2\n1\n", "T..\n...\n", "1 1\n1\n", "T\n"}, "16 sample 1: input of 2 lines", nil},
	}
	for _, tt := range tests {
		t.Run(tt.page, func(t *testing.T) {
			text, err := os.ReadFile(filepath.Join("testdata", "pages", tt.page))
			require.NoError(t, err)
			for name, page := range map[string]string{"as saved": string(text), "saved on Windows": strings.ReplaceAll(string(text), "\n", "\r\n")} {
				s := Read([]byte(page)).Problems[0]
				assert.Equal(t, tt.title, s.Title, name)
				assert.Equal(t, tt.time, s.Time, name)
				assert.Equal(t, tt.memory, s.Memory, name)
				assert.Equal(t, tt.files, s.Files, name)
				var samples, took []string
				for _, sample := range s.Samples {
					samples = append(samples, string(sample.Input), string(sample.Output))
				}
				assert.Equal(t, tt.samples, samples, name)
				for _, one := range s.Took {
					took = append(took, strings.TrimSpace(strings.Join([]string{strconv.Itoa(one.Line), one.What}, " ")))
				}
				assert.Contains(t, took, tt.took, name)
				for _, sample := range s.Samples {
					s.Unsure = append(s.Unsure, sample.Doubts...)
				}
				require.Len(t, s.Unsure, len(tt.unsure), "%s: %v", name, s.Unsure)
				for i, part := range tt.unsure {
					assert.Contains(t, s.Unsure[i], part, name)
				}
			}
		})
	}
}

func TestWhatIsDoubtfulOnAPageIsSaid(t *testing.T) {
	tests := map[string]struct {
		page    string
		samples int
		unsure  string
	}{
		"no heading says sample": {"## Input\n```\n1\n```\n## Output\n```\n2\n```\n", 1, "no heading says sample or example"},
		"blocks without labels":  {"# Examples\n```\n1\n```\n```\n2\n```\n", 1, "no heading says which block is the input"},
		"an input alone":         {"# Sample input\n```\n1\n```\n", 0, "no output belongs to it"},
		"an ellipsis":            {"# Sample input\n```\n1 2 ...\n```\n# Sample output\n```\n2\n```\n", 1, "ellipsis"},
		"an empty input":         {"# Sample input\n```\n\n```\n# Sample output\n```\n2\n```\n", 0, "this input is empty"},
		"two limits":             {"Time limit: 1 second\n\nTime limit: 4 seconds\n", 0, "another time limit, 4s"},
		"nothing":                {"A page about snow.\n", 0, ""},
		"a page cut short":       {"<html><body><h2>Sample input</h2><pre>1 2", 0, "this input of 1 line was left out"},
	}
	for name, tt := range tests {
		t.Run(name, func(t *testing.T) {
			s := Read([]byte(tt.page)).Problems[0]
			assert.Len(t, s.Samples, tt.samples)
			for _, sample := range s.Samples {
				s.Unsure = append(s.Unsure, sample.Doubts...)
			}
			if tt.unsure == "" {
				assert.Empty(t, s.Unsure)
				return
			}
			assert.Contains(t, strings.Join(s.Unsure, "\n"), tt.unsure)
		})
	}
}

// whole are the samples of a page of which nothing is missing.
func whole(s Statement) map[string]bool {
	all := map[string]bool{}
	for _, sample := range s.Samples {
		all[string(sample.Input)+"\x00"+string(sample.Output)] = true
	}
	return all
}

// TestNoHalfSampleIsTakenInSilence cuts every page in many places: what is taken without a doubt is whole.
func TestNoHalfSampleIsTakenInSilence(t *testing.T) {
	pages, err := filepath.Glob(filepath.Join("testdata", "pages", "*.want"))
	require.NoError(t, err)
	for _, page := range pages {
		page = strings.TrimSuffix(page, ".want")
		raw, err := os.ReadFile(page)
		require.NoError(t, err)
		text, _ := decoded(raw)
		for _, problem := range Read(text).Problems {
			all := whole(problem)
			step := 1
			if !testenv.InCI() {
				step = 7
			}
			for cut := 0; cut < len(text); cut += step {
				if text[max(0, cut-1)] == '\n' && !htmlPage().Match(text) {
					continue // a text may end there
				}
				for _, one := range Read(text[:cut]).Problems {
					for _, sample := range one.Samples {
						if len(Read(text).Problems) == 1 && len(sample.Doubts) == 0 {
							require.True(t, all[string(sample.Input)+"\x00"+string(sample.Output)], "%s cut at %d: %q %q", page, cut, sample.Input, sample.Output)
						}
					}
				}
			}
		}
	}
}

func TestPagesWithinOthersSayTheSame(t *testing.T) {
	pages, err := filepath.Glob(filepath.Join("testdata", "pages", "*.html"))
	require.NoError(t, err)
	for _, page := range pages {
		raw, err := os.ReadFile(page)
		require.NoError(t, err)
		text, _ := decoded(raw)
		want := Read(text).Problems
		if filepath.Base(page) == "cut.html" {
			continue // its last block takes what follows
		}
		for _, around := range [][2]string{{"<div><div>", "</div></div>"}, {"<section><article>", "</article></section>"}, {"<p>The station's page</p>", "<p>Made at Hoarfrost</p>"}, {"<ul><li>one</li></ul><hr>", "<footer>printed</footer>"}} {
			got := Read([]byte(around[0] + string(text) + around[1])).Problems
			require.Len(t, got, len(want), page)
			for i := range want {
				assert.Equal(t, whole(want[i]), whole(got[i]), "%s in %s", page, around[0])
			}
		}
	}
}

func FuzzPagesOfAnyKindAreRead(f *testing.F) {
	pages, err := filepath.Glob(filepath.Join("testdata", "pages", "*"))
	require.NoError(f, err)
	for _, page := range pages {
		text, err := os.ReadFile(page)
		require.NoError(f, err)
		f.Add(string(text), uint16(len(text)/2), uint16(len(text)/3))
	}
	f.Fuzz(func(t *testing.T, page string, cut, turn uint16) {
		at, from := min(int(cut), len(page)), min(int(turn), len(page))
		for _, text := range []string{page, page[:at], page[at:] + page[:at], "<table><tr><td>" + page[:max(at, from)] + "</td><td>" + page[min(at, from):]} {
			plain, _ := decoded([]byte(text))
			lines := strings.Count(string(plain), "\n") + 1
			for _, s := range Read([]byte(text)).Problems {
				for _, sample := range s.Samples {
					require.NotEmpty(t, strings.TrimSpace(string(sample.Input)))
					require.Positive(t, sample.Line)
					require.LessOrEqual(t, max(sample.Line, sample.OutLine), lines)
					require.True(t, strings.HasSuffix(string(sample.Input), "\n"))
					require.True(t, len(sample.Output) > 0 || len(sample.Doubts) > 0)
				}
				for _, one := range s.Took {
					require.LessOrEqual(t, one.Line, lines, one.What)
					require.Positive(t, one.Line, one.What)
				}
			}
		}
	})
}
