# Runs a source for Cold Verdict and tells on descriptor 3 what it does, as the recorder for Python does. What it runs
# is in PRIVATE: the source itself, or a driver that loads it.
ColdSteps = Object.new
def ColdSteps.begin(private, own, driven)
  name = File.basename($0)
  text = File.read(File.join(File.dirname(File.expand_path(__FILE__)), private), encoding: 'UTF-8')
  told = IO.for_fd(3, 'w')
  told.sync = false
  left = MOST
  begun = FROM_LINE == 0
  stack = []
  say = lambda do |line|
    left -= 1
    if left == 0
      told.write("M\n")
      told.flush
    elsif left > 0
      told.write(line)
    end
  end
  clean = lambda { |s| s.gsub('\\') { '\\\\' }.gsub("\n", '\\n').gsub("\t", '\\t').gsub("\r", '\\r') }
  # An object that says nothing of itself is shown by what it holds.
  plain = lambda do |value, level|
    next value.inspect unless value.class.instance_method(:inspect).owner == Kernel && !value.instance_variables.empty?
    next "#{value.class}(...)" if level == 0
    fields = value.instance_variables.first(24).map { |v| "#{v.to_s.delete_prefix('@')}: #{plain.call(value.instance_variable_get(v), level - 1)}" }
    "#{value.class}(#{fields.join(', ')})"
  end
  shown = lambda do |value|
    size = nil
    if value.is_a?(Array) && value.size > 24
      size = value.size
      value = value.first(24)
    elsif value.is_a?(Hash) && value.size > 24
      size = value.size
      value = value.first(24).to_h
    elsif value.is_a?(String) && value.size > 80
      size = value.size
      value = value[0, 80]
    end
    s = plain.call(value, 6)
    s = s[0, 400] + '...' if s.size > 400
    s += " (#{size})" if size
    clean.call(s)
  end
  changes = lambda do |frame, binding|
    binding.local_variables.each do |key|
      next if key.to_s.start_with?('_')
      value = binding.local_variable_get(key)
      now = shown.call(value)
      next if frame[:known][key] == now || (value.nil? && !frame[:known].key?(key))
      frame[:known][key] = now
      say.call("V #{frame[:depth]} #{key}\t#{now}\n")
    end
  end
  stack << { depth: 0, known: {} }
  write = $stdout.method(:write)
  $stdout.define_singleton_method(:write) do |*parts|
    say.call("O #{clean.call(parts.join)}\n")
    write.call(*parts)
  end
  trace = TracePoint.new(:line, :call, :return, :raise) do |tp|
    next unless (driven ? File.basename(tp.path) : tp.path) == own && left > 0
    begun ||= tp.event == :line && tp.lineno == FROM_LINE # nothing is told before the line with which it begins
    unless begun
      stack << { depth: stack.size, known: {} } if tp.event == :call
      stack.pop if tp.event == :return && stack.size > 1
      next
    end
    case tp.event
    when :call
      stack << { depth: stack.size, known: {} }
    when :line
      changes.call(stack.last, tp.binding)
      say.call("S #{tp.lineno} #{stack.last[:depth]} #{tp.method_id || '<main>'}\n")
    when :return
      changes.call(stack.last, tp.binding)
      say.call("R #{stack.last[:depth]} #{shown.call(tp.return_value)}\n")
      stack.pop if stack.size > 1
      told.flush if driven && stack.size == 1 # the driver may end the process at any time
    when :raise
      say.call("X #{tp.lineno} #{stack.last[:depth]} #{clean.call(tp.raised_exception.class.name + ': ' + tp.raised_exception.message)}\n")
    end
  end
  at_exit { told.flush }
  trace.enable
  begin
    eval(text, TOPLEVEL_BINDING, driven ? File.expand_path(__FILE__) : name, 1)
    changes.call(stack.first, TOPLEVEL_BINDING) unless driven
  ensure
    trace.disable
    told.flush
  end
end
ColdSteps.begin('PRIVATE', 'OWN_FILE', DRIVEN > 0)
