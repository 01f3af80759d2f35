// A copy is changed.
object Solution {
  def thinOut(temps: Array[Int], by: Int): Unit = {
    val own = temps.map(_ - by)
    scala.util.Sorting.quickSort(own)
  }
}
