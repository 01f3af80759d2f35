package shape

import (
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// made generates inputs with small counts, as a search for a smallest failing one does.
func made(t *testing.T, s *Shape, seeds int, most int64, style string, look func(in *Input)) {
	t.Helper()
	for seed := range seeds {
		in, err := s.Make(Making{Seed: Seed(seed), Size: s.SizeFor(most), Alike: true, Style: style})
		require.NoError(t, err, "seed %d", seed)
		look(in)
	}
}

func integers(in *Input, name string) (list []int64) {
	for _, one := range in.Values() {
		if one.Name != name {
			continue
		}
		switch v := one.Value.(type) {
		case int64:
			return []int64{v}
		case []any:
			for _, x := range v {
				list = append(list, x.(int64))
			}
		}
	}
	return list
}

func TestSmallInputsOftenHoldValuesOutOfAFew(t *testing.T) {
	s := parsed(t, "n: int 1..20, limit: int 1..1e9\nw: int[n] 1..1e9, x: real -100..100 places 3")
	few, halves, sums := 0, 0, 0
	made(t, s, 400, 5, "", func(in *Input) {
		sum, small := int64(0), true
		for _, x := range integers(in, "w") {
			sum += x
			small = small && x <= 12
		}
		few += truthOf(small)
		limit := integers(in, "limit")[0]
		sums += truthOf(small && sum > 1 && limit <= sum+1 && limit >= sum/2)
		for _, one := range in.Values() {
			if x, ok := one.Value.(float64); ok {
				halves += truthOf(x*2 == float64(int64(x*2)))
			}
		}
	})
	assert.Greater(t, few, 120)
	assert.Greater(t, sums, 15, "and the limit is near what they add up to")
	assert.Greater(t, halves, 100, "decimals are whole ones or halves")
}

func TestWhereAllDifferThereAreEnoughOfThem(t *testing.T) {
	s := parsed(t, "n: int 1..20\na: int[n] 1..1e9 distinct\nb: real[n] 0..5 places 1 distinct")
	made(t, s, 200, 20, "small", func(in *Input) { assert.Len(t, integers(in, "a"), int(integers(in, "n")[0])) })
}

func TestWhatOtherNamesBoundIsNotKeptSmallTwice(t *testing.T) {
	three, joined, cycles := 0, 0, 0
	made(t, parsed(t, "n: int 1..1e5, m: int 0..2e5\ng: graph(n, m)"), 400, 5, "", func(in *Input) {
		n, m := integers(in, "n")[0], integers(in, "m")[0]
		three += truthOf(n >= 3)
		joined += truthOf(n >= 3 && m >= n-1)
		cycles += truthOf(n >= 3 && m > n)
	})
	assert.Greater(t, 2*joined, three)
	assert.Greater(t, 6*cycles, three)

	least, most, between := 0, 0, 0
	made(t, parsed(t, "n: int 1..1e5, k: int 1..n\na: int[k] 1..9"), 400, 20, "", func(in *Input) {
		switch n, k := integers(in, "n")[0], integers(in, "k")[0]; {
		case n < 5:
		case k == n:
			most++
		case k == 1:
			least++
		default:
			between++
		}
	})
	assert.Greater(t, min(most, between), 50)
	assert.Greater(t, least, 10)
}

func TestANameThatOthersAreNumberedUpToFollowsTheSize(t *testing.T) {
	made(t, parsed(t, "n: int 1..1e5, m: int 1..1e5\nrepeat m { u: int 1..n }"), 100, 6, "", func(in *Input) {
		assert.LessOrEqual(t, integers(in, "n")[0], int64(6))
	})
	large := 0
	made(t, parsed(t, "least: int 1..4e9, n: int 1..10\nw: int[n] 1..least"), 100, 6, "plain", func(in *Input) {
		large += truthOf(integers(in, "least")[0] > 1e6)
	})
	assert.Greater(t, large, 90, "a bound of values is none of indices")
}

func TestASeriesGrowsWhatIsNoLength(t *testing.T) {
	for _, tt := range []struct{ text, name string }{
		{"n: int 1..1e18", "n"}, {"n: int 1..9, k: int 1..1e12\na: int[n] 1..9\nscale k", "k"},
	} {
		s := parsed(t, tt.text)
		assert.Equal(t, []string{tt.name}, s.Scale)
		last := int64(0)
		for _, step := range s.Series(5, 1, "") {
			in, err := s.Make(step.Making)
			require.NoError(t, err)
			now := integers(in, tt.name)[0]
			assert.Greater(t, now, last)
			last = now
		}
		assert.GreaterOrEqual(t, len(strconv.FormatInt(last, 10)), 13, "up to the largest")
	}
	made(t, parsed(t, "n: int 1..9, k: int 1..1e12\na: int[n] 1..9\nscale k"), 20, 9, "", func(*Input) {})
}

func TestInThePlainStyleEverythingIsUniform(t *testing.T) {
	s := parsed(t, "n: int 40..50\na: int[n] 1..1e9\nb: int[n] -5..5, k: int 1..1e9")
	assert.Contains(t, s.Styles(), "plain")
	sum := 0.0
	made(t, s, 50, 50, "plain", func(in *Input) {
		a := integers(in, "a")
		for _, x := range a {
			sum += float64(x) / float64(len(a))
		}
	})
	assert.InDelta(t, 5e8, sum/50, 5e7)
}
