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

// ownFile reads a file of the person's folder for settings. text is nil where there is none.
func ownFile(name string) (path string, text []byte, err error) {
	dir, err := os.UserConfigDir()
	if err != nil {
		return "", nil, nil // there is no such folder
	}
	path = filepath.Join(dir, "cold-verdict", name)
	text, err = os.ReadFile(path)
	switch {
	case errors.Is(err, fs.ErrNotExist) || outOfReach(path):
		return path, nil, nil
	case err != nil:
		return path, nil, usageError("%s cannot be read: %v", path, err)
	}
	return path, text, nil
}

// ownJudge is what the person's settings.toml says of the judge.
func ownJudge(words problem.Vocabulary) (problem.Judge, error) {
	path, text, err := ownFile("settings.toml")
	if err != nil || text == nil {
		return problem.Judge{}, err
	}
	judge, mistakes := problem.ReadSettings(path, problem.Plain(text), words)
	if len(mistakes) > 0 {
		return judge, mistakes
	}
	return judge, nil
}

// ownLanguages returns our table of languages, with what the person's own says
// above it. A table that cannot be understood is an error.
func ownLanguages() (*toolchain.Languages, error) {
	all := toolchain.Ours()
	path, text, err := ownFile(toolchain.TableName)
	if err != nil || text == nil {
		return all, err
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
