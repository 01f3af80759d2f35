package script

import (
	"errors"
	"fmt"
	"io"
	"strings"

	"go.starlark.net/lib/json"
	"go.starlark.net/lib/math"
	"go.starlark.net/starlark"

	"coldverdict/core/shape"
)

// forMake are the names that what makes inputs knows beside the language's own.
var forMake = starlark.StringDict{"math": math.Module}

// makeInput runs a script that makes an input, and writes the input. data is a seed
// and a size.
func makeInput(script, data string, out io.Writer) error {
	first, second, _ := strings.Cut(data, " ")
	seed, err := shape.ParseSeed(first)
	if err != nil {
		return err
	}
	size, err := shape.ParseSize(second)
	if err != nil {
		return err
	}
	share := starlark.Float(float64(size) / float64(shape.Largest))
	value, at, err := run(script, makes, forMake, starlark.Tuple{&rng{shape.NewSource(seed)}, share})
	if err != nil {
		return plain(err)
	}
	text, err := inputOf(value)
	if err != nil {
		return fmt.Errorf("%s: %s returned %w", at, makes, err)
	}
	_, err = io.WriteString(out, text)
	return err
}

// inputOf writes what a script returned: text as it is, a list of lines, of which
// each is a text, a number or a list of what stands on it, or, for a function, its
// arguments by their names.
func inputOf(value starlark.Value) (string, error) {
	var b strings.Builder
	switch v := value.(type) {
	case starlark.String:
		b.WriteString(string(v))
		if !strings.HasSuffix(string(v), "\n") {
			b.WriteByte('\n')
		}
	case *starlark.Dict:
		thread := &starlark.Thread{Name: makes}
		for _, pair := range v.Items() {
			name, ok := starlark.AsString(pair[0])
			if !ok {
				return "", fmt.Errorf("the name %s, which is no text", short(pair[0]))
			}
			text, err := starlark.Call(thread, json.Module.Members["encode"], starlark.Tuple{pair[1]}, nil)
			if err != nil {
				return "", fmt.Errorf("%s for %s, which is no value: %w", short(pair[1]), name, err)
			}
			fmt.Fprintf(&b, "%s = %s\n", name, string(text.(starlark.String)))
		}
	case *starlark.List, starlark.Tuple:
		for line := range starlark.Elements(v.(starlark.Sequence)) {
			words := []starlark.Value{line}
			switch list := line.(type) {
			case *starlark.List, starlark.Tuple:
				words = words[:0]
				for word := range starlark.Elements(list.(starlark.Sequence)) {
					words = append(words, word)
				}
			}
			for i, word := range words {
				if i > 0 {
					b.WriteByte(' ')
				}
				if err := writeWord(&b, word); err != nil {
					return "", err
				}
			}
			b.WriteByte('\n')
		}
	default:
		return "", fmt.Errorf("%s; it must return the input: a text, a list of lines, or for a function a dict of its arguments", short(value))
	}
	return b.String(), nil
}

func writeWord(b *strings.Builder, word starlark.Value) error {
	switch w := word.(type) {
	case starlark.String:
		b.WriteString(string(w))
	case starlark.Int, starlark.Float:
		b.WriteString(w.String())
	default:
		return fmt.Errorf("%s on a line, where a text or a number was expected", short(word))
	}
	return nil
}

// rng draws for a script.
type rng struct{ source *shape.Source }

func (r *rng) String() string        { return "rng" }
func (r *rng) Type() string          { return "rng" }
func (r *rng) Freeze()               {}
func (r *rng) Truth() starlark.Bool  { return true }
func (r *rng) Hash() (uint32, error) { return 0, errors.New("rng cannot be a key") }

// draws are what rng can do.
var draws = map[string]func(r *rng, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error){
	"int": func(r *rng, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var low, high int64
		if err := starlark.UnpackArgs("rng.int", args, named, "low", &low, "high", &high); err != nil {
			return nil, err
		}
		if low > high {
			return nil, fmt.Errorf("rng.int(%d, %d): no integer lies there", low, high)
		}
		return starlark.MakeInt64(r.source.Between(low, high)), nil
	},
	"choice": func(r *rng, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var list starlark.Indexable
		if err := starlark.UnpackArgs("rng.choice", args, named, "list", &list); err != nil {
			return nil, err
		}
		if list.Len() == 0 {
			return nil, errors.New("rng.choice: there is nothing to choose from")
		}
		return list.Index(int(r.source.Between(0, int64(list.Len())-1))), nil
	},
	"shuffled": func(r *rng, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var list starlark.Indexable
		if err := starlark.UnpackArgs("rng.shuffled", args, named, "list", &list); err != nil {
			return nil, err
		}
		values := make([]starlark.Value, list.Len())
		for to, from := range r.source.Permutation(list.Len()) {
			values[to] = list.Index(int(from))
		}
		return starlark.NewList(values), nil
	},
	"several": func(r *rng, args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		var count, low, high int64
		if err := starlark.UnpackArgs("rng.several", args, named, "low", &low, "high", &high, "count", &count); err != nil {
			return nil, err
		}
		const most = 10_000_000
		if count < 0 || count > most || count > 0 && (low > high || uint64(high)-uint64(low) < uint64(count-1)) {
			return nil, fmt.Errorf("rng.several(%d, %d, %d): there are not so many", low, high, count)
		}
		values := make([]starlark.Value, count)
		for i, x := range r.source.Sample(int(count), low, high) {
			values[i] = starlark.MakeInt64(x)
		}
		return starlark.NewList(values), nil
	},
}

// AttrNames implements starlark.HasAttrs.
func (r *rng) AttrNames() []string { return []string{"choice", "int", "several", "shuffled"} }

// Attr implements starlark.HasAttrs.
func (r *rng) Attr(name string) (starlark.Value, error) {
	draw := draws[name]
	if draw == nil {
		return nil, nil
	}
	return builtin("rng."+name, func(args starlark.Tuple, named []starlark.Tuple) (starlark.Value, error) {
		return draw(r, args, named)
	}), nil
}
