# Runs a source on many inputs for Cold Verdict, each in a process that is forked when the source has
# been compiled. What goes in and out is described in python.py.
module ColdServer
  KEPT = 65_536

  def self.fresh(name)
    File.open(name, File::RDWR | File::CREAT | File::TRUNC | File::BINARY, 0o600).tap { File.unlink(name) }
  end

  def self.begin(requests, answers, files, limits)
    Process.setpgid(0, 0)
    requests.close
    answers.close
    [$stdin, $stdout, $stderr].zip(files) do |stream, file|
      stream.reopen(file)
      file.close
    end
    $stderr.sync = true
    Process.setrlimit(:CPU, limits[1], limits[1] + 1)
    Process.setrlimit(:FSIZE, limits[2], limits[2])
    Process.setrlimit(:CORE, 0, 0)
    Signal.trap('ALRM', 'DEFAULT')
  end

  # Returns in each forked process.
  def self.serve
    requests = $stdin.dup
    answers = $stdout.dup
    requests.binmode
    answers.binmode
    answers.sync = true
    $stdin.reopen(File::NULL)
    $stdout.reopen(File::NULL, 'w')
    path = ARGV.shift
    $0 = path
    code = RubyVM::InstructionSequence.compile_file(path)
    limits = requests.gets.split.map(&:to_i)
    spent = -> { Process.times.then { |t| t.cutime + t.cstime } }
    while (line = requests.gets)
      text = line.to_i.zero? ? '' : requests.read(line.to_i)
      files = %w[cold-input cold-output cold-errors].map { |name| fresh(name) }
      files[0].write(text)
      files[0].flush
      files[0].seek(0)
      before = spent.call
      child = Process.fork
      unless child
        self.begin(requests, answers, files, limits)
        return code
      end
      ended = false
      watch = Thread.new do
        sleep(limits[0] / 1000.0)
        Process.kill(:KILL, child) unless ended
      end
      _, status = Process.wait2(child)
      ended = true
      watch.kill
      begin
        Process.kill(:KILL, -child)
      rescue SystemCallError
        nil
      end
      printed, errors = files.drop(1).map { |file| file.seek(0) && file.read }
      files.each(&:close)
      errors = errors[0, KEPT]
      code_of = status.signaled? ? -status.termsig : status.exitstatus
      answers.write("#{code_of} #{((spent.call - before) * 1e6).to_i} 0 #{printed.bytesize} #{errors.bytesize}\n", printed, errors)
    end
    exit!(0)
  end
end

ColdServer.serve.eval
