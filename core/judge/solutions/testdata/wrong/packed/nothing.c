void packed(int *temps, int n, int missing) { for (int i = 0; i < n; i++) if (temps[i] == missing) temps[i] = 0; }
