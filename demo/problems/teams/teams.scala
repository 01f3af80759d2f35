// The same in Scala.
import scala.io.Source

object Teams extends App {
  val numbers = Source.stdin.getLines().flatMap(_.split(" ")).filter(_.nonEmpty).map(_.toLong)
  val least = numbers.next()
  val weights = Array.fill(numbers.next().toInt)(numbers.next()).sorted
  var (light, heavy, teams) = (0, weights.length - 1, 0)
  while (light < heavy) {
    if (weights(light) + weights(heavy) >= least) {
      heavy -= 1
      teams += 1
    }
    light += 1
  }
  println(teams)
}
