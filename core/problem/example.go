package problem

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"coldverdict/core/value"
	"coldverdict/core/verdict"
)

// Statements print the examples of functions in their own way: nums = [3,3], target = 6, or the bare values in the
// order of the arguments, with the words of some language in them. What is read so is read again as a case has it.

var (
	exampleLabel = regexp.MustCompile(`(?i)^\s*(?:input|output|returns?|result|args?|arguments?|expected)\s*[:=]\s*`)
	namedValue   = regexp.MustCompile(`(?s)^([A-Za-z_]\w*)\s*[=:]\s*(.*)$`)
)

// asExample reads a case of a function as statements print it, where it is not as a case has it already.
func (p *Problem) asExample(c NewCase) (NewCase, error) {
	call := p.Call
	if call.Scripted() {
		return c, nil
	}
	if input := string(Plain(c.Input)); input != "" {
		if _, err := call.ReadArguments(input); err != nil {
			read, again := call.example(input)
			if again == nil {
				_, again = call.ReadArguments(read)
			}
			if again != nil && !strings.Contains(strings.TrimSpace(input), "\n") && !strings.Contains(input, ",") {
				return c, nil // what is read of it says more
			}
			if again != nil {
				return c, &RequestError{fmt.Sprintf("these arguments are not those of %s: %v", call, again)}
			}
			c.Input = []byte(read)
		}
	}
	if output := string(Plain(c.Output)); c.Output != nil {
		results := call.Results()
		if _, err := value.ReadResults(output, results); err != nil && len(results) == 1 {
			text := plainValue(strings.TrimSpace(exampleLabel.ReplaceAllString(output, "")), results[0].Type)
			if _, again := value.ReadResults(text, results); again == nil {
				c.Output = []byte(text + "\n")
			}
		}
	}
	return c, nil
}

// example writes arguments as a case has them. The error says which are missing, or too many.
func (c *Call) example(text string) (string, error) {
	text = strings.TrimSpace(exampleLabel.ReplaceAllString(strings.TrimSpace(text), ""))
	takes := c.Data()
	parts := parted(text, len(takes))
	values := make([]string, len(takes))
	var unknown []string
	named := 0
	for i, part := range parts {
		m := namedValue.FindStringSubmatch(part)
		if m == nil {
			if i < len(takes) {
				values[i] = part
			}
			continue
		}
		named++
		at := slices.IndexFunc(takes, func(f value.Field) bool { return plainName(f.Name) == plainName(m[1]) })
		if at < 0 {
			unknown = append(unknown, m[1])
			if at = i; at >= len(takes) {
				continue
			}
		}
		values[at] = m[2]
	}
	switch {
	case named > 0 && named < len(parts):
		return "", fmt.Errorf("some values have names, and others have none")
	case len(parts) != len(takes):
		return "", fmt.Errorf("%s given, and it takes %d", verdict.Count(len(parts), "value"), len(takes))
	case len(unknown) > 0 && len(unknown) < len(parts):
		return "", fmt.Errorf("no argument is called %s", unknown[0])
	}
	var b strings.Builder
	for i, f := range takes {
		if values[i] == "" && f.Type.Kind != value.Text {
			return "", fmt.Errorf("the argument %s is missing", f.Name)
		}
		fmt.Fprintf(&b, "%s: %s\n", f.Name, plainValue(values[i], f.Type))
	}
	return b.String(), nil
}

func plainName(name string) string { return strings.ToLower(strings.ReplaceAll(name, "_", "")) }

// parted splits the arguments of an example: at commas and line ends that lie in no brackets and no texts, or, where it
// has a line for each argument, at line ends alone.
func parted(text string, wanted int) (parts []string) {
	if lines := strings.Split(text, "\n"); len(lines) == wanted && wanted > 1 {
		for _, line := range lines {
			parts = append(parts, strings.TrimRight(strings.TrimSpace(line), ",;"))
		}
		return parts
	}
	if wanted == 1 {
		return []string{strings.TrimSpace(text)}
	}
	depth, from := 0, 0
	quote := byte(0)
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case quote != 0:
			if c == '\\' {
				i++
			} else if c == quote {
				quote = 0
			}
		case c == '"' || c == '\'':
			quote = c
		case c == '[' || c == '{' || c == '(':
			depth++
		case c == ']' || c == '}' || c == ')':
			depth--
		case depth == 0 && (c == ',' || c == ';' || c == '\n'):
			if part := strings.TrimSpace(text[from:i]); part != "" {
				parts = append(parts, part)
			}
			from = i + 1
		}
	}
	if part := strings.TrimSpace(text[from:]); part != "" {
		parts = append(parts, part)
	}
	return parts
}

// plainValue is a value of a statement as JSON has it: texts in double quotes, true, false and null by these names, and
// arrays in brackets.
func plainValue(text string, t value.Type) string {
	text = strings.NewReplacer("“", `"`, "”", `"`, "‘", "'", "’", "'").Replace(strings.TrimSpace(text))
	element, depth := t.Element()
	words := element.Kind == value.Text || element.Kind == value.Char
	if depth == 0 && words && !strings.HasPrefix(text, `"`) && !(strings.HasPrefix(text, "'") && strings.HasSuffix(text, "'") && len(text) > 1) {
		if text == "null" || text == "None" || text == "nil" {
			return "null"
		}
		return value.Write(text)
	}
	var b strings.Builder
	for i := 0; i < len(text); i++ {
		switch c := text[i]; {
		case c == '"' || c == '\'':
			to := i + 1
			for to < len(text) && text[to] != c {
				if text[to] == '\\' {
					to++
				}
				to++
			}
			inside := text[i+1 : min(to, len(text))]
			if c == '"' {
				b.WriteString(text[i:min(to+1, len(text))])
			} else {
				b.WriteString(value.Write(strings.ReplaceAll(inside, `\'`, "'")))
			}
			i = to
		case (c == '{' || c == '(') && depth > 0 && element.Kind != value.Map:
			b.WriteByte('[')
		case (c == '}' || c == ')') && depth > 0 && element.Kind != value.Map:
			b.WriteByte(']')
		case c == '_' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z':
			to := i
			for to < len(text) && (text[to] == '_' || text[to] == '-' || text[to] >= '0' && text[to] <= '9' || text[to] >= 'a' && text[to] <= 'z' || text[to] >= 'A' && text[to] <= 'Z') {
				to++
			}
			word := text[i:to]
			switch strings.ToLower(word) {
			case "true", "false":
				word = strings.ToLower(word)
			case "none", "nil", "null", "undefined":
				word = "null"
			case "nan", "infinity":
			default:
				if words {
					word = value.Write(word)
				}
			}
			b.WriteString(word)
			i = to - 1
		default:
			b.WriteByte(c)
		}
	}
	return b.String()
}
