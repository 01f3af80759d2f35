package box

// A Head is a writer that keeps the first Most bytes and drops the rest.
type Head struct {
	Most int
	Text []byte
	Cut  bool // something was dropped
}

// Write implements io.Writer; it never fails.
func (h *Head) Write(p []byte) (int, error) {
	room := max(0, h.Most-len(h.Text))
	h.Cut = h.Cut || len(p) > room
	h.Text = append(h.Text, p[:min(room, len(p))]...)
	return len(p), nil
}
