// A copy.
class Copy { void thinOut(int[] temps, int by) { temps = temps.clone(); for (int i = 0; i < temps.length; i++) temps[i] -= by; java.util.Arrays.sort(temps); } }
