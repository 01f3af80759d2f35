package toolchain

import (
	"debug/elf"
	"encoding/binary"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// program writes an executable for a machine that holds nothing but code at an
// address, and the symbol of the function that a compiler calls for each part.
func program(t *testing.T, machine elf.Machine, address, target uint64, code []byte) *elf.File {
	names := "\x00.text\x00.symtab\x00.strtab\x00.shstrtab\x00"
	strings := "\x00" + traceCall + "\x00"
	symbols := make([]byte, 48) // the first one is empty
	binary.LittleEndian.PutUint32(symbols[24:], 1)
	symbols[28] = byte(elf.STB_GLOBAL)<<4 | byte(elf.STT_FUNC)
	binary.LittleEndian.PutUint16(symbols[30:], 1)
	binary.LittleEndian.PutUint64(symbols[32:], target)
	const header, entry = 64, 64
	parts := [][]byte{code, symbols, []byte(strings), []byte(names)}
	body := []byte{}
	offsets := make([]uint64, len(parts))
	for i, part := range parts {
		offsets[i] = header + uint64(len(body))
		body = append(body, part...)
	}
	sections := make([]elf.Section64, 5)
	sections[1] = elf.Section64{Name: 1, Type: uint32(elf.SHT_PROGBITS), Addr: address, Off: offsets[0], Size: uint64(len(code))}
	sections[2] = elf.Section64{Name: 7, Type: uint32(elf.SHT_SYMTAB), Off: offsets[1], Size: uint64(len(symbols)), Link: 3, Entsize: 24}
	sections[3] = elf.Section64{Name: 15, Type: uint32(elf.SHT_STRTAB), Off: offsets[2], Size: uint64(len(strings))}
	sections[4] = elf.Section64{Name: 23, Type: uint32(elf.SHT_STRTAB), Off: offsets[3], Size: uint64(len(names))}
	top := elf.Header64{Type: uint16(elf.ET_EXEC), Machine: uint16(machine), Version: 1, Shoff: header + uint64(len(body)), Ehsize: header, Shentsize: entry, Shnum: 5, Shstrndx: 4}
	copy(top.Ident[:], "\x7fELF\x02\x01\x01")
	path := filepath.Join(t.TempDir(), "program")
	out, err := os.Create(path)
	require.NoError(t, err)
	require.NoError(t, binary.Write(out, binary.LittleEndian, top))
	_, err = out.Write(body)
	require.NoError(t, err)
	require.NoError(t, binary.Write(out, binary.LittleEndian, sections))
	require.NoError(t, out.Close())
	file, err := elf.Open(path)
	require.NoError(t, err)
	t.Cleanup(func() { file.Close() })
	return file
}

func TestCallsAreFoundInMachineCode(t *testing.T) {
	intel := []byte{
		0x90, 0xe8, 0xfa, 0x0f, 0, 0, // at 0x1001: a call of 0x2000
		0xe8, 0, 0, 0, 0, // of another place
		0xe8, 0xf0, 0xff, 0xff, 0xff, // of one before
		0xe8, 0xeb, 0x0f, 0, 0, // at 0x1010: once more
	}
	calls, err := callsOf(program(t, elf.EM_X86_64, 0x1000, 0x2000, intel), traceCall)
	require.NoError(t, err)
	assert.Equal(t, []uint64{0x1006, 0x1015}, calls)

	words := []uint32{
		0xd503201f,             // nothing
		0x94000000 | 0x3ff,     // at 0x1004: a call of 0x2000
		0x14000000 | 0x3fe,     // a jump there, which is none
		0x94000000 | 0x3ffffff, // a call of what is before it
		0x94000000 | 0x3fc,     // at 0x1010: once more
	}
	var arm []byte
	for _, word := range words {
		arm = binary.LittleEndian.AppendUint32(arm, word)
	}
	calls, err = callsOf(program(t, elf.EM_AARCH64, 0x1000, 0x2000, arm), traceCall)
	require.NoError(t, err)
	assert.Equal(t, []uint64{0x1008, 0x1014}, calls)

	calls, err = callsOf(program(t, elf.EM_RISCV, 0x1000, 0x2000, arm), traceCall)
	require.NoError(t, err)
	assert.Empty(t, calls, "nothing is known of such a machine")
	calls, err = callsOf(program(t, elf.EM_X86_64, 0x1000, 0x2000, intel), "another")
	require.NoError(t, err)
	assert.Empty(t, calls)
}

func TestOnlySomeLanguagesAreTraced(t *testing.T) {
	for _, name := range []string{"c", "cpp"} {
		l, ok := Ours().Find(name)
		require.True(t, ok)
		assert.True(t, l.HasTraced(), name)
	}
	l, ok := Ours().Find("python")
	require.True(t, ok)
	assert.False(t, l.HasTraced())
}
