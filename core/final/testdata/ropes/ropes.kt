import java.math.BigInteger

fun renumber(n: Int, ropes: List<List<Int>>, depths: LongArray, mass: BigInteger) {
    for (i in depths.indices) for (rope in ropes) depths[i] += rope[2].toLong()
    if (mass.bitLength() != 60) depths[0] = 0
}
