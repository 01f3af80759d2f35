package native

import (
	"debug/elf"
	"encoding/binary"
	"math"
	"strings"

	"golang.org/x/arch/x86/x86asm"
)

// A machine is the code of a program, and the copies of instructions that breakpoints take the place of.
type machine struct {
	file    *elf.File
	symbols map[string]elf.Symbol
	slots   []byte
	ends    map[uint64]bool // destructors
}

// destructors are the addresses of those of C++, by their names (Itanium C++ ABI, 5.1.4.3).
func (m *machine) destructors() map[uint64]bool {
	if m.ends == nil {
		m.ends = map[uint64]bool{}
		for name, s := range m.symbols {
			if strings.HasPrefix(name, "_ZN") && (strings.HasSuffix(name, "D1Ev") || strings.HasSuffix(name, "D2Ev") || strings.HasSuffix(name, "D0Ev")) {
				m.ends[s.Value] = true
			}
		}
	}
	return m.ends
}

// slotsSymbol is where the copies go; cold_steps.c has it.
const slotsSymbol = "cold_slots"

// bytes returns the code of a range of addresses; none: it is not in the file.
func (m *machine) bytes(low, high uint64) []byte {
	for _, s := range m.file.Sections {
		if s.Type == elf.SHT_PROGBITS && s.Flags&elf.SHF_EXECINSTR != 0 && low >= s.Addr && high <= s.Addr+s.Size && low < high {
			code := make([]byte, high-low)
			if n, err := s.ReadAt(code, int64(low-s.Addr)); err != nil || n != len(code) {
				return nil
			}
			return code
		}
	}
	return nil
}

// An instruction is one of a function's, and where it may go on besides behind it; 0: nowhere.
type instruction struct {
	address uint64
	code    []byte
	inst    x86asm.Inst
	jump    uint64
}

var endbr64 = [4]byte{0xf3, 0x0f, 0x1e, 0xfa}

// decode reads one instruction; ok is false where it is not known.
func decode(code []byte, address uint64) (i instruction, ok bool) {
	if len(code) >= 4 && [4]byte(code[:4]) == endbr64 {
		return instruction{address: address, code: code[:4], inst: x86asm.Inst{Op: x86asm.NOP, Len: 4}}, true
	}
	inst, err := x86asm.Decode(code, 64)
	if err != nil || inst.Len == 0 || inst.Len > len(code) {
		return instruction{address: address}, false
	}
	i = instruction{address: address, code: code[:inst.Len], inst: inst}
	if to, isRel := inst.Args[0].(x86asm.Rel); isRel {
		i.jump = address + uint64(inst.Len) + uint64(int64(to))
	}
	return i, true
}

// instructions are those of a range, in order. Where one is not known, it goes on at the next of the starts.
func (m *machine) instructions(low, high uint64, starts []uint64) (list []instruction) {
	code := m.bytes(low, high)
	for at := uint64(0); at < uint64(len(code)); {
		one, ok := decode(code[at:], low+at)
		if ok {
			list = append(list, one)
			at += uint64(len(one.code))
			continue
		}
		next := uint64(math.MaxUint64)
		for _, s := range starts {
			if s > low+at {
				next = min(next, s-low)
			}
		}
		at = next
	}
	return list
}

// isReturn reports an instruction that goes back to the caller.
func (i instruction) isReturn() bool { return i.inst.Op == x86asm.RET }

// slotted completes a site for the instruction at its address: a copy that goes on behind it, or what a call does. It
// reports whether the instruction can be moved.
func (m *machine) slotted(s site, i instruction) (site, bool) {
	base, found := m.symbols[slotsSymbol]
	if !found || len(i.code) == 0 {
		return s, false
	}
	behind := i.address + uint64(len(i.code))
	s.Back = int64(behind) | int64(int8(i.code[0]))<<56
	here := base.Value + uint64(len(m.slots))
	s.Slot = int64(here)
	var moved []byte
	// far is the distance from the end of an instruction in the copy to an address.
	far := func(to uint64, end int) []byte {
		return binary.LittleEndian.AppendUint32(nil, uint32(int32(int64(to)-int64(here)-int64(end))))
	}
	op := i.inst.Op
	switch {
	case op == x86asm.CALL && i.jump != 0:
		s.Target = int64(i.jump)
		return s, true
	case op == x86asm.CALL:
		return s, false // by a pointer
	case op == x86asm.JMP && i.jump != 0:
		moved = append([]byte{0xe9}, far(i.jump, 5)...)
	case i.jump != 0 && i.code[0]&0xf0 == 0x70: // a short conditional jump becomes a long one
		moved = append([]byte{0x0f, 0x80 | i.code[0]&0x0f}, far(i.jump, 6)...)
	case i.jump != 0 && i.code[0] == 0x0f:
		moved = append([]byte{0x0f, i.code[1]}, far(i.jump, 6)...)
	case i.jump != 0:
		return s, false // loop, jrcxz
	default:
		moved = append(moved, i.code...)
		if i.inst.PCRel == 4 {
			at := i.inst.PCRelOff
			old := int32(binary.LittleEndian.Uint32(moved[at:]))
			copy(moved[at:], far(behind+uint64(int64(old)), len(moved)))
		} else if i.inst.PCRel != 0 {
			return s, false
		}
	}
	if !i.isReturn() && op != x86asm.JMP {
		end := len(moved) + 5
		moved = append(append(moved, 0xe9), far(behind, end)...)
	}
	m.slots = append(m.slots, moved...)
	return s, true
}

// mostSlots is the room that cold_steps.c has for copies.
const mostSlots = 4 << 20
