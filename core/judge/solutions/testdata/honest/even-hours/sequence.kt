fun evenHours(n: Int) = (0 until n step 2).asSequence()
