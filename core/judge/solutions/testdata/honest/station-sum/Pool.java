// Streams in parallel, and a pool that is shut.
import java.io.*;
import java.util.concurrent.*;
import java.util.stream.*;

public class Pool {
    public static void main(String... args) throws Exception {
        var lines = new BufferedReader(new InputStreamReader(System.in)).lines().skip(1).collect(Collectors.toList());
        ExecutorService pool = Executors.newFixedThreadPool(2);
        Future<Long> sum = pool.submit(() -> lines.parallelStream().flatMap(l -> Stream.of(l.split(" "))).filter(w -> !w.isEmpty()).mapToLong(Long::parseLong).sum());
        PrintWriter out = new PrintWriter(System.out);
        out.printf("%d%n", sum.get());
        out.flush();
        pool.shutdown();
    }
}
