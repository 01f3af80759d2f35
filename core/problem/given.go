package problem

import (
	"fmt"
	"maps"
	"slices"

	"coldverdict/core/settings"
	"coldverdict/core/value"
)

// A Given is a function that the site of a problem provides, and solutions call. A script answers, which knows
// the case.
type Given struct {
	Name    string
	Script  string // a Starlark file in the problem's folder
	Takes   []value.Field
	Returns value.Type
	Most    int    // how often it may be called in a case; 0: as often as one likes
	MostOf  string // an argument that says so; empty: none does
}

// Data are the arguments as a case has them: those that the function takes, and those that are hidden from it.
func (c *Call) Data() []value.Field { return append(slices.Clone(c.Takes), c.Hidden...) }

// givenTables reads what a site provides: [call.given.is_leaky].
func (c *configReader) givenTables(call *Call) func(at string, v any) {
	return func(at string, v any) {
		tables, ok := v.(map[string]any)
		if !ok {
			c.WrongAt(at, "a function that is given is described by a table of its own, such as [call.given.is_leaky]")
			return
		}
		for _, name := range slices.Sorted(maps.Keys(tables)) {
			call.Given = append(call.Given, c.givenTable(at+"."+name, name, tables[name]))
		}
	}
}

// givenTable reads one table of a function that is given.
func (c *configReader) givenTable(at, name string, v any) Given {
	g := Given{Name: name}
	var takes []string
	var returns string
	c.Table(at, v, settings.Fields{
		"script": c.script(&g.Script), "takes": c.Texts(&takes), "returns": c.Text(&returns),
		"calls": func(at string, v any) {
			if word, ok := v.(string); ok {
				g.MostOf = word
				return
			}
			c.Count(&g.Most)(at, v)
		},
	})
	wrong := func(format string, args ...any) {
		c.WrongAt(at, "[%s] "+format, append([]any{at}, args...)...)
		c.brokenCall = true
	}
	if !value.IsName(name) {
		wrong("%q cannot name a function; use letters, digits and _", name)
	}
	if g.Script == "" {
		wrong("name the script that answers: script = \"given.star\"")
	}
	for _, text := range takes {
		f, err := value.ParseField(text)
		if err != nil {
			wrong("%v", err)
		}
		g.Takes = append(g.Takes, f)
	}
	var err error
	if g.Returns, err = value.ParseType(returns); err != nil {
		wrong("say what it returns: %v", err)
	}
	for _, t := range append(fieldTypes(g.Takes), g.Returns) {
		if e, _ := t.Element(); e.Kind > value.Char && e.Kind != value.Any {
			wrong("%s can neither be handed to a given function nor be returned by it", t)
		}
	}
	return g
}

func fieldTypes(fields []value.Field) (list []value.Type) {
	for _, f := range fields {
		list = append(list, f.Type)
	}
	return list
}

// checkGiven reports what does not fit in what is given and hidden.
func (c *Call) checkGiven(hidden []string) error {
	for _, text := range hidden {
		f, err := value.ParseField(text)
		if err != nil {
			return fmt.Errorf("hidden: %w", err)
		}
		if slices.ContainsFunc(c.Data(), func(other value.Field) bool { return other.Name == f.Name }) {
			return fmt.Errorf("two are named %q; rename one", f.Name)
		}
		c.Hidden = append(c.Hidden, f)
	}
	if len(hidden) > 0 && len(c.Given) == 0 {
		return fmt.Errorf("hidden arguments are for functions that are given; describe one by [call.given.NAME]")
	}
	for _, g := range c.Given {
		if g.MostOf != "" && !slices.ContainsFunc(c.Data(), func(f value.Field) bool {
			return f.Name == g.MostOf && (f.Type.Kind == value.Int || f.Type.Kind == value.Long)
		}) {
			return fmt.Errorf("%s may be called as often as %s says, which is no argument that is int or long", g.Name, g.MostOf)
		}
	}
	if len(c.Given) > 0 && c.Scripted() {
		return fmt.Errorf("functions are either given or arguments; take one of the two out")
	}
	return nil
}

// MostCalls is how often a given function may be called in a case with some data; 0: as often as one likes.
func (c *Call) MostCalls(g Given, data []any) int64 {
	if i := slices.IndexFunc(c.Data(), func(f value.Field) bool { return f.Name == g.MostOf }); i >= 0 && i < len(data) {
		n, _ := data[i].(int64)
		return max(1, n)
	}
	return int64(g.Most)
}
