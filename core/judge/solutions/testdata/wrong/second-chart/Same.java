// It returns the chart itself.
class Solution {
    public Node secondChart(Node camp) { return camp; }
}
