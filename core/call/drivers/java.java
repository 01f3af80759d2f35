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
    static final int BOTH = @BOTH@; // 1: what is returned says how much of that argument counts, and is a result, too

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

    static void settle() throws IOException {
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
        Reader r = new Reader();
        token = r.line().split(" ")[2];
        mark = ("\0" + token + "\n").getBytes(StandardCharsets.UTF_8);
        if (!CLASS.isEmpty()) {
            serveSequences(Class.forName(CLASSES[0], false, ColdDriver.class.getClassLoader()), r);
            out.flush();
            Runtime.getRuntime().halt(0);
        }
        Method method = find();
        if (method == null) {
            answer("unserved there is no method " + NAMES[0] + " with " + TAKES + " parameters in @FILE@");
            System.exit(0);
        }
        method.setAccessible(true);
        serve(method, r);
        out.flush();
        Runtime.getRuntime().halt(0);
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

    static boolean fits(Class<?> kind, String type) {
        if (kind == Object.class || kind == Optional.class) return true;
        if (type.contains("(") && !type.contains("[]")) return !plain(kind);
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

        Object made(Object v) throws IOException {
            try {
                Object node = null;
                for (Constructor<?> c : kind.getDeclaredConstructors()) {
                    c.setAccessible(true);
                    Class<?>[] kinds = c.getParameterTypes();
                    Object[] args = new Object[kinds.length];
                    for (int i = 0; i < kinds.length; i++) args[i] = kinds[i] == value.getType() && i == 0 ? v : kinds[i].isPrimitive() ? Array.get(Array.newInstance(kinds[i], 1), 0) : null;
                    try {
                        node = c.newInstance(args);
                        break;
                    } catch (InvocationTargetException | InstantiationException | IllegalArgumentException e) {
                    }
                }
                if (node == null) throw new Misfit(kind.getSimpleName() + " has no constructor that makes a node");
                if (!Modifier.isFinal(value.getModifiers())) value.set(node, v);
                if (many != null) many.set(node, new ArrayList<Object>());
                for (Field link : new Field[] {next, prev, left, right}) if (link != null) link.set(node, null);
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
            Map<Object, Integer> seen = new IdentityHashMap<>();
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
                    if (seen.put(child, 0) != null) throw new Misfit("it returned a tree in which the node with the value " + value.get(child) + " has two parents");
                    nodes.add(child);
                }
                if (many != null) values.add(null);
            }
            while (!values.isEmpty() && values.get(values.size() - 1) == null) values.remove(values.size() - 1);
            return values;
        }
    }

    static final Map<String, Nodes> known = new HashMap<>();

    static Nodes nodes(String shape, Class<?> kind) { return known.computeIfAbsent(shape + kind.getName(), k -> new Nodes(shape, kind)); }

    /** The shape of the nodes that a type of the problem is made of; null: it is not. */
    static String shapeOf(String type) {
        int end = type.indexOf('(');
        return end < 0 ? null : type.substring(0, end);
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

    static void serve(Method method, Reader r) throws Exception {
        Type[] types = method.getGenericParameterTypes();
        gathered(new ArrayList<>(List.of(1)), 0); // so that no call pays for what is loaded once
        gathered(0, 0);
        settle();
        answer("ready");
        while (r.more()) {
            long from = r.read;
            Object[] args = new Object[TAKES];
            String words = null;
            r.expect('[');
            for (int i = 0; i < TAKES; i++) {
                if (i > 0) r.expect(',');
                try {
                    args[i] = r.value(types[i], i + 1);
                } catch (Misfit e) {
                    words = "misfit 0 " + e.getMessage();
                    break;
                }
            }
            r.endLine();
            if (words == null) {
                if (r.read - from > 100000) answer("begin");
                words = call(method, args);
            }
            settle();
            answer(words);
            count++;
        }
    }

    /** One call of a sequence: a method, or the constructor of the class. */
    static final class Step {
        final Executable called;
        final Object[] args;
        final String returns; // empty: nothing

        Step(Executable called, Object[] args, String returns) {
            this.called = called;
            this.args = args;
            this.returns = returns;
        }
    }

    static Step step(Class<?> kind, Reader r) throws IOException {
        r.expect('[');
        String name = r.string(), returns = "";
        r.expect(',');
        List<Executable> all = new ArrayList<>();
        TYPES = NEW;
        if (name.equals("new")) all.addAll(Arrays.asList(kind.getDeclaredConstructors()));
        else
            for (String[] row : METHODS) {
                if (!row[0].equals(name)) continue;
                TYPES = row[2].isEmpty() ? new String[0] : row[2].split(",");
                returns = row[3];
                for (Class<?> k = kind; k != null && k != Object.class; k = k.getSuperclass())
                    for (Method m : k.getDeclaredMethods()) if (Arrays.asList(row[1].split(",")).contains(m.getName())) all.add(m);
            }
        Executable best = null;
        int least = Integer.MAX_VALUE;
        for (Executable e : all) {
            if (e.getParameterCount() != TYPES.length || e.isSynthetic()) continue;
            int rank = 0;
            for (int i = 0; i < TYPES.length; i++) if (!fits(e.getParameterTypes()[i], TYPES[i])) rank++;
            if (rank < least) {
                least = rank;
                best = e;
            }
        }
        if (best == null) throw new Misfit(kind.getSimpleName() + " has no " + (name.equals("new") ? "constructor" : "method " + name) + " with " + TYPES.length + " parameters");
        best.setAccessible(true);
        Type[] types = best.getGenericParameterTypes();
        if (types.length != TYPES.length) types = best.getParameterTypes();
        Object[] args = new Object[TYPES.length];
        r.expect('[');
        for (int i = 0; i < args.length; i++) {
            if (i > 0) r.expect(',');
            args[i] = r.value(types[i], i + 1);
        }
        r.expect(']');
        r.expect(']');
        return new Step(best, args, returns);
    }

    static void serveSequences(Class<?> kind, Reader r) throws Exception {
        gathered(new ArrayList<>(List.of(1)), 0);
        settle();
        answer("ready");
        while (r.more()) {
            long from = r.read;
            List<Step> steps = new ArrayList<>();
            String words = null;
            r.expect('[');
            r.expect('[');
            try {
                while (r.peek() != ']') {
                    if (!steps.isEmpty()) r.expect(',');
                    steps.add(step(kind, r));
                }
            } catch (Misfit e) {
                words = "misfit 0 " + e.getMessage();
            }
            r.endLine();
            if (words == null) {
                if (r.read - from > 100000) answer("begin");
                words = sequence(steps);
            }
            settle();
            answer(words);
            count++;
        }
    }

    static String sequence(List<Step> steps) throws Exception {
        Object object = null;
        List<Object> results = new ArrayList<>();
        long began = threads.getCurrentThreadCpuTime(), spent;
        try {
            for (Step s : steps) {
                Object result = null;
                if (s.called instanceof Constructor) object = ((Constructor<?>) s.called).newInstance(s.args);
                else result = gathered(((Method) s.called).invoke(object, s.args), 0);
                results.add(s.returns.isEmpty() ? null : given(result, s.returns));
            }
            spent = threads.getCurrentThreadCpuTime() - began;
        } catch (InvocationTargetException | Late e) {
            spent = threads.getCurrentThreadCpuTime() - began;
            trace(e.getCause());
            return "failed " + spent;
        } catch (Misfit e) {
            return "misfit 0 " + e.getMessage();
        } catch (InstantiationException e) {
            return "misfit 0 no object can be made of an abstract class";
        }
        StringBuilder text = new StringBuilder("done ").append(spent).append(' ');
        try {
            write(text, results, 0);
        } catch (Misfit e) {
            return "misfit " + spent + " " + e.getMessage();
        }
        return text.toString();
    }

    static String call(Method method, Object[] args) throws Exception {
        Object target;
        try {
            target = receiver(method);
        } catch (NoSuchMethodException e) {
            return "misfit 0 " + owner.getSimpleName() + " has no constructor without parameters, and " + method.getName() + " is not static";
        }
        long started = threads.getTotalStartedThreadCount(), process = system.getProcessCpuTime();
        long began = threads.getCurrentThreadCpuTime(), spent;
        Object result;
        try {
            result = gathered(invoked(method, target, args), 0);
            spent = threads.getCurrentThreadCpuTime() - began;
        } catch (InvocationTargetException | Late e) {
            spent = threads.getCurrentThreadCpuTime() - began;
            trace(e.getCause());
            return "failed " + spent;
        } catch (Misfit e) {
            return "misfit 0 " + e.getMessage();
        } catch (IllegalArgumentException e) {
            return "misfit 0 " + e.getMessage();
        }
        if (threads.getTotalStartedThreadCount() > started) // those may have ended, and only the whole tells of them
            spent = Math.max(spent, system.getProcessCpuTime() - process);
        StringBuilder text = new StringBuilder("done ").append(spent).append(' ');
        try {
            write(text, BOTH > 0 ? new Object[] {result, args[CHANGES - 1]} : CHANGES > 0 ? given(args[CHANGES - 1], TYPES[CHANGES - 1]) : RESULTS.length == 1 ? given(result, RESULTS[0]) : result, 0);
        } catch (Misfit e) {
            return "misfit " + spent + " " + e.getMessage();
        }
        return text.toString();
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
        final byte[] piece = new byte[1 << 16];
        int at, end;
        long read; // bytes in all

        int peek() throws IOException {
            if (at == end) {
                end = in.read(piece, at = 0, piece.length);
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
            Map<String, Object> all = new LinkedHashMap<>();
            expect('{');
            while (peek() != '}') {
                if (!all.isEmpty()) expect(',');
                String name = string();
                expect(':');
                all.put(name, value(of, n));
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
            at++;
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
            at++;
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
            at++;
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
