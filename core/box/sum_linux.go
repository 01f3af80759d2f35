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
	next  int       // of many processes, where the next look begins
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

// of adds up what processes hold, of which each held so much by itself before.
func (s *sum) of(members []*member) (int64, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	began := time.Now()
	if began.Before(s.after) {
		return s.exact, nil
	}
	var known, whole int64 // of those looked at: what they hold, and what they hold by themselves
	for i := range members {
		m := members[(s.next+i)%len(members)]
		if len(members) > fewProcesses && time.Since(began) > lookTime {
			s.next += i
			break
		}
		m.weighed, m.weight = true, 0
		if sameMemory(m.pid, m.parent) {
			continue
		}
		size, err := proportional(m.pid)
		if err != nil && err != errGone {
			return 0, err
		}
		m.weight = size
	}
	for _, m := range members {
		if m.weighed {
			known += m.weight
			whole += m.resident
		}
	}
	s.exact = known
	for _, m := range members {
		if !m.weighed && whole > 0 { // about what the others hold
			s.exact += int64(float64(m.resident) * min(1, float64(known)/float64(whole)))
		}
	}
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
