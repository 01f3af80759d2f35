package hall

// In place, and overloaded; a class that has a companion.
class Solution(verbose: Boolean = false) {
  def thinOut(temps: Array[Int]): Unit = thinOut(temps, 1)

  def thinOut(temps: Array[Int], by: Int): Unit = {
    for (i <- temps.indices) temps(i) -= by
    scala.util.Sorting.quickSort(temps)
  }
}

object Solution extends App {
  println("nothing to do")
}
