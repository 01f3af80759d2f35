// A thread with a stack of its own, and a class beside it.
import java.io.*;
import java.util.*;

class Adder implements Runnable {
    public void run() {
        try {
            StreamTokenizer in = new StreamTokenizer(new BufferedReader(new InputStreamReader(System.in)));
            in.nextToken();
            int n = (int) in.nval;
            System.out.println(add(in, n));
        } catch (IOException e) { throw new UncheckedIOException(e); }
    }
    long add(StreamTokenizer in, int n) throws IOException {
        if (n == 0) return 0;
        in.nextToken();
        return (long) in.nval + add(in, n - 1);
    }
}

class Stack {
    public static void main(String[] args) throws Exception {
        Thread t = new Thread(null, new Adder(), "deep", 256 << 20);
        t.start();
        t.join();
    }
}
