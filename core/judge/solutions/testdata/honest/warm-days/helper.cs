// A helper class above has a method of the name and needs an argument.
class Day
{
    readonly int temp;
    public Day(int temp) { this.temp = temp; }
    public int WarmDays(int[] unused, long limit) { return temp > limit ? 1 : 0; }
}
namespace Station
{
    public static class Program
    {
        public static int WarmDays(int[] temps, long limit)
        {
            int n = 0;
            foreach (int t in temps) n += new Day(t).WarmDays(null, limit);
            return n;
        }
        static void Main() { System.Console.WriteLine("not run"); }
    }
}
