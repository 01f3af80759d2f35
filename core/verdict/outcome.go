package verdict

import "strings"

import "time"

// Limits are what one run is held to. A zero field means that this resource
// is not limited.
type Limits struct {
	Time      time.Duration // processor time of the whole process tree
	Wall      time.Duration // elapsed time
	Memory    int64         // bytes, peak of the process tree
	Output    int64         // bytes, standard output and standard error together
	Processes int           // processes and threads alive at one moment
}

// Usage is what one run took.
type Usage struct {
	CPU    time.Duration // processor time of the whole process tree
	Wall   time.Duration // elapsed time from the program's first instruction to its end
	Memory int64         // bytes, peak of the process tree

	// Starved is the part of Wall in which threads of the program could have run, and the
	// machine ran something else, added up, and at most Wall. 0 for short runs, in which
	// it is not looked at.
	Starved time.Duration
}

// Own is the part of the elapsed time that is the program's, whether it ran or waited.
func (u Usage) Own() time.Duration { return u.Wall - u.Starved }

// A Spread is how far the processor time of several runs of one case varied.
type Spread struct {
	Runs                int
	Least, Median, Most time.Duration
}

// An Outcome is all that is known of one case after its run.
type Outcome struct {
	Verdict Verdict
	Usage   Usage

	// Spread says how far the processor time varied where the case was run
	// several times; Usage then has the median. Nil: it was run once.
	Spread *Spread

	// Ran says that the program was started: Usage and ExitCode are facts.
	Ran      bool
	ExitCode int    // exit status; 0 where a signal ended the program
	Signal   string // in words, "segmentation fault (signal 11)"; empty if none did

	// Share is the part of the case's points that the candidate gets: 1 if it
	// was accepted, what the checker gave if that is partial, and else 0.
	Share float64
	// NoAnswer says that what was printed for several parts of a problem has no answer to the one that is asked.
	NoAnswer bool
	// Waited says that the run was ended while the program waited for input
	// that would not come.
	Waited bool

	// Message is the shortest useful remark, in words; may be empty.
	Message string
	// Close says that an accepted case used more than 80 % of a limit.
	Close bool
	// Unsteady says that the case was run more than once and the runs differed in more
	// than their time; the worse verdict stands.
	Unsteady bool

	// Differs says that an output which nobody can judge is not that of another solution;
	// nil: it is, or there was none.
	Differs *Differs

	Difference *Difference // where expected and got differ; nil unless compared and different
	Hints      []string    // what an experienced friend would say at a glance

	// Returned is what a function returned, as JSON; empty in other problems.
	Returned string
	// Methods are those of a class that were called, what took longest first; nil in other problems.
	Methods []MethodTime

	Stdout Text // what the program printed, or its beginning
	Stderr Text // what it wrote to standard error, or its beginning

	// Checker is what a checker, or the interactor of a talk, wrote beside its
	// decision, or its beginning.
	Checker Text
	Talk    *Talk // what was said in an interactive problem; nil in others
}

// A MethodTime is what all calls of a method took in a case.
type MethodTime struct {
	Method string // "new" makes an object
	Calls  int
	CPU    time.Duration // processor time
}

// Said is the verdict in words, with the remark behind it.
func (o Outcome) Said() string {
	if o.Message == "" {
		return o.Verdict.String()
	}
	return o.Verdict.String() + ", " + o.Message
}

// Differs is where the outputs of two solutions differ.
type Differs struct {
	Solution   int         // index of the other one, which was run before
	Difference *Difference // Expected is what the other one printed or returned
}

// A Talk is what a candidate and the interactor said to each other, or its
// beginning and its end.
type Talk struct {
	Other   string // name of the interactor
	Lines   []Said
	LeftOut int // lines before Lines[Gap] that were not kept
	Gap     int
}

// A Said is one line of a talk.
type Said struct {
	ByOther bool          // the interactor said it, not the candidate
	After   time.Duration // since the candidate began; when its first byte came
	Text    string        // without the line end; a long one is cut
	Open    bool          // there was no line end
}

// A Text is the beginning of something that a program wrote.
type Text struct {
	Bytes []byte
	Cut   bool // there was more
}

// A Difference is the first place where expected and got differ. Lines and
// columns count from 1, columns in characters.
type Difference struct {
	// Path leads to where two values differ: "[3][0]". Lines and columns then mean
	// nothing. Empty for texts, and where the values differ as a whole.
	Path         string
	Line, Column int    // in what the program printed
	Expected     string // the token or line expected there; empty at the end
	Got          string // the token or line printed there; empty at the end
	// Reason says in words what kind of difference this is, where the two
	// texts alone would not: "the output ends too early".
	Reason string
	Kind   DifferenceKind

	ExpectedSide, GotSide Excerpt

	// Differ says how many differ in all, where the outputs are compared with
	// each other line by line or word by word; 0: it is not known. Unit is
	// "line" or "word".
	Differ int
	Unit   string
	// ExpectedLines and GotLines count lines, but for blank ones at the end; 0
	// where that is not known, or nothing follows that could be counted.
	ExpectedLines, GotLines int

	// Answer is the part of the output in which the difference lies, where the
	// input says that it holds many cases; its zero value: it is not known.
	Answer Answer
}

// A DifferenceKind is what two outputs differ in.
type DifferenceKind int

// Kinds of differences.
const (
	InText    DifferenceKind = iota // in what can be seen
	InSpacing                       // in blanks or line ends, which cannot
	InAmount                        // in two numbers, of which Reason says how far apart they are
	InAll                           // nothing was printed
)

// An Answer is one of several that a program prints in one run.
type Answer struct {
	Number, Of int // from 1
	// FirstLine and LastLine are its share of the input, from 1; 0 where the
	// input's layout does not tell.
	FirstLine, LastLine int
}

// An Excerpt is a few whole lines of a text around a difference.
type Excerpt struct {
	FirstLine int      // number of Lines[0], from 1; 0 if this is a value, which has no lines
	Lines     []string // without line ends; a long line is cut around the difference
	Starts    []int    // for each line, how many characters were cut off at its left
	Mark      int      // index in Lines of the line that differs; len(Lines) at the end of the text
	Column    int      // in that line, from 1, in characters of the uncut line
	AtStart   bool     // Lines begins with the first line of the text
	AtEnd     bool     // Lines ends with the last line of the text
}

// LastLine is the last line of a text that is not blank, without blanks around it.
func LastLine(text string) string {
	text = strings.TrimSpace(text)
	return strings.TrimSpace(text[strings.LastIndexByte(text, '\n')+1:])
}
