// A stream that is used up.
import java.util.*;
import java.util.stream.Stream;
class Used { Stream<String> markNotes(String[] notes, char mark) { Stream<String> s = Arrays.stream(notes).map(n -> n + mark); s.count(); return s; } }
