package steps

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"coldverdict/internal/testenv"
)

// compiled are programs whose steps are recorded from within, with some of what is to be told.
var compiled = []struct {
	name, needs, file, source string
	want                      []string
}{
	{"lines, calls and output", "g++", "a.cpp", `#include <iostream>
#include <vector>
int twice(int x) {
    int y = 2 * x;
    return y;
}
int main() {
    int n;
    std::cin >> n;
    std::vector<int> a;
    for (int i = 0; i < 2; i++) {
        a.push_back(twice(n + i));
    }
    std::cout << a[1] << "\n";
}
`, []string{"9: n = 4", "10: a = {}", "11: i = 0", "12: a = {8}", "4: x = 4, y = 8", "5: returns 8", "11: i = 1", "12: a = {8, 10}", `14: returns 0, prints "10\n"`}},
	{"what a class of the library holds", "g++", "a.cpp", `#include <bits/stdc++.h>
using namespace std;
struct Node { int v; Node *next; };
struct Base { int id; };
struct Crate : Base { string mark; };
enum Colour { red, green };
int main() {
    string s = "frost";
    set<int> one = {3, 1, 2};
    map<string, vector<int>> by; by["a"] = {1, 2};
    unordered_map<int, char> hashed; hashed[7] = 'x';
    deque<int> d; for (int i = 0; i < 600; i++) d.push_back(i); for (int i = 0; i < 597; i++) d.pop_front();
    list<int> l = {4, 5};
    forward_list<int> fl = {6};
    queue<int> q; q.push(9);
    priority_queue<int> heap; heap.push(1); heap.push(7);
    tuple<int, double, string> t{1, 2.5, "z"};
    optional<int> o; o = 4;
    bitset<4> bits("1010");
    vector<bool> flags(3, true); flags[1] = false;
    array<int, 2> pair_of = {7, 8};
    unique_ptr<int> up(new int(5));
    Node last{2, nullptr}, first{1, &last};
    Crate crate; crate.id = 3; crate.mark = "N";
    Colour colour = green;
    auto it = one.begin();
    auto none = one.end();
    __int128 wide = (__int128)1 << 100;
    float third = 0.1f;
    int *wild = (int *)0x1234;
    int grid[2][2] = {{1, 2}, {3, 4}};
    string_view view = "view";
    multiset<pair<int, int>> pairs = {{2, 1}, {1, 2}};
    return grid[0][0] - 1 + view.size() * 0 + pairs.size() * 0;
}
`, []string{`8: s = "frost"`, "9: one = {1, 2, 3}", `by = {"a": {1, 2}}`, "hashed = {7: 'x'}", "d = {597, 598, 599}", "13: l = {4, 5}", "fl = {6}", "q = {9}", "heap = {7, 1}",
		`t = (1, 2.5, "z")`, "o = 4", "bits = 1010", "flags = {101}", "pair_of = {7, 8}", "up = -> 5", "first = {v: 1, next: -> {v: 2, next: null}}", `crate = {id: 3, mark: "N"}`, "colour = green",
		"it = -> 1", "none = end", "wide = 1267650600228229401496703205376", "third = 0.1", "wild = -> (no memory there)", "grid = {{1, 2}, {3, 4}}", `view = "view"`, "pairs = {(1, 2), (2, 1)}"}},
	{"what is hardly meant", "g++", "a.cpp", `#include <cstdio>
#include <vector>
int main() {
    int big = 2147483647, row[3] = {0}, at = 3;
    std::vector<int> v(2);
    big += at;
    row[at] = at;
    v[at - 1] = 1;
    printf("%d\n", big);
    return 0;
}
`, []string{"6: big = -2147483646, warns 2147483647 + 3 does not fit in 'int'", "warns index 3 of 'int [3]'", "8: warns index 2 of 2 elements", `9: prints "-2147483646\n"`}},
	{"what asks to be optimised", "g++", "a.cpp", "#pragma GCC optimize(\"O3,unroll-loops\")\n#include <cstdio>\n__attribute__((optimize(\"O3\"))) int f(int n) {\n    int s = 0;\n    for (int i = 0; i < n; i++)\n        s += i;\n    return s;\n}\nint main() {\n    int n = 0;\n    scanf(\"%d\", &n);\n    n = f(n);\n    return n - 6;\n}\n",
		[]string{"11: n = 4", "4: n = 4, s = 0", "6: s = 1", "6: s = 3", "6: s = 6", "7: returns 6", "12: n = 6"}},
	{"what has been let go", "g++", "a.cpp", "#include <cstdio>\n#include <vector>\nint main() {\n    int n = 2;\n    while (n--) {\n        std::vector<long long> litres(1);\n        litres[0] = 70;\n        printf(\"%lld\\n\", litres[0]);\n    }\n    return 0;\n}\n",
		[]string{"6: litres = {0}\n7: litres = {70}\n8: prints \"70\\n\"\n5: n = 0\n6: litres = {0}\n7: litres = {70}\n8: prints \"70\\n\"\n5: n = -1\n10: returns 0\n"}},
	{"functions without a name, and what is left behind them", "g++", "a.cpp", "#include <vector>\n#include <algorithm>\nint run(int n) {\n    std::vector<int> a = {n, 1};\n    auto more = [&](auto self, int k) -> int { return k <= 1 ? 1 : k * self(self, k - 1); };\n    std::sort(a.begin(), a.end(), [](int x, int y) {\n        return x < y;\n    });\n    int f = more(more, n - 2);\n    return f + a[0];\n}\nint main() {\n    return run(4) - 3;\n}\n",
		[]string{"4: n = 4", "a = {4, 1}", "6: a = {1, 4}", "7: x = 1, y = 4, returns true", "9: f = 2", "5: k = 2, returns 2", "5: k = 1, returns 1", "5: k = 1, returns 1\n10: returns 3\n"}},
	{"an exception of C++", "g++", "a.cpp", "#include <stdexcept>\nint f(int x) {\n    if (x > 1)\n        throw std::out_of_range(\"far\");\n    return x;\n}\nint main() {\n    try {\n        f(2);\n    } catch (...) {\n    }\n    return f(0);\n}\n",
		[]string{"4: raises throws out_of_range", "12", "5: returns 0"}},
	{"a null pointer", "gcc", "a.c", "#include <stdio.h>\nstruct node { int v; struct node *next; };\nint main(void) {\n    struct node *n = NULL;\n    int v = 0;\n    v = n->v;\n    return v;\n}\n",
		[]string{"4: n = null", "6: raises it followed a null pointer"}},
	{"a division by zero", "gcc", "a.c", "#include <stdio.h>\nint main(void) {\n    int n = 0, q = 1;\n    scanf(\"%d\", &n);\n    q = 8 / (n - 4);\n    return q;\n}\n", []string{"4: n = 4", "5: raises division by zero"}},
	{"C", "gcc", "a.c", `#include <stdio.h>
struct crate { int weight; char mark; double share; };
static long total;
int main(void) {
    struct crate c = {3, 'x', 0.5};
    unsigned char small = 200;
    char name[8] = "north";
    const char *text = "hoar";
    total += c.weight;
    c.weight *= small;
    printf("%ld %s%s\n", total, name, text);
    return 0;
}
`, []string{"5: c = {weight: 3, mark: 'x', share: 0.5}", "6: small = 200", `7: name = "north"`, `8: text = "hoar"`, "9: total = 3", "10: c = {weight: 600, mark: 'x', share: 0.5}", `11: prints "3 northhoar\n"`}},
	{"clang", "clang++", "a.cpp", "#include <cstdio>\n#include <vector>\nint twice(int x) {\n    return 2 * x;\n}\nint main() {\n    std::vector<int> a = {4};\n    a.push_back(twice(a[0]));\n    printf(\"%d\\n\", a[1]);\n    return 0;\n}\n",
		[]string{"7: a = {4}", "8: a = {4, 8}", "4: x = 4, returns 8", `9: prints "8\n"`}},
	{"Rust", "rustc", "a.rs", `use std::collections::{BTreeMap, HashMap, HashSet, VecDeque};
struct Crate { weight: i32, mark: Option<char> }
enum Load { None, Some { crates: u8 }, Name(String) }
fn twice(x: i32) -> i32 {
    2 * x
}
fn main() {
    let mut line = String::new();
    std::io::stdin().read_line(&mut line).unwrap();
    let n: i32 = line.trim().parse().unwrap();
    let mut a: Vec<i32> = Vec::new();
    a.push(twice(n));
    let mut by = BTreeMap::new();
    for i in 0..14 {
        by.insert(13 - i, i);
    }
    let mut hashed: HashMap<&str, i32> = HashMap::new();
    hashed.insert("k", 1);
    let mut one: HashSet<u8> = HashSet::new();
    one.insert(7);
    let mut ring = VecDeque::from([1, 2, 3]);
    ring.rotate_left(1);
    let c = Crate { weight: 3, mark: Some('N') };
    let loads = [Load::None, Load::Some { crates: 2 }, Load::Name("x".to_string())];
    let part = &a[0..1];
    println!("{} {}", part[0], c.weight);
    a[loads.len()] = c.mark.map_or(0, |m| m as i32);
}
`, []string{"10: n = 4", "11: a = []", "12: a = [8]", "5: x = 4, returns 8", "{0: 13, 1: 12, 2: 11, 3: 10, 4: 9, 5: 8, 6: 7, 7: 6, 8: 5, 9: 4, 10: 3, 11: 2, 12: 1, 13: 0}", `18: hashed = {"k": 1}`, "20: one = {7}", "22: ring = [2, 3, 1]",
		"c = {weight: 3, mark: Some('N')}", `loads = [None, Some {crates: 2}, Name("x")]`, "part = [8]", `26: prints "8 3\n"`, "27: raises panics"}},
	{"D", "ldc2", "a.d", "import std.stdio, std.conv, std.string;\nint twice(int x) {\n    int y = 2 * x;\n    return y;\n}\nvoid main() {\n    int n = readln().strip.to!int;\n    int[] a;\n    a ~= twice(n);\n    string s = \"frost\";\n    writeln(a[0], s);\n}\n",
		[]string{"7: n = 4", "8: a = []", "9: a = [8]", "3: x = 4, y = 8", "4: returns 8", `10: s = "frost"`, `11: prints "8frost\n"`}},
	{"Pascal", "fpc", "a.pas", "program frost;\nvar\n  n, q: longint;\n  a: array of longint;\n  b: array[1..2] of integer;\n  s: string;\n  t: ansistring;\nfunction twice(x: longint): longint;\nbegin\n  twice := 2 * x;\nend;\nbegin\n  readln(n);\n  setlength(a, 2);\n  a[1] := twice(n);\n  b[2] := 5;\n  s := 'hoar';\n  t := 'frost';\n  writeln(a[1], ' ', s, t);\nend.\n",
		[]string{"13: n = 4", "14: a = [0, 0]", "15: a = [0, 8]", "10: x = 4, returns 8", "16: b = [0, 5]", `17: s = "hoar"`, `18: t = "frost"`, `19: prints "8 hoarfrost\n"`}},
}

func TestACompiledProgramIsRecordedFromWithin(t *testing.T) {
	for _, row := range compiled {
		t.Run(row.name, func(t *testing.T) {
			testenv.Need(t, row.needs)
			language := map[string]string{"clang++": "cpp-clang"}[row.needs]
			r := recordAs(t, language, row.file, row.source, "4\n", Options{})
			got := strings.Join(told(r.Steps), "\n") + "\n"
			for _, want := range row.want {
				assert.Contains(t, got, want)
			}
			assert.False(t, r.Cut)
			assert.Equal(t, len(r.Steps), r.Total)
		})
	}
}

func TestACompiledProgramDoesWhatItDoesUnrecorded(t *testing.T) {
	testenv.Need(t, "g++")
	const source = `#include <cstdio>
#include <iostream>
#include <string>
int main(int count, char **) {
    std::ios::sync_with_stdio(false);
    std::string line;
    while (std::getline(std::cin, line))
        std::cout << line << ' ' << count << '\n';
    std::cerr << "aside\n";
    return 3;
}
`
	r := record(t, "a.cpp", source, "1\n2\n", Options{})
	assert.Equal(t, "1 1\n2 1\n", string(r.Output))
	assert.Equal(t, 3, r.Run.ExitCode)
	assert.Equal(t, "aside\n", string(r.Run.Stderr.Bytes))
}

func TestWhatLiesBeforeTheLineWithWhichItBeginsTakesNoRoom(t *testing.T) {
	testenv.Need(t, "gcc")
	const source = "#include <stdio.h>\nint main(void) {\n    long long s = 0;\n    for (int i = 0; i < 1000000; i++)\n        s += i;\n    printf(\"%lld\\n\", s);\n    return 0;\n}\n"
	r := record(t, "a.c", source, "", Options{From: 6, Most: 100})
	assert.Equal(t, []string{`6: s = 499999500000, prints "499999500000\n"`, "7: returns 0"}, told(r.Steps))
	assert.False(t, r.Cut)
}

func TestARecordingOfACompiledProgramIsBounded(t *testing.T) {
	testenv.Need(t, "gcc")
	const endless = "#include <stdio.h>\nint main(void) {\n    for (int i = 1;; i++)\n        printf(\"%d\\n\", i);\n}\n"
	const deep = "int f(int n) {\n    volatile int a = n;\n    return f(a + 1) + a;\n}\nint main(void) {\n    return f(0);\n}\n"
	for name, row := range map[string]struct {
		source string
		o      Options
		says   string
	}{
		"by its events":     {endless, Options{Most: 3000}, "it had more steps than are recorded"},
		"by what it prints": {endless, Options{UntilLine: 20}, "line 20 was printed"},
		"by a value":        {endless, Options{Around: "7"}, "i had the value 7"},
		"by its time":       {endless, Options{Time: 50 * time.Millisecond}, "it was recorded for 0.05 s"},
		"by its calls":      {deep, Options{}, "its calls went too deep to be recorded"},
	} {
		t.Run(name, func(t *testing.T) {
			r := record(t, "a.c", row.source, "", row.o)
			assert.True(t, r.Cut)
			assert.Contains(t, r.Why, row.says)
			assert.NotEmpty(t, r.Steps)
		})
	}
}
