//go:build !portable

package box

import (
	"bytes"
	"cmp"
	"fmt"
	"os"
	"slices"
	"strconv"
	"strings"
	"time"

	"golang.org/x/sys/unix"
)

// A census looks at all processes of a run. What one look costs does not grow without
// bound: where there are many, and a control group counts them, the group is asked;
// without one, those are looked at that were not looked at for longest.
type census struct {
	outside map[int]bool // processes that belong to no run
	apart   bool         // /proc shows those and the run's, and no others
	account *account

	coarse bool // what does not show in an address space does not matter

	members map[int]*member
	turn    int           // of looks at the run
	gone    time.Duration // processor time of those that are no more, as far as it was seen
}

// A member is one process of a run, as it was when it was looked at last.
type member struct {
	pid, parent int
	threads     int
	time        time.Duration
	resident    int64
	there       int // the last turn of the census in which it was alive
	hidden      hiddenMemory
	weight      int64 // proportional set size

	// The turns of the last looks at what stands above; 0: there was none.
	looked, lookedForHidden, weighed int
}

// hiddenMemory is what a process holds without having it in its address space, in
// bytes.
type hiddenMemory struct {
	tables  int64            // the kernel's page tables for it
	mapped  int64            // files in memory that are resident
	files   map[string]int64 // files in memory that it maps, by device and number: their size in the address space
	sockets int
}

// A count is what one look found.
type count struct {
	processes, threads int
	cpu                time.Duration // of those alive and, as far as seen, of those gone
	pids               []int
	members            []*member // nil: the group was asked instead
}

// lookTime bounds how long one look at many processes goes into details of one kind, and
// hiddenPause how many looks lie at least between two of what does not show in an address
// space.
const (
	lookTime    = 4 * time.Millisecond
	hiddenPause = 4
)

// lookAt goes into details: of few processes into those of all, and of many, as long as
// there is time, into those of the ones that were not looked at for longest. last is
// where a process notes the turn of its last look; most is that of the ones which are due.
func lookAt(members []*member, last func(*member) *int, most, turn int, look func(*member) error) error {
	many := len(members) > fewProcesses
	if many {
		members = slices.SortedStableFunc(slices.Values(members), func(a, b *member) int { return cmp.Compare(*last(a), *last(b)) })
	}
	began := time.Now()
	for _, m := range members {
		if *last(m) > most {
			continue
		}
		if many && time.Since(began) > lookTime {
			break
		}
		if err := look(m); err != nil && err != errGone {
			return err
		}
		*last(m) = turn
	}
	return nil
}

// begin forgets the run before.
func (c *census) begin() { c.members, c.turn, c.gone = map[int]*member{}, 0, 0 }

// list returns the numbers of the run's processes.
func (c *census) list() (pids []int, err error) {
	if !c.apart {
		all, _, err := descendants(os.Getpid())
		for _, p := range all {
			pids = append(pids, p.pid)
		}
		return pids, err
	}
	all, err := numbers(".")
	for _, pid := range all {
		if !c.outside[pid] {
			pids = append(pids, pid)
		}
	}
	return pids, err
}

// take looks at the run.
func (c *census) take() (n count, err error) {
	pids, err := c.list()
	if err != nil {
		return n, err
	}
	n.pids, n.processes, n.threads = pids, len(pids), len(pids)
	if len(pids) > fewProcesses && c.account.version != 0 {
		n.threads, err = c.account.threads()
		return n, err
	}
	c.turn++
	for _, pid := range pids {
		m := c.members[pid]
		if m == nil {
			m = &member{pid: pid}
			c.members[pid] = m
		}
		m.there = c.turn
		n.members = append(n.members, m)
	}
	for pid, m := range c.members {
		if m.there != c.turn {
			c.gone += m.time
			delete(c.members, pid)
		}
	}
	if err := lookAt(n.members, func(m *member) *int { return &m.looked }, c.turn, c.turn, (*member).look); err != nil {
		return n, err
	}
	if c.account.version == 0 && !c.coarse {
		hidden := func(m *member) *int { return &m.lookedForHidden }
		if err := lookAt(n.members, hidden, max(0, c.turn-hiddenPause), c.turn, (*member).lookForHidden); err != nil {
			return n, err
		}
	}
	n.threads, n.cpu = 0, c.gone
	for _, m := range n.members {
		n.threads += max(1, m.threads)
		n.cpu += m.time
	}
	return n, nil
}

// look reads what /proc tells of a process in one line: proc_pid_stat(5).
func (m *member) look() error {
	text, err := readProc(strconv.Itoa(m.pid) + "/stat")
	if err != nil {
		return err
	}
	_, rest, _ := bytes.Cut(text[bytes.LastIndexByte(text, ')')+1:], []byte{' '})
	fields := strings.Fields(string(rest))
	const parent, threads, pages = 4 - 3, 20 - 3, 24 - 3 // the first field here is the third
	if len(fields) <= pages {
		return fmt.Errorf("/proc/%d/stat says %q", m.pid, text)
	}
	m.parent, _ = strconv.Atoi(fields[parent])
	m.threads, _ = strconv.Atoi(fields[threads])
	held, _ := strconv.ParseInt(fields[pages], 10, 64)
	if m.resident = held * int64(os.Getpagesize()); held == 0 && m.threads > 1 { // its first thread has ended
		if m.resident, err = resident(m.pid); err != nil {
			return err
		}
	}
	used, err := processTime(m.pid)
	if err != nil && err != errGone {
		return err
	}
	m.time = max(m.time, used)
	return nil
}

// lookForHidden looks at what does not show in the address space.
func (m *member) lookForHidden() error {
	status, err := readStatus(m.pid)
	if err != nil {
		return err
	}
	m.hidden = hiddenMemory{tables: status.tables, mapped: status.shared, files: map[string]int64{}}
	base := strconv.Itoa(m.pid)
	maps, err := readWhole(base + "/maps")
	if err != nil {
		return err
	}
	for line := range bytes.Lines(maps) {
		// from-to, rights, offset, device, number, name
		if !bytes.Contains(line, []byte("/dev/zero (deleted)")) && !bytes.Contains(line, []byte("/memfd:")) {
			continue
		}
		fields := strings.Fields(string(line))
		from, to, _ := strings.Cut(fields[0], "-")
		low, _ := strconv.ParseUint(from, 16, 64)
		high, _ := strconv.ParseUint(to, 16, 64)
		m.hidden.files[fields[3]+" "+fields[4]] += int64(high - low)
	}
	fds, err := numbers(base + "/fd")
	if err == unix.EACCES { // it has made itself unreadable: what it maps is known all the same
		return nil
	}
	if err != nil {
		return err
	}
	root, _ := procRoot()
	for _, fd := range fds {
		var name [16]byte
		n, err := unix.Readlinkat(root, base+"/fd/"+strconv.Itoa(fd), name[:])
		if err == nil && strings.HasPrefix(string(name[:n]), "socket:") {
			m.hidden.sockets++
		}
	}
	return nil
}

// fewSockets are not worth counting, and socketRoom is what the kernel may hold for
// each of more.
const (
	fewSockets = 16
	socketRoom = 256 << 10
)

// hiddenIn adds up what processes hold outside of their address spaces.
func hiddenIn(members []*member) (total int64) {
	files := map[string]int64{}
	var mapped, tables, resident int64
	sockets := 0
	for _, m := range members {
		resident += m.resident
		tables += m.hidden.tables
		mapped += m.hidden.mapped
		sockets += m.hidden.sockets
		for id, size := range m.hidden.files {
			files[id] = max(files[id], size)
		}
	}
	for _, size := range files {
		total += size
	}
	total = max(0, total-mapped)
	if tables > resident/8+1<<20 { // few programs come near that
		total += tables
	}
	return total + int64(max(0, sockets-fewSockets))*socketRoom
}
