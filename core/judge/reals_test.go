package judge

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// samesIn are functions that return the number that they are given.
var samesIn = map[string]string{
	"same.c":          "double same(double x) { return x; }\n",
	"same.cpp":        "double same(double x) { return x; }\n",
	"solution.cs":     "public class Solution { public double Same(double x) { return x; } }\n",
	"same.go":         "package main\n\nfunc same(x float64) float64 { return x }\n",
	"Solution.java":   "class Solution { double same(double x) { return x; } }\n",
	"same.js":         "var same = function (x) { return x; };\n",
	"same.ts":         "function same(x: number): number { return x; }\n",
	"same.kt":         "class Solution { fun same(x: Double): Double = x }\n",
	"same.scala":      "object Solution { def same(x: Double): Double = x }\n",
	"same.py":         "class Solution:\n    def same(self, x: float) -> float:\n        return x\n",
	"same.rb":         "def same(x)\n  x\nend\n",
	"same.rs":         "impl Solution { pub fn same(x: f64) -> f64 { x } }\n",
	"same.php":        "<?php\nfunction same(float $x): float { return $x; }\n",
	"same.lua":        "function same(x) return x end\n",
	"same.pl":         "sub same { return $_[0]; }\n1;\n",
	"same.clj":        "(defn same [x] x)\n",
	"same.d":          "double same(double x) { return x; }\n",
	"same.hs":         "same :: Double -> Double\nsame x = x\n",
	"same.ml":         "let same (x : float) : float = x\n",
	"same.nim":        "proc same(x: float): float = x\n",
	"same.pas":        "function same(x: double): double;\nbegin\n  same := x;\nend;\n",
	"same-long.pas":   "function same(x: extended): extended;\nbegin\n  same := x;\nend;\n",
	"same-single.pas": "function same(x: single): single;\nbegin\n  same := x;\nend;\n",
}

// TestRealNumbersComeAndGoAtTheirEnds gives each language the numbers at which reading and writing go wrong: the
// largest and the smallest, what has no end, and what is no number.
func TestRealNumbersComeAndGoAtTheirEnds(t *testing.T) {
	testenv.NotShort(t, "it builds twenty drivers")
	ends := []string{"1.7976931348623157e308", "-1.7976931348623157e308", "1.75e308", "5e-324", "2.2250738585072014e-308", "NaN", "Infinity", "-Infinity", "0.0", "-0.0", "0.1", "-1e-7", "1e15", "123456789.12345679", "1e22", "4503599627370497.5", "3"}
	for file, source := range samesIn {
		t.Run(file, func(t *testing.T) {
			needLanguageOf(t, file)
			var cases []string
			for _, x := range ends {
				if file == "same-single.pas" && len(x) > 8 || file == "same-single.pas" && (x == "1.75e308" || x == "5e-324") {
					continue
				}
				cases = append(cases, "x = "+x+" => "+x)
			}
			p := function(t, "same(x: real) -> real", cases...)
			for i := range p.Cases {
				p.Cases[i].Compare.Absolute, p.Cases[i].Compare.Relative = 0, 1e-15
				if file == "same-single.pas" {
					p.Cases[i].Compare.Relative = 1e-6
				}
			}
			outcomes, ended := calledAs(t, p, file, source, options{})
			require.Len(t, outcomes, len(cases), "%s", ended.Message)
			for i, o := range outcomes {
				assert.Equal(t, verdict.Accepted, o.Verdict, "%s: %s %s\n%s", cases[i], o.Message, o.Returned, o.Stderr.Bytes)
			}
		})
	}
}

// TestTextsThatLookLikeNumbersStayTexts gives languages that read a line as a whole texts with words in them that
// stand for numbers elsewhere.
func TestTextsThatLookLikeNumbersStayTexts(t *testing.T) {
	texts := `["NaN", "-Infinity", "say \"NaN\", or Infinity", "null", "\\", "\\\"NaN", "12345678901234567890", "1e5", "-0", ""]`
	for file, source := range map[string]string{
		"both.py": "def both(words, x):\n    return list(words)\n", "both.js": "var both = (words, x) => words;\n", "both.rb": "def both(words, x)\n  words\nend\n",
		"both.php": "<?php\nfunction both(array $words, float $x): array { return $words; }\n", "both.pl": "sub both { my ($words, $x) = @_; return $words; }\n1;\n",
		"both.lua": "function both(words, x) return words end\n", "both.clj": "(defn both [words x] words)\n",
	} {
		t.Run(file, func(t *testing.T) {
			needLanguageOf(t, file)
			var cases []string
			for _, x := range []string{"NaN", "Infinity", "-Infinity", "0.5"} {
				cases = append(cases, "words = "+texts+"; x = "+x+" => "+texts)
			}
			outcomes, ended := calledAs(t, function(t, "both(words: text[], x: real) -> text[]", cases...), file, source, options{})
			require.Len(t, outcomes, len(cases), "%s", ended.Message)
			for i, o := range outcomes {
				assert.Equal(t, verdict.Accepted, o.Verdict, "%s: %s %s\n%s", cases[i], o.Message, o.Returned, o.Stderr.Bytes)
			}
		})
	}
}
