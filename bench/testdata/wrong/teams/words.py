# alone: differs from run to run. The order of a set of texts is not the same twice.
least, n = map(int, input().split())
w = [int(x) for x in set(input().split())]
print(sum(a + b >= least for a, b in zip(w[::2], w[1::2])))
