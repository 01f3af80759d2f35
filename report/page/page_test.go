package page

import (
	"bytes"
	"encoding/xml"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// hostile is a text that every form must escape.
const hostile = "</script><script>document.title='taken'</script> ]]> | # not ok \"q\" \\ `x` \x1b[31m\x00 \u202eevil"

func example() *Page {
	lines, cut := Text("1 2\n3 4\n5 6\n", 2)
	return &Page{
		Title: "Fuel depots: stale.cpp", Outcome: "wrong answer", Kind: Wrong, Maker: "Cold Verdict", Made: time.Date(2026, 12, 1, 9, 0, 0, 0, time.UTC),
		Facts: []Fact{{"time limit", "1 s"}},
		Tables: []Table{
			{Title: "Solutions", Columns: []Column{{Name: "solution", Key: "solution"}}, Rows: [][]Cell{{{Text: "stale.cpp"}}}},
			{Title: "Cases", Main: true, Columns: []Column{{Name: "solution", Key: "solution", Hidden: true}, {Name: "case", Key: "case"}, {Name: "time", Key: "cpu_seconds", Number: true}, {Name: "none", Key: "none"}},
				Rows: [][]Cell{
					{{Text: "stale.cpp"}, {Text: "samples/two", Link: "a"}, {Text: "12 ms", Value: "0.012", Share: 0.5}, {}},
					{{Text: "stale.cpp"}, {Text: "samples/10"}, {Text: "2 ms", Value: "0.002"}, {}},
					{{Text: "stale.cpp"}, {Text: hostile, Kind: Wrong}, {Text: "0.1 s", Value: "0.1"}, {}},
				}},
		},
		Details: []Detail{
			{ID: "a", Title: "samples/two: wrong answer", Kind: Wrong, Reason: "why " + hostile, Blocks: []Block{
				{Title: "input", Lines: lines, Cut: cut},
				{Title: "got", Beside: true, Lines: []Line{{Number: 1, Text: "3 ", Marked: "9", Behind: " 1", Differs: true}, {Number: 2, Text: hostile}}},
			}, Hints: []string{"a hint " + hostile}},
			{ID: "b", Title: "samples/10: runtime error", Kind: Broken},
		},
		Notes: []string{"a note"},
		Checks: []Check{
			{Suite: "stale.cpp", Name: "samples/one", Words: "accepted", Seconds: 0.5},
			{Suite: "stale.cpp", Name: "samples/two", State: Failed, Words: "wrong answer", Message: hostile, Text: "expected:\n5\n" + hostile + "\n", Seconds: 0.25},
			{Suite: "other #1", Name: "build", State: Errored, Words: "compile error", Message: "line 1"},
			{Suite: "other #1", Name: "samples/one", State: Skipped, Words: "skipped", Message: "needs samples # 2"},
		},
	}
}

func written(t *testing.T, ending string) string {
	t.Helper()
	var out bytes.Buffer
	require.NoError(t, Write(&out, "report"+ending, example()))
	return out.String()
}

// readBy writes a report, and returns what another program says of it.
func readBy(t *testing.T, ending string, command ...string) string {
	t.Helper()
	testenv.Need(t, command[0])
	file := filepath.Join(t.TempDir(), "report"+ending)
	require.NoError(t, os.WriteFile(file, []byte(written(t, ending)), 0o644))
	out, err := exec.Command(command[0], append(command[1:], file)...).CombinedOutput()
	require.NoError(t, err, string(out))
	return string(out)
}

func TestJUnitCountsWhatPassedAndWhatDidNot(t *testing.T) {
	text := written(t, ".xml")
	var got xmlSuites
	require.NoError(t, xml.Unmarshal([]byte(text), &got))
	require.Len(t, got.Suites, 2)
	assert.Equal(t, [3]int{4, 1, 1}, [3]int{got.Tests, got.Failures, got.Errors})
	assert.Equal(t, 1, got.Suites[1].Skipped)
	assert.Equal(t, "0.750000", got.Suites[0].Time)
	failure := got.Suites[0].Cases[1].Failure
	require.NotNil(t, failure)
	assert.Contains(t, failure.Text, "document.title='taken'</script> ]]> |", "the text is whole")
	assert.NotContains(t, text, "\x00")
}

func TestOtherPeoplesReadersTakeJUnitXML(t *testing.T) {
	assert.Empty(t, readBy(t, ".xml", "xmllint", "--noout"))
	testenv.Need(t, "junitparser")
	file := filepath.Join(t.TempDir(), "report.xml")
	require.NoError(t, os.WriteFile(file, []byte(written(t, ".xml")), 0o644))
	out, err := exec.Command("junitparser", "verify", file).CombinedOutput()
	var failed *exec.ExitError
	require.ErrorAs(t, err, &failed, string(out))
	assert.Equal(t, 1, failed.ExitCode(), "it reads the file, and sees that not all passed: %s", out)
	assert.Empty(t, string(out))
}

func TestAParserOfTAPReadsTheSame(t *testing.T) {
	// Perl's parser knows version 13, of which 14 is a part but for its number.
	got := readBy(t, ".tap", "perl", "-MTAP::Parser", "-e", `
		open my $file, '<', $ARGV[0] or die; local $/; my $text = <$file>; $text =~ s/^TAP version 14\n/TAP version 13\n/ or die;
		my $p = TAP::Parser->new({tap => $text});
		while (my $r = $p->next) { print $r->as_string, "\n" if $r->is_unknown }
		printf "planned %d passed %d failed %d skipped %d errors %d\n", $p->tests_planned, scalar($p->passed), scalar($p->failed), scalar($p->skipped), scalar($p->parse_errors);
		print "$_\n" for $p->parse_errors;`)
	assert.Equal(t, "planned 4 passed 2 failed 2 skipped 1 errors 0\n", got)
}

func TestCSVHasTheMainTableForPrograms(t *testing.T) {
	got := readBy(t, ".csv", "python3", "-c", "import csv,sys\nfor row in csv.reader(open(sys.argv[1], newline='', errors='replace')): print(len(row), row[1][:11], row[2])")
	assert.Equal(t, "4 case cpu_seconds\n4 samples/two 0.012\n4 samples/10 0.002\n4 </script><s 0.1\n", got)
}

func TestMarkdownIsWhole(t *testing.T) {
	got := written(t, ".md")
	assert.Contains(t, got, "| case | time |\n| --- | ---: |\n| samples/two | 12 ms |\n")
	assert.Contains(t, got, "» 3 9 1\n")
	assert.Contains(t, got, "… 1 more lines\n")
	for line := range strings.Lines(got) {
		if strings.HasPrefix(line, "| ") {
			assert.Contains(t, []int{2, 3}, strings.Count(strings.ReplaceAll(line, "\\|", ""), "|"), line)
		}
	}
}

func TestAnUnknownEndingIsTold(t *testing.T) {
	assert.ErrorContains(t, Write(nil, "report.pdf", nil), ".html, .xml, .tap, .csv, .md")
	assert.False(t, Knows("report"))
	assert.True(t, Knows("REPORT.HTML"))
}

func TestALongTextIsCut(t *testing.T) {
	lines, cut := Text(strings.Repeat("x", 5000)+"\ny\n", 9)
	require.Len(t, lines, 2)
	assert.Empty(t, cut)
	assert.Len(t, lines[0].Text, mostLine+len(" …"))
	lines, cut = Text("", 9)
	assert.Empty(t, lines)
	assert.Empty(t, cut)
}
