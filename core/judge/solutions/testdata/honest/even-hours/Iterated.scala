object Solution { def evenHours(n: Int): Iterator[Int] = Iterator.range(0, n, 2) }
