package box

import "slices"

// systemPlaces are where systems keep what programs need to run. None of it is one
// person's, and all programs see it.
var systemPlaces = []string{
	"/usr", "/bin", "/sbin", "/lib", "/lib32", "/lib64", "/libx32", "/opt", "/nix/store", "/gnu/store", "/snap", "/sys/devices/system/cpu",
}

// SeenByAll reports that a path lies where systems keep software for everybody, which
// programs see without asking.
func SeenByAll(path string) bool {
	return slices.ContainsFunc(systemPlaces, func(place string) bool { return Within(path, place) })
}
