package main

import (
	"os"
	"path/filepath"
	"testing"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func write(t *testing.T, path, text string) {
	require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
	require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
}

func TestALanguageOfOnesOwnIsFourLines(t *testing.T) {
	testenv.Need(t, "sh")
	dir, settings := t.TempDir(), t.TempDir()
	write(t, dir+"/1.in", "4\n")
	write(t, dir+"/1.out", "crate 4\n")
	write(t, dir+"/load.shout", "read n; echo crate $n\n")
	s := session{dir: dir, env: []string{"XDG_CONFIG_HOME=" + settings}}
	assert.Equal(t, 64, s.run(t, "try", "load.shout").status, "nobody knows it yet")
	const entry = "[language.shout]\nextensions = [\".shout\"]\nrun = \"sh {build}/{source}\"\n"
	for _, file := range []string{settings + "/cold-verdict/languages.toml", dir + "/verdict.toml"} {
		write(t, file, entry)
		got := s.run(t, "try")
		assert.Equal(t, 0, got.status, got.out+got.errors)
		assert.Contains(t, got.out, "load.shout: shout, sh, sh load.shout, ")
		write(t, file, entry+"bulid = \"x\"\n")
		got = s.run(t, "try")
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, filepath.Base(file)+`:4: unknown key "language.shout.bulid"; did you mean "build"?`)
		require.NoError(t, os.Remove(file))
	}
	table := s.run(t, "host", "--languages")
	assert.Equal(t, 0, table.status)
	assert.Contains(t, table.out, "\n[language.cpp]\n")
	write(t, settings+"/cold-verdict/languages.toml", table.out)
	write(t, dir+"/load.sh", "read n; echo crate $n\n")
	assert.Equal(t, 0, s.run(t, "try", "load.sh").status, "what it prints can be used as it is")
}

func TestSeveralSolutionsStandSideBySide(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	dir := t.TempDir()
	write(t, dir+"/cases/small/1.in", "4\n")
	write(t, dir+"/cases/small/1.out", "8\n")
	write(t, dir+"/right.c", "#include <stdio.h>\nint main(void){int n,unused;scanf(\"%d\",&n);printf(\"%d\\n\",2*n);return 0;}\n")
	write(t, dir+"/wrong.py", "print(int(input()) ** 2)\n")
	write(t, dir+"/broken.c", "int main(void) { return n; }\n")
	got := session{dir: dir}.run(t, "try", "right.c", "wrong.py", "broken.c")
	assert.Equal(t, 1, got.status, got.errors)
	assert.Regexp(t, `(?m)^ +right\.c +wrong\.py +broken\.c$`, got.out)
	assert.Regexp(t, `(?m)^  1 +AC +[\d.]+ ms +[\d.]+ [KM]iB  WA +[\d.]+ m?s +[\d.]+ [KM]iB$`, got.out)
	assert.Regexp(t, `(?m)^verdict +AC +WA +CE$`, got.out)
	assert.Contains(t, got.out, "small/1 of wrong.py: wrong answer, line 1: expected 8, got 16")
	assert.Contains(t, got.out, "the compiler says of broken.c")
	assert.Contains(t, got.out, "broken.c: compile error\n  line 1: ")
	assert.Contains(t, got.out, "the compiler warns; --warnings shows of what")
	got = session{dir: dir}.run(t, "try", "right.c", "--warnings")
	assert.Equal(t, 0, got.status)
	assert.Contains(t, got.out, "-Wunused-variable")
	got = session{dir: dir}.run(t, "try", "broken.c", "--json", "-")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, `"message": "line 1: `)
	validate(t, got.out)
}

func TestACheckedBuildFindsWhatTheUsualOneLetsPass(t *testing.T) {
	testenv.Need(t, "g++")
	dir := t.TempDir()
	write(t, dir+"/1.in", "3\n")
	write(t, dir+"/a.cpp", "#include <cstdio>\n#include <vector>\nint main() {\n    int n;\n    if (scanf(\"%d\", &n) != 1) return 1;\n    std::vector<int> crates(3);\n    printf(\"%d\\n\", crates[n]);\n}\n")
	s := session{dir: dir}
	assert.Equal(t, 10, s.run(t, "try").status, "nothing to compare with, and no crash")
	got := s.run(t, "try", "--checked")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "line 7: attempt to subscript container with out-of-bounds index 3")
	assert.Contains(t, got.out, "a.cpp: runtime error (1 case: 1 runtime error), checked build")
	assert.Contains(t, got.out, "time 20 s (default)")
	report := s.run(t, "try", "--checked", "--json", "-")
	assert.Contains(t, report.out, `"checked": true`)
	validate(t, report.out)
}

func TestHeadersAreCompiledOnceForTheBuildsThatBeginWithThem(t *testing.T) {
	testenv.Need(t, "g++")
	testenv.Sweep(t, "it compiles the library's headers")
	const source = "#include <iostream>\n#include <vector>\nint main() { long a, b; std::cin >> a >> b; std::cout << a + b; }\n"
	s := folder(t, map[string]string{"sum.cpp": source, "main.py": "print(1)\n", "own.cpp": "#include \"a.h\"\n", "cases.md": "## one\n```input\n1 2\n```\n```output\n3\n```\n"})
	s.env = append(s.env, "XDG_CACHE_HOME="+t.TempDir())
	got := s.run(t, "host", "--warm", "sum.cpp")
	assert.Equal(t, 0, got.status, got.errors)
	assert.Regexp(t, `^sum.cpp: compiled 2 headers in [\d.]+ m?s; builds that begin with the same begin from there\n$`, got.out)
	assert.Equal(t, "sum.cpp: its headers were compiled before\n", s.run(t, "host", "--warm", "sum.cpp").out)
	got = s.run(t, "try", "sum.cpp")
	assert.Equal(t, 0, got.status, got.out)
	assert.Contains(t, got.out, "g++ -O2 -std=gnu++20 -static sum.cpp, built in")
	for name, says := range map[string]string{
		"main.py": "main.py does not begin with headers of the system", "own.cpp": "own.cpp does not begin with headers of the system", "none.cpp": "there is no file none.cpp",
	} {
		got = s.run(t, "host", "--warm", name)
		assert.Equal(t, 64, got.status)
		assert.Contains(t, got.errors, says)
	}
	s.input = "#include <cstdio>\n" // as the process in the background does
	got = s.run(t, "host", "--warm-from-input", "cpp20")
	assert.Equal(t, said{}, got)
	assert.NotContains(t, s.run(t, "host", "--help").out, "warm-from-input")
}
