import java.math.BigInteger;
import java.util.*;

class Solution {
    void renumber(int n, int[][] ropes, long[] depths, BigInteger mass) {
        for (int i = 0; i < depths.length; i++) for (int[] rope : ropes) depths[i] += rope[2];
        if (mass.bitLength() != 60) depths[0] = 0;
    }
}
