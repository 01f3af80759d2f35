# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
import importlib.util, json, os, sys, time, traceback, typing

NAMES = @NAMES@
COUNT = @COUNT@  # arguments
CHANGES = @CHANGES@  # the argument that is the result, from 1; 0: what is returned

calls = os.fdopen(os.dup(0), "rb", 1 << 16)
os.dup2(os.open(os.devnull, os.O_RDONLY), 0)
streams = [os.dup(1), os.dup(2)]
token = calls.readline().split()[2]
mark = b"\0" + token + b"\n"
clock, write = time.process_time_ns, os.write  # which the source cannot change for this driver
count = 0


def answer(text):
    # First the word that only this driver knows, and how many calls were answered.
    data = token + b" %d " % count + text.encode("utf-8", "surrogatepass") + b"\n"
    while data:
        data = data[write(3, data):]


def accepts(function, count):
    """Says that a function can be called with so many arguments, by what is compiled of it, since
    to ask the library for that takes memory which would be shown as the function's."""
    if hasattr(function, "__self__"):
        count += 1  # a class's, or an object's
    function = getattr(function, "__wrapped__", function)
    code = getattr(function, "__code__", None)
    if code is None:
        call = getattr(type(function), "__call__", None)
        code, count = getattr(call, "__code__", None), count + 1
        function = call
    if code is None:
        return True  # nothing is known of it
    least = code.co_argcount - len(function.__defaults__ or ())
    named = code.co_kwonlyargcount - len(function.__kwdefaults__ or ())
    return named <= 0 and least <= count and (count <= code.co_argcount or bool(code.co_flags & 4))


def declared(kind, name):
    """Returns what a class, or one that it is made from, has under a name."""
    for k in kind.__mro__:
        if name in vars(k):
            return vars(k)[name]
    return None


def find(module):
    """Returns what to call, or None and why there is nothing, by the rules that all drivers have in common: a method of the class
    Solution, a function, a method of another class, the last before the first. What takes
    other arguments, or cannot be made without any, comes behind all others."""
    found = []
    for name in NAMES:
        function = vars(module).get(name)
        if callable(function) and not isinstance(function, type):
            found.append((not accepts(function, COUNT), 1, 0, function))
    kinds = [k for k in vars(module).values() if isinstance(k, type) and k.__module__ == module.__name__]
    for place, kind in enumerate(reversed(kinds)):
        for name in NAMES:
            method = declared(kind, name)
            if method is None or not callable(getattr(kind, name, None)):
                continue
            bound = isinstance(method, (staticmethod, classmethod))
            fits = accepts(getattr(kind, name), COUNT if bound else COUNT + 1) and (bound or accepts(kind.__init__, 1))
            call = (lambda kind=kind, name=name, bound=bound: getattr(kind if bound else kind(), name))
            found.append((not fits, 0 if kind.__name__ == "Solution" else 2, place, lambda *args, call=call: call()(*args)))
            break
    best = min(found, key=lambda f: f[:3], default=None)
    if best is None:
        return None, "there is no function " + NAMES[0] + " in @FILE@"
    if best[0]:
        return None, "the function in @FILE@ cannot be called with %d arguments, which it has in this problem" % COUNT
    return best[3], ""


def gathered(value, depth=0):
    """Gathers what is computed only when it is read, which belongs to the call."""
    if hasattr(value, "__next__"):
        return [gathered(v, depth + 1) for v in value]
    if isinstance(value, (list, tuple)) and value and depth < 100 and (hasattr(value[0], "__next__") or isinstance(value[0], (list, tuple))):
        return [gathered(v, depth + 1) for v in value]
    return value


def plain(value):
    """Turns what JSON has no word for into what it has."""
    if hasattr(value, "tolist"):
        return value.tolist()
    if type(value).__name__ in ("Decimal", "Fraction"):
        return float(value)
    if hasattr(value, "__dataclass_fields__") and not isinstance(value, type):
        return [getattr(value, name) for name in value.__dataclass_fields__]
    if hasattr(value, "__iter__"):
        return list(value)
    raise TypeError("it returned a value of type " + type(value).__name__ + ", which is none of the problem's")


def load():
    place = importlib.util.spec_from_file_location("solution", os.path.join(os.path.dirname(os.path.abspath(__file__)), @FILE_TEXT@))
    module = importlib.util.module_from_spec(place)
    vars(module).update({name: getattr(typing, name) for name in typing.__all__})
    exec(@PRELUDE_TEXT@, vars(module))  # what judges supply
    sys.modules["solution"] = module
    place.loader.exec_module(module)
    return find(module)


def call(function, args):
    began = clock()
    try:
        result = gathered(function(*args))
    except Exception as error:
        spent = clock() - began
        error.__traceback__ = error.__traceback__.tb_next
        traceback.print_exception(type(error), error, error.__traceback__)
        return "failed %d" % spent
    spent = clock() - began
    try:
        return "done %d %s" % (spent, json.dumps(args[CHANGES - 1] if CHANGES else result, default=plain, ensure_ascii=False))
    except RecursionError:
        return "misfit %d it returned a value that is nested too deeply, or contains itself" % spent
    except ValueError:
        return "misfit %d it returned a value that contains itself" % spent
    except TypeError as error:
        return "misfit %d %s" % (spent, str(error).replace("\n", " "))


def settle():
    """Marks the end of what a call printed."""
    for stream, fd in zip((sys.stdout, sys.stderr), streams):
        try:
            stream.flush()
        except Exception:
            pass  # the function has closed it
        write(fd, mark)


def serve():
    global count
    function, lacking = load()
    if function is None:
        answer("unserved " + lacking)
        return
    settle()
    answer("ready")
    for line in calls:
        args = json.loads(line)
        if len(line) > 100000:
            del line
            answer("begin")
        words = call(function, args)
        settle()
        answer(words)
        count += 1


if __name__ == "__main__":
    serve()
    os._exit(0)  # threads that the function left do not hold this up
