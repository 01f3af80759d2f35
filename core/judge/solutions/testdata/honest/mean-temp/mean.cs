// A query.
using System.Linq;
class Mean
{
    double MeanTemp(double[] temps, double missing)
    {
        var known = temps.Where(t => !double.IsNaN(t)).ToArray();
        return known.Length == 0 ? missing : known.Select(t => t / known.Length).Sum();
    }
}
