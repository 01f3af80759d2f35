package call

import (
	"coldverdict/core/problem"
	"coldverdict/core/value"
)

// Arguments reads what a case gives to the function or the class of a problem: what stands in the case, as the driver of
// a language is given it. Wide is WideAsText of the language.
func Arguments(asked *problem.Call, text string, wide bool) ([]any, error) {
	if asked.Class != nil {
		steps, err := asked.Steps(text)
		if err != nil {
			return nil, err
		}
		return []any{Sequence(asked.Class, steps, wide)}, nil
	}
	if asked.Scripted() {
		args, steps, err := asked.Script(text)
		if err != nil {
			return nil, err
		}
		return append(args, Script(steps)), nil
	}
	args, err := asked.ReadArguments(text)
	if err != nil {
		return nil, err
	}
	args = args[:len(asked.Takes)] // what is hidden stays here
	if wide {
		for i, f := range asked.Takes {
			args[i] = value.Widened(args[i], f.Type)
		}
	}
	return args, nil
}

// AppendLine appends the line of a call to what a driver reads.
func AppendLine(text []byte, args []any) []byte {
	text = append(text, '[')
	for i, arg := range args {
		if i > 0 {
			text = append(text, ',')
		}
		text = value.Append(text, arg, false)
	}
	return append(text, "]\n"...)
}
