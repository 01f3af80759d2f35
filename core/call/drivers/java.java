// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
import java.io.*;
import java.lang.management.*;
import java.lang.reflect.*;
import java.lang.reflect.Array;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.*;

public final class ColdDriver {
    static final String[] NAMES = {@NAME_LIST@};
    static final String[] CLASSES = {@CLASS_LIST@}; // where the function may be, the likeliest first
    static final int TAKES = @COUNT@; // arguments
    static final int CHANGES = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
    static final int BOTH = @BOTH@; // 1: what is returned is a result, too
    static final int NODE_OF = @NODE_OF@; // the argument of which a node is returned, from 1; 0: none
    static final int PLACES_OF = @PLACES_OF@; // the argument of which others are nodes, from 1; 0: none
    static final int COPY_OF = @COPY_OF@; // the argument of which a copy is returned, from 1; 0: none

    static final InputStream in = System.in;
    static final OutputStream out = new FileOutputStream(FileDescriptor.out), err = new FileOutputStream(FileDescriptor.err);
    static OutputStream answers;
    static byte[] mark;

    // Each answer begins with the word that only this driver knows, and with how many
    // calls were answered before.
    private static String token;
    private static long count;

    static void answer(String text) throws IOException {
        answers.write((token + " " + count + " " + text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** The mark stands where the call ended: what it returned is written behind it. */
    private static boolean settled;
    static void settle() throws IOException {
        if (settled) return;
        settled = true;
        System.out.flush();
        System.err.flush();
        out.write(mark);
        err.write(mark);
    }

    /** The argument or result that a declaration has no room for. */
    static final class Misfit extends RuntimeException {
        Misfit(String words) { super(words, null, false, false); }
    }

    public static void main(String[] args) throws Exception {
        answers = new FileOutputStream("/proc/self/fd/3");
        System.setIn(new ByteArrayInputStream(new byte[0]));
        Reader r = reader = new Reader();
        token = r.line().split(" ")[2];
        mark = ("\0" + token + "\n").getBytes(StandardCharsets.UTF_8);
        if (!CLASS.isEmpty()) {
            serve(new OfClass(Class.forName(CLASSES[0], false, ColdDriver.class.getClassLoader())), r);
            out.flush();
            Runtime.getRuntime().halt(0);
        }
        Method method = find();
        if (method == null) {
            answer("unserved there is no method " + NAMES[0] + " with " + TAKES + " parameters in @FILE@");
            System.exit(0);
        }
        method.setAccessible(true);
        serve(new OfFunction(method), r);
        out.flush();
        Runtime.getRuntime().halt(0);
    }

    static Reader reader;

    /** Asks the judge what a function returns that the site provides. */
    public static Object asked(String name, Class<?> kind, Object... args) {
        try {
            StringBuilder text = new StringBuilder("asks ").append(name).append(' ');
            write(text, args, 0);
            answer(text.toString());
            Object given = reader.value(kind, TYPES.length + 1);
            reader.endLine();
            return given;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static String[] TYPES = {@TAKE_LIST@}; // of the arguments
    static final String CLASS = @CLASS@; // whose objects are made and called; empty: it is a function
    static final String[] NEW = {@NEW_LIST@}; // types of what an object is made with
    static final String[][] METHODS = {@METHOD_ROWS@}; // of the class: our name, its names, types of the arguments, and of the result
    static Class<?> owner; // whose object the method is called on
    static Method defaults; // what Kotlin calls where parameters have defaults; null: the method itself

    static Method find() {
        List<Class<?>> kinds = new ArrayList<>();
        for (String name : CLASSES)
            try {
                kinds.add(Class.forName(name, false, ColdDriver.class.getClassLoader()));
            } catch (Throwable e) {
            }
        for (Class<?> kind : kinds) {
            Method m = best(kind);
            if (m == null) continue;
            owner = kind;
            if (!Modifier.isStatic(m.getModifiers()) && Modifier.isAbstract(kind.getModifiers()))
                for (Class<?> other : kinds)
                    if (kind.isAssignableFrom(other) && !Modifier.isAbstract(other.getModifiers())) {
                        owner = other;
                        break;
                    }
            return m;
        }
        return null;
    }

    /** The method of a class that takes the arguments with the fewest contradictions; a public one before others. */
    static Method best(Class<?> kind) {
        Method best = null;
        int least = Integer.MAX_VALUE;
        for (String wanted : NAMES)
            for (Class<?> k = kind; k != null && k != Object.class; k = k.getSuperclass())
                for (Method m : k.getDeclaredMethods()) {
                    if (!m.getName().equals(wanted) || m.isSynthetic() || m.getParameterCount() < TAKES) continue;
                    Method filled = m.getParameterCount() == TAKES ? null : defaultsOf(k, m);
                    if (filled == null && m.getParameterCount() != TAKES) continue;
                    int rank = Modifier.isPrivate(m.getModifiers()) ? 1 : 0;
                    for (int i = 0; i < TAKES; i++) if (!fits(m.getParameterTypes()[i], TYPES[i])) rank += 10;
                    if (filled != null) rank += 5;
                    if (k != kind) rank += 2;
                    if (rank < least) {
                        least = rank;
                        best = m;
                        defaults = filled;
                    }
                }
        return best;
    }

    static Method defaultsOf(Class<?> kind, Method m) {
        for (Method d : kind.getDeclaredMethods())
            if (d.getName().equals(m.getName() + "$default") && d.getParameterCount() == m.getParameterCount() + 2 + (Modifier.isStatic(m.getModifiers()) ? 0 : 1)) return d;
        return null;
    }

    static boolean isPlace(String type) { return type.startsWith("node of "); }

    static boolean fits(Class<?> kind, String type) {
        if (kind == Object.class || kind == Optional.class) return true;
        if (type.startsWith("map(")) return Map.class.isAssignableFrom(kind);
        if (type.contains("(") && !type.contains("[]") || isPlace(type)) return !plain(kind);
        if (type.contains("[]")) return kind.isArray() || Iterable.class.isAssignableFrom(kind);
        if (kind == StringBuilder.class || kind == char[].class || CharSequence.class.isAssignableFrom(kind)) return type.startsWith("text") || type.startsWith("char");
        if (kind == char.class || kind == Character.class) return type.startsWith("char");
        if (kind == boolean.class || kind == Boolean.class) return type.startsWith("bool");
        if (kind.isPrimitive() || Number.class.isAssignableFrom(kind)) return !type.startsWith("text") && !type.startsWith("bool");
        return false;
    }

    static final String[] RESULTS = {@RESULT_LIST@}; // types of what is returned

    /** How nodes of a shape are made: a class, and its fields by our names. */
    static final class Nodes {
        final String shape;
        final Class<?> kind;
        final Field value, next, prev, left, right, many;

        Nodes(String shape, Class<?> kind) {
            this.shape = shape;
            this.kind = kind;
            value = field("val", "value", "data", "key", "item");
            boolean list = shape.startsWith("list"), tree = shape.equals("tree");
            next = list ? field("next", "nxt") : null;
            prev = shape.equals("list2") ? field("prev", "previous") : null;
            left = tree ? field("left") : null;
            right = tree ? field("right") : null;
            many = list || tree ? null : shape.equals("nary") ? field("children", "kids") : field("neighbors", "neighbours", "adjacent");
        }

        Field field(String... names) {
            for (String name : names)
                for (Class<?> k = kind; k != null && k != Object.class; k = k.getSuperclass())
                    for (Field f : k.getDeclaredFields())
                        if (f.getName().equals(name)) {
                            f.setAccessible(true);
                            return f;
                        }
            throw new Misfit(kind.getSimpleName() + " is declared where the problem has nodes, and has no field " + names[0]);
        }

        Constructor<?> known; // that makes nodes
        Object[] usual; // arguments
        boolean takesValue; // the first of them is the value

        /** A node that a constructor makes; null: it does not. */
        Object attempt(Constructor<?> c, Object v) throws IllegalAccessException {
            Object[] args = usual.clone();
            if (takesValue) args[0] = v;
            try {
                return c.newInstance(args);
            } catch (InvocationTargetException | InstantiationException | IllegalArgumentException e) {
                return null;
            }
        }

        Object made(Object v) throws IOException {
            try {
                Object node = known == null ? null : attempt(known, v);
                if (node == null)
                    for (Constructor<?> c : kind.getDeclaredConstructors()) {
                        c.setAccessible(true);
                        usual = new Object[c.getParameterCount()];
                        takesValue = usual.length > 0 && c.getParameterTypes()[0] == value.getType();
                        for (int i = 0; i < usual.length; i++) {
                            Class<?> one = c.getParameterTypes()[i];
                            usual[i] = one.isPrimitive() ? Array.get(Array.newInstance(one, 1), 0) : null;
                        }
                        known = c;
                        if ((node = attempt(c, v)) != null) break;
                    }
                if (node == null) throw new Misfit(kind.getSimpleName() + " has no constructor that makes a node");
                if (!Modifier.isFinal(value.getModifiers())) value.set(node, v);
                if (many != null) many.set(node, new ArrayList<Object>());
                if (next != null) next.set(node, null);
                if (prev != null) prev.set(node, null);
                if (left != null) left.set(node, null);
                if (right != null) right.set(node, null);
                return node;
            } catch (IllegalAccessException e) {
                throw new Misfit(kind.getSimpleName() + " cannot be used as a node: " + e.getMessage());
            }
        }

        @SuppressWarnings("unchecked")
        Collection<Object> of(Object node) throws IllegalAccessException {
            Object all = many.get(node);
            return all == null ? List.of() : (Collection<Object>) all;
        }

        Object take(Reader r, int n) throws IOException {
            try {
                long cycle = -1;
                boolean object = r.peek() == '{';
                if (object) r.pass("{\"list\":");
                List<Object> values = new ArrayList<>();
                Type held = shape.equals("graph") ? int[].class : value.getGenericType() instanceof TypeVariable ? Object.class : value.getGenericType();
                r.expect('[');
                while (r.peek() != ']') {
                    if (!values.isEmpty()) r.expect(',');
                    values.add(r.absent() ? null : r.value(held, n));
                }
                r.expect(']');
                if (object) {
                    r.pass(",\"cycle\":");
                    cycle = (Long) r.value(long.class, n);
                    r.expect('}');
                }
                return built(values, (int) cycle);
            } catch (IllegalAccessException e) {
                throw new Misfit(kind.getSimpleName() + " cannot be used as a node: " + e.getMessage());
            }
        }

        Object built(List<Object> values, int cycle) throws IOException, IllegalAccessException {
            if (values.isEmpty()) return null;
            List<Object> nodes = new ArrayList<>();
            if (next != null) {
                for (Object v : values) nodes.add(made(v));
                for (int i = 0; i < nodes.size(); i++) {
                    Object other = i + 1 < nodes.size() ? nodes.get(i + 1) : cycle >= 0 ? nodes.get(cycle) : null;
                    next.set(nodes.get(i), other);
                    if (prev != null && other != null) prev.set(other, nodes.get(i));
                }
                return nodes.get(0);
            }
            if (shape.equals("graph")) {
                for (int i = 1; i <= values.size(); i++) nodes.add(made(i));
                for (int i = 0; i < nodes.size(); i++) for (int other : (int[]) values.get(i)) of(nodes.get(i)).add(nodes.get(other - 1));
                return nodes.get(0);
            }
            nodes.add(made(values.get(0)));
            int at = many == null ? 1 : 2;
            for (int i = 0; i < nodes.size(); i++) {
                if (many != null) {
                    for (; at < values.size() && values.get(at) != null; at++) {
                        Object child = made(values.get(at));
                        nodes.add(child);
                        of(nodes.get(i)).add(child);
                    }
                    at++;
                } else for (Field side : new Field[] {left, right}) {
                    if (at < values.size() && values.get(at) != null) {
                        Object child = made(values.get(at));
                        nodes.add(child);
                        side.set(nodes.get(i), child);
                    }
                    at++;
                }
            }
            return nodes.get(0);
        }

        /** What the nodes hold that a node leads to, as cases write it. */
        Object given(Object node) throws IllegalAccessException {
            Map<Object, Integer> seen = visited = new IdentityHashMap<>();
            List<Object> values = new ArrayList<>(), nodes = new ArrayList<>();
            if (next != null) {
                for (Object before = null; node != null; before = node, node = next.get(node)) {
                    if (seen.containsKey(node)) {
                        Map<String, Object> circle = new LinkedHashMap<>();
                        circle.put("list", values);
                        circle.put("cycle", seen.get(node));
                        return circle;
                    }
                    if (prev != null && prev.get(node) != before) throw new Misfit("it returned a list in which the link backwards of node " + values.size() + ", counted from 0, does not lead to the node before it");
                    seen.put(node, values.size());
                    values.add(value.get(node));
                }
                return values;
            }
            nodes.add(node);
            seen.put(node, 0);
            if (shape.equals("graph")) {
                for (int i = 0; i < nodes.size(); i++) for (Object other : of(nodes.get(i))) if (seen.putIfAbsent(other, 0) == null) nodes.add(other);
                nodes.sort(Comparator.comparingLong(one -> {
                    try {
                        return ((Number) value.get(one)).longValue();
                    } catch (IllegalAccessException e) {
                        return 0;
                    }
                }));
                for (int i = 0; i < nodes.size(); i++) seen.put(nodes.get(i), i + 1);
                for (Object one : nodes) {
                    List<Integer> others = new ArrayList<>();
                    for (Object other : of(one)) others.add(seen.get(other));
                    values.add(others);
                }
                return values;
            }
            values.add(value.get(node));
            if (many != null) values.add(null);
            for (int i = 0; i < nodes.size(); i++) {
                Collection<Object> children = many != null ? of(nodes.get(i)) : Arrays.asList(left.get(nodes.get(i)), right.get(nodes.get(i)));
                for (Object child : children) {
                    values.add(child == null ? null : value.get(child));
                    if (child == null) continue;
                    if (seen.put(child, values.size() - 1) != null) throw new Misfit("it returned a tree in which the node with the value " + value.get(child) + " has two parents");
                    nodes.add(child);
                }
                if (many != null) values.add(null);
            }
            while (!values.isEmpty() && values.get(values.size() - 1) == null) values.remove(values.size() - 1);
            return values;
        }
    }

    static Map<Object, Integer> visited = new IdentityHashMap<>(); // the places of the nodes of what was written last
    static final Map<String, Nodes> known = new HashMap<>();

    static Nodes nodes(String shape, Class<?> kind) { return known.computeIfAbsent(shape + kind.getName(), k -> new Nodes(shape, kind)); }

    /** The shape of the nodes that a type of the problem is made of; null: it is not. */
    static String shapeOf(String type) {
        int end = type.indexOf('(');
        return end < 0 || type.startsWith("map(") ? null : type.substring(0, end);
    }

    static boolean plain(Class<?> kind) { return kind.isPrimitive() || kind.isArray() || kind.getName().startsWith("java.") || kind.getName().startsWith("kotlin."); }

    /** Makes values of nodes in a result, whose type says where they are. */
    static Object given(Object v, String type) {
        String shape = shapeOf(type);
        if (shape == null) return v;
        if (v == null) return type.endsWith("?") ? null : type.endsWith("[]") ? v : List.of();
        if (v.getClass().isArray() || v instanceof Iterable) {
            List<Object> all = new ArrayList<>();
            String inner = type.endsWith("[]") ? type.substring(0, type.length() - 2) : type;
            if (v instanceof Iterable) for (Object one : (Iterable<?>) v) all.add(given(one, inner));
            else for (int i = 0; i < Array.getLength(v); i++) all.add(given(Array.get(v, i), inner));
            return all;
        }
        if (plain(v.getClass())) throw new Misfit("it returned a " + v.getClass().getSimpleName() + " where a node was expected");
        try {
            return nodes(shape, v.getClass()).given(v);
        } catch (IllegalAccessException e) {
            throw new Misfit("it returned a node that cannot be looked at: " + e.getMessage());
        }
    }

    static Object receiver(Method m) throws Exception {
        if (Modifier.isStatic(m.getModifiers())) return null;
        return made(owner, 0);
    }

    /** A new object of a class; of one that lies in objects of another, in a new one of that. */
    static Object made(Class<?> kind, int depth) throws Exception {
        try { // an object of Kotlin
            Field instance = kind.getDeclaredField("INSTANCE");
            instance.setAccessible(true);
            return instance.get(null);
        } catch (NoSuchFieldException e) {
        }
        Class<?> outer = kind.getEnclosingClass();
        boolean inside = outer != null && depth < 8 && !Modifier.isStatic(kind.getModifiers());
        Constructor<?> made = inside ? kind.getDeclaredConstructor(outer) : kind.getDeclaredConstructor();
        made.setAccessible(true);
        return inside ? made.newInstance(made(outer, depth + 1)) : made.newInstance();
    }

    static final ThreadMXBean threads = ManagementFactory.getThreadMXBean();
    static final com.sun.management.OperatingSystemMXBean system = (com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();

    /** What is asked of the source. */
    interface Work {
        Object done() throws Exception;
    }

    /** What each line of the input asks for, and how it is made. */
    abstract static class Served {
        final List<Long> times = new ArrayList<>(); // of what was done, in nanoseconds

        /** Reads the next one. What a declaration has no room for is a Misfit. */
        abstract void read(Reader r) throws Exception;

        /** Makes it, and writes what came of it. */
        abstract void make(StringBuilder text) throws Exception;

        Object measured(Work work) throws Exception {
            long began = threads.getCurrentThreadCpuTime();
            try {
                return work.done();
            } finally {
                times.add(threads.getCurrentThreadCpuTime() - began);
            }
        }

        String answer() throws Exception {
            long started = threads.getTotalStartedThreadCount(), process = system.getProcessCpuTime();
            StringBuilder text = new StringBuilder();
            String words = "done";
            times.clear();
            try {
                make(text);
            } catch (InvocationTargetException | Late e) {
                trace(e.getCause());
                words = "failed";
                text = new StringBuilder().append(times.size());
            } catch (InstantiationException e) {
                return "misfit 0 no object can be made of an abstract class";
            } catch (Misfit | IllegalArgumentException e) {
                words = "misfit";
                text = new StringBuilder(e.getMessage());
            }
            long spent = 0;
            for (long one : times) spent += one;
            if (threads.getTotalStartedThreadCount() > started) // those may have ended, and only the whole tells of them
                spent = Math.max(spent, system.getProcessCpuTime() - process);
            return words + " " + spent + " " + text;
        }
    }

    static void serve(Served served, Reader r) throws Exception {
        gathered(new ArrayList<>(List.of(1)), 0); // so that no call pays for what is loaded once
        gathered(0, 0);
        settle();
        answer("ready");
        while (r.more()) {
            long from = r.read;
            String words = null;
            settled = false;
            try {
                served.read(r);
            } catch (Misfit e) {
                words = "misfit 0 " + e.getMessage();
            }
            r.endLine();
            if (words == null) {
                if (r.read - from > 100000) answer("begin");
                words = served.answer();
            }
            settle();
            answer(words);
            count++;
        }
    }

    static final class OfFunction extends Served {
        final Method method;
        final Type[] types;
        Object[] args;
        Map<Object, Integer> originals = Map.of();

        OfFunction(Method method) {
            this.method = method;
            types = method.getGenericParameterTypes();
        }

        void read(Reader r) throws IOException {
            args = new Object[TAKES];
            int[] places = new int[TAKES];
            r.expect('[');
            for (int i = 0; i < TAKES; i++) {
                if (i > 0) r.expect(',');
                places[i] = -1;
                if (!isPlace(TYPES[i])) args[i] = r.value(types[i], i + 1);
                else if (!r.absent()) places[i] = (int) r.integer(int.class, i + 1, 0, Integer.MAX_VALUE);
            }
            int original = Math.max(Math.max(NODE_OF, COPY_OF), PLACES_OF);
            originals = Map.of();
            if (original > 0 && args[original - 1] != null) {
                given(args[original - 1], TYPES[original - 1]);
                originals = visited;
            }
            for (Map.Entry<Object, Integer> one : originals.entrySet())
                for (int i = 0; i < TAKES; i++) if (places[i] == one.getValue()) args[i] = one.getKey();
        }

        void make(StringBuilder text) throws Exception {
            Object target;
            try {
                target = receiver(method);
            } catch (NoSuchMethodException e) {
                throw new Misfit(owner.getSimpleName() + " has no constructor without parameters, and " + method.getName() + " is not static");
            }
            Object result = measured(() -> gathered(invoked(method, target, args), 0));
            settle();
            if (NODE_OF > 0) {
                if (result != null && !originals.containsKey(result)) throw new Misfit("it returned a node that is none of argument " + NODE_OF + "'s, even if one of these has the same value");
                result = result == null ? null : originals.get(result);
            } else if (BOTH > 0) {
                Object first = given(result, RESULTS[0]);
                if (COPY_OF > 0 && result != null && visited.keySet().stream().anyMatch(originals::containsKey)) throw new Misfit("it returned nodes of argument " + COPY_OF + " themselves, where a copy was asked for");
                result = new Object[] {first, given(args[CHANGES - 1], TYPES[CHANGES - 1])};
            } else if (CHANGES > 0) result = given(args[CHANGES - 1], TYPES[CHANGES - 1]);
            else if (RESULTS.length == 1) result = given(result, RESULTS[0]);
            write(text, result, 0);
        }
    }

    /** Says that to write a value takes long enough to matter. */
    static boolean large(Object value, int most) {
        if (value instanceof CharSequence) return ((CharSequence) value).length() > most;
        if (value instanceof Object[]) value = Arrays.asList((Object[]) value);
        if (!(value instanceof Collection)) return value != null && value.getClass().isArray() && java.lang.reflect.Array.getLength(value) > most;
        if (((Collection<?>) value).size() > most) return true;
        for (Object one : (Collection<?>) value) if (large(one, most / 20)) return true;
        return false;
    }

    /** A sequence of calls of objects. What a call returned is written at once, since later calls may change it. */
    static final class OfClass extends Served {
        final Class<?> kind;
        List<Step> steps;

        OfClass(Class<?> kind) { this.kind = kind; }

        void read(Reader r) throws Exception {
            steps = new ArrayList<>();
            r.pass("[[");
            while (r.peek() != ']') {
                if (!steps.isEmpty()) r.expect(',');
                steps.add(step(kind, r));
            }
        }

        void make(StringBuilder text) throws Exception {
            Map<Integer, Object> objects = new HashMap<>();
            List<String> texts = new ArrayList<>();
            boolean late = false; // since a result was written
            for (Step s : steps) {
                if (late) ColdDriver.answer("goes-on");
                late = false;
                for (int i = 0; i < s.uses.length; i += 2) s.take(new Reader(texts.get(s.uses[i + 1])), s.uses[i]);
                if (s.called instanceof Constructor) {
                    objects.put(s.number, measured(() -> ((Constructor<?>) s.called).newInstance(s.args)));
                    texts.add("null");
                    continue;
                }
                Object result = measured(() -> gathered(((Method) s.called).invoke(objects.get(s.number), s.args), 0));
                StringBuilder said = new StringBuilder();
                late = !s.returns.isEmpty() && large(result, 2000);
                if (late) ColdDriver.answer("writes");
                write(said, s.returns.isEmpty() ? null : given(result, s.returns), 0);
                texts.add(said.toString());
            }
            text.append("[[").append(String.join(",", texts)).append("],[");
            for (int i = 0; i < times.size(); i++) text.append(i > 0 ? "," : "").append(times.get(i));
            text.append("]]");
        }
    }

    /** One call of a sequence: a method, or the constructor of the class. */
    static final class Step {
        Executable called;
        String[] takes; // types of the arguments in the problem
        Type[] types; // and in the source
        Object[] args;
        String returns = ""; // empty: nothing
        int number; // of its object
        int[] uses; // arguments, and the calls that returned them

        void take(Reader r, int i) throws IOException {
            TYPES = takes;
            args[i] = r.value(types[i], i + 1);
        }
    }

    static Step step(Class<?> kind, Reader r) throws Exception {
        Step s = new Step();
        r.expect('[');
        String name = r.string();
        r.expect(',');
        s.number = (int) r.integer(int.class, 0, 0, Integer.MAX_VALUE);
        List<Executable> all = new ArrayList<>();
        s.takes = NEW;
        if (name.equals("new")) all.addAll(Arrays.asList(kind.getDeclaredConstructors()));
        else
            for (String[] row : METHODS) {
                if (!row[0].equals(name)) continue;
                s.takes = row[2].isEmpty() ? new String[0] : row[2].split(";");
                s.returns = row[3];
                for (Class<?> k = kind; k != null && k != Object.class; k = k.getSuperclass())
                    for (Method m : k.getDeclaredMethods()) if (Arrays.asList(row[1].split(",")).contains(m.getName())) all.add(m);
            }
        int least = Integer.MAX_VALUE;
        for (Executable e : all) {
            if (e.getParameterCount() != s.takes.length || e.isSynthetic()) continue;
            int rank = 0;
            for (int i = 0; i < s.takes.length; i++) if (!fits(e.getParameterTypes()[i], s.takes[i])) rank++;
            if (rank < least) {
                least = rank;
                s.called = e;
            }
        }
        if (s.called == null) throw new Misfit(kind.getSimpleName() + " has no " + (name.equals("new") ? "constructor" : "method " + name) + " with " + s.takes.length + " parameters");
        s.called.setAccessible(true);
        s.types = s.called.getGenericParameterTypes();
        if (s.types.length != s.takes.length) s.types = s.called.getParameterTypes();
        s.args = new Object[s.takes.length];
        r.pass(",[");
        for (int i = 0; i < s.args.length; i++) {
            if (i > 0) r.expect(',');
            s.take(r, i);
        }
        r.pass("],");
        s.uses = r.ints(0);
        r.expect(']');
        return s;
    }

    static Object invoked(Method method, Object target, Object[] args) throws Exception {
        if (defaults == null) return method.invoke(target, args);
        Class<?>[] kinds = method.getParameterTypes();
        List<Object> all = new ArrayList<>();
        if (!Modifier.isStatic(method.getModifiers())) all.add(target);
        int mask = 0;
        for (int i = 0; i < kinds.length; i++) {
            if (i < TAKES) all.add(args[i]);
            else {
                all.add(kinds[i].isPrimitive() ? Array.get(Array.newInstance(kinds[i], 1), 0) : null);
                mask |= 1 << i;
            }
        }
        all.add(mask);
        all.add(null);
        defaults.setAccessible(true);
        return defaults.invoke(null, all.toArray());
    }

    /** What a lazy result threw when it was gathered. */
    static final class Late extends RuntimeException {
        Late(Throwable cause) { super(null, cause, false, false); }
    }

    /** Gathers what is computed only when it is read, which belongs to the call. */
    static Object gathered(Object v, int depth) {
        try {
            if (v instanceof java.util.stream.BaseStream) v = ((java.util.stream.BaseStream<?, ?>) v).iterator();
            else if (v instanceof Iterable && !(v instanceof Collection)) v = ((Iterable<?>) v).iterator();
            else if (v != null && !(v instanceof Iterator)) {
                for (Class<?> k : v.getClass().getInterfaces())
                    if (k.getName().equals("kotlin.sequences.Sequence")) {
                        Method iterator = k.getMethod("iterator");
                        iterator.setAccessible(true);
                        v = iterator.invoke(v);
                    }
            }
            if (v instanceof Iterator || v instanceof List && depth < 2) {
                Iterator<?> items = v instanceof List ? ((List<?>) v).iterator() : (Iterator<?>) v;
                boolean lazy = v instanceof Iterator || v instanceof AbstractList && v.getClass().getName().contains("Lists$");
                if (!lazy && single((List<?>) v)) return v;
                List<Object> all = new ArrayList<>();
                while (items.hasNext()) {
                    Object item = items.next(), known = depth > 100 ? item : gathered(item, depth + 1);
                    lazy |= known != item;
                    all.add(known);
                }
                if (lazy) return all;
            }
            return v;
        } catch (Misfit | Late e) {
            throw e;
        } catch (InvocationTargetException e) {
            throw new Late(e.getCause());
        } catch (Throwable e) {
            throw new Late(e);
        }
    }

    /** Says that all elements are single values, among which nothing is computed when it is read. */
    static boolean single(List<?> list) {
        for (Object item : list)
            if (!(item == null || item instanceof Number || item instanceof String || item instanceof Boolean || item instanceof Character)) return false;
        return true;
    }

    /** Prints what the function threw, as the virtual machine would, without what called it. */
    static void trace(Throwable thrown) {
        StackTraceElement[] all = thrown.getStackTrace();
        int end = all.length;
        while (end > 0 && (all[end - 1].getClassName().startsWith("ColdDriver") || all[end - 1].getClassName().contains("reflect"))) end--;
        StringBuilder text = new StringBuilder("Exception in thread \"main\" ").append(thrown).append('\n');
        for (int i = 0; i < end && i < 40; i++) text.append("\tat ").append(all[i]).append('\n');
        if (thrown.getCause() != null) text.append("Caused by: ").append(thrown.getCause()).append('\n');
        System.err.print(text);
    }

    static void write(StringBuilder b, Object v, int depth) {
        if (depth > 500) throw new Misfit("it returned a value that is nested too deeply, or contains itself");
        if (v == null || v instanceof Number && !(v instanceof Double || v instanceof Float) || v instanceof Boolean) b.append(v);
        else if (v instanceof Double || v instanceof Float) b.append(v.toString());
        else if (v instanceof CharSequence || v instanceof Character) quote(b, v.toString());
        else if (v instanceof int[]) { int[] a = (int[]) v; b.append('['); for (int i = 0; i < a.length; i++) { if (i > 0) b.append(','); b.append(a[i]); } b.append(']'); }
        else if (v.getClass().isArray()) {
            b.append('[');
            for (int i = 0, n = Array.getLength(v); i < n; i++) {
                if (i > 0) b.append(',');
                write(b, Array.get(v, i), depth + 1);
            }
            b.append(']');
        } else if (v instanceof Iterable) {
            String comma = "[";
            for (Object item : (Iterable<?>) v) {
                b.append(comma);
                write(b, item, depth + 1);
                comma = ",";
            }
            b.append(comma.equals("[") ? "[]" : "]");
        } else if (v instanceof Optional) write(b, ((Optional<?>) v).orElse(null), depth);
        else if (v instanceof Map) {
            String comma = "{";
            for (Map.Entry<?, ?> e : ((Map<?, ?>) v).entrySet()) {
                b.append(comma);
                quote(b, String.valueOf(e.getKey()));
                b.append(':');
                write(b, e.getValue(), depth + 1);
                comma = ",";
            }
            b.append(comma.equals("{") ? "{}" : "}");
        } else parts(b, v, depth);
    }

    /** Writes a record, a pair, or any small class as the values of its fields. */
    static void parts(StringBuilder b, Object v, int depth) {
        String comma = "[";
        for (Field f : v.getClass().getDeclaredFields()) {
            if (Modifier.isStatic(f.getModifiers()) || f.isSynthetic()) continue;
            try {
                f.setAccessible(true);
                b.append(comma);
                write(b, f.get(v), depth + 1);
            } catch (IllegalAccessException | RuntimeException e) {
                if (e instanceof Misfit) throw (Misfit) e;
                throw new Misfit("it returned a " + v.getClass().getName() + ", which is none of the problem's types");
            }
            comma = ",";
        }
        b.append(comma.equals("[") ? "[]" : "]");
    }

    static void quote(StringBuilder b, String s) {
        b.append('"');
        for (int i = 0; i < s.length(); i++) {
            char c = s.charAt(i);
            if (c == '"' || c == '\\') b.append('\\').append(c);
            else if (c < ' ') b.append(String.format("\\u%04x", (int) c));
            else b.append(c);
        }
        b.append('"');
    }

    /** Reads JSON, each value as the type that it is declared as. */
    static final class Reader {
        final InputStream from;
        final byte[] piece;
        int at, end;
        long read; // bytes in all

        Reader() {
            from = in;
            piece = new byte[1 << 16];
        }

        Reader(String text) {
            from = InputStream.nullInputStream();
            piece = text.getBytes(StandardCharsets.UTF_8);
            end = piece.length;
        }

        int peek() throws IOException {
            if (at == end) {
                end = from.read(piece, at = 0, piece.length);
                if (end <= 0) {
                    end = 0;
                    return -1;
                }
                read += end;
            }
            return piece[at];
        }

        boolean more() throws IOException { return peek() >= 0; }

        String line() throws IOException {
            StringBuilder b = new StringBuilder();
            for (int c; (c = peek()) >= 0; b.append((char) c)) {
                at++;
                if (c == '\n') break;
            }
            return b.toString();
        }

        void endLine() throws IOException {
            for (int c; (c = peek()) >= 0 || at < end; ) {
                at++;
                if (c == '\n') break;
            }
        }

        void expect(char c) throws IOException {
            if (peek() != c) throw new IOException("expected " + c);
            at++;
        }

        void pass(String text) throws IOException {
            for (int i = 0; i < text.length(); i++) expect(text.charAt(i));
        }

        boolean absent() throws IOException {
            if (peek() != 'n') return false;
            for (int i = 0; i < 4; i++) { peek(); at++; }
            return true;
        }

        Object value(Type t, int n) throws IOException {
            if (t instanceof WildcardType) t = ((WildcardType) t).getUpperBounds()[0];
            Class<?> kind = t instanceof Class ? (Class<?>) t : t instanceof ParameterizedType ? (Class<?>) ((ParameterizedType) t).getRawType() : t instanceof GenericArrayType ? Object[].class : Object.class;
            if (kind == Optional.class) return absent() ? Optional.empty() : Optional.of(value(((ParameterizedType) t).getActualTypeArguments()[0], n));
            String shape = n <= TYPES.length ? shapeOf(TYPES[n - 1]) : null;
            if (shape != null && !plain(kind)) return absent() ? null : nodes(shape, kind).take(this, n);
            int c = peek();
            if (c == 'n') {
                if (kind.isPrimitive()) throw new Misfit("parameter " + n + " is declared as " + kind.getName() + ", which cannot be null; Integer, Long or Double can");
                absent();
                return null;
            }
            if (c == '[') return list(t, kind, n);
            if (c == '{') return object(t, kind, n);
            if (c == '"') {
                String s = string();
                if (kind.isAssignableFrom(String.class)) return s;
                if ((kind == char.class || kind == Character.class) && s.length() == 1) return s.charAt(0);
                if (kind == int.class && s.codePointCount(0, s.length()) == 1) return s.codePointAt(0);
                if (kind == StringBuilder.class) return new StringBuilder(s);
                if (kind == char[].class) return s.toCharArray();
                throw misfit(kind, n, "a text");
            }
            if (c == 't' || c == 'f') {
                for (int left = c == 't' ? 4 : 5; left > 0; left--) { peek(); at++; }
                if (kind == boolean.class || kind.isAssignableFrom(Boolean.class)) return c == 't';
                throw misfit(kind, n, "a bool");
            }
            return number(kind, n);
        }

        /** An object of JSON, in a map. */
        Object object(Type t, Class<?> kind, int n) throws IOException {
            Type of = t instanceof ParameterizedType ? ((ParameterizedType) t).getActualTypeArguments()[1] : Object.class;
            Type key = t instanceof ParameterizedType ? ((ParameterizedType) t).getActualTypeArguments()[0] : String.class;
            Map<Object, Object> all = new LinkedHashMap<>();
            expect('{');
            while (peek() != '}') {
                if (!all.isEmpty()) expect(',');
                String name = string();
                expect(':');
                Object known = name;
                if (key == Integer.class) known = Integer.valueOf(name);
                else if (key == Long.class) known = Long.valueOf(name);
                else if (key == Character.class) known = name.charAt(0);
                all.put(known, value(of, n));
            }
            expect('}');
            if (kind == TreeMap.class || kind == SortedMap.class) return new TreeMap<>(all);
            if (kind == HashMap.class) return new HashMap<>(all);
            if (!kind.isInstance(all)) throw misfit(kind, n, "an object");
            return all;
        }

        Misfit misfit(Class<?> kind, int n, String given) {
            return new Misfit("parameter " + n + " is declared as " + kind.getSimpleName() + ", and the problem gives " + given + " there");
        }

        long integer(Class<?> kind, int n, long least, long most) throws IOException {
            boolean negative = peek() == '-';
            if (negative) at++;
            long x = 0;
            int digits = 0;
            for (int c; (c = peek()) >= '0' && c <= '9'; digits++) {
                at++;
                if (x < (Long.MIN_VALUE + (c - '0')) / 10 || x * 10 < Long.MIN_VALUE + (c - '0')) throw new Misfit("an integer past " + kind.getSimpleName() + ", as which parameter " + n + " is declared");
                x = x * 10 - (c - '0');
            }
            if (digits == 0 || peek() == '.' || peek() == 'e') throw misfit(kind, n, "a real");
            if (!negative && x == Long.MIN_VALUE || (x = negative ? x : -x) < least || x > most)
                throw new Misfit(x + " is more than " + kind.getSimpleName() + " holds, as which parameter " + n + " is declared");
            return x;
        }

        String digits() throws IOException {
            StringBuilder b = new StringBuilder();
            for (int c; (c = peek()) == '-' || c == '+' || c == '.' || c >= '0' && c <= '9' || c >= 'A' && c <= 'z' && c != ']' && c != '['; at++) b.append((char) c);
            return b.toString();
        }

        Object number(Class<?> kind, int n) throws IOException {
            if (kind == int.class || kind == Integer.class) return (int) integer(kind, n, Integer.MIN_VALUE, Integer.MAX_VALUE);
            if (kind == long.class || kind == Long.class) return integer(kind, n, Long.MIN_VALUE, Long.MAX_VALUE);
            if (kind == double.class || kind == Double.class) return Double.parseDouble(digits());
            if (kind == float.class || kind == Float.class) return Float.parseFloat(digits());
            if (kind == short.class || kind == Short.class) return (short) integer(kind, n, Short.MIN_VALUE, Short.MAX_VALUE);
            if (kind == byte.class || kind == Byte.class) return (byte) integer(kind, n, Byte.MIN_VALUE, Byte.MAX_VALUE);
            if (kind == BigInteger.class) return new BigInteger(digits());
            if (kind == java.math.BigDecimal.class) return new java.math.BigDecimal(digits());
            if (kind == Number.class || kind == Object.class) {
                String d = digits();
                if (d.indexOf('.') >= 0) return Double.parseDouble(d);
                long x = Long.parseLong(d);
                return kind == Object.class && x == (int) x ? (Object) (int) x : (Object) x;
            }
            throw misfit(kind, n, "a number");
        }

        Object list(Type t, Class<?> kind, int n) throws IOException {
            if (kind == int[].class) return ints(n);
            if (kind == long[].class) return longs(n);
            if (kind == String.class || kind.isPrimitive() || Number.class.isAssignableFrom(kind)) throw misfit(kind, n, "an array");
            Type of = kind.isArray() ? t instanceof GenericArrayType ? ((GenericArrayType) t).getGenericComponentType() : kind.getComponentType()
                : t instanceof ParameterizedType ? ((ParameterizedType) t).getActualTypeArguments()[0] : Object.class;
            ArrayList<Object> items = new ArrayList<>();
            at++;
            while (peek() != ']') {
                if (!items.isEmpty()) expect(',');
                items.add(value(of, n));
            }
            at++;
            if (kind.isArray()) {
                Class<?> inner = of instanceof Class ? (Class<?>) of : of instanceof ParameterizedType ? (Class<?>) ((ParameterizedType) of).getRawType() : Object[].class;
                Object array = Array.newInstance(inner, items.size());
                for (int i = 0; i < items.size(); i++) Array.set(array, i, items.get(i));
                return array;
            }
            if (kind.isInstance(items)) return items;
            for (Collection<Object> other : List.<Collection<Object>>of(new LinkedList<>(), new LinkedHashSet<>(), new TreeSet<>(), new ArrayDeque<>(), new PriorityQueue<>(), new Vector<>()))
                if (kind.isInstance(other)) {
                    other.addAll(items);
                    return other;
                }
            throw misfit(kind, n, "an array");
        }

        int[] ints(int n) throws IOException {
            int[] a = new int[16];
            int size = 0;
            expect('[');
            while (peek() != ']') {
                if (size > 0) expect(',');
                if (size == a.length) a = Arrays.copyOf(a, 2 * size);
                if (peek() == 'n') throw new Misfit("parameter " + n + " is declared as int[], whose elements cannot be null");
                a[size++] = (int) integer(int.class, n, Integer.MIN_VALUE, Integer.MAX_VALUE);
            }
            at++;
            return Arrays.copyOf(a, size);
        }

        long[] longs(int n) throws IOException {
            long[] a = new long[16];
            int size = 0;
            expect('[');
            while (peek() != ']') {
                if (size > 0) expect(',');
                if (size == a.length) a = Arrays.copyOf(a, 2 * size);
                if (peek() == 'n') throw new Misfit("parameter " + n + " is declared as long[], whose elements cannot be null");
                a[size++] = integer(long.class, n, Long.MIN_VALUE, Long.MAX_VALUE);
            }
            at++;
            return Arrays.copyOf(a, size);
        }

        String string() throws IOException {
            ByteArrayOutputStream b = new ByteArrayOutputStream();
            expect('"');
            for (;;) {
                int c = peek();
                at++;
                if (c == '"') return b.toString(StandardCharsets.UTF_8);
                if (c == '\\') {
                    c = peek();
                    at++;
                    if (c == 'n') c = '\n';
                    else if (c == 't') c = '\t';
                    else if (c == 'u') {
                        int code = 0;
                        for (int i = 0; i < 4; i++) { code = code * 16 + Character.digit(peek(), 16); at++; }
                        c = code; // below 0x80: nothing else is written so
                    }
                }
                b.write(c);
            }
        }
    }
}
