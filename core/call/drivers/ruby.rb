# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
require 'json'
require 'set'

module ColdDriver
  NAMES = @NAMES@
  CHANGES = @CHANGES@ # the argument that is the result, from 1; 0: what is returned

  CALLS = $stdin.dup
  $stdin.reopen(File::NULL)
  STREAMS = [$stdout.dup, $stderr.dup].each { |s| s.sync = true }
  TOKEN = CALLS.gets.split[2]
  MARK = "\0#{TOKEN}\n"
  ANSWERS = IO.for_fd(3, 'wb')
  ANSWERS.sync = true

  module_function

  # Each answer begins with the word that only this driver knows, and with how many
  # calls were answered before.
  def answer(text, count = 0)
    ANSWERS.write("#{TOKEN} #{count} ", text, "\n")
  end

  def settle
    [$stdout, $stderr].zip(STREAMS) do |stream, kept|
      stream.flush unless stream.closed?
      kept.write(MARK)
    end
  end

  # Finds what to call by its name: a method of the file, or of a class in it.
  def find(before)
    top = Object.new
    NAMES.each { |name| return top.method(name) if Object.private_method_defined?(name) && !before.include?(name.to_sym) }
    kinds = ObjectSpace.each_object(Module).reject { |m| BEFORE.include?(m) || m == ColdDriver || m.name.nil? }
    kinds.each do |kind|
      NAMES.each do |name|
        return kind.method(name) if kind.singleton_methods(false).include?(name.to_sym)
        return ->(*args) { kind.new.send(name, *args) } if kind.is_a?(Class) && (kind.method_defined?(name) || kind.private_method_defined?(name)) && kind.instance_method(name).owner == kind
      end
    end
    nil
  end

  # Turns what JSON has no word for into what it has.
  def plain(value, depth = 0)
    raise ArgumentError, 'it returned a value that is nested too deeply, or contains itself' if depth > 90

    case value
    when nil, true, false, Integer, Float, String then value
    when Rational, BigDecimalOrNone then value.to_f
    when Symbol then value.to_s
    when Hash then value.to_h { |k, v| [k.to_s, plain(v, depth + 1)] }
    when Struct then value.to_a.map { |v| plain(v, depth + 1) }
    when Enumerable then value.map { |v| plain(v, depth + 1) }
    else raise ArgumentError, "it returned a value of the class #{value.class}, which is none of the problem's types"
    end
  end
  BigDecimalOrNone = defined?(BigDecimal) ? BigDecimal : Rational

  def now
    Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID, :nanosecond)
  end

  def call(function, args)
    began = now
    begin
      result = function.call(*args)
    rescue StandardError, SystemStackError, NoMemoryError, NotImplementedError => e
      spent = now - began
      trace = (e.backtrace || []).reject { |line| line.include?('cold_driver') }
      trace = trace.first(10) + ['…'] + trace.last(10) if trace.size > 30
      STREAMS[1].write("#{trace.first}: #{e.message} (#{e.class})\n", trace.drop(1).map { |line| "\tfrom #{line}\n" }.join)
      return "failed #{spent}"
    end
    spent = now - began
    begin
      "done #{spent} #{JSON.generate(plain(CHANGES.zero? ? result : args[CHANGES - 1]), allow_nan: true)}"
    rescue StandardError, SystemStackError => e
      "misfit #{spent} #{e.message.tr("\n", ' ')}"
    end
  end

  def serve(function)
    return answer("unserved there is no function #{NAMES[0]} in @FILE@") unless function

    settle
    answer('ready')
    count = 0
    while (line = CALLS.gets)
      args = JSON.parse(line, max_nesting: false)
      answer('begin', count) if line.size > 100_000
      words = call(function, args)
      settle
      answer(words, count)
      count += 1
    end
  end
  BEFORE = ObjectSpace.each_object(Module).to_a
end

before = Object.private_instance_methods
require_relative @STEM_TEXT@
ColdDriver.serve(ColdDriver.find(before))
exit!(0)
