package cli

import (
	"errors"
	"io/fs"
	"os"
	"path/filepath"

	"coldverdict/core/compare"
	"coldverdict/core/problem"
	"coldverdict/core/toolchain"
)

// ownTable is the path of the person's own table of languages, empty for one
// who has no folder for settings.
func ownTable() string {
	dir, err := os.UserConfigDir()
	if err != nil {
		return ""
	}
	return filepath.Join(dir, "cold-verdict", toolchain.TableName)
}

// ownLanguages returns our table of languages, with what the person's own says
// above it. A table that cannot be understood is an error.
func ownLanguages() (*toolchain.Languages, error) {
	all := toolchain.Ours()
	path := ownTable()
	text, err := os.ReadFile(path)
	switch {
	case path == "" || errors.Is(err, fs.ErrNotExist) || outOfReach(path):
		return all, nil
	case err != nil:
		return nil, usageError("%s cannot be read: %v", path, err)
	}
	if mistakes := all.Add(path, problem.Plain(text)); len(mistakes) > 0 {
		return nil, mistakes
	}
	return all, nil
}

// outOfReach reports that a file may be in a folder of somebody else's.
func outOfReach(path string) bool {
	_, err := os.Stat(path)
	return errors.Is(err, fs.ErrPermission)
}

// languagesOf returns the table that counts in a problem's folder. What is wrong
// with the rest of its verdict.toml is for others to tell.
func languagesOf(dir string) (*toolchain.Languages, error) {
	all, err := ownLanguages()
	if err != nil {
		return nil, err
	}
	text, err := os.ReadFile(filepath.Join(dir, problem.ConfigFile))
	if err != nil {
		return all, nil
	}
	if mistakes := all.Add(problem.ConfigFile, problem.Plain(text)); len(mistakes) > 0 {
		if _, err := problem.Load(dir, vocabulary(toolchain.Ours())); err != nil {
			return nil, err
		}
		return nil, mistakes
	}
	return all, nil
}

// vocabulary is all that a problem's files may name.
func vocabulary(languages *toolchain.Languages) problem.Vocabulary {
	return problem.Vocabulary{
		Modes: compare.Modes(), AnyOrders: compare.AnyOrders(),
		Languages: languages.NamesWithStandards(), LimitNames: languages.Names(),
		IsSource: languages.IsSource,
	}
}
