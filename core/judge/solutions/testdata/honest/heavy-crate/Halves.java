class Solution extends Scales {
    int heavyCrate(int n) {
        int low = 0, high = n;
        while (high - low > 1) {
            int half = (high - low) / 2;
            int[] left = new int[half], right = new int[half];
            for (int i = 0; i < half; i++) {
                left[i] = low + i;
                right[i] = low + half + i;
            }
            int said = balance(left, right);
            if (said == 0) return high - 1;
            if (said < 0) low += half;
            high = low + half;
        }
        return low;
    }
}
