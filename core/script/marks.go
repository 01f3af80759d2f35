package script

import (
	"fmt"
	"path/filepath"

	"go.starlark.net/starlark"

	"coldverdict/core/shape"
)

// Marked is what a script says that an answer points at, by the words "vertices", "edges", "cells" and "items": numbers
// for vertices and items, pairs for edges and cells, as the answer would write them.
type Marked map[string][][]int64

// Marker reads a script that says what an answer points at in the picture of an input. The error names file and line.
func Marker(path string) (func(in shape.Values, answer string) (Marked, error), error) {
	call, err := function(path, Marks)
	if err != nil {
		return nil, err
	}
	name := filepath.Base(path)
	return func(in shape.Values, answer string) (Marked, error) {
		value, err := call(valuesOf(in), starlark.String(answer))
		if err != nil {
			return nil, err
		}
		said, ok := value.(*starlark.Dict)
		if !ok {
			return nil, fmt.Errorf("%s: %s returned %s; it must return a dictionary such as {\"vertices\": [1, 2]}", name, marks, short(value))
		}
		all := Marked{}
		for _, item := range said.Items() {
			key, ok := starlark.AsString(item[0])
			list, isList := item[1].(starlark.Iterable)
			if !ok || !isList || !marksKnown[key] {
				return nil, fmt.Errorf("%s: %s returned the entry %s; its keys can be vertices, edges, cells and items, each with a list", name, marks, short(item[0]))
			}
			if all[key], err = numbersOf(list); err != nil {
				return nil, fmt.Errorf("%s: %s, %s: %w", name, marks, key, err)
			}
		}
		return all, nil
	}, nil
}

var marksKnown = map[string]bool{"vertices": true, "edges": true, "cells": true, "items": true}

// numbersOf reads a list of integers, or of pairs of them.
func numbersOf(list starlark.Iterable) (all [][]int64, err error) {
	each := func(v starlark.Value) (int64, error) {
		var n int64
		if err := starlark.AsInt(v, &n); err != nil {
			return 0, fmt.Errorf("%s is no integer", short(v))
		}
		return n, nil
	}
	i := list.Iterate()
	defer i.Done()
	for v := starlark.Value(nil); i.Next(&v); {
		var row []int64
		if pair, ok := v.(starlark.Indexable); ok {
			for k := range pair.Len() {
				n, err := each(pair.Index(k))
				if err != nil {
					return nil, err
				}
				row = append(row, n)
			}
		} else {
			n, err := each(v)
			if err != nil {
				return nil, err
			}
			row = append(row, n)
		}
		all = append(all, row)
	}
	return all, nil
}
