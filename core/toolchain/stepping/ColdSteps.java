import java.io.*;
import java.lang.reflect.*;
import java.net.*;
import java.nio.charset.StandardCharsets;
import java.util.*;

// Runs a program for Cold Verdict and tells on descriptor 3 what it does, as the other recorders do: "S line depth
// function" before a line runs, "V depth name value" for what changed, "G name value" for what belongs to a class, "R depth
// value" when a function returns, "X line depth error", "W depth text" for an integer that does not fit, "O text" for
// what is printed. Classes are rewritten by ColdRewrite when they are loaded, so that they call what follows.
public final class ColdSteps {
    static final int TEXT = 80, ELEMENTS = 24, LEVELS = 6;
    static OutputStream told;
    static int left;
    static boolean over, begun; // begun: the line with which it begins has run
    static int from;
    static final List<String[]> waiting = new ArrayList<>(); // variables of a line that may be the one with which it begins
    static Throwable thrown;
    static int line;

    // What is known of the variables of each call that goes on.
    static final List<Map<String, String>> calls = new ArrayList<>();
    static final List<String> names = new ArrayList<>();
    static final Map<Class<?>, List<Field>> classes = new LinkedHashMap<>();
    static final Map<Field, String> fields = new HashMap<>();

    static String clean(String s) {
        return s.replace("\\", "\\\\").replace("\n", "\\n").replace("\t", "\\t").replace("\r", "\\r");
    }

    static void write(String text) {
        if (over || !begun && !text.startsWith("O")) return;
        try {
            told.write((text + "\n").getBytes(StandardCharsets.UTF_8));
            if (--left <= 0) {
                told.write("M\n".getBytes(StandardCharsets.UTF_8));
                over = true;
                told.flush();
            }
        } catch (IOException e) {
            over = true;
        }
    }

    static void flush() {
        try {
            told.flush();
        } catch (IOException e) {
            over = true;
        }
    }

    // What rewritten classes call.

    public static synchronized void enter(Class<?> of, String name) {
        if (over) return;
        calls.add(new HashMap<>());
        names.add(name);
        if (!classes.containsKey(of)) {
            List<Field> list = new ArrayList<>();
            for (Field f : of.getDeclaredFields()) {
                if (Modifier.isStatic(f.getModifiers()) && !f.getName().equals("serialVersionUID") && !f.getName().contains("$") && !f.isSynthetic() && !f.isEnumConstant() && f.trySetAccessible()) list.add(f);
            }
            classes.put(of, list);
        }
    }

    public static synchronized void line(int number) {
        if (over) return;
        if (number == from) begun = true;
        if (begun) for (String[] one : waiting) variable(one[0], one[1]);
        waiting.clear();
        if (!begun) return;
        for (List<Field> list : classes.values()) {
            for (Field f : list) {
                String now;
                try {
                    now = shown(f.get(null), 1);
                } catch (Throwable e) {
                    continue;
                }
                if (now != null && !now.equals(fields.put(f, now))) write("G " + f.getName() + "\t" + clean(now));
            }
        }
        line = number;
        write("S " + number + " " + (calls.size() - 1) + " " + names.get(calls.size() - 1));
    }

    static void variable(String name, String now) {
        if (now == null) return;
        if (!begun) {
            waiting.add(new String[] {name, now});
            return;
        }
        int depth = calls.size() - 1;
        if (!now.equals(calls.get(depth).put(name, now))) write("V " + depth + " " + name + "\t" + clean(now));
    }

    public static synchronized void local(int v, String name) {
        if (!over) variable(name, Integer.toString(v));
    }

    public static synchronized void local(long v, String name) {
        if (!over) variable(name, Long.toString(v));
    }

    public static synchronized void local(float v, String name) {
        if (!over) variable(name, Float.toString(v));
    }

    public static synchronized void local(double v, String name) {
        if (!over) variable(name, Double.toString(v));
    }

    public static synchronized void local(boolean v, String name) {
        if (!over) variable(name, Boolean.toString(v));
    }

    public static synchronized void local(char v, String name) {
        if (!over) variable(name, "'" + v + "'");
    }

    public static synchronized void local(Object v, String name) {
        if (over) return;
        String now = shown(v, 1);
        if (!name.equals("this") || now != null && !now.equals("{}")) variable(name, now);
    }

    static void leave(String value) {
        int depth = calls.size() - 1;
        write("R " + depth + " " + (value == null ? "" : clean(value)));
        calls.remove(depth);
        names.remove(depth);
        if (depth == 0) flush(); // who called it may end the machine at any time
    }

    public static synchronized void returned() {
        if (!over) leave(null);
    }

    public static synchronized void returned(int v) {
        if (!over) leave(Integer.toString(v));
    }

    public static synchronized void returned(long v) {
        if (!over) leave(Long.toString(v));
    }

    public static synchronized void returned(float v) {
        if (!over) leave(Float.toString(v));
    }

    public static synchronized void returned(double v) {
        if (!over) leave(Double.toString(v));
    }

    public static synchronized void returned(boolean v) {
        if (!over) leave(Boolean.toString(v));
    }

    public static synchronized void returned(char v) {
        if (!over) leave("'" + v + "'");
    }

    public static synchronized void returned(Object v) {
        if (!over) leave(shown(v, 1));
    }

    public static synchronized void thrown(Throwable e) {
        if (over) return;
        if (e != thrown) {
            thrown = e;
            String message = e.getMessage();
            write("X " + line + " " + (calls.size() - 1) + " " + clean(e.getClass().getSimpleName() + (message == null ? "" : ": " + message)));
            flush();
        }
        leave(null);
    }

    static synchronized void wraps(String a, String sign, String b, String type) {
        if (!over) write("W " + (calls.size() - 1) + " " + a + " " + sign + " " + b + " does not fit in " + type);
    }

    public static int add(int a, int b) {
        int c = a + b;
        if (((a ^ c) & (b ^ c)) < 0) wraps("" + a, "+", "" + b, "int");
        return c;
    }

    public static int subtract(int a, int b) {
        int c = a - b;
        if (((a ^ b) & (a ^ c)) < 0) wraps("" + a, "-", "" + b, "int");
        return c;
    }

    public static int multiply(int a, int b) {
        long c = (long) a * b;
        if (c != (int) c) wraps("" + a, "*", "" + b, "int");
        return (int) c;
    }

    public static long add(long a, long b) {
        long c = a + b;
        if (((a ^ c) & (b ^ c)) < 0) wraps("" + a, "+", "" + b, "long");
        return c;
    }

    public static long subtract(long a, long b) {
        long c = a - b;
        if (((a ^ b) & (a ^ c)) < 0) wraps("" + a, "-", "" + b, "long");
        return c;
    }

    public static long multiply(long a, long b) {
        long high = Math.multiplyHigh(a, b), low = a * b;
        if (high != low >> 63) wraps("" + a, "*", "" + b, "long");
        return low;
    }

    // A value as text, shortened; null: it is not shown. Nothing of the person's own is called.

    static String quoted(CharSequence s) {
        int n = s.length();
        return "\"" + (n > TEXT ? s.subSequence(0, TEXT) + "\"... (" + n + ")" : s + "\"");
    }

    static String row(String open, Iterator<?> all, int size, String close, int level) {
        StringBuilder out = new StringBuilder(open);
        int n = 0;
        for (; n < ELEMENTS && all.hasNext(); n++) {
            String one = shown(all.next(), level + 1);
            out.append(n > 0 ? ", " : "").append(one == null ? "..." : one);
        }
        if (n < size) out.append(n > 0 ? ", " : "").append("... (").append(size).append(")");
        return out.append(close).toString();
    }

    static List<Field> fieldsOf(Object v) {
        List<Field> list = new ArrayList<>();
        for (Class<?> c = v.getClass(); c != null && c.getClassLoader() instanceof Loader && ((Loader) c.getClassLoader()).own(c); c = c.getSuperclass()) {
            int at = 0;
            for (Field f : c.getDeclaredFields()) {
                if (!Modifier.isStatic(f.getModifiers()) && !f.isSynthetic() && f.trySetAccessible()) list.add(at++, f);
            }
        }
        return list;
    }

    static String shown(Object v, int level) {
        if (v == null) return "null";
        if (v instanceof CharSequence && v.getClass().getName().startsWith("java.lang.")) return quoted((CharSequence) v);
        if (v instanceof Character) return "'" + v + "'";
        if (v instanceof Number && v.getClass().getName().startsWith("java.") || v instanceof Boolean) return v.toString();
        if (level > LEVELS) return "...";
        if (v.getClass().isArray()) {
            int size = Array.getLength(v);
            return row("[", new Iterator<Object>() {
                int at = 0;

                public boolean hasNext() {
                    return at < size;
                }

                public Object next() {
                    return Array.get(v, at++);
                }
            }, size, "]", level);
        }
        String name = v.getClass().getName();
        if (v instanceof Enum) return ((Enum<?>) v).name();
        if (name.startsWith("java.util.")) {
            try {
                if (v instanceof Collection) {
                    boolean set = v instanceof Set;
                    Collection<?> c = (Collection<?>) v;
                    return row(set ? "{" : "[", c.iterator(), c.size(), set ? "}" : "]", level);
                }
                if (v instanceof Map) {
                    Map<?, ?> m = (Map<?, ?>) v;
                    return row("{", m.entrySet().iterator(), m.size(), "}", level);
                }
                if (v instanceof Map.Entry) {
                    Map.Entry<?, ?> e = (Map.Entry<?, ?>) v;
                    return shown(e.getKey(), level + 1) + ": " + shown(e.getValue(), level + 1);
                }
                if (v instanceof Optional) return ((Optional<?>) v).map(x -> shown(x, level)).orElse("nothing");
                if (v instanceof BitSet) return v.toString();
            } catch (RuntimeException e) { // it changes at this moment
                return null;
            }
            return null;
        }
        if (name.startsWith("java.time.")) return v.toString();
        if (name.startsWith("kotlin.ranges.") || name.equals("kotlin.Pair") || name.equals("kotlin.Triple")) return v.toString();
        if (v instanceof List && name.startsWith("kotlin.")) return row("[", ((List<?>) v).iterator(), ((List<?>) v).size(), "]", level);
        if (!(v.getClass().getClassLoader() instanceof Loader) || !((Loader) v.getClass().getClassLoader()).own(v.getClass())) return null;
        if (v.getClass().isSynthetic() || name.contains("$$Lambda")) return null;
        StringBuilder out = new StringBuilder("{");
        for (Field f : fieldsOf(v)) {
            String one;
            try {
                one = shown(f.get(v), level + 1);
            } catch (IllegalAccessException e) {
                continue;
            }
            if (one == null) continue;
            out.append(out.length() > 1 ? ", " : "").append(f.getName()).append(": ").append(one);
            if (out.length() > 2000) break;
        }
        return out.append("}").toString();
    }

    // Loads classes, and rewrites those of the person's own.
    static final class Loader extends URLClassLoader {
        final String source; // name of the person's file
        final Set<String> own = new HashSet<>();

        Loader(URL root, String source) {
            super(new URL[] {root}, ColdSteps.class.getClassLoader());
            this.source = source;
        }

        boolean own(Class<?> c) {
            return own.contains(c.getName());
        }

        @Override
        protected Class<?> findClass(String name) throws ClassNotFoundException {
            byte[] code;
            try (InputStream in = getResourceAsStream(name.replace('.', '/') + ".class")) {
                if (in == null) throw new ClassNotFoundException(name);
                code = in.readAllBytes();
            } catch (IOException e) {
                throw new ClassNotFoundException(name, e);
            }
            byte[] made = ColdRewrite.of(code, source);
            if (made != null) {
                own.add(name);
                code = made;
            }
            return defineClass(name, code, 0, code.length);
        }
    }

    public static void main(String[] args) throws Throwable {
        told = new BufferedOutputStream(new FileOutputStream("/dev/fd/3"), 1 << 16);
        left = Integer.parseInt(System.getenv("COLD_STEPS_MOST"));
        from = Integer.parseInt(System.getenv("COLD_STEPS_FROM"));
        begun = from == 0;
        PrintStream out = System.out;
        System.setOut(new PrintStream(new OutputStream() {
            @Override
            public void write(int b) {
                write(new byte[] {(byte) b}, 0, 1);
            }

            @Override
            public void write(byte[] b, int from, int n) {
                synchronized (ColdSteps.class) {
                    if (!over) {
                        ColdSteps.write("O " + clean(new String(b, from, n, StandardCharsets.UTF_8)));
                        ColdSteps.flush();
                    }
                }
                out.write(b, from, n);
                out.flush();
            }
        }, true));
        Runtime.getRuntime().addShutdownHook(new Thread(() -> {
            synchronized (ColdSteps.class) {
                flush();
                over = true;
            }
        }));
        File root = new File(args[0]);
        String main = args[1];
        if (main.equals("-")) {
            try (java.util.jar.JarFile jar = new java.util.jar.JarFile(root)) {
                main = jar.getManifest().getMainAttributes().getValue("Main-Class");
            }
        }
        Loader loader = new Loader(root.toURI().toURL(), args[2]);
        Thread.currentThread().setContextClassLoader(loader);
        Method begin = loader.loadClass(main).getMethod("main", String[].class);
        begin.setAccessible(true);
        String[] rest = Arrays.copyOfRange(args, 3, args.length);
        try {
            begin.invoke(null, (Object) rest);
        } catch (InvocationTargetException e) {
            throw e.getCause();
        }
    }
}
