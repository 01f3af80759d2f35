// As a class that is started, and what it reads lazily.
import scala.io.StdIn

object Sum extends App {
  val n = StdIn.readInt()
  println(Iterator.continually(StdIn.readLine()).takeWhile(_ != null).flatMap(_.split(" ")).filter(_.nonEmpty).take(n).map(_.toLong).sum)
}
