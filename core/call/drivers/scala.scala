// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
import java.io._
import java.lang.management.ManagementFactory
import scala.annotation.implicitNotFound
import scala.collection.mutable.{ArrayBuffer, ListBuffer}
import scala.reflect.ClassTag

/** The argument or result that a declaration has no room for. */
final class ColdMisfit(words: String) extends RuntimeException(words, null, false, false)

/** Reads JSON, each value as the type that it is declared as. */
final class ColdReader(from: InputStream) {
  private val piece = new Array[Byte](1 << 16)
  private var at, end = 0
  var read = 0L // bytes in all
  var parameter = 0 // from 1

  def peek: Int = {
    if (at == end) {
      at = 0
      end = math.max(0, from.read(piece, 0, piece.length))
      read += end
    }
    if (end == 0) -1 else piece(at)
  }

  def next(): Int = {
    val c = peek
    at += 1
    c
  }

  def line(): String = {
    val b = new StringBuilder
    while (peek >= 0 && peek != '\n') b.append(next().toChar)
    if (peek == '\n') next()
    b.toString
  }

  def endLine(): Unit = {
    while ((peek >= 0 || end > 0) && peek != '\n') next()
    if (peek == '\n') next()
  }

  /** What stands between two marks of JSON: a number, or a word. */
  def word(): String = {
    val b = new StringBuilder
    var c = peek
    while (c == '-' || c == '+' || c == '.' || c >= '0' && c <= '9' || c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z') {
      b.append(next().toChar)
      c = peek
    }
    b.toString
  }

  def lacks(declared: String, given: String) = new ColdMisfit(s"parameter $parameter is declared as $declared, and the problem gives $given there")

  def given: String = peek match {
    case '[' => "an array"
    case '"' => "a text"
    case 't' | 'f' => "a bool"
    case 'n' => "null"
    case _ => "a number"
  }

  def integer(declared: String, least: Long, most: Long): Long = {
    val negative = peek == '-'
    if (negative) next()
    if (peek < '0' || peek > '9') throw lacks(declared, given)
    var x = 0L
    while (peek >= '0' && peek <= '9') {
      val digit = next() - '0'
      if (x < (Long.MinValue + digit) / 10 || x * 10 < Long.MinValue + digit) throw new ColdMisfit(s"an integer past $declared, as which parameter $parameter is declared")
      x = x * 10 - digit
    }
    if (peek == '.' || peek == 'e') throw lacks(declared, "a real")
    val value = if (negative) x else -x
    if (value < least || value > most || !negative && value < 0)
      throw new ColdMisfit(s"${BigInt(x) * (if (negative) 1 else -1)} is more than $declared holds, as which parameter $parameter is declared")
    value
  }

  def real(declared: String): Double = {
    if (peek == '[' || peek == '"' || peek == 't' || peek == 'f' || peek == 'n') throw lacks(declared, given)
    word().toDouble
  }

  def digits(declared: String): String = {
    if (peek != '-' && (peek < '0' || peek > '9')) throw lacks(declared, given)
    word()
  }

  def text(declared: String): String = {
    if (peek != '"') throw lacks(declared, given)
    next()
    val b = new ByteArrayOutputStream
    var c = next()
    while (c != '"' && end > 0) {
      if (c == '\\') {
        c = next()
        if (c == 'u') b.write(new String(Array(Integer.parseInt((1 to 4).map(_ => next().toChar).mkString, 16).toChar)).getBytes("UTF-8"))
        else b.write(if (c == 'n') '\n' else if (c == 't') '\t' else c)
      } else b.write(c)
      c = next()
    }
    new String(b.toByteArray, "UTF-8")
  }

  def each(declared: String)(one: => Unit): Unit = {
    if (peek != '[') throw lacks(declared, given)
    next()
    while (peek != ']' && end > 0) {
      one
      if (peek == ',') next()
    }
    next()
  }
}

@implicitNotFound("a parameter is declared as ${T}, which arguments of this problem cannot be")
trait ColdTake[T] { def apply(r: ColdReader): T }

trait ColdTakeAny {
  def as[T](take: ColdReader => T): ColdTake[T] = new ColdTake[T] { def apply(r: ColdReader) = take(r) }

  def many[T, C](declared: String, whole: ArrayBuffer[T] => C)(implicit t: ColdTake[T]): ColdTake[C] = as { r =>
    val b = new ArrayBuffer[T]
    r.each(declared)(b += t(r))
    whole(b)
  }

  implicit def array[T: ClassTag: ColdTake]: ColdTake[Array[T]] = many[T, Array[T]]("Array", _.toArray)
  implicit def list[T: ColdTake]: ColdTake[List[T]] = many[T, List[T]]("List", _.toList)
  implicit def vector[T: ColdTake]: ColdTake[Vector[T]] = many[T, Vector[T]]("Vector", _.toVector)
  implicit def seq[T: ColdTake]: ColdTake[Seq[T]] = many[T, Seq[T]]("Seq", _.toVector)
  implicit def indexed[T: ColdTake]: ColdTake[IndexedSeq[T]] = many[T, IndexedSeq[T]]("IndexedSeq", _.toVector)
  implicit def iterable[T: ColdTake]: ColdTake[Iterable[T]] = many[T, Iterable[T]]("Iterable", _.toVector)
  implicit def set[T: ColdTake]: ColdTake[Set[T]] = many[T, Set[T]]("Set", _.toSet)
  implicit def buffer[T: ColdTake]: ColdTake[ArrayBuffer[T]] = many[T, ArrayBuffer[T]]("ArrayBuffer", b => b)
  implicit def buffers[T: ColdTake]: ColdTake[scala.collection.mutable.Buffer[T]] = many[T, scala.collection.mutable.Buffer[T]]("Buffer", b => b)
  implicit def listBuffer[T: ColdTake]: ColdTake[ListBuffer[T]] = many[T, ListBuffer[T]]("ListBuffer", ListBuffer[T]() ++= _)
  implicit def option[T](implicit t: ColdTake[T]): ColdTake[Option[T]] = as(r => if (r.peek == 'n') { r.word(); None } else Some(t(r)))
}

object ColdTake extends ColdTakeAny {
  implicit val int: ColdTake[Int] = as(_.integer("Int", Int.MinValue, Int.MaxValue).toInt)
  implicit val long: ColdTake[Long] = as(_.integer("Long", Long.MinValue, Long.MaxValue))
  implicit val short: ColdTake[Short] = as(_.integer("Short", Short.MinValue, Short.MaxValue).toShort)
  implicit val byte: ColdTake[Byte] = as(_.integer("Byte", Byte.MinValue, Byte.MaxValue).toByte)
  implicit val double: ColdTake[Double] = as(_.real("Double"))
  implicit val float: ColdTake[Float] = as(_.real("Float").toFloat)
  implicit val bigInt: ColdTake[BigInt] = as(r => BigInt(r.digits("BigInt")))
  implicit val bigInteger: ColdTake[java.math.BigInteger] = as(r => new java.math.BigInteger(r.digits("BigInteger")))
  implicit val bigDecimal: ColdTake[BigDecimal] = as(r => BigDecimal(r.digits("BigDecimal")))
  implicit val boolean: ColdTake[Boolean] = as(r => if (r.peek == 't' || r.peek == 'f') r.word() == "true" else throw r.lacks("Boolean", r.given))
  implicit val string: ColdTake[String] = as(r => if (r.peek == 'n') { r.word(); null } else r.text("String"))
  implicit val char: ColdTake[Char] = as { r =>
    val s = r.text("Char")
    if (s.length != 1) throw r.lacks("Char", "a character that it does not hold")
    s.charAt(0)
  }
  implicit val ints: ColdTake[Array[Int]] = as { r =>
    var a = new Array[Int](16)
    var n = 0
    r.each("Array") {
      if (n == a.length) a = java.util.Arrays.copyOf(a, 2 * n)
      a(n) = r.integer("Int", Int.MinValue, Int.MaxValue).toInt
      n += 1
    }
    java.util.Arrays.copyOf(a, n)
  }
  implicit val longs: ColdTake[Array[Long]] = as { r =>
    var a = new Array[Long](16)
    var n = 0
    r.each("Array") {
      if (n == a.length) a = java.util.Arrays.copyOf(a, 2 * n)
      a(n) = r.integer("Long", Long.MinValue, Long.MaxValue)
      n += 1
    }
    java.util.Arrays.copyOf(a, n)
  }
}

object ColdDriver {
  private val out = new FileOutputStream(FileDescriptor.out)
  private val err = new FileOutputStream(FileDescriptor.err)
  private val answers = new FileOutputStream("/proc/self/fd/3")
  private val threads = ManagementFactory.getThreadMXBean
  private val system = ManagementFactory.getOperatingSystemMXBean.asInstanceOf[com.sun.management.OperatingSystemMXBean]
  private var token = ""
  private var count = 0L

  private def answer(text: String): Unit = answers.write(s"$token $count $text\n".getBytes("UTF-8"))

  // The mark stands where the call ended: what it returned is written behind it.
  private var settled = false
  private def settle(): Unit = if (!settled) {
    settled = true
    System.out.flush()
    System.err.flush()
    for (stream <- List(out, err)) stream.write(s"\u0000$token\n".getBytes("UTF-8"))
  }

  private var spent = 0L
  private def measured[R](call: => R): R = {
    val began = threads.getCurrentThreadCpuTime
    try {
      val result = call
      gathered(result, 0).asInstanceOf[R]
    } finally spent = threads.getCurrentThreadCpuTime - began
  }

  /** Gathers what is computed only when it is read, which belongs to the call. */
  private def gathered(v: Any, depth: Int): Any = v match {
    case i: Iterator[_] => i.map(gathered(_, depth + 1)).toVector
    case s: Iterable[_] if s.getClass.getName.contains("Stream") || s.getClass.getName.contains("View") || s.getClass.getName.contains("LazyList") =>
      s.iterator.map(gathered(_, depth + 1)).toVector
    case s: Seq[_] if depth < 2 && s.headOption.exists(one => one.isInstanceOf[Iterable[_]] || one.isInstanceOf[Iterator[_]]) => s.map(gathered(_, depth + 1))
    case t: Product if depth < 1 && !v.isInstanceOf[Iterable[_]] && t.productIterator.exists(lazily) => t.productIterator.map(gathered(_, depth + 1)).toVector
    case _ => v
  }

  private def lazily(v: Any) = v.isInstanceOf[Iterator[_]] || v.isInstanceOf[Iterable[_]]

  private def write(b: java.lang.StringBuilder, v: Any, depth: Int): Unit = {
    if (depth > 500) throw new ColdMisfit("it returned a value that is nested too deeply, or contains itself")
    def listed(all: Iterator[Any]): Unit = {
      b.append('[')
      var first = true
      for (one <- all) {
        if (!first) b.append(',')
        first = false
        write(b, one, depth + 1)
      }
      b.append(']')
    }
    v match {
      case null => b.append("null")
      case s: CharSequence => quote(b, s.toString)
      case c: Char => quote(b, c.toString)
      case _: Boolean | _: Number | _: scala.math.ScalaNumber => b.append(v.toString)
      case a: Array[Int] =>
        b.append('[')
        var i = 0
        while (i < a.length) {
          if (i > 0) b.append(',')
          b.append(a(i))
          i += 1
        }
        b.append(']')
      case a: Array[_] => listed(a.iterator)
      case None => b.append("null")
      case Some(one) => write(b, one, depth)
      case s: Iterable[_] => listed(s.iterator)
      case s: java.util.Collection[_] => listed(s.toArray.iterator)
      case p: Product => listed(p.productIterator)
      case () => throw new ColdMisfit("it returned Unit, where the problem has a value")
      case _ => throw new ColdMisfit(s"it returned a ${v.getClass.getName}, which is none of the problem's types")
    }
  }

  private def quote(b: java.lang.StringBuilder, s: String): Unit = {
    b.append('"')
    for (c <- s)
      if (c == '"' || c == '\\') b.append('\\').append(c)
      else if (c < ' ') b.append("\\u%04x".format(c.toInt))
      else b.append(c)
    b.append('"')
  }

  /** Prints what the function threw, as the virtual machine would, without what called it. */
  private def trace(thrown: Throwable): Unit = {
    val own = thrown.getStackTrace.takeWhile(!_.getClassName.startsWith("ColdDriver"))
    val text = new StringBuilder(s"""Exception in thread "main" $thrown\n""")
    for (one <- own.take(40)) text.append(s"\tat $one\n")
    if (thrown.getCause != null) text.append(s"Caused by: ${thrown.getCause}\n")
    System.err.print(text)
  }

  def main(args: Array[String]): Unit = {
    val r = new ColdReader(System.in)
    System.setIn(new ByteArrayInputStream(new Array[Byte](0)))
    token = r.line().split(" ").last
    measured(Vector(1)) // so that no call pays for what is loaded once
    settle()
    answer("ready")
    while (r.peek >= 0) {
      val from = r.read
      val started = threads.getTotalStartedThreadCount
      val process = system.getProcessCpuTime
      val b = new java.lang.StringBuilder
      var words = "done"
      var taken = false
      def instead(other: String, why: String): Unit = {
        words = other
        b.setLength(0)
        b.append(why)
      }
      settled = false
      spent = 0
      try ColdCall(r, b, () => {
        r.endLine()
        taken = true
        if (r.read - from > 100000) answer("begin")
      })
      catch {
        case e: ColdMisfit => instead("misfit", e.getMessage)
        case e: Throwable =>
          trace(e)
          instead("failed", "1")
      }
      if (!taken) r.endLine()
      if (threads.getTotalStartedThreadCount > started) // those may have ended, and only the whole tells of them
        spent = math.max(spent, system.getProcessCpuTime - process)
      settle()
      answer(s"$words $spent $b")
      count += 1
    }
    out.flush()
    Runtime.getRuntime.halt(0)
  }

  private object ColdCall {
    private def take[T](r: ColdReader, parameter: Int)(implicit t: ColdTake[T]): T = {
      r.next() // "[" or ","
      r.parameter = parameter
      t(r)
    }

    def apply(coldReader: ColdReader, coldText: java.lang.StringBuilder, coldBegins: () => Unit): Unit = {
      @IMPORT@
@TAKE@
      coldBegins()
      val coldResult: Any = measured(@CALL@)
      settle()
      write(coldText, @GIVE@, 0)
    }
  }
}
