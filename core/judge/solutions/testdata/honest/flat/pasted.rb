def flattened(log, join, path = [], out = {})
  case log
  when Hash then log.each { |k, v| flattened(v, join, path + [k], out) }
  when Array then log.each_with_index { |v, i| flattened(v, join, path + [i.to_s], out) }
  else out[path.join(join)] = log
  end
  out
end
