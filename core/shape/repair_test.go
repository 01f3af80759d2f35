package shape

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestArraysAreChangedUntilWhatIsRequiredHolds(t *testing.T) {
	for _, text := range []string{
		"n: int 2..10\na: int[n] 1..100\nrequire a[0] = 1",
		"n: int 2..10, k: int 1..200\na: int[n] 1..100\nrequire a[0] + a[1] = k",
		"n: int 2..1000\na: int[n] 1..1e9\nrequire sum(a) = 5000",
		"n: int 2..1000\na: int[n] 1..1e9\nrequire sum(a) % 1000 = 7",
		"n: int 2..1000\na: int[n] 1..1e9 rising\nrequire a[0] = 5",
		"n: int 2..1000\na: int[n] -1e9..1e9\nrequire max(a) = 77 and min(a) = -3",
		"n: int 2..1000\na: int[n] 0..1e9\nrequire a[0] * 3 = a[n-1] + 1",
		"n: int 3..1000\na: int[n] 0..1e9\nb: int[n] 0..1e9\nrequire sum(a) = sum(b)",
		"n: int 3..1000\na: int[n] 0..1e9 distinct\nrequire sum(a) % 2 = 0 and a[0] < a[1] and a[2] > a[1]",
		"n: int 3..1000\na: int[n] 0..1e6\nrequire not (a[0] = a[1] or a[0] > 5)",
		"n: int 1..100, k: int 1..1e9\na: int[n] 1..1e9\nrequire sum(a) >= k\nrequire max(a) <= k",
		"n: int 3..9\na: int[n] 1..9 but 5\nrequire a[0] + a[1] = 10",
		"n: int 2..9\na: int[n] 1..100 falling\nrequire a[n-1] >= 7 and a[0] <= 50",
		"n: int 2..1000\na: int[n] 1..1e9 rising\nrequire a[0] = 5 and a[n-1] - a[0] <= 10000",
		"n: int 2..6\na: int[n] 1..30 sorted but 5\nrequire a[0] + a[n-1] = 14",
	} {
		s := parsed(t, text)
		different := map[string]bool{}
		for seed := range 100 {
			size := s.SizeFor(int64(1 + seed%12))
			if seed%10 == 9 {
				size = Largest
			}
			in, err := s.Make(Making{Seed: Seed(seed), Size: size})
			if !assert.NoError(t, err, "%s: seed %d", text, seed) {
				continue
			}
			text := in.Append(nil)
			fault, err := s.Check(bytes.NewReader(text), Options{})
			require.NoError(t, err)
			assert.Nil(t, fault, "%v: %.100s", fault, text)
			different[string(text)] = true
		}
		assert.Greater(t, len(different), 15, "%s: not always the same", text)
	}
}

func TestWhatOthersDependOnIsNotChanged(t *testing.T) {
	s := parsed(t, "n: int 2..5\na: int[n] 1..9\nb: int[n] a[at]..9\nrequire a[0] + b[0] = 10")
	for seed := range 100 {
		in, err := s.Make(Making{Seed: Seed(seed), Size: Largest / 2})
		require.NoError(t, err)
		fault, err := s.Check(bytes.NewReader(in.Append(nil)), Options{})
		require.NoError(t, err)
		assert.Nil(t, fault, "%v", fault)
	}
}

func TestWhatCannotHoldIsToldInTime(t *testing.T) {
	_, err := parsed(t, "n: int 900..1000\na: int[n] 1..1e9 rising\nrequire a[n-1] - a[0] <= 1").Make(Making{Size: Largest})
	assert.ErrorContains(t, err, "none of 1000 draws")
}
