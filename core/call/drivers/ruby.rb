# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
require 'json'
require 'set'

module ColdDriver
  NAMES = @NAMES@
  COUNT = @COUNT@ # arguments
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

  # Says that a method can be called with as many arguments as the problem has.
  def takes?(method)
    method.arity >= 0 ? method.arity == COUNT : -method.arity - 1 <= COUNT && (method.parameters.any? { |kind, _| kind == :rest } || method.parameters.count { |kind, _| %i[req opt].include?(kind) } >= COUNT)
  end

  # Finds what to call, by the rules that all drivers have in common: a method of the class
  # Solution, one of the file, one of another class, the last before the first. What takes other
  # arguments, or cannot be made without any, comes behind all others.
  def find(before)
    found = []
    top = Object.new
    NAMES.each do |name|
      next unless Object.private_method_defined?(name) && !before.include?(name.to_sym)

      found << [takes?(top.method(name)) ? 0 : 1, 1, 0, top.method(name)]
    end
    kinds = ObjectSpace.each_object(Module).reject { |m| BEFORE.include?(m) || m == ColdDriver || m.name.nil? || m.singleton_class? }
    places = kinds.sort_by { |kind| place_of(kind) }.reverse
    places.each_with_index do |kind, place|
      NAMES.each do |name|
        belongs = kind.name == 'Solution' ? 0 : 2
        if kind.singleton_methods(false).include?(name.to_sym)
          found << [takes?(kind.method(name)) ? 0 : 1, belongs, place, kind.method(name)]
        elsif kind.is_a?(Class) && (kind.method_defined?(name) || kind.private_method_defined?(name)) && kind.instance_method(name).owner != Object && !BEFORE.include?(kind.instance_method(name).owner)
          makes = kind.instance_method(:initialize)
          fits = takes?(kind.instance_method(name)) && (makes.owner == BasicObject || makes.arity.zero? || makes.arity == -1)
          found << [fits ? 0 : 1, belongs, place, ->(*args) { kind.new.send(name, *args) }]
        end
      end
    end
    best = found.min_by { |f| f.first(3) }
    best && [best[0].zero?, best[3]]
  end

  # The line on which a class begins, as far as that is known.
  def place_of(kind)
    file, line = Object.const_source_location(kind.name)
    file ? line.to_i : 0
  rescue NameError
    0
  end

  # Gathers what is computed only when it is read, which belongs to the call.
  def gathered(value, depth = 0)
    case value
    when Enumerator then value.to_a.map { |v| gathered(v, depth + 1) }
    when Array then depth < 80 && (value.first.is_a?(Enumerator) || value.first.is_a?(Array)) ? value.map { |v| gathered(v, depth + 1) } : value
    else value
    end
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
      result = gathered(function.call(*args))
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

  def serve(found)
    return answer("unserved there is no function #{NAMES[0]} in @FILE@") unless found

    fits, function = found
    return answer("unserved the function in @FILE@ cannot be called with #{COUNT} arguments, which it has in this problem") unless fits

    settle
    answer('ready')
    count = 0
    while (line = CALLS.gets)
      args = JSON.parse(line, max_nesting: false, allow_nan: true)
      answer('begin', count) if line.size > 100_000
      words = call(function, args)
      settle
      answer(words, count)
      count += 1
    end
  end
  BEFORE = ObjectSpace.each_object(Module).to_a
end

eval(@PRELUDE_TEXT@) # what judges supply
before = Object.private_instance_methods
require_relative @STEM_TEXT@
ColdDriver.serve(ColdDriver.find(before))
exit!(0)
