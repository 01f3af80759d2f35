// It returns its own list, which changes later; the text that it makes is its own affair.
class DepthLog {
    private final List<Integer> list = new ArrayList<>();

    public void add(int depth) { list.add(depth); }

    public List<Integer> all() { return list; }

    public void fill(int[] depths) {
        for (int d : depths) list.add(d);
    }

    public String summary() {
        StringBuilder b = new StringBuilder();
        for (int d : list) b.append(d).append(';');
        return b.toString();
    }

    public void restore(String text) {
        for (String part : text.split(";")) if (!part.isEmpty()) list.add(Integer.parseInt(part));
    }
}
