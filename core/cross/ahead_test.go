package cross

import (
	"context"
	"errors"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/shape"
)

// heavy reports that the crates of an input weigh more than so much.
func heavy(text []byte, most int) bool {
	sum := 0
	for _, word := range strings.Fields(string(text))[1:] {
		w, _ := strconv.Atoi(word)
		sum += w
	}
	return sum > most
}

func TestToAskAboutSeveralInputsComesToTheSameSmallestOne(t *testing.T) {
	s := parsedShape(t, "n: int 1..2000\nw: int[n] 1..1000")
	for _, size := range []shape.Size{shape.Largest / 2, 3 * shape.Largest / 4, shape.Largest} {
		in, err := s.Make(shape.Making{Seed: 3, Size: size, Style: "plain"})
		require.NoError(t, err)
		for _, most := range []int{10, 700, 2100} {
			if !heavy(in.Append(nil), most) {
				continue
			}
			tries, runs, alone := 0, 0, 0
			want, complete, err := s.Shrink(context.Background(), in, func(_ context.Context, text []byte) (bool, error) {
				tries++
				return heavy(text, most), nil
			})
			require.NoError(t, err)
			require.True(t, complete)
			each := func(_ context.Context, texts [][]byte) ([]bool, error) {
				runs++
				failed := make([]bool, len(texts))
				for i, text := range texts {
					failed[i] = heavy(text, most)
				}
				return failed, nil
			}
			fails := func(_ context.Context, text []byte) (bool, error) {
				alone++
				return heavy(text, most), nil
			}
			got, complete, err := shrinkAhead(context.Background(), s, in, each, fails)
			require.NoError(t, err)
			assert.True(t, complete)
			assert.Equal(t, string(want.Append(nil)), string(got.Append(nil)))
			assert.Less(t, runs+alone, tries*2/3, "of %d tries", tries)
		}
	}
}

func TestWhatFailsOnlyAmongOthersIsShrunkAlone(t *testing.T) {
	s := parsedShape(t, "n: int 1..50\nw: int[n] 1..1000")
	in, err := s.Make(shape.Making{Seed: 3, Size: shape.Largest, Style: "plain"})
	require.NoError(t, err)
	each := func(_ context.Context, texts [][]byte) ([]bool, error) { // what one call leaves behind fails the others
		failed := make([]bool, len(texts))
		for i := range texts {
			failed[i] = true
		}
		return failed, nil
	}
	fails := func(_ context.Context, text []byte) (bool, error) { return heavy(text, 700), nil }
	want, _, err := s.Shrink(context.Background(), in, fails)
	require.NoError(t, err)
	got, complete, err := shrinkAhead(context.Background(), s, in, each, fails)
	require.NoError(t, err)
	assert.True(t, complete)
	assert.Equal(t, string(want.Append(nil)), string(got.Append(nil)))

	lost := errors.New("lost")
	_, _, err = shrinkAhead(context.Background(), s, in, func(context.Context, [][]byte) ([]bool, error) { return nil, lost }, fails)
	assert.ErrorIs(t, err, lost)
	ended, end := context.WithCancel(context.Background())
	end()
	small, complete, err := shrinkAhead(ended, s, in, each, fails)
	assert.NoError(t, err)
	assert.False(t, complete)
	assert.Equal(t, string(in.Append(nil)), string(small.Append(nil)))
}
