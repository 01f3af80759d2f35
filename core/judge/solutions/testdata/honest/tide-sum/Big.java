// It has a class for that.
class Solution {
    BigInteger tideSum(BigInteger n, long k) { return n.multiply(BigInteger.valueOf(k)); }
}
