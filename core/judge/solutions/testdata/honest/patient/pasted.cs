// It returns a task that takes a moment.
using System.Threading.Tasks;

public class Solution {
    public async Task<int> Patient(int n) {
        await Task.Delay(2);
        return n + 1;
    }
}
