package cli

import (
	"bufio"
	"strings"

	"github.com/atotto/clipboard"
)

// fromClipboard takes the input and then the output from the clipboard. Without
// a terminal both are in it, with a line between that ends a paste.
func (a *app) fromClipboard() (input, output []byte, err error) {
	if clipboard.Unsupported {
		return nil, nil, usageError("the clipboard cannot be read: install wl-clipboard, xclip or xsel, or paste at the prompt")
	}
	if a.terminal() == nil {
		text, err := readClipboard()
		if err != nil {
			return nil, nil, err
		}
		return splitPaste(text)
	}
	if input, err = a.copied("copy the input, then press Enter here "); err != nil {
		return nil, nil, err
	}
	if len(input) == 0 {
		return nil, nil, usageError("the clipboard is empty; nothing was added")
	}
	output, err = a.copied("copy the expected output, then press Enter here (type - if it is not known) ")
	return input, orUnknown(output), err
}

func (a *app) copied(prompt string) ([]byte, error) {
	answer, err := a.line(prompt)
	if err != nil || answer == "-" {
		return nil, err
	}
	text, err := readClipboard()
	if err != nil {
		return nil, err
	}
	data, _, err := readPaste(text)
	return data, err
}

func readClipboard() (*bufio.Reader, error) {
	text, err := clipboard.ReadAll()
	if err != nil {
		return nil, usageError("the clipboard cannot be read: %v", err)
	}
	return bufio.NewReader(strings.NewReader(text)), nil
}
