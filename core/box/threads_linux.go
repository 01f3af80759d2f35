//go:build !portable

package box

// threads are the traced threads of a run other than the first of each process. The number of
// a process is that of its first thread, so nothing is kept of a process with one thread.
type threads struct {
	process map[int]int  // of each thread that is alive
	others  map[int]int  // how many of them a process has
	left    map[int]bool // processes whose first thread has ended before the others
}

// of returns the process that a thread belongs to, and whether it is known as one of its others.
func (s *threads) of(tid int) (process int, known bool) {
	if process, known = s.process[tid]; known {
		return process, true
	}
	return tid, false
}

func (s *threads) begin(tid, process int) {
	s.make()
	s.process[tid] = process
	s.others[process]++
}

func (s *threads) make() {
	if s.process == nil {
		*s = threads{map[int]int{}, map[int]int{}, map[int]bool{}}
	}
}

// leave notes that a thread is about to end, and reports whether it is the first of its process or
// the last.
func (s *threads) leave(tid int) bool {
	process, known := s.of(tid)
	s.end(tid)
	return !known || s.left[process] && s.others[process] == 0
}

// outlive notes that the first thread of a process ends before the others, some of which may not
// have shown themselves yet.
func (s *threads) outlive(process int) {
	s.make()
	s.left[process] = true
}

// end notes that a thread, or a process, has ended.
func (s *threads) end(tid int) {
	process, known := s.of(tid)
	if !known {
		delete(s.left, tid)
		return
	}
	delete(s.process, tid)
	if s.others[process]--; s.others[process] == 0 {
		delete(s.others, process)
	}
}

// executed notes that one thread of a process executes a program: it is the first now, and alone.
func (s *threads) executed(process int) {
	for tid, of := range s.process {
		if of == process {
			s.end(tid)
		}
	}
	delete(s.left, process)
}
