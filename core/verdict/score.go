package verdict

// A Score is the points of a solution.
type Score struct {
	Points   float64      // in all, of the groups of which they are known
	Possible float64      // of all groups that the solution runs
	Known    bool         // the points of every group are known
	Groups   []GroupScore // those that are worth something, in case order
}

// A GroupScore is the points of a solution in one group.
type GroupScore struct {
	Name     string
	Points   float64
	Possible float64
	// Known says that every case of the group was judged; Points is 0 otherwise.
	Known bool
}

// Add takes one more group in.
func (s *Score) Add(g GroupScore) {
	s.Known = (s.Known || len(s.Groups) == 0) && g.Known
	s.Groups = append(s.Groups, g)
	s.Points += g.Points
	s.Possible += g.Possible
}
