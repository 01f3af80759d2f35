package prelude

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestWhatASourceNeedsOfWhatJudgesSupply(t *testing.T) {
	for _, tt := range []struct {
		name, in, text string
		want           []string
	}{
		{"a class of C++ alone", "cpp", "class Solution { public: int f(vector<int>& v) { sort(v.begin(), v.end()); return v.empty() ? INT_MAX : v[0]; } };", []string{"#include <algorithm>", "#include <climits>", "#include <vector>", Standard}},
		{"names in full", "cpp", "int f(std::vector<int> v) { return std::accumulate(v.begin(), v.end(), 0); }", []string{"#include <numeric>", "#include <vector>"}},
		{"all there", "cpp", "#include <vector>\nusing namespace std;\nint f(vector<int> v) { return v.size(); }", nil},
		{"every header", "cpp", "#include <bits/stdc++.h>\nint f(std::map<int, int> m) { return m.size(); }", nil},
		{"functions of its own", "cpp", "int gcd(int a, int b) { return b ? gcd(b, a % b) : a; }\nint max(int a, int b) { return a > b ? a : b; }", nil},
		{"a value called count", "cpp", "#include <vector>\nint f(std::vector<int> v) { int count = 0; for (int x : v) count += x; return count; }", nil},
		{"in a comment", "cpp", "// sort(vector<int>)\nint f(int x) { return x; }", nil},
		{"C", "c", "int f(int *a, int n) { qsort(a, n, sizeof *a, 0); return n ? a[0] : INT_MIN; }", []string{"#include <limits.h>", "#include <stdlib.h>"}},
		{"C with its headers", "c", "#include <stdlib.h>\nint f(int *a) { return abs(a[0]); }", nil},
		{"Java", "java", "class Solution { List<Integer> f(int[] a) { return Arrays.stream(a).boxed().collect(Collectors.toList()); } }", []string{"import java.util.*;", "import java.util.stream.*;"}},
		{"Java with imports", "java", "import java.util.List;\nimport java.util.ArrayList;\nclass Solution { List<Integer> f() { return new ArrayList<>(); } }", nil},
		{"a class of its own", "java", "class Stack {}\nclass Solution { int f() { return new Stack().hashCode(); } }", nil},
		{"Kotlin", "kt", "fun f(a: IntArray): Int { val q = PriorityQueue<Int>(); return max(a[0], 2.0.pow(3).toInt()) }", []string{"import java.util.*", "import kotlin.math.*"}},
		{"Scala", "scala", "object Solution { def f(a: Array[Int]) = { val q = mutable.Map[Int, Int](); max(a.max, ListBuffer(1).size) } }", []string{"import scala.collection.mutable", "import scala.collection.mutable.{ArrayBuffer, ListBuffer, PriorityQueue}", "import scala.math._"}},
		{"Scala that imports", "scala", "import scala.collection.mutable.ListBuffer\nimport math.{min, max}\nimport scala.collection.{mutable => own}\nobject Solution { def f(a: Array[Int]) = ListBuffer(own.Set(1), a.max).size }", nil},
		{"C#", "cs", "public class Solution { public int F(int[] a) { var d = new Dictionary<int, int>(); return Math.Max(a.Sum(), d.Count); } }", []string{"using System.Collections.Generic;", "using System.Linq;", "using System;"}},
		{"Rust", "rs", "impl Solution { fn f(a: Vec<i32>) -> i32 { let m: HashMap<i32, i32> = HashMap::new(); let s: HashSet<i32> = HashSet::new(); m.len() as i32 } }", []string{"use std::collections::{HashMap, HashSet};"}},
		{"Rust that uses", "rs", "use std::collections::{HashMap, hash_map::Entry};\nfn f() { let m: HashMap<i32, i32> = HashMap::new(); }", nil},
		{"Python", "py", "def f(a):\n    d = deque(a)\n    heapq.heapify(a)\n    return gcd(a[0], inf)\n", []string{"from collections import deque", "from math import gcd, inf", "import heapq"}},
		{"Python that imports", "py", "from collections import (deque,\n    Counter)\nimport heapq, math as m\ndef f(a):\n    heapq.heapify(a)\n    return deque(a), Counter(a)\n", nil},
		{"a method, not a function", "py", "def f(s):\n    return s.count('x') + s.gcd(3)\n", nil},
		{"Go", "go", "func f(a []int) int { sort.Ints(a); return strings.Count(\"\", \"\") }", []string{`import "sort"`, `import "strings"`}},
		{"Go that imports", "go", "package main\n\nimport (\n\t\"sort\"\n\tm \"math\"\n)\n\nfunc f(a []int) { sort.Ints(a) }", nil},
		{"a value that is named like a package", "go", "package main\n\nfunc f(a []int) { list := a; list.x() }", nil},
		{"Ruby", "rb", "def f(a)\n  Prime.first(3)\nend\n", []string{"require 'prime'"}},
		{"a language without", "lua", "x = 1", nil},
	} {
		t.Run(tt.name, func(t *testing.T) { assert.Equal(t, tt.want, Of(tt.in, []byte(tt.text))) })
	}
	local := "def f(a):\n    count = 0\n    return count\n\ndef g():\n    for x in count(): return x\n"
	assert.Empty(t, Of("py", []byte(local)))
	assert.Equal(t, []string{"from itertools import count"}, Supplied("py", []byte(local)))
}

func TestLinesStayWhereTheyAreAndAreWritten(t *testing.T) {
	for _, tt := range []struct{ in, text, inlined, written string }{
		{"java", "// x\npackage a.b;\nclass A {}\n", "// x\npackage a.b; import java.util.*; import java.io.*; \nclass A {}\n", "// x\npackage a.b;\n\nimport java.util.*;\nimport java.io.*;\nclass A {}\n"},
		{"java", "class A {}\n", "import java.util.*; import java.io.*; class A {}\n", "import java.util.*;\nimport java.io.*;\nclass A {}\n"},
		{"go", "package x\n\nfunc f() {}\n", "package x; import java.util.*;; import java.io.*;\n\nfunc f() {}\n", ""},
	} {
		lines := []string{"import java.util.*;", "import java.io.*;"}
		assert.Equal(t, tt.inlined, string(Inline(tt.in, []byte(tt.text), lines)))
		if tt.written != "" {
			assert.Equal(t, tt.written, string(Written(tt.in, []byte(tt.text), lines)))
		}
		assert.Equal(t, strings.Count(tt.text, "\n"), strings.Count(string(Inline(tt.in, []byte(tt.text), lines)), "\n"))
	}
	assert.Equal(t, "package main; import \"sort\"; func f() {}\n", string(Inline("go", []byte("func f() {}\n"), []string{`import "sort"`})))
	assert.Equal(t, "<vector>, using namespace std", Says([]string{"#include <vector>", Standard}))
	for in := range uses() {
		assert.Contains(t, families, in)
	}
}
