package script

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/shape"
)

func TestAScriptSaysWhatAnAnswerPointsAt(t *testing.T) {
	marker := func(text string) (func(shape.Values, string) (Marked, error), error) {
		path := filepath.Join(t.TempDir(), "mark.star")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o644))
		return Marker(path)
	}
	mark, err := marker("def mark(input, answer):\n    k = int(answer)\n    return {\"vertices\": [k, input.n], \"edges\": [(k, k + 1)], \"cells\": []}\n")
	require.NoError(t, err)
	said, err := mark(shape.Values{{Name: "n", Value: int64(9)}}, "3")
	require.NoError(t, err)
	assert.Equal(t, Marked{"vertices": {{3}, {9}}, "edges": {{3, 4}}, "cells": nil}, said)
	_, err = mark(shape.Values{{Name: "n", Value: int64(9)}}, "x")
	assert.ErrorContains(t, err, "mark.star:2")

	_, err = marker("def marks(input, answer):\n    return {}\n")
	assert.ErrorContains(t, err, "mark.star defines no mark; write def mark(input, answer):")
	for text, says := range map[string]string{
		"return [1]":                  "it must return a dictionary",
		"return {\"vertex\": [1]}":    "its keys can be vertices, edges, cells and items",
		"return {\"items\": [\"a\"]}": "is no integer",
		"return {\"items\": 1}":       "each with a list",
	} {
		mark, err := marker("def mark(input, answer):\n    " + text + "\n")
		require.NoError(t, err)
		_, err = mark(nil, "")
		assert.ErrorContains(t, err, says, text)
	}
}
