//go:build !portable

package box

import (
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
	turn  int       // how many were made
}

// After an exact sum there is none for so many times as long as it took, but
// not for longer than longestLook.
const exactPause = 4

// treeMemory returns the bytes that several processes hold at this moment: of
// one its resident set, of more the sum of their proportional sets, in which a
// page that several share counts once. What they hold outside of their address spaces
// counts as well. The exact sum is only made where it could be a new peak.
func (t *tracee) treeMemory(n count) (total int64, err error) {
	if n.members == nil { // too many to be looked at one by one
		b, err := t.account.memory()
		return b.pages, err
	}
	for _, m := range n.members {
		total += m.resident
	}
	if t.coarse {
		return total, nil
	}
	if len(n.members) > 1 && total > t.memory() {
		if total, err = t.sum.of(n.members); err != nil {
			return 0, err
		}
	}
	return total + hiddenIn(n.members), nil
}

// weigh looks at a process's proportional set.
func (m *member) weigh() (err error) {
	m.weight = 0
	if !sameMemory(m.pid, m.parent) {
		m.weight, err = proportional(m.pid)
	}
	return err
}

// weightOf adds up what processes hold. Those that were not weighed yet hold about what
// the others do, for what is in their address spaces.
func weightOf(members []*member) (total int64) {
	var resident, unknown int64
	for _, m := range members {
		if m.weighed > 0 {
			total += m.weight
			resident += m.resident
		} else {
			unknown += m.resident
		}
	}
	if resident > 0 {
		total += int64(float64(unknown) * min(1, float64(total)/float64(resident)))
	}
	return total
}

// of adds up what processes hold, of which each held so much by itself before.
func (s *sum) of(members []*member) (int64, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	began := time.Now()
	if began.Before(s.after) {
		return s.exact, nil
	}
	s.turn++
	err := lookAt(members, func(m *member) *int { return &m.weighed }, s.turn, s.turn, (*member).weigh)
	if err != nil {
		return 0, err
	}
	s.exact = weightOf(members)
	ended := time.Now()
	var again, largest int64
	for _, m := range members {
		// What a process that has ended meanwhile shared with others was
		// counted again with those: at the most all that it held.
		largest = max(largest, m.resident)
		if now, err := resident(m.pid); m.resident > 0 && (err == errGone || now == 0) {
			again += m.resident
		}
	}
	if again > 0 {
		s.exact = max(s.exact-again, largest)
	}
	s.after = ended.Add(min(exactPause*ended.Sub(began), longestLook))
	return s.exact, nil
}
