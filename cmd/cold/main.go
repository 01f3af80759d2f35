// Command cold says what a strict judge would say of a solution, before it is
// handed in.
package main

import (
	"os"

	"coldverdict/cli"
	"coldverdict/core/box"
	"coldverdict/core/script"
)

func main() {
	box.Supervise() // does not return where this process is to watch programs
	script.Main()   // nor where it is to run a script
	os.Exit(cli.Run(os.Args, os.Stdin, os.Stdout, os.Stderr))
}
