object Solution {
    def packed(temps: Array[Int], missing: Int): Int = {
        val kept = temps.filter(_ != missing)
        kept.copyToArray(temps)
        kept.length
    }
}
