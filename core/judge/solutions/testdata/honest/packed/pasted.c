int packed(int* temps, int n, int missing) { int k = 0; for (int i = 0; i < n; i++) if (temps[i] != missing) temps[k++] = temps[i]; return k; }
