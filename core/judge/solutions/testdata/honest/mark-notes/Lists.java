// A list that is a view, by a static helper of the same name with other types.
import java.util.*;

class Lists {
    static String markNotes(String note, Character mark) { return note + mark; }

    public List<String> markNotes(List<String> notes, Character mark) {
        return new AbstractList<>() {
            public String get(int i) { return markNotes(notes.get(i), mark); }
            public int size() { return notes.size(); }
        };
    }
}
