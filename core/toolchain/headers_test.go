package toolchain

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

func TestTheHeadersWithWhichASourceBegins(t *testing.T) {
	for _, tt := range []struct{ source, want string }{
		{"#include <bits/stdc++.h>\nusing namespace std;\n#include <map>\n", "#include <bits/stdc++.h>\n"},
		{"// a\n/* b\n   c */\n\n  #  include <vector> // d\n#include <sys/stat.h>\nint x;\n", "#include <vector>\n#include <sys/stat.h>\n"},
		{"#define N 3\n#include <vector>\n", ""},
		{"#pragma GCC optimize(\"O3\")\n#include <vector>\n", ""},
		{"#include <vector>\n#define N 3\n#include <map>\n", "#include <vector>\n"},
		{"#include <vector>\n#include \"own.h\"\n#include <map>\n", "#include <vector>\n"},
		{"#include <vector>\n#ifdef X\n#include <map>\n#endif\n", "#include <vector>\n"},
		{"/* a */ #include <vector>\n", ""},
		{"/* a */\n#include <vector>\n", "#include <vector>\n"},
		{"// a \\\n#include <vector>\n#include <map>\n", ""},
		{"#include <vector> // a \\\n#include <map>\n", ""},
		{"#include MACRO\n", ""},
		{"", ""},
	} {
		assert.Equal(t, tt.want, leadingHeaders([]byte(tt.source)), "%q", tt.source)
	}
}

// TestAProgramIsTheSameWithHeadersThatWereCompiledBefore compares the bytes of what is built.
func TestAProgramIsTheSameWithHeadersThatWereCompiledBefore(t *testing.T) {
	testenv.Need(t, "g++")
	for name, source := range map[string]string{
		"all.cpp":     "#include <bits/stdc++.h>\nusing namespace std;\nint main() { map<int, string> m; for (int i = 0; i < 9; i++) m[i * 7 % 9] = to_string(i); for (auto &[k, v] : m) cout << k << v << ' '; assert(m.size() == 9); }\n",
		"several.cpp": "#include <iostream>\n#include <cassert>\n#include <vector>\n#define NDEBUG\n#include <cassert>\nint main() { std::vector<int> v{3, 1}; assert(v.empty()); std::cout << v[0] << __COUNTER__ << __LINE__ << __FILE__; }\n",
	} {
		t.Run(name, func(t *testing.T) {
			testenv.Sweep(t, "it compiles the library's headers")
			b := newBench(t)
			var told [][2]string
			b.kit.Warm = func(language, text string, _ bool) { told = append(told, [2]string{language, text}) }
			cold := b.build(t, name, source, "")
			require.False(t, cold.Failed, cold.Log)
			require.Len(t, told, 1)
			require.Equal(t, "cpp20", told[0][0])
			made, err := b.kit.WarmHeaders(t.Context(), b.builder, told[0][0], told[0][1], false)
			require.NoError(t, err)
			assert.True(t, made)
			made, err = b.kit.WarmHeaders(t.Context(), b.builder, told[0][0], told[0][1], false)
			require.NoError(t, err)
			assert.False(t, made, "once is enough")

			plain, err := os.ReadFile(filepath.Join(cold.Dir, "program"))
			require.NoError(t, err)
			require.NoError(t, os.RemoveAll(cold.Dir))
			warm := b.build(t, name, source, "")
			require.False(t, warm.Cached)
			assert.NotEmpty(t, warm.warm)
			assert.Len(t, told, 1, "nothing is left to be asked for")
			assert.Equal(t, cold.Command, warm.Command)
			assert.Equal(t, cold.Log, warm.Log)
			assert.Equal(t, cold.Dir, warm.Dir, "it is made from the same files")
			other, err := os.ReadFile(filepath.Join(warm.Dir, "program"))
			require.NoError(t, err)
			assert.Equal(t, plain, other)

			broken := b.build(t, "broken.cpp", source+"int f() { return crates; }\nstruct Hut {}; bool g(std::vector<Hut> &v) { return std::less<Hut>()(v[0], v[1]); }\n", "")
			require.True(t, broken.Failed)
			assert.Contains(t, broken.Log, "crates")
			assert.NotContains(t, broken.Log, headersFile)
		})
	}
}

func TestHeadersOfOtherBuildsAreNotUsed(t *testing.T) {
	testenv.Need(t, "g++")
	testenv.Sweep(t, "it compiles the library's headers")
	b := newBench(t)
	const lines = "#include <cstdio>\n"
	_, err := b.kit.WarmHeaders(t.Context(), b.builder, "cpp20", lines, false)
	require.NoError(t, err)
	const source = lines + "int main() { puts(\"a\"); }\n"
	assert.NotEmpty(t, b.build(t, "a.cpp", source, "").warm)
	assert.Empty(t, b.build(t, "b.cpp", source, "cpp17").warm, "another standard")
	assert.Empty(t, b.build(t, "c.cpp", "#define X\n"+source, "").warm, "something stands before them")
	assert.Empty(t, b.build(t, "d.cpp", lines+"#include <cmath>\nint main() {}\n", "").warm, "further headers")
	require.True(t, b.kit.languages.WithFlags("cpp", []string{"-DX"}))
	assert.Empty(t, b.build(t, "e.cpp", source, "").warm, "other flags")
	_, err = b.kit.WarmHeaders(t.Context(), b.builder, "python", lines, false)
	assert.ErrorIs(t, err, ErrNoHeaders)
	_, err = b.kit.WarmHeaders(t.Context(), b.builder, "cpp20", "#include <no-such-header>\n", false)
	assert.ErrorContains(t, err, "no-such-header")
}
