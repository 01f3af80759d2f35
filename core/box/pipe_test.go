package box

import (
	"bytes"
	"io"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestAPipeNeverLetsItsWriterWait(t *testing.T) {
	p, err := NewPipe()
	require.NoError(t, err)
	assert.True(t, p.Idle())
	text := bytes.Repeat([]byte("probe 17\n"), 100_000) // far more than a pipe holds
	for rest := text; len(rest) > 0; rest = rest[min(len(rest), 7777):] {
		n, err := p.Write(rest[:min(len(rest), 7777)])
		require.NoError(t, err)
		require.Equal(t, min(len(rest), 7777), n)
	}
	p.End()
	assert.False(t, p.Idle())
	got, err := io.ReadAll(p.Input)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(text, got), "all of it, in order, and then the end")
	assert.True(t, p.Idle())
	p.Write([]byte("late"))
	assert.Empty(t, p.Unread(100), "after the end nothing is taken")
	require.NoError(t, p.Close())
}

func TestWhatNobodyReadIsKnown(t *testing.T) {
	p, err := NewPipe()
	require.NoError(t, err)
	p.Write([]byte("depth 3\nHoarfrost out\n"))
	first := make([]byte, 8)
	_, err = io.ReadFull(p.Input, first)
	require.NoError(t, err)
	assert.Equal(t, "Hoarf", string(p.Unread(5)))
	assert.Equal(t, "rost out\n", string(p.Unread(500)))
	assert.Empty(t, p.Unread(500))
	require.NoError(t, p.Close())

	full, err := NewPipe()
	require.NoError(t, err)
	full.Write(make([]byte, 1<<20))
	done := make(chan error)
	go func() { done <- full.Close() }()
	select {
	case err := <-done:
		require.NoError(t, err)
	case <-time.After(10 * time.Second):
		t.Fatal("closing waits for a reader that there is not")
	}
}
