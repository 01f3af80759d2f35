//go:build linux && !portable

package box

import (
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/verdict"
	"golang.org/x/sys/unix"
)

func TestOfManyProcessesThoseAreLookedAtFirstThatWereNotForLongest(t *testing.T) {
	looked := func(m *member) *int { return &m.looked }
	var members []*member
	for i := range 40 {
		members = append(members, &member{pid: i, looked: 40 - i})
	}
	var order []int
	slow := func(m *member) error {
		order = append(order, m.pid)
		time.Sleep(lookTime / 4)
		return nil
	}
	require.NoError(t, lookAt(members, looked, 100, 41, slow))
	assert.Less(t, len(order), 40, "there is no time for all")
	require.NotEmpty(t, order)
	for i, pid := range order {
		assert.Equal(t, 39-i, pid)
		assert.Equal(t, 41, members[pid].looked)
	}
	first := len(order)
	require.NoError(t, lookAt(members, looked, 100, 42, slow))
	assert.Equal(t, 39-first, order[first], "the next look goes on where the last one ended")
}

func TestOfFewProcessesAllAreLookedAtThatAreDue(t *testing.T) {
	looked := func(m *member) *int { return &m.looked }
	members := []*member{{pid: 1, looked: 7}, {pid: 2, looked: 3}, {pid: 3}}
	var order []int
	look := func(m *member) error {
		order = append(order, m.pid)
		time.Sleep(2 * lookTime)
		if m.pid == 2 {
			return errGone
		}
		return nil
	}
	require.NoError(t, lookAt(members, looked, 5, 8, look))
	assert.Equal(t, []int{2, 3}, order)
	broken := errors.New("too many open files")
	err := lookAt(members, looked, 9, 9, func(*member) error { return broken })
	assert.Equal(t, broken, err, "what cannot be read is no process that is gone")
}

func TestWhatWasNotWeighedHoldsAboutWhatOthersDo(t *testing.T) {
	for _, tt := range []struct {
		name    string
		members []*member
		want    int64
	}{
		{"all are known", []*member{{weighed: 1, weight: 30, resident: 40}, {weighed: 1, weight: 10, resident: 40}}, 40},
		{"half of them share half", []*member{{weighed: 1, weight: 20, resident: 40}, {resident: 40}}, 40},
		{"never more than they hold", []*member{{weighed: 1, weight: 90, resident: 40}, {resident: 40}}, 130},
		{"none is known", []*member{{resident: 40}}, 0},
		{"there are none", nil, 0},
	} {
		t.Run(tt.name, func(t *testing.T) { assert.Equal(t, tt.want, weightOf(tt.members)) })
	}
}

func TestWhatIsHeldOutsideOfAddressSpacesCounts(t *testing.T) {
	const mib = 1 << 20
	for _, tt := range []struct {
		name    string
		members []*member
		want    int64
	}{
		{"nothing", []*member{{resident: mib}}, 0},
		{"a shared mapping counts once", []*member{
			{hidden: hiddenMemory{files: map[string]int64{"0:1 7": 8 * mib}}}, {hidden: hiddenMemory{files: map[string]int64{"0:1 7": 8 * mib}}},
		}, 8 * mib},
		{"but not what is resident", []*member{{hidden: hiddenMemory{files: map[string]int64{"0:1 7": 8 * mib, "0:1 8": mib}, mapped: 3 * mib}}}, 6 * mib},
		{"more is resident than mapped here", []*member{{hidden: hiddenMemory{mapped: 3 * mib}}}, 0},
		{"page tables as any program has them", []*member{{resident: 64 * mib, hidden: hiddenMemory{tables: 9 * mib}}}, 0},
		{"page tables and little else", []*member{{resident: mib, hidden: hiddenMemory{tables: 30 * mib}}}, 30 * mib},
		{"a few sockets", []*member{{hidden: hiddenMemory{sockets: fewSockets}}}, 0},
		{"many sockets of two", []*member{{hidden: hiddenMemory{sockets: fewSockets}}, {hidden: hiddenMemory{sockets: 4}}}, 4 * socketRoom},
	} {
		t.Run(tt.name, func(t *testing.T) { assert.Equal(t, tt.want, hiddenIn(tt.members)) })
	}
}

func TestACensusFindsWhatIsAliveAndKeepsTheTimeOfWhatWas(t *testing.T) {
	c := &census{account: &account{}}
	c.begin()
	burning := exec.Command("/bin/sh", "-c", "while :; do :; done")
	require.NoError(t, burning.Start())
	ours := func(n count) *member {
		for _, m := range n.members {
			if m.pid == burning.Process.Pid {
				return m
			}
		}
		return nil
	}
	var seen time.Duration
	require.Eventually(t, func() bool {
		n, err := c.take()
		require.NoError(t, err)
		m := ours(n)
		require.NotNil(t, m)
		assert.Equal(t, os.Getpid(), m.parent)
		assert.GreaterOrEqual(t, n.threads, n.processes)
		seen = m.time
		return seen > 50*time.Millisecond && m.resident > 0 // of one that has just begun little shows
	}, 30*time.Second, 10*time.Millisecond)
	require.NoError(t, burning.Process.Kill())
	burning.Wait()
	n, err := c.take()
	require.NoError(t, err)
	assert.Nil(t, ours(n))
	assert.GreaterOrEqual(t, n.cpu, seen, "what a process used before it was gone is not forgotten")
	c.begin()
	n, err = c.take()
	require.NoError(t, err)
	assert.Less(t, n.cpu, seen, "another run begins at nothing")
}

func TestARunThatTheMachineStarvesIsGivenUp(t *testing.T) {
	for _, tt := range []struct {
		name       string
		took, kept time.Duration
		want       Ending
		told       string
	}{
		{"it waited", 1100 * time.Millisecond, 50 * time.Millisecond, PassedWall, ""},
		{"the machine was busy", 3 * time.Second, 2500 * time.Millisecond, Exited, ""},
		{"the machine is too busy", 11 * time.Second, 10500 * time.Millisecond, EndedByRequest, "this machine is too busy to judge: in 11"},
	} {
		t.Run(tt.name, func(t *testing.T) {
			sleeper := exec.Command("/bin/sleep", "1000")
			require.NoError(t, sleeper.Start())
			defer func() {
				sleeper.Process.Kill()
				sleeper.Wait()
			}()
			c := &census{account: &account{}}
			c.begin()
			run := &tracee{
				pid: sleeper.Process.Pid, limits: verdict.Limits{Wall: time.Second}, began: time.Now().Add(-tt.took), kept: tt.kept,
				census: c, account: c.account, ending: Exited, born: map[int]bool{}, used: map[int]time.Duration{}, delays: map[int]time.Duration{},
			}
			run.look()
			ending, _, err := run.outcome()
			assert.Equal(t, tt.want, ending)
			if tt.told == "" {
				assert.NoError(t, err)
			} else {
				assert.ErrorContains(t, err, tt.told)
			}
		})
	}
}

func TestWhatIsReadyAtTwoLooksHasNotWaitedBetweenThem(t *testing.T) {
	for _, tt := range []struct {
		name, does  string
		least, most time.Duration // that the machine kept from it
	}{
		{"it computes", "while :; do :; done", 9 * time.Second, 10 * time.Second},
		{"it waits", "exec sleep 1000", 0, time.Second},
	} {
		t.Run(tt.name, func(t *testing.T) {
			cmd := exec.Command("/bin/sh", "-c", tt.does)
			require.NoError(t, cmd.Start())
			defer func() {
				cmd.Process.Kill()
				cmd.Wait()
			}()
			ready := strings.HasPrefix(tt.does, "while")
			require.Eventually(t, func() bool {
				is, err := isReady(cmd.Process.Pid)
				return err == nil && is == ready
			}, 30*time.Second, 10*time.Millisecond)
			run := &tracee{account: &account{}, delays: map[int]time.Duration{}}
			run.noteStanding(time.Second, 0, []int{cmd.Process.Pid})
			// Ten seconds later it has had one second of a processor.
			run.noteStanding(11*time.Second, time.Second, []int{cmd.Process.Pid})
			assert.GreaterOrEqual(t, run.kept, tt.least)
			assert.LessOrEqual(t, run.kept, tt.most)
		})
	}
}

// fakeAccount is an account whose files a test writes.
func fakeAccount(t *testing.T, version int, files map[string]string) (a *account, write func(name, text string)) {
	dir := t.TempDir()
	a = &account{version: version, thread: unix.Gettid()}
	open := func(name string) int {
		if _, ok := files[name]; !ok {
			return -1
		}
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte(files[name]), 0o644))
		fd, err := unix.Open(path, unix.O_RDWR|unix.O_CLOEXEC, 0)
		require.NoError(t, err)
		t.Cleanup(func() { unix.Close(fd) })
		return fd
	}
	a.limit, a.count, a.kills, a.time = open("limit"), open("count"), open("kills"), open("time")
	a.usage, a.stat, a.tasks = open("usage"), open("stat"), open("tasks")
	return a, func(name, text string) {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(text), 0o644))
	}
}

func TestAnAccountCountsWhatARunHoldsWithoutCachedFiles(t *testing.T) {
	for version, stat := range map[int]string{
		1: "cache 9\nrss 1\ntotal_cache 70\ntotal_rss %d\ntotal_shmem %d\ntotal_active_file %d\ntotal_inactive_file 5\n",
		2: "anon %d\nfile 70\nshmem %d\nactive_file %d\ninactive_file 5\n",
	} {
		t.Run(fmt.Sprintf("version %d", version), func(t *testing.T) {
			const mib = 1 << 20
			a, write := fakeAccount(t, version, map[string]string{
				"usage": fmt.Sprint(10 * mib), "stat": fmt.Sprintf(stat, 3*mib, 0, 2*mib), "time": "usage_usec 0\n", "tasks": "1\n",
			})
			a.before = 1 // the processor time is another matter
			require.NoError(t, a.begin())
			before := a.base
			assert.EqualValues(t, 3*mib, before.pages)
			assert.EqualValues(t, 8*mib-5, before.all)
			write("usage", fmt.Sprint(50*mib))
			write("stat", fmt.Sprintf(stat, 20*mib, 8*mib, 12*mib))
			got, err := a.memory()
			require.NoError(t, err)
			assert.EqualValues(t, 25*mib, got.pages, "of the processes, and files in memory")
			assert.EqualValues(t, 50*mib-12*mib-5-(8*mib-5), got.all, "with the kernel's own")
			write("stat", "nothing 1\n")
			_, err = a.memory()
			assert.ErrorContains(t, err, "the control group has no", "what is not there is no zero")
		})
	}
}

func TestAnAccountBooksTheTimeOfOneRunAtATime(t *testing.T) {
	a, write := fakeAccount(t, 2, map[string]string{"time": "usage_usec 9000000\nuser_usec 1\n", "usage": "0", "stat": "anon 0\nshmem 0\nactive_file 0\ninactive_file 0\n"})
	require.NoError(t, a.begin())
	write("time", "usage_usec 9500000\n")
	spent, err := a.end()
	require.NoError(t, err)
	assert.InDelta(t, 0.5, spent.Seconds(), 0.1)
	require.NoError(t, a.begin())
	write("time", "usage_usec 9750000\n")
	spent, err = a.end()
	require.NoError(t, err)
	assert.InDelta(t, 0.25, spent.Seconds(), 0.1)
	write("time", "a lot\n")
	_, err = a.end()
	assert.Error(t, err)
	none := &account{}
	spent, err = none.end()
	require.NoError(t, err)
	assert.Zero(t, spent)
}

func TestAnAccountIsBoundedAndTellsOfKills(t *testing.T) {
	a, write := fakeAccount(t, 1, map[string]string{"limit": "", "count": "", "kills": "oom_kill_disable 0\nunder_oom 0\noom_kill 3\n", "tasks": "5\n"})
	a.seen = 3
	killed, err := a.killedForMemory()
	require.NoError(t, err)
	assert.False(t, killed)
	write("kills", "oom_kill_disable 0\noom_kill 4\n")
	for _, want := range []bool{true, false} { // told once
		killed, err = a.killedForMemory()
		require.NoError(t, err)
		assert.Equal(t, want, killed)
	}
	threads, err := a.threads()
	require.NoError(t, err)
	assert.Equal(t, 4, threads, "but for the one that starts programs")
	require.NoError(t, a.set(64<<20, 1<<20, 10))
	limit, err := readAt(a.limit)
	require.NoError(t, err)
	assert.Equal(t, fmt.Sprint(64<<20+4<<20+1<<20+groupSpare), limit)
	most, err := readAt(a.count)
	require.NoError(t, err)
	assert.Equal(t, fmt.Sprint(10+groupThreads), most)
	write("limit", "")
	require.NoError(t, a.set(0, 0, 10))
	limit, err = readAt(a.limit)
	require.NoError(t, err)
	assert.Equal(t, "-1", limit, "no limit, in the words of version 1")
}

func TestWhatAGroupBooksCountsWhereItIsMoreThanStartingAProgramTakes(t *testing.T) {
	for _, tt := range []struct{ booked, counted, want time.Duration }{
		{0, 0, 0},
		{3 * time.Millisecond, 2 * time.Millisecond, 0},
		{10 * time.Millisecond, 2 * time.Millisecond, 10 * time.Millisecond},
		{1008 * time.Millisecond, time.Second, 0},
		{1100 * time.Millisecond, time.Second, 1100 * time.Millisecond},
		{time.Second, 2 * time.Second, 0},
	} {
		assert.Equal(t, tt.want, exceeding(tt.booked, tt.counted), "%v booked, %v counted", tt.booked, tt.counted)
	}
}
