package call

import (
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAScalaFunctionIsCalledWhereItStands(t *testing.T) {
	for _, tt := range []struct{ name, source, begins, call string }{
		{"in an object", "object Solution {\n  def longestThaw(t: Array[Int], limit: Int = 3): Int = 0\n}", "object Solution", "import Solution._\n      val coldA1 = take[Array[Int]](coldReader, 1)\n      val coldA2 = take[Int](coldReader, 2)\n      coldBegins()\n      val coldResult: Any = measured(Solution.longestThaw(coldA1, coldA2))"},
		{"in a class of a package", "package hall\nclass Solution {\n  def longest_thaw(t: Map[Int, (Int, Int)], limit: => Long): Int = 0\n}", "package hall", "val coldObject = new hall.Solution\n      import coldObject._\n      val coldA1 = take[Map[Int, (Int, Int)]]"},
		{"by name, and any number", "object O { def longestThaw(t: => Seq[Int], limit: Int*): Int = 0 }", "object O", "val coldA1 = take[Seq[Int]](coldReader, 1)\n      val coldA2 = take[Seq[Int]](coldReader, 2)\n      coldBegins()\n      val coldResult: Any = measured(O.longestThaw(coldA1, coldA2: _*))"},
		{"alone", "import scala.collection.mutable\ndef longestThaw(t: List[Int], limit: Int) = 0", "object ColdSource { import", "measured(ColdSource.longestThaw(coldA1, coldA2))"},
		{"beside a class with a type of its own", "class Heap[T](room: Int) { def longestThaw(t: List[Int], limit: Int) = 1 }\nobject Other { val h = new Heap[Int](3); def longestThaw(t: List[Int], limit: Int) = 0 }", "class Heap", "measured(Other.longestThaw(coldA1, coldA2))"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			w := fitted(t, thawSignature, "scala", "a.scala", tt.source+"\n")
			require.Empty(t, w.Refused)
			assert.True(t, strings.HasPrefix(string(w.Source), tt.begins), "%s", w.Source)
			assert.Contains(t, string(w.Source), tt.source+"\n", "its lines stay")
			assert.Contains(t, regexp.MustCompile(`\n +`).ReplaceAllString(string(w.Files["cold_driver.scala"]), "\n      "), tt.call)
		})
	}
}

func TestAnOCamlFunctionIsCalledAsItsTypesSay(t *testing.T) {
	for _, tt := range []struct {
		name, signature, source string
		holds                   []string
	}{
		{"lists are declared", thawSignature, "let longest_thaw (t : int list) (limit : int) : int = 0", []string{`(take_list "int list" take_int)`, "returned (longest_thaw a1 a2)", "give_int result"}},
		{"nothing is declared, and lists are used", thawSignature, "let rec longestThaw t limit = match t with [] -> 0 | _ -> 1", []string{"take_list", "returned (longestThaw a1 a2)"}},
		{"nothing is declared, and arrays are used", thawSignature, "let longest_thaw t limit = t.(0)", []string{"take_array"}},
		{"the whole has a type", thawSignature, "let longest_thaw : int array -> int64 -> int = fun t limit -> 0", []string{"take_array", "take_int64"}},
		{"nested, and in parentheses", "f(a: int[][]) -> int[][]", "let f (a : (int list) array) : (int array) list = []", []string{`(take_array "(int list) array" (take_list "int list" take_int))`, "(give_list (give_array give_int)) result"}},
		{"several results", "f(a: int) -> (b: int, c: text[], d: real?)", "let f a : int * string list * float option = 1, [], None", []string{"let (r1, r2, r3) = result in", "give_int r1", "(give_list give_string) r2", "(give_option give_float) r3"}},
		{"an argument is changed", "f(a: int[]) -> argument 1", "let f a = a.(0) <- 1", []string{"(give_array give_int) a1"}},
		{"no arguments", "f() -> int", "let f () = 1", []string{"returned (f ())"}},
		{"integers without a limit", "f(a: bigint) -> bigint", "let f a = a", []string{"take_digits", "give_digits"}},
		{"a function of cases", "f(a: int[]) -> int", "let rec f = function [] -> 0 | x :: r -> x", []string{"returned (f a1)"}},
		{"a helper stands before it, with a comment", "f(a: int) -> int", "(* let f a b = 1 *)\nlet g s = \"let f\"\nlet f (x : int) = x", []string{"returned (f a1)"}},
	} {
		t.Run(tt.name, func(t *testing.T) {
			w := fitted(t, tt.signature, "ocaml", "a.ml", tt.source+"\n")
			require.Empty(t, w.Refused)
			for _, text := range tt.holds {
				assert.Contains(t, string(w.Source), text)
			}
		})
	}
	w := fitted(t, thawSignature, "ocaml", "a.ml", "let longest_thaw t limit = 0\n")
	other, err := w.Otherwise()
	require.NoError(t, err)
	assert.Contains(t, string(other.Source), "take_array", "where lists do not build, arrays may")
}

func TestAPascalProgramCallsItsFunction(t *testing.T) {
	for _, tt := range []struct {
		name, signature, source string
		holds                   []string
		lacks                   string
	}{
		{"its own statements are left out", "f(a: int) -> int", "program p;\nuses Math;\nfunction f(a: longint): longint;\nbegin f := a end;\nvar x: longint;\nbegin\n  case 1 of 1: begin f(2) end end;\nend.\n",
			[]string{"uses cold_driver, Math;", "ColdR := f(ColdA1);", "ColdA1: longint;", "ColdServe(@ColdCall);"}, "case 1 of"},
		{"it has none", "f(a: int) -> int", "function f(a: longint): longint;\nbegin f := a end;\n", []string{"uses cold_driver; function f", "ColdR := f(ColdA1);"}, "ColdN0"},
		{"a name and modes of the compiler", "f(a: int[]) -> argument 1", "program p;\n{$mode objfpc}\nprocedure f(var a: array of longint);\nbegin end;\nbegin end.", []string{"program p; uses cold_driver;", "ColdA1: array of longint;", "ColdRead(ColdA1[ColdN0]);", "ColdGive(ColdA1[ColdN0]);"}, "begin end."},
		{"several results", "f(a: int, b: int) -> (c: int, d: text)", "{$mode objfpc}\nfunction f(a, b: longint; out d: string): longint;\nbegin end;", []string{"{$mode objfpc}\n uses cold_driver;", "f(ColdA1, ColdA2, ColdA3)", "ColdGive(ColdR);", "ColdGive(ColdA3);"}, ""},
		{"a method", "f(a: int) -> int", "type TSolution = class function f(a: longint): longint; end;\nfunction TSolution.f(a: longint): longint;\nbegin end;", []string{"TSolution.Create.f(ColdA1)"}, ""},
		{"what only looks like the end", "f(a: int) -> int", "function f(a: longint): longint;\nbegin writeln('end.'); { begin } end;\nbegin end.", []string{"writeln('end.')", "ColdServe"}, "\nbegin end."},
	} {
		t.Run(tt.name, func(t *testing.T) {
			w := fitted(t, tt.signature, "pascal", "a.pas", tt.source)
			require.Empty(t, w.Refused)
			for _, text := range tt.holds {
				assert.Contains(t, string(w.Source), text)
			}
			if tt.lacks != "" {
				assert.NotContains(t, string(w.Source), tt.lacks)
			}
		})
	}
}

func TestAHaskellSourceBecomesAModuleWhoseLinesStay(t *testing.T) {
	for _, tt := range []struct{ name, source, want, callee string }{
		{"it has no head", "-- a\n{-# LANGUAGE BangPatterns #-}\nimport Data.List\nlongestThaw :: [Int] -> Int -> Int\nlongestThaw t l = 0\n", "-- a\n{-# LANGUAGE BangPatterns #-}\nmodule ColdSource where\n{-# LINE 3 \"a.hs\" #-}\nimport Data.List\n", "(ColdSource.longestThaw)"},
		{"it exports main", "module Main (main, Room (..)) where\nlongest_thaw :: [Int] -> Int -> Int\nlongest_thaw t l = 0\n", "module ColdSource where\nlongest_thaw ::", "(ColdSource.longest_thaw)"},
		{"its head has lines", "module Main\n  ( main\n  ) where\nlongestThaw t l = 0\n", "module ColdSource where\n\n\nlongestThaw", "(ColdSource.longestThaw :: [Int] -> Int -> (Int))"},
		{"its type is any of some", "longestThaw :: (Ord a) => [a] -> a -> Int\nlongestThaw t l = 0\n", "module ColdSource where\n{-# LINE 1", "(ColdSource.longestThaw :: [Int] -> Int -> (Int))"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			w := fitted(t, thawSignature, "haskell", "a.hs", tt.source)
			require.Empty(t, w.Refused)
			assert.Contains(t, string(w.Source), tt.want)
			assert.Contains(t, string(w.Files["cold_driver.hs"]), tt.callee)
		})
	}
}

func TestWhatLanguagesOfPlainValuesCannotServeIsRefusedInWords(t *testing.T) {
	for _, tt := range []struct{ signature, language, source, words string }{
		{"f(a: tree(int)) -> int", "haskell", "f t = 0\n", "Haskell has no usual way to pass tree(int)"},
		{"f(a: map(text, int)) -> int", "ocaml", "let f a = 0\n", "OCaml has no usual way to pass map(text, int)"},
		{"f(a: int?) -> int", "pascal", "function f(a: longint): longint;", "Pascal has no usual way to pass what may be absent"},
		{"f(a: int) -> int", "pascal", "unit a;\ninterface\nfunction f(a: longint): longint;", "a.x is a unit"},
		{"f(a: int) -> int", "pascal", "function f(a, b: longint): longint;", "takes 1 argument in this problem, and is declared with 2 parameters"},
		{"f(a: int[]) -> int", "ocaml", "let f (a : room) = 0\n", "it declares room where the problem has int[]"},
		{"f(a: int) -> int", "ocaml", "let f a b = 0\n", "takes 1 argument in this problem, and is declared with 2 parameters"},
		{"f(a: int) -> int", "ocaml", "(* let f a = 0 *)\n", "there is no function f or F in a.x"},
		{"f(a: int, b: int) -> int", "scala", "object S { def f(a: Int)(b: Int) = 1 }\n", "takes 2 arguments in this problem, and is declared with 1 parameter"},
		{"f(a: tree(int)) -> int", "scala", "object S { def f(a: Tree) = 1 }\n", "Scala has no usual way to pass tree(int)"},
		{"f(a: int) -> int", "nim", "# proc f(a: int): int = a\n", "there is no function f or F in a.x"},
		{"find_it(a: int) -> int", "haskell", "findit a = 0\n", "there is no function find_it or findIt or FindIt in a.x"},
	} {
		assert.Contains(t, fitted(t, tt.signature, tt.language, "a.x", tt.source).Refused, tt.words, tt.source)
	}
	assert.Empty(t, fitted(t, "find_it(a: int) -> int", "nim", "a.nim", "proc findIT(a: int): int = a\n").Refused, "as Nim reads names")
}
