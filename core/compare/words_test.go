package compare

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWordsThatDifferAreNamedAndNotWhatStandsBetweenThem(t *testing.T) {
	for _, tt := range []struct {
		mode, want, got        string
		expected, said, reason string
		column                 int
	}{
		{"lines", "150001\n", "15000\n", "150001", "15000", "", 6},
		{"lines", "150001\n", "15000", "150001", "15000", "", 6},
		{"lines", "7\n150001\n9\n", "7\n15000\n9\n", "150001", "15000", "", 6},
		{"lines", "3\n", "3.0\n", "3", "3.0", "", 2},
		{"lines", "15\n", "150001", "15", "150001", "", 3},
		{"lines", "1 2\n", "1  3\n", "2", "3", "", 4},
		{"lines", "1 2 3\n", "1  2 4\n", "3", "4", "", 6},
		{"tokens", "1 150001\n3\n", "1 15000\n3\n", "150001", "15000", "", 8},
		{"exact", "1 2\n", "1  3\n", "2", "3", "", 4},
		{"lines", "1 2\n", "1  2\n", "2", "2", "spacing differs", 2},
		{"lines", "1 2\n", "12\n", "2", "12", "spacing differs", 2},
		{"tokens", "12\n", "1 2\n", "12", "2", "the word ends too early", 2},
		{"lines", "1\n2\n", "1\n", "2", "", "the output ends too early", 1},
		{"lines", "1 2 3\n", "1 2\n", "3", "", "the output ends too early", 5},
		{"lines", "1\n", "1\n2\n", "", "2", "the output goes on where it should have ended", 1},
	} {
		for _, piece := range []int{1, 100} {
			d := hold(t, Settings{Mode: tt.mode}, tt.got, piece, tt.want)
			require.NotNil(t, d, tt.got)
			assert.Equal(t, []any{tt.expected, tt.said, tt.reason, tt.column}, []any{d.Expected, d.Got, d.Reason, d.Column}, "%s %q %q", tt.mode, tt.want, tt.got)
		}
	}
}
