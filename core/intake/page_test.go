package intake

import (
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
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
				s := ReadPage([]byte(page))
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
		"blocks without labels":  {"# Examples\n```\n1\n```\n```\n2\n```\n", 1, "have no headings"},
		"an input alone":         {"# Sample input\n```\n1\n```\n", 0, "has no partner"},
		"an ellipsis":            {"# Sample input\n```\n1 2 ...\n```\n# Sample output\n```\n2\n```\n", 1, "ellipsis"},
		"an empty input":         {"# Sample input\n```\n\n```\n# Sample output\n```\n2\n```\n", 0, "this input is empty"},
		"two limits":             {"Time limit: 1 second\n\nTime limit: 4 seconds\n", 0, "another time limit, 4s"},
		"nothing":                {"A page about snow.\n", 0, ""},
		"a page cut short":       {"<html><body><h2>Sample input</h2><pre>1 2", 0, ""},
	}
	for name, tt := range tests {
		t.Run(name, func(t *testing.T) {
			s := ReadPage([]byte(tt.page))
			assert.Len(t, s.Samples, tt.samples)
			if tt.unsure == "" {
				assert.Empty(t, s.Unsure)
				return
			}
			assert.Contains(t, strings.Join(s.Unsure, "\n"), tt.unsure)
		})
	}
}

func FuzzPagesOfAnyKindAreRead(f *testing.F) {
	pages, err := filepath.Glob(filepath.Join("testdata", "pages", "*"))
	require.NoError(f, err)
	for _, page := range pages {
		text, err := os.ReadFile(page)
		require.NoError(f, err)
		f.Add(string(text))
	}
	f.Fuzz(func(t *testing.T, page string) {
		lines := strings.Count(page, "\n") + 1
		s := ReadPage([]byte(page))
		for _, sample := range s.Samples {
			require.NotEmpty(t, sample.Input)
			require.True(t, strings.HasSuffix(string(sample.Input), "\n"))
		}
		for _, one := range s.Took {
			require.LessOrEqual(t, one.Line, lines, one.What)
			require.Positive(t, one.Line, one.What)
		}
	})
}
