package native

import (
	"debug/dwarf"
	"strings"
)

// How values lie in memory, as in cold_steps.c.
const (
	typeOther = iota
	typeSigned
	typeUnsigned
	typeBool
	typeChar
	typeFloat
	typePointer
	typeStruct
	typeArray
	typeEnum
	typeRange    // pointers to its begin and its end
	typeText     // a pointer and a length
	typeTree     // red and black
	typeHash     // nodes that point to the next
	typeDeque    // blocks
	typeList     // nodes in a ring
	typeOptional // a value, and whether it is there
	typeBits     // begin and end, and bits of the last word
	typeBitset
	typeWrapper // what one of its fields is
	typeSlice   // a pointer and a count
	typeTuple   // fields without names
	typeVariant // one of its fields, by a number
	typeUTF32
	typeIterator // a node, or the end
	typeRing     // an array whose first element is anywhere
	typeBuckets  // a table of hashed entries beside bytes that say which are taken
	typeLeaves   // a B-tree
	typeShort    // a byte that says how many others follow
	typeBehind   // a pointer to elements, before which stands how many they are
)

// Encodings of base types, DWARF 5, 7.8.
const (
	encodingAddress  = 0x01
	encodingBool     = 0x02
	encodingComplex  = 0x03
	encodingFloat    = 0x04
	encodingSigned   = 0x05
	encodingChar     = 0x06
	encodingUnsigned = 0x07
	encodingUChar    = 0x08
	encodingUTF      = 0x10
)

// children reads the entries directly below one.
func (t *table) children(at dwarf.Offset) (list []*dwarf.Entry) {
	r := t.data.Reader()
	r.Seek(at)
	e, err := r.Next()
	if err != nil || e == nil || !e.Children {
		return nil
	}
	for {
		if e, err = r.Next(); err != nil || e == nil || e.Tag == 0 {
			return list
		}
		list = append(list, e)
		r.SkipChildren()
	}
}

// plan says how values of a type are read; -1: it is not known.
func (t *table) plan(at dwarf.Offset) int64 {
	if number, ok := t.types[at]; ok {
		return number
	}
	e := t.entry(at)
	if e == nil {
		return -1
	}
	name, _ := e.Val(dwarf.AttrName).(string)
	size, _ := e.Val(dwarf.AttrByteSize).(int64)
	to, hasTo := e.Val(dwarf.AttrType).(dwarf.Offset)
	switch e.Tag {
	case dwarf.TagTypedef, dwarf.TagConstType, dwarf.TagVolatileType, dwarf.TagRestrictType, dwarf.TagAtomicType:
		if !hasTo {
			return -1
		}
		number := t.plan(to)
		t.types[at] = number
		return number
	}
	number := int64(len(t.plans))
	t.types[at] = number
	t.plans = append(t.plans, plan{Kind: typeOther, Size: size, Element: -1})
	p := plan{Kind: typeOther, Size: size, Element: -1, B: -1}
	switch e.Tag {
	case dwarf.TagBaseType:
		if p = base(e, name, size); p.Kind == typeTuple { // its two parts
			t.plans = append(t.plans, plan{Kind: typeFloat, Size: size / 2, Element: -1, B: -1})
			part := int64(len(t.plans) - 1)
			p.First, p.Count = t.keep([]field{{Type: part}, {Type: part, Offset: size / 2}})
		}
	case dwarf.TagPointerType, dwarf.TagReferenceType, dwarf.TagRvalueReferenceType:
		p.Kind, p.Size = typePointer, 8
		if e.Tag != dwarf.TagPointerType {
			p.C = 1 // it is shown as what it refers to
		}
		if hasTo {
			p.Element = t.plan(to)
		}
	case dwarf.TagEnumerationType:
		p.Kind = typeEnum
		var list []field
		for _, c := range t.children(at) {
			if c.Tag == dwarf.TagEnumerator {
				n, _ := c.Val(dwarf.AttrName).(string)
				v, _ := c.Val(dwarf.AttrConstValue).(int64)
				list = append(list, field{Name: t.name(n), Type: -1, Value: v})
			}
		}
		p.First, p.Count = t.keep(list)
	case dwarf.TagArrayType:
		p = t.array(at, to)
	case dwarf.TagStructType, dwarf.TagClassType, dwarf.TagUnionType:
		p = t.structure(at, name, size)
	}
	if p.Size == 0 {
		p.Size = size
	}
	t.plans[number] = p
	return number
}

func (t *table) keep(list []field) (first, count int64) {
	first = int64(len(t.fields))
	t.fields = append(t.fields, list...)
	return first, int64(len(list))
}

func base(e *dwarf.Entry, name string, size int64) plan {
	p := plan{Size: size, Element: -1, B: -1}
	encoding, _ := e.Val(dwarf.AttrEncoding).(int64)
	switch encoding {
	case encodingBool:
		p.Kind = typeBool
	case encodingComplex:
		p.Kind = typeTuple
	case encodingFloat:
		p.Kind = typeFloat
	case encodingSigned:
		p.Kind = typeSigned
	case encodingUnsigned:
		p.Kind = typeUnsigned
	case encodingChar:
		p.Kind = typeChar
	case encodingUChar:
		p.Kind, p.A = typeChar, 1
		if name == "u8" || name == "ubyte" {
			p.Kind = typeUnsigned
		}
	case encodingUTF:
		p.Kind, p.A = typeUTF32, 1
	}
	return p
}

// array is one with its bounds; one of several dimensions is an array of arrays.
func (t *table) array(at, to dwarf.Offset) plan {
	if where, ok := t.entry(at).Val(dwarf.AttrDataLocation).([]byte); ok {
		return t.dynamic(at, to, where)
	}
	var counts []int64
	for _, c := range t.children(at) {
		if c.Tag != dwarf.TagSubrangeType {
			continue
		}
		n, ok := c.Val(dwarf.AttrCount).(int64)
		if !ok {
			high, isHigh := c.Val(dwarf.AttrUpperBound).(int64)
			low, _ := c.Val(dwarf.AttrLowerBound).(int64)
			if isHigh {
				n = high - low + 1
			}
		}
		counts = append(counts, max(n, 0))
	}
	element := t.plan(to)
	if element < 0 || len(counts) == 0 {
		return plan{Element: -1, B: -1}
	}
	for i := len(counts) - 1; i > 0; i-- {
		t.plans = append(t.plans, plan{Kind: typeArray, Size: counts[i] * t.plans[element].Size, Element: element, A: counts[i], B: -1})
		element = int64(len(t.plans) - 1)
	}
	return plan{Kind: typeArray, Size: counts[0] * t.plans[element].Size, Element: element, A: counts[0], B: -1}
}

// dynamic is a text or an array of Pascal, whose length stands before its elements: of an array its last index.
func (t *table) dynamic(at, to dwarf.Offset, where []byte) plan {
	element := t.plan(to)
	switch {
	case element < 0:
	case len(where) == 3: // one byte behind the object
		return plan{Kind: typeShort, Size: 256, Element: element, B: -1}
	case len(where) == 2: // where the object points to
		p := plan{Kind: typeBehind, Size: 8, Element: element, B: -1}
		if t.plans[element].Kind != typeChar {
			p.A = 1
		}
		return p
	}
	return plan{Element: -1, B: -1}
}

// offset is where a field lies in its class.
func offset(e *dwarf.Entry) int64 {
	switch at := e.Val(dwarf.AttrDataMemberLoc).(type) {
	case int64:
		return at
	case []byte: // so many bytes behind its beginning
		if len(at) > 1 && at[0] == opPlus {
			n := int64(0)
			for i, b := range at[1:] {
				n |= int64(b&0x7f) << (7 * i)
			}
			return n
		}
	}
	return 0
}

// opPlus adds a number.
const opPlus = 0x23

// A member is a field of a class, or of what it inherits.
type member struct {
	name   string
	typ    dwarf.Offset
	offset int64
}

// members are the fields of a class, those of the classes that it inherits first.
func (t *table) members(at dwarf.Offset, depth int) (list []member) {
	for _, c := range t.children(at) {
		offset := offset(c)
		to, ok := c.Val(dwarf.AttrType).(dwarf.Offset)
		name, _ := c.Val(dwarf.AttrName).(string)
		switch {
		case !ok || c.Val(dwarf.AttrExternal) != nil || c.Val(dwarf.AttrDeclaration) != nil:
		case c.Tag == dwarf.TagInheritance && depth < 8:
			for _, m := range t.members(t.bare(to), depth+1) {
				m.offset += offset
				list = append(list, m)
			}
		case c.Tag == dwarf.TagMember:
			list = append(list, member{name, to, offset})
		}
	}
	return list
}

// bare is a type without its typedefs and qualifiers.
func (t *table) bare(at dwarf.Offset) dwarf.Offset {
	for range 16 {
		e := t.entry(at)
		if e == nil {
			return at
		}
		switch e.Tag {
		case dwarf.TagTypedef, dwarf.TagConstType, dwarf.TagVolatileType:
			to, ok := e.Val(dwarf.AttrType).(dwarf.Offset)
			if !ok {
				return at
			}
			at = to
		default:
			return at
		}
	}
	return at
}

// find looks for a field by its name, also within fields; ok is false where there is none.
func (t *table) find(at dwarf.Offset, name string) (m member, ok bool) { return t.findIn(at, name, 0) }

func (t *table) findIn(at dwarf.Offset, name string, depth int) (m member, ok bool) {
	if depth > 8 {
		return m, false
	}
	list := t.members(t.bare(at), 0)
	for _, m := range list {
		if m.name == name {
			return m, true
		}
	}
	for _, one := range list {
		e := t.entry(t.bare(one.typ))
		if e == nil || e.Tag != dwarf.TagStructType && e.Tag != dwarf.TagClassType && e.Tag != dwarf.TagUnionType {
			continue
		}
		if inner, ok := t.findIn(one.typ, name, depth+1); ok {
			inner.offset += one.offset
			return inner, true
		}
	}
	return m, false
}

// parameter is the type behind a parameter of a template.
func (t *table) parameter(at dwarf.Offset, number int) (to dwarf.Offset, ok bool) {
	for _, c := range t.children(at) {
		if c.Tag == dwarf.TagTemplateTypeParameter {
			if number == 0 {
				to, ok = c.Val(dwarf.AttrType).(dwarf.Offset)
				return to, ok
			}
			number--
		}
	}
	return 0, false
}

// size is how many bytes values of a type have.
func (t *table) size(at dwarf.Offset) int64 {
	at = t.bare(at)
	e := t.entry(at)
	if e == nil {
		return 0
	}
	if n, ok := e.Val(dwarf.AttrByteSize).(int64); ok {
		return n
	}
	if number := t.plan(at); number >= 0 {
		return t.plans[number].Size
	}
	return 0
}

// alignment is that of values of a type, by the System V ABI for x86-64.
func (t *table) alignment(at dwarf.Offset) int64 {
	at = t.bare(at)
	e := t.entry(at)
	if e == nil {
		return 1
	}
	switch e.Tag {
	case dwarf.TagArrayType:
		to, _ := e.Val(dwarf.AttrType).(dwarf.Offset)
		return t.alignment(to)
	case dwarf.TagStructType, dwarf.TagClassType, dwarf.TagUnionType:
		most := int64(1)
		for _, m := range t.members(at, 0) {
			most = max(most, t.alignment(m.typ))
		}
		return most
	}
	return max(1, t.size(at))
}

// structure says how a class is read: those of C++'s library by what they hold.
func (t *table) structure(at dwarf.Offset, name string, size int64) plan {
	kind, _, _ := strings.Cut(name, "<")
	if read, ok := containers[kind]; ok {
		if p, ok := read(t, at); ok {
			p.Size = size
			return p
		}
	}
	if strings.HasPrefix(name, "&[") || strings.HasPrefix(name, "&mut [") || strings.HasPrefix(name, "Box<[") {
		if p, ok := slice("data_ptr", "length")(t, at); ok {
			p.Size = size
			return p
		}
	}
	if len(t.children(at)) == 2 { // an array of D
		if p, ok := slice("ptr", "length")(t, at); ok {
			p.Size = size
			if e := t.plans[p.Element]; e.Kind == typeChar || e.Kind == typeUTF32 && e.Size == 1 {
				p.Kind = typeText
			}
			return p
		}
	}
	if p, ok := t.variants(at, size); ok {
		return p
	}
	return t.plainStructure(at, name, size)
}

// variants reads a class of which one of several is there (Rust's enumerations); ok is false where it is none.
func (t *table) variants(at dwarf.Offset, size int64) (p plan, ok bool) {
	for _, part := range t.children(at) {
		if part.Tag != dwarf.TagVariantPart {
			continue
		}
		p = plan{Kind: typeVariant, Size: size, Element: -1}
		if by, ok := part.Val(dwarf.AttrDiscr).(dwarf.Offset); ok {
			if m := t.entry(by); m != nil {
				to, _ := m.Val(dwarf.AttrType).(dwarf.Offset)
				p.A, _ = m.Val(dwarf.AttrDataMemberLoc).(int64)
				p.B = t.size(to)
			}
		}
		var list []field
		for _, v := range t.children(part.Offset) {
			if v.Tag != dwarf.TagVariant {
				continue
			}
			value, isOne := v.Val(dwarf.AttrDiscrValue).(int64)
			if !isOne {
				value = -1
			}
			for _, m := range t.children(v.Offset) {
				to, ok := m.Val(dwarf.AttrType).(dwarf.Offset)
				if m.Tag != dwarf.TagMember || !ok {
					continue
				}
				offset, _ := m.Val(dwarf.AttrDataMemberLoc).(int64)
				if typ := t.plan(to); typ >= 0 {
					if e := t.entry(t.bare(to)); e != nil && t.plans[typ].Kind <= typeStruct { // no field: its name is all
						name, _ := e.Val(dwarf.AttrName).(string)
						t.plans[typ].B = t.name(name)
					}
					list = append(list, field{Type: typ, Offset: offset, Value: value})
				}
			}
		}
		p.First, p.Count = t.keep(list)
		return p, true
	}
	return p, false
}

func (t *table) plainStructure(at dwarf.Offset, name string, size int64) plan {
	p := plan{Kind: typeStruct, Size: size, Element: -1, B: -1}
	var list []field
	members := t.members(at, 0)
	if len(members) > 0 && members[0].name == "__0" { // a tuple, or a class of fields without names
		p.Kind = typeTuple
		if !strings.HasPrefix(name, "(") {
			kind, _, _ := strings.Cut(name, "<")
			p.B = t.name(kind)
		}
	}
	for _, m := range members {
		if strings.HasPrefix(m.name, "_vptr") || strings.HasPrefix(m.name, "__") && p.Kind != typeTuple {
			continue
		}
		if typ := t.plan(m.typ); typ >= 0 {
			list = append(list, field{Name: t.name(m.name), Type: typ, Offset: m.offset})
		}
	}
	p.First, p.Count = t.keep(list)
	if p.Count == 0 && (name == "" || strings.HasPrefix(name, "<lambda")) {
		p.Kind = typeOther // a function without a name
	}
	return p
}

// containers read the classes of C++'s library (libstdc++) by their names.
var containers map[string]func(*table, dwarf.Offset) (plan, bool)

func init() {
	word := func(name string) func(*table, dwarf.Offset) (plan, bool) {
		return func(t *table, at dwarf.Offset) (plan, bool) {
			m, ok := t.find(at, name)
			if !ok {
				return plan{}, false
			}
			return plan{Kind: typeWrapper, Element: t.plan(m.typ), A: m.offset}, true
		}
	}
	tree := func(isMap bool) func(*table, dwarf.Offset) (plan, bool) {
		return func(t *table, at dwarf.Offset) (plan, bool) {
			header, ok1 := t.find(at, "_M_header")
			count, ok2 := t.find(at, "_M_node_count")
			return t.entries(at, isMap, plan{Kind: typeTree, A: header.offset + 16, B: count.offset}, 32, ok1 && ok2)
		}
	}
	hash := func(isMap bool) func(*table, dwarf.Offset) (plan, bool) {
		return func(t *table, at dwarf.Offset) (plan, bool) {
			first, ok1 := t.find(at, "_M_before_begin")
			count, ok2 := t.find(at, "_M_element_count")
			return t.entries(at, isMap, plan{Kind: typeHash, A: first.offset, B: count.offset}, 8, ok1 && ok2)
		}
	}
	pointer := func(name string) func(*table, dwarf.Offset) (plan, bool) {
		return func(t *table, at dwarf.Offset) (plan, bool) {
			m, ok1 := t.find(at, name)
			to, ok2 := t.parameter(at, 0)
			if !ok1 || !ok2 {
				return plan{}, false
			}
			return plan{Kind: typePointer, Element: t.plan(to), A: m.offset}, true
		}
	}
	containers = map[string]func(*table, dwarf.Offset) (plan, bool){
		"Vec": slice("pointer", "len"), "String": text("pointer", "len"), "&str": text("data_ptr", "length"), "VecDeque": ring,
		"HashMap": buckets(true), "HashSet": buckets(false), "BTreeMap": leaves, "BTreeSet": word("map"), "BinaryHeap": word("data"),
		"Cell": word("value"), "RefCell": word("value"), "UnsafeCell": word("value"),
		"vector": between, "basic_string": text("_M_p", "_M_string_length"), "basic_string_view": text("_M_str", "_M_len"),
		"map": tree(true), "multimap": tree(true), "set": tree(false), "multiset": tree(false),
		"unordered_map": hash(true), "unordered_multimap": hash(true), "unordered_set": hash(false), "unordered_multiset": hash(false),
		"deque": between, "list": list("_M_node", 16, "_M_size"), "forward_list": list("_M_head", 8, ""),
		"stack": word("c"), "queue": word("c"), "priority_queue": word("c"), "array": word("_M_elems"), "atomic": word("_M_i"), "complex": word("_M_value"),
		"pair": pair, "tuple": tuple, "optional": optional, "bitset": bitset,
		"_Rb_tree_iterator": iterator(1, 32), "_Rb_tree_const_iterator": iterator(1, 32), "_Node_iterator": iterator(0, 8), "_Node_const_iterator": iterator(0, 8),
		"function": unknown, "thread": unknown, "mutex": unknown, "mersenne_twister_engine": unknown, "variant": unknown, "any": unknown,
		"__normal_iterator": unknown, "_Deque_iterator": unknown, "_List_iterator": unknown, "_List_const_iterator": unknown, "_Bit_iterator": unknown, "_Bit_reference": unknown,
		"shared_ptr": pointer("_M_ptr"), "unique_ptr": pointer("_M_head_impl"), "span": span,
	}
}

// entries completes the plan of a set or a map: nodes hold the element, or a pair.
func (t *table) entries(at dwarf.Offset, isMap bool, p plan, payload int64, found bool) (plan, bool) {
	key, ok := t.parameter(at, 0)
	if !ok || !found {
		return p, false
	}
	p.C = payload
	if !isMap {
		p.Element = t.plan(key)
		return p, p.Element >= 0
	}
	value, ok := t.parameter(at, 1)
	if !ok {
		return p, false
	}
	k, v := t.plan(key), t.plan(value)
	if k < 0 || v < 0 {
		return p, false
	}
	align := max(t.alignment(value), 1)
	second := (t.size(key) + align - 1) / align * align
	whole := max(align, t.alignment(key))
	one := plan{Kind: typeTuple, Size: (second + t.size(value) + whole - 1) / whole * whole, Element: -1, B: -1}
	one.First, one.Count = t.keep([]field{{Type: k}, {Type: v, Offset: second}})
	t.plans = append(t.plans, one)
	p.Element, p.Count = int64(len(t.plans)-1), 1
	return p, true
}

func slice(pointer, count string) func(*table, dwarf.Offset) (plan, bool) {
	return func(t *table, at dwarf.Offset) (plan, bool) {
		start, ok1 := t.find(at, pointer)
		n, ok2 := t.find(at, count)
		to, ok3 := t.parameter(at, 0)
		if e := t.entry(t.bare(start.typ)); ok1 && !ok3 && e != nil && e.Tag == dwarf.TagPointerType {
			to, ok3 = e.Val(dwarf.AttrType).(dwarf.Offset)
		}
		if !ok1 || !ok2 || !ok3 {
			return plan{}, false
		}
		p := plan{Kind: typeSlice, Element: t.plan(to), A: start.offset, B: n.offset}
		return p, p.Element >= 0
	}
}

func ring(t *table, at dwarf.Offset) (plan, bool) {
	p, ok1 := slice("pointer", "len")(t, at)
	head, ok2 := t.find(at, "head")
	room, ok3 := t.find(at, "cap")
	p.Kind, p.C, p.First = typeRing, head.offset, room.offset
	return p, ok1 && ok2 && ok3
}

func buckets(isMap bool) func(*table, dwarf.Offset) (plan, bool) {
	return func(t *table, at dwarf.Offset) (plan, bool) {
		taken, ok1 := t.find(at, "ctrl")
		count, ok2 := t.find(at, "items")
		most, ok3 := t.find(at, "bucket_mask")
		inner, ok4 := t.table(at)
		if !ok1 || !ok2 || !ok3 || !ok4 {
			return plan{}, false
		}
		if e := t.entry(t.bare(taken.typ)); e != nil && e.Tag != dwarf.TagPointerType {
			m, _ := t.find(taken.typ, "pointer")
			taken.offset += m.offset
		}
		p := plan{Kind: typeBuckets, Element: t.plan(inner), A: taken.offset, B: count.offset, C: most.offset}
		if isMap {
			p.Count = 1
		} else if p.Element >= 0 && t.plans[p.Element].Count > 0 { // entries are pairs of an element and nothing
			p.Element = t.fields[t.plans[p.Element].First].Type
		}
		return p, p.Element >= 0
	}
}

// table is the type of the entries of a hash table.
func (t *table) table(at dwarf.Offset) (to dwarf.Offset, ok bool) {
	for range 6 {
		m, found := t.find(at, "table")
		if !found {
			break
		}
		if to, ok = t.parameter(t.bare(m.typ), 0); ok {
			return to, true
		}
		at = m.typ
	}
	return 0, false
}

// leaves reads a B-tree: a node has room for eleven keys and values, and for twelve nodes below it.
func leaves(t *table, at dwarf.Offset) (plan, bool) {
	root, ok1 := t.find(at, "root")
	count, ok2 := t.find(at, "length")
	key, ok3 := t.parameter(at, 0)
	value, ok4 := t.parameter(at, 1)
	if !ok1 || !ok2 || !ok3 || !ok4 {
		return plan{}, false
	}
	some := root.typ
	for _, part := range t.children(t.bare(root.typ)) { // of an Option
		if part.Tag == dwarf.TagVariantPart {
			for _, v := range t.children(part.Offset) {
				for _, m := range t.children(v.Offset) {
					to, _ := m.Val(dwarf.AttrType).(dwarf.Offset)
					if e := t.entry(to); e != nil && e.Val(dwarf.AttrName) == "Some" {
						some = to
					}
				}
			}
		}
	}
	height, ok1 := t.find(some, "height")
	node, ok2 := t.find(some, "node")
	pointer, ok3 := t.find(node.typ, "pointer")
	to := t.entry(t.bare(pointer.typ))
	if !ok1 || !ok2 || !ok3 || to == nil {
		return plan{}, false
	}
	leaf, _ := to.Val(dwarf.AttrType).(dwarf.Offset)
	keys, ok1 := t.find(leaf, "keys")
	values, ok2 := t.find(leaf, "vals")
	length, ok3 := t.find(leaf, "len")
	if !ok1 || !ok2 || !ok3 {
		return plan{}, false
	}
	p := plan{Kind: typeLeaves, Element: -1, A: root.offset + node.offset + pointer.offset, B: count.offset, C: root.offset + height.offset}
	p.First, p.Count = t.keep([]field{{Type: t.plan(key), Offset: keys.offset}, {Type: t.plan(value), Offset: values.offset}, {Type: -1, Offset: length.offset}, {Type: -1, Offset: t.size(leaf)}})
	return p, true
}

// iterator reads one over nodes: in a tree, or hashed ones. What it points to may be a pair.
func iterator(tree, payload int64) func(*table, dwarf.Offset) (plan, bool) {
	return func(t *table, at dwarf.Offset) (plan, bool) {
		to, ok := t.parameter(at, 0)
		if !ok {
			return plan{}, false
		}
		p := plan{Kind: typeIterator, Element: t.plan(to), B: tree, C: payload}
		return p, p.Element >= 0
	}
}

// unknown is what could be past the end of what it points into.
func unknown(*table, dwarf.Offset) (plan, bool) { return plan{Kind: typeOther, Element: -1}, true }

// between reads what lies between a start and a finish: one run of elements, bits, or blocks.
func between(t *table, at dwarf.Offset) (plan, bool) {
	start, ok1 := t.find(at, "_M_start")
	finish, ok2 := t.find(at, "_M_finish")
	to, ok3 := t.parameter(at, 0)
	if !ok1 || !ok2 || !ok3 {
		return plan{}, false
	}
	e := t.entry(t.bare(start.typ))
	if from, ok := t.find(start.typ, "_M_p"); ok { // of bool: iterators over bits
		offset, ok := t.find(start.typ, "_M_offset")
		return plan{Kind: typeBits, Element: -1, A: start.offset + from.offset, B: finish.offset + from.offset, C: finish.offset + offset.offset}, ok
	}
	kind := int64(typeRange)
	if e != nil && e.Tag != dwarf.TagPointerType {
		kind = typeDeque // iterators over blocks
	}
	p := plan{Kind: kind, Element: t.plan(to), A: start.offset, B: finish.offset}
	return p, p.Element >= 0
}

func text(pointer, length string) func(*table, dwarf.Offset) (plan, bool) {
	return func(t *table, at dwarf.Offset) (plan, bool) {
		p, ok1 := t.find(at, pointer)
		n, ok2 := t.find(at, length)
		to, ok3 := t.parameter(at, 0)
		if !ok1 || !ok2 || ok3 && t.size(to) != 1 {
			return plan{}, false
		}
		return plan{Kind: typeText, Element: -1, A: p.offset, B: n.offset}, true
	}
}

func list(head string, payload int64, size string) func(*table, dwarf.Offset) (plan, bool) {
	return func(t *table, at dwarf.Offset) (plan, bool) {
		node, ok := t.find(at, head)
		to, ok2 := t.parameter(at, 0)
		if !ok || !ok2 {
			return plan{}, false
		}
		p := plan{Kind: typeList, Element: t.plan(to), A: node.offset, B: -1, C: payload}
		if count, ok := t.find(at, size); ok {
			p.B = count.offset
		}
		return p, p.Element >= 0
	}
}

func pair(t *table, at dwarf.Offset) (plan, bool) {
	p := t.plainStructure(at, "", 0)
	p.Kind = typeTuple
	return p, true
}

// tuple reads the elements of a tuple: its base classes hold one each, the last first.
func tuple(t *table, at dwarf.Offset) (plan, bool) {
	p := plan{Kind: typeTuple, Element: -1, B: -1}
	var list []field
	for _, m := range t.members(at, 0) {
		if typ := t.plan(m.typ); typ >= 0 && m.name == "_M_head_impl" {
			list = append([]field{{Type: typ, Offset: m.offset}}, list...)
		}
	}
	p.First, p.Count = t.keep(list)
	return p, true
}

func optional(t *table, at dwarf.Offset) (plan, bool) {
	engaged, ok := t.find(at, "_M_engaged")
	to, ok2 := t.parameter(at, 0)
	if !ok || !ok2 {
		return plan{}, false
	}
	payload, ok := t.find(at, "_M_payload")
	if !ok {
		return plan{}, false
	}
	p := plan{Kind: typeOptional, Element: t.plan(to), A: payload.offset, B: engaged.offset}
	return p, p.Element >= 0
}

func bitset(t *table, at dwarf.Offset) (plan, bool) {
	for _, c := range t.children(at) {
		if c.Tag == dwarf.TagTemplateValueParameter {
			n, ok := c.Val(dwarf.AttrConstValue).(int64)
			return plan{Kind: typeBitset, Element: -1, A: n}, ok
		}
	}
	return plan{}, false
}

func span(t *table, at dwarf.Offset) (plan, bool) {
	start, ok1 := t.find(at, "_M_ptr")
	count, ok2 := t.find(at, "_M_extent_value")
	to, ok3 := t.parameter(at, 0)
	if !ok1 || !ok2 || !ok3 {
		return plan{}, false
	}
	p := plan{Kind: typeSlice, Element: t.plan(to), A: start.offset, B: count.offset}
	return p, p.Element >= 0
}
