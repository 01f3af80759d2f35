//go:build !portable

package box

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"golang.org/x/sys/unix"
)

// Programs see a tree that holds what they need and nothing else: where the system
// keeps runtimes, a few harmless devices, an empty folder to work in, and what the
// caller lists. All but that folder is read-only.

// systemSettings are what runtimes read below /etc, and below its folder ssl.
var systemSettings = []string{
	"ld.so.*", "alternatives", "localtime", "timezone", "locale.*", "nsswitch.conf", "os-release", "openssl.cnf", "crypto-policies",
	"java*", "jvm*", "mono", "fpc*", "nim*", "ldc*", "ghc*", "haskell*", "perl*", "php*", "python*", "pypy*", "ruby*", "lua*", "ocaml*", "clojure*",
	"nodejs*", "kotlin*", "julia*", "R", "erlang*", "swipl*", "guile*",
}

// systemPaths lists those that are there.
func systemPaths() (paths []string) {
	for _, path := range systemPlaces {
		if _, err := os.Lstat(path); err == nil {
			paths = append(paths, path)
		}
	}
	for _, folder := range []string{"/etc", "/etc/ssl"} {
		entries, _ := os.ReadDir(folder)
		for _, entry := range entries {
			wanted := func(pattern string) bool { ok, _ := filepath.Match(pattern, entry.Name()); return ok }
			if slices.ContainsFunc(systemSettings, wanted) {
				paths = append(paths, filepath.Join(folder, entry.Name()))
			}
		}
	}
	return paths
}

// privateFolder is where programs work inside a tree of their own. The other
// places for temporary files lead to the same folder.
const privateFolder = "/tmp"

// A tree is what programs see, as the supervisor changes it.
type tree struct {
	keeper  *keeper
	folder  *workFolder
	size    int64    // bytes that the working folder may hold; 0: as folderOptions has it
	base    int      // the topmost folder of the tree, writable: where what is shown gets its place
	hidden  []string // as Options has them
	visible []string // likewise: shown to all programs
	reads   []string // what the program of this moment asked for
	writes  []string
	shown   []string // shown for it, in the order in which they were mounted
	made    []string // folders and links that were made for those
}

// A view is something of the machine that programs are to see.
type view struct {
	path     string
	readOnly bool
	optional bool // what may not be opened is passed over
	real     string
	mount    int // what lies there, as a mount of its own that is nowhere yet; -1: nothing does
}

// views lists paths that programs may read.
func views(paths []string) (list []view) {
	for _, path := range paths {
		list = append(list, view{path: path, readOnly: true})
	}
	return list
}

// clone opens what lies at the view's path, wherever links lead.
func (v *view) clone() (err error) {
	v.mount = -1
	if v.real, err = filepath.EvalSymlinks(v.path); err != nil {
		return err
	}
	if v.mount, err = unix.OpenTree(unix.AT_FDCWD, v.real, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC|unix.AT_RECURSIVE); err != nil {
		v.mount = -1
		return err
	}
	attributes := unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY | unix.MOUNT_ATTR_NOSUID | unix.MOUNT_ATTR_NODEV}
	if !v.readOnly {
		attributes = unix.MountAttr{Attr_clr: unix.MOUNT_ATTR_RDONLY}
	}
	if err = unix.MountSetattr(v.mount, "", unix.AT_EMPTY_PATH|unix.AT_RECURSIVE, &attributes); err != nil {
		unix.Close(v.mount)
		v.mount = -1
	}
	return err
}

// newTree moves this thread into a tree of its own.
func newTree(init *initProcess, hidden, visible []string, folder *workFolder) (t *tree, err error) {
	if err := unix.Unshare(unix.CLONE_NEWNS); err != nil {
		return nil, fmt.Errorf("cannot have a tree of its own: %w", err)
	}
	system := views(systemPaths()) // while they can be seen
	const root = privateFolder     // of this thread's tree, until it is the root itself
	if err := mountTmpfs(root, "size=1m,mode=755", 0); err != nil {
		return nil, err
	}
	if err := ownDevices(root); err != nil {
		return nil, err
	}
	for _, dir := range []string{"/proc", privateFolder, "/var"} {
		if err := os.Mkdir(root+dir, 0o755); err != nil {
			return nil, err
		}
	}
	if err := os.Symlink(privateFolder, root+"/var/tmp"); err != nil {
		return nil, err
	}
	t = &tree{folder: folder, hidden: hidden, visible: visible}
	if t.base, err = unix.OpenTree(unix.AT_FDCWD, root, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC); err != nil {
		return nil, fmt.Errorf("cannot keep the programs' tree: %w", err)
	}
	if err := unix.MountSetattr(unix.AT_FDCWD, root, 0, &unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY}); err != nil {
		return nil, fmt.Errorf("cannot make the programs' tree read-only: %w", err)
	}
	if err := enterTree(root); err != nil {
		return nil, err
	}
	if t.keeper, err = newKeeper(); err != nil {
		return nil, err
	}
	*folder = workFolder{path: privateFolder, fd: -1, mounted: true}
	if err := t.renewFolder(); err != nil {
		return nil, err
	}
	for i := range system {
		system[i].optional = true
	}
	if err := t.add(append(system, views(visible)...)); err != nil {
		return nil, err
	}
	t.shown, t.made = nil, nil // these stay
	if err := init.ready(); err != nil {
		return nil, err
	}
	if err := t.keeper.do(init.showProc); err != nil {
		return nil, err
	}
	if err := t.keeper.do(t.hideAll); err != nil {
		return nil, err
	}
	return t, folder.note()
}

// enterTree makes a mount the root of what this thread sees, and of nothing else.
func enterTree(root string) error {
	// The old tree goes below the new one, and away: pivot_root(2).
	if err := unix.Chdir(root); err != nil {
		return err
	}
	if err := unix.PivotRoot(".", "."); err != nil {
		return fmt.Errorf("cannot enter the programs' tree: %w", err)
	}
	if err := unix.Unmount(".", unix.MNT_DETACH); err != nil {
		return fmt.Errorf("cannot leave the machine's tree: %w", err)
	}
	return unix.Chdir("/")
}

// show lets programs see just what one program needs besides what all see.
func (t *tree) show(reads, writes []string) error {
	if slices.Equal(t.reads, reads) && slices.Equal(t.writes, writes) {
		return nil
	}
	inFolder := slices.ContainsFunc(slices.Concat(t.reads, t.writes), isTemporary)
	t.reads, t.writes = nil, nil
	err := t.keeper.do(func() (err error) {
		for _, path := range slices.Backward(t.shown) {
			err = errors.Join(err, unix.Unmount(path, unix.MNT_DETACH))
		}
		for _, path := range slices.Backward(t.made) {
			unix.Unlinkat(t.base, path, unix.AT_REMOVEDIR)
			unix.Unlinkat(t.base, path, 0)
		}
		t.shown, t.made = nil, nil
		return err
	})
	if err != nil {
		return fmt.Errorf("cannot take away what another program needed: %w", err)
	}
	if inFolder {
		if err := t.renewFolder(); err != nil {
			return err
		}
	}
	t.reads, t.writes = reads, writes
	if err := t.add(t.own()); err != nil {
		t.reads, t.writes = nil, nil
		return err
	}
	if err := t.keeper.do(t.hideAll); err != nil {
		return err
	}
	return t.folder.note()
}

// temporary are the places for temporary files, which are all the working folder
// here.
var temporary = []string{privateFolder + "/", "/var/tmp/", "/dev/shm/"}

func isTemporary(path string) bool {
	return slices.ContainsFunc(temporary, func(t string) bool { return strings.HasPrefix(path, t) })
}

// seenAt is where the tree shows what lies at a path.
func seenAt(path string) string {
	for _, t := range temporary {
		if rest, ok := strings.CutPrefix(path, t); ok {
			return privateFolder + "/" + rest
		}
	}
	return path
}

// own lists what the program of this moment asked for, the outer ones first, so that the
// inner ones lie on them.
func (t *tree) own() []view {
	list := views(slices.Sorted(slices.Values(slices.Concat(t.reads, t.writes))))
	for i := range list {
		list[i].readOnly = !slices.Contains(t.writes, list[i].path)
	}
	return list
}

// add shows what lies at paths of the machine, with the links that lead there. What is
// not there is passed over: what needs it will say so.
func (t *tree) add(list []view) error {
	defer func() {
		for _, v := range list {
			if v.mount >= 0 {
				unix.Close(v.mount)
			}
		}
	}()
	for i := range list {
		list[i].mount = -1
	}
	each := func(do func(*view) error) func() error {
		return func() error {
			for i := range list {
				v := &list[i]
				err := do(v)
				if errors.Is(err, fs.ErrNotExist) || v.optional && errors.Is(err, fs.ErrPermission) {
					continue
				}
				if err != nil {
					return fmt.Errorf("cannot show %s: %w", v.path, err)
				}
			}
			return nil
		}
	}
	if err := outside(each((*view).clone)); err != nil {
		return err
	}
	return t.keeper.do(each(t.place))
}

// place puts a view where it lies on the machine, and leads a link there.
func (t *tree) place(v *view) (err error) {
	switch {
	case v.mount < 0:
		return nil
	case v.readOnly && t.sees(v.real, v.mount):
	case isTemporary(v.real):
		err = t.addToFolder(v.mount, strings.TrimPrefix(seenAt(v.real), privateFolder+"/"))
	default:
		if err = t.makeParents(v.real); err != nil {
			return err
		}
		if _, err := os.Lstat(v.real); err != nil {
			if err := t.make(v.real, func(name string) error { return makePoint(v.mount, t.base, name) }); err != nil {
				return err
			}
		}
		if err = unix.MoveMount(v.mount, "", unix.AT_FDCWD, v.real, unix.MOVE_MOUNT_F_EMPTY_PATH); err == nil {
			t.shown = append(t.shown, v.real)
		}
	}
	if err != nil || v.real == v.path || isTemporary(v.path) || t.sees(v.path, v.mount) {
		return err
	}
	if err := t.makeParents(v.path); err != nil {
		return err
	}
	return t.make(v.path, func(name string) error { return unix.Symlinkat(v.real, t.base, name) })
}

// makePoint makes an empty folder or file to put a mount on.
func makePoint(mount, dir int, name string) error {
	var s unix.Stat_t
	if err := unix.Fstat(mount, &s); err != nil {
		return err
	}
	if s.Mode&unix.S_IFMT == unix.S_IFDIR {
		return unix.Mkdirat(dir, name, 0o755)
	}
	return unix.Mknodat(dir, name, unix.S_IFREG|0o644, 0)
}

// addToFolder shows a mount in the working folder. The first folder on the way there
// is a file system of its own, which is read-only, so that nothing can be left in it.
func (t *tree) addToFolder(mount int, path string) error {
	first, _, nested := strings.Cut(path, "/")
	top := privateFolder + "/" + first
	whole := privateFolder + "/" + path
	if nested && !t.folder.kept[first] {
		if err := os.Mkdir(top, 0o755); err != nil {
			return err
		}
		if err := mountTmpfs(top, "size=1m,mode=755", 0); err != nil {
			return err
		}
	}
	t.folder.kept[first] = true
	if nested {
		if err := unix.MountSetattr(unix.AT_FDCWD, top, 0, &unix.MountAttr{Attr_clr: unix.MOUNT_ATTR_RDONLY}); err != nil {
			return err
		}
		if err := os.MkdirAll(filepath.Dir(whole), 0o755); err != nil {
			return err
		}
	}
	if err := makePoint(mount, unix.AT_FDCWD, whole); err != nil && err != unix.EEXIST {
		return err
	}
	if err := unix.MoveMount(mount, "", unix.AT_FDCWD, whole, unix.MOVE_MOUNT_F_EMPTY_PATH); err != nil || !nested {
		return err
	}
	return unix.MountSetattr(unix.AT_FDCWD, top, 0, &unix.MountAttr{Attr_set: unix.MOUNT_ATTR_RDONLY})
}

// sees reports that the tree shows at a path already what lies on a mount.
func (t *tree) sees(path string, mount int) bool {
	var there, here unix.Stat_t
	return unix.Fstat(mount, &there) == nil && unix.Stat(path, &here) == nil && idOf(there) == idOf(here)
}

// makeParents makes the folders above a path that are not there.
func (t *tree) makeParents(path string) error {
	for i := 1; i < len(path); i++ {
		if path[i] != '/' {
			continue
		}
		if _, err := os.Lstat(path[:i]); err == nil {
			continue
		}
		if err := t.make(path[:i], func(name string) error { return unix.Mkdirat(t.base, name, 0o755) }); err != nil {
			return err
		}
	}
	return nil
}

// make makes something in the topmost folder's own file system.
func (t *tree) make(path string, how func(name string) error) error {
	name := strings.TrimPrefix(path, "/")
	if err := how(name); err != nil && err != unix.EEXIST {
		return err
	}
	t.made = append(t.made, name)
	return nil
}

// hideAll hides what is to be hidden, where it can be seen.
func (t *tree) hideAll() error {
	for _, path := range t.hidden {
		if err := t.hide(path); err != nil {
			return fmt.Errorf("cannot hide %s: %w", path, err)
		}
	}
	return nil
}

// nothing is an empty file that nobody may open.
const nothing = "/dev/nothing"

// hide puts something that nobody may open above a path. What is not there
// need not be hidden.
func (t *tree) hide(path string) error {
	info, err := os.Lstat(path)
	if errors.Is(err, fs.ErrNotExist) || errors.Is(err, unix.ENOTDIR) || errors.Is(err, fs.ErrPermission) {
		return nil
	}
	if err != nil {
		return err
	}
	// What is shown for this one program, or only lies above that, is not hidden.
	if slices.ContainsFunc(t.shown, func(s string) bool { return Within(s, path) }) {
		return nil
	}
	switch {
	case info.Mode().Perm() == 0: // hidden already
		return nil
	case info.Mode()&fs.ModeSymlink != 0:
		return nil // what it leads to is hidden by its own name
	case info.IsDir():
		err = mountTmpfs(path, "size=4k,nr_inodes=2,mode=000", unix.MS_RDONLY)
	default:
		err = unix.Mount(nothing, path, "", unix.MS_BIND, "")
	}
	if err == nil && t.belowShown(path) {
		t.shown = append(t.shown, path)
	}
	return err
}

// belowShown reports that a path lies in what is shown for one program only.
func (t *tree) belowShown(path string) bool {
	return slices.ContainsFunc(t.shown, func(s string) bool { return path != s && Within(path, s) })
}

func mountTmpfs(path, options string, flags uintptr) error {
	if err := unix.Mount("cold", path, "tmpfs", unix.MS_NOSUID|unix.MS_NODEV|unix.MS_NOATIME|flags, options); err != nil {
		return fmt.Errorf("cannot mount a folder of its own on %s: %w", path, err)
	}
	return nil
}

// folderOptions bound a working folder that may hold so many bytes; 0: as
// many as a run without a limit may write.
func folderOptions(size int64) string {
	if size <= 0 {
		size = 1 << 30
	}
	return fmt.Sprintf("size=%d,nr_inodes=%d", size, folderFiles)
}

// folderFiles bounds the number of files in a working folder.
const folderFiles = 32 << 10

// renewFolder puts a new working folder in the place of the old one, with nothing in
// it but what is shown there.
func (t *tree) renewFolder() error {
	err := t.keeper.do(func() error {
		for { // whatever was mounted there
			if err := unix.Unmount(privateFolder, unix.MNT_DETACH); err != nil {
				break
			}
		}
		return mountTmpfs(privateFolder, folderOptions(t.size)+",mode=700", 0)
	})
	if err != nil {
		return err
	}
	t.folder.kept = map[string]bool{}
	if err := t.folder.open(); err != nil {
		return err
	}
	again := slices.DeleteFunc(append(views(t.visible), t.own()...), func(v view) bool { return !isTemporary(v.path) })
	if len(again) > 0 {
		if err := t.add(again); err != nil {
			return err
		}
	}
	return t.folder.note()
}

// resizeFolder bounds the working folder's bytes from now on.
func (t *tree) resizeFolder(size int64) error {
	t.size = size
	err := t.keeper.do(func() error {
		return unix.Mount("", privateFolder, "", unix.MS_REMOUNT|unix.MS_NOSUID|unix.MS_NODEV|unix.MS_NOATIME, folderOptions(size))
	})
	return errors.Join(err, t.folder.note())
}

// ownDevices makes a /dev that holds the harmless devices only. It opens nothing for
// writing: a process that is started at this moment would have it open, too, and what it
// lies on could not be made read-only.
func ownDevices(root string) error {
	dev := root + "/dev"
	if err := os.Mkdir(dev, 0o755); err != nil {
		return err
	}
	for _, name := range []string{"null", "zero", "full", "random", "urandom"} {
		var fd int
		err := outside(func() (err error) {
			if fd, err = unix.OpenTree(unix.AT_FDCWD, "/dev/"+name, unix.OPEN_TREE_CLONE|unix.OPEN_TREE_CLOEXEC); err != nil {
				return err
			}
			return unix.MountSetattr(fd, "", unix.AT_EMPTY_PATH, &unix.MountAttr{Attr_clr: unix.MOUNT_ATTR_NODEV})
		})
		if err != nil {
			return fmt.Errorf("cannot take over /dev/%s: %w", name, err)
		}
		path := filepath.Join(dev, name)
		if err = makePoint(fd, unix.AT_FDCWD, path); err == nil {
			err = unix.MoveMount(fd, "", unix.AT_FDCWD, path, unix.MOVE_MOUNT_F_EMPTY_PATH)
		}
		unix.Close(fd)
		if err != nil {
			return fmt.Errorf("cannot take over /dev/%s: %w", name, err)
		}
	}
	for _, link := range [][2]string{
		{"/proc/self/fd", "fd"}, {"/proc/self/fd/0", "stdin"}, {"/proc/self/fd/1", "stdout"}, {"/proc/self/fd/2", "stderr"}, {privateFolder, "shm"},
	} {
		if err := os.Symlink(link[0], filepath.Join(dev, link[1])); err != nil {
			return err
		}
	}
	return unix.Mknodat(unix.AT_FDCWD, root+nothing, unix.S_IFREG, 0)
}
