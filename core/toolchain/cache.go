package toolchain

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"golang.org/x/sys/unix"

	"coldverdict/core/box"
)

// format is part of every name in the cache; raise it when builds of an older
// program can no longer be used.
const format = "3"

// stageName begins the name of a folder in which something is being built.
const stageName = "stage-"

// A Kit builds programs and keeps them.
type Kit struct {
	dir       string // of the cache
	languages *Languages

	// Warm is told of headers that are to be compiled for later builds of a language; nil: nobody is.
	Warm func(language, text string, stepped bool)

	mu    sync.Mutex
	inUse []*os.File // records of the builds that this kit has given out, locked
}

// Open returns a kit that builds what the table of languages knows, ours where
// it is nil, and keeps its builds below dir, which is made if needed. A kit that
// is no longer needed must be closed.
func Open(dir string, languages *Languages) (*Kit, error) {
	if err := ownAlone(dir); err != nil {
		return nil, err
	}
	for _, sub := range []string{"tools", "builds", "includes", "locks"} {
		if err := os.MkdirAll(filepath.Join(dir, sub), 0o700); err != nil {
			return nil, fmt.Errorf("cannot use the build cache: %w; set XDG_CACHE_HOME to a folder that can be written", err)
		}
	}
	box.RemoveStale(dir, stageName)
	if languages == nil {
		languages = Ours()
	}
	return &Kit{dir: dir, languages: languages}, nil
}

// ownAlone makes the folder of the cache, and makes sure that it is this user's and
// nobody else can change it: who could, could have anything run.
func ownAlone(dir string) error {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("cannot use the build cache: %w; set XDG_CACHE_HOME to a folder that can be written", err)
	}
	var s unix.Stat_t
	if err := unix.Stat(dir, &s); err != nil {
		return fmt.Errorf("cannot use the build cache %s: %w", dir, err)
	}
	switch {
	case int(s.Uid) != os.Geteuid():
		return fmt.Errorf("the build cache %s belongs to another user; set XDG_CACHE_HOME to a folder of your own", dir)
	case s.Mode&0o022 != 0:
		return fmt.Errorf("others can change the build cache %s; run 'chmod go-w %s', or set XDG_CACHE_HOME to a folder of your own", dir, dir)
	}
	return nil
}

// roomWords are how compilers say that there is no room, in small letters. They remove what
// they could not finish, so that there may be some again when they have ended.
var roomWords = []string{"no space left on device", "disk quota exceeded", "disk full"}

// A linker that writes through memory is ended by this where there is no room. Who finds
// so much room, in bytes, was ended by something else.
const (
	endedWriting = "bus error"
	roomEnough   = 64 << 20
)

// fullError says that nothing more can be written to a folder, or that the compiler which
// said text there found no room; nil: there is room.
func fullError(dir, text string) error {
	file, err := os.CreateTemp(dir, "room-")
	if err == nil {
		defer os.Remove(file.Name())
		_, err = file.Write(make([]byte, 64<<10))
		err = errors.Join(err, file.Sync(), file.Close())
	}
	if err == nil && saysNoRoom(dir, strings.ToLower(text)) {
		err = fmt.Errorf("there was no room in %s for what the compiler writes", dir)
	}
	if err != nil {
		return fmt.Errorf("cannot use the build cache: %w; make room, or set XDG_CACHE_HOME to another folder", err)
	}
	return nil
}

func saysNoRoom(dir, text string) bool {
	if slices.ContainsFunc(roomWords, func(w string) bool { return strings.Contains(text, w) }) {
		return true
	}
	var s unix.Statfs_t
	return strings.Contains(text, endedWriting) && unix.Statfs(dir, &s) == nil && s.Bavail*uint64(s.Bsize) < roomEnough
}

// Close lets others remove the builds that this kit has given out.
func (k *Kit) Close() {
	k.mu.Lock()
	defer k.mu.Unlock()
	for _, file := range k.inUse {
		file.Close()
	}
	k.inUse = nil
}

// DefaultDir is the cache in the user's cache folder, or, for a user who has
// none, one in the folder for temporary files.
func DefaultDir() string {
	base, err := os.UserCacheDir()
	if err != nil {
		return filepath.Join(os.TempDir(), fmt.Sprintf("cold-verdict-%d", os.Getuid()))
	}
	return filepath.Join(base, "cold-verdict")
}

// record is what the cache remembers beside a build, in its folder.
type record struct {
	Command  string
	Duration time.Duration
	Log      string
	Main     string
	Size     int64 // of all files in the folder, bytes
}

const recordFile = "record.json"

// cacheName names a build by all that it is made from, but for what the source
// includes.
func (b *Build) cacheName(commands recipe) string {
	return digest(format, b.Language.Name, b.File, string(b.wrapping.Source), b.stamp, fmt.Sprint(commands), fmt.Sprint(b.wrapping.Files),
		fmt.Sprint(b.Language.BuildEnvironment, b.Language.Files, b.Language.Includes, b.Language.Main), b.surroundings())
}

// lookUp fills in build from the cache.
func (k *Kit) lookUp(build *Build, name string) bool {
	included, ok := k.included(name)
	if !ok {
		return false
	}
	return k.use(build, k.buildDir(name, included))
}

// use takes a build out of the cache, and keeps others from removing it.
func (k *Kit) use(build *Build, dir string) bool {
	file, err := os.Open(filepath.Join(dir, recordFile))
	if err != nil {
		return false
	}
	info, err := file.Stat()
	if err != nil {
		file.Close()
		return false
	}
	var kept record
	removed := unix.Flock(int(file.Fd()), unix.LOCK_SH|unix.LOCK_NB) == unix.EWOULDBLOCK
	if removed || json.NewDecoder(file).Decode(&kept) != nil || sizeOf(dir)-info.Size() < kept.Size { // others may clean caches, file by file
		file.Close()
		return false
	}
	if time.Since(info.ModTime()) > usedAgain {
		now := time.Now()
		os.Chtimes(file.Name(), now, now)
	}
	k.mu.Lock()
	k.inUse = append(k.inUse, file)
	k.mu.Unlock()
	build.Cached, build.Dir = true, dir
	build.Command, build.Duration, build.Log, build.main = kept.Command, kept.Duration, kept.Log, kept.Main
	return true
}

// usedAgain is how exactly it is known when a build was used last.
const usedAgain = time.Hour

// included returns the files that a source included when it was built last,
// the source itself left out.
func (k *Kit) included(name string) (files []string, known bool) {
	text, err := os.ReadFile(filepath.Join(k.dir, "includes", name))
	if err != nil {
		return nil, false
	}
	return strings.Split(strings.TrimSuffix(string(text), "\x00"), "\x00"), true
}

// buildDir names a build by its source and by what that includes, so that
// another text in a header is another build.
func (k *Kit) buildDir(name string, included []string) string {
	parts := []string{name}
	for _, file := range included {
		if file == "" {
			continue
		}
		parts = append(parts, file, textOf(file))
	}
	return filepath.Join(k.dir, "builds", digest(parts...))
}

// buildAlone waits until nobody else builds under a name, and keeps others
// waiting until it is released.
func (k *Kit) buildAlone(ctx context.Context, name string) (release func(), err error) {
	file, err := os.OpenFile(filepath.Join(k.dir, "locks", name), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("cannot use the build cache: %w", err)
	}
	for {
		err := unix.Flock(int(file.Fd()), unix.LOCK_EX|unix.LOCK_NB)
		switch {
		case err == nil:
			return func() { file.Close() }, nil
		case err != unix.EWOULDBLOCK && err != unix.EINTR:
			return func() { file.Close() }, nil // a file system without locks: both build
		}
		select {
		case <-ctx.Done():
			file.Close()
			return nil, ctx.Err()
		case <-time.After(5 * time.Millisecond):
		}
	}
}

// keep moves a finished build into the cache.
func (k *Kit) keep(build *Build, name, stage string) error {
	size := sizeOf(stage)
	text, err := json.Marshal(record{build.Command, build.Duration, build.Log, build.main, size})
	if err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join(stage, recordFile), text, 0o600); err != nil {
		return err
	}
	included := readIncludes(stage, build)
	dir := k.buildDir(name, included)
	if err := writeWhole(filepath.Join(k.dir, "includes", name), []byte(strings.Join(included, "\x00"))); err != nil {
		return err
	}
	for range 2 {
		if err := os.Rename(stage, dir); err != nil && !isDir(dir) {
			return fmt.Errorf("cannot keep the build: %w", err)
		}
		if k.use(build, dir) {
			build.Cached = false
			k.grown(size)
			return nil
		}
		k.takeAway(dir) // what lies there is no whole build
	}
	return fmt.Errorf("a build was taken out of the cache %s while it was kept; try again", k.dir)
}

// totalFile holds what all builds take together, about: of two programs that
// add to it at once one may be lost, until all are looked at again.
const totalFile = "size"

// grown notes that the cache has grown, and removes builds where it has grown
// too large.
func (k *Kit) grown(size int64) {
	path := filepath.Join(k.dir, totalFile)
	text, err := os.ReadFile(path)
	total, wrong := strconv.ParseInt(string(text), 10, 64)
	if total += size; err != nil || wrong != nil || total > mostKept {
		total = k.prune(mostKept)
	}
	writeWhole(path, strconv.AppendInt(nil, total, 10)) // or all are looked at next time
}

func isDir(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.IsDir()
}

// mostKept bounds what all builds take together, in bytes, and mostAge how long
// what is known of a source stays after its last build.
const (
	mostKept = 1 << 30
	mostAge  = 60 * 24 * time.Hour
)

// prune removes the builds that were not used for longest until the rest take
// a little less than most bytes, and returns what they take. What anyone uses
// stays.
func (k *Kit) prune(most int64) (total int64) {
	type kept struct {
		dir  string
		used time.Time
		size int64
	}
	var all []kept
	records, _ := filepath.Glob(filepath.Join(k.dir, "builds", "*", recordFile))
	for _, path := range records {
		info, err := os.Stat(path)
		if err != nil {
			continue
		}
		var r record
		if text, err := os.ReadFile(path); err == nil {
			json.Unmarshal(text, &r)
		}
		all = append(all, kept{filepath.Dir(path), info.ModTime(), r.Size})
		total += r.Size
	}
	if total <= most {
		return total
	}
	slices.SortFunc(all, func(a, b kept) int { return a.used.Compare(b.used) })
	for _, one := range all {
		if total <= most-most/8 {
			break
		}
		if k.remove(one.dir) {
			total -= one.size
		}
	}
	for _, sub := range []string{"includes", "locks", "tools"} {
		entries, _ := os.ReadDir(filepath.Join(k.dir, sub))
		for _, e := range entries {
			if info, err := e.Info(); err == nil && time.Since(info.ModTime()) > mostAge {
				os.Remove(filepath.Join(k.dir, sub, e.Name()))
			}
		}
	}
	return total
}

// remove removes a build that nobody uses: it is taken away under another name
// first, so that nobody finds half of it.
func (k *Kit) remove(dir string) bool {
	file, err := os.Open(filepath.Join(dir, recordFile))
	if err != nil {
		return false
	}
	defer file.Close()
	if unix.Flock(int(file.Fd()), unix.LOCK_EX|unix.LOCK_NB) != nil {
		return false
	}
	return k.takeAway(dir)
}

// takeAway removes a build, whatever it is like.
func (k *Kit) takeAway(dir string) bool {
	scratch, err := box.NewScratch(k.dir, stageName)
	if err != nil {
		return false
	}
	defer scratch.Remove()
	return os.Rename(dir, filepath.Join(scratch.Dir, "old")) == nil
}

// sizeOf adds up the sizes of the files below a folder, in bytes.
func sizeOf(dir string) (total int64) {
	filepath.WalkDir(dir, func(_ string, d fs.DirEntry, err error) error {
		if err == nil && d.Type().IsRegular() {
			if info, err := d.Info(); err == nil {
				total += info.Size()
			}
		}
		return nil
	})
	return total
}

// digest names a list of texts; no two lists share a name.
func digest(parts ...string) string {
	h := sha256.New()
	for _, p := range parts {
		fmt.Fprintf(h, "%d:", len(p))
		io.WriteString(h, p)
	}
	return hex.EncodeToString(h.Sum(nil)[:16])
}

// writeWhole writes a file so that others see the old text or the new one.
func writeWhole(path string, text []byte) error {
	file, err := os.CreateTemp(filepath.Dir(path), "new-")
	if err != nil {
		return err
	}
	defer os.Remove(file.Name())
	_, err = file.Write(text)
	if err = errors.Join(err, file.Close()); err != nil {
		return err
	}
	return os.Rename(file.Name(), path)
}
