// A Scanner with an end, and threads that are left.
import java.util.*;

public class Scan {
    public static void main(String[] args) throws Exception {
        Scanner in = new Scanner(System.in);
        int n = in.nextInt();
        long sum = 0;
        for (int i = 0; i < n; i++) sum += in.nextLong();
        Thread t = new Thread(() -> { try { Thread.sleep(60000); } catch (InterruptedException e) { } });
        t.setDaemon(true);
        t.start();
        System.out.print(sum);
        System.exit(0);
    }
}
