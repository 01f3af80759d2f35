package toolchain

import (
	"cmp"
	"debug/dwarf"
	"debug/elf"
	_ "embed"
	"encoding/binary"
	"io"
	"path/filepath"
	"slices"
)

// traceFile is put beside the source of a traced build.
const traceFile = "cold_trace.c"

//go:embed tracing/cold_trace.c
var traceText []byte

// traceCall is what a compiler calls at the start of each part of a program.
const traceCall = "__sanitizer_cov_trace_pc"

// HasTraced reports whether a language has a build that says which parts of it ran.
func (l *Language) HasTraced() bool { return len(l.Traced) > 0 }

// Parts returns the parts of a traced build that come from the person's own source, by
// the addresses that it writes to descriptor 3 as 64-bit integers, with the line on
// which each begins. They are found where the calls are in the machine code, and what
// the compiler says of lines. There are none for a machine whose calls are not known.
func (b *Build) Parts() (map[uint64]int, error) {
	file, err := elf.Open(filepath.Join(b.Dir, "program"))
	if err != nil {
		return nil, err
	}
	defer file.Close()
	calls, err := callsOf(file, traceCall)
	if err != nil {
		return nil, err
	}
	lines, err := linesOf(file, b.File)
	if err != nil {
		return nil, err
	}
	parts := map[uint64]int{}
	for _, address := range calls {
		at, found := slices.BinarySearchFunc(lines, address, func(l lineAt, address uint64) int { return cmp.Compare(l.address, address) })
		if !found {
			at--
		}
		if at >= 0 && lines[at].line > 0 {
			parts[address] = lines[at].line
		}
	}
	return parts, nil
}

// callsOf finds the addresses behind all calls of a function.
func callsOf(file *elf.File, name string) (behind []uint64, err error) {
	symbols, err := file.Symbols()
	if err != nil {
		return nil, err
	}
	target := uint64(0)
	for _, s := range symbols {
		if s.Name == name {
			target = s.Value
		}
	}
	text := file.Section(".text")
	if target == 0 || text == nil {
		return nil, nil
	}
	code, err := text.Data()
	if err != nil {
		return nil, err
	}
	switch file.Machine {
	case elf.EM_X86_64: // E8 and the distance from the next instruction
		for i := 0; i+5 <= len(code); i++ {
			next := text.Addr + uint64(i) + 5
			if code[i] == 0xe8 && next+uint64(int64(int32(binary.LittleEndian.Uint32(code[i+1:])))) == target {
				behind = append(behind, next)
			}
		}
	case elf.EM_AARCH64: // BL and the distance from itself in words of 4 bytes
		for i := 0; i+4 <= len(code); i += 4 {
			word := binary.LittleEndian.Uint32(code[i:])
			at := text.Addr + uint64(i)
			if word>>26 == 0b100101 && at+uint64(int64(int32(word<<6)>>6)*4) == target {
				behind = append(behind, at+4)
			}
		}
	}
	return behind, nil
}

// A lineAt is the line from which the code from an address on comes; 0: it comes from
// another file.
type lineAt struct {
	address uint64
	line    int
}

// linesOf reads from which lines of a source the code comes, in the order of addresses.
func linesOf(file *elf.File, source string) (lines []lineAt, err error) {
	data, err := file.DWARF()
	if err != nil {
		return nil, err
	}
	for units := data.Reader(); ; units.SkipChildren() {
		unit, err := units.Next()
		if err != nil || unit == nil {
			slices.SortStableFunc(lines, func(a, b lineAt) int { return cmp.Compare(a.address, b.address) })
			return lines, err
		}
		if unit.Tag != dwarf.TagCompileUnit {
			continue
		}
		table, err := data.LineReader(unit)
		if err != nil || table == nil {
			continue
		}
		var entry dwarf.LineEntry
		for {
			if err := table.Next(&entry); err == io.EOF {
				break
			} else if err != nil {
				return nil, err
			}
			one := lineAt{address: entry.Address}
			if !entry.EndSequence && entry.File != nil && filepath.Base(entry.File.Name) == source {
				one.line = entry.Line
			}
			lines = append(lines, one)
		}
	}
}
