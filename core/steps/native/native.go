// Package native reads out of a compiled program, and of what its compiler says of it for debuggers, what the recorder
// that is linked into it (core/toolchain/stepping) needs: where lines begin, which variables there are, and how their
// values lie in memory. Machines are x86-64; debugging information is DWARF 4 or 5.
package native

import (
	"bytes"
	"debug/dwarf"
	"debug/elf"
	"encoding/binary"
	"errors"
	"fmt"
	"slices"
	"strings"
)

// Options say what a table is made for.
type Options struct {
	Source string // name of the file whose lines are recorded
	Most   int    // events that are told at the most
	// From is the line with whose first run the recording begins; 0: with the program. Until then it runs at its own speed.
	From int
	// Lines are those of the source. One that only closes what was open is no step.
	Lines []string
	// Raises is what is told of an exception whose kind is not known; "panics". C++ tells its class.
	Raises string
	// Brackets writes lists as [1, 2], and not as {1, 2}.
	Brackets bool
}

// Closes reports a line of a source, by its number, on which nothing stands but closing brackets, or "end".
func Closes(lines []string, line int) bool {
	if line < 1 || line > len(lines) {
		return false
	}
	rest := strings.Trim(lines[line-1], " \t\r})];,.")
	return rest == "" || strings.EqualFold(rest, "end")
}

// ErrMachine says that programs of this machine cannot be recorded.
var ErrMachine = errors.New("compiled programs can be recorded on x86-64 only")

// magic begins a table.
const magic = 0x31_73_70_65_74_73_63 // "cstsps1", read as an integer

// What stands at the head of a table, as in cold_steps.c.
const (
	headSites = 1 + 2*iota
	headFunctions
	headVariables
	headTypes
	headFields
	headStrings
	headWords = 20
)

// Table reads a program and returns what its recorder reads. A program without a line of the source has an empty
// table: nothing is told. The error is ErrMachine, or says what cannot be read.
func Table(program string, o Options) ([]byte, error) {
	file, err := elf.Open(program)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if file.Machine != elf.EM_X86_64 {
		return nil, ErrMachine
	}
	data, err := file.DWARF()
	if err != nil {
		return nil, fmt.Errorf("its debugging information cannot be read: %w", err)
	}
	symbols, err := file.Symbols()
	if err != nil {
		return nil, fmt.Errorf("its symbols cannot be read: %w", err)
	}
	code := &machine{file: file, symbols: map[string]elf.Symbol{}}
	for _, s := range symbols {
		if _, ok := code.symbols[s.Name]; !ok || s.Section != elf.SHN_UNDEF {
			code.symbols[s.Name] = s
		}
	}
	t := &table{options: o, data: data, code: code, types: map[dwarf.Offset]int64{}, names: map[string]int64{}}
	t.text.WriteByte(0)
	if err := t.read(); err != nil {
		return nil, err
	}
	return t.encode(), nil
}

// A table is what is found.
type table struct {
	options   Options
	data      *dwarf.Data
	code      *machine
	sites     []site
	functions []function
	variables []variable
	globals   []variable
	plans     []plan
	fields    []field
	types     map[dwarf.Offset]int64
	names     map[string]int64 // where they stand in text
	text      bytes.Buffer
}

// The records of a table, in words as in cold_steps.c.
type (
	site     struct{ Address, Line, Function, Kind, Slot, Target, Back int64 }
	function struct{ Name, Result, First, Count, Base int64 }
	variable struct{ Name, Type, Place, Offset, Low, High, Line, Argument, More int64 }
	plan     struct{ Kind, Size, Element, A, B, C, First, Count int64 }
	field    struct{ Name, Type, Offset, Value int64 }
)

// name keeps a text, and says where.
func (t *table) name(s string) int64 {
	if s == "" {
		return 0
	}
	at, ok := t.names[s]
	if !ok {
		at = int64(t.text.Len())
		t.names[s] = at
		t.text.WriteString(s)
		t.text.WriteByte(0)
	}
	return at
}

func (t *table) encode() []byte {
	first := len(t.variables)
	all := slices.Concat(t.variables, t.globals)
	head := make([]int64, headWords)
	var body bytes.Buffer
	add := func(at, count int, rows any) {
		head[at] = int64(count)
		head[at+1] = int64(8*headWords + body.Len())
		binary.Write(&body, binary.LittleEndian, rows) // a buffer takes all of it
	}
	head[0] = magic
	add(headSites, len(t.sites), t.sites)
	add(headFunctions, len(t.functions), t.functions)
	add(headVariables, len(all), all)
	add(headTypes, len(t.plans), t.plans)
	add(headFields, len(t.fields), t.fields)
	head[headStrings] = int64(8*headWords + body.Len())
	body.Write(t.text.Bytes())
	head[headStrings+1] = int64(8*headWords + body.Len())
	head[headStrings+2] = int64(len(t.code.slots))
	body.Write(t.code.slots)
	head[headStrings+3] = int64(t.options.Most)
	if t.options.Brackets {
		head[headStrings+4] = 1
	}
	head[headStrings+5], head[headStrings+6], head[headStrings+7] = int64(first), int64(len(t.globals)), int64(t.options.From)
	var out bytes.Buffer
	binary.Write(&out, binary.LittleEndian, head)
	out.Write(body.Bytes())
	return out.Bytes()
}
