package native

import (
	"debug/elf"
	"encoding/binary"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/internal/testenv"
)

// words are numbers of four bytes, one after the other.
func words(n ...int32) (b []byte) {
	for _, v := range n {
		b = binary.LittleEndian.AppendUint32(b, uint32(v))
	}
	return b
}

func TestAnInstructionIsMovedOutOfTheWay(t *testing.T) {
	const here, room = 0x401000, 0x600000
	join := func(parts ...[]byte) (all []byte) {
		for _, p := range parts {
			all = append(all, p...)
		}
		return all
	}
	for name, row := range map[string]struct {
		code   []byte
		slot   []byte // nil: it cannot be moved
		target int64
	}{
		"one that stands anywhere":           {[]byte{0x89, 0x45, 0xfc}, join([]byte{0x89, 0x45, 0xfc, 0xe9}, words(here+3-room-8)), 0},
		"one that reads beside itself":       {join([]byte{0x8b, 0x05}, words(0x100)), join([]byte{0x8b, 0x05}, words(here+6+0x100-room-6), []byte{0xe9}, words(here+6-room-11)), 0},
		"a jump":                             {[]byte{0xeb, 0x10}, join([]byte{0xe9}, words(here+2+0x10-room-5)), 0},
		"a jump back":                        {join([]byte{0xe9}, words(-0x20)), join([]byte{0xe9}, words(here+5-0x20-room-5)), 0},
		"a short jump on a condition":        {[]byte{0x7f, 0xf0}, join([]byte{0x0f, 0x8f}, words(here+2-0x10-room-6), []byte{0xe9}, words(here+2-room-11)), 0},
		"a long jump on a condition":         {join([]byte{0x0f, 0x84}, words(0x40)), join([]byte{0x0f, 0x84}, words(here+6+0x40-room-6), []byte{0xe9}, words(here+6-room-11)), 0},
		"a return":                           {[]byte{0xc3}, []byte{0xc3}, 0},
		"a call":                             {join([]byte{0xe8}, words(0x30)), []byte{}, here + 5 + 0x30},
		"a call by a pointer":                {[]byte{0xff, 0xd0}, nil, 0},
		"a loop":                             {[]byte{0xe2, 0xfe}, nil, 0},
		"the one with which functions begin": {[]byte{0xf3, 0x0f, 0x1e, 0xfa}, join([]byte{0xf3, 0x0f, 0x1e, 0xfa, 0xe9}, words(here+4-room-9)), 0},
	} {
		t.Run(name, func(t *testing.T) {
			m := &machine{symbols: map[string]elf.Symbol{slotsSymbol: {Value: room}}}
			i, ok := decode(append(row.code, 0x90, 0x90), here)
			require.True(t, ok)
			s, ok := m.slotted(site{Address: here}, i)
			require.Equal(t, row.slot != nil, ok)
			if ok {
				assert.Equal(t, row.slot, append([]byte{}, m.slots...))
				assert.Equal(t, row.target, s.Target)
				assert.Equal(t, int64(here+len(row.code)), s.Back&(1<<56-1), "where a call returns to")
				assert.Equal(t, row.code[0], byte(s.Back>>56), "what stood there")
			}
		})
	}
	_, ok := decode([]byte{0x06}, here)
	assert.False(t, ok, "no instruction of this machine")
	_, ok = (&machine{symbols: map[string]elf.Symbol{}}).slotted(site{}, instruction{code: []byte{0xc3}})
	assert.False(t, ok, "there is no recorder in the program")
}

func TestWhereVariablesLieIsRead(t *testing.T) {
	for _, row := range []struct {
		where         []byte
		place, offset int64
		ok            bool
	}{
		{[]byte{opFbreg, 0x6c}, placeFrame, -20, true},
		{[]byte{opFbreg, 0x80, 0x7f}, placeFrame, -128, true},
		{[]byte{opFbreg, 0x10, opDeref}, placePointer, 16, true},
		{[]byte{opBreg6, 0x78}, placeFrame, -8, true},
		{[]byte{opAddr, 0x80, 0x4b, 0xb1, 1, 0, 0, 0, 0}, placeAddress, 0x1b14b80, true},
		{[]byte{opAddr, 1, 2}, 0, 0, false},
		{[]byte{opReg6}, 0, 0, false},
		{[]byte{opFbreg, 0x10, 0x23, 1}, 0, 0, false},
		{nil, 0, 0, false},
	} {
		place, offset, ok := location(row.where)
		assert.Equal(t, row.ok, ok, row.where)
		if ok {
			assert.Equal(t, []int64{row.place, row.offset}, []int64{place, offset}, row.where)
		}
	}
}

func TestLinesThatOnlyCloseAreNoSteps(t *testing.T) {
	lines := []string{"  }", "});", "END.", "end;", "} else {", "x]", "", "return 1; }"}
	var closing []int
	for n := range len(lines) + 3 {
		if Closes(lines, n-1) {
			closing = append(closing, n-1)
		}
	}
	assert.Equal(t, []int{1, 2, 3, 4, 7}, closing)
}

func TestWhatIsNoProgramWithLinesIsAnError(t *testing.T) {
	dir := t.TempDir()
	text := filepath.Join(dir, "text")
	require.NoError(t, os.WriteFile(text, []byte("no program"), 0o644))
	_, err := Table(text, Options{})
	assert.Error(t, err)
	_, err = Table(filepath.Join(dir, "none"), Options{})
	assert.ErrorIs(t, err, os.ErrNotExist)
	testenv.Need(t, "gcc")
	source := filepath.Join(dir, "a.c")
	require.NoError(t, os.WriteFile(source, []byte("int main(void) {\n    return 0;\n}\n"), 0o644))
	out, err := exec.Command("gcc", "-g", "-o", filepath.Join(dir, "program"), source).CombinedOutput()
	require.NoError(t, err, "%s", out)
	made, err := Table(filepath.Join(dir, "program"), Options{Source: "b.c", Most: 7})
	require.NoError(t, err)
	number := func(at int) int64 { return int64(binary.LittleEndian.Uint64(made[8*at:])) }
	assert.Equal(t, int64(0), number(headSites), "no line of this source, and no recorder")
	assert.Equal(t, int64(7), number(headStrings+3))
}
