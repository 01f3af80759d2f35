package native

import (
	"cmp"
	"debug/dwarf"
	"errors"
	"io"
	"math"
	"path/filepath"
	"slices"
	"strings"
	"unicode"

	"golang.org/x/arch/x86/x86asm"
)

// What breakpoints are for, as in cold_steps.c.
const (
	siteLine = iota
	siteEnd
	siteReturn
	siteWrite
	siteWritev
	siteExit
	siteIndex
	siteRaise
)

// How the base of a call's variables is found.
const (
	baseCFA = iota // the canonical frame address, which is 16 bytes above the frame pointer
	baseRBP
	baseRSP
)

// Where a variable is.
const (
	placeFrame = iota
	placeAddress
	placePointer // what is there points to it
)

// A row says on which line of the source an address is.
type row struct {
	address uint64
	line    int
	own     bool // of the source
	begins  bool // of a statement
	opened  bool // behind what a function begins with
}

// A routine is a function of the program.
type routine struct {
	entry     *dwarf.Entry
	low, high uint64
	variables []variable
	names     []string // of the variables
	base      int64
	name      string
	result    int64
	own       bool // of the source
	late      bool // what it begins with has rows, too
	tidies    bool // what it ends with goes back to the lines of what it ends
}

// read finds all that is recorded.
func (t *table) read() error {
	var rows []row
	var routines []*routine
	reader := t.data.Reader()
	for {
		unit, err := reader.Next()
		if err != nil || unit == nil {
			if err != nil {
				return err
			}
			break
		}
		if unit.Tag != dwarf.TagCompileUnit {
			reader.SkipChildren()
			continue
		}
		found, files, err := t.rows(unit)
		if err != nil {
			return err
		}
		if !slices.ContainsFunc(found, func(r row) bool { return r.own }) {
			reader.SkipChildren()
			continue
		}
		rows = append(rows, found...)
		if unit.Children {
			producer, _ := unit.Val(dwarf.AttrProducer).(string)
			u := &unitReader{t: t, reader: reader, files: files, rows: found, late: strings.Contains(producer, "LDC"), tidies: strings.Contains(producer, "GNU C++")}
			if err := u.children(nil, nil, nil); err != nil {
				return err
			}
			routines = append(routines, u.routines...)
		}
	}
	slices.SortStableFunc(rows, func(a, b row) int { return cmp.Compare(a.address, b.address) })
	for _, r := range routines {
		t.addRoutine(r, rows)
	}
	t.addCalls()
	slices.SortFunc(t.sites, func(a, b site) int { return cmp.Compare(a.Address, b.Address) })
	t.sites = slices.CompactFunc(t.sites, func(a, b site) bool { return a.Address == b.Address })
	if len(t.code.slots) > mostSlots {
		return errors.New("it is too long to be recorded")
	}
	return nil
}

// rows reads on which lines the addresses of a unit are.
func (t *table) rows(unit *dwarf.Entry) (list []row, files []*dwarf.LineFile, err error) {
	lines, err := t.data.LineReader(unit)
	if err != nil || lines == nil {
		return nil, nil, err
	}
	var entry dwarf.LineEntry
	for {
		if err := lines.Next(&entry); err == io.EOF {
			break
		} else if err != nil {
			return nil, nil, err
		}
		r := row{address: entry.Address, line: entry.Line, begins: entry.IsStmt && !entry.EndSequence, opened: entry.PrologueEnd}
		r.own = !entry.EndSequence && entry.File != nil && t.isSource(entry.File.Name) && entry.Line > 0
		list = append(list, r)
	}
	return list, lines.Files(), nil
}

func (t *table) isSource(name string) bool { return filepath.Base(name) == t.options.Source }

// A unitReader reads the entries of a unit.
type unitReader struct {
	t        *table
	reader   *dwarf.Reader
	files    []*dwarf.LineFile
	rows     []row
	routines []*routine
	late     bool
	tidies   bool
}

// A scope is where names hold: ranges of addresses.
type scope [][2]uint64

// children reads the entries below one: in is the function that they are in, within the addresses in which its
// variables are there. What has no address is read by those that point to it.
func (u *unitReader) children(parent *dwarf.Entry, in *routine, within scope) error {
	for {
		e, err := u.reader.Next()
		if err != nil {
			return err
		}
		if e == nil || e.Tag == 0 {
			return nil
		}
		inner, its := in, within
		switch e.Tag {
		case dwarf.TagSubprogram:
			inner, its = u.routine(e, parent)
		case dwarf.TagLexDwarfBlock, dwarf.TagTryDwarfBlock, dwarf.TagCatchDwarfBlock:
			if ranges, err := u.t.data.Ranges(e); err == nil && len(ranges) > 0 {
				its = ranges
			}
		case dwarf.TagInlinedSubroutine:
			inner, its = nil, nil
		case dwarf.TagVariable, dwarf.TagFormalParameter:
			u.variable(e, in, within, parent)
		}
		if e.Children {
			above := e
			if e.Tag == dwarf.TagNamespace || e.Tag == dwarf.TagCompileUnit {
				above = parent
			}
			if err := u.children(above, inner, its); err != nil {
				return err
			}
		}
	}
}

// routine takes a function that has code.
func (u *unitReader) routine(e, parent *dwarf.Entry) (*routine, scope) {
	ranges, err := u.t.data.Ranges(e)
	if err != nil || len(ranges) == 0 {
		return nil, nil
	}
	r := &routine{entry: e, low: ranges[0][0], high: ranges[0][1], result: -1, late: u.late, tidies: u.tidies}
	r.own = slices.ContainsFunc(u.rows, func(one row) bool { return one.own && one.address >= r.low && one.address < r.high })
	declared := u.t.whole(e)
	if declared.artificial && !strings.HasPrefix(declared.name, "operator()") { // of a class that says nothing of how it begins and ends
		return nil, nil
	}
	r.name = strings.TrimPrefix(declared.name, "$") // Pascal's main program
	if strings.HasPrefix(r.name, "operator()") {    // of a function without a name, whose parameters are long
		r.name = "operator()"
	}
	if r.own {
		r.base = baseOf(e)
		if declared.typ != 0 {
			r.result = u.t.plan(declared.typ)
		}
	}
	u.routines = append(u.routines, r)
	return r, scope{{r.low, r.high}}
}

// A declared is what an entry says, with what others say for it.
type declared struct {
	name string
	typ  dwarf.Offset
	line int
	file int64

	artificial bool // the source does not have it
}

// whole reads an entry with those that it completes.
func (t *table) whole(e *dwarf.Entry) (d declared) {
	for range 4 {
		if d.name == "" {
			d.name, _ = e.Val(dwarf.AttrName).(string)
		}
		if made, _ := e.Val(dwarf.AttrArtificial).(bool); made {
			d.artificial = true
		}
		if d.typ == 0 {
			d.typ, _ = e.Val(dwarf.AttrType).(dwarf.Offset)
		}
		if d.line == 0 {
			line, _ := e.Val(dwarf.AttrDeclLine).(int64)
			d.line = int(line)
		}
		if d.file == 0 {
			d.file, _ = e.Val(dwarf.AttrDeclFile).(int64)
		}
		if e = t.completed(e); e == nil {
			break
		}
	}
	return d
}

// completed is the entry that another one completes; nil: it stands for itself.
func (t *table) completed(e *dwarf.Entry) *dwarf.Entry {
	at, ok := e.Val(dwarf.AttrAbstractOrigin).(dwarf.Offset)
	if !ok {
		at, ok = e.Val(dwarf.AttrSpecification).(dwarf.Offset)
	}
	if !ok {
		return nil
	}
	return t.entry(at)
}

// entry reads one by its offset; nil: there is none.
func (t *table) entry(at dwarf.Offset) *dwarf.Entry {
	r := t.data.Reader()
	r.Seek(at)
	e, err := r.Next()
	if err != nil {
		return nil
	}
	return e
}

const (
	opAddr     = 0x03
	opDeref    = 0x06
	opReg6     = 0x56
	opReg7     = 0x57
	opBreg6    = 0x76
	opBreg7    = 0x77
	opFbreg    = 0x91
	opFrameCFA = 0x9c
)

// baseOf says how the base of a function's frame is found.
func baseOf(e *dwarf.Entry) int64 {
	switch where, _ := e.Val(dwarf.AttrFrameBase).([]byte); {
	case len(where) == 1 && where[0] == opReg6, len(where) == 0: // Pascal's variables name the register themselves
		return baseRBP
	case len(where) == 1 && where[0] == opReg7:
		return baseRSP
	}
	return baseCFA
}

// variable takes one that lies in memory.
func (u *unitReader) variable(e *dwarf.Entry, in *routine, within scope, parent *dwarf.Entry) {
	if in != nil && !in.own || within == nil && in != nil {
		return
	}
	where, _ := e.Val(dwarf.AttrLocation).([]byte)
	place, offset, ok := location(where)
	if !ok || in == nil && place != placeAddress {
		return
	}
	d := u.t.whole(e)
	if strings.Contains(d.name, "$") || in != nil && strings.EqualFold(d.name, in.name) {
		return
	}
	if d.name == "" || d.typ == 0 || len(d.name) > 1 && d.name[:2] == "__" || d.name == "iter" && u.t.isIterator(d.typ) {
		return
	}
	if in == nil && d.file != 0 && (d.file < 0 || d.file >= int64(len(u.files)) || u.files[d.file] == nil || !u.t.isSource(u.files[d.file].Name)) {
		return
	}
	v := variable{Name: u.t.name(d.name), Type: u.t.plan(d.typ), Place: place, Offset: offset, Line: int64(d.line)}
	if v.Type < 0 || u.t.plans[v.Type].Kind == typeOther || d.name == "this" && u.t.isEmptyObject(v.Type) {
		return
	}
	if in == nil {
		u.t.globals = append(u.t.globals, v)
		return
	}
	v.Low, v.High, v.More = int64(within[0][0]), int64(within[0][1]), int64(len(within)-1)
	if e.Tag == dwarf.TagFormalParameter {
		v.Argument = 1
	}
	in.variables = append(in.variables, v)
	in.names = append(in.names, d.name)
	for _, r := range within[1:] {
		in.variables = append(in.variables, variable{Name: v.Name, Type: v.Type, Low: int64(r[0]), High: int64(r[1])})
		in.names = append(in.names, d.name)
	}
}

// isEmptyObject reports a pointer to an object that holds nothing.
func (t *table) isEmptyObject(number int64) bool {
	p := t.plans[number]
	return p.Kind == typePointer && p.Element >= 0 && t.plans[p.Element].Kind == typeStruct && t.plans[p.Element].Count == 0
}

// isIterator reports a type of Rust's over which a loop goes, by a variable that the source does not have.
func (t *table) isIterator(at dwarf.Offset) bool {
	e := t.entry(t.bare(at))
	if e == nil {
		return false
	}
	name, _ := e.Val(dwarf.AttrName).(string)
	return strings.Contains(name, "<") && !strings.HasPrefix(name, "Vec<")
}

// location reads where a variable lies: at a distance from the base of the frame, or at an address.
func location(where []byte) (place, offset int64, ok bool) {
	if len(where) == 0 {
		return 0, 0, false
	}
	rest := where[1:]
	switch where[0] {
	case opFbreg, opBreg6:
		n, size := sleb(rest)
		offset, rest = n, rest[size:]
	case opAddr:
		if len(rest) < 8 {
			return 0, 0, false
		}
		for i := 7; i >= 0; i-- {
			offset = offset<<8 | int64(rest[i])
		}
		place, rest = placeAddress, rest[8:]
	default:
		return 0, 0, false
	}
	if len(rest) == 1 && rest[0] == opDeref && place == placeFrame {
		return placePointer, offset, true
	}
	return place, offset, len(rest) == 0
}

// sleb reads a number of seven bits a byte, with a sign.
func sleb(b []byte) (n int64, size int) {
	shift := 0
	for size < len(b) {
		c := b[size]
		size++
		n |= int64(c&0x7f) << shift
		shift += 7
		if c&0x80 == 0 {
			if c&0x40 != 0 && shift < 64 {
				n |= -1 << shift
			}
			break
		}
	}
	return n, size
}

// addRoutine puts breakpoints into a function of the source: where lines begin, and where it returns.
func (t *table) addRoutine(r *routine, rows []row) {
	if !r.own {
		t.addIndex(r)
		return
	}
	from, _ := slices.BinarySearchFunc(rows, r.low, func(a row, low uint64) int { return cmp.Compare(a.address, low) })
	var own []row
	var starts []uint64
	for _, one := range rows[from:] {
		if one.address >= r.high {
			break
		}
		starts = append(starts, one.address)
		if one.own {
			own = append(own, one)
		}
	}
	code := t.code.instructions(r.low, r.high, starts)
	by := map[uint64]instruction{}
	targets := map[uint64]bool{}
	for _, i := range code {
		by[i.address] = i
		if i.jump != 0 {
			targets[i.jump] = true
		}
	}
	for i := range r.variables {
		if v := &r.variables[i]; v.Line == 0 { // until it is first named it holds anything
			v.Line = t.firstNamed(r.names[i], own)
		}
	}
	number := int64(len(t.functions))
	t.functions = append(t.functions, function{Name: t.name(r.name), Result: r.result, First: int64(len(t.variables)), Count: int64(len(r.variables)), Base: r.base})
	t.variables = append(t.variables, r.variables...)
	add := func(address uint64, line, kind int64) {
		if i, ok := by[address]; ok {
			if s, ok := t.code.slotted(site{Address: int64(address), Line: line, Function: number, Kind: kind}, i); ok {
				t.sites = append(t.sites, s)
			}
		}
	}
	before, tidied := 0, false
	opened := slices.IndexFunc(own, func(one row) bool { return one.opened }) // not every compiler says so
	if r.late {
		opened = slices.IndexFunc(own, func(one row) bool { return one.line != own[0].line })
	}
	for i, one := range own {
		if !one.begins || one.address == r.low || i < opened { // arguments are not in their places
			continue
		}
		closes := Closes(t.options.Lines, one.line)
		if one.line == before && (closes || !targets[one.address]) {
			continue
		}
		if r.tidies && t.onlyTidies(code, one.address, own, i) {
			tidied = true
			continue
		}
		before = one.line
		if i+1 < len(own) && own[i+1].address == one.address {
			continue // nothing is between them
		}
		kind := int64(siteLine)
		if closes {
			if kind = siteEnd; tidied {
				continue // what it could look at is not there any more
			}
		} else {
			tidied = false
		}
		add(one.address, int64(one.line), kind)
	}
	for _, i := range code {
		if i.isReturn() {
			add(i.address, 0, siteReturn)
		}
	}
}

// onlyTidies reports a row that goes back to the line of a variable to end it, or to that of a return to leave, as C++ does
// on the way out of a block: all that it calls are destructors, or it calls nothing and returns.
func (t *table) onlyTidies(code []instruction, address uint64, own []row, at int) bool {
	if at == 0 || own[at].line >= own[at-1].line {
		return false
	}
	end := uint64(math.MaxUint64)
	if at+1 < len(own) {
		end = own[at+1].address
	}
	from, _ := slices.BinarySearchFunc(code, address, func(i instruction, a uint64) int { return cmp.Compare(i.address, a) })
	calls := 0
	for _, i := range code[from:] {
		if i.address >= end {
			break
		}
		if i.inst.Op == x86asm.CALL {
			if calls++; !t.code.destructors()[i.jump] {
				return false
			}
		}
	}
	return calls > 0 || onlyReturns(code, address)
}

// onlyReturns reports that the code from an address on does nothing but return.
func onlyReturns(code []instruction, address uint64) bool {
	for range 16 {
		at, found := slices.BinarySearchFunc(code, address, func(i instruction, a uint64) int { return cmp.Compare(i.address, a) })
		if !found {
			return false
		}
		switch i := code[at]; {
		case i.isReturn():
			return true
		case i.inst.Op == x86asm.JMP:
			address = i.jump
		case i.jump != 0 || i.inst.Op == x86asm.CALL:
			return false
		default:
			address = i.address + uint64(len(i.code))
		}
	}
	return false
}

// firstNamed is the first line with code on which a name stands; 0: none.
func (t *table) firstNamed(name string, rows []row) (line int64) {
	for _, r := range rows {
		if r.line <= len(t.options.Lines) && (line == 0 || int64(r.line) < line) && namesIt(t.options.Lines[r.line-1], name) {
			line = int64(r.line)
		}
	}
	return line
}

// namesIt reports that a name stands on a line, in letters of any kind: Pascal does not tell them apart.
func namesIt(text, name string) bool {
	words := strings.FieldsFunc(text, func(r rune) bool { return r != '_' && !unicode.IsLetter(r) && !unicode.IsDigit(r) })
	return slices.ContainsFunc(words, func(word string) bool { return strings.EqualFold(word, name) })
}

// addCalls puts breakpoints where the program prints and ends.
func (t *table) addCalls() {
	for _, one := range []struct {
		names []string
		kind  int64
	}{
		{[]string{"__libc_write", "__write", "write", "FPC_SYSC_WRITE"}, siteWrite},
		{[]string{"__libc_writev", "__writev", "writev"}, siteWritev},
		{[]string{"_exit", "_Exit"}, siteExit},
		{[]string{"__cxa_throw"}, siteRaise},
		{[]string{"_Unwind_RaiseException"}, siteRaise},
	} {
		for _, name := range one.names {
			s, ok := t.code.symbols[name]
			if !ok || s.Section == 0 || s.Value == 0 {
				continue
			}
			i, ok := decode(t.code.bytes(s.Value, s.Value+max(s.Size, 16)), s.Value)
			if !ok {
				continue
			}
			of := site{Address: int64(s.Value), Function: -1, Kind: one.kind, Line: 1}
			if one.kind == siteRaise && name != "__cxa_throw" { // of another language, where it says nothing more
				if _, both := t.code.symbols["__cxa_throw"]; both {
					continue
				}
				of.Line = t.name(t.options.Raises)
			}
			if added, ok := t.code.slotted(of, i); ok {
				t.sites = append(t.sites, added)
				break
			}
		}
	}
}

// addIndex puts one where an element of a container is taken by its index.
func (t *table) addIndex(r *routine) {
	if r.name != "operator[]" {
		return
	}
	container := t.container(r.entry)
	if container < 0 {
		return
	}
	switch p := t.plans[container]; p.Kind {
	case typeRange, typeText, typeArray:
		if p.Kind == typeRange && (p.Element < 0 || t.plans[p.Element].Size <= 0) {
			return
		}
		if i, ok := decode(t.code.bytes(r.low, r.high), r.low); ok {
			if s, ok := t.code.slotted(site{Address: int64(r.low), Line: container, Function: -1, Kind: siteIndex}, i); ok {
				t.sites = append(t.sites, s)
			}
		}
	}
}

// container is the type whose method a function is: what its argument "this" points to.
func (t *table) container(e *dwarf.Entry) int64 {
	for range 4 {
		if object, ok := e.Val(dwarf.AttrObjectPointer).(dwarf.Offset); ok {
			if this := t.entry(object); this != nil {
				d := t.whole(this)
				for range 4 {
					pointer := t.entry(d.typ)
					if pointer == nil {
						return -1
					}
					to, _ := pointer.Val(dwarf.AttrType).(dwarf.Offset)
					if pointer.Tag == dwarf.TagPointerType {
						return t.plan(to)
					}
					d.typ = to
				}
			}
		}
		if e = t.completed(e); e == nil {
			break
		}
	}
	return -1
}
