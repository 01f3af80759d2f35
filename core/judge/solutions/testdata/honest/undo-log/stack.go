// A slice is a stack.
package main

type UndoLog struct{ words []string }

func NewUndoLog() *UndoLog { return &UndoLog{} }

func (u *UndoLog) Write(word string) { u.words = append(u.words, word) }

func (u *UndoLog) Undo() *string {
	if len(u.words) == 0 {
		return nil
	}
	last := u.words[len(u.words)-1]
	u.words = u.words[:len(u.words)-1]
	return &last
}

func (u *UndoLog) All() string { return strings.Join(u.words, " ") }
