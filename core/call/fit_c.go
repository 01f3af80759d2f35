package call

import (
	"fmt"
	"slices"
	"strings"

	"coldverdict/core/problem"
	"coldverdict/core/value"
	"coldverdict/internal/lazy"
)

// C has neither overloading nor reflection, so what the driver does is written
// from the text of the declaration and the problem's types.

// A cWriter writes the parts of the driver that depend on the function.
type cWriter struct {
	function string
	params   []string // of the declaration, those that are left
	declared int
	helpers  strings.Builder // functions
	take     strings.Builder // statements that read the arguments
	free     strings.Builder
	give     strings.Builder // statements that write the results
	args     []string
}

// passed is the type of what stands for a value: a node of an argument is passed as that is.
func passed(t value.Type) value.Type {
	if t.Kind == value.Place {
		return *t.Of
	}
	return t
}

// cServes reports types that C has no usual way to pass.
func cServes(f *problem.Call) error {
	for _, field := range f.Takes {
		field.Type = passed(field.Type)
		e, depth := field.Type.Element()
		if usual[e.Kind] == "" {
			return refuse("C has no usual way to pass %s", field.Type)
		}
		if hasOptional(field.Type) && (depth > 0 || field.Type.Kind != value.Optional) || depth > 2 {
			return refuse("an argument of type %s cannot be passed to C", field.Type)
		}
	}
	results := f.Results()
	if f.UpTo {
		results = f.Returns
	}
	for _, field := range results {
		field.Type = passed(field.Type)
		e, depth := field.Type.Element()
		switch {
		case usual[e.Kind] == "":
			return refuse("C has no usual way to return %s", field.Type)
		case len(results) > 1 && field.Type.Of != nil:
			return refuse("C writes several results through pointers, and %s is %s", field.Name, field.Type)
		case depth > 2, depth > 0 && hasOptional(field.Type):
			return refuse("a result of type %s cannot be returned from C", field.Type)
		}
	}
	return nil
}

func fitC(f *fitting) error {
	if f.function.Class != nil {
		return f.cClass()
	}
	s, o, err := f.chosen()
	if err == nil {
		err = cServes(f.function)
	}
	if err != nil {
		return err
	}
	nodes, err := f.cNodes(o)
	if err != nil {
		return err
	}
	w := &cWriter{function: s.name, params: split(s.params)}
	if len(w.params) == 1 && w.params[0] == "void" {
		w.params = nil
	}
	w.declared = len(w.params)
	results := f.function.Results()
	returned := cType(s.before)
	if wanted := cWanted(f.function, returned); len(wanted) != w.declared {
		return otherwiseDeclared(s.name, len(wanted), "parameter", " ("+strings.Join(wanted, ", ")+")", w.declared)
	}
	for i, field := range f.function.Takes {
		if err := w.argument(i, field, f.function.Changes == i+1); err != nil {
			return err
		}
	}
	w.places(f.function)
	var call string
	if f.function.CopyOf > 0 {
		original := value.Field{Type: f.function.Takes[f.function.CopyOf-1].Type}
		if call, err = w.result(original.Type, returned); err == nil && call == "" {
			return refuse("%s returns nothing, and the problem asks for a copy", s.name)
		}
		call = "cold_say(\"[\");\n            " + call + "\n            cold_copied();\n            cold_say(\",\");\n            " + put(original.Type, fmt.Sprintf("a%d", f.function.CopyOf-1)) + "\n            cold_say(\"]\")"
	} else if f.function.UpTo && returned == "void" {
		return refuse("%s returns nothing, and the problem asks for %s", s.name, f.function.Returns[0])
	}
	if f.function.CopyOf > 0 {
		// It was written above.
	} else if f.function.UpTo {
		call, err = w.result(results[0].Type, returned)
	} else if f.function.Changes > 0 || len(results) > 1 {
		call = "(void)0"
		if f.function.Changes == 0 {
			err = w.several(results)
		}
	} else {
		call, err = w.result(results[0].Type, returned)
	}
	if err != nil {
		return err
	}
	invoke := fmt.Sprintf("%s(%s)", s.name, strings.Join(w.args, ", "))
	var body strings.Builder
	line := func(format string, args ...any) { fmt.Fprintf(&body, "            "+format+"\n", args...) }
	if f.function.UpTo {
		line("cold_began = cold_now();")
		line("%s cold_result = %s;", returned, invoke)
		line("cold_spent = cold_now() - cold_began;")
		line("cold_settle();")
		line("cold_say(\"[\");")
		call += " cold_say(\",\")"
		w.give.WriteString("            cold_say(\"]\");\n")
	} else if returned == "void" || f.function.Changes > 0 || len(results) > 1 {
		line("cold_began = cold_now();")
		line("%s;", invoke)
		line("cold_spent = cold_now() - cold_began;")
		line("cold_settle();")
		if f.function.Changes == 0 && len(results) == 1 {
			line("cold_say(\"null\");")
			call = "(void)0"
		}
	} else {
		line("cold_began = cold_now();")
		line("%s cold_result = %s;", returned, invoke)
		line("cold_spent = cold_now() - cold_began;")
		line("cold_settle();")
	}
	line("%s;", call)
	body.WriteString(w.give.String())
	declared, provided, err := f.provideInC()
	if err != nil {
		return err
	}
	f.words["PRELUDE"] += "\n" + declared
	f.words["NODES"] = nodes + provided
	f.words["HELPERS"], f.words["TAKE"], f.words["FREE"] = w.helpers.String(), w.take.String(), w.free.String()
	f.words["CALL"] = strings.TrimSuffix(body.String(), "\n")
	return nil
}

// cWanted are the parameters that a function must have.
func cWanted(f *problem.Call, returned string) (words []string) {
	for _, field := range f.Takes {
		field.Type = passed(field.Type)
		element, depth := field.Type.Element()
		stars := depth
		if depth == 0 && field.Type.Kind == value.Optional && !isPointer(element) {
			stars = 1
		}
		words = append(words, usual[element.Kind]+" "+strings.Repeat("*", stars)+field.Name)
		if depth > 0 {
			words = append(words, "int "+field.Name+"_length")
		}
		if depth > 1 {
			words = append(words, "int *"+field.Name+"_lengths")
		}
	}
	if f.Changes > 0 {
		return words
	}
	if len(f.Returns) > 1 {
		for _, field := range f.Returns {
			words = append(words, usual[field.Type.Kind]+" *"+field.Name)
		}
		return words
	}
	_, depth := f.Results()[0].Type.Element()
	if depth > 0 && returned != "void" {
		words = append(words, "int *returned_length")
	}
	if depth > 1 && returned != "void" {
		words = append(words, "int **returned_lengths")
	}
	return words
}

// cType returns a type as it is declared, without what says nothing of its
// shape: "const long long *" is "long long*".
func cType(text string) string {
	var words []string
	for _, w := range strings.Fields(strings.ReplaceAll(text, "*", " * ")) {
		if !slices.Contains([]string{"const", "static", "inline", "extern", "restrict", "register", "volatile"}, w) {
			words = append(words, w)
		}
	}
	return strings.ReplaceAll(strings.Join(words, " "), " *", "*")
}

var cParameter = lazy.New(`^(.*?)(\w*)\s*((?:\[\s*\w*\s*\])*)$`)

// next takes the next parameter of the declaration and returns its type, arrays
// as pointers.
func (w *cWriter) next() (declared string) {
	m := cParameter().FindStringSubmatch(strings.TrimSpace(w.params[0]))
	w.params = w.params[1:]
	kind := m[1]
	if strings.TrimSpace(kind) == "" { // it has no name
		kind = m[2]
	}
	return cType(kind + strings.Repeat("*", strings.Count(m[3], "[")))
}

// cRanges are the integer types with their least and largest value.
var cRanges = map[string][2]string{
	"int": {"INT_MIN", "INT_MAX"}, "long": {"LONG_MIN", "LONG_MAX"}, "long long": {"LLONG_MIN", "LLONG_MAX"},
	"long int": {"LONG_MIN", "LONG_MAX"}, "long long int": {"LLONG_MIN", "LLONG_MAX"}, "short": {"SHRT_MIN", "SHRT_MAX"},
	"unsigned": {"0", "UINT_MAX"}, "unsigned int": {"0", "UINT_MAX"}, "unsigned long": {"0", "LONG_MAX"}, "unsigned long long": {"0", "LLONG_MAX"},
	"size_t": {"0", "LLONG_MAX"}, "int32_t": {"INT32_MIN", "INT32_MAX"}, "int64_t": {"INT64_MIN", "INT64_MAX"},
	"uint32_t": {"0", "UINT32_MAX"}, "uint64_t": {"0", "LLONG_MAX"}, "int16_t": {"INT16_MIN", "INT16_MAX"}, "ssize_t": {"LONG_MIN", "LONG_MAX"},
}

// usual are the types that stand for ours where none is declared.
var usual = map[value.Kind]string{
	value.Int: "int", value.Long: "long long", value.BigInt: "char*", value.Real: "double", value.Bool: "bool", value.Text: "char*", value.Char: "char",
	value.List: "struct ListNode*", value.Tree: "struct TreeNode*", value.List2: "struct Node*", value.Nary: "struct Node*", value.Graph: "struct Node*",
}

// read is an expression that reads one value as a declared type.
func (w *cWriter) read(t value.Type, declared string) (string, error) {
	if r, ok := cRanges[declared]; ok {
		switch t.Kind {
		case value.Int, value.Long, value.BigInt:
			return fmt.Sprintf("(%s)cold_integer(%s, %s)", declared, r[0], r[1]), nil
		case value.Bool:
			return "cold_truth()", nil
		}
	}
	switch {
	case t.Kind == value.Place && strings.HasSuffix(declared, "*"):
		return "NULL", nil // it is found when all arguments are there
	case t.Kind.IsNodes() && strings.HasSuffix(declared, "*"):
		return "cold_take_" + t.Kind.Word() + "()", nil
	case t.Kind == value.Real && slices.Contains([]string{"double", "float", "long double"}, declared):
		return "cold_real()", nil
	case t.Kind == value.Bool && (declared == "bool" || declared == "_Bool"):
		return "cold_truth()", nil
	case t.Kind == value.Char && (declared == "char" || declared == "unsigned char"):
		return "cold_char()", nil
	case (t.Kind == value.Text || t.Kind == value.BigInt) && declared == "char*":
		return "cold_text()", nil
	}
	return "", refuse("%s declares %s where the problem has %s; %s is what it is passed as", w.function, orNothing(declared), t, usual[t.Kind])
}

func orNothing(declared string) string {
	if declared == "" {
		return "nothing"
	}
	return declared
}

// put is a statement that writes one value.
func put(t value.Type, expression string) string {
	name := map[value.Kind]string{value.Place: "place", value.Real: "real", value.Bool: "truth", value.Text: "text", value.BigInt: "digits", value.Char: "char"}[t.Kind]
	if t.Kind.IsNodes() {
		name = t.Kind.Word()
	}
	if name == "" {
		name = "integer"
	}
	return fmt.Sprintf("cold_give_%s(%s);", name, expression)
}

func (w *cWriter) argument(i int, field value.Field, changed bool) error {
	element, depth := field.Type.Element()
	fmt.Fprintf(&w.take, "        cold_next();\n        cold_parameter = %d;\n", i+1)
	name := fmt.Sprintf("a%d", i)
	declared := w.next()
	stars := depth
	if hasOptional(field.Type) && !isPointer(element) {
		stars++
	}
	base := strings.TrimSuffix(declared, strings.Repeat("*", stars))
	read, err := w.read(element, base)
	if err != nil {
		return err
	}
	w.args = append(w.args, name)
	switch {
	case depth == 0 && field.Type.Kind == value.Optional && isPointer(element):
		fmt.Fprintf(&w.take, "        %s %s = NULL;\n        if (cold_peek() == 'n') cold_skip();\n        else %s = %s;\n", base, name, name, read)
	case depth == 0 && field.Type.Kind == value.Optional:
		if declared != base+"*" {
			return refuse("%s declares %s for %s, which may be absent: it is passed as a pointer", w.function, declared, field.Name)
		}
		fmt.Fprintf(&w.take, "        %s %s_value = 0, *%s = NULL;\n        if (cold_peek() == 'n') cold_skip();\n        else %s_value = %s, %s = &%s_value;\n", base, name, name, name, read, name, name)
	case depth == 0:
		fmt.Fprintf(&w.take, "        %s %s = %s;\n", base, name, read)
		if field.Type.Kind == value.Place {
			fmt.Fprintf(&w.take, "        long long %s_at = -1;\n        if (cold_peek() == 'n') cold_skip();\n        else %[1]s_at = cold_integer(0, LLONG_MAX);\n", name)
		}
	default:
		w.array(name, base, read)
		length := w.next()
		if _, ok := cRanges[length]; !ok {
			return refuse("%s declares %s behind the array %s; its length is passed there", w.function, orNothing(length), field.Name)
		}
		// The length is read as the widest, and then given the declared type.
		fmt.Fprintf(&w.take, "        long long %s_length_wide;\n", name)
		w.args = append(w.args, name+"_length")
		if depth == 2 {
			rows := w.next()
			if _, ok := cRanges[strings.TrimSuffix(rows, "*")]; !ok || !strings.HasSuffix(rows, "*") {
				return refuse("%s declares %s where a pointer to the lengths of the rows of %s is passed", w.function, orNothing(rows), field.Name)
			}
			row := strings.TrimSuffix(rows, "*")
			w.lengths(name, base, row)
			fmt.Fprintf(&w.take, "        %[1]s *%[2]s_lengths;\n        %[3]s **%[2]s = cold_rows_%[2]s(&%[2]s_length_wide, &%[2]s_lengths);\n", row, name, base)
			w.args = append(w.args, name+"_lengths")
		} else {
			fmt.Fprintf(&w.take, "        %s *%s = cold_array_%[2]s(&%[2]s_length_wide);\n", base, name)
		}
		fmt.Fprintf(&w.take, "        %s %s_length = %s_length_wide;\n", length, name, name)
		fmt.Fprintf(&w.free, "        free(%s);\n", name)
	}
	if changed && depth == 0 && element.Kind.IsNodes() {
		fmt.Fprintf(&w.give, "            %s\n", put(element, name))
	} else if changed {
		w.giveArray(element, depth, name, name+"_length", name+"_lengths")
		if depth == 0 {
			return refuse("%s changes its argument %s, which C passes by value", w.function, field.Name)
		}
	}
	return nil
}

// places notes where the nodes of an argument stand that others, or the result, are compared with, and finds
// arguments that are nodes of it.
func (w *cWriter) places(f *problem.Call) {
	of := f.Original()
	if of == 0 {
		return
	}
	fmt.Fprintf(&w.take, "        cold_leave(&cold_visited);\n        %s\n        cold_keep();\n", put(f.Takes[of-1].Type, fmt.Sprintf("a%d", of-1)))
	for i, field := range f.Takes {
		if field.Type.Kind == value.Place {
			fmt.Fprintf(&w.take, "        a%d = cold_node_at(a%[1]d_at);\n", i)
		}
	}
}

// isPointer reports that a type is passed as a pointer anyway, which can be NULL.
func isPointer(t value.Type) bool { return t.Kind == value.Text || t.Kind == value.BigInt }

func hasOptional(t value.Type) bool {
	for ; t.Of != nil; t = *t.Of {
		if t.Kind == value.Optional {
			return true
		}
	}
	return false
}

// array writes a function that reads an array, named for whose it is.
func (w *cWriter) array(name, base, read string) {
	fmt.Fprintf(&w.helpers, `static %[1]s *cold_array_%[2]s(long long *count) {
    long long n = 0, room = 16;
    %[1]s *a = malloc(room * sizeof *a);
    if (cold_peek() == 'n') cold_lacks("is declared as an array, and the problem gives it null");
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0) {
        if (n > 0) cold_next();
        if (n == room) a = realloc(a, (room *= 2) * sizeof *a);
        a[n++] = %[3]s;
    }
    cold_next();
    *count = n;
    return a;
}

`, base, name, read)
}

// lengths writes a function that reads an array of arrays.
func (w *cWriter) lengths(name, base, row string) {
	fmt.Fprintf(&w.helpers, `static %[1]s **cold_rows_%[2]s(long long *count, %[3]s **lengths) {
    long long n = 0, room = 16, length;
    %[1]s **a = malloc(room * sizeof *a);
    *lengths = malloc(room * sizeof **lengths);
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0) {
        if (n > 0) cold_next();
        if (n == room) {
            a = realloc(a, (room *= 2) * sizeof *a);
            *lengths = realloc(*lengths, room * sizeof **lengths);
        }
        a[n] = cold_array_%[2]s(&length);
        (*lengths)[n++] = length;
    }
    cold_next();
    *count = n;
    return a;
}

`, base, name, row)
}

// giveArray writes an array, or an array of arrays.
func (w *cWriter) giveArray(element value.Type, depth int, name, length, lengths string) {
	put1 := func(indent, a, n string) string {
		return fmt.Sprintf(`%[1]scold_say("[");
%[1]sfor (long long cold_j = 0; cold_j < (long long)(%[3]s); cold_j++) {
%[1]s    if (cold_j > 0) cold_say(",");
%[1]s    %[4]s
%[1]s}
%[1]scold_say("]");
`, indent, a, n, put(element, "("+a+")[cold_j]"))
	}
	if depth == 1 {
		w.give.WriteString(put1("            ", name, length))
		return
	}
	fmt.Fprintf(&w.give, "            cold_say(\"[\");\n            for (long long cold_i = 0; cold_i < (long long)(%s); cold_i++) {\n                if (cold_i > 0) cold_say(\",\");\n%s            }\n            cold_say(\"]\");\n",
		length, put1("                ", name+"[cold_i]", lengths+"[cold_i]"))
}

// result is a statement that writes what the function returned.
func (w *cWriter) result(t value.Type, returned string) (string, error) {
	element, depth := t.Element()
	if depth == 0 && t.Kind != value.Optional {
		if returned == "void" {
			return "", nil
		}
		if slices.Contains([]value.Kind{value.Int, value.Long, value.BigInt}, t.Kind) && cRanges[returned] == [2]string{} && returned != "char*" ||
			t.Kind == value.Text && returned != "char*" {
			return "", refuse("%s returns %s, and the problem asks for %s", w.function, returned, t)
		}
		if t.Kind == value.BigInt && returned != "char*" {
			return put(value.Type{Kind: value.Long}, "cold_result"), nil
		}
		return put(t, "cold_result"), nil
	}
	if depth == 0 && isPointer(element) {
		return put(element, "cold_result"), nil
	}
	if depth == 0 {
		return fmt.Sprintf("if (cold_result) %s else cold_say(\"null\")", put(element, "*cold_result")), nil
	}
	if returned == "void" {
		return "", nil
	}
	length := w.next()
	base := strings.TrimSuffix(length, "*")
	if _, ok := cRanges[base]; !ok || base == length {
		return "", refuse("%s declares %s as its last parameter; the length of the array that it returns is written to a pointer there", w.function, orNothing(length))
	}
	fmt.Fprintf(&w.take, "        %s cold_length = 0;\n", base)
	w.args = append(w.args, "&cold_length")
	if depth == 2 {
		rows := w.next()
		base := strings.TrimSuffix(rows, "**")
		if _, ok := cRanges[base]; !ok {
			return "", refuse("%s declares %s as its last parameter; a pointer to the lengths of the rows that it returns is written there", w.function, orNothing(rows))
		}
		fmt.Fprintf(&w.take, "        %s *cold_lengths = NULL;\n", base)
		w.args = append(w.args, "&cold_lengths")
	}
	w.giveArray(element, depth, "cold_result", "cold_length", "cold_lengths")
	return "(void)0", nil
}

// several takes several results, each through a pointer behind the arguments.
func (w *cWriter) several(results []value.Field) error {
	w.give.WriteString("            cold_say(\"[\");\n")
	for i, field := range results {
		declared := w.next()
		base, ok := strings.CutSuffix(declared, "*")
		if !ok {
			return refuse("%s declares %s where a pointer is passed to which %s is written", w.function, orNothing(declared), field.Name)
		}
		if i > 0 {
			w.give.WriteString("            cold_say(\",\");\n")
		}
		fmt.Fprintf(&w.take, "        %s r%d = 0;\n", base, i)
		fmt.Fprintf(&w.give, "            %s\n", put(field.Type, fmt.Sprintf("r%d", i)))
		w.args = append(w.args, fmt.Sprintf("&r%d", i))
	}
	w.give.WriteString("            cold_say(\"]\");\n")
	return nil
}
