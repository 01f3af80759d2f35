// It returns the chart itself.
public class Solution {
    public Node SecondChart(Node camp) { return camp; }
}
