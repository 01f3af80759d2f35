package main

import (
	"fmt"
	"net"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"coldverdict/internal/testenv"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// depot is a problem with one case: two numbers, and their sum.
func depot(t testing.TB, sources map[string]string) session {
	files := map[string]string{"cases/1.in": "1 2\n", "cases/1.out": "3\n", "cases.md": "# Notes\n"}
	for name, text := range sources {
		files[name] = text
	}
	return folder(t, files)
}

func TestBuildsSeeNeitherAnswersNorAnythingElseOfThePerson(t *testing.T) {
	home := t.TempDir()
	key := filepath.Join(home, "key")
	require.NoError(t, os.WriteFile(key, []byte("sextant"), 0o600))
	phone, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer phone.Close()
	answers := "ANSWERS" // stands for the absolute path of the expected output
	tests := []struct {
		name, file, text string
		tools            []string
		told             string // in what is printed
	}{
		{"an include", "a.cpp", "const char *t =\n#include \"cases/1.out\"\n;\nint main() {}\n", []string{"g++"}, "builds may not see"},
		{"cases.md", "a.c", "#include \"cases.md\"\nint main(void) {}\n", []string{"gcc"}, "builds may not see cases.md"},
		{"a reference", "a.c", "#include \"slow.c\"\n", []string{"gcc"}, "builds may not see slow.c"},
		{"settings", "a.c", "#include \"verdict.toml\"\nint main(void) {}\n", []string{"gcc"}, "builds may not see verdict.toml"},
		{"an assembler", "a.c", "__asm__(\".incbin \\\"" + answers + "\\\"\");\nint main(void) {}\n", []string{"gcc"}, "builds may not see"},
		{"a link", "a.c", "#include \"link.h\"\nint main(void) {}\n", []string{"gcc"}, "compile error"},
		{"Rust's text of a file", "a.rs", "fn main() { print!(\"{}\", include_str!(\"" + answers + "\")); }\n", []string{"rustc"}, "builds may not see"},
		{"Haskell's templates", "a.hs", "{-# LANGUAGE TemplateHaskell #-}\nimport Language.Haskell.TH\nimport Language.Haskell.TH.Syntax\n" +
			"main = putStr $(runIO (readFile \"" + answers + "\") >>= lift)\n", []string{"ghc"}, "compile error"},
		{"Nim's text of a file", "a.nim", "const t = staticRead(\"" + answers + "\")\necho t\n", []string{"nim", "gcc"}, "compile error"},
		{"Perl at build time", "a.pl", "BEGIN { open(my $f, '<', '" + answers + "') or die 'shut'; print STDERR <$f>; }\nprint 3;\n", []string{"perl"}, "compile error"},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			testenv.Need(t, tt.tools...)
			s := depot(t, map[string]string{"verdict.toml": "[[solution]]\nfile = \"slow.c\"\nrole = \"reference\"\n", "slow.c": "int main(void) {}\n"})
			require.NoError(t, os.Symlink("cases/1.out", filepath.Join(s.dir, "link.h")))
			text := strings.ReplaceAll(tt.text, answers, filepath.Join(s.dir, "cases", "1.out"))
			require.NoError(t, os.WriteFile(filepath.Join(s.dir, tt.file), []byte(text), 0o644))
			got := s.run(t, "try", tt.file)
			assert.NotEqual(t, 0, got.status, got.out)
			assert.Contains(t, strings.Join(strings.Fields(got.out), " "), tt.told)
		})
	}
	t.Run("a home folder and the network", func(t *testing.T) {
		testenv.Need(t, "perl")
		s := depot(t, map[string]string{"a.pl": fmt.Sprintf(`BEGIN {
			use Socket;
			open(my $key, '<', '%s') and print STDERR "KEY ", <$key>;
			open(my $plant, '>', '%s/planted') and print STDERR "PLANTED";
			open(my $own, '>>', '%s') and print STDERR "CHANGED";
			socket(my $s, PF_INET, SOCK_STREAM, 0);
			connect($s, sockaddr_in(%d, inet_aton('127.0.0.1'))) and print STDERR "CONNECTED";
		}
		print 3;
		`, key, home, filepath.Join("DIR", "cases.md"), phone.Addr().(*net.TCPAddr).Port)})
		text, err := os.ReadFile(filepath.Join(s.dir, "a.pl"))
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(filepath.Join(s.dir, "a.pl"), []byte(strings.ReplaceAll(string(text), "DIR", s.dir)), 0o644))
		got := s.run(t, "try", "a.pl", "--warnings")
		for _, word := range []string{"KEY", "PLANTED", "CHANGED", "CONNECTED"} {
			assert.NotContains(t, got.out, word)
		}
		assert.Contains(t, got.out, "while it was built it tried to open a network connection")
		assert.NoFileExists(t, filepath.Join(home, "planted"))
	})
}

func TestHeadersBesideASourceAreSeen(t *testing.T) {
	testenv.Need(t, "g++")
	s := depot(t, map[string]string{
		"a.cpp":     "#include \"lib/sum.h\"\nint main() { return sum(); }\n",
		"lib/sum.h": "#include <cstdio>\n#include \"../more.hpp\"\ninline int sum() { long a, b; if (scanf(\"%ld %ld\", &a, &b) != 2) return 1; printf(\"%ld\\n\", more(a, b)); return 0; }\n",
		"more.hpp":  "inline long more(long a, long b) { return a + b; }\n",
	})
	got := s.run(t, "try", "a.cpp")
	assert.Equal(t, 0, got.status, got.out+got.errors)
}

func TestNoNameOfAFileMeansAnythingToItsLanguage(t *testing.T) {
	sum := map[string]string{
		".lua": "local a, b = io.read('n', 'n') print(a + b)\n",
		".rs":  "fn main() { let mut s = String::new(); std::io::stdin().read_line(&mut s).unwrap(); let v: Vec<i64> = s.split_whitespace().map(|x| x.parse().unwrap()).collect(); println!(\"{}\", v[0] + v[1]); }\n",
		".go":  "package main\n\nimport \"fmt\"\n\nfunc main() {\n\tvar a, b int\n\tfmt.Scan(&a, &b)\n\tfmt.Println(a + b)\n}\n",
		".py":  "import textwrap, tokenize, heapq\na, b = map(int, input().split())\nprint(a + b)\n",
		".pl":  "my ($a, $b) = split ' ', <STDIN>; print $a + $b, \"\\n\";\n",
		".rb":  "a, b = gets.split.map(&:to_i)\nputs a + b\n",
		".sh":  "read a b\necho $((a + b))\n",
		".c":   "#include <stdio.h>\nint main(void) { long a, b; if (scanf(\"%ld %ld\", &a, &b) == 2) printf(\"%ld\\n\", a + b); }\n",
	}
	tools := map[string]string{".lua": "lua5.4", ".rs": "rustc", ".go": "go", ".py": "python3", ".pl": "perl", ".rb": "ruby", ".sh": "bash", ".c": "gcc"}
	for _, name := range []string{
		"it's.lua", "a'); os.exit(0) --.lua", "a b.rs", "1-2.rs", "x_test.go", "main_windows.go", "token.py", "textwrap.py", "heapq.py", "os.py",
		"-e.pl", "$(touch planted).sh", "`id`.rb", "ä ö.c", "-o x.c", "%s%n.c",
	} {
		t.Run(name, func(t *testing.T) {
			extension := filepath.Ext(name)
			testenv.Need(t, tools[extension])
			s := depot(t, map[string]string{name: sum[extension]})
			got := s.run(t, "try", "./"+name)
			assert.Equal(t, 0, got.status, got.out+got.errors)
			assert.NoFileExists(t, filepath.Join(s.dir, "planted"))
		})
	}
}

func TestAnswersBehindLinksAndBuildsOfOthersAreOutOfSight(t *testing.T) {
	testenv.Need(t, "python3", "gcc")
	elsewhere := filepath.Join(t.TempDir(), "answers.txt")
	require.NoError(t, os.WriteFile(elsewhere, []byte("3\n"), 0o644))
	s := folder(t, map[string]string{"1.in": "1 2\n", "slow.c": "#include <stdio.h>\nint main(void) { puts(\"3\"); }\n"})
	require.NoError(t, os.Symlink(elsewhere, filepath.Join(s.dir, "1.out")))
	cache := filepath.Join(t.TempDir(), "cache")
	s.env = []string{"XDG_CACHE_HOME=" + cache}
	require.Equal(t, 0, s.run(t, "try", "slow.c").status)
	thief := fmt.Sprintf(`import glob, os, subprocess
home = os.path.expanduser("~")
if os.path.isdir(home) and any(os.path.isfile(os.path.join(home, name)) for name in os.listdir(home)): print("listed", home)
for path in [%q, %q, %q] + glob.glob(%q):
    try:
        if os.path.isdir(path) and os.listdir(path): print("listed", path)
        elif os.path.isfile(path): print(open(path).read() or subprocess.check_output([path]))
    except Exception:
        pass
print("nothing")
`, elsewhere, filepath.Join(s.dir, "1.out"), s.dir, cache+"/cold-verdict/builds/*/program")
	require.NoError(t, os.WriteFile(filepath.Join(s.dir, "thief.py"), []byte(thief), 0o644))
	got := s.run(t, "try", "thief.py")
	assert.Equal(t, 1, got.status)
	assert.Contains(t, got.out, "nothing")
	assert.NotContains(t, got.out, "listed")
}

func TestCasesAddedAtOnceAreAllKept(t *testing.T) {
	s := depot(t, map[string]string{"a.py": "print(3)\n"})
	var group sync.WaitGroup
	for i := range 8 {
		group.Go(func() {
			got := s.run(t, "case", "list")
			assert.Equal(t, 0, got.status, "what is being written cannot be read: "+got.out+got.errors)
		})
		group.Go(func() {
			mine := s
			mine.input = fmt.Sprintf("%d 2\n%%%%\n%d\n", i, i+2)
			got := mine.run(t, "case", "add", "--why", "teams that come back at once")
			assert.Equal(t, 0, got.status, got.out+got.errors)
		})
	}
	group.Wait()
	text, err := os.ReadFile(filepath.Join(s.dir, "cases.md"))
	require.NoError(t, err)
	assert.Equal(t, 8, strings.Count(string(text), "teams that come back at once"))
	left, err := filepath.Glob(filepath.Join(s.dir, ".*.new-*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

func TestLimitsOfTheSessionAndTroubleWithTheCacheAreFaults(t *testing.T) {
	testenv.Need(t, "python3", "bash")
	program, err := binary()
	require.NoError(t, err)
	for _, tt := range []struct{ name, before, told string }{
		{"processor time", "ulimit -t 1", "processor time (ulimit -t)"},
		{"the size of files", "ulimit -f 100", "the size of files (ulimit -f)"},
		{"address space", "ulimit -v 1000000", "address space (ulimit -v)"},
		{"a cache that others can change", "chmod 777 $XDG_CACHE_HOME/cold-verdict", "others can change the build cache"},
		{"a cache that is a file", "rm -r $XDG_CACHE_HOME/cold-verdict; touch $XDG_CACHE_HOME/cold-verdict", "cannot use the build cache"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			s := depot(t, map[string]string{"a.py": "print(3)\n"})
			s.env = []string{"XDG_CACHE_HOME=" + t.TempDir()}
			require.Equal(t, 0, s.run(t, "try", "a.py").status)
			cmd := s.command(t, "try", "a.py")
			cmd.Path, cmd.Args = "/bin/bash", []string{"bash", "-c", tt.before + "; exec " + program + " try a.py"}
			out, _ := cmd.CombinedOutput()
			assert.Equal(t, 70, cmd.ProcessState.ExitCode(), string(out))
			assert.Contains(t, strings.Join(strings.Fields(string(out)), " "), tt.told)
			assert.NotContains(t, string(out), "Starlark", "no library speaks")
		})
	}
	t.Run("no home", func(t *testing.T) {
		s := depot(t, map[string]string{"a.py": "print(3)\n"})
		cmd := s.command(t, "try", "a.py")
		cmd.Env = []string{"PATH=" + os.Getenv("PATH"), "TMPDIR=" + t.TempDir()}
		out, err := cmd.CombinedOutput()
		assert.NoError(t, err, string(out))
	})
}
