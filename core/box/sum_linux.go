//go:build !portable

package box

import (
	"slices"
	"sync"
	"time"
)

// A sum adds up the memory of a tree of processes. An exact sum costs the
// kernel a walk through all page tables, during which the processes cannot
// start others, so it is done for a small share of the time only.
type sum struct {
	mu    sync.Mutex
	exact int64     // the last exact sum, in bytes
	after time.Time // when the next one may be made
}

// After an exact sum there is none for so many times as long as it took, but
// not for longer than longestLook.
const exactPause = 4

// treeMemory returns the bytes that several processes hold at this moment: of
// one its resident set, of more the sum of their proportional sets, in which a
// page that several share counts once. Files in memory that nothing maps count
// as well, standard input left out. The exact sum is only made where it could
// be a new peak.
func (t *tracee) treeMemory(all []process) (total int64) {
	single := make([]int64, len(all))
	for i, p := range all {
		single[i] = resident(p.pid)
		total += single[i]
	}
	if t.coarse {
		return total
	}
	if len(all) > 1 && total > t.memory() {
		total = t.sum.of(all, single)
	}
	if len(all) <= fewProcesses {
		total += unmappedFiles(all, t.input)
	}
	return total
}

// of adds up what processes hold, of which each held so much by itself before.
func (s *sum) of(all []process, single []int64) int64 {
	s.mu.Lock()
	defer s.mu.Unlock()
	began := time.Now()
	if began.Before(s.after) {
		return s.exact
	}
	s.exact = 0
	for _, p := range all {
		if !sameMemory(p.pid, p.parent) {
			s.exact += proportional(p.pid)
		}
	}
	ended := time.Now()
	again := int64(0)
	for i, p := range all {
		// What a process that has ended meanwhile shared with others was
		// counted again with those: at the most all that it held.
		if single[i] > 0 && resident(p.pid) == 0 {
			again += single[i]
		}
	}
	if again > 0 {
		s.exact = max(s.exact-again, slices.Max(single))
	}
	s.after = ended.Add(min(exactPause*ended.Sub(began), longestLook))
	return s.exact
}
