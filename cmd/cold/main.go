// Command cold says what a strict judge would say of a solution, before it is
// handed in.
package main

import (
	"os"

	"coldverdict/cli"
	"coldverdict/core/box"
)

func main() {
	box.Warden() // does not return where this process is to watch programs
	os.Exit(cli.Run(os.Args, os.Stdin, os.Stdout, os.Stderr))
}
