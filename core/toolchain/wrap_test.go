package toolchain

import (
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/box"
	"coldverdict/core/verdict"
	"coldverdict/internal/testenv"
)

// around wraps every source into a program that prints what its function greet
// prints.
func around(l *Language, standard, file string, source []byte) (Wrapping, error) {
	switch {
	case l.Name != "c":
		return Wrapping{}, errors.New("only C is wrapped here")
	case !strings.Contains(string(source), "greet"):
		return Wrapping{Refused: "there is no greet in " + file + " (" + standard + ")"}, nil
	}
	return Wrapping{
		Source:     source,
		Files:      map[string][]byte{"around.c": []byte("#include \"" + file + "\"\nint main(void) { return greet(); }\n")},
		BuildWords: map[string][]string{"{source}": {"around.c"}},
		RunWords:   map[string][]string{"{build}/program": {"{build}/program", "wrapped"}},
	}, nil
}

func TestASourceIsBuiltWithWhatIsPutAroundIt(t *testing.T) {
	testenv.Need(t, "gcc")
	b := newBench(t)
	path := b.write(t, "greet.c", "#include <stdio.h>\nint greet(void)\n{\n    puts(\"ice\");\n    return 3;\n}\n")
	build, err := b.kit.Build(t.Context(), b.builder, Source{Path: path, Wrap: around})
	require.NoError(t, err)
	require.False(t, build.Failed, build.Log)
	assert.False(t, build.Cached)
	assert.Contains(t, build.Command, "around.c")
	program := build.Program(verdict.Limits{Memory: 64 << 20}, []string{"last"})
	assert.Equal(t, []string{"wrapped", "last"}, program.Args)
	out := &box.Head{Most: 100}
	result, err := b.box.Run(t.Context(), box.Run{Program: program, Output: out})
	require.NoError(t, err)
	assert.Equal(t, "ice\n", string(out.Text))
	assert.Equal(t, 3, result.ExitCode)

	again, err := b.kit.Build(t.Context(), b.builder, Source{Path: path, Wrap: around})
	require.NoError(t, err)
	assert.True(t, again.Cached, "the same with the same around it")
	plain, err := b.kit.Build(t.Context(), b.builder, Source{Path: path})
	require.NoError(t, err)
	assert.False(t, plain.Cached)
	assert.True(t, plain.Failed, "it is no program by itself")
	other := func(l *Language, standard, file string, source []byte) (Wrapping, error) {
		w, err := around(l, standard, file, source)
		w.Files["around.c"] = append(w.Files["around.c"], "/* another */\n"...)
		return w, err
	}
	changed, err := b.kit.Build(t.Context(), b.builder, Source{Path: path, Wrap: other})
	require.NoError(t, err)
	assert.False(t, changed.Cached, "what is around it counts")
}

func TestWhatCannotBeWrappedIsNotBuilt(t *testing.T) {
	testenv.Need(t, "gcc", "python3")
	b := newBench(t)
	build, err := b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, "a.c", "int main(void) { return 0; }"), Language: "c11", Wrap: around})
	require.NoError(t, err)
	assert.True(t, build.Failed)
	assert.Equal(t, "there is no greet in a.c (c11)", build.Log)
	_, err = b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, "a.py", "pass"), Wrap: around})
	assert.ErrorContains(t, err, "only C is wrapped here")
}

func TestWhatDoesNotBuildIsWrappedOtherwiseAndOnlyThen(t *testing.T) {
	testenv.Need(t, "gcc")
	b := newBench(t)
	const head, end = "int greet(void) { return GREETING; }\n", "int main(void) { return greet(); }\n"
	path := b.write(t, "a.c", head)
	for _, tt := range []struct {
		name, first string
		other       Wrapping
		err         error
		failed      bool
		asked       int
		supplied    []string
	}{
		{name: "it builds", first: "#define GREETING 0\n", supplied: []string{"first"}},
		{name: "it builds otherwise", other: Wrapping{Source: []byte("#define GREETING 7\n" + head + end), Supplied: []string{"other"}}, asked: 1, supplied: []string{"other"}},
		{name: "it never builds", other: Wrapping{Source: []byte(head + "int nothing = nowhere;\n"), Supplied: []string{"other"}}, failed: true, asked: 1, supplied: []string{"first"}},
		{name: "nothing else can be put around it", other: Wrapping{Refused: "no"}, failed: true, asked: 1, supplied: []string{"first"}},
		{name: "a fault of ours", err: errors.New("no text"), asked: 1},
	} {
		t.Run(tt.name, func(t *testing.T) {
			asked := 0
			build, err := b.kit.Build(t.Context(), b.builder, Source{Path: path, Wrap: func(*Language, string, string, []byte) (Wrapping, error) {
				return Wrapping{Source: []byte(tt.first + head + end), Supplied: []string{"first"}, Otherwise: func() (Wrapping, error) {
					asked++
					return tt.other, tt.err
				}}, nil
			}})
			assert.Equal(t, tt.asked, asked)
			if tt.err != nil {
				assert.ErrorIs(t, err, tt.err)
				return
			}
			require.NoError(t, err)
			assert.Equal(t, tt.failed, build.Failed)
			assert.Equal(t, tt.supplied, build.Supplied())
			if tt.failed { // what is said is of the way that was meant
				assert.Contains(t, build.Log, "GREETING")
				assert.NotContains(t, build.Log, "nowhere")
			}
		})
	}
}

func TestMistakesAroundASourceAreNotTakenForTheSources(t *testing.T) {
	testenv.Need(t, "gcc")
	b := newBench(t)
	broken := func(l *Language, standard, file string, source []byte) (Wrapping, error) {
		return Wrapping{Source: append(source, "\n\n\nint around = nothing;\n"...), Files: map[string][]byte{"more.c": []byte("int x")}}, nil
	}
	build, err := b.kit.Build(t.Context(), b.builder, Source{Path: b.write(t, "a.c", "int greet(void) { return 0; }\n"), Wrap: broken})
	require.NoError(t, err)
	require.True(t, build.Failed)
	said := build.Read(build.Log, true)
	assert.Zero(t, said.Line, "that line is none of the person's")
	said = build.Read("more.c:7:1: error: static assertion failed: this cannot be\n", true)
	assert.Equal(t, Reading{Message: "this cannot be"}, said)
	said = build.Read("a.c:1:1: error: expected ';'\n", true)
	assert.Equal(t, Reading{Message: "expected ';'", Line: 1}, said)
}

func TestWordsOfCommandsAreReplacedWhole(t *testing.T) {
	c := Command{"{compiler}", "-o", "program", "{source}", "x{source}"}
	assert.Equal(t, Command{"{compiler}", "-o", "program", "a.c", "b.c", "x{source}"}, c.with(map[string][]string{"{source}": {"a.c", "b.c"}}))
	assert.Equal(t, Command{"{compiler}", "program", "{source}", "x{source}"}, c.with(map[string][]string{"-o": nil}))
	assert.Equal(t, c, c.with(nil))
}
