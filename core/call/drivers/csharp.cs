// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
using System;
using System.Collections;
using System.Collections.Generic;
using System.Globalization;
using System.IO;
using System.Linq;
using System.Numerics;
using System.Reflection;
using System.Runtime.InteropServices;
using System.Text;

public static class ColdDriver
{
    static readonly string[] Names = { @NAME_LIST@ };
    const int Takes = @COUNT@;     // arguments
    const int Changes = @CHANGES@; // the argument that is the result, from 1; 0: what is returned

    struct Timespec { public long Seconds, Nanoseconds; }
    [DllImport("libc", EntryPoint = "clock_gettime")] static extern int ClockGettime(int clock, out Timespec t);
    [DllImport("libc", EntryPoint = "dup")] static extern int Dup(int fd);
    [DllImport("libc", EntryPoint = "dup2")] static extern int Dup2(int old, int to);
    [DllImport("libc", EntryPoint = "open")] static extern int Open(string path, int flags);
    [DllImport("libc", EntryPoint = "read")] static extern IntPtr Read(int fd, byte[] into, IntPtr n);
    [DllImport("libc", EntryPoint = "write")] static extern IntPtr Write(int fd, byte[] data, IntPtr n);

    // An argument or a result that a declaration has no room for.
    sealed class Misfit : Exception { public Misfit(string words) : base(words) { } }

    static readonly int[] streams = { Dup(1), Dup(2) };
    static byte[] mark;

    static void Put(int fd, byte[] data)
    {
        while (data.Length > 0)
        {
            int n = (int)Write(fd, data, (IntPtr)data.Length);
            if (n <= 0) return;
            data = n == data.Length ? new byte[0] : data.Skip(n).ToArray();
        }
    }

    // Each answer begins with the word that only this driver knows, and with how many
    // calls were answered before.
    static string token;
    static long count;
    static void Answer(string text) { Put(3, Encoding.UTF8.GetBytes(token + " " + count + " " + text + "\n")); }

    static void Settle()
    {
        try { Console.Out.Flush(); Console.Error.Flush(); } catch (Exception) { } // the function has closed it
        foreach (int fd in streams) Put(fd, mark);
    }

    static long Now()
    {
        Timespec t;
        ClockGettime(2, out t);
        return t.Seconds * 1000000000 + t.Nanoseconds;
    }

    public static void Main()
    {
        var r = new Reader(Dup(0));
        Dup2(Open("/dev/null", 0), 0);
        token = r.Line().Split(' ')[2];
        mark = Encoding.UTF8.GetBytes("\0" + token + "\n");
        MethodInfo method = Find();
        if (method == null)
        {
            Answer("unserved there is no method " + Names[0] + " with " + Takes + " parameters in @FILE@");
            return;
        }
        Settle();
        Answer("ready");
        var types = method.GetParameters().Select(p => p.ParameterType.IsByRef ? p.ParameterType.GetElementType() : p.ParameterType).ToArray();
        while (r.Peek() == '[')
        {
            long from = r.Total;
            string words = null;
            var args = new object[Takes];
            try
            {
                for (int i = 0; i < Takes; i++)
                {
                    r.Next();
                    r.Parameter = i + 1;
                    args[i] = r.Value(types[i]);
                }
            }
            catch (Misfit e) { words = "misfit 0 " + e.Message; }
            r.EndLine();
            if (words == null)
            {
                if (r.Total - from > 100000) Answer("begin");
                words = Call(method, args);
            }
            Settle();
            Answer(words);
            count++;
        }
        Environment.Exit(0);
    }

    static readonly string[] Types = { @TAKE_LIST@ }; // of the arguments
    static Type owner; // whose object the method is called on

    // Finds the method that takes the arguments with the fewest contradictions; a public one before
    // others, and one of the class that the source is outlined to have before those of others.
    static MethodInfo Find()
    {
        const BindingFlags any = BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Static | BindingFlags.Instance | BindingFlags.FlattenHierarchy;
        MethodInfo best = null;
        int least = int.MaxValue;
        foreach (string name in Names)
            foreach (Type kind in typeof(ColdDriver).Assembly.GetTypes())
            {
                if (kind == typeof(ColdDriver) || kind.DeclaringType == typeof(ColdDriver) || kind.IsInterface) continue;
                foreach (MethodInfo m in kind.GetMethods(any))
                {
                    var takes = m.GetParameters();
                    if (m.Name != name || m.ContainsGenericParameters || takes.Length < Takes || takes.Skip(Takes).Any(p => !p.IsOptional)) continue;
                    int rank = (m.IsPrivate ? 1 : 0) + (kind.FullName == @CLASS_TEXT@ ? 0 : 4) + (kind.IsAbstract && !m.IsStatic ? 40 : 0) + (takes.Length > Takes ? 2 : 0);
                    for (int i = 0; i < Takes; i++) if (!Fits(takes[i].ParameterType, Types[i])) rank += 100;
                    if (rank >= least) continue;
                    least = rank;
                    best = m;
                    owner = kind;
                }
            }
        return best;
    }

    static bool Fits(Type t, string type)
    {
        if (t.IsByRef) t = t.GetElementType();
        t = Nullable.GetUnderlyingType(t) ?? t;
        if (t == typeof(object)) return true;
        if (type.Contains("[]")) return t != typeof(string) && typeof(IEnumerable).IsAssignableFrom(t) && Element(t, type.Substring(0, type.IndexOf("[]")));
        if (t == typeof(string) || t == typeof(StringBuilder) || t == typeof(char[])) return type.StartsWith("text") || type.StartsWith("char");
        if (t == typeof(char)) return type.StartsWith("char");
        if (t == typeof(bool)) return type.StartsWith("bool");
        return (t.IsPrimitive || t == typeof(BigInteger) || t == typeof(decimal)) && !type.StartsWith("text") && !type.StartsWith("bool");
    }

    // Says that the innermost elements of a collection can be of a type.
    static bool Element(Type t, string type)
    {
        while (t != typeof(string) && (t.IsArray || t.IsGenericType && typeof(IEnumerable).IsAssignableFrom(t))) t = t.IsArray ? t.GetElementType() : t.GetGenericArguments()[0];
        return Fits(t, type);
    }

    static string Call(MethodInfo method, object[] args)
    {
        object target = null, result;
        if (!method.IsStatic)
        {
            try { target = Activator.CreateInstance(owner, true); }
            catch (MissingMethodException) { return "misfit 0 " + owner.Name + " has no constructor without parameters, and " + method.Name + " is not static"; }
        }
        long began = Now(), spent;
        try
        {
            var takes = method.GetParameters();
            object[] all = args;
            if (takes.Length > Takes) all = args.Concat(takes.Skip(Takes).Select(p => p.ParameterType.IsArray && !p.HasDefaultValue ? Array.CreateInstance(p.ParameterType.GetElementType(), 0) : p.DefaultValue)).ToArray();
            result = Gathered(method.Invoke(target, all), 0);
            Array.Copy(all, args, Takes);
            spent = Now() - began;
        }
        catch (Misfit e) { return "misfit 0 " + e.Message; }
        catch (Exception e)
        {
            spent = Now() - began;
            if (e is TargetInvocationException) e = e.InnerException;
            var lines = e.ToString().Split('\n').Where(line => !line.Contains("ColdDriver") && !line.Contains("System.Reflection") && !line.Contains("(wrapper"));
            Put(streams[1], Encoding.UTF8.GetBytes("Unhandled Exception:\n" + string.Join("\n", lines.Take(40)) + "\n"));
            return "failed " + spent;
        }
        var text = new StringBuilder("done " + spent + " ");
        try { Give(text, Changes > 0 ? args[Changes - 1] : result, 0); }
        catch (Misfit e) { return "misfit " + spent + " " + e.Message; }
        return text.ToString();
    }

    // Gathers what is computed only when it is read, which belongs to the call.
    static object Gathered(object v, int depth)
    {
        if (v == null || v is string || v is Array || v is IDictionary || !(v is IEnumerable) && !(v is System.Threading.Tasks.Task)) return v;
        if (depth > 500) throw new Misfit("it returned a value that is nested too deeply, or contains itself");
        var task = v as System.Threading.Tasks.Task;
        if (task != null)
        {
            task.GetAwaiter().GetResult();
            var result = v.GetType().GetProperty("Result");
            return Gathered(result == null ? null : result.GetValue(v), depth + 1);
        }
        bool lazy = !(v is ICollection) && !v.GetType().GetInterfaces().Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(ICollection<>));
        var all = new List<object>();
        foreach (object item in (IEnumerable)v)
        {
            object known = item == null || item.GetType().IsPrimitive ? item : Gathered(item, depth + 1);
            lazy |= !ReferenceEquals(known, item);
            all.Add(known);
        }
        return lazy ? all : v;
    }

    static void Give(StringBuilder b, object v, int depth)
    {
        if (depth > 500) throw new Misfit("it returned a value that is nested too deeply, or contains itself");
        if (v == null) b.Append("null");
        else if (v is bool) b.Append((bool)v ? "true" : "false");
        else if (v is double || v is float)
        {
            double x = Convert.ToDouble(v);
            b.Append(double.IsNaN(x) ? "NaN" : double.IsInfinity(x) ? (x < 0 ? "-Infinity" : "Infinity") : x == 0 && 1 / x < 0 ? "-0.0" : x.ToString("R", CultureInfo.InvariantCulture));
        }
        else if (v is string || v is char || v is StringBuilder) Quote(b, v.ToString());
        else if (v is IFormattable && (v.GetType().IsPrimitive || v is BigInteger || v is decimal)) b.Append(((IFormattable)v).ToString(null, CultureInfo.InvariantCulture));
        else if (v is IDictionary)
        {
            string comma = "{";
            foreach (DictionaryEntry e in (IDictionary)v)
            {
                b.Append(comma);
                Quote(b, e.Key.ToString());
                b.Append(':');
                Give(b, e.Value, depth + 1);
                comma = ",";
            }
            b.Append(comma == "{" ? "{}" : "}");
        }
        else if (v is Array && ((Array)v).Rank == 2)
        {
            var grid = (Array)v;
            b.Append('[');
            for (int i = 0; i < grid.GetLength(0); i++)
            {
                b.Append(i > 0 ? ",[" : "[");
                for (int j = 0; j < grid.GetLength(1); j++)
                {
                    if (j > 0) b.Append(',');
                    Give(b, grid.GetValue(i, j), depth + 1);
                }
                b.Append(']');
            }
            b.Append(']');
        }
        else if (v is IEnumerable) GiveAll(b, (IEnumerable)v, depth);
        else if (v.GetType().FullName.StartsWith("System.Tuple`")) GiveAll(b, v.GetType().GetProperties().Where(p => p.Name.StartsWith("Item")).Select(p => p.GetValue(v)), depth);
        else if (!v.GetType().IsPrimitive && v.GetType().Assembly == typeof(ColdDriver).Assembly || v.GetType().FullName.StartsWith("System.ValueTuple`"))
            GiveAll(b, v.GetType().GetFields(BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance).Select(f => f.GetValue(v)), depth);
        else throw new Misfit("it returned a value of type " + v.GetType().Name + ", which is none of the problem's");
    }

    static void GiveAll(StringBuilder b, IEnumerable items, int depth)
    {
        string comma = "[";
        foreach (object item in items)
        {
            b.Append(comma);
            Give(b, item, depth + 1);
            comma = ",";
        }
        b.Append(comma == "[" ? "[]" : "]");
    }

    static void Quote(StringBuilder b, string s)
    {
        b.Append('"');
        foreach (char c in s)
            if (c == '"' || c == '\\') b.Append('\\').Append(c);
            else if (c < ' ') b.Append("\\u" + ((int)c).ToString("x4"));
            else b.Append(c);
        b.Append('"');
    }

    // Reads JSON, each value as the type that it is declared as.
    sealed class Reader
    {
        readonly int fd;
        readonly byte[] piece = new byte[1 << 16];
        int at, end;
        public long Total;
        public int Parameter; // that is being read, from 1

        public Reader(int from) { fd = from; }

        public int Peek()
        {
            if (at == end)
            {
                end = Math.Max(0, (int)Read(fd, piece, (IntPtr)piece.Length));
                at = 0;
                Total += end;
                if (end == 0) return -1;
            }
            return piece[at];
        }

        public int Next()
        {
            int c = Peek();
            if (c >= 0) at++;
            return c;
        }

        public string Line()
        {
            var b = new StringBuilder();
            for (int c; (c = Next()) >= 0 && c != '\n';) b.Append((char)c);
            return b.ToString();
        }

        public void EndLine() { for (int c; (c = Next()) >= 0 && c != '\n';) { } }

        Misfit Lacks(Type t, string given) { return new Misfit("parameter " + Parameter + " is declared as " + t.Name + ", and the problem gives it " + given); }

        string Word()
        {
            var b = new StringBuilder();
            for (int c; (c = Peek()) >= '0' && c <= '9' || c == '-' || c == '+' || c == '.' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z'; at++) b.Append((char)c);
            return b.ToString();
        }

        string Text()
        {
            var b = new List<byte>();
            Next();
            for (;;)
            {
                int c = Next();
                if (c == '"' || c < 0) return Encoding.UTF8.GetString(b.ToArray());
                if (c == '\\')
                {
                    c = Next();
                    if (c == 'n') c = '\n';
                    else if (c == 't') c = '\t';
                    else if (c == 'u')
                    {
                        string code = "";
                        for (int i = 0; i < 4; i++) code += (char)Next();
                        c = Convert.ToInt32(code, 16); // below 0x80: nothing else is written so
                    }
                }
                b.Add((byte)c);
            }
        }

        public object Value(Type t)
        {
            Type inner = Nullable.GetUnderlyingType(t);
            int c = Peek();
            if (c == 'n')
            {
                if (t.IsValueType && inner == null) throw Lacks(t, "null");
                Word();
                return null;
            }
            if (inner != null) t = inner;
            if (c == '[') return List(t);
            if (c == '"')
            {
                string s = Text();
                if (t.IsAssignableFrom(typeof(string))) return s;
                if (t == typeof(char) && s.Length == 1) return s[0];
                if (t == typeof(char[])) return s.ToCharArray();
                if (t == typeof(StringBuilder)) return new StringBuilder(s);
                throw Lacks(t, "a text");
            }
            string word = Word();
            if (word == "true" || word == "false")
            {
                if (t.IsAssignableFrom(typeof(bool))) return word == "true";
                throw Lacks(t, "a bool");
            }
            return Number(t, word);
        }

        object Number(Type t, string word)
        {
            var culture = CultureInfo.InvariantCulture;
            try
            {
                if (t == typeof(int)) return int.Parse(word, culture);
                if (t == typeof(long)) return long.Parse(word, culture);
                if (t == typeof(double)) return word == "Infinity" ? double.PositiveInfinity : word == "-Infinity" ? double.NegativeInfinity : word == "-0.0" ? -0.0 : double.Parse(word, culture);
                if (t == typeof(float)) return float.Parse(word, culture);
                if (t == typeof(BigInteger)) return BigInteger.Parse(word, culture);
                if (t == typeof(decimal)) return decimal.Parse(word, NumberStyles.Float, culture);
                if (t == typeof(object)) return word.Contains('.') ? (object)double.Parse(word, culture) : long.Parse(word, culture);
                if (t.IsPrimitive && t != typeof(bool) && t != typeof(char)) return Convert.ChangeType(long.Parse(word, culture), t);
            }
            catch (FormatException) { }
            catch (OverflowException) { throw Lacks(t, word + ", which it does not hold"); }
            throw Lacks(t, word);
        }

        object List(Type t)
        {
            if (t == typeof(int[])) return Items<int>(typeof(int)).ToArray();
            if (t.IsArray && t.GetArrayRank() == 2) return Grid(t.GetElementType());
            Type of = t.IsArray ? t.GetElementType() : t.IsGenericType ? t.GetGenericArguments()[0] : t == typeof(object) || t == typeof(IEnumerable) ? typeof(object) : null;
            if (of == null) throw Lacks(t, "an array");
            var list = (IList)Activator.CreateInstance(typeof(List<>).MakeGenericType(of));
            foreach (object item in Items<object>(of)) list.Add(item);
            if (t.IsArray)
            {
                Array array = Array.CreateInstance(of, list.Count);
                list.CopyTo(array, 0);
                return array;
            }
            if (t.IsInstanceOfType(list)) return list;
            foreach (Type other in new[] { typeof(HashSet<>), typeof(SortedSet<>), typeof(Queue<>), typeof(Stack<>), typeof(LinkedList<>) })
            {
                Type made = other.MakeGenericType(of);
                if (t.IsAssignableFrom(made)) return Activator.CreateInstance(made, list);
            }
            throw Lacks(t, "an array");
        }

        List<T> Items<T>(Type of)
        {
            var items = new List<T>();
            Next();
            while (Peek() != ']' && Peek() >= 0)
            {
                if (items.Count > 0) Next();
                items.Add((T)Value(of));
            }
            Next();
            return items;
        }

        object Grid(Type of)
        {
            var rows = Items<object>(of.MakeArrayType()).Cast<Array>().ToList();
            int width = rows.Count == 0 ? 0 : rows[0].Length;
            if (rows.Any(row => row.Length != width)) throw new Misfit("parameter " + Parameter + " is declared as " + of.Name + "[,], and the problem gives it rows of different lengths");
            Array grid = Array.CreateInstance(of, rows.Count, width);
            for (int i = 0; i < rows.Count; i++)
                for (int j = 0; j < width; j++) grid.SetValue(rows[i].GetValue(j), i, j);
            return grid;
        }
    }
}
