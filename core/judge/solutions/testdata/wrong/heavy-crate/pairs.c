int heavyCrate(int n) { /* two by two: too many weighings */
    for (int i = 0; i + 1 < n; i += 2) {
        int left[1] = {i}, right[1] = {i + 1};
        int said = balance(left, 1, right, 1);
        if (said) return said > 0 ? i : i + 1;
    }
    return n - 1;
}
