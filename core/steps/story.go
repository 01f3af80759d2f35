package steps

import (
	"cmp"
	"slices"
	"strings"
)

// A Scene is a part of the story of a program: a step, or a loop.
type Scene struct {
	Step Step // the only one, or the first of a loop
	Loop *Loop
}

// A Loop is lines that ran several times one after the other.
type Loop struct {
	Lines []int // of one round, in their order
	Times int
	Last  int // number of the last step
	Vars  []Range
}

// A Range is what a variable was after the first round of a loop and after its last.
type Range struct {
	Name, First, Last string
	Changes           int
}

// Bounds of folding.
const (
	longestRound = 40
	leastRounds  = 3
)

// Story folds the steps of a program: a round of lines that runs three times and more one after the other, without
// printing, raising or doing what is hardly meant, is a loop. Loops within loops are folded where all of their rounds are alike.
func Story(steps []Step) (scenes []Scene) {
	for at := 0; at < len(steps); {
		round, times := repeated(steps[at:])
		if times >= leastRounds {
			scenes = append(scenes, Scene{steps[at], newLoop(steps[at:at+round*times], round, times)})
			at += round * times
			continue
		}
		scenes = append(scenes, Scene{Step: steps[at]})
		at++
	}
	return scenes
}

// repeated finds the shortest round with which steps begin that repeats often enough, and how often.
func repeated(steps []Step) (round, times int) {
	for round = 1; round <= longestRound && round*leastRounds <= len(steps); round++ {
		times = 1
		for alike(steps, round, times) {
			times++
		}
		if times >= leastRounds {
			return round, times
		}
	}
	return 0, 0
}

// alike reports that the round with a number runs the lines of the first.
func alike(steps []Step, round, number int) bool {
	from := round * number
	if from+round > len(steps) {
		return false
	}
	for i := range round {
		a, b := &steps[i], &steps[from+i]
		if a.Line != b.Line || a.Depth != b.Depth || quiet(a) != quiet(b) || !quiet(a) {
			return false
		}
	}
	return true
}

func quiet(s *Step) bool { return s.Output == "" && s.Error == "" && s.Warning == "" }

func newLoop(steps []Step, round, times int) *Loop {
	l := &Loop{Times: times, Last: steps[len(steps)-1].Number}
	for _, s := range steps[:round] {
		l.Lines = append(l.Lines, s.Line)
	}
	for _, s := range steps {
		for _, c := range s.Changes {
			i := slices.IndexFunc(l.Vars, func(r Range) bool { return r.Name == c.Name })
			if i < 0 {
				l.Vars = append(l.Vars, Range{Name: c.Name, First: c.Value})
				i = len(l.Vars) - 1
			}
			l.Vars[i].Last = c.Value
			l.Vars[i].Changes++
		}
	}
	return l
}

// A Parting is where a variable of two programs first has another value in the one than in the other, counted by how
// often it changed.
type Parting struct {
	Name, Theirs string // in the first program, and in the second one
	Change       int    // the first that differs, from 1
	Value, Other string
	Line, Beside int // of the two sources; 0: it did not change so often there
}

// Partings compare the values that variables of the same name took, in their order: the earliest parting of the first
// program comes first. Where a variable has another name in the second one, called says which. Names of loops that only
// count are left to the reader.
func Partings(a, b *Recording, called map[string]string) (list []Parting) {
	type change struct {
		value      string
		line, step int
	}
	values := func(r *Recording) (names []string, of map[string][]change) {
		of = map[string][]change{}
		for _, s := range r.Steps {
			for _, c := range s.Changes {
				if of[c.Name] == nil {
					names = append(names, c.Name)
				}
				of[c.Name] = append(of[c.Name], change{c.Value, s.Line, s.Number})
			}
		}
		return names, of
	}
	names, ours := values(a)
	_, theirs := values(b)
	steps := map[string]int{}
	for _, name := range names {
		mine, other := ours[name], theirs[cmp.Or(called[name], name)]
		if other == nil {
			continue
		}
		for i := range max(len(mine), len(other)) {
			p := Parting{Name: name, Theirs: cmp.Or(called[name], name), Change: i + 1}
			step := a.Total + 1
			if i < len(mine) {
				p.Value, p.Line, step = mine[i].value, mine[i].line, mine[i].step
			}
			if i < len(other) {
				p.Other, p.Beside = other[i].value, other[i].line
			}
			if p.Value != p.Other {
				steps[name] = step
				list = append(list, p)
				break
			}
		}
	}
	slices.SortStableFunc(list, func(x, y Parting) int { return steps[x.Name] - steps[y.Name] })
	return list
}

// Around are the scenes before and with the last one, at most so many.
func Around(scenes []Scene, most int) []Scene {
	return scenes[max(0, len(scenes)-most):]
}

// Text is a line of the source, without the blanks around it.
func (r *Recording) Text(line int) string {
	if line < 1 || line > len(r.Source) {
		return ""
	}
	return strings.TrimRight(r.Source[line-1], " \t\r")
}
