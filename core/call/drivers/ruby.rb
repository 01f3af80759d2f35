# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
@REQUIRES@

# What judges declare for nodes.
class ListNode
  attr_accessor :val, :next

  def initialize(val = 0, _next = nil)
    @val = val
    @next = _next
  end
end

class TreeNode
  attr_accessor :val, :left, :right

  def initialize(val = 0, left = nil, right = nil)
    @val = val
    @left = left
    @right = right
  end
end

class Node
  attr_accessor :val, :prev, :next, :children, :neighbors

  def initialize(val = 0, many = nil)
    @val = val
    @children = many || []
    @neighbors = many || []
  end
end

module ColdDriver
  # Reads and writes what goes over the wire. Where the source must stand for itself it does so without
  # Ruby's library, which would be there for the source, too.
  module Wire
    WORDS = { 'null' => nil, 'true' => true, 'false' => false, 'NaN' => Float::NAN, 'Infinity' => Float::INFINITY, '-Infinity' => -Float::INFINITY }.freeze
    LETTERS = { 'b' => "\b", 'f' => "\f", 'n' => "\n", 'r' => "\r", 't' => "\t" }.freeze
    LIBRARY = defined?(JSON) ? JSON : nil

    module_function

    def parse(text)
      return LIBRARY.parse(text, max_nesting: false, allow_nan: true) if LIBRARY

      open = [[]]
      text.scan(/"(?:[^"\\]|\\.)*"|[\[\]{}]|[^\s\[\]{},:"]+/) do |token|
        case token
        when '[', '{' then open << []
        when ']' then open[-2] << open.pop
        when '}' then open[-2] << open.pop.each_slice(2).to_h
        else open[-1] << one(token)
        end
      end
      open[0][0]
    end

    def one(token)
      return unquoted(token[1..-2]) if token.start_with?('"')
      return WORDS[token] if WORDS.key?(token)

      token.match?(/[.eE]/) ? token.to_f : token.to_i
    end

    def unquoted(text)
      return text unless text.include?('\\')

      text.gsub(/\\u([dD][89abAB]\h\h)\\u(\h{4})|\\u(\h{4})|\\(.)/) do
        next LETTERS.fetch($4, $4) if $4

        [$3 ? $3.hex : 0x10000 + (($1.hex - 0xd800) << 10) + $2.hex - 0xdc00].pack('U')
      end
    end

    def generate(value)
      return LIBRARY.generate(value, allow_nan: true) if LIBRARY

      case value
      when nil then 'null'
      when Array then "[#{value.map { |v| generate(v) }.join(',')}]"
      when Hash then "{#{value.map { |k, v| "#{generate(k.to_s)}:#{generate(v)}" }.join(',')}}"
      when String then quoted(value.encode('UTF-8'))
      when Float then value.nan? ? 'NaN' : value.to_s
      else value.to_s
      end
    end

    def quoted(text)
      raise ArgumentError, 'it returned a text that is not valid UTF-8' unless text.valid_encoding?

      "\"#{text.gsub(/["\\\x00-\x1f]/) { |c| format('\\u%04x', c.ord) }}\""
    end
  end

  NAMES = @NAMES@
  COUNT = @COUNT@ # arguments
  CHANGES = @CHANGES@ # the argument that is the result, from 1; 0: what is returned
  BOTH = @BOTH@ != 0 # what is returned is a result, too
  NODE_OF = @NODE_OF@ # the argument of which a node is returned, from 1; 0: none
  PLACES_OF = @PLACES_OF@ # the argument of which others are nodes, from 1; 0: none
  COPY_OF = @COPY_OF@ # the argument of which a copy is returned, from 1; 0: none

  CLASS = @CLASS@ # whose objects are made and called; empty: it is a function
  METHODS = Wire.parse(@METHODS_TEXT@) # of the class, by our names
  NEW = @NEW@ # types of what an object is made with
  TAKES = @TAKES@ # types of the arguments
  RESULTS = @RESULTS@ # and of what is returned
  GIVEN = Wire.parse(@GIVEN_TEXT@) # functions that the site provides: our name, its spellings, and the type of what it returns

  # Fields of nodes, by the names that people give them.
  FIELDS = { value: %w[val value data key item], next: %w[next nxt], prev: %w[prev previous], left: %w[left], right: %w[right],
             children: %w[children kids], neighbors: %w[neighbors neighbours adjacent] }.freeze
  SHAPES = { 'list' => %i[value next], 'list2' => %i[value prev next], 'tree' => %i[value left right], 'nary' => %i[value children], 'graph' => %i[value neighbors] }.freeze

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

  # The functions that the site provides, which the judge answers.
  def provide(text)
    GIVEN.each do |name, names, _|
      names.each do |spelling|
        Object.send(:define_method, spelling) do |*args|
          ColdDriver.answer("asks #{name} #{Wire.generate(ColdDriver.plain(args))}", ColdDriver.count)
          ColdDriver.parsed(CALLS.gets)
        end
        Object.send(:private, spelling)
      end
    end
    text.scan(/^\s*class\s+\w+\s*<\s*([A-Z]\w*)\s*$/).flatten.each do |base|
      Object.const_set(base, Class.new) unless GIVEN.empty? || Object.const_defined?(base) || text =~ /^\s*class\s+#{base}\b/
    end
  end

  def count = @count || 0

  # The mark stands where the call ended: what it returned is written behind it.
  def settle
    return if @settled

    @settled = true
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
    unless CLASS.empty?
      name = NAMES.find { |n| n =~ /\A[A-Z]/ && Object.const_defined?(n) }
      return name && [true, OfClass.new(Object.const_get(name))]
    end
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
    best && [best[0].zero?, OfFunction.new(best[3])]
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

  # The class of the nodes of a shape, the source's own before the usual one, and the names of its fields.
  def node_type(shape)
    @node_types ||= {}
    @node_types[shape] ||= begin
      own = ObjectSpace.each_object(Class).reject { |k| BEFORE.include?(k) || k.name.nil? || k.singleton_class? }.sort_by { |k| place_of(k) }.reverse
      usual = Object.const_get({ 'list' => :ListNode, 'tree' => :TreeNode }.fetch(shape, :Node))
      found = nil
      (own + [usual]).each do |kind|
        names = SHAPES[shape].to_h { |f| [f, FIELDS[f].find { |n| kind.method_defined?(n) && kind.method_defined?("#{n}=") }] }
        next if names.values.any?(&:nil?) || (shape == 'list' && FIELDS[:prev].any? { |n| kind.method_defined?(n) })

        break found = [kind, names]
      end
      found || raise(ArgumentError, "the source has no class of nodes with the fields #{SHAPES[shape].map { |f| FIELDS[f][0] }.join(', ')}")
    end
  end

  # What makes nodes of a shape of their values: the first way in which their class lets itself be made, and what sets
  # their fields.
  def node_maker(shape)
    kind, names = node_type(shape)
    held = :"#{names[:value]}="
    bare = names.except(:value).map { |f, name| [:"#{name}=", %i[children neighbors].include?(f)] }
    way = nil
    lambda do |value|
      node = way && kind.new(value, *way)
      [[], [nil], [nil, nil]].each do |args|
        break node = kind.new(value, *(way = args)) if node.nil?
      rescue ArgumentError
        way = nil
      end
      node ||= kind.method_defined?(:initialize, false) && kind.instance_method(:initialize).arity.positive? ? kind.allocate : kind.new
      node.public_send(held, value)
      bare.each { |name, many| node.public_send(name, many ? [] : nil) }
      node
    end
  end

  # Makes nodes of a value, where its type says that it is made of them.
  def taken(type, value)
    return value if value.nil? || !type.include?('(')
    return taken(type[0..-2], value) if type.end_with?('?')
    return value.map { |v| taken(type[0..-3], v) } if type.end_with?('[]')

    shape = type[/\A\w+/]
    if shape == 'map'
      key, held = type[4..-2].split(', ', 2)
      return value.to_h { |k, v| [%w[int long].include?(key) ? k.to_i : k, taken(held, v)] }
    end
    cycle = -1
    value, cycle = value['list'], value['cycle'] if value.is_a?(Hash)
    return nil if value.empty?

    names = node_type(shape)[1]
    made = node_maker(shape)
    setters = names.transform_values { |name| :"#{name}=" }
    set = ->(node, f, other) { node.public_send(setters[f], other) }
    if %w[list list2].include?(shape)
      nodes = value.map { |v| made.call(v) }
      nodes.each_with_index do |node, i|
        other = nodes[i + 1] || (cycle >= 0 ? nodes[cycle] : nil)
        set.call(node, :next, other)
        set.call(other, :prev, node) if other && shape == 'list2'
      end
      return nodes[0]
    end
    if shape == 'graph'
      nodes = (1..value.size).map { |i| made.call(i) }
      nodes.zip(value) { |node, others| set.call(node, :neighbors, others.map { |n| nodes[n - 1] }) }
      return nodes[0]
    end
    nodes = [made.call(value[0])]
    at = shape == 'tree' ? 1 : 2
    i = 0
    while i < nodes.size
      if shape == 'tree'
        %i[left right].each do |side|
          unless value[at].nil?
            nodes << made.call(value[at])
            set.call(nodes[i], side, nodes[-1])
          end
          at += 1
        end
      else
        until value[at].nil?
          nodes << made.call(value[at])
          nodes[i].send(names[:children]) << nodes[-1]
          at += 1
        end
        at += 1
      end
      i += 1
    end
    nodes[0]
  end

  # Makes values of nodes, where the type says that they are nodes.
  def given(type, value)
    return value unless type.include?('(')
    return value.nil? ? nil : given(type[0..-2], value) if type.end_with?('?')
    return value.respond_to?(:map) ? value.map { |v| given(type[0..-3], v) } : value if type.end_with?('[]')
    return [] if value.nil?

    shape = type[/\A\w+/]
    return value if shape == 'map'

    names = node_type(shape)[1]
    get = lambda do |node, f|
      node.public_send(names[f])
    rescue NoMethodError
      raise ArgumentError, "it returned a value of the class #{node.class} where a node was expected"
    end
    seen = @visited = {}.compare_by_identity # the places of nodes
    values = []
    if %w[list list2].include?(shape)
      node = value
      before = nil
      until node.nil?
        return { 'list' => values, 'cycle' => seen[node] } if seen.key?(node)
        raise ArgumentError, "it returned a list in which the link backwards of node #{values.size}, counted from 0, does not lead to the node before it" if shape == 'list2' && !get.call(node, :prev).equal?(before)

        seen[node] = values.size
        values << get.call(node, :value)
        node, before = get.call(node, :next), node
      end
      return values
    end
    nodes = [value]
    seen[value] = 0
    if shape == 'graph'
      nodes.each { |one| get.call(one, :neighbors).each { |other| seen.key?(other) || (seen[other] = 0) && nodes << other } }
      nodes.sort_by! { |one| get.call(one, :value) }
      nodes.each_with_index { |one, i| seen[one] = i + 1 }
      return nodes.map { |one| get.call(one, :neighbors).map { |other| seen[other] } }
    end
    values << get.call(value, :value)
    values << nil if shape == 'nary'
    nodes.each do |one|
      (shape == 'nary' ? get.call(one, :children) || [] : [get.call(one, :left), get.call(one, :right)]).each do |child|
        values << (child.nil? ? nil : get.call(child, :value))
        next if child.nil?
        raise ArgumentError, "it returned a tree in which the node with the value #{values[-1]} has two parents" if seen.key?(child)

        seen[child] = values.size - 1
        nodes << child
      end
      values << nil if shape == 'nary'
    end
    values.pop while values.any? && values[-1].nil?
    values
  end

  # The places of the nodes of an argument.
  def places(number, args)
    return {} if number.zero? || args[number - 1].nil?

    given(TAKES[number - 1], args[number - 1])
    @visited
  end

  def visited = @visited

  def outcome(value)
    return given(RESULTS[0], value) if RESULTS.size == 1

    value.is_a?(Array) && RESULTS.any? { |t| t.include?('(') } ? value.each_with_index.map { |v, i| given(RESULTS[i].to_s, v) } : value
  end

  def now
    Process.clock_gettime(Process::CLOCK_PROCESS_CPUTIME_ID, :nanosecond)
  end

  # What the source raised.
  class Threw < StandardError
    attr_reader :error

    def initialize(error)
      super()
      @error = error
    end
  end

  # Does what the source is asked for, and notes how long that took.
  def made(times)
    began = now
    begin
      yield
    rescue StandardError, SystemStackError, NoMemoryError, NotImplementedError => e
      raise Threw, e
    ensure
      times << now - began
    end
  end

  def written(value)
    Wire.generate(plain(value))
  end

  # What each line asks for where the source has a function.
  class OfFunction
    def initialize(function)
      @function = function
    end

    def read(values)
      @args = values.each_with_index.map { |v, i| ColdDriver.taken(TAKES[i], v) }
      @originals = ColdDriver.places([NODE_OF, COPY_OF, PLACES_OF].max, @args)
      return if PLACES_OF.zero?

      nodes = @originals.to_h { |node, at| [at, node] }
      @args = @args.each_with_index.map { |v, i| TAKES[i].start_with?('node of ') ? nodes[v] : v }
    end

    def text(times)
      result = ColdDriver.made(times) { ColdDriver.gathered(@function.call(*@args)) }
      ColdDriver.settle
      if NODE_OF.positive?
        raise ArgumentError, "it returned a node that is none of argument #{NODE_OF}'s, even if one of these has the same value" unless result.nil? || @originals.key?(result)

        return ColdDriver.written(result.nil? ? nil : @originals[result])
      end
      return ColdDriver.written(ColdDriver.outcome(result)) if CHANGES.zero?
      return ColdDriver.written(ColdDriver.given(TAKES[CHANGES - 1], @args[CHANGES - 1])) unless BOTH

      first = ColdDriver.given(RESULTS[0], result)
      raise ArgumentError, "it returned nodes of argument #{COPY_OF} themselves, where a copy was asked for" if COPY_OF.positive? && result && ColdDriver.visited.any? { |node, _| @originals.key?(node) }

      ColdDriver.written([first, ColdDriver.given(TAKES[CHANGES - 1], @args[CHANGES - 1])])
    end
  end

  # Says that to write a value takes long enough to matter.
  def large?(value)
    value.respond_to?(:size) && !value.is_a?(Numeric) && (value.size > 2000 || value.is_a?(Array) && value.any? { |one| (one.is_a?(Array) || one.is_a?(String)) && one.size > 100 })
  end

  # What each line asks for where the source has a class: a sequence of calls of its objects. What a call
  # returned is written at once, since later calls may change it.
  class OfClass
    def initialize(kind)
      @kind = kind
    end

    def read(values)
      @steps = values[0].map do |name, number, args, uses|
        takes = name == 'new' ? NEW : METHODS[name]['takes']
        [name, number, takes, args.each_with_index.map { |v, i| ColdDriver.taken(takes[i], v) }, uses]
      end
    end

    def text(times)
      objects = []
      texts = []
      long = false
      @steps.each do |name, number, takes, args, uses|
        ColdDriver.answer('goes-on', ColdDriver.count) if long
        long = false
        uses.each_slice(2) { |at, step| args[at] = ColdDriver.taken(takes[at], ColdDriver.parsed(texts[step])) }
        if name == 'new'
          objects[number] = ColdDriver.made(times) { @kind.new(*args) }
          next texts << 'null'
        end
        method = METHODS[name]
        found = method['names'].find { |n| objects[number].respond_to?(n) }
        raise ArgumentError, "#{@kind.name} has no method #{name}" unless found

        result = ColdDriver.made(times) { ColdDriver.gathered(objects[number].send(found, *args)) }
        long = !method['returns'].empty? && ColdDriver.large?(result)
        ColdDriver.answer('writes', ColdDriver.count) if long
        texts << (method['returns'].empty? ? 'null' : ColdDriver.written(ColdDriver.given(method['returns'], result)))
      end
      "[[#{texts.join(',')}],#{times.inspect}]"
    end
  end

  def parsed(text)
    Wire.parse(text)
  end

  # Makes what was read, and returns the answer.
  def answered(served)
    times = []
    text = served.text(times)
    "done #{times.sum} #{text}"
  rescue Threw => e
    trace = (e.error.backtrace || []).reject { |line| line.include?('cold_driver') }
    trace = trace.first(10) + ['…'] + trace.last(10) if trace.size > 30
    STREAMS[1].write("#{trace.first}: #{e.error.message} (#{e.error.class})\n", trace.drop(1).map { |line| "\tfrom #{line}\n" }.join)
    "failed #{times.sum} #{times.size}"
  rescue StandardError, SystemStackError => e
    "misfit #{times.sum} #{e.message.tr("\n", ' ')}"
  end

  def serve(found)
    return answer("unserved there is no function #{NAMES[0]} in @FILE@" + @NEARLY_TEXT@) unless found

    fits, served = found
    return answer("unserved the function in @FILE@ cannot be called with #{COUNT} arguments, which it has in this problem") unless fits

    settle
    answer('ready')
    count = 0
    while (line = CALLS.gets)
      served.read(parsed(line))
      answer('begin', count) if line.size > 100_000
      @settled = false
      words = answered(served)
      settle
      answer(words, count)
      @count = count += 1
    end
  end
  BEFORE = ObjectSpace.each_object(Module).to_a
end

eval(@PRELUDE_TEXT@) # what judges supply
before = Object.private_instance_methods
ColdDriver.provide(File.read(File.join(__dir__, "#{@STEM_TEXT@}.rb"))) unless ColdDriver::GIVEN.empty?
require_relative @STEM_TEXT@
ColdDriver.serve(ColdDriver.find(before))
exit!(0)
