package call

import (
	"go/parser"
	"go/token"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

// fitted puts the driver of a language around a source.
func fitted(t testing.TB, signature, language, file, source string) toolchain.Wrapping {
	t.Helper()
	function, err := problem.ParseCall(signature)
	require.NoError(t, err)
	l, ok := toolchain.Ours().Find(language)
	require.True(t, ok, language)
	w, err := Around(function)(l, l.Standard, file, []byte(source))
	require.NoError(t, err)
	return w
}

const thawSignature = "longest_thaw(temps: int[], limit: long) -> int"

func TestTheCDriverIsWrittenFromTheDeclaration(t *testing.T) {
	for _, tt := range []struct {
		name, signature, source string
		holds                   []string
	}{
		{"integers of any width", thawSignature, "unsigned longest_thaw(const long long temps[], size_t n, int limit) {",
			[]string{"static long long *cold_array_a0(", "size_t a0_length = a0_length_wide;", "int a1 = (int)cold_integer(INT_MIN, INT_MAX);", "unsigned cold_result = longest_thaw(a0, a0_length, a1);", "cold_give_integer(cold_result);"}},
		{"an array that is returned", "f(a: text[]) -> real[]", "double *f(char **a, int n, int *returned) {", []string{"a[n++] = cold_text();", "int cold_length = 0;", "double* cold_result = f(a0, a0_length, &cold_length);", "cold_give_real((cold_result)[cold_j]);"}},
		{"rows", "f(a: int[][]) -> bool", "_Bool f(int **a, int n, int *lengths) {", []string{"static int **cold_rows_a0(long long *count, int **lengths)", "f(a0, a0_length, a0_lengths)", "cold_give_truth(cold_result);"}},
		{"what may be absent", "f(a: int?, b: text?, c: bigint) -> char?", "char *f(const int *a, const char *b, char *c) {", []string{"*a0 = NULL;", "char* a1 = NULL;", "char* a2 = cold_text();", "if (cold_result) cold_give_char(*cold_result);"}},
		{"several results", "f(a: int) -> (b: int, c: real)", "void f(int a, int *b, double *c) {", []string{"f(a0, &r0, &r1);", "cold_give_integer(r0);", "cold_give_real(r1);"}},
		{"an argument that is changed", "f(a: int[]) -> argument 1", "void f(int *a, int n) {", []string{"f(a0, a0_length);", "cold_give_integer((a0)[cold_j]);"}},
		{"nothing returned", thawSignature, "void longest_thaw(int *a, int n, long long b) {", []string{`cold_say("null");`}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			w := fitted(t, tt.signature, "c", "a.c", tt.source+" }")
			require.Empty(t, w.Refused)
			for _, text := range tt.holds {
				assert.Contains(t, string(w.Files["cold_driver.c"]), text)
			}
		})
	}
}

func TestADeclarationThatCannotBeServedIsRefusedInWords(t *testing.T) {
	for _, tt := range []struct{ signature, language, source, words string }{
		{thawSignature, "c", "int longest_thaw(int *temps, long long limit) {", "takes 3 parameters in this problem (int *temps, int temps_length, long long limit), and is declared with 2 parameters"},
		{thawSignature, "c", "int longest_thaw(int *temps, double n, long long limit) {", "declares double behind the array temps; its length is passed there"},
		{thawSignature, "c", "double longest_thaw(int *temps, int n, long long limit) {", "returns double, and the problem asks for int"},
		{"f(a: int[][][]) -> int", "c", "int f(int ***a, int n) {", "an argument of type int[][][] cannot be passed to C"},
		{"f(a: int?[]) -> int", "c", "int f(int **a, int n) {", "an argument of type int?[] cannot be passed to C"},
		{"f(a: int?) -> int", "c", "int f(int a) {", "which may be absent: it is passed as a pointer"},
		{"f(a: int[][]) -> int", "c", "int f(int **a, int n, int m) {", "where a pointer to the lengths of the rows of a is passed"},
		{"f(a: int) -> int[]", "c", "int *f(int a, int n) {", "the length of the array that it returns is written to a pointer there"},
		{"f(a: int) -> int[][]", "c", "int **f(int a, int *n, int *m) {", "a pointer to the lengths of the rows that it returns"},
		{"f(a: int) -> (b: int, c: int)", "c", "void f(int a, int b, int *c) {", "a pointer is passed to which b is written"},
		{thawSignature, "rust", "fn longest_thaw(temps: Vec<i32>) -> i32 {", "takes 2 arguments in this problem, and is declared with 1 parameter"},
		{"f(a: int[]) -> argument 1", "rust", "fn f(a: Vec<i32>) {", "must be declared as &mut"},
		{thawSignature, "go", "package p\n\nfunc other() { if true {", "there is no function longest_thaw"},
		{thawSignature, "java", "class A { int other() {", "there is no function longest_thaw or longestThaw or LongestThaw in a.x"},
		{thawSignature, "kotlin", "fun other() = 1", "there is no function longest_thaw"},
		{thawSignature, "cpp", "int longest_thow(int a) {", "in a.x; is it longest_thow? 'name' in [call]"},
		{thawSignature, "go", "package p\n\nfunc (s *S) LongThaw() { if true {", "is it LongThaw?"},
		{"f(a: any) -> int", "cpp", "int f(int a) {", "C++ has no usual way to pass any"},
		{"f(a: nary(int)) -> int", "c", "int f(int a) {", "f declares int where the problem has nary(int); struct Node* is what it is passed as"},
		{"f(a: nary(int)) -> graph(int)", "c", "struct Node *f(struct Node *a) {", "Node is the struct of two kinds of nodes"},
		{"f(a: nary(int)) -> graph(int)", "rust", "fn f(a: Option<Rc<RefCell<Node>>>) {", "Node is the struct of two kinds of nodes"},
		{"f(a: nary(int)) -> int", "c", "struct Fork { int value; struct Fork **children; };\nint f(struct Fork *a) {", "struct Fork has no field with the number of its children; declare int numChildren"},
		{"f(a: list(int)) -> int", "c", "struct Knot { char *val; struct Knot *next; };\nint f(struct Knot *a) {", "struct Knot declares char* where the problem has int; int is what it is passed as"},
		{"f(a: list(int)) -> node of argument 1", "rust", "fn f(a: Option<Box<ListNode>>) {", "in Rust a Box owns the next node of a list, and none can be told from a copy of it: a: list(int)"},
		{"f(a: graph(int)) -> copy of argument 1", "c", "void f(struct Node *a) {", "f returns nothing, and the problem asks for a copy"},
	} {
		w := fitted(t, tt.signature, tt.language, "a.x", tt.source+" } }")
		assert.Contains(t, w.Refused, tt.words, tt.source)
	}
}

func TestRustArgumentsAreOwnedAndLentAsDeclared(t *testing.T) {
	for declared, want := range map[string][2]string{
		"Vec<i32>": {"Vec<i32>", ""}, "&[i32]": {"Vec<i32>", "&"}, "&'a mut [Vec<i32>]": {"Vec<Vec<i32>>", "&mut "}, "&str": {"String", "&"}, "&mut Vec<i64>": {"Vec<i64>", "&mut "}, "&[i32; 3]": {"[i32; 3]", "&"}, "& String": {"String", "&"},
	} {
		owned, borrow := rustOwned(declared)
		assert.Equal(t, want, [2]string{owned, borrow}, declared)
	}
	source := "struct A;\nimpl A {\n    fn longest_thaw(&self, temps: &[i32], limit: i64) -> i32 { 0 }\n}\nimpl Solution { fn g() {} }\n\nfn main() {\n    let s = \"fn main()\";\n}\n"
	w := fitted(t, thawSignature, "rust", "a.rs", source)
	text := string(w.Source)
	assert.Contains(t, text, "fn cold_unused_main() {\n    let s = \"fn main()\";")
	assert.Contains(t, text, "(&mut super::A {}).longest_thaw(&a0, a1)")
	assert.Contains(t, text, "\nstruct Solution;")
	assert.NotContains(t, text, "\nstruct A;\nstruct A;")
	assert.Equal(t, 8, strings.Count(text[:strings.Index(text, "\nstruct Solution;")], "\n")-1+0, "its lines are where they were")
	w = fitted(t, thawSignature, "rust", "a.rs", "fn longest_thaw(temps: Vec<i32>, limit: i64) -> i32 { 0 }")
	assert.NotContains(t, string(w.Source), "@")
}

func TestAGoSourceBecomesAPartOfTheDriversPackage(t *testing.T) {
	for _, tt := range []struct{ source, function, holds string }{
		{"package thaw\n\nfunc LongestThaw(temps []int, limit int64) int { return 0 }\n\nfunc main() { main() }\n", "coldreflect.ValueOf(LongestThaw)", "package main\n\nfunc LongestThaw"},
		{"func longestThaw(temps []int, limit int64) int { return 0 }\n", "coldreflect.ValueOf(longestThaw)", "package main; func longestThaw"},
		{"package p\n\ntype S struct{}\n\nfunc (s *S) longest_thaw(temps, more []int, limit int64) (int, error) { return 0, nil }\n",
			"coldreflect.ValueOf(func(a0 []int, a1 []int, a2 int64) (int, error) { return new(S).longest_thaw(a0, a1, a2) })", "package main\n"},
	} {
		w := fitted(t, thawSignature, "go", "a.go", tt.source)
		require.Empty(t, w.Refused)
		assert.Contains(t, string(w.Files["cold_driver.go"]), tt.function)
		assert.Contains(t, string(w.Source), tt.holds)
		assert.NotContains(t, string(w.Source), "func main()")
		for name, text := range map[string][]byte{"a.go": w.Source, "cold_driver.go": w.Files["cold_driver.go"]} {
			_, err := parser.ParseFile(token.NewFileSet(), name, text, 0)
			assert.NoError(t, err)
		}
	}
	w := fitted(t, thawSignature, "go", "a.go", "package main\n\nfunc longestThaw(temps []int {")
	assert.Empty(t, w.Refused, "the compiler says what is wrong with it")
}

func TestAClassOfTheVirtualMachineIsNamedAsItIsCompiled(t *testing.T) {
	for _, tt := range []struct{ language, file, source, class string }{
		{"java", "A.java", "class A { static class B { int longestThaw(int[] a, long b) {", "A$B"},
		{"java", "A.java", "package hall.north;\nclass A { int longestThaw(int[] a, long b) {", "hall.north.A"},
		{"kotlin", "thaw.kt", "fun longestThaw(a: IntArray, b: Long) = 0", "ThawKt"},
		{"kotlin", "1a-b.kt", "fun longestThaw(a: IntArray, b: Long) = 0", "_1a_bKt"},
		{"kotlin", "a.kt", "package hall\nclass S { companion object { fun longestThaw(a: IntArray, b: Long): Int {", "hall.S$Companion"},
	} {
		w := fitted(t, thawSignature, tt.language, tt.file, tt.source+" } } }")
		require.Empty(t, w.Refused, tt.source)
		assert.Contains(t, string(w.Files["ColdDriver.java"]), `CLASSES = {"`+tt.class+`"`)
	}
}

func TestAModuleOfJavaScriptBecomesAScript(t *testing.T) {
	w := fitted(t, thawSignature, "javascript", "a.mjs", "import fs from 'fs';\nimport * as p from \"path\";\nimport { a as b, c } from 'x';\nexport default function longestThaw() {}\nexport const d = 1;\nexport { d };\nconst s = 'export class';\n")
	assert.Equal(t, "const fs = require('fs');\nconst p = require(\"path\");\nconst { a: b, c } = require('x');\nfunction longestThaw() {}\nconst d = 1;\n\nconst s = 'export class';\n", string(w.Source))
	w = fitted(t, thawSignature, "typescript", "a.ts", "export async function longestThaw() {}\nexport interface A {}\n")
	assert.Equal(t, "async function longestThaw() {}\nexport interface A {}\n", string(w.Source))
	assert.Contains(t, string(w.Files["cold_driver.js"]), `"a.js"`)
}

func TestAnEmptyFunctionHasTheTypesOfItsLanguage(t *testing.T) {
	const every = "find_tents(grid: text[], heights: real[][], deep: bigint, tag: char?, on: bool) -> (least: int?, names: text[])"
	for language, wants := range map[string][]string{
		"python":     {"def find_tents(grid: list[str], heights: list[list[float]], deep: int, tag: str | None, on: bool) -> tuple[int | None, list[str]]:"},
		"javascript": {"function findTents(grid, heights, deep, tag, on) {", "// find_tents(grid: text[],"},
		"typescript": {"function findTents(grid: string[], heights: number[][], deep: bigint, tag: (string | null), on: boolean): [(number | null), string[]] {"},
		"ruby":       {"def find_tents(grid, heights, deep, tag, on)"},
		"java":       {"record Result(Integer least, String[] names) {}", "Result findTents(String[] grid, double[][] heights, BigInteger deep, Character tag, boolean on) {"},
		"kotlin":     {"data class Result(val least: Int?, val names: List<String>)", "fun findTents(grid: List<String>, heights: List<DoubleArray>, deep: BigInteger, tag: Char?, on: Boolean): Result {"},
		"scala":      {"object Solution {", "def findTents(grid: Array[String], heights: Array[Array[Double]], deep: BigInt, tag: Option[Char], on: Boolean): (Option[Int], Array[String]) = ???"},
		"csharp":     {"public Tuple<int?, string[]> FindTents(string[] grid, double[][] heights, BigInteger deep, char? tag, bool on)"},
		"go":         {"import \"math/big\"", "func findTents(grid []string, heights [][]float64, deep *big.Int, tag *rune, on bool) (least *int, names []string) {"},
		"haskell":    {"findTents :: [String] -> [[Double]] -> Integer -> Maybe Char -> Bool -> (Maybe Int, [String])\nfindTents grid heights deep tag on = undefined"},
		"nim":        {"import std/options", "proc findTents(grid: seq[string], heights: seq[seq[float]], deep: string, tag: Option[char], on: bool): (Option[int], seq[string]) ="},
		"ocaml":      {"let find_tents (grid : string array) (heights : float array array) (deep : string) (tag : char option) (on : bool) : int option * string array ="},
		"pascal":     {"TStrings = array of string;", "TDoubless = array of TDoubles;", "function findTents(grid: TStrings; heights: TDoubless; deep: string; tag: char; on: boolean; out names: TStrings): longint;"},
		"rust":       {"pub fn find_tents(grid: Vec<String>, heights: Vec<Vec<f64>>, deep: i128, tag: Option<char>, on: bool) -> (Option<i32>, Vec<String>) {"},
		"cpp":        {"std::tuple<std::optional<int>, std::vector<std::string>> findTents(const std::vector<std::string>& grid, const std::vector<std::vector<double>>& heights, const std::string& deep, const std::optional<char>& tag, bool on) {"},
	} {
		function, err := problem.ParseCall(every)
		require.NoError(t, err)
		l, ok := toolchain.Ours().Find(language)
		require.True(t, ok)
		file, source, err := Start(function, l, "two tents")
		require.NoError(t, err)
		assert.True(t, strings.HasSuffix(file, l.Extensions[0]), file)
		for _, want := range wants {
			assert.Contains(t, string(source), want, language)
		}
	}
	c, _ := toolchain.Ours().Find("c")
	function, err := problem.ParseCall(every)
	require.NoError(t, err)
	_, _, err = Start(function, c, "tents")
	assert.ErrorContains(t, err, "C writes several results through pointers, and least is int?")
	function, err = problem.ParseCall("find_tents(grid: text[], heights: real[][], deep: bigint, tag: char?, on: bool) -> (least: int, name: text)")
	require.NoError(t, err)
	_, source, err := Start(function, c, "tents")
	require.NoError(t, err)
	assert.Contains(t, string(source), "void find_tents(char **grid, int grid_length, double **heights, int heights_length, int *heights_lengths, char *deep, char *tag, bool on, int *least, char **name)")
	function, err = problem.ParseCall("thin(temps: int[], n: int) -> argument 1")
	require.NoError(t, err)
	for language, want := range map[string]string{
		"cpp": "void thin(std::vector<int>& temps, int n) {", "rust": "pub fn thin(temps: &mut Vec<i32>, n: i32) {", "go": "func thin(temps []int, n int) {", "java": "void thin(int[] temps, int n)", "c": "void thin(int *temps, int temps_length, int n)", "python": "-> None:",
	} {
		l, _ := toolchain.Ours().Find(language)
		_, source, err := Start(function, l, "thin")
		require.NoError(t, err)
		assert.Contains(t, string(source), want)
	}
}

func TestASourceToBeginWithAClassHasItsMethods(t *testing.T) {
	class, err := problem.ParseClass("beacon_log(room: int); put_it(beacon: int, deep: bigint); last() -> text?; all_of() -> int[]")
	require.NoError(t, err)
	assert.Equal(t, "beacon_log(room: int); put_it(beacon: int, deep: bigint); last() -> text?; all_of() -> int[]", class.String())
	for language, wants := range map[string][]string{
		"python":     {"class BeaconLog:", "def __init__(self, room: int):", "def put_it(self, beacon: int, deep: int) -> None:", "def last(self) -> str | None:"},
		"javascript": {"class BeaconLog {", "constructor(room) {", "putIt(beacon, deep) {", "allOf() {"},
		"typescript": {"constructor(room: number) {", "putIt(beacon: number, deep: bigint): void {", "last(): (string | null) {"},
		"ruby":       {"class BeaconLog\n", "def initialize(room)", "def put_it(beacon, deep)", "def all_of()"},
		"java":       {"import java.math.BigInteger;", "class BeaconLog {", "public BeaconLog(int room) {", "public void putIt(int beacon, BigInteger deep) {", "public int[] allOf() {"},
		"kotlin":     {"import java.math.BigInteger\n", "class BeaconLog(room: Int) {", "fun putIt(beacon: Int, deep: BigInteger): Unit {", "fun last(): String? {"},
		"csharp":     {"public BeaconLog(int room)", "public void PutIt(int beacon, BigInteger deep)", "public int[] AllOf()"},
		"go":         {"import \"math/big\"", "func Constructor(room int) BeaconLog {", "func (o *BeaconLog) PutIt(beacon int, deep *big.Int) {", "func (o *BeaconLog) Last() (result *string) {"},
		"rust":       {"fn new(room: i32) -> Self {", "fn put_it(&mut self, beacon: i32, deep: i128) {", "fn last(&mut self) -> Option<String> {"},
		"c":          {"typedef struct {\n    int unused;\n} BeaconLog;", "BeaconLog *beaconLogCreate(int room)\n", "void beaconLogPutIt(BeaconLog *self, int beacon, char *deep)\n", "char *beaconLogLast(BeaconLog *self)\n", "int *beaconLogAllOf(BeaconLog *self, int *returned_length)\n", "void beaconLogFree(BeaconLog *self)\n"},
		"cpp":        {"class BeaconLog {\npublic:\n", "BeaconLog(int room) {", "void putIt(int beacon, const std::string& deep) {", "std::optional<std::string> last() {"},
	} {
		l, ok := toolchain.Ours().Find(language)
		require.True(t, ok)
		file, source, err := Start(class, l, "logs")
		require.NoError(t, err, language)
		for _, want := range wants {
			assert.Contains(t, string(source), want, language)
		}
		text, err := Driver(class, l, l.Standard, file, source)
		require.NoError(t, err, language)
		assert.NotRegexp(t, `@[A-Z_]+@`, text, language)
	}
	haskell, _ := toolchain.Ours().Find("haskell")
	_, _, err = Start(class, haskell, "logs")
	assert.ErrorContains(t, err, "problems that ask for a class cannot be served in Haskell")
	small, err := problem.ParseClass("Log(); size() -> int")
	require.NoError(t, err)
	java, _ := toolchain.Ours().Find("java")
	_, source, err := Start(small, java, "logs")
	require.NoError(t, err)
	assert.NotContains(t, string(source), "BigInteger", "what is not needed is not imported")
	for _, text := range []string{"Log", "Log()", "Log() -> int; size() -> int", "Log(); size( -> int", "Log(); size() -> int; size()"} {
		_, err := problem.ParseClass(text)
		assert.Error(t, err, text)
	}
}

func TestACompilersWordsOnATypeAreSaidAsTheyAreMeant(t *testing.T) {
	log := "In instantiation of ‘struct cold_driver::Json<std::map<int, int> >’:\nerror: static assertion failed: a parameter or the result is declared as a type that arguments and results of this problem cannot be\n"
	assert.Equal(t, "a parameter or the result is declared as std::map<int, int>, which arguments and results of this problem cannot be", Declared(log))
	assert.Empty(t, Declared("error: expected ';'"))
	assert.Empty(t, Declared("‘cold_driver::Json<int>’ is fine"))
}
