package statement

import (
	"bufio"
	"bytes"
	"encoding/base64"
	"errors"
	"io"
	"mime"
	"mime/multipart"
	"mime/quotedprintable"
	"net/mail"
	"strings"
	"unicode/utf8"

	"golang.org/x/net/html/charset"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"coldverdict/core/problem"
	"coldverdict/internal/lazy"
)

// decoded is a saved page as text in UTF-8, with "\n" at the end of lines: a page of the kind that holds its
// pictures, too (RFC 2557), is unpacked, and whatever encoding it is in is told by its first bytes (RFC 2781), by
// what it says of itself, or by what its bytes can be. Guessed says in words that this was not certain.
func decoded(page []byte) (text []byte, guessed string) {
	declared := ""
	if inner, kind, ok := unpacked(page); ok {
		page, declared = inner, kind
	}
	switch {
	case bytes.HasPrefix(page, []byte{0xff, 0xfe}), bytes.HasPrefix(page, []byte{0xfe, 0xff}):
		page = wide(page, unicode.UseBOM)
	case !utf8.Valid(page) || bytes.IndexByte(page, 0) >= 0:
		page, guessed = eightBit(page, declared)
	}
	return bytes.ReplaceAll(problem.Plain(page), []byte{'\r'}, []byte{'\n'}), guessed
}

var declares = lazy.New(`(?i)charset\s*=|encoding\s*=`)

func wide(page []byte, order unicode.BOMPolicy) []byte {
	text, err := unicode.UTF16(unicode.LittleEndian, order).NewDecoder().Bytes(page)
	if err != nil {
		return page
	}
	return text
}

// eightBit reads a page that is not in UTF-8. One that is in UTF-16 without saying so has a zero in every second byte.
func eightBit(page []byte, declared string) (text []byte, guessed string) {
	zeros := [2]int{}
	for i, b := range page[:min(len(page), 2000)] {
		if b == 0 {
			zeros[i%2]++
		}
	}
	if zeros[0]+zeros[1] > len(page[:min(len(page), 2000)])/4 {
		order := unicode.LittleEndian
		if zeros[0] > zeros[1] {
			order = unicode.BigEndian
		}
		if text, err := unicode.UTF16(order, unicode.IgnoreBOM).NewDecoder().Bytes(page); err == nil {
			return text, ""
		}
	}
	encoding, name, certain := charset.DetermineEncoding(page, declared)
	if name == "utf-8" { // it says so, and is not
		encoding, name, certain = charmap.Windows1252, "windows-1252", false
	}
	text, err := encoding.NewDecoder().Bytes(page)
	if err != nil {
		return bytes.ToValidUTF8(page, []byte("\ufffd")), "it is in no encoding that is known"
	}
	if !certain && !declares().Match(page[:min(len(page), 2048)]) {
		guessed = "it does not say in which encoding it is; it was taken for " + name
	}
	return text, guessed
}

// unpacked is the first page in a file that holds several parts, with what is said of its type.
func unpacked(page []byte) (inner []byte, kind string, ok bool) {
	head := page[:min(len(page), 4096)]
	if !bytes.Contains(bytes.ToLower(head), []byte("mime-version:")) {
		return nil, "", false
	}
	message, err := mail.ReadMessage(bufio.NewReader(bytes.NewReader(page)))
	if err != nil {
		return nil, "", false
	}
	return partOf(message.Body, message.Header.Get("Content-Type"), message.Header.Get("Content-Transfer-Encoding"), 0)
}

func partOf(body io.Reader, kind, encoding string, depth int) (inner []byte, said string, ok bool) {
	media, parameters, err := mime.ParseMediaType(kind)
	if err != nil || depth > 4 {
		return nil, "", false
	}
	if strings.HasPrefix(media, "multipart/") {
		parts := multipart.NewReader(body, parameters["boundary"])
		for {
			one, err := parts.NextRawPart()
			if err != nil {
				return nil, "", false
			}
			if inner, said, ok := partOf(one, one.Header.Get("Content-Type"), one.Header.Get("Content-Transfer-Encoding"), depth+1); ok {
				return inner, said, true
			}
		}
	}
	if media != "text/html" && media != "text/plain" {
		return nil, "", false
	}
	switch strings.ToLower(encoding) {
	case "quoted-printable":
		body = quotedprintable.NewReader(body)
	case "base64":
		body = base64.NewDecoder(base64.StdEncoding, body)
	}
	inner, err = io.ReadAll(body)
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) {
		return nil, "", false
	}
	return inner, kind, true
}
