# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
import builtins, importlib.util, json, os, sys, time, traceback

NAMES = @NAMES@
COUNT = @COUNT@  # arguments
CHANGES = @CHANGES@  # the argument that is the result, from 1; 0: what is returned
BOTH = @BOTH@ != 0  # what is returned is a result, too
NODE_OF = @NODE_OF@  # the argument of which a node is returned, from 1; 0: none
PLACES_OF = @PLACES_OF@  # the argument of which others are nodes, from 1; 0: none
COPY_OF = @COPY_OF@  # the argument of which a copy is returned, from 1; 0: none
CLASS = @CLASS@  # whose objects are made and called; empty: it is a function
METHODS = @METHODS@  # of the class, by our names
NEW = @NEW@  # types of what an object is made with
TAKES = @TAKES@  # types of the arguments
GIVEN = json.loads(@GIVEN_TEXT@)  # functions that the site provides: our name, its spellings, and the type of what it returns
RESULTS = @RESULTS@  # and of what is returned
ARGUMENTS = @ARGUMENTS@  # names of the arguments
SCRIPTED = "@SCRIPTED@" == "true"  # it takes or returns functions, and a call has steps on them
RETURNS_FUNCTION = @RETURNS_FUNCTION@ != 0

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


def provided():
    """The functions that the site provides, which the judge answers, by all their names."""
    def asks(name):
        def asked(*args):
            answer("asks %s %s" % (name, json.dumps(list(args), default=plain)))
            return json.loads(calls.readline())
        return asked

    return {spelling: function for name, names, _ in GIVEN for function in [asks(name)] for spelling in names}


def bases(text, known):
    """Makes the classes of which others are, and which the source does not define."""
    import re
    for name in re.findall(r"^class\s+\w+\s*\(\s*([A-Za-z_]\w*)\s*\)", text, re.M):
        if name not in known and not hasattr(builtins, name) and not re.search(r"^(class\s+%s\b|%s\s*=|from\b.*\b%s\b|import\b.*\b%s\b)" % (name, name, name, name), text, re.M):
            known[name] = type(name, (), {n: staticmethod(f) for n, f in provided().items()})


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
        return None, "there is no function " + NAMES[0] + " in @FILE@" + @NEARLY_TEXT@
    if best[0]:
        return None, "the function in @FILE@ cannot be called with %d arguments, which it has in this problem" % COUNT
    return best[3], ""


class Misfit(Exception):
    """What was returned cannot be the result."""


# Fields of nodes, by the names that people give them.
FIELDS = {
    "value": ("val", "value", "data", "key", "item"),
    "next": ("next", "nxt", "next_node"),
    "prev": ("prev", "previous", "before"),
    "left": ("left",),
    "right": ("right",),
    "children": ("children", "kids"),
    "neighbors": ("neighbors", "neighbours", "adjacent"),
}
SHAPES = {"list": ("value", "next"), "list2": ("value", "prev", "next"), "tree": ("value", "left", "right"),
          "nary": ("value", "children"), "graph": ("value", "neighbors")}
visited = ({}, [])  # the places of the nodes of what was written last, by what they are, and these nodes
node_types = {}  # of what is made of nodes: its class, and the names of its fields


class ListNode:
    def __init__(self, val=0, next=None):
        self.val, self.next = val, next


class TreeNode:
    def __init__(self, val=0, left=None, right=None):
        self.val, self.left, self.right = val, left, right


class Node:
    def __init__(self, val=0, *others, **named):
        self.val = val
        names = USUAL_FIELDS[1:]
        for name in names:
            setattr(self, name, [] if name in ("children", "neighbors") else None)
        for name, other in [*zip(names, others), *named.items()]:
            setattr(self, name, other if other is not None or name not in ("children", "neighbors") else [])


USUAL_FIELDS = next(([FIELDS[f][0] for f in fields] for kind, fields in SHAPES.items() if kind != "list" and any(kind + "(" in t for t in TAKES + RESULTS + NEW + [t for m in METHODS.values() for t in m["takes"] + [m["returns"]]])), ["val"])


def fields_of(kind):
    """The fields that a class of nodes gives its objects."""
    names = set(getattr(kind, "__annotations__", ())) | set(getattr(kind, "__slots__", ()))
    init = kind.__dict__.get("__init__")
    if hasattr(init, "__code__"):
        names |= set(init.__code__.co_names)
    return names


def node_type(shape):
    """The class of the nodes of a shape: the source's own, or the usual one, and its fields by our names."""
    if shape not in node_types:
        usual = {"list": ListNode, "tree": TreeNode}.get(shape, Node)
        node_types[shape] = usual, {f: FIELDS[f][0] for f in SHAPES[shape]}
        for kind in reversed([k for k in vars(sys.modules["solution"]).values() if isinstance(k, type) and k.__module__ == "solution"]):
            names = fields_of(kind)
            own = {f: next((n for n in FIELDS[f] if n in names), None) for f in SHAPES[shape]}
            if all(own.values()) and not (shape == "list" and any(n in names for n in FIELDS["prev"])):
                node_types[shape] = kind, own
                break
    return node_types[shape]


def node_maker(shape):
    """A function that makes nodes of a shape of their values: by the first way in which their class lets itself be made."""
    kind, fields = node_type(shape)
    held, links = fields["value"], [name for f, name in fields.items() if f in ("next", "prev", "left", "right")]
    many = [name for f, name in fields.items() if f in ("children", "neighbors")]
    usual = kind in (ListNode, TreeNode)

    def by_hand(value):
        return kind.__new__(kind)

    def found(value):
        for args in ((), (None,), (None, None)):
            try:
                kind(value, *args)
                return lambda value: kind(value, *args)
            except TypeError:
                pass
        try:
            kind()
            return lambda value: kind()
        except TypeError:
            return by_hand

    way = []

    def made(value):
        if usual:
            return kind(value)
        if not way:
            way.append(found(value))
        node = way[0](value)
        setattr(node, held, value)
        for name in links:
            setattr(node, name, None)
        for name in many:
            setattr(node, name, [])
        return node

    return made


def taken(type, value):
    """Makes nodes of a value, where its type says that it is made of them."""
    if value is None:
        return None
    if type.endswith("?"):
        return taken(type[:-1], value)
    if type.endswith("[]"):
        return [taken(type[:-2], v) for v in value] if "(" in type else value
    shape = type.partition("(")[0]
    if shape == "map":
        key, held = type[4:-1].split(", ", 1)
        return {int(k) if key in ("int", "long") else k: taken(held, v) for k, v in value.items()}
    if shape not in SHAPES or shape == type:
        return value
    cycle = -1
    if isinstance(value, dict):
        value, cycle = value["list"], value["cycle"]
    if not value:
        return None
    fields, made = node_type(shape)[1], node_maker(shape)
    if shape in ("list", "list2"):
        nodes = [made(v) for v in value]
        next_name, prev_name = fields["next"], fields.get("prev")
        for one, other in zip(nodes, nodes[1:]):
            setattr(one, next_name, other)
            if prev_name:
                setattr(other, prev_name, one)
        if cycle >= 0:
            setattr(nodes[-1], fields["next"], nodes[cycle])
            if shape == "list2":
                setattr(nodes[cycle], fields["prev"], nodes[-1])
        return nodes[0]
    if shape == "graph":
        nodes = [made(i + 1) for i in range(len(value))]
        for node, others in zip(nodes, value):
            setattr(node, fields["neighbors"], [nodes[i - 1] for i in others])
        return nodes[0]
    root = made(value[0])
    if shape == "tree":
        parents, at = [root], 1
        for parent in parents:
            for side in ("left", "right"):
                if at < len(value):
                    if value[at] is not None:
                        child = made(value[at])
                        setattr(parent, fields[side], child)
                        parents.append(child)
                    at += 1
        return root
    parents, at = [root], 2
    for parent in parents:
        children = getattr(parent, fields["children"])
        while at < len(value) and value[at] is not None:
            children.append(made(value[at]))
            parents.append(children[-1])
            at += 1
        at += 1
    return root


def field(node, shape, f):
    try:
        return getattr(node, node_type(shape)[1][f])
    except AttributeError:
        raise Misfit("it returned %s where a node was expected" % ("a " + type(node).__name__ if node is not None else "nothing")) from None


def given(kind, value):
    """Makes values of nodes, where the type says that they are nodes."""
    if kind.endswith("?"):
        return None if value is None else given(kind[:-1], value)
    if kind.endswith("[]"):
        if "(" not in kind or not hasattr(value, "__iter__"):
            return value
        return [given(kind[:-2], v) for v in value]
    shape = kind.partition("(")[0]
    if shape not in SHAPES or shape == kind:
        return value
    if value is None:
        return []
    global visited
    seen, values, nodes = {}, [], []
    visited = seen, nodes
    if shape in ("list", "list2"):
        node, before = value, None
        held, following = node_type(shape)[1]["value"], node_type(shape)[1]["next"]
        while node is not None:
            key = id(node)
            if key in seen:
                return {"list": values, "cycle": seen[key]}
            if shape == "list2" and field(node, shape, "prev") is not before:
                raise Misfit("it returned a list in which the link backwards of node %d, counted from 0, does not lead to the node before it" % len(values))
            seen[key] = len(values)
            nodes.append(node)
            try:
                values.append(getattr(node, held))
                node, before = getattr(node, following), node
            except AttributeError:
                field(node, shape, "value")
                node, before = field(node, shape, "next"), node
        return values
    if shape == "graph":
        nodes.append(value)
        seen[id(value)] = 1
        for node in nodes:
            for other in field(node, shape, "neighbors"):
                if id(other) not in seen:
                    nodes.append(other)
                    seen[id(other)] = len(nodes)
        nodes.sort(key=lambda node: field(node, shape, "value"))
        numbers = {id(node): i + 1 for i, node in enumerate(nodes)}
        return [[numbers[id(other)] for other in field(node, shape, "neighbors")] for node in nodes]

    def once(node):
        if id(node) in seen:
            raise Misfit("it returned a tree in which the node with the value %s has two parents" % (field(node, shape, "value"),))
        seen[id(node)] = len(values)
        return field(node, shape, "value")

    nodes.append(value)
    values.append(once(value))
    if shape == "nary":
        values.append(None)
    for node in nodes:
        children = field(node, shape, "children") or [] if shape == "nary" else (field(node, shape, "left"), field(node, shape, "right"))
        for child in children:
            values.append(None if child is None else once(child))
            if child is not None:
                nodes.append(child)
        if shape == "nary":
            values.append(None)
    while values and values[-1] is None:
        values.pop()
    return values


def results(value):
    if CHANGES or len(RESULTS) != 1:
        return [given(t, v) for t, v in zip(RESULTS, value)] if not CHANGES and any("(" in t for t in RESULTS) and isinstance(value, (list, tuple)) else value
    return given(RESULTS[0], value)


class Stalled(Exception):
    """Nothing more will happen, and what was returned is not done."""


def event_loop(now=None):
    """A loop for coroutines, which knows when nothing more will happen in it. With a clock of its own no time
    passes in it."""
    import asyncio, threading

    class Loop(asyncio.SelectorEventLoop):
        def __init__(self):
            super().__init__()
            select = self._selector.select

            def looked(timeout=None):
                if timeout is None and len(self._selector.get_map()) <= 1 and threading.active_count() == 1:
                    raise Stalled
                return select(0 if now else timeout)

            self._selector.select = looked

        def time(self):
            return now() / 1000 if now else super().time()

    loop = Loop()
    asyncio.set_event_loop(loop)
    return loop


def awaited(value):
    async def whole():
        return await value

    loop = event_loop()
    try:
        return loop.run_until_complete(whole())
    finally:
        try:
            loop.close()
        except RuntimeError:
            pass


class Clock:
    """A clock of its own, on which the timers of the source run: no time passes but by its steps."""

    def __init__(self):
        self.now, self.last, self.timers, self.loop = 0.0, 0, [], None

    def install(self):
        import threading
        clock = self

        class Timer:
            def __init__(self, interval, function, args=None, kwargs=None):
                self.interval, self.work, self.open = interval, lambda: function(*(args or ()), **(kwargs or {})), True
                self.daemon = True

            def start(self):
                clock.last += 1
                clock.timers.append((clock.now + self.interval * 1000, clock.last, self))

            def cancel(self):
                self.open = False

            def join(self, timeout=None):
                if self.open:
                    clock.advance(clock.now + self.interval * 1000)

            def is_alive(self):
                return self.open

        threading.Timer = Timer
        time.sleep = lambda seconds: clock.advance(clock.now + seconds * 1000)
        time.time = time.monotonic = time.perf_counter = lambda: clock.now / 1000

    def reset(self):
        self.now, self.timers, self.loop = 0.0, [], None

    def task(self, value):
        """Begins what can be awaited."""
        self.loop = self.loop or event_loop(lambda: self.now)

        async def whole():
            return await value

        return self.loop.create_task(whole())

    def tick(self):
        while self.loop and (self.loop._ready or self.loop._scheduled and self.loop._scheduled[0]._when * 1000 <= self.now + 1e-6):
            self.loop.call_soon(self.loop.stop)
            self.loop.run_forever()

    def next(self):
        moments = [t[0] for t in self.timers if t[2].open]
        if self.loop and self.loop._scheduled:
            moments.append(self.loop._scheduled[0]._when * 1000)
        return min(moments, default=None)

    def advance(self, to):
        self.tick()
        while True:
            at = self.next()
            if at is None or at > to + 1e-6:
                break
            self.now = max(self.now, at)
            due = min((t for t in self.timers if t[2].open and t[0] <= self.now), default=None, key=lambda t: t[:2])
            if due:
                self.timers.remove(due)
                due[2].open = False
                due[2].work()
            self.tick()
        self.now = max(self.now, to)


clock_of_script = Clock()


def gathered(value, depth=0):
    """Gathers what is computed only when it is read, which belongs to the call."""
    if hasattr(value, "__await__"):
        return gathered(awaited(value), depth + 1)
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


class Threw(Exception):
    """What the source raised is its cause."""


def made(times, work):
    """Does what the source is asked for, and notes how long that took."""
    began = clock()
    try:
        return work()
    except (Misfit, Stalled):
        raise
    except Exception as error:
        raise Threw from error
    finally:
        times.append(clock() - began)


def written(value):
    return json.dumps(value, default=plain, ensure_ascii=False)


def places(number, args):
    """The places of the nodes of an argument, by what they are, and these nodes, which are kept so that no
    others are taken for them."""
    if not number or args[number - 1] is None:
        return {}, []
    given(TAKES[number - 1], args[number - 1])
    return visited


class OfFunction:
    """What each line asks for where the source has a function."""

    def __init__(self, function):
        self.function = function

    def read(self, values):
        self.args = [taken(t, v) for t, v in zip(TAKES, values)]
        self.originals = places(NODE_OF or COPY_OF or PLACES_OF, self.args)
        if PLACES_OF:
            nodes = {self.originals[0][id(node)]: node for node in self.originals[1]}
            self.args = [nodes.get(v) if t.startswith("node of ") else v for t, v in zip(TAKES, self.args)]

    def text(self, times):
        result = made(times, lambda: gathered(self.function(*self.args)))
        settle()
        if NODE_OF:
            if result is not None and id(result) not in self.originals[0]:
                raise Misfit("it returned a node that is none of argument %d's, even if one of these has the same value" % NODE_OF)
            return written(None if result is None else self.originals[0][id(result)])
        if not CHANGES:
            return written(results(result))
        if not BOTH:
            return written(given(TAKES[CHANGES - 1], self.args[CHANGES - 1]))
        first = given(RESULTS[0], result)
        if COPY_OF and result is not None and any(node in self.originals[0] for node in visited[0]):
            raise Misfit("it returned nodes of argument %d themselves, where a copy was asked for" % COPY_OF)
        return written([first, given(TAKES[CHANGES - 1], self.args[CHANGES - 1])])


def large(value):
    """Says that to write a value takes long enough to matter."""
    if not isinstance(value, (str, list, tuple, set, dict)):
        return False
    return len(value) > 2000 or not isinstance(value, str) and any(isinstance(one, (str, list, tuple)) and len(one) > 100 for one in value)


class OfClass:
    """What each line asks for where the source has a class: a sequence of calls of its objects. What a
    call returned is written at once, since later calls may change it."""

    def __init__(self, kind):
        self.kind = kind

    def read(self, values):
        self.steps = []
        for name, number, args, uses in values[0]:
            takes = NEW if name == "new" else METHODS[name]["takes"]
            self.steps.append((name, number, takes, [taken(t, v) for t, v in zip(takes, args)], uses))

    def text(self, times):
        objects, texts, long = {}, [], False
        for name, number, takes, args, uses in self.steps:
            if long:
                answer("goes-on")
                long = False
            for at, step in zip(uses[::2], uses[1::2]):
                args[at] = taken(takes[at], json.loads(texts[step]))
            if name == "new":
                objects[number] = made(times, lambda: self.kind(*args))
                texts.append("null")
                continue
            method = METHODS[name]
            function = next((getattr(objects[number], n) for n in method["names"] if hasattr(objects[number], n)), None)
            if function is None:
                raise Misfit("%s has no method %s" % (self.kind.__name__, name))
            result = made(times, lambda: gathered(function(*args)))
            long = method["returns"] and large(result)
            if long:
                answer("writes")
            texts.append(written(given(method["returns"], result)) if method["returns"] else "null")
        return "[[%s],%s]" % (",".join(texts), json.dumps(times))


class OfScript:
    """What each line asks for where the source has a function that takes or returns functions: a call, and steps
    on what it returned."""

    def __init__(self, function):
        self.function = function

    def read(self, values):
        self.steps, self.seen = values.pop(), {}

        def recorder(name, value):
            seen = self.seen[name] = {"calls": 0, "last": None}

            def record(*args):
                seen["calls"], seen["last"] = seen["calls"] + 1, list(args)
                return value

            return record

        self.args = [recorder(n, v) if t == "function" else taken(t, v) for n, t, v in zip(ARGUMENTS, TAKES, values)]

    def text(self, times):
        texts, tasks = [], []

        def note(work):
            try:
                result = work()
            except Misfit:
                raise
            except Exception as error:
                texts.append(json.dumps({"threw": str(error)}))
                return
            if hasattr(result, "__await__"):
                tasks.append((len(texts), clock_of_script.task(result)))
                texts.append('{"never settles": true}')
            else:
                texts.append(written(gathered(result)))

        def called(function, calls):
            for args in calls:
                if not callable(function):
                    raise Misfit("it returned no function")
                function = function(*args)
            return function

        def steps():
            clock_of_script.reset()
            made = self.function(*self.args)
            for at, what, name, calls in self.steps:
                if at >= 0:
                    clock_of_script.advance(at)
                if what in ("calls", "last"):
                    texts.append(written(self.seen[name][what]))
                elif what == "returned":
                    note(lambda: made)
                elif name and not callable(getattr(made, name, None)):
                    raise Misfit("what it returned has no function " + name)
                else:
                    note(lambda: called(getattr(made, name) if name else made, calls))
                clock_of_script.tick()
            while any(not task.done() for _, task in tasks) and clock_of_script.next() is not None:
                clock_of_script.advance(clock_of_script.next())

        made(times, steps)
        for i, task in tasks:
            if task.done():
                texts[i] = json.dumps({"threw": str(task.exception())}) if task.exception() else written(gathered(task.result()))
        return "[%s]" % ",".join(texts)


def load():
    if SCRIPTED:
        clock_of_script.install()
    place = importlib.util.spec_from_file_location("solution", os.path.join(os.path.dirname(os.path.abspath(__file__)), @FILE_TEXT@))
    module = importlib.util.module_from_spec(place)
    vars(module).update(ListNode=ListNode, TreeNode=TreeNode, Node=Node)
    exec(@PRELUDE_TEXT@, vars(module))  # what judges supply
    if GIVEN:
        vars(module).update(provided())
        with open(place.origin, encoding="utf-8") as file:
            bases(file.read(), vars(module))
    sys.modules["solution"] = module
    place.loader.exec_module(module)
    for kind in [k for k in vars(module).values() if isinstance(k, type) and k.__module__ == "solution"] if GIVEN else []:
        for name, function in provided().items():
            if not hasattr(kind, name):
                setattr(kind, name, staticmethod(function))
    if CLASS:
        kind = next((vars(module)[n] for n in NAMES if isinstance(vars(module).get(n), type)), None)
        return (OfClass(kind), "") if kind else (None, "there is no class " + NAMES[0] + " in @FILE@")
    function, lacking = find(module)
    return function and (OfScript if SCRIPTED else OfFunction)(function), lacking


def outcome(served):
    """Makes what was read, and returns the answer."""
    times = []
    try:
        text = served.text(times)
        return "done %d %s" % (sum(times), text)
    except Threw as threw:
        error, trace = threw.__cause__, threw.__cause__.__traceback__
        while trace and trace.tb_frame.f_code.co_filename == __file__:
            trace = trace.tb_next
        traceback.print_exception(type(error), error, trace)
        return "failed %d %d" % (sum(times), len(times))
    except Stalled:
        return "stalled %d what it returned is never done" % sum(times)
    except Misfit as error:
        why = str(error)
    except RecursionError:
        why = "it returned a value that is nested too deeply, or contains itself"
    except ValueError:
        why = "it returned a value that contains itself"
    except TypeError as error:
        why = str(error).replace("\n", " ")
    return "misfit %d %s" % (sum(times), why)


settled = False


def settle():
    """Marks the end of what a call printed: where it ended, since what it returned is written behind that."""
    global settled
    if settled:
        return
    settled = True
    for stream, fd in zip((sys.stdout, sys.stderr), streams):
        try:
            stream.flush()
        except Exception:
            pass  # the function has closed it
        write(fd, mark)


def serve():
    global count, settled
    served, lacking = load()
    if served is None:
        answer("unserved " + lacking)
        return
    settle()
    answer("ready")
    for line in calls:
        served.read(json.loads(line))
        if len(line) > 100000:
            del line
            answer("begin")
        settled = False
        words = outcome(served)
        settle()
        answer(words)
        count += 1


if __name__ == "__main__":
    serve()
    os._exit(0)  # threads that the function left do not hold this up
