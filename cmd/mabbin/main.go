// Command mabbin serves the page and the API, loads the demo kitchen, and calculates on the command line.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"os/signal"
	"syscall"

	"mabbin/server/store"
)

const usage = `mabbin balances fruit, juice and topping to a dish.

  mabbin serve [-addr 127.0.0.1:8080]   the page and the API
  mabbin migrate                        bring the database up to date
  mabbin demo [-reset]                  load the demo kitchen once, or afresh
  mabbin calc balance                   one request, or a list of them, as JSON from standard input

serve, migrate and demo find the database in MABBIN_DB, a PostgreSQL connection string.
`

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	err := run(ctx, os.Args[1:], os.Stdin, os.Stdout)
	stop()
	switch {
	case err == nil:
	case errors.Is(err, errBadRequest):
		os.Exit(1) // what is wrong is in the answer
	default:
		fmt.Fprintln(os.Stderr, "mabbin:", err)
		os.Exit(1)
	}
}

func run(ctx context.Context, args []string, in io.Reader, out io.Writer) error {
	if len(args) == 0 {
		_, err := io.WriteString(out, usage)
		return err
	}
	flags := flag.NewFlagSet(args[0], flag.ContinueOnError)
	switch args[0] {
	case "calc":
		return calc(ctx, args[1:], in, out)
	case "serve":
		addr := flags.String("addr", "127.0.0.1:8080", "where to listen; loopback only")
		logFile := flags.String("log", "", "file for the request log; standard error without it")
		if err := flags.Parse(args[1:]); err != nil {
			return err
		}
		return serve(ctx, *addr, *logFile, out)
	case "migrate":
		return withStore(ctx, func(*store.Store) error { return nil })
	case "demo":
		reset := flags.Bool("reset", false, "delete the demo kitchen and load it again")
		if err := flags.Parse(args[1:]); err != nil {
			return err
		}
		return loadDemo(ctx, *reset, out)
	}
	return fmt.Errorf("unknown command %q; run mabbin without arguments for a list", args[0])
}
