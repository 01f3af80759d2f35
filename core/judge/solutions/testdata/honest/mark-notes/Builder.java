// Builders in an array of CharSequence.
class Builder {
    CharSequence[] markNotes(String[] notes, char mark) {
        CharSequence[] out = new CharSequence[notes.length];
        for (int i = 0; i < out.length; i++) out[i] = new StringBuilder(notes[i]).append(mark);
        return out;
    }
}
