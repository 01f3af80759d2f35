package judge

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

func TestTheCallInWhichASequenceIsCutOffIsNamed(t *testing.T) {
	const class = "Log(room: int); put(n: int); last() -> int"
	long := "new(1)"
	for i := range 3000 {
		long += fmt.Sprintf("; put(%d)", i)
	}
	for _, tt := range []struct {
		name, tool, file, source, calls string
		want                            verdict.Verdict
		says                            []string
		methods                         []string // by time
	}{
		{"a loop that never ends", "python3", "a.py", "class Log:\n def __init__(self, room): pass\n def put(self, n):\n  while n == 30: pass\n def last(self): return 1\n",
			"a = new(1); b = new(2); a.put(1); a.last(); b.put(30); a.last(); b.last()", verdict.TimeLimit, []string{"call 5, b.put(30) was not over"}, []string{"new", "put", "last"}},
		{"in the first call", "python3", "a.py", "class Log:\n def __init__(self, room):\n  while room: pass\n def put(self, n): pass\n def last(self): return 1\n",
			"new(7); put(1); last()", verdict.TimeLimit, []string{"call 1, new(7) was not over"}, nil},
		{"every call takes a little", "python3", "a.py", "class Log:\n def __init__(self, room): self.a = []\n def put(self, n):\n  self.a.append(n); sum(i for i in range(5 * n))\n def last(self): return 1\n",
			long, verdict.TimeLimit, []string{"after ", " it was in call ", " of 3001"}, []string{"put", "new"}},
		{"it sleeps", "python3", "a.py", "import time\nclass Log:\n def __init__(self, room): pass\n def put(self, n): time.sleep(60)\n def last(self): return 1\n",
			"new(1); last(); put(3)", verdict.Stalled, []string{"call 3, put(3) was not over"}, []string{"new", "last"}},
		{"it ends the program", "python3", "a.py", "import os\nclass Log:\n def __init__(self, room): pass\n def put(self, n): os._exit(n)\n def last(self): return 1\n",
			"new(1); last(); put(3); last()", verdict.RuntimeError, []string{"call 3, put(3): it ended the program (exit status 3) instead of returning"}, nil},
		{"it crashes", "g++", "a.cpp", "class Log { vector<int> a; public: Log(int room) {} void put(int n) { a.push_back(n); } int last() { int *gone = nullptr; return a.size() > 1 ? *gone : a.back(); } };\n",
			"new(1); put(1); last(); put(2); put(2); last()", verdict.RuntimeError, []string{"call 6, last(): "}, nil},
		{"it takes all memory", "g++", "a.cpp", "class Log { vector<char *> a; public: Log(int room) {} void put(int n) { a.push_back((char *)memset(malloc(n), 1, n)); } int last() { return a.size(); } };\n",
			"new(1); put(1000); put(10000); put(500000000); last()", verdict.MemoryLimit, []string{"call 4, put(500000000)"}, nil},
	} {
		t.Run(tt.name, func(t *testing.T) {
			testenv.Need(t, tt.tool)
			p := sequence(t, class, tt.calls)
			p.Limits.General.Time, p.Limits.General.Wall = 400*time.Millisecond, 3*time.Second
			outcomes, ended := calledAs(t, p, tt.file, tt.source, options{})
			require.Len(t, outcomes, 1, ended.Message)
			o := outcomes[0]
			assert.Equal(t, tt.want.String(), o.Verdict.String(), o.Message)
			for _, words := range tt.says {
				assert.Contains(t, o.Message, words)
			}
			if tt.methods == nil {
				return
			}
			var methods []string
			for _, m := range o.Methods {
				methods = append(methods, m.Method)
			}
			assert.ElementsMatch(t, tt.methods, methods)
			if strings.HasPrefix(tt.name, "every") {
				assert.Equal(t, "put", methods[0])
			}
		})
	}
}
