//go:build darwin || portable

package box

// Promises lists what the box holds, in words for a person.
func (h Hold) Promises() []Promise {
	return []Promise{
		{"time", "in whole seconds, by the kernel; what was used decides at the end", "a run can last a second longer than its time limit"},
		{"wall clock", "a clock", ""},
		{"memory", "the stack by the kernel; the rest is judged by the peak at the end", "memory is not limited while a program runs"},
		{"processes", "-", "processes are not counted"},
		{"output", "counted while it is read", ""},
		{"working folder", "on disk; the size of each file by the kernel", "a program can fill the disk with many files"},
		{"nothing left", "the process group is killed", "a process that leaves its group outlives the run"},
		{"no network", "-", "a program can use the network"},
		{"your files", "-", "a program can change your files"},
		{"expected outputs", "-", "a program can read the expected outputs"},
		{"privileges", "those of the one who starts it", "a program can do all that you can"},
	}
}

// Remedies lists what could be had here and is not: nothing, on this system.
func (h Hold) Remedies() []Remedy { return nil }

// Weaker says what holds less well here than it could: Promises says it all.
func (h Hold) Weaker() string { return "" }
