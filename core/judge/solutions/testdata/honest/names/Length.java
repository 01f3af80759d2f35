// Code points of a text, in the default encoding.
import java.util.*;
class Length {
    public static void main(String[] args) {
        Scanner in = new Scanner(System.in);
        while (in.hasNextLine()) {
            String line = in.nextLine();
            System.out.println(line.codePointCount(0, line.length()) + " " + line);
        }
    }
}
