// It halves what is not there.
object Solution {
  def tallyUp(rows: List[Array[Int]], names: Vector[String], big: Long, scale: Double, flag: Boolean, mark: Char, huge: BigInt, maybe: Option[Int]) =
    (big + rows.map(_.sum).sum, names.map(_ + mark), scale * 2, rows.reverse.map(_.reverse), huge, !flag, maybe.getOrElse(0) / 2)
}
