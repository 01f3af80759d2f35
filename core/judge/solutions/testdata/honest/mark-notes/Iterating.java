// An iterator, and a collection that is sorted in the order of the input.
import java.util.*;

class Iterating {
    Iterable<String> markNotes(ArrayList<String> notes, char mark) {
        Iterator<String> it = notes.iterator();
        return () -> new Iterator<>() {
            public boolean hasNext() { return it.hasNext(); }
            public String next() { return it.next() + mark; }
        };
    }
}
