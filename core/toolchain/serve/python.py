# Runs a source on many inputs for Cold Verdict, each in a process that is forked when the source has
# been compiled. Standard input holds, on its first line, the limits of each: milliseconds of elapsed
# time, seconds of processor time, bytes of output; then for each input its size on a line, and its bytes. For
# each goes to standard output: the exit status (a signal is negative), the processor time in microseconds,
# the memory in KiB, the sizes of what was printed and of what was written as errors, and both.
import gc, os, resource, signal, site, sys, types

KEPT = 65536  # of errors


def fresh(name):
    fd = os.open(name, os.O_RDWR | os.O_CREAT | os.O_TRUNC | os.O_CLOEXEC, 0o600)
    os.unlink(name)
    return fd


def begin(requests, answers, files, limits):
    """What remains of a forked process is what a program of its own would have."""
    os.setpgid(0, 0)
    os.close(requests.fileno())
    os.close(answers)
    for place, fd in enumerate(files):
        os.dup2(fd, place)
        os.close(fd)
    signal.signal(signal.SIGALRM, signal.SIG_DFL)
    resource.setrlimit(resource.RLIMIT_CPU, (limits[1], limits[1] + 1))
    resource.setrlimit(resource.RLIMIT_FSIZE, (limits[2], limits[2]))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


def run(code, path):
    """Runs the source as the main module, and ends the process as the interpreter would."""
    main = types.ModuleType("__main__")
    main.__dict__.update(__file__=path, __builtins__=__builtins__, __cached__=None)
    sys.modules["__main__"] = main
    status = 0
    try:
        exec(code, main.__dict__)
    except SystemExit as e:
        status = e.code if isinstance(e.code, int) else 0 if e.code is None else 1
        if status == 1 and not isinstance(e.code, int):
            print(e.code, file=sys.stderr)
    except BaseException as e:
        e.__traceback__ = e.__traceback__.tb_next
        sys.excepthook(type(e), e, e.__traceback__)
        status = 1
    try:
        if "threading" in sys.modules:
            sys.modules["threading"]._shutdown()
        if "atexit" in sys.modules:
            sys.modules["atexit"]._run_exitfuncs()
        sys.stdout.flush()
        sys.stderr.flush()
    except BaseException:
        status = 120
    os._exit(status & 255)


def serve():
    requests = os.fdopen(os.dup(0), "rb", 1 << 16)
    answers = os.dup(1)
    os.dup2(os.open(os.devnull, os.O_RDWR), 0)
    os.dup2(0, 1)
    path = sys.argv[1]
    del sys.argv[0]
    sys.path[0] = os.path.dirname(path)
    with open(path, "rb") as source:
        code = compile(source.read(), path, "exec", dont_inherit=True)
    # A process forks the faster, the less it has: of what the interpreter does at its start, only this.
    for prepare in (site.setquit, site.setcopyright, site.sethelper):
        prepare()
    sys.path += [place for place in site.getsitepackages() + [site.getusersitepackages()] if os.path.isdir(place)]
    getattr(gc, "freeze", int)()
    limits = [int(word) for word in requests.readline().split()]
    child = 0

    def end(*_):
        if child:
            os.kill(child, signal.SIGKILL)

    signal.signal(signal.SIGALRM, end)
    for line in requests:
        text = requests.read(int(line))
        files = [fresh(name) for name in ("cold-input", "cold-output", "cold-errors")]
        os.write(files[0], text) if text else 0
        os.lseek(files[0], 0, os.SEEK_SET)
        child = os.fork()
        if child == 0:
            begin(requests, answers, files, limits)
            return code, path
        signal.setitimer(signal.ITIMER_REAL, limits[0] / 1000)
        _, status, usage = os.wait4(child, 0)
        signal.setitimer(signal.ITIMER_REAL, 0)
        try:
            os.killpg(child, signal.SIGKILL)
        except OSError:
            pass
        printed = os.pread(files[1], os.fstat(files[1]).st_size, 0)
        errors = os.pread(files[2], KEPT, 0)
        for fd in files:
            os.close(fd)
        status = -os.WTERMSIG(status) if os.WIFSIGNALED(status) else os.WEXITSTATUS(status)
        data = b"%d %d %d %d %d\n" % (status, (usage.ru_utime + usage.ru_stime) * 1e6, usage.ru_maxrss, len(printed), len(errors)) + printed + errors
        while data:
            data = data[os.write(answers, data):]
    os._exit(0)


run(*serve())
