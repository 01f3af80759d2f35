# Runs a source for Cold Verdict and tells on descriptor 3, line by line, what it does: "S line depth function" before a
# line runs, "V depth name value" for what changed in a frame since its last line, "R depth value" when a frame
# returns, "X line depth error" when it raises, and "O text" for what is printed. What it runs is in PRIVATE: the source
# itself, or a driver that loads it.
import linecache, os, reprlib, sys, threading, types


def begin(private, own, driven):
    name = os.path.basename(sys.argv[0])
    with open(os.path.join(os.path.dirname(os.path.abspath(__file__)), private), encoding="utf-8") as file:
        text = file.read()
    lines = []

    def hand_over():  # whole lines: a driver writes its own between them
        text = "".join(lines).encode("utf-8", "backslashreplace")
        lines.clear()
        while text:
            text = text[os.write(3, text):]

    left, begun = [MOST], [FROM_LINE == 0]
    known, depths = {}, {}

    class Short(reprlib.Repr):
        def repr_instance(self, x, level):  # an object that says nothing of itself is shown by what it holds
            kind = type(x)
            if kind.__repr__ is not object.__repr__ or not (hasattr(x, "__dict__") or hasattr(kind, "__slots__")):
                return super().repr_instance(x, level)
            if level <= 0:
                return kind.__name__ + "(...)"
            fields = vars(x) if hasattr(x, "__dict__") else {k: getattr(x, k) for k in kind.__slots__ if hasattr(x, k)}
            return "%s(%s)" % (kind.__name__, ", ".join("%s=%s" % (k, self.repr1(v, level - 1)) for k, v in list(fields.items())[:24]))

    short = Short()
    short.maxlist = short.maxtuple = short.maxset = short.maxfrozenset = short.maxdict = short.maxdeque = short.maxarray = 24
    short.maxstring = short.maxother = short.maxlong = 80
    short.maxlevel = 6
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
            lines.append("M\n")
            sys.settrace(None)
            hand_over()
        elif left[0] > 0:
            lines.append(line)
            if len(lines) > 500:
                hand_over()

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
        if not begun[0]:  # nothing is told before the line with which it begins
            if event == "line" and frame.f_lineno == FROM_LINE:
                begun[0] = True
            else:
                if event == "return":
                    depths.pop(frame, None)
                return inside
        if event == "line":
            changes(frame, depth)
            say("S %d %d %s\n" % (frame.f_lineno, depth, frame.f_code.co_name))
        elif event == "return":
            changes(frame, depth)
            say("R %d %s\n" % (depth, shown(arg)))
            if driven and depth == 0:  # the driver may end the process at any time
                hand_over()
            known.pop(frame, None)
            depths.pop(frame, None)
        elif event == "exception":
            say("X %d %d %s\n" % (frame.f_lineno, depth, ("%s: %s" % (arg[0].__name__, arg[1])).translate(table)))
        return inside

    def trace(frame, event, arg):
        if (os.path.basename(frame.f_code.co_filename) if driven else frame.f_code.co_filename) != own:
            return None
        above = frame.f_back
        while above is not None and above not in depths:
            above = above.f_back
        alone = threading.current_thread() is threading.main_thread()
        depths[frame] = depths[above] + 1 if above is not None else 0 if alone or driven else 1
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
        hand_over()
        e.__traceback__ = e.__traceback__.tb_next
        sys.excepthook(type(e), e, e.__traceback__)
        sys.__stdout__.flush()
        os._exit(1)
    finally:
        sys.settrace(None)
        hand_over()


begin("PRIVATE", "OWN_FILE", DRIVEN)
