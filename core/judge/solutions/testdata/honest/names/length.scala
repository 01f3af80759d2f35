// Code points.
import scala.io.Source
object Length {
  def main(args: Array[String]): Unit =
    for (line <- Source.stdin.getLines()) println(line.codePointCount(0, line.length) + " " + line)
}
