//go:build !portable

package box

import (
	"bufio"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"

	"golang.org/x/sys/unix"
)

// Groups makes control groups. The zero value makes none.
type Groups struct {
	version int      // 2 or 1
	bases   []string // folders to make groups in: one, or one a controller
	under   string   // what made them, in words
}

// controllers are those that groups here need. Version 2 always counts processor
// time; in version 1 that is a controller too.
var (
	controllers      = []string{"memory", "pids"}
	firstControllers = []string{"memory", "pids", "cpuacct"}
)

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
	for _, controller := range firstControllers {
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
	for _, dir := range slices.Compact(made.Folders) {
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
