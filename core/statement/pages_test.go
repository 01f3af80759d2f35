package statement

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A page in testdata/pages has beside it what is to be taken from it: a line "name: value" each, and samples, with "<"
// before the lines of the input and ">" before those of the output. One that is unsure must be said to be so.

type wantedSample struct {
	input, output string
	unsure        bool
}

func wantedOf(t *testing.T, page string) (fields map[string]string, samples []wantedSample) {
	t.Helper()
	text, err := os.ReadFile(page + ".want")
	require.NoError(t, err)
	fields = map[string]string{}
	for line := range strings.Lines(string(text)) {
		line = strings.TrimSuffix(line, "\n")
		switch {
		case strings.HasPrefix(line, "sample"):
			samples = append(samples, wantedSample{unsure: strings.HasSuffix(line, "unsure")})
		case strings.HasPrefix(line, "< "):
			samples[len(samples)-1].input += line[2:] + "\n"
		case strings.HasPrefix(line, "> "):
			samples[len(samples)-1].output += line[2:] + "\n"
		default:
			name, value, _ := strings.Cut(line, ": ")
			fields[name] = value
		}
	}
	return fields, samples
}

func TestWhatPagesOfManyBuildsSayIsTakenOrDoubted(t *testing.T) {
	wanted, err := filepath.Glob("testdata/pages/*.want")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(wanted), 70)
	for _, file := range wanted {
		page := strings.TrimSuffix(file, ".want")
		t.Run(filepath.Base(page), func(t *testing.T) {
			fields, samples := wantedOf(t, page)
			text, err := os.ReadFile(page)
			require.NoError(t, err)
			read := Read(text)
			s := read.Problems[0]
			if letter, ok := fields["problem"]; ok {
				require.Greater(t, len(read.Problems), 1, "it has several problems")
				for _, one := range read.Problems {
					if one.Letter == letter {
						s = one
					}
				}
			} else {
				require.Len(t, read.Problems, 1)
			}
			languages := []string{}
			for _, l := range s.Languages {
				languages = append(languages, l.Language+"="+l.Time)
			}
			for name, got := range map[string]string{"time": s.Time, "memory": s.Memory, "absolute": s.Absolute, "relative": s.Relative, "languages": strings.Join(languages, " ")} {
				assert.Equal(t, fields[name], got, name)
			}
			if title, ok := fields["title"]; ok {
				assert.Equal(t, title, s.Title)
			}
			told := strings.Join(s.Unsure, "\n")
			assert.Contains(t, told, fields["told"])
			if _, ok := fields["told"]; !ok {
				assert.Empty(t, told)
			}
			assert.Contains(t, strings.Join(s.Perhaps, "\n"), fields["perhaps"])
			require.Len(t, s.Samples, len(samples), "%v", s.Unsure)
			for i, want := range samples {
				got := s.Samples[i]
				assert.Equal(t, want.input, string(got.Input))
				assert.Equal(t, want.output, string(got.Output))
				assert.Equal(t, want.unsure, len(got.Doubts) > 0, "%v", got.Doubts)
			}
			if reason, ok := fields["reason"]; ok {
				assert.Equal(t, reason, s.Samples[0].Reason)
			}
		})
	}
}
