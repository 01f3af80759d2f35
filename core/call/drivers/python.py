# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
import importlib.util, json, os, sys, time, traceback, typing

NAMES = @NAMES@
COUNT = @COUNT@  # arguments
CHANGES = @CHANGES@  # the argument that is the result, from 1; 0: what is returned
BOTH = @BOTH@ != 0  # what is returned says how much of that argument counts, and is a result, too
CLASS = @CLASS@  # whose objects are made and called; empty: it is a function
METHODS = @METHODS@  # of the class, by our names
NEW = @NEW@  # types of what an object is made with
TAKES = @TAKES@  # types of the arguments
RESULTS = @RESULTS@  # and of what is returned

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


USUAL_FIELDS = next(([FIELDS[f][0] for f in fields] for kind, fields in SHAPES.items() if kind != "list" and any(kind + "(" in t for t in TAKES + RESULTS)), ["val"])


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


def new_node(shape, value):
    kind, fields = node_type(shape)
    node = None
    for args in ((value,), (value, None), (value, None, None), ()):
        try:
            node = kind(*args)
            break
        except TypeError:
            pass
    if node is None:
        node = kind.__new__(kind)
    setattr(node, fields["value"], value)
    for f, name in fields.items():
        if f in ("next", "prev", "left", "right"):
            setattr(node, name, None)
        elif f != "value":
            setattr(node, name, [])
    return node


def taken(type, value):
    """Makes nodes of a value, where its type says that it is made of them."""
    if value is None:
        return None
    if type.endswith("?"):
        return taken(type[:-1], value)
    if type.endswith("[]"):
        return [taken(type[:-2], v) for v in value] if "(" in type else value
    shape = type.partition("(")[0]
    if shape not in SHAPES or shape == type:
        return value
    cycle = -1
    if isinstance(value, dict):
        value, cycle = value["list"], value["cycle"]
    if not value:
        return None
    fields = node_type(shape)[1]
    if shape in ("list", "list2"):
        nodes = [new_node(shape, v) for v in value]
        for one, other in zip(nodes, nodes[1:]):
            setattr(one, fields["next"], other)
            if shape == "list2":
                setattr(other, fields["prev"], one)
        if cycle >= 0:
            setattr(nodes[-1], fields["next"], nodes[cycle])
            if shape == "list2":
                setattr(nodes[cycle], fields["prev"], nodes[-1])
        return nodes[0]
    if shape == "graph":
        nodes = [new_node(shape, i + 1) for i in range(len(value))]
        for node, others in zip(nodes, value):
            setattr(node, fields["neighbors"], [nodes[i - 1] for i in others])
        return nodes[0]
    root = new_node(shape, value[0])
    if shape == "tree":
        parents, at = [root], 1
        for parent in parents:
            for side in ("left", "right"):
                if at < len(value):
                    if value[at] is not None:
                        child = new_node(shape, value[at])
                        setattr(parent, fields[side], child)
                        parents.append(child)
                    at += 1
        return root
    parents, at = [root], 2
    for parent in parents:
        children = getattr(parent, fields["children"])
        while at < len(value) and value[at] is not None:
            children.append(new_node(shape, value[at]))
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
    seen, values = {}, []
    if shape in ("list", "list2"):
        node, before = value, None
        while node is not None:
            if id(node) in seen:
                return {"list": values, "cycle": seen[id(node)]}
            if shape == "list2" and field(node, shape, "prev") is not before:
                raise Misfit("it returned a list in which the link backwards of node %d, counted from 0, does not lead to the node before it" % len(values))
            seen[id(node)] = len(values)
            values.append(field(node, shape, "value"))
            node, before = field(node, shape, "next"), node
        return values
    if shape == "graph":
        nodes, seen[id(value)] = [value], 1
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
        seen[id(node)] = True
        return field(node, shape, "value")

    nodes = [value]
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


def sequence(kind):
    """Returns a function that makes objects of a class and calls their methods, one after the other."""
    def run(calls):
        node, results = None, []
        for name, args in calls:
            if name == "new":
                node = kind(*[taken(t, v) for t, v in zip(NEW, args)])
                results.append(None)
                continue
            method = METHODS[name]
            function = next((getattr(node, n) for n in method["names"] if hasattr(node, n)), None)
            if function is None:
                raise Misfit("%s has no method %s" % (kind.__name__, name))
            result = gathered(function(*[taken(t, v) for t, v in zip(method["takes"], args)]))
            results.append(given(method["returns"], result) if method["returns"] else None)
        return results
    return run


def load():
    place = importlib.util.spec_from_file_location("solution", os.path.join(os.path.dirname(os.path.abspath(__file__)), @FILE_TEXT@))
    module = importlib.util.module_from_spec(place)
    vars(module).update({name: getattr(typing, name) for name in typing.__all__})
    vars(module).update(ListNode=ListNode, TreeNode=TreeNode, Node=Node)
    exec(@PRELUDE_TEXT@, vars(module))  # what judges supply
    sys.modules["solution"] = module
    place.loader.exec_module(module)
    if CLASS:
        kind = next((vars(module)[n] for n in NAMES if isinstance(vars(module).get(n), type)), None)
        return (sequence(kind), "") if kind else (None, "there is no class " + NAMES[0] + " in @FILE@")
    return find(module)


def call(function, args):
    began = clock()
    try:
        result = gathered(function(*args))
    except Misfit as error:
        return "misfit 0 %s" % error
    except Exception as error:
        spent = clock() - began
        error.__traceback__ = error.__traceback__.tb_next
        traceback.print_exception(type(error), error, error.__traceback__)
        return "failed %d" % spent
    spent = clock() - began
    try:
        if CHANGES:
            changed = given(TAKES[CHANGES - 1], args[CHANGES - 1])
            result = [result, changed] if BOTH else changed
        else:
            result = results(result)
        return "done %d %s" % (spent, json.dumps(result, default=plain, ensure_ascii=False))
    except Misfit as error:
        return "misfit %d %s" % (spent, error)
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
        args = [taken(t, v) for t, v in zip(TAKES, json.loads(line))]
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
