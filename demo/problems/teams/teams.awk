# The same in awk, with a heap sort of its own.
function sink(i, last,    child, kept) {
    kept = weights[i]
    while ((child = 2 * i) <= last) {
        if (child < last && weights[child + 1] > weights[child]) child++
        if (weights[child] <= kept) break
        weights[i] = weights[child]
        i = child
    }
    weights[i] = kept
}
NR == 1 { least = $1; n = $2; next }
{ for (i = 1; i <= NF; i++) weights[++seen] = $i + 0 }
END {
    for (i = int(n / 2); i >= 1; i--) sink(i, n)
    for (last = n; last > 1; last--) {
        kept = weights[1]; weights[1] = weights[last]; weights[last] = kept
        sink(1, last - 1)
    }
    light = 1; heavy = n
    while (light < heavy) {
        if (weights[light] + weights[heavy] >= least) { heavy--; teams++ }
        light++
    }
    print teams + 0
}
