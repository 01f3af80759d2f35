// Runes of a text.
package main

import (
	"bufio"
	"fmt"
	"os"
	"unicode/utf8"
)

func main() {
	for in := bufio.NewScanner(os.Stdin); in.Scan(); {
		fmt.Println(utf8.RuneCountInString(in.Text()), in.Text())
	}
}
