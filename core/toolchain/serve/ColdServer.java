import java.io.*;
import java.lang.reflect.*;
import java.net.*;
import java.nio.charset.StandardCharsets;
import java.util.*;

// Runs a program on many inputs for Cold Verdict, in one virtual machine: each run has classes of its own, and
// standard streams of its own. What goes in and out is described in python.py. A run that cannot be ended, or that
// leaves threads behind, ends the machine.
public class ColdServer {
    static final int KEPT = 65536; // of errors

    static class Ended extends SecurityException {
        final int status;

        Ended(int status) {
            super("exit");
            this.status = status;
        }
    }

    // Counts what does not fit, and keeps it out.
    static class Kept extends ByteArrayOutputStream {
        final int most;
        boolean full;

        Kept(int most) {
            this.most = most;
        }

        @Override
        public synchronized void write(int b) {
            if (count < most) super.write(b);
            else full = true;
        }

        @Override
        public synchronized void write(byte[] b, int from, int n) {
            int fits = Math.min(n, most - count);
            super.write(b, from, fits);
            full |= fits < n;
        }
    }

    // Makes classes anew of what was read once.
    static class Classes extends ClassLoader {
        static final Map<String, byte[]> read = new HashMap<>();
        final URLClassLoader files;

        Classes(URLClassLoader files) {
            super(files.getParent());
            this.files = files;
        }

        @Override
        protected Class<?> findClass(String name) throws ClassNotFoundException {
            byte[] text;
            synchronized (read) {
                text = read.get(name);
                if (text == null) {
                    try (InputStream in = getResourceAsStream(name.replace('.', '/') + ".class")) {
                        if (in == null) throw new ClassNotFoundException(name);
                        ByteArrayOutputStream all = new ByteArrayOutputStream();
                        byte[] piece = new byte[1 << 16];
                        for (int n; (n = in.read(piece)) > 0;) all.write(piece, 0, n);
                        read.put(name, text = all.toByteArray());
                    } catch (IOException e) {
                        throw new ClassNotFoundException(name, e);
                    }
                }
            }
            return defineClass(name, text, 0, text.length);
        }

        @Override
        protected URL findResource(String name) {
            return files.findResource(name);
        }

        @Override
        protected Enumeration<URL> findResources(String name) throws IOException {
            return files.findResources(name);
        }
    }

    static volatile ThreadGroup group; // of the run
    static volatile Integer asked;     // the status that it asked to end with

    @SuppressWarnings({"removal", "deprecation"})
    static void watchExits() {
        System.setSecurityManager(new SecurityManager() {
            @Override
            public void checkExit(int status) {
                if (group != null && group.parentOf(Thread.currentThread().getThreadGroup())) {
                    if (asked == null) asked = status;
                    throw new Ended(status);
                }
            }

            @Override
            public void checkPermission(java.security.Permission p) {}

            @Override
            public void checkPermission(java.security.Permission p, Object context) {}
        });
    }

    static String line(InputStream in) throws IOException {
        StringBuilder text = new StringBuilder();
        int c;
        while ((c = in.read()) >= 0 && c != '\n') text.append((char) c);
        return c < 0 && text.length() == 0 ? null : text.toString();
    }

    static boolean endedByExit(Throwable e) {
        for (int depth = 0; e != null && depth < 20; e = e.getCause(), depth++) if (e instanceof Ended) return true;
        return false;
    }

    public static void main(String[] args) throws Exception {
        InputStream in = new BufferedInputStream(new FileInputStream(FileDescriptor.in), 1 << 16);
        OutputStream answers = new BufferedOutputStream(new FileOutputStream(FileDescriptor.out), 1 << 16);
        List<URL> places = new ArrayList<>();
        String first = null;
        for (String place : args[0].split(File.pathSeparator)) {
            places.add(new File(place).toURI().toURL());
            first = place;
        }
        String name = args[1];
        if (name.equals("-")) {
            try (java.util.jar.JarFile jar = new java.util.jar.JarFile(first)) {
                name = jar.getManifest().getMainAttributes().getValue("Main-Class");
            }
        }
        String[] rest = Arrays.copyOfRange(args, 2, args.length);
        String[] limits = line(in).split(" ");
        long wall = Long.parseLong(limits[0]);
        int most = (int) Math.min(Integer.MAX_VALUE - 16, Long.parseLong(limits[2]));
        watchExits();
        URLClassLoader files = new URLClassLoader(places.toArray(new URL[0]), ClassLoader.getSystemClassLoader().getParent());
        for (String size; (size = line(in)) != null;) {
            byte[] text = new byte[Integer.parseInt(size.trim())];
            for (int at = 0; at < text.length;) {
                int n = in.read(text, at, text.length - at);
                if (n < 0) return;
                at += n;
            }
            Kept out = new Kept(most), errors = new Kept(KEPT);
            PrintStream printed = new PrintStream(out), complained = new PrintStream(errors, true);
            System.setIn(new ByteArrayInputStream(text));
            System.setOut(printed);
            System.setErr(complained);
            asked = null;
            ThreadGroup own = new ThreadGroup("main");
            group = own;
            long began = java.lang.management.ManagementFactory.getThreadMXBean().isCurrentThreadCpuTimeSupported() ? cpu() : 0;
            int[] status = {0};
            Classes loader = new Classes(files);
            String main = name;
            Thread thread = new Thread(own, () -> {
                try {
                    Method method = Class.forName(main, true, loader).getDeclaredMethod("main", String[].class);
                    method.setAccessible(true);
                    method.invoke(null, (Object) rest);
                } catch (Throwable e) {
                    Throwable why = e instanceof InvocationTargetException ? e.getCause() : e;
                    if (!endedByExit(why)) {
                        status[0] = 1;
                        complained.print("Exception in thread \"main\" ");
                        why.printStackTrace(complained);
                    }
                }
            }, "main");
            thread.setContextClassLoader(loader);
            thread.start();
            long until = System.nanoTime() + wall * 1_000_000;
            thread.join(wall);
            Thread[] others = new Thread[64];
            for (int i = 0, n = own.enumerate(others, true); i < n; i++) {
                if (others[i].isDaemon() || asked != null) continue;
                others[i].join(Math.max(1, (until - System.nanoTime()) / 1_000_000));
            }
            if (own.activeCount() > 0 || out.full) Runtime.getRuntime().halt(75); // nothing here can end it
            group = null;
            printed.flush();
            if (asked != null) status[0] = asked & 255;
            long spent = (cpu() - began) / 1000;
            answers.write((status[0] + " " + Math.max(0, spent) + " 0 " + out.size() + " " + errors.size() + "\n").getBytes(StandardCharsets.US_ASCII));
            out.writeTo(answers);
            errors.writeTo(answers);
            answers.flush();
        }
        Runtime.getRuntime().halt(0);
    }

    // The processor time of all threads.
    static long cpu() {
        java.lang.management.OperatingSystemMXBean system = java.lang.management.ManagementFactory.getOperatingSystemMXBean();
        return system instanceof com.sun.management.OperatingSystemMXBean ? ((com.sun.management.OperatingSystemMXBean) system).getProcessCpuTime() : 0;
    }
}
