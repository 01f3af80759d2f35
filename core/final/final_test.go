//go:build linux

package final

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/judge"
	"coldverdict/core/problem"
	"coldverdict/core/script"
	"coldverdict/core/toolchain"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestMain(m *testing.M) { testenv.Main(m, box.Supervise, script.Main) }

// joining are sources that add two numbers up, with what lies beside them. The first file is the
// solution.
var joining = []struct {
	name, tool string
	files      [][2]string
	judge      problem.Judge
	has, lacks []string
	notes      []string
}{
	{"headers", "g++", [][2]string{
		{"a.cpp", "#include <cstdio>\n#include \"io.h\"\n#include \"add.h\"\n// #include \"io.h\"\n#ifdef LOCAL\n#include \"debug.h\"\n#else\nint shown = 0;\n#endif\nint main() {\n    long a, b;\n    read(a, b);\n#if defined(DEBUG)\n    std::puts(\"debug\");\n#endif\n    std::printf(\"%ld\\n\", add(a, b) + shown);\n}\n"},
		{"io.h", "#pragma once\n#include <cstdio>\ninline void read(long &a, long &b) { std::scanf(\"%ld %ld\", &a, &b); }\n"},
		{"add.h", "#ifndef ADD\n#define ADD\n#include \"io.h\"\nlong add(long a, long b) { return a + b; }\n#endif\n"},
		{"debug.h", "int shown = 1;\n"},
	}, problem.Judge{Versions: map[string]string{"cpp": "17"}}, []string{"#include <cstdio>", "int shown = 0", "#ifndef ADD", "// #include \"io.h\""}, []string{"pragma once", "LOCAL", "\n#include \"", "debug\""}, []string{"put in io.h", "put in add.h", "put in debug.h", "took out 2 lines for debugging"}},
	{"modules of JavaScript", "node", [][2]string{
		{"a.js", "import { readFileSync } from 'fs';\nimport add, { twice as double } from './add.js';\nimport * as read from './read.js';\n// import { never } from './never.js';\nconst [a, b] = read.two();\nconsole.log(add(a, b) + double(0) + readFileSync(0).length);\n"},
		{"add.js", "import { zero } from './zero.js';\nexport default function (a, b) { return a + b + zero; }\nfunction doubled(x) { return 2 * x; }\nexport { doubled as twice };\n"},
		{"read.js", "import * as fs from 'fs';\nimport { zero } from './zero.js';\nexport const two = () => fs.readFileSync(0, 'utf8').split(' ').map(Number).map(x => x + zero);\n"},
		{"zero.js", "export let zero = 0;\n"},
	}, problem.Judge{}, []string{"// import { never }", "import * as fs from 'fs';"}, []string{"from './add", "export"}, []string{"put in zero.js", "put in add.js", "put in read.js"}},
	{"files of a package of Go", "go", [][2]string{
		{"a.go", "// Adds.\npackage main\n\nimport \"fmt\"\n\nfunc main() {\n\tvar a, b term\n\tfmt.Scan(&a, &b)\n\tfmt.Println(add(a, b))\n}\n"},
		{"add.go", "package main\n\nimport (\n\t\"fmt\"\n\t\"os\"\n)\n\n// add adds.\nfunc add(a, b term) term {\n\tfmt.Fprint(os.Stderr, a)\n\treturn a + b\n}\n"},
		{"term.go", "package main\n\ntype term int\n"},
		{"other.go", "package main\n\nfunc add(a, b int) int { return 0 }\n\nfunc main() {}\n"},
		{"unused.go", "package main\n\nfunc unused() {}\n"},
	}, problem.Judge{}, []string{"// Adds.\npackage main", "// add adds.", "type term int"}, []string{"func unused"}, []string{"put in add.go", "put in term.go"}},
	{"modules of Python", "python3", [][2]string{
		{"a.py", "from __future__ import annotations\nimport sys\nimport reading as r\nfrom adding import add, \\\n    twice\nprint(add(*r.two()) + twice(0))\n"},
		{"reading.py", "\"\"\"Reads \\ two.\"\"\"\nimport sys\ndef two():\n    return map(int, sys.stdin.read().split())\n"},
		{"sys.py", "raise ImportError\n"},
		{"adding.py", "from reading import two\nadd = lambda a, b: a + b\ndef twice(n): return 2 * n\n"},
	}, problem.Judge{}, []string{"from __future__ import annotations\nimport sys, types\n"}, nil, []string{"put in reading.py", "put in adding.py"}},
	{"files of Ruby", "ruby", [][2]string{
		{"a.rb", "require 'set'\nrequire_relative 'adding'\nrequire_relative './adding.rb'\nputs add(*gets.split.map(&:to_i))\n"},
		{"adding.rb", "def add(a, b) = a + b\n"},
	}, problem.Judge{}, []string{"require 'set'"}, []string{"require_relative"}, []string{"put in adding.rb"}},
	{"what JavaScript requires", "node", [][2]string{
		{"a.js", "const fs = require('fs');\nconst { add } = require('./adding');\nconst more = require('./adding.js');\nconsole.log(add(...fs.readFileSync(0, 'utf8').trim().split(' ').map(Number)) + more.none);\n"},
		{"adding.js", "const one = require('./one');\nexports.add = (a, b) => a + b;\nexports.none = one - 1;\n"},
		{"one.js", "module.exports = 1;\n"},
	}, problem.Judge{}, []string{"require('fs')"}, []string{"require('./"}, []string{"put in one.js", "put in adding.js"}},
	{"modules of Rust, and tests", "rustc", [][2]string{
		{"a.rs", "mod adding;\nfn main() {\n    let mut s = String::new();\n    std::io::stdin().read_line(&mut s).unwrap();\n    let v: Vec<i64> = s.split_whitespace().map(|x| x.parse().unwrap()).collect();\n    println!(\"{}\", adding::add(v[0], v[1]));\n}\n#[cfg(test)]\nmod tests {\n    #[test]\n    fn it_adds() { assert_eq!(super::adding::add(1, 2), 3); }\n}\n"},
		{"adding.rs", "pub fn add(a: i64, b: i64) -> i64 { a + b }\n"},
	}, problem.Judge{}, []string{"mod adding {"}, []string{"it_adds"}, []string{"put in adding.rs", "took out the tests"}},
	{"a package and a class of Java", "javac", [][2]string{
		{"Adding.java", "package camp.north;\nimport java.util.Scanner;\npublic class Adding {\n    // Adding adds.\n    static Adding one = new Adding();\n    public static void main(String[] args) {\n        Scanner in = new Scanner(System.in);\n        System.out.println(in.nextInt() + in.nextInt());\n        if (args.length > 9) System.out.println(\"Adding\");\n    }\n}\n"},
	}, problem.Judge{Class: "Solve"}, []string{"public class Solve {", "new Solve()", "// Adding adds.", "\"Adding\""}, []string{"package"}, []string{"took out the package line", "renamed the class Adding to Solve"}},
	{"a package of Kotlin", "kotlinc", [][2]string{
		{"a.kt", "package camp.north\n\nfun main() {\n    val (a, b) = readLine()!!.split(\" \").map { it.toInt() }\n    println(a + b)\n}\n"},
	}, problem.Judge{}, nil, []string{"package"}, []string{"took out the package line"}},
	{"a mark", "python3", [][2]string{{"a.py", "\ufeffprint(sum(map(int, input().split())))\n"}}, problem.Judge{}, nil, []string{"\ufeff"}, []string{"took out a byte order mark"}},
}

func TestWhatLiesBesideIsPutInAndTheFileIsRightAlone(t *testing.T) {
	for _, tt := range joining {
		t.Run(tt.name, func(t *testing.T) {
			testenv.Need(t, tt.tool)
			testenv.SweepUnlessQuick(t, tt.files[0][0])
			p := &problem.Problem{Dir: t.TempDir(), Judge: tt.judge, Cases: []problem.Case{{Name: "samples/1", Group: "samples", Input: problem.Data{Text: []byte("2 3\n"), Size: 4}, Accepted: []problem.Data{{Text: []byte("5\n"), Size: 2}}}}}
			for _, file := range tt.files {
				require.NoError(t, os.WriteFile(filepath.Join(p.Dir, file[0]), []byte(file[1]), 0o644))
			}
			s := problem.Solution{File: tt.files[0][0]}
			language, _, err := toolchain.Ours().Choose(s.File, "")
			require.NoError(t, err)
			made, err := Make(p, s, language, Itself)
			require.NoError(t, err)
			for _, text := range tt.has {
				assert.Contains(t, string(made.Text), text)
			}
			for _, text := range tt.lacks {
				assert.NotContains(t, string(made.Text), text)
			}
			assert.Equal(t, tt.notes, made.Notes)
			tried, err := Try(t.Context(), p, judge.Env{Cache: testenv.SharedDir()}, judge.BuildOptions{MissingIsFault: true}, s, &made, func(judge.Event) {})
			require.NoError(t, err)
			assert.Equal(t, Trial{Verdict: verdict.Accepted, Cases: 1}, tried, "%s", made.Text)
		})
	}
}

func TestWhatCannotBeJoinedIsSaid(t *testing.T) {
	for _, tt := range []struct {
		name, file, text, beside, says string
	}{
		{"a header that needs itself", "a.cpp", "#include \"own.h\"\n", "#include \"own.h\"\n", "own.h needs itself"},
		{"a module that is not there", "a.js", "import { x } from './gone.js';\n", "", "a.js imports ./gone.js, which cannot be read: no such file"},
		{"a module that hands others on", "a.js", "import { x } from './own.js';\n", "export * from './x.js';\n", "hands on what another module exports"},
		{"what is not there", "a.rb", "require_relative 'gone'\n", "", "a.rb names gone, which cannot be read"},
		{"a name that is taken", "A.java", "public class A { class Main {} public static void main(String[] a) {} }\n", "", "something else has that name"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			p := &problem.Problem{Dir: t.TempDir()}
			require.NoError(t, os.WriteFile(filepath.Join(p.Dir, tt.file), []byte(tt.text), 0o644))
			require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "own.h"), []byte(tt.beside), 0o644))
			require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "own.js"), []byte(tt.beside), 0o644))
			language, _, err := toolchain.Ours().Choose(tt.file, "")
			require.NoError(t, err)
			_, err = Make(p, problem.Solution{File: tt.file}, language, Itself)
			var wrong *Error
			require.ErrorAs(t, err, &wrong)
			assert.Contains(t, wrong.Text, tt.says)
		})
	}
}

func TestBlocksForDebuggingAreTakenOutAndOthersStay(t *testing.T) {
	for before, after := range map[string]string{
		"a\n#ifdef LOCAL\nb\n#endif\nc\n":                                "a\nc\n",
		"#ifndef LOCAL\na\n#else\nb\n#endif\n":                           "a\n",
		"#ifdef WIDE\na\n#ifdef DEBUG\nb\n#endif\n#else\nc\n#endif\n":    "#ifdef WIDE\na\n#else\nc\n#endif\n",
		"#ifdef LOCAL\n#ifdef WIDE\na\n#else\nb\n#endif\nc\n#endif\nd\n": "d\n",
		"#if defined(LOCAL) && X\na\n#endif\n":                           "#if defined(LOCAL) && X\na\n#endif\n",
		"#if N > 3\na\n#elif N\nb\n#endif\n":                             "#if N > 3\na\n#elif N\nb\n#endif\n",
		"#ifdef LOCAL\na\n#elif N\nb\n#endif\n":                          "#ifdef LOCAL\na\n#elif N\nb\n#endif\n",
	} {
		assert.Equal(t, after, string((&maker{}).withoutDebug([]byte(before))), before)
	}
}
