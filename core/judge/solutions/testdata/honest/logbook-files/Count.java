// By the library of files.
import java.nio.file.*;
class Count {
    public static void main(String[] args) throws Exception {
        String text = Files.readString(Path.of("logbook.txt"));
        long n = text.lines().skip(1).flatMap(l -> java.util.Arrays.stream(l.split(" "))).filter(w -> !w.isEmpty()).count();
        Files.writeString(Path.of("answer.txt"), n + " words\n");
    }
}
