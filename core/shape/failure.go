package shape

// Deep inside the package a function that cannot go on panics with the error that says why: a
// trouble where an expression has no value, a *Fault where an input is not valid, a *GenerateError
// where nothing can be generated, an abandoned where an item of a shape has a mistake that was
// reported. Only attempt recovers, and every other panic passes through it.

// attempt calls do, and returns the error with which it gave up; nil: it did not.
func attempt(do func()) (why error) {
	defer func() {
		switch r := recover().(type) {
		case nil:
		case trouble:
			why = r
		case *Fault:
			why = r
		case *GenerateError:
			why = r
		case abandoned:
			why = r
		default:
			panic(r)
		}
	}()
	do()
	return nil
}

// expected is the error with which attempt gave up, where it can only be of one type; ok is false
// where it did not. An error of another type is a mistake of ours.
func expected[T error](why error) (wrong T, ok bool) {
	if why == nil {
		return wrong, false
	}
	if wrong, ok = why.(T); !ok {
		panic(why)
	}
	return wrong, true
}
