//go:build !portable

package box

import (
	"bufio"
	"errors"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"golang.org/x/sys/unix"
)

// A control group lets the kernel itself hold the memory and the number of
// processes of all that runs in it: cgroups(7). Each box has one of its own,
// with its warden in it. Limits there are a backstop, a little above the run's
// own, which the watch holds: a group also counts what the kernel needs for
// itself, files in memory, and the warden.

// Groups makes control groups. The zero value makes none.
type Groups struct {
	version int      // 2 or 1
	bases   []string // folders to make groups in: one, or one a controller
	under   string   // what made them, in words
}

// A group is one control group as the warden uses it. The whole warden lies in
// it, for the memory's sake, but of its threads only the one that starts
// programs is counted with them, so that a program that multiplies cannot keep
// the others from starting a thread. In version 2 that takes a threaded group
// inside the group.
type group struct {
	Version int      // 2 or 1; 0: there is none
	Folders []string // that of the memory, and that of the processes
}

// controllers are those that groups here need.
var controllers = []string{"memory", "pids"}

// String says which groups they are.
func (g *Groups) String() string {
	if g == nil || g.version == 0 {
		return ""
	}
	return fmt.Sprintf("cgroup v%d, %s", g.version, g.under)
}

// OpenGroups finds out where control groups can be made: below a group of
// version 2 that this process lies in and may change, or version 1, or one
// that the user's systemd gives. The error says why there are none. Groups
// that a killed process left behind are removed.
func OpenGroups() (*Groups, error) {
	mounts, err := groupMounts()
	if err != nil {
		return nil, err
	}
	var failures []error
	for _, find := range []func(map[string]string) (*Groups, error){inSecondVersion, inFirstVersion, fromSystemd} {
		g, err := find(mounts)
		if err == nil {
			g.removeStale()
			return g, nil
		}
		failures = append(failures, err)
	}
	return nil, errors.Join(failures...)
}

// groupMounts finds the folders that control groups are mounted on, by
// controller; "" stands for version 2.
func groupMounts() (map[string]string, error) {
	text, err := os.ReadFile("/proc/self/mountinfo")
	if err != nil {
		return nil, err
	}
	mounts := map[string]string{}
	for line := range strings.Lines(string(text)) {
		// ID, parent, device, root, mount point, ... - type, source, options
		before, after, _ := strings.Cut(strings.TrimSpace(line), " - ")
		left, right := strings.Fields(before), strings.Fields(after)
		if len(left) < 5 || len(right) < 3 {
			continue
		}
		switch right[0] {
		case "cgroup2":
			mounts[""] = left[4]
		case "cgroup":
			for _, option := range strings.Split(right[2], ",") {
				mounts[option] = left[4]
			}
		}
	}
	return mounts, nil
}

// ownGroups returns the group that this process lies in, by controller; ""
// stands for version 2.
func ownGroups() (map[string]string, error) {
	file, err := os.Open("/proc/self/cgroup")
	if err != nil {
		return nil, err
	}
	defer file.Close()
	own := map[string]string{}
	for lines := bufio.NewScanner(file); lines.Scan(); {
		parts := strings.SplitN(lines.Text(), ":", 3)
		if len(parts) == 3 {
			for _, controller := range strings.Split(parts[1], ",") {
				own[controller] = parts[2]
			}
		}
	}
	return own, nil
}

// inSecondVersion looks from this process's own group upwards for one in
// which this user may make groups that have the controllers.
func inSecondVersion(mounts map[string]string) (*Groups, error) {
	mount := mounts[""]
	if mount == "" {
		return nil, errors.New("cgroup v2 is not mounted")
	}
	if have := words(filepath.Join(mount, "cgroup.controllers")); !contains(have, controllers) {
		return nil, errors.New("cgroup v2 has no memory controller here")
	}
	own, err := ownGroups()
	if err != nil {
		return nil, err
	}
	for path := own[""]; ; path = filepath.Dir(path) {
		dir := filepath.Join(mount, path)
		if mayHold(dir) && enable(dir) == nil {
			return &Groups{2, []string{dir}, "below " + filepath.Clean("/"+path)}, nil
		}
		if path == "/" || path == "." || path == "" {
			return nil, fmt.Errorf("cgroup v2: this user may make no groups at or above %s", own[""])
		}
	}
}

// mayHold reports that this user may make groups in dir and move processes
// between those.
func mayHold(dir string) bool {
	return unix.Access(dir, unix.W_OK) == nil && unix.Access(filepath.Join(dir, "cgroup.procs"), unix.W_OK) == nil
}

// enable lets the groups in dir have the controllers.
func enable(dir string) error {
	file := filepath.Join(dir, "cgroup.subtree_control")
	if contains(words(file), controllers) {
		return nil
	}
	// Not os.WriteFile, which would first ask for the file to be cut.
	return putText(file, "+memory +pids")
}

func words(path string) []string {
	text, err := os.ReadFile(path)
	if err != nil {
		return nil
	}
	return strings.Fields(string(text))
}

func contains(have, want []string) bool {
	return !slices.ContainsFunc(want, func(w string) bool { return !slices.Contains(have, w) })
}

// inFirstVersion takes the group that this process lies in, for each
// controller, or the topmost one.
func inFirstVersion(mounts map[string]string) (*Groups, error) {
	own, err := ownGroups()
	if err != nil {
		return nil, err
	}
	g := &Groups{version: 1, under: "below this process's own groups"}
	for _, controller := range controllers {
		mount, ok := mounts[controller]
		if !ok {
			return nil, fmt.Errorf("cgroup v1 has no %s controller here", controller)
		}
		dir := filepath.Join(mount, own[controller])
		if unix.Access(dir, unix.W_OK) != nil {
			dir = mount
		}
		if err := unix.Access(dir, unix.W_OK); err != nil {
			return nil, fmt.Errorf("cgroup v1: this user may make no groups in %s", dir)
		}
		g.bases = append(g.bases, dir)
	}
	return g, nil
}

const groupName = "cold-verdict-"

// make makes the group of one box. Its name tells whose it is.
func (g *Groups) make(number int) (made group, err error) {
	if g == nil || g.version == 0 {
		return group{}, nil
	}
	made.Version = g.version
	name := fmt.Sprintf("%s%d-%d", groupName, os.Getpid(), number)
	for _, base := range g.bases {
		made.Folders = append(made.Folders, filepath.Join(base, name))
	}
	if g.version == 2 {
		made.Folders = append(made.Folders, filepath.Join(made.Folders[0], "programs"))
	}
	for _, dir := range made.Folders {
		if err := os.Mkdir(dir, 0o755); err != nil && !errors.Is(err, os.ErrExist) {
			return group{}, errors.Join(err, made.remove())
		}
	}
	if g.version == 2 {
		err = putText(filepath.Join(made.Folders[1], "cgroup.type"), "threaded")
		if err == nil {
			err = putText(filepath.Join(made.Folders[0], "cgroup.subtree_control"), "+pids")
		}
		if err != nil {
			return group{}, errors.Join(fmt.Errorf("cannot part threads in %s: %w", made.Folders[0], err), made.remove())
		}
	}
	return made, nil
}

// removeStale removes the groups of processes that are no more. A group in
// which something lives cannot be removed.
func (g *Groups) removeStale() {
	for _, base := range g.bases {
		left, _ := filepath.Glob(filepath.Join(base, groupName+"*"))
		for _, dir := range left {
			owner, _, _ := strings.Cut(strings.TrimPrefix(filepath.Base(dir), groupName), "-")
			pid, err := strconv.Atoi(owner)
			if err == nil && pid != os.Getpid() && unix.Kill(pid, 0) == unix.ESRCH {
				unix.Rmdir(filepath.Join(dir, "programs"))
				unix.Rmdir(dir)
			}
		}
	}
}

// remove removes the group, which must be empty but for processes that are
// about to be gone.
func (g group) remove() (err error) {
	for _, dir := range slices.Backward(g.Folders) {
		e := unix.Rmdir(dir)
		for try := 0; e == unix.EBUSY && try < 200; try++ {
			napMillisecond()
			e = unix.Rmdir(dir)
		}
		if e != nil && e != unix.ENOENT {
			err = errors.Join(err, fmt.Errorf("cannot remove the control group %s: %w", dir, e))
		}
	}
	return err
}

// join moves this process into the group, as far as it belongs there.
func (g group) join() error {
	files := []string{"tasks", "tasks"}
	if g.Version == 2 {
		files = []string{"cgroup.procs", "cgroup.threads"}
	}
	for i, dir := range g.Folders {
		if err := putText(filepath.Join(dir, files[i]), "0"); err != nil {
			return fmt.Errorf("cannot enter the control group %s: %w", dir, err)
		}
	}
	return nil
}

// A hold is an open group, through which limits are set and kills are seen.
type hold struct {
	version                 int
	memory, count, kills    int // open files; -1: none
	lastMemory, lastMaximum int64
	seen                    int64 // processes that the kernel has killed for memory
}

// enter moves this process into the group and opens the files that limits go
// to: on mounts of their own where clone says so, since whatever is open for
// writing keeps a mount from being made read-only.
func (g group) enter(clone bool) (h hold, err error) {
	h = hold{memory: -1, count: -1, kills: -1}
	if g.Version == 0 {
		return h, nil
	}
	if err := g.join(); err != nil {
		return h, err
	}
	limit, kills := "memory.max", "memory.events"
	if g.Version == 1 {
		limit, kills = "memory.limit_in_bytes", "memory.oom_control"
	}
	first, last := g.Folders[0], g.Folders[1]
	for _, one := range []struct {
		fd           *int
		folder, file string
		mode         int
	}{
		{&h.memory, first, limit, unix.O_WRONLY},
		{&h.count, last, "pids.max", unix.O_WRONLY},
		{&h.kills, first, kills, unix.O_RDONLY},
	} {
		flags := uint(unix.O_PATH | unix.O_CLOEXEC)
		dir, err := unix.Open(one.folder, int(flags), 0)
		if clone {
			unix.Close(dir)
			dir, err = unix.OpenTree(unix.AT_FDCWD, one.folder, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC)
		}
		if err == nil {
			*one.fd, err = unix.Openat(dir, one.file, one.mode|unix.O_CLOEXEC, 0)
			unix.Close(dir)
		}
		if err != nil {
			return h, fmt.Errorf("cannot use %s of the control group: %w", one.file, err)
		}
	}
	// No swap: what is not in memory is not measured. Absent where there is none.
	if g.Version == 1 {
		putText(first+"/memory.swappiness", "0")
	} else {
		putText(first+"/memory.swap.max", "0")
	}
	h.version = g.Version
	h.seen = h.killed()
	return h, nil
}

// What a group counts beyond what a program holds itself: kernel memory and the
// warden's, and the thread that starts programs. The watch shall find what
// multiplies before the kernel stops it.
const (
	groupSpare   = 48 << 20
	groupThreads = 64
)

// set bounds the group for a run; files are the bytes that the run may write
// to its working folder, which lies in memory.
func (h *hold) set(memory, files int64, processes int) error {
	if h.version == 0 {
		return nil
	}
	const unlimited = math.MaxInt64
	limit, most := int64(unlimited), int64(unlimited)
	if memory > 0 {
		limit = memory + memory/16 + files + groupSpare
	}
	if processes > 0 {
		most = int64(processes) + groupThreads
	}
	for _, one := range []struct {
		fd   int
		want int64
		last *int64
	}{{h.memory, limit, &h.lastMemory}, {h.count, most, &h.lastMaximum}} {
		if one.want == *one.last {
			continue
		}
		text := "max"
		if one.want != unlimited {
			text = strconv.FormatInt(one.want, 10)
		} else if h.version == 1 && one.fd == h.memory {
			text = "-1"
		}
		if _, err := unix.Pwrite(one.fd, []byte(text), 0); err != nil {
			return fmt.Errorf("cannot set the limits of the control group: %w", err)
		}
		*one.last = one.want
	}
	return nil
}

// killedForMemory reports that the kernel has killed something for memory
// since it was asked last.
func (h *hold) killedForMemory() bool {
	if h.version == 0 {
		return false
	}
	now := h.killed()
	more := now > h.seen
	h.seen = now
	return more
}

// killed reads how many processes the kernel has killed for memory so far:
// the same word in both versions.
func (h *hold) killed() int64 {
	var buffer [512]byte
	n, err := unix.Pread(h.kills, buffer[:], 0)
	if err != nil {
		return h.seen
	}
	for line := range strings.Lines(string(buffer[:n])) {
		if count, ok := strings.CutPrefix(line, "oom_kill "); ok {
			n, _ := strconv.ParseInt(strings.TrimSpace(count), 10, 64)
			return n
		}
	}
	return 0
}

// putText writes to a file of the kernel, which must be there.
func putText(path, text string) error {
	file, err := os.OpenFile(path, os.O_WRONLY, 0)
	if err != nil {
		return err
	}
	_, err = file.WriteString(text)
	return errors.Join(err, file.Close())
}

func napMillisecond() {
	span := unix.NsecToTimespec(1e6)
	unix.Nanosleep(&span, nil)
}
