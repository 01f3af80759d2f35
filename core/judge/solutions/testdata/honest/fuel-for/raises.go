// It returns an error.
package main

func fuelFor(days, huts int) (int, error) {
	if huts == 0 {
		return 0, errors.New("no huts")
	}
	return days / huts, nil
}
