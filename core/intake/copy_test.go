package intake

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/flate"
	"compress/gzip"
	"context"
	"io"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"coldverdict/core/problem"
)

var words = problem.Vocabulary{IsSource: func(name string) bool { return filepath.Ext(name) == ".py" }}

func station(t testing.TB) *problem.Problem {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "a.py"), nil, 0o644))
	return load(t, dir)
}

func load(t testing.TB, dir string) *problem.Problem {
	p, err := problem.Load(dir, words)
	require.NoError(t, err)
	return p
}

type entry struct {
	name, text string
	link       bool
}

func packed(t testing.TB, entries ...entry) string {
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, e := range entries {
		header := &zip.FileHeader{Name: e.name, Method: zip.Deflate}
		header.SetMode(0o644)
		if e.link {
			header.SetMode(0o777 | os.ModeSymlink)
		}
		file, err := w.CreateHeader(header)
		require.NoError(t, err)
		_, err = io.WriteString(file, e.text)
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return saved(t, "data.zip", b.Bytes())
}

func tarred(t testing.TB, entries ...entry) string {
	var b bytes.Buffer
	squeezed := gzip.NewWriter(&b)
	w := tar.NewWriter(squeezed)
	for _, e := range entries {
		header := &tar.Header{Name: e.name, Mode: 0o644, Size: int64(len(e.text)), Typeflag: tar.TypeReg}
		if e.link {
			header = &tar.Header{Name: e.name, Linkname: e.text, Typeflag: tar.TypeSymlink}
		}
		require.NoError(t, w.WriteHeader(header))
		if !e.link {
			_, err := io.WriteString(w, e.text)
			require.NoError(t, err)
		}
	}
	require.NoError(t, w.Close())
	require.NoError(t, squeezed.Close())
	return saved(t, "data.tar.gz", b.Bytes())
}

func saved(t testing.TB, name string, data []byte) string {
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, data, 0o644))
	return path
}

// take imports all pairs of an archive.
func take(p *problem.Problem, archive, group string) (copied int, there []string, err error) {
	s, err := Open(archive)
	if err != nil {
		return 0, nil, err
	}
	defer s.Close()
	return Copy(context.Background(), s, PairUp(s.Files, Patterns{}).Pairs, p, group, func(int) {})
}

func TestArchivesAndFoldersBecomeCases(t *testing.T) {
	entries := []entry{
		{"set/1.in", "1 2\n", false}, {"set/1.out", "3\n", false}, {"set/hard/1.in", "5 6\r\n", false}, {"set/hard/1.out", "11\n", false},
		{"set/readme.txt", "no data", false}, {"__MACOSX/set/._1.in", "junk", false},
	}
	folder := t.TempDir()
	for _, e := range entries {
		path := filepath.Join(folder, e.name)
		require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
		require.NoError(t, os.WriteFile(path, []byte(e.text), 0o644))
	}
	for name, source := range map[string]string{"zip": packed(t, entries...), "tar.gz": tarred(t, entries...), "folder": folder} {
		t.Run(name, func(t *testing.T) {
			p := station(t)
			copied, there, err := take(p, source, "Official")
			require.NoError(t, err)
			assert.Equal(t, 2, copied)
			assert.Empty(t, there)
			p = load(t, p.Dir)
			require.Len(t, p.Cases, 2)
			assert.Equal(t, "official/1", p.Cases[0].Name)
			assert.Equal(t, "official-hard/1", p.Cases[1].Name)
			text, err := p.Cases[1].Input.Head(100)
			require.NoError(t, err)
			assert.Equal(t, "5 6\r\n", string(text), "to the byte")
			assert.NoDirExists(t, filepath.Join(p.Dir, problem.OwnFolder))

			require.NoError(t, os.WriteFile(filepath.Join(p.Dir, "cases/official/1.in"), []byte("mine\n"), 0o644))
			copied, there, err = take(p, source, "Official")
			require.NoError(t, err)
			assert.Zero(t, copied)
			assert.Equal(t, []string{"official/1", "official-hard/1"}, there)
			mine, err := os.ReadFile(filepath.Join(p.Dir, "cases/official/1.in"))
			require.NoError(t, err)
			assert.Equal(t, "mine\n", string(mine))
		})
	}
}

func TestWhatIsNoDataIsRefusedWithNothingWritten(t *testing.T) {
	pair := []entry{{"1.in", "1\n", false}, {"1.out", "2\n", false}}
	with := func(e ...entry) []entry { return append(append([]entry(nil), pair...), e...) }
	tests := map[string]struct {
		entries []entry
		want    string
	}{
		"a way out":                      {with(entry{"../1.in", "1\n", false}), "leads out of it"},
		"a way out in between":           {with(entry{"a/../../1.in", "1\n", false}), "leads out of it"},
		"an absolute path":               {with(entry{"/etc/1.in", "1\n", false}), "no path inside it"},
		"a Windows path":                 {with(entry{`C:\1.in`, "1\n", false}), "no path inside it"},
		"a link":                         {with(entry{"2.in", "/etc/passwd", true}), "a link or a device"},
		"names that only differ in case": {with(entry{"1.IN", "1\n", false}), "the same name on systems"},
		"a control character":            {with(entry{"1\x1b[31m.in", "1\n", false}), "control characters"},
	}
	for name, tt := range tests {
		for kind, archive := range map[string]string{"zip": packed(t, tt.entries...), "tar.gz": tarred(t, tt.entries...)} {
			t.Run(name+", "+kind, func(t *testing.T) {
				p := station(t)
				_, _, err := take(p, archive, "")
				var refusal *RefusedError
				require.ErrorAs(t, err, &refusal)
				assert.ErrorContains(t, err, tt.want)
				assertUntouched(t, p)
			})
		}
	}
	for name, data := range map[string][]byte{"text": []byte("1 2 3\n"), "a cut zip": []byte("PK\x03\x04 and no more"), "a cut gzip": {0x1f, 0x8b, 8}, "nothing": nil} {
		t.Run(name, func(t *testing.T) {
			_, err := Open(saved(t, "data", data))
			var refusal *RefusedError
			assert.ErrorAs(t, err, &refusal)
		})
	}
}

func assertUntouched(t *testing.T, p *problem.Problem) {
	t.Helper()
	entries, err := os.ReadDir(p.Dir)
	require.NoError(t, err)
	require.Len(t, entries, 1)
}

// chunk is how many zeros one squeezed part of a bomb holds.
const chunk = 64 << 20

func TestABombIsRefusedWithNothingWritten(t *testing.T) {
	const size = 10 << 30
	var part, end bytes.Buffer // of a deflated row of zeros
	w, err := flate.NewWriter(&part, flate.BestSpeed)
	require.NoError(t, err)
	_, err = w.Write(make([]byte, chunk))
	require.NoError(t, err)
	require.NoError(t, w.Flush())
	w.Reset(&end)
	require.NoError(t, w.Close())
	var member bytes.Buffer // the same as gzip has it
	squeezed := gzip.NewWriter(&member)
	_, err = squeezed.Write(make([]byte, chunk))
	require.NoError(t, err)
	require.NoError(t, squeezed.Close())
	header := func(name string, size int64) []byte {
		var plain, whole bytes.Buffer
		require.NoError(t, tar.NewWriter(&plain).WriteHeader(&tar.Header{Name: name, Size: size, Mode: 0o644}))
		squeezed.Reset(&whole)
		_, err := squeezed.Write(plain.Bytes())
		require.NoError(t, err)
		require.NoError(t, squeezed.Close())
		return whole.Bytes()
	}
	many := func(n int64) []byte { return bytes.Repeat(member.Bytes(), int(n/chunk)) }

	var one bytes.Buffer
	archive := zip.NewWriter(&one)
	packedSize := uint64(size/chunk*part.Len() + end.Len())
	file, err := archive.CreateRaw(&zip.FileHeader{Name: "1.in", Method: zip.Deflate, CompressedSize64: packedSize, UncompressedSize64: size})
	require.NoError(t, err)
	for range size / chunk {
		file.Write(part.Bytes())
	}
	file.Write(end.Bytes())
	require.NoError(t, archive.Close())
	bombs := map[string][]byte{
		"one file in a zip": one.Bytes(),
		"one file in a tar": append(header("1.in", size), many(size)...),
	}
	if !testing.Short() { // 4 GiB are unpacked before it is refused
		bombs["several files in a tar"] = slices.Concat(header("1.in", 2<<30), many(2<<30), header("2.in", 2<<30), many(2<<30), header("3.in", 2<<30), many(2<<30))
	}
	for name, bomb := range bombs {
		t.Run(name, func(t *testing.T) {
			p := station(t)
			_, _, err := take(p, saved(t, "bomb", bomb), "")
			assert.ErrorContains(t, err, "more than 4 GiB", name)
			assertUntouched(t, p)
		})
	}
}

func TestAnArchiveThatHoldsMoreThanItSaysIsRefused(t *testing.T) {
	text := bytes.Repeat([]byte("7"), 5000)
	path := packed(t, entry{"1.in", string(text), false}, entry{"1.out", "2\n", false})
	data, err := os.ReadFile(path)
	require.NoError(t, err)
	// The size that the directory at the end announces.
	for at := range len(data) - 4 {
		if bytes.Equal(data[at:at+4], []byte{0x88, 0x13, 0, 0}) {
			data[at], data[at+1] = 10, 0
		}
	}
	p := station(t)
	_, _, err = take(p, saved(t, "data.zip", data), "")
	assert.Error(t, err)
	assertUntouched(t, p)
}

func TestAnInterruptedImportLeavesNothing(t *testing.T) {
	p := station(t)
	s, err := Open(packed(t, entry{"1.in", "1\n", false}, entry{"1.out", "2\n", false}))
	require.NoError(t, err)
	defer s.Close()
	ctx, cancel := context.WithCancel(t.Context())
	_, _, err = Copy(ctx, s, PairUp(s.Files, Patterns{}).Pairs, p, "", func(int) { cancel() })
	assert.ErrorIs(t, err, context.Canceled)
	assertUntouched(t, p)

	// What a killed import left is taken away by the next.
	left := filepath.Join(p.Dir, problem.OwnFolder, "import-1")
	require.NoError(t, os.MkdirAll(left, 0o755))
	copied, _, err := take(p, packed(t, entry{"1.in", "1\n", false}, entry{"1.out", "2\n", false}), "")
	require.NoError(t, err)
	assert.Equal(t, 1, copied)
	assert.NoDirExists(t, filepath.Join(p.Dir, problem.OwnFolder))
}
