import scala.collection.mutable.ArrayBuffer

// A function of no object, as some write it, and a tuple.
def tally_up(rows: Seq[IndexedSeq[Int]], names: Array[String], big: Long, scale: Float, flag: Boolean, mark: Char, huge: java.math.BigInteger, maybe: Option[Long]) = {
  var sum = big
  for (row <- rows; x <- row) sum += x
  val turned = new ArrayBuffer[Stream[Int]]
  for (row <- rows) turned.insert(0, row.reverse.toStream)
  (sum, names.view.map(_ + mark), scale * 2, turned, huge, !flag, maybe.map(_ / 2))
}
