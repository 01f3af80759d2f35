// A stream, which nothing has read yet.
import java.util.*;
import java.util.stream.Collectors;

class Stream {
    java.util.stream.Stream<String> markNotes(String[] notes, char mark) {
        return Arrays.stream(notes).map(n -> n + mark);
    }
}
