package cli

import (
	"errors"
	"fmt"
	"io/fs"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"coldverdict/core/compare"
	"coldverdict/core/judge"
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

// settingsFile is what the person has said for all problems.
const settingsFile = "settings.toml"

// ownSettings reads the person's settings.toml, once for a command.
func (a *app) ownSettings() error {
	if a.own != nil {
		return nil
	}
	a.own = &problem.Settings{}
	languages, err := ownLanguages()
	if err != nil {
		return err
	}
	if a.languages == nil {
		a.languages = languages
	}
	path, text, err := ownFile(settingsFile)
	if err != nil || text == nil {
		return err
	}
	own, mistakes := problem.ReadSettings(path, problem.Plain(text), vocabulary(languages))
	if len(mistakes) > 0 {
		return mistakes
	}
	a.own = &own
	a.screen.Colour(own.Colour, os.Environ())
	return nil
}

// withOwnFlags adds the person's flags to the commands of compilers, which is said in the line of every build.
func (a *app) withOwnFlags(languages *toolchain.Languages) error {
	for _, name := range slices.Sorted(maps.Keys(a.own.Flags)) {
		if !languages.WithFlags(name, a.own.Flags[name]) {
			return usageError("%s:%d: no compiler builds %s, so that there are no flags", settingsFile, a.own.Lines["flags."+name], name)
		}
	}
	return nil
}

func (a *app) hostSettings() error {
	if err := a.ownSettings(); err != nil {
		return err
	}
	path, _, err := ownFile(settingsFile)
	if err != nil {
		return err
	}
	rows := [][3]string{}
	add := func(key, value, otherwise string) {
		from := "default"
		if line := a.own.Lines[key]; line > 0 {
			from = fmt.Sprintf("%s:%d", path, line)
		}
		if value == "" {
			value = otherwise
		}
		rows = append(rows, [3]string{key, value, from})
	}
	number := func(n float64) string {
		if n == 0 {
			return ""
		}
		return strconv.FormatFloat(n, 'g', -1, 64)
	}
	jobs := ""
	if a.own.Jobs > 0 {
		jobs = strconv.Itoa(a.own.Jobs)
	}
	add("language", a.own.Language, "none")
	add("jobs", jobs, strconv.Itoa(judge.DefaultJobs()))
	words, from, err := editorWords(a.own.Editor)
	switch {
	case from == settingsFile:
		add("editor", a.own.Editor, "")
	case err != nil:
		add("editor", "none", "")
	default:
		rows = append(rows, [3]string{"editor", strings.Join(words, " "), from})
	}
	add("warm", map[bool]string{true: "false"}[a.own.Unwarmed], "true")
	add("history", map[bool]string{true: "false"}[a.own.Forgets], "true")
	if os.Getenv("NO_COLOR") != "" {
		rows = append(rows, [3]string{"colour", "never", "$NO_COLOR"})
	} else {
		add("colour", a.own.Colour, "auto")
	}
	both := a.own.Absolute == 0 && a.own.Relative == 0
	add("compare.absolute", number(a.own.Absolute), map[bool]string{true: "1e-06", false: "none"}[both])
	add("compare.relative", number(a.own.Relative), map[bool]string{true: "1e-06", false: "none"}[both])
	for _, name := range slices.Sorted(maps.Keys(a.own.Flags)) {
		add("flags."+name, strings.Join(a.own.Flags[name], " "), "none")
	}
	a.screen.Settings(path, rows)
	return nil
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
