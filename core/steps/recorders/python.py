# Runs a source for Cold Verdict and tells on descriptor 3, line by line, what it does: "S line depth function" before a
# line runs, "V depth name value" for what changed in a frame since its last line, "R depth value" when a frame
# returns, "X line depth error" when it raises, and "O text" for what is printed. Its own text is in PRIVATE.
import linecache, os, reprlib, sys, threading, types


def begin(private):
    name = os.path.basename(sys.argv[0])
    with open(os.path.join(os.path.dirname(os.path.abspath(__file__)), private), encoding="utf-8") as file:
        text = file.read()
    told = os.fdopen(3, "w", buffering=1 << 16, encoding="utf-8", errors="backslashreplace")
    left = [MOST]
    known, depths = {}, {}
    short = reprlib.Repr()
    short.maxlist = short.maxtuple = short.maxset = short.maxfrozenset = short.maxdict = short.maxdeque = short.maxarray = 24
    short.maxstring = short.maxother = short.maxlong = 80
    short.maxlevel = 4
    skipped = (types.ModuleType, types.FunctionType, types.BuiltinFunctionType, type)
    table = {ord("\\"): "\\\\", ord("\n"): "\\n", ord("\t"): "\\t", ord("\r"): "\\r"}

    def shown(value):
        try:
            text = short.repr(value)
        except Exception as e:
            text = "<" + type(e).__name__ + ">"
        if hasattr(value, "__len__") and "..." in text:
            try:
                text += " (%d)" % len(value)
            except Exception:
                pass
        return text.translate(table)

    def say(line):
        left[0] -= 1
        if left[0] == 0:
            told.write("M\n")
            sys.settrace(None)
            told.flush()
        elif left[0] > 0:
            told.write(line)

    def changes(frame, depth):
        before = known.setdefault(frame, {})
        for key, value in list(frame.f_locals.items()):
            if key.startswith("__") or key.startswith(".") or isinstance(value, skipped):
                continue
            now = shown(value)
            if before.get(key) != now:
                before[key] = now
                say("V %d %s\t%s\n" % (depth, key, now))

    def inside(frame, event, arg):
        depth = depths.get(frame, 0)
        if event == "line":
            changes(frame, depth)
            say("S %d %d %s\n" % (frame.f_lineno, depth, frame.f_code.co_name))
        elif event == "return":
            changes(frame, depth)
            say("R %d %s\n" % (depth, shown(arg)))
            known.pop(frame, None)
            depths.pop(frame, None)
        elif event == "exception":
            say("X %d %d %s\n" % (frame.f_lineno, depth, ("%s: %s" % (arg[0].__name__, arg[1])).translate(table)))
        return inside

    def trace(frame, event, arg):
        if frame.f_code.co_filename != name:
            return None
        above = frame.f_back
        while above is not None and above not in depths:
            above = above.f_back
        alone = threading.current_thread() is threading.main_thread()
        depths[frame] = depths[above] + 1 if above is not None else 0 if alone else 1
        return inside

    write = sys.stdout.write

    def written(text):
        say("O %s\n" % text.translate(table))
        return write(text)

    class Out:
        def __getattr__(self, key):
            return getattr(sys.__stdout__, key)

        def write(self, text):
            return written(text)

        def writelines(self, lines):
            for line in lines:
                written(line)

    main = types.ModuleType("__main__")
    main.__dict__.update(__file__=sys.argv[0], __builtins__=__builtins__)
    sys.modules["__main__"] = main
    linecache.cache[name] = (len(text), None, text.splitlines(True), name)
    sys.stdout = Out()
    code = compile(text, name, "exec")
    try:
        threading.settrace(trace)
        sys.settrace(trace)
        exec(code, main.__dict__)
    except SystemExit:
        raise
    except BaseException as e:
        sys.settrace(None)
        told.flush()
        e.__traceback__ = e.__traceback__.tb_next
        sys.excepthook(type(e), e, e.__traceback__)
        sys.__stdout__.flush()
        os._exit(1)
    finally:
        sys.settrace(None)
        told.flush()


begin("PRIVATE")
