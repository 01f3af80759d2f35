package steps

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// rewritten are programs that are rewritten, before they are compiled or when their classes are loaded, so that they tell
// their steps.
var rewritten = []struct {
	name, needs, file, source string
	want                      []string
}{
	{"Java", "javac", "Frost.java", `import java.util.*;

public class Frost {
    static int total = 0;
    int calls;
    static class Crate {
        int weight; String mark;
        Crate(int weight, String mark) {
            this.weight = weight;
            this.mark = mark;
        }
    }
    long twice(int n) {
        calls++;
        long r = 2L * n;
        return r;
    }
    static int catching(String s) {
        try {
            return Integer.parseInt(s);
        } catch (NumberFormatException e) {
            return -1;
        }
    }
    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        int n = in.nextInt();
        List<Integer> v = new ArrayList<>();
        for (int i = 0; i < 2; i++) {
            v.add(i * 3);
        }
        Map<String, int[]> by = new TreeMap<>();
        by.put("a", new int[] {1, 2});
        Crate c = new Crate(3, "N");
        v.sort((a, b) -> b - a);
        total += n;
        Frost f = new Frost();
        long t = f.twice(n);
        int big = 2147483647;
        big += n;
        char ch = 'x';
        System.out.println(total + " " + v + catching("z"));
        v.get(n);
    }
}
`, []string{"27: n = 4", "28: v = []", "29: i = 0", "30: v = [0]", "29: i = 1", "30: v = [0, 3]", `33: by = {"a": [1, 2]}`, "9: this = {weight: 0, mark: null}, weight = 3, mark = \"N\", this = {weight: 3, mark: null}",
		`34: c = {weight: 3, mark: "N"}`, "35: v = [3, 0]", "a = 3, b = 0, returns -3", "36: total = 4", "this = {calls: 1}", "15: r = 8", "16: returns 8", "39: big = 2147483647",
		"40: big = -2147483645, warns 2147483647 + 4 does not fit in int", "41: ch = 'x'", "22: returns -1", `42: prints "4 [3, 0]-1\n"`, "43: raises IndexOutOfBoundsException: Index 4 out of bounds for length 2"}},
	{"Kotlin", "kotlinc", "a.kt", `data class Crate(val weight: Int, var mark: String)
var total = 0
fun twice(x: Int): Int {
    val y = 2 * x
    return y
}
fun main() {
    val n = readLine()!!.trim().toInt()
    val v = mutableListOf<Int>()
    for (i in 0 until 2) {
        v.add(i * 3)
    }
    val c = Crate(3, "N")
    c.mark = "S"
    total += twice(n)
    println("$total ${v.map { it + 1 }}")
}
`, []string{"8: n = 4", "9: v = []", "11: v = [0]", "11: v = [0, 3]", `13: c = {weight: 3, mark: "N"}`, `14: c = {weight: 3, mark: "S"}`, "4: x = 4, y = 8", "5: returns 8", "15: total = 8", `16: prints "8 [1, 4]\n"`}},
	{"Scala", "scalac", "Frost.scala", "object Frost {\n  def twice(x: Int): Int = {\n    val y = 2 * x\n    y\n  }\n  def main(args: Array[String]): Unit = {\n    val n = scala.io.StdIn.readInt()\n    val a = Array(1, 2)\n    a(1) = twice(n)\n    println(a(1))\n  }\n}\n",
		[]string{"7: args = [], n = 4", "8: a = [1, 2]", "3: x = 4, y = 8", "returns 8", "9: a = [1, 8]", `10: prints "8\n"`}},
	{"Go", "go", "a.go", `package main

import (
	"bufio"
	"fmt"
	"os"
)

type crate struct {
	weight int
	next   *crate
}

var total int

func twice(x int64) (y int64) {
	y = 2 * x
	return
}

func pair(a int, b string) (int64, string) {
	return int64(a), b
}

func main() {
	in, out := bufio.NewReader(os.Stdin), bufio.NewWriter(os.Stdout)
	defer out.Flush()
	var n int
	fmt.Fscan(in, &n)
	by := map[string][]int{"b": {1}, "a": nil}
	for i := 0; i < 2; i++ {
		by["b"] = append(by["b"], i)
	}
	for _, x := range by["b"] {
		if x == 0 {
			continue
		} else if x > 5 {
			total++
		}
		total += x
	}
	t := twice(int64(n))
	p, q := pair(3, "N")
	c := &crate{weight: 3}
	c.next = &crate{weight: 4}
	keep := func(x int) bool { return x > n }
	switch y := n; {
	case keep(y):
		total = 9
	default:
		fmt.Println(t, p, q)
	}
outer:
	for {
		for {
			break outer
		}
	}
	fmt.Fprintln(out, total)
	var none []int
	none[n] = c.weight
}
`, []string{"29: n = 4", `30: by = {"a": nil, "b": [1]}`, "31: i = 0", `32: by = {"a": nil, "b": [1, 0]}`, "31: i = 1", "34: x = 1\n35\n37\n40: total = 1\n34: x = 0\n35\n36\n34: x = 1\n", "17: x = 4, y = 0, y = 8", "18: returns 8", "42: t = 8",
		`22: a = 3, b = "N", returns (3, "N")`, `43: p = 3, q = "N"`, "44: c = -> {weight: 3, next: nil}", "45: c = -> {weight: 3, next: -> {weight: 4, next: nil}}", "46: x = 4, returns false", `51: prints "8 3 N\n"`, "raises panic: runtime error: index out of range [4] with length 0"}},
}

func TestAProgramThatIsRewrittenTellsItsSteps(t *testing.T) {
	for _, row := range rewritten {
		t.Run(row.name, func(t *testing.T) {
			testenv.Need(t, row.needs)
			r := record(t, row.file, row.source, "4\n", Options{})
			got := strings.Join(told(r.Steps), "\n") + "\n"
			for _, want := range row.want {
				assert.Contains(t, got, want)
			}
			assert.False(t, r.Cut)
		})
	}
}

func TestARewrittenProgramDoesWhatItDidBefore(t *testing.T) {
	for _, row := range []struct {
		needs, file, source string
	}{
		{"javac", "Frost.java", "import java.io.*;\npublic class Frost {\n    public static void main(String[] args) throws IOException {\n        BufferedReader in = new BufferedReader(new InputStreamReader(System.in));\n        PrintWriter out = new PrintWriter(System.out);\n        for (String line; (line = in.readLine()) != null;)\n            out.println(line + ' ' + args.length);\n        out.flush();\n        System.err.println(\"aside\");\n        System.exit(3);\n    }\n}\n"},
		{"go", "a.go", "package main\n\nimport (\n\t\"bufio\"\n\t\"fmt\"\n\t\"os\"\n)\n\nfunc main() {\n\tin := bufio.NewScanner(os.Stdin)\n\tfor in.Scan() {\n\t\tfmt.Println(in.Text(), len(os.Args)-1)\n\t}\n\tfmt.Fprintln(os.Stderr, \"aside\")\n\tos.Exit(3)\n}\n"},
	} {
		t.Run(row.needs, func(t *testing.T) {
			testenv.Need(t, row.needs)
			r := record(t, row.file, row.source, "1\n2\n", Options{})
			assert.Equal(t, "1 0\n2 0\n", string(r.Output))
			assert.Equal(t, 3, r.Run.ExitCode)
			assert.Equal(t, "aside\n", string(r.Run.Stderr.Bytes))
		})
	}
}

func TestWhatIsPutIntoASourceOfGoLeavesItsLinesWhereTheyWere(t *testing.T) {
	const source = "package main\n\nfunc f(a, _ int) (int, error) {\n\tif b := a; b > 1 {\n\t\treturn b, nil\n\t} else if a < 0 {\n\t\tgo func() { f(a, 1) }()\n\t}\n\tselect {\n\tdefault:\n\t}\n\treturn f(1, 2)\n}\n\nfunc main() { f(1, 2) }\n"
	made, err := goInstrumented([]byte(source))
	require.NoError(t, err)
	lines := strings.Split(string(made), "\n")
	for i, line := range strings.Split(strings.TrimSuffix(source, "\n"), "\n") {
		rest := lines[i]
		for _, word := range strings.Fields(line) {
			_, behind, ok := strings.Cut(rest, strings.Trim(word, "{}();,"))
			require.True(t, ok, "line %d: %s in %s", i+1, word, lines[i])
			rest = behind
		}
	}
	assert.Contains(t, string(made), "cold_Return[error](cold_Frame, nil)")
	_, err = goInstrumented([]byte("package main\nfunc main() {\n"))
	assert.ErrorContains(t, err, "2:15")
}
