package cli

import "github.com/urfave/cli/v3"

func (a *app) openCommand() *cli.Command { return &cli.Command{Name: "open"} }
func (a *app) caseCommand() *cli.Command { return &cli.Command{Name: "case"} }
func (a *app) demoCommand() *cli.Command { return &cli.Command{Name: "demo"} }
