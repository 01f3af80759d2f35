package call

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
)

func TestAClassInCIsItsFunctions(t *testing.T) {
	class, err := problem.ParseClass("beacon_log(room: int); put(beacon: int, marks: int[]); last() -> text?; rows() -> int[][]")
	require.NoError(t, err)
	const head = "typedef struct { int n; } BeaconLog;\n"
	for _, tt := range []struct {
		source  string
		holds   []string
		refused string
	}{
		{"BeaconLog *beaconLogCreate(int room) { return 0; }\nvoid beaconLogPut(BeaconLog *obj, int beacon, int *marks, int n) {}\nchar *beaconLogLast(BeaconLog *o) { return 0; }\nint **beaconLogRows(BeaconLog *o, int *n, int **lengths) { return 0; }\nvoid beaconLogFree(BeaconLog *o) {}\n",
			[]string{"cold_objects[cold_object] = beaconLogCreate(a0)", "beaconLogPut(cold_objects[cold_object], a0, a1, a1_length)", "char* cold_result = beaconLogLast(cold_objects[cold_object])", "beaconLogFree(cold_objects[i])", "if (cold_handed(1))"}, ""},
		{"BeaconLog *beacon_log_new(int room) { return 0; }\nvoid beacon_log_put(BeaconLog *o, int b, const int marks[], int n) {}\nchar *beacon_log_last(BeaconLog *o) { return 0; }\nint **beacon_log_rows(BeaconLog *o, int *n, int **lengths) { return 0; }\n", []string{"beacon_log_new(a0)"}, ""},
		{"void put(int a) {}\n", nil, "there is no function beaconLogCreate in a.c; in C the functions of a class begin with its name"},
		{"BeaconLog beaconLogCreate(int room) { BeaconLog b; return b; }\n", nil, "beaconLogCreate returns BeaconLog; what makes an object returns a pointer to it"},
		{"BeaconLog *beaconLogCreate(int room) { return 0; }\nvoid beaconLogPut(int beacon, int *marks, int n) {}\n", nil, "beaconLogPut does not take a BeaconLog* first"},
		{"BeaconLog *beaconLogCreate(void) { return 0; }\n", nil, "beaconLogCreate takes 1 parameter in this problem (int room), and is declared with 0 parameters"},
		{"BeaconLog *beaconLogCreate(int room) { return 0; }\nvoid beaconLogPut(BeaconLog *o, int b, int *marks, int n) {}\nvoid beaconLogLast(BeaconLog *o) {}\n", nil, "beaconLogLast returns nothing, and the problem asks for text?"},
	} {
		l := language(t, "c")
		w, text, err := wrap(class, l, l.Standard, "a.c", []byte(head+tt.source))
		require.NoError(t, err)
		assert.Equal(t, tt.refused, w.Refused)
		for _, part := range tt.holds {
			assert.Contains(t, text, part)
		}
	}
}

func TestABareFileInCIsCompiledAloneToo(t *testing.T) {
	for signature, commands := range map[string]int{"f(a: int) -> int": 1, "f(a: list(int)) -> int": 0} {
		function, err := problem.ParseCall(signature)
		require.NoError(t, err)
		for _, bare := range []bool{true, false} {
			function.Bare = bare
			for _, one := range [][2]string{{"c", "int f(int a) { return a; }"}, {"cpp", "int f(int a) { return a; }"}} {
				l := language(t, one[0])
				w, _, err := wrap(function, l, l.Standard, "a"+l.Extensions[0], []byte(one[1]+"\n"))
				require.NoError(t, err)
				if !bare || w.Refused != "" {
					assert.Empty(t, w.Then)
					continue
				}
				require.Len(t, w.Then, commands, signature)
				if commands > 0 {
					assert.Equal(t, "./a"+l.Extensions[0], w.Then[0][len(w.Then[0])-1])
				}
			}
		}
	}
}
