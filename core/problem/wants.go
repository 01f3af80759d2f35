package problem

import (
	"cmp"
	"fmt"
	"maps"
	"strings"

	"coldverdict/core/settings"
)

// A Judge is what [judge] says of the judge that solutions are handed in to. Zero values were not
// set.
type Judge struct {
	Class       string            // the name that the class with the program must have
	Versions    map[string]string // of languages: "cpp" and "17"
	SourceLimit int64             // bytes
	Imports     bool              // it supplies the usual imports of a function problem
}

// Over is what is said here, and where nothing is, what is said below.
func (j Judge) Over(below Judge) Judge {
	versions := map[string]string{}
	maps.Copy(versions, below.Versions)
	maps.Copy(versions, j.Versions)
	return Judge{cmp.Or(j.Class, below.Class), versions, cmp.Or(j.SourceLimit, below.SourceLimit), j.Imports || below.Imports}
}

// readJudge returns what reads a [judge] table. A language is named as in [limits], with its
// version.
func readJudge(j *Judge, r *settings.Reader, languages []string) func(at string, value any) {
	return func(at string, value any) {
		j.Versions = map[string]string{}
		known := settings.Fields{"class": r.Text(&j.Class), "source_limit": sizeOf(&j.SourceLimit, r), "imports": r.Truth(&j.Imports)}
		for _, name := range languages {
			known[name] = func(at string, value any) {
				var version string
				if r.Text(&version)(at, value); version == "" || strings.Trim(version, "0123456789.") != "" {
					r.WrongAt(at, "%s is %q; write the version of the language, such as \"17\" or \"3.8\"", at, version)
				}
				j.Versions[name] = version
			}
		}
		r.Table(at, value, known)
	}
}

// Settings are what a person has said for all problems. Zero values were not set.
type Settings struct {
	Judge              Judge
	Language           string // of a source to begin with
	Jobs               int
	Editor             string              // a command with its options
	Unwarmed           bool                // headers are not compiled in the background
	Forgets            bool                // no try is kept in the history
	Colour             string              // "never" or "always"; empty: as the terminal allows
	Flags              map[string][]string // of compilers, by the language's name
	Absolute, Relative float64             // errors that are allowed where numbers are compared and nothing is said
	Lines              map[string]int      // where each was said, by its key
}

// ReadSettings reads a person's own settings.toml, which holds what counts for all problems.
func ReadSettings(file string, text []byte, words Vocabulary) (s Settings, mistakes Mistakes) {
	s.Flags, s.Lines = map[string][]string{}, map[string]int{}
	warm, remembers := true, true
	r, tree := settings.Read(text, func(line int, format string, args ...any) {
		mistakes = append(mistakes, Mistake{file, line, fmt.Sprintf(format, args...)})
	})
	if tree != nil {
		r.Table("", tree, settings.Fields{
			"judge":    readJudge(&s.Judge, r, words.LimitNames),
			"language": r.OneOf(&s.Language, words.Languages),
			"jobs": func(at string, value any) {
				n, ok := value.(int64)
				if s.Jobs = int(n); !ok || n < 1 || n > 256 {
					r.WrongAt(at, "jobs is %v; it can be 1 to 256", value)
				}
			},
			"editor":  r.Text(&s.Editor),
			"warm":    r.Truth(&warm),
			"history": r.Truth(&remembers),
			"colour":  r.OneOf(&s.Colour, []string{"auto", "never", "always"}),
			"flags": func(at string, value any) {
				fields := settings.Fields{}
				for _, name := range words.LimitNames {
					fields[name] = func(at string, value any) {
						var list []string
						r.Texts(&list)(at, value)
						s.Flags[name] = list
					}
				}
				r.Table(at, value, fields)
			},
			"compare": func(at string, value any) {
				r.Table(at, value, settings.Fields{"absolute": r.Tolerance(&s.Absolute), "relative": r.Tolerance(&s.Relative)})
			},
		})
		for _, key := range []string{"language", "jobs", "editor", "warm", "history", "colour", "compare.absolute", "compare.relative"} {
			s.Lines[key] = r.Line(key)
		}
		for name := range s.Flags {
			s.Lines["flags."+name] = r.Line("flags." + name)
		}
	}
	s.Unwarmed, s.Forgets = !warm, !remembers
	if s.Colour == "auto" {
		s.Colour = ""
	}
	return s, mistakes
}
