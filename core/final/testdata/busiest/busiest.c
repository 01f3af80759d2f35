typedef struct { char *name; int times; } Station;

static int more(const void *a, const void *b) { return ((const Station *)b)->times - ((const Station *)a)->times; }

char **busiest(char **names, int n, int k, int *count)
{
    Station *all = malloc(n * sizeof *all);
    int m = 0;
    for (int i = 0; i < n; i++) {
        int at = 0;
        while (at < m && strcmp(all[at].name, names[i]) != 0) at++;
        if (at == m) all[m++] = (Station){names[i], 0};
        all[at].times++;
    }
    qsort(all, m, sizeof *all, more);
    char **found = malloc(k * sizeof *found);
    for (int i = 0; i < k; i++) found[i] = all[i].name;
    *count = k;
    return found;
}
