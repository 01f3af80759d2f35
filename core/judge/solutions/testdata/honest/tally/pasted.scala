// It takes each kind of value that every language has, in collections of many kinds.
object Solution {
  type Rows = List[Array[Int]]

  case class Tally(sum: Long, words: Seq[String], part: Double, turned: Iterator[Array[Int]], all: BigInt, same: Boolean, half: Option[Int])

  def tallyUp(rows: Rows, names: Vector[String], big: Long, scale: Double, flag: Boolean, mark: Char, huge: BigInt, maybe: Option[Int]): Tally =
    Tally(big + rows.map(_.sum).sum, names.map(_ + mark), scale * 2, rows.reverseIterator.map(_.reverse), huge, !flag, maybe.map(_ / 2))
}
