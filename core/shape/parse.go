package shape

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"coldverdict/core/settings"
	"coldverdict/internal/lazy"
)

// deepestNesting bounds how deeply blocks and brackets lie in each other.
const deepestNesting = 200

// mostText bounds a shape, in bytes.
const mostText = 1 << 20

// Parse reads a shape. The error is a Mistakes.
func Parse(text string) (*Shape, error) { return parse(&Shape{text: text}) }

func parse(s *Shape) (*Shape, error) {
	p, text := &parser{s: s}, s.text
	if len(text) > mostText || !utf8.ValidString(text) {
		p.wrong(Pos{1, 1}, "a shape is text of at most 1 MiB")
		return nil, p.mistakes
	}
	p.namesAt = fieldAt().MatchString(text)
	p.lexer = lexer{text: text, line: 1, column: 1, report: p.wrong}
	p.advance()
	for {
		p.s.Items = append(p.s.Items, p.items(func() bool { return false })...)
		if p.now.kind == tokenEnd {
			break
		}
		p.wrong(p.now.pos, "this } closes nothing")
		p.advance()
	}
	if s.takes != nil {
		p.asArguments()
	}
	p.resolve()
	if len(p.mistakes) > 0 {
		return nil, p.mistakes.sorted()
	}
	return p.s, nil
}

func hasPair(s *charSet) bool {
	if s == nil {
		return false
	}
	open, _ := s.pairsOf()
	return len(open) > 0
}

var fieldAt = lazy.New(`\bat\s*:`)

// A parser reads a shape by recursive descent. What cannot be read is reported,
// and everything up to the end of its item passed over.
type parser struct {
	lexer
	s        *Shape
	now      token // the next one to be read
	last     token // the one that was read last
	nested   int
	unclosed bool // a block that is never closed was reported
	mistakes Mistakes
	namesAt  bool // a field is called at, so that it is no position
	inRepeat bool // what is read stands in a repeat itself
}

func (p *parser) wrong(pos Pos, format string, args ...any) {
	p.mistakes = append(p.mistakes, Mistake{pos, fmt.Sprintf(format, args...)})
}

func (p *parser) advance() token {
	p.last = p.now
	p.now = p.next()
	return p.last
}

// An abandoned item is one with a mistake that was reported.
type abandoned struct{}

func (abandoned) Error() string { return "a mistake was reported" }

// fatal reports a mistake and gives the item up.
func (p *parser) fatal(pos Pos, format string, args ...any) {
	if p.now.kind != tokenBad || pos != p.now.pos { // which was reported
		p.wrong(pos, format, args...)
	}
	panic(abandoned{})
}

func (p *parser) is(text string) bool {
	return (p.now.kind == tokenMark || p.now.kind == tokenName) && p.now.text == text
}

// take reads a token, if it is the one that is named.
func (p *parser) take(text string) bool {
	if !p.is(text) {
		return false
	}
	p.advance()
	return true
}

func (p *parser) expect(text, where string) {
	if !p.take(text) {
		p.fatal(p.now.pos, "expected %s %s, found %s", text, where, p.now)
	}
}

// items reads items up to a closing brace or the end, or until stop.
func (p *parser) items(stop func() bool) (list []node) {
	for {
		switch {
		case p.now.kind == tokenLine:
			p.advance()
		case p.now.kind == tokenEnd, p.is("}"), stop():
			return list
		default:
			if item := p.oneItem(); item != nil {
				list = append(list, item)
			}
		}
	}
}

// oneItem reads an item with its end; nil if it was at fault.
func (p *parser) oneItem() (item node) {
	why := attempt(func() {
		item = p.item()
		switch {
		case p.now.kind == tokenLine:
			p.advance()
		case p.now.kind == tokenEnd, p.is("}"):
		default:
			p.fatal(p.now.pos, "expected the end of the line or ';', found %s", p.now)
		}
	})
	if _, ok := expected[abandoned](why); ok {
		p.skipItem()
		return nil
	}
	return item
}

// skipItem passes over the rest of an item, with the blocks in it.
func (p *parser) skipItem() {
	open := 0
	p.depth = 0
	for p.now.kind != tokenEnd {
		switch {
		case p.is("{"):
			open++
		case p.is("}") && open == 0:
			return
		case p.is("}"):
			open--
		case p.now.kind == tokenLine && open == 0:
			p.depth = 0
			return
		}
		p.advance()
	}
}

// itemWords are the words that begin items; a name may be one of them, if a ':'
// follows.
var itemWords = []string{"cases", "repeat", "either", "blank", "require", "total", "scale", "holds"}

func (p *parser) item() node {
	switch {
	case p.rowsFollow():
		return p.rowsOf()
	case p.now.kind != tokenName || p.colonFollows():
		return p.lineOf()
	}
	pos := p.now.pos
	p.otherForms()
	if p.s.calls != nil {
		if takes, ok := p.s.calls.Takes(p.now.text); ok {
			return p.callOf(takes)
		}
	}
	switch p.now.text {
	case "cases":
		p.advance()
		return p.cases(pos)
	case "repeat":
		p.advance()
		return p.repeat(pos)
	case "either":
		p.advance()
		return p.either(pos)
	case "blank":
		p.advance()
		return &blankNode{pos}
	case "require":
		p.advance()
		from := p.now.begin
		cond := p.expr()
		return &requireNode{pos, cond, strings.TrimSpace(p.text[from:p.last.end])}
	case "total":
		p.fatal(pos, "total stands in a block of cases or of a repeat, and bounds a sum over all its bodies")
	case "holds":
		p.advance()
		if p.now.kind != tokenString {
			p.fatal(p.now.pos, "expected the file of a script that says what is valid, such as \"valid.star\", found %s", p.now)
		}
		return &holdsNode{Pos: pos, File: p.advance().text}
	case "scale":
		p.advance()
		s := &scaleItem{pos: pos}
		for more := true; more; more = p.take(",") {
			s.names = append(s.names, p.name("that grows in a series"))
		}
		return s
	}
	return p.lineOf()
}

// otherForms tells of lines that are written as in other languages.
func (p *parser) otherForms() {
	name := p.now.text
	if _, isBase := baseNamed(name); isBase || slices.Contains(itemWords, name) || otherTypes[name] != "" {
		return
	}
	ahead := p.lexer
	ahead.report = func(Pos, string, ...any) {}
	switch next := ahead.next(); next.text {
	case "[":
		p.fatal(p.now.pos, "the length of an array stands behind its type: %s: int[n] 1..9", name)
	case ",":
		if ahead.next().kind == tokenName && slices.Contains([]string{":", ","}, ahead.next().text) {
			p.fatal(p.now.pos, "each name has its own value: %s: int 1..9, …", name)
		}
	case "=", "<", ">", "<=", ">=", "!=":
		if ahead.next(); next.text != "=" || p.now.kind == tokenName {
			p.fatal(p.now.pos, "a condition begins with require: require %s %s …", name, next.text)
		}
	}
}

// otherTypes are names of types in other languages, with what to write instead.
var otherTypes = map[string]string{
	"rows":   "rows are an argument of a function; lines of the input are repeat n { … }",
	"word":   "characters without blanks are token(1..20, \"a-z\"), with blanks text(1..80, \"a-z \")",
	"string": "a token without blanks is token(1..20, \"a-z\"), one with blanks text(1..80, \"a-z \")", "str": "a token without blanks is token(1..20, \"a-z\")", "char": "a character is token(1, \"a-z\")",
	"float": "a decimal is real", "double": "a decimal is real", "decimal": "a decimal is real", "long": "an integer of any size up to 64 bits is int", "integer": "an integer is int", "number": "an integer is int, a decimal real", "bool": "one of two tokens is pick(\"yes\", \"no\")",
	"array": "an array is int[n]", "list": "an array is int[n]", "vector": "an array is int[n]", "matrix": "a matrix is int[r][c]", "permutation": "a permutation is perm(n)", "loop": "bodies are repeated by repeat n { … }", "for": "bodies are repeated by repeat n { … }", "if": "what differs is either { … } or { … }; what must hold is require …", "while": "bodies up to a line that ends them are repeat 1..9 until \"0\" { … }",
	"enum": "one of some tokens is pick(\"in\", \"out\")", "choice": "one of some tokens is pick(\"in\", \"out\")",
}

// colonFollows reports that the next token is a name with a ':' behind it.
func (p *parser) colonFollows() bool {
	ahead := p.lexer
	ahead.report = func(Pos, string, ...any) {}
	return p.now.kind == tokenName && ahead.next().text == ":"
}

func (p *parser) name(what string) string {
	if p.now.kind != tokenName {
		p.fatal(p.now.pos, "expected a name %s, found %s", what, p.now)
	}
	return p.advance().text
}

func (p *parser) lineOf() node {
	line := &lineNode{Pos: p.now.pos}
	for joined, more := false, true; more; {
		f := p.field()
		f.Joined = joined
		line.Fields = append(line.Fields, f)
		joined = p.take("&")
		more = joined || p.take(",")
	}
	p.joins(line)
	return line
}

func (p *parser) field() *fieldNode {
	f := &fieldNode{Pos: p.now.pos}
	if p.now.kind == tokenString {
		f.Literal = p.advance().text
		if f.Literal == "" || strings.ContainsAny(f.Literal, "\t\n\r") {
			p.fatal(f.Pos, "a string is a token that stands in the input as it is; it can neither be empty nor have a tab or a line end")
		}
		return f
	}
	if p.colonFollows() {
		f.Name = p.advance().text
		p.advance()
	}
	f.Value = p.value()
	return f
}

// plainWords reports that there is one blank between two words, and nowhere else.
func plainWords(text string) bool { return strings.Join(strings.Fields(text), " ") == text }

func (p *parser) value() *valueNode {
	v := &valueNode{Pos: p.now.pos, Places: -1}
	if p.now.kind != tokenName {
		p.fatal(p.now.pos, "expected a value such as int 1..n, found %s", p.now)
	}
	word := p.now.text
	base, ok := baseNamed(word)
	if instead := otherTypes[word]; !ok && instead != "" {
		p.fatal(p.now.pos, "there is no %s here; %s", word, instead)
	}
	if !ok {
		p.fatal(p.now.pos, "%q is no value; %s", word, nearestItem(word))
	}
	v.Base = base
	p.advance()
	if !v.traits().bare {
		p.expect("(", "behind "+word)
		base.of().parse(p, v)
		p.expect(")", "at the end of "+word)
	}
	if p.now.kind == tokenName && (word == "int" || word == "real") {
		ahead := p.lexer
		ahead.report = func(Pos, string, ...any) {}
		if next := ahead.next(); (next.kind == tokenInteger || next.kind == tokenLine || next.kind == tokenEnd) && !slices.Contains(modifierWords, p.now.text) && otherModifiers[p.now.text] == "" {
			p.fatal(p.now.pos, "the name stands first: %s: %s 1..9", p.now.text, word)
		}
	}
	p.dims(v)
	p.modifiers(v)
	return v
}

func (p *parser) set() *charSet {
	if p.now.kind != tokenString {
		p.fatal(p.now.pos, "expected a set of characters such as \"a-z\", found %s", p.now)
	}
	t := p.advance()
	set, wrong := newSet(t.text)
	if wrong != "" {
		p.fatal(t.pos, "%s", wrong)
	}
	set.at = t.pos
	return set
}

// literal reads one of the tokens that a pick has.
func (p *parser) literal() string {
	switch {
	case p.now.kind == tokenString && p.now.text != "" && !strings.ContainsAny(p.now.text, " \t"):
		return p.advance().text
	case p.now.kind == tokenInteger, p.is("-"):
		return strconv.FormatInt(p.signed(), 10)
	}
	p.fatal(p.now.pos, "expected a token in quotes or an integer, found %s", p.now)
	return ""
}

func (p *parser) signed() int64 {
	negative := p.take("-")
	if p.now.kind != tokenInteger {
		p.fatal(p.now.pos, "expected an integer, found %s", p.now)
	}
	n := p.advance().value
	if negative {
		return -n
	}
	return n
}

func (p *parser) dims(v *valueNode) {
	if v.Base == typeGrid || v.Base == typeNodes {
		return
	}
	for p.is("[") {
		p.advance()
		v.Dims = append(v.Dims, p.length())
		if p.is(",") && len(v.Dims) == 1 {
			p.fatal(p.now.pos, "bounds are written as a range: %s 1..9; two dimensions as %s[r][c]", v.Base, v.Base)
		}
		p.expect("]", "at the end of the length of an array")
	}
	if len(v.Dims) > 2 {
		p.fatal(v.Pos, "an array has one dimension or two")
	}
}

// length reads one number, or a range of them.
func (p *parser) length() *lengthNode {
	from := p.now
	low := p.expr()
	if !p.is("..") {
		return &lengthNode{Exact: low}
	}
	return &lengthNode{Range: p.rangeFrom(from, low)}
}

func (p *parser) rangeFrom(from token, low exprNode) *rangeNode {
	if b, ok := low.(*binary); ok && b.op == "-" && !p.is("..") {
		p.fatal(from.pos, "a range is written %s..%s", b.x, b.y)
	}
	p.expect("..", "between the ends of a range")
	high := p.expr()
	return &rangeNode{from.pos, low, high, strings.TrimSpace(p.text[from.begin:p.last.end])}
}

// modifierWords are the words that can stand behind a value.
var modifierWords = []string{
	"down", "but", "distinct", "sorted", "rising", "falling", "rows", "symmetric", "spread", "simple", "convex", "clockwise", "counterclockwise", "diagonal", "balanced", "palindrome", "connected", "acyclic", "directed", "bipartite", "loops", "parallel", "by", "places", "pad", "from", "with",
}

// modifiers reads a range and what else stands behind a value.
func (p *parser) modifiers(v *valueNode) {
	v.Down = p.take("down")
	switch {
	case v.Base == typePick && p.take("or"):
		p.expect("int", "with a range, of which a value may be instead")
		from := p.now
		v.Range = p.rangeFrom(from, p.expr())
	case p.beginsExpr():
		from := p.now
		v.Range = p.rangeFrom(from, p.expr())
	}
	flags := map[string]*bool{
		"distinct": &v.Distinct, "sorted": &v.Sorted, "rising": &v.Rising, "falling": &v.Falling, "rows": &v.ByRow, "symmetric": &v.Symmetric, "spread": &v.Spread, "convex": &v.Convex, "simple": &v.Simple, "clockwise": &v.Clockwise, "counterclockwise": &v.Counter, "balanced": &v.Balanced, "palindrome": &v.Palindrome, "connected": &v.Connected,
		"acyclic": &v.Acyclic, "directed": &v.Directed, "bipartite": &v.Bipartite, "loops": &v.Loops, "parallel": &v.Parallel,
	}
	for p.now.kind == tokenName {
		pos, word := p.now.pos, p.now.text
		switch flag := flags[word]; {
		case word == "but":
			p.advance()
			v.But = append(v.But, p.exprAbove(levels["="]))
		case flag != nil:
			p.advance()
			if word == "distinct" && p.is("but") {
				p.advance()
				v.DistinctBut = p.exprAbove(levels["="])
			}
			if *flag {
				p.fatal(pos, "%s stands here twice", word)
			}
			*flag = true
		case word == "diagonal":
			p.advance()
			v.Diagonal = p.exprAbove(levels["="])
		case word == "by":
			p.advance()
			p.separator(v)
		case word == "places":
			p.advance()
			n := p.signed()
			v.LeastPlaces = int(n)
			if p.take("..") {
				n = p.signed()
			}
			if v.Places = int(n); v.LeastPlaces < 0 || v.LeastPlaces > v.Places || n > 18 {
				p.fatal(pos, "places can be 0 to 18, the digits behind the point, or a range: places 0..3")
			}
		case word == "pad":
			p.advance()
			n := p.signed()
			if n < 2 || n > 18 {
				p.fatal(pos, "pad can be 2 to 18, the digits of each integer, with zeros before it")
			}
			v.Pad = int(n)
		case word == "from":
			p.advance()
			v.From = p.signed()
		case word == "with":
			p.advance()
			p.expect("(", "behind with")
			p.directly(false, func() {
				for more := true; more; more = p.take(",") {
					v.With = append(v.With, p.field())
				}
			})
			p.expect(")", "at the end of with")
		case word == "down":
			p.fatal(pos, "down stands before the range")
		case otherModifiers[word] != "":
			p.fatal(pos, "%s means nothing here; %s", word, otherModifiers[word])
		case p.colonFollows():
			p.fatal(pos, "expected ',' before %s, or the end of the line", word)
		default:
			p.fatal(pos, "%q means nothing behind a value; %s", word, settings.Nearest(word, modifierWords))
		}
	}
	switch {
	case v.Range == nil && (p.is("<=") || p.is("<") || p.is(">=") || p.is(">")):
		p.fatal(p.now.pos, "bounds are written as a range, such as 1..9")
	case v.Range == nil && p.beginsExpr() && v.traits().element:
		p.fatal(p.now.pos, "the range stands before everything else: int[n] 1..9 rising")
	case p.is(",") && v.Range != nil && p.thousands():
		p.fatal(p.now.pos, "a comma ends a value; thousands are written 1_000, or 1e3")
	}
	p.fits(v)
}

// thousands reports that three digits stand right behind a comma, and right before it another.
func (p *parser) thousands() bool {
	rest := p.text[p.now.end:]
	digits := 0
	for digits < len(rest) && isDigit(rest[digits]) {
		digits++
	}
	return digits == 3 && p.last.end == p.now.begin && isDigit(p.text[p.now.begin-1])
}

// otherModifiers are words for modifiers that have another name here.
var otherModifiers = map[string]string{
	"unique": "write distinct", "different": "write distinct", "undirected": "a graph is undirected unless it is directed", "simple": "a graph is simple unless it has loops or parallel",
	"increasing": "write rising, or sorted where neighbours may be alike", "ascending": "write sorted, or rising where no two are alike", "nondecreasing": "write sorted",
	"decreasing": "write falling", "descending": "write falling", "in": "a range stands right behind int: int 1..9", "even": "write a requirement below: require n % 2 = 0", "odd": "write a requirement below: require n % 2 = 1",
}

// fits reports modifiers that mean nothing for a value.
func (p *parser) fits(v *valueNode) {
	numbers := v.Base == typeInt || v.Base == typeReal
	edges := v.traits().edges
	array := len(v.Dims) > 0 && v.Base != typeGrid && v.Base != typeNodes
	nodes := v.Base == typeNodes
	column := p.inRepeat && len(v.Dims) == 0 && v.traits().element && v.Base != typeText
	lines := p.s.takes == nil
	for _, one := range []struct {
		set  bool
		fine bool
		text string
	}{
		{v.Range != nil, numbers || nodes || v.Base == typePick, "a range belongs to int, real and nodes"},
		{v.Base == typePick && v.Range != nil && len(v.Dims) > 0 && (usesPosition(v.Range.Low) || usesPosition(v.Range.High)), false, "integers beside tokens have the same bounds for all elements"},
		{v.Falling && nodes, false, "a search tree is rising"},
		{v.inOrder(), nodes || (array || column) && (numbers || v.Base == typeToken || v.Base == typeDigits), "sorted, rising and falling belong to arrays of int, real, token and digits, and go down the column of what stands in a repeat"},
		{len(v.But) > 0 || v.DistinctBut != nil, v.Base == typeInt && len(v.Dims) <= 1, "but belongs to int, and takes values out of its range"},
		{v.DistinctBut != nil && (v.Rising || v.Falling || v.Sorted || len(v.But) > 0), false, "distinct but … goes with no order, and with no other but"},
		{v.By != "", len(v.Dims) == 1 && !v.Down && (v.Base == typeInt || v.Base == typeToken || v.Base == typePick || v.Base == typeDigits), "by belongs to arrays of int, token, digits and pick on one line"},
		{v.By != "" && !lines, false, "arguments have no separators; leave by out"},
		{v.ByRow, len(v.Dims) == 2 && v.Base == typeInt && (v.inOrder() || v.Distinct), "rows stands before an order, or distinct, of int[r][c]: each row has it by itself"},
		{v.Symmetric || v.Diagonal != nil, len(v.Dims) == 2 && v.Base == typeInt && v.square(), "symmetric and diagonal belong to a square of int: int[n][n]"},
		{v.points(), len(v.Dims) == 2 && v.Base == typeInt && v.twoColumns(), "spread, simple and convex belong to points: int[n][2]"},
		{v.points() && (v.Distinct || v.inOrder() || v.Range == nil), false, "points have a range, and are neither distinct nor in order otherwise"},
		{v.Clockwise || v.Counter, v.polygon() && v.Clockwise != v.Counter, "clockwise and counterclockwise are directions of a polygon: simple or convex"},
		{(v.Symmetric || v.Diagonal != nil) && (v.Distinct || v.inOrder()), false, "a matrix that is symmetric, or has a diagonal of its own, is neither distinct nor in order"},
		{v.Balanced || v.Palindrome, v.Base == typeToken, "balanced and palindrome belong to token"},
		{v.Balanced && v.Palindrome, false, "a token that is balanced is no palindrome"},
		{v.Balanced && !hasPair(v.Set), false, "balanced wants both of a pair of brackets in the set: \"()\""},
		{v.Distinct, array || nodes || column, "distinct belongs to arrays, and goes down the column of what stands in a repeat"},
		{v.Places >= 0, v.Base == typeReal, "places belongs to real"},
		{v.Pad > 0, v.Base == typeInt && lines, "pad belongs to int, in inputs of lines"},
		{v.Pad > 0 && v.By != "", false, "pad and by do not go together"},
		{v.Connected || v.Acyclic || v.Directed || v.Bipartite || v.Loops || v.Parallel, v.Base == typeGraph, "connected, acyclic, directed, bipartite, loops and parallel belong to graph"},
		{len(v.With) > 0, edges, "with belongs to tree and graph"},
		{array, v.traits().element, "an array is one of int, real, token, text, digits, among or pick"},
		{v.Down, len(v.Dims) == 1, "down belongs to an array of one dimension"},
		{lines && v.Base == typeText && array && !v.Down, false, "an array of text stands one a line: write down"},
		{v.Loops && v.Acyclic, false, "a graph with loops is not acyclic"},
		{v.Rising && v.Falling || v.Sorted && v.Falling, false, "an array cannot be both rising and falling"},
	} {
		if one.set && !one.fine {
			p.fatal(v.Pos, "%s", one.text)
		}
	}
	for _, f := range v.With {
		if f.Value == nil && !plainWords(f.Literal) {
			p.fatal(f.Pos, "a string on the line of an edge neither begins nor ends with a blank, nor has it two in a row")
		}
		if f.Value != nil && (!f.Value.traits().element || len(f.Value.Dims) > 0 || f.Value.Base == typeText) {
			p.fatal(f.Pos, "with holds single values, on the line of each edge")
		}
	}
}

func (p *parser) block(what string, inside func()) {
	p.expect("{", "before "+what)
	if p.nested++; p.nested > deepestNesting {
		p.unclosed = true
		p.fatal(p.last.pos, "blocks lie more than %d deep in each other", deepestNesting)
	}
	open := p.last.pos
	inside()
	p.nested--
	if p.take("}") {
		return
	}
	if p.unclosed { // one such mistake is enough
		panic(abandoned{})
	}
	p.unclosed = true
	p.fatal(open, "this { is never closed")
}

func (p *parser) cases(pos Pos) node {
	c := &casesNode{Pos: pos, Count: &fieldNode{Pos: p.now.pos}}
	c.Count.Name = p.name("of the count, such as cases t: int 1..100 { … }")
	if p.is("{") {
		p.fatal(p.now.pos, "say how many cases there may be: cases %s: int 1..100 { … }", c.Count.Name)
	}
	p.expect(":", "behind the name of the count")
	c.Count.Value = p.value()
	if c.Count.Value.Base != typeInt || len(c.Count.Value.Dims) > 0 {
		p.fatal(c.Count.Value.Pos, "a count of cases is one int")
	}
	p.block("the cases", func() {
		p.directly(false, func() { c.Items = p.items(func() bool { return p.total(&c.Totals) }) })
	})
	return c
}

// total reads a total, and reports that there is something else.
func (p *parser) total(list *[]*totalNode) (stop bool) {
	for p.is("total") && !p.colonFollows() {
		why := attempt(func() {
			t := &totalNode{Pos: p.advance().pos}
			whole := p.exprAbove(levels["="])
			t.Left = whole
			p.expect("<=", "behind what is summed up")
			t.Bound = p.exprAbove(levels["="])
			*list = append(*list, t)
			if p.now.kind != tokenLine && p.now.kind != tokenEnd && !p.is("}") {
				p.fatal(p.now.pos, "expected the end of the line or ';', found %s", p.now)
			}
		})
		if _, ok := expected[abandoned](why); ok {
			p.skipItem()
		}
		for p.now.kind == tokenLine {
			p.advance()
		}
	}
	return p.is("}") || p.now.kind == tokenEnd
}

// directly reads what stands in a block, which is that of a repeat or not.
func (p *parser) directly(inRepeat bool, do func()) {
	outer := p.inRepeat
	p.inRepeat = inRepeat
	defer func() { p.inRepeat = outer }()
	do()
}

func (p *parser) repeat(pos Pos) node {
	r := &repeatNode{Pos: pos, Count: p.length()}
	r.Distinct = p.take("distinct")
	if p.take("by") {
		if r.ByBlank = p.take("blank"); !r.ByBlank {
			p.fatal(p.now.pos, "an empty line between two bodies is written by blank, found %s", p.now)
		}
	}
	if p.take("until") {
		if p.now.kind != tokenString {
			p.fatal(p.now.pos, "expected the line that ends the bodies, in quotes, found %s", p.now)
		}
		if !plainWords(p.now.text) {
			p.fatal(p.now.pos, "this line can neither begin or end with a blank, nor have two in a row")
		}
		r.Until, r.HasUntil = p.advance().text, true
	}
	p.block("the bodies", func() {
		p.directly(true, func() { r.Items = p.items(func() bool { return p.total(&r.Totals) }) })
	})
	return r
}

// mostWeight bounds how much oftener than others a branch is made.
const mostWeight = 1000

func (p *parser) either(pos Pos) node {
	e := &eitherNode{Pos: pos}
	for {
		weight := int64(1)
		if p.now.kind == tokenInteger {
			if weight = p.now.value; weight < 1 || weight > mostWeight {
				p.fatal(p.now.pos, "a branch is made so many times as often as others: 1 to %d", mostWeight)
			}
			p.advance()
		}
		e.weights = append(e.weights, weight)
		p.block("a branch", func() {
			p.directly(false, func() { e.Branches = append(e.Branches, p.items(func() bool { return false })) })
		})
		ahead := *p
		ahead.report = func(Pos, string, ...any) {}
		for ahead.now.kind == tokenLine {
			ahead.advance()
		}
		if !ahead.is("or") {
			break
		}
		for p.now.kind == tokenLine {
			p.advance()
		}
		p.advance()
	}
	if len(e.Branches) < 2 {
		p.fatal(pos, "either has two branches at least: either { … } or { … }")
	}
	return e
}

// beginsExpr reports that an expression begins here.
func (p *parser) beginsExpr() bool {
	switch p.now.kind {
	case tokenInteger, tokenDecimal:
		return true
	case tokenMark:
		return p.now.text == "-" || p.now.text == "("
	case tokenName:
		// A name that is a modifier, or the next block's, is none.
		ahead := p.lexer
		ahead.report = func(Pos, string, ...any) {}
		next := ahead.next()
		return next.kind == tokenMark && (next.text == ".." || next.text == "+" || next.text == "-" || next.text == "*" || next.text == "/" || next.text == "%" || next.text == "^" || next.text == "[" ||
			next.text == "(" && functions[p.now.text] != 0)
	}
	return false
}

func (p *parser) expr() exprNode { return p.exprAbove(0) }

// exprAbove reads an expression of operators that bind more tightly than a level.
func (p *parser) exprAbove(level int) exprNode {
	if p.nested++; p.nested > deepestNesting {
		p.fatal(p.now.pos, "brackets lie more than %d deep in each other", deepestNesting)
	}
	defer func() { p.nested-- }()
	var x exprNode
	switch {
	case p.is("not") && level < 3:
		pos := p.advance().pos
		x = &unary{pos, "not", p.exprAbove(3)}
	case p.is("-"):
		pos := p.advance().pos
		x = &unary{pos, "-", p.exprAbove(7)}
	default:
		x = p.primary()
	}
	for {
		op := p.now.text
		binds := levels[op]
		if binds == 0 || binds <= level || p.now.kind != tokenMark && p.now.kind != tokenName {
			return x
		}
		pos := p.advance().pos
		right := binds
		if op == "^" { // to the right
			right--
		}
		if op == "=" && p.is("=") {
			p.fatal(pos, "write = in place of ==")
		}
		x = &binary{pos: pos, op: op, x: x, y: p.exprAbove(right)}
		if binds == levels["="] && levels[p.now.text] == binds && p.now.kind == tokenMark {
			p.fatal(p.now.pos, "comparisons do not follow each other; join two with and")
		}
	}
}

func (p *parser) primary() exprNode {
	t := p.now
	switch {
	case t.kind == tokenInteger:
		p.advance()
		return &number{pos: t.pos, value: t.value}
	case t.kind == tokenDecimal:
		p.advance()
		return &number{pos: t.pos, decimal: t.text}
	case t.kind == tokenMark && t.text == "(":
		p.advance()
		x := p.expr()
		p.expect(")", "at the end of the parentheses")
		return x
	case t.kind == tokenName && t.text == "at" && !p.namesAt:
		p.advance()
		return &position{t.pos}
	case t.kind == tokenName:
		p.advance()
		if p.is("(") {
			return p.call(t)
		}
		r := &reference{pos: t.pos, name: t.text}
		if p.take("[") {
			r.index = p.expr()
			p.expect("]", "behind the index")
		}
		return r
	}
	p.fatal(t.pos, "expected a number or a name, found %s", t)
	return nil
}

// before reads before(NAME, what it is in the first body).
func (p *parser) before(t token) exprNode {
	p.advance()
	e := &previous{pos: t.pos, name: p.name("of a value in the repeat around")}
	p.expect(",", "and what it is in the first body: before("+e.name+", 0)")
	e.first = p.expr()
	p.expect(")", "at the end of before")
	return e
}

func (p *parser) call(t token) exprNode {
	wants, ok := functions[t.text]
	if !ok {
		if t.text == "pick" {
			p.fatal(t.pos, "what is an integer or one of some tokens is written with the tokens first: pick(\"a\", \"b\") or int 1..9")
		}
		p.fatal(t.pos, "there is no function %q; there are len, sum, min, max, abs, count and before", t.text)
	}
	if t.text == "before" {
		return p.before(t)
	}
	c := &call{pos: t.pos, name: t.text}
	p.advance()
	for more := true; more; more = p.take(",") {
		if p.now.kind == tokenString && t.text == "count" && len(c.args) == 1 {
			s := p.advance()
			c.args = append(c.args, &symbol{s.pos, s.text})
			continue
		}
		c.args = append(c.args, p.expr())
	}
	p.expect(")", "at the end of "+t.text)
	if wants > 0 && len(c.args) != wants {
		p.fatal(t.pos, "%s takes %s, and here are %d", t.text, map[int]string{1: "one argument", 2: "two arguments"}[wants], len(c.args))
	}
	return c
}
