// A helper class above has a method of the name and needs an argument.
class Day {
    final int temp;
    Day(int temp) { this.temp = temp; }
    int warmDays(int[] unused, long limit) { return temp > limit ? 1 : 0; }
}

class HelperAbove {
    public int warmDays(int[] temps, long limit) {
        int n = 0;
        for (int t : temps) n += new Day(t).warmDays(null, limit);
        return n;
    }
}
