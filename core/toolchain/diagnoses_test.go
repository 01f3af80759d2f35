package toolchain

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// failedBuild is a build of a source in C++ that failed with these words.
func failedBuild(t *testing.T, source, log string) Build {
	path := filepath.Join(t.TempDir(), "crates.cpp")
	require.NoError(t, os.WriteFile(path, []byte(source), 0o644))
	l, ok := Ours().Find("cpp")
	require.True(t, ok)
	return Build{Language: l, Source: path, File: "crates.cpp", Log: log, Failed: true}
}

const cratesSource = "#include <set>\nstruct Crate { int w; };\nint main() {\n\tstd::set<Crate> s;\n\ts.insert(Crate{1});\n}\n"

func TestOfErrorsInTemplatesThePersonsLinesComeFirst(t *testing.T) {
	for name, log := range map[string]string{
		"GCC": `In file included from /usr/include/c++/12/bits/refwrap.h:39,
                 from crates.cpp:1:
/usr/include/c++/12/bits/stl_function.h: In instantiation of ‘constexpr bool std::less<_Tp>’:
/usr/include/c++/12/bits/stl_tree.h:2117:35:   required from ‘std::pair<x>’
crates.cpp:5:10:   required from here
/usr/include/c++/12/bits/stl_function.h:408:20: error: no match for ‘operator<’ (operand types are ‘const Crate’ and ‘const Crate’)
  408 |       { return __x < __y; }
      |                ~~~~^~~~~
/usr/include/c++/12/bits/stl_iterator.h:579:5: note: candidate: ‘template<class I>’
  579 |     operator<=>(const reverse_iterator<_IteratorL>& __x,
/usr/include/c++/12/bits/stl_iterator.h:579:5: note:   template argument deduction/substitution failed:
`,
		"Clang": `In file included from crates.cpp:1:
/usr/include/c++/12/bits/stl_function.h:408:20: error: no match for ‘operator<’ (operand types are ‘const Crate’ and ‘const Crate’)
      { return __x < __y; }
/usr/include/c++/12/bits/stl_tree.h:2117:35: note: in instantiation of member function 'x' requested here
crates.cpp:5:10: note: in instantiation of member function 'std::set<Crate>::insert' requested here
/usr/include/c++/12/bits/stl_iterator.h:579:5: note: candidate: ‘template<class I>’
1 error generated.
`,
	} {
		t.Run(name, func(t *testing.T) {
			b := failedBuild(t, cratesSource, log)
			said := b.FirstError()
			assert.True(t, strings.HasPrefix(said, "crates.cpp:5: error: no match for ‘operator<’ (operand types are ‘const Crate’ and ‘const Crate’)\n"+
				"    5 | \ts.insert(Crate{1});\n      | \t        ^\n\nstl_function.h:408: error: no match"), said)
			assert.Contains(t, said, "\nstl_iterator.h:579: note: candidate: ‘template<class I>’\n")
			assert.NotContains(t, said, "deduction")
			assert.NotContains(t, said, "__x < __y")
			reading := b.Read(log, true)
			assert.Equal(t, 5, reading.Line)
			assert.Equal(t, "no match for ‘operator<’ (operand types are ‘const Crate’ and ‘const Crate’)", reading.Message)
		})
	}
}

func TestErrorsInThePersonsOwnFileAreShownAsTheCompilerSaysThem(t *testing.T) {
	log := "crates.cpp: In function ‘int main()’:\ncrates.cpp:5:5: error: ‘x’ was not declared in this scope\n    5 |     x = 1;\n      |     ^\n/usr/include/c++/12/vector:66:1: note: somewhere\n"
	b := failedBuild(t, cratesSource, log)
	assert.Equal(t, log, b.FirstError())
	assert.Equal(t, "line 5: ‘x’ was not declared in this scope", b.Read(log, true).String())
	for _, odd := range []string{"", "no words at all", "crates.cpp:99999:9: required from here\n/usr/x.h:1:1: error: odd\n", "::: error:", "crates.cpp:5:500:   required from here\n/usr/x.h:1: error: e\n"} {
		b.Log = odd
		assert.NotPanics(t, func() { b.FirstError(); b.Read(odd, true) })
	}
}
