# A child writes into a pipe.
require 'open3'
reader, writer = IO.pipe
values = $stdin.read.split.map(&:to_i).drop(1)
pid = fork do
  reader.close
  writer.puts values.sum
end
writer.close
Process.wait(pid)
puts reader.read
