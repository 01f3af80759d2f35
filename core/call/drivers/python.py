# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
import importlib.util, json, os, sys, time, traceback, typing

NAMES = @NAMES@
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


def find(module):
    """Returns what to call, found by name: a function, or a method of a class."""
    for name in NAMES:
        if callable(getattr(module, name, None)):
            return getattr(module, name)
    for kind in list(vars(module).values()):
        if isinstance(kind, type) and kind.__module__ == module.__name__:
            for name in NAMES:
                if callable(getattr(kind, name, None)):
                    return lambda *args: getattr(kind(), name)(*args)
    return None


def plain(value):
    """Turns what JSON has no word for into what it has."""
    if hasattr(value, "tolist"):
        return value.tolist()
    if hasattr(value, "__iter__"):
        return list(value)
    raise TypeError("it returned a value of type " + type(value).__name__ + ", which is none of the problem's")


def load():
    place = importlib.util.spec_from_file_location("solution", os.path.join(os.path.dirname(os.path.abspath(__file__)), @FILE_TEXT@))
    module = importlib.util.module_from_spec(place)
    vars(module).update({name: getattr(typing, name) for name in typing.__all__})
    sys.modules["solution"] = module
    place.loader.exec_module(module)
    return find(module)


def call(function, args):
    began = clock()
    try:
        result = function(*args)
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
    function = load()
    if function is None:
        answer("unserved there is no function " + NAMES[0] + " in @FILE@")
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
