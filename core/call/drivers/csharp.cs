// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
#pragma warning disable
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
    static readonly bool both = @BOTH@ > 0; // what is returned is a result, too
    static readonly int nodeOf = @NODE_OF@, copyOf = @COPY_OF@, placesOf = @PLACES_OF@; // the argument of which a node, or a copy, is returned, or others are nodes, from 1; 0: none

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

    // The mark stands where the call ended: what it returned is written behind it.
    static bool settled;
    static void Settle()
    {
        if (settled) return;
        settled = true;
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
        var r = reader = new Reader(Dup(0));
        Dup2(Open("/dev/null", 0), 0);
        token = r.Line().Split(' ')[2];
        mark = Encoding.UTF8.GetBytes("\0" + token + "\n");
        Served served;
        if (Class != "") served = new OfClass(typeof(ColdDriver).Assembly.GetType(@CLASS_TEXT@));
        else
        {
            MethodInfo method = Find();
            if (method == null)
            {
                Answer("unserved there is no method " + Names[0] + " with " + Takes + " parameters in @FILE@");
                return;
            }
            served = new OfFunction(method);
        }
        Settle();
        Answer("ready");
        while (r.Peek() == '[')
        {
            long from = r.Total;
            string words = null;
            settled = false;
            try { served.Read(r); }
            catch (Misfit e) { words = "misfit 0 " + e.Message; }
            r.EndLine();
            if (words == null)
            {
                if (r.Total - from > 100000) Answer("begin");
                words = served.Answer();
            }
            Settle();
            Answer(words);
            count++;
        }
        Environment.Exit(0);
    }

    static Reader reader;

    // Asks the judge what a function returns that the site provides.
    public static object Asked(string name, Type kind, params object[] args)
    {
        var text = new StringBuilder("asks " + name + " ");
        Give(text, args, 0);
        Answer(text.ToString());
        reader.Parameter = Types.Length + 1;
        object given = reader.Value(kind);
        reader.EndLine();
        return given;
    }

    static string[] Types = { @TAKE_LIST@ }; // of the arguments
    const string Class = @CLASS@; // whose objects are made and called; empty: it is a function
    static readonly string[] New = { @NEW_LIST@ }; // types of what an object is made with
    static readonly string[][] Methods = @METHOD_ARRAYS@; // of the class: our name, its names, types of the arguments, and of the result
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

    static bool IsPlace(string type) { return type.StartsWith("node of "); }

    static bool Fits(Type t, string type)
    {
        if (t.IsByRef) t = t.GetElementType();
        t = Nullable.GetUnderlyingType(t) ?? t;
        if (t == typeof(object)) return true;
        if (type.StartsWith("map(")) return typeof(IDictionary).IsAssignableFrom(t) || t.IsGenericType && t.GetGenericTypeDefinition() == typeof(IDictionary<,>);
        if (type.Contains("(") && !type.Contains("[]") || IsPlace(type)) return Own(t);
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

    static readonly string[] Results = { @RESULT_LIST@ }; // types of what is returned

    // How nodes of a shape are made: a class, and its fields or properties by our names.
    sealed class Nodes
    {
        public readonly string Shape;
        public readonly Type Kind;
        readonly MemberInfo value, next, prev, left, right, many;

        public Nodes(string shape, Type kind)
        {
            Shape = shape;
            Kind = kind;
            value = Member("val", "value", "data", "key", "item");
            bool list = shape.StartsWith("list"), tree = shape == "tree";
            next = list ? Member("next", "nxt") : null;
            prev = shape == "list2" ? Member("prev", "previous") : null;
            left = tree ? Member("left") : null;
            right = tree ? Member("right") : null;
            many = list || tree ? null : shape == "nary" ? Member("children", "kids") : Member("neighbors", "neighbours", "adjacent");
        }

        MemberInfo Member(params string[] names)
        {
            const BindingFlags any = BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance;
            foreach (string name in names)
            {
                MemberInfo found = Kind.GetFields(any).FirstOrDefault(f => f.Name.Equals(name, StringComparison.OrdinalIgnoreCase))
                    ?? (MemberInfo)Kind.GetProperties(any).FirstOrDefault(p => p.Name.Equals(name, StringComparison.OrdinalIgnoreCase));
                if (found != null) return found;
            }
            throw new Misfit(Kind.Name + " is declared where the problem has nodes, and has no field " + names[0]);
        }

        static Type TypeOf(MemberInfo m) { return m is FieldInfo ? ((FieldInfo)m).FieldType : ((PropertyInfo)m).PropertyType; }
        static object Get(MemberInfo m, object of) { return m is FieldInfo ? ((FieldInfo)m).GetValue(of) : ((PropertyInfo)m).GetValue(of, null); }
        static void Set(MemberInfo m, object of, object to)
        {
            if (m is FieldInfo) ((FieldInfo)m).SetValue(of, to);
            else ((PropertyInfo)m).SetValue(of, to, null);
        }

        ConstructorInfo known; // that makes nodes
        object[] usual; // arguments
        bool takesValue; // the first of them is the value

        // A node that a constructor makes; null: it does not.
        object Attempt(ConstructorInfo c, object v)
        {
            var args = (object[])usual.Clone();
            if (takesValue) args[0] = v;
            try { return c.Invoke(args); }
            catch (TargetInvocationException) { return null; }
        }

        object Made(object v)
        {
            object node = known == null ? null : Attempt(known, v);
            if (node == null)
                foreach (var c in Kind.GetConstructors(BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance))
                {
                    var takes = c.GetParameters();
                    takesValue = takes.Length > 0 && takes[0].ParameterType == TypeOf(value);
                    usual = takes.Select(p => p.ParameterType.IsValueType ? Activator.CreateInstance(p.ParameterType) : null).ToArray();
                    known = c;
                    if ((node = Attempt(c, v)) != null) break;
                }
            if (node == null) throw new Misfit(Kind.Name + " has no constructor that makes a node");
            Set(value, node, v);
            if (many != null)
            {
                Type of = TypeOf(many);
                Set(many, node, of.IsArray ? Array.CreateInstance(Kind, 0) : Activator.CreateInstance(typeof(List<>).MakeGenericType(Kind)));
            }
            if (next != null) Set(next, node, null);
            if (prev != null) Set(prev, node, null);
            if (left != null) Set(left, node, null);
            if (right != null) Set(right, node, null);
            return node;
        }

        IEnumerable<object> Of(object node)
        {
            var all = Get(many, node) as IEnumerable;
            return all == null ? new object[0] : all.Cast<object>();
        }

        public object Take(Reader r)
        {
            long cycle = -1;
            bool circle = r.Peek() == '{';
            if (circle) r.Pass("{\"list\":");
            if (r.Peek() == 'n') return r.Value(typeof(object));
            var values = new List<object>();
            Type held = Shape == "graph" ? typeof(int[]) : TypeOf(value);
            r.Next();
            while (r.Peek() != ']' && r.Peek() >= 0)
            {
                if (values.Count > 0) r.Next();
                values.Add(r.Peek() == 'n' ? r.Value(typeof(object)) : r.Value(held));
            }
            r.Next();
            if (circle)
            {
                r.Pass(",\"cycle\":");
                cycle = (long)r.Value(typeof(long));
                r.Next();
            }
            return Built(values, (int)cycle);
        }

        object Built(List<object> values, int cycle)
        {
            if (values.Count == 0) return null;
            var nodes = new List<object>();
            if (next != null)
            {
                foreach (object v in values) nodes.Add(Made(v));
                for (int i = 0; i < nodes.Count; i++)
                {
                    object other = i + 1 < nodes.Count ? nodes[i + 1] : cycle >= 0 ? nodes[cycle] : null;
                    Set(next, nodes[i], other);
                    if (prev != null && other != null) Set(prev, other, nodes[i]);
                }
                return nodes[0];
            }
            if (Shape == "graph")
            {
                for (int i = 1; i <= values.Count; i++) nodes.Add(Made(i));
                for (int i = 0; i < nodes.Count; i++) foreach (int other in (int[])values[i]) ((IList)Get(many, nodes[i])).Add(nodes[other - 1]);
                return nodes[0];
            }
            nodes.Add(Made(values[0]));
            int at = many == null ? 1 : 2;
            for (int i = 0; i < nodes.Count; i++)
            {
                if (many != null)
                {
                    for (; at < values.Count && values[at] != null; at++)
                    {
                        nodes.Add(Made(values[at]));
                        ((IList)Get(many, nodes[i])).Add(nodes[nodes.Count - 1]);
                    }
                    at++;
                }
                else foreach (var side in new[] { left, right })
                {
                    if (at < values.Count && values[at] != null)
                    {
                        nodes.Add(Made(values[at]));
                        Set(side, nodes[i], nodes[nodes.Count - 1]);
                    }
                    at++;
                }
            }
            return nodes[0];
        }

        // Identity tells nodes apart, whatever they say of being equal.
        sealed class Same : IEqualityComparer<object>
        {
            bool IEqualityComparer<object>.Equals(object a, object b) { return ReferenceEquals(a, b); }
            int IEqualityComparer<object>.GetHashCode(object o) { return System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(o); }
        }

        // What the nodes hold that a node leads to, as cases write it.
        public object Given(object node)
        {
            var seen = visited = new Dictionary<object, int>(new Same());
            var values = new List<object>();
            var nodes = new List<object>();
            if (next != null)
            {
                object before = null;
                for (; node != null; before = node, node = Get(next, node))
                {
                    if (seen.ContainsKey(node)) return new System.Collections.Specialized.OrderedDictionary { { "list", values }, { "cycle", seen[node] } };
                    if (prev != null && !ReferenceEquals(Get(prev, node), before)) throw new Misfit("it returned a list in which the link backwards of node " + values.Count + ", counted from 0, does not lead to the node before it");
                    seen[node] = values.Count;
                    values.Add(Get(value, node));
                }
                return values;
            }
            nodes.Add(node);
            seen[node] = 0;
            if (Shape == "graph")
            {
                for (int i = 0; i < nodes.Count; i++)
                    foreach (object other in Of(nodes[i]))
                        if (!seen.ContainsKey(other)) { seen[other] = 0; nodes.Add(other); }
                nodes = nodes.OrderBy(one => Convert.ToInt64(Get(value, one))).ToList();
                for (int i = 0; i < nodes.Count; i++) seen[nodes[i]] = i + 1;
                foreach (object one in nodes) values.Add(Of(one).Select(other => seen[other]).ToList());
                return values;
            }
            values.Add(Get(value, node));
            if (many != null) values.Add(null);
            for (int i = 0; i < nodes.Count; i++)
            {
                foreach (object child in many != null ? Of(nodes[i]) : new[] { Get(left, nodes[i]), Get(right, nodes[i]) })
                {
                    values.Add(child == null ? null : Get(value, child));
                    if (child == null) continue;
                    if (seen.ContainsKey(child)) throw new Misfit("it returned a tree in which the node with the value " + Get(value, child) + " has two parents");
                    seen[child] = values.Count - 1;
                    nodes.Add(child);
                }
                if (many != null) values.Add(null);
            }
            while (values.Count > 0 && values[values.Count - 1] == null) values.RemoveAt(values.Count - 1);
            return values;
        }
    }

    static Dictionary<object, int> visited = new Dictionary<object, int>(); // the places of the nodes of what was written last
    static readonly Dictionary<string, Nodes> known = new Dictionary<string, Nodes>();

    static Nodes NodesOf(string shape, Type kind)
    {
        string key = shape + kind.FullName;
        if (!known.ContainsKey(key)) known[key] = new Nodes(shape, kind);
        return known[key];
    }

    // The shape of the nodes that a type of the problem is made of; null: it is not.
    static string ShapeOf(string type)
    {
        int end = type.IndexOf('(');
        return end < 0 || type.StartsWith("map(") ? null : type.Substring(0, end);
    }

    static bool Own(Type t) { return t.Assembly == typeof(ColdDriver).Assembly && !t.IsArray; }

    // Makes values of nodes in a result, whose type says where they are.
    static object Given(object v, string type)
    {
        string shape = ShapeOf(type);
        if (shape == null) return v;
        if (v == null) return type.EndsWith("?") ? null : type.EndsWith("[]") ? v : new List<object>();
        if (v is IEnumerable && !(v is string)) return ((IEnumerable)v).Cast<object>().Select(one => Given(one, type.EndsWith("[]") ? type.Substring(0, type.Length - 2) : type)).ToList();
        if (!Own(v.GetType())) throw new Misfit("it returned a " + v.GetType().Name + " where a node was expected");
        return NodesOf(shape, v.GetType()).Given(v);
    }

    // What each line of the input asks for, and how it is made.
    abstract class Served
    {
        protected readonly List<long> times = new List<long>(); // of what was done, in nanoseconds

        public abstract void Read(Reader r);
        protected abstract void Make(StringBuilder text); // and writes what came of it

        protected object Measured(Func<object> work)
        {
            long began = Now();
            try { return work(); }
            catch (Misfit) { throw; }
            catch (Exception e) { throw new Threw(e is TargetInvocationException ? e.InnerException : e); }
            finally { times.Add(Now() - began); }
        }

        public string Answer()
        {
            var text = new StringBuilder();
            times.Clear();
            try { Make(text); }
            catch (Misfit e) { return "misfit " + times.Sum() + " " + e.Message; }
            catch (Threw e)
            {
                var lines = e.What.ToString().Split('\n').Where(line => !line.Contains("ColdDriver") && !line.Contains("System.Reflection") && !line.Contains("(wrapper"));
                Put(streams[1], Encoding.UTF8.GetBytes("Unhandled Exception:\n" + string.Join("\n", lines.Take(40)) + "\n"));
                return "failed " + times.Sum() + " " + times.Count;
            }
            return "done " + times.Sum() + " " + text;
        }
    }

    // What the source threw.
    sealed class Threw : Exception
    {
        public readonly Exception What;
        public Threw(Exception what) { What = what; }
    }

    sealed class OfFunction : Served
    {
        readonly MethodInfo method;
        readonly Type[] types;
        object[] args;
        Dictionary<object, int> originals;

        public OfFunction(MethodInfo method)
        {
            this.method = method;
            types = method.GetParameters().Select(p => p.ParameterType.IsByRef ? p.ParameterType.GetElementType() : p.ParameterType).ToArray();
        }

        public override void Read(Reader r)
        {
            args = new object[Takes];
            var places = new int[Takes];
            for (int i = 0; i < Takes; i++)
            {
                r.Next();
                r.Parameter = i + 1;
                places[i] = -1;
                if (!IsPlace(Types[i])) args[i] = r.Value(types[i]);
                else if (r.Peek() == 'n') r.Pass("null");
                else places[i] = r.Int();
            }
            int original = Math.Max(Math.Max(nodeOf, copyOf), placesOf);
            originals = new Dictionary<object, int>();
            if (original > 0 && args[original - 1] != null)
            {
                Given(args[original - 1], Types[original - 1]);
                originals = visited;
            }
            foreach (var one in originals)
                for (int i = 0; i < Takes; i++) if (places[i] == one.Value) args[i] = one.Key;
        }

        protected override void Make(StringBuilder text)
        {
            object target = null;
            if (!method.IsStatic)
            {
                try { target = Activator.CreateInstance(owner, true); }
                catch (MissingMethodException) { throw new Misfit(owner.Name + " has no constructor without parameters, and " + method.Name + " is not static"); }
            }
            object result = Measured(() =>
            {
                var takes = method.GetParameters();
                object[] all = args;
                if (takes.Length > Takes) all = args.Concat(takes.Skip(Takes).Select(p => p.ParameterType.IsArray && !p.HasDefaultValue ? Array.CreateInstance(p.ParameterType.GetElementType(), 0) : p.DefaultValue)).ToArray();
                object given = Gathered(method.Invoke(target, all), 0);
                Array.Copy(all, args, Takes);
                return given;
            });
            Settle();
            if (nodeOf > 0)
            {
                if (result != null && !originals.ContainsKey(result)) throw new Misfit("it returned a node that is none of argument " + nodeOf + "'s, even if one of these has the same value");
                text.Append(result == null ? "null" : originals[result].ToString());
                return;
            }
            if (both)
            {
                object first = Given(result, Results[0]);
                if (copyOf > 0 && result != null && visited.Keys.Any(originals.ContainsKey)) throw new Misfit("it returned nodes of argument " + copyOf + " themselves, where a copy was asked for");
                Give(text, new[] { first, Given(args[Changes - 1], Types[Changes - 1]) }, 0);
                return;
            }
            Give(text, Changes > 0 ? Given(args[Changes - 1], Types[Changes - 1]) : Results.Length == 1 ? Given(result, Results[0]) : result, 0);
        }
    }

    // A sequence of calls of objects. What a call returned is written at once, since later calls may change it.
    sealed class OfClass : Served
    {
        readonly Type kind;
        List<Step> steps;

        public OfClass(Type kind) { this.kind = kind; }

        public override void Read(Reader r)
        {
            steps = new List<Step>();
            r.Pass("[[");
            while (r.Peek() != ']' && r.Peek() >= 0)
            {
                if (steps.Count > 0) r.Next();
                steps.Add(StepOf(kind, r));
            }
        }

        protected override void Make(StringBuilder text)
        {
            var objects = new Dictionary<int, object>();
            var texts = new List<string>();
            bool late = false; // since a result was written
            foreach (Step s in steps)
            {
                if (late) ColdDriver.Answer("goes-on");
                late = false;
                for (int i = 0; i < s.Uses.Length; i += 2) s.Take(new Reader(texts[s.Uses[i + 1]]), s.Uses[i]);
                if (s.Called is ConstructorInfo)
                {
                    objects[s.Number] = Measured(() => ((ConstructorInfo)s.Called).Invoke(s.Args));
                    texts.Add("null");
                    continue;
                }
                object result = Measured(() => Gathered(s.Called.Invoke(objects[s.Number], s.Args), 0));
                var said = new StringBuilder();
                late = s.Returns != "" && Large(result, 2000);
                if (late) ColdDriver.Answer("writes");
                Give(said, s.Returns == "" ? null : Given(result, s.Returns), 0);
                texts.Add(said.ToString());
            }
            text.Append("[[" + string.Join(",", texts) + "],[" + string.Join(",", times) + "]]");
        }
    }

    // Says that to write a value takes long enough to matter.
    static bool Large(object value, int most)
    {
        var text = value as string;
        if (text != null) return text.Length > most;
        var all = value as ICollection;
        if (all == null) return false;
        if (all.Count > most) return true;
        foreach (object one in all) if (Large(one, most / 20)) return true;
        return false;
    }

    // One call of a sequence: a method, or the constructor of the class.
    sealed class Step
    {
        public MethodBase Called;
        public string[] Takes = New; // types of the arguments
        public object[] Args;
        public string Returns = ""; // empty: nothing
        public int Number; // of its object
        public int[] Uses; // arguments, and the calls that returned them

        public void Take(Reader r, int i)
        {
            Types = Takes;
            r.Parameter = i + 1;
            Args[i] = r.Value(Called.GetParameters()[i].ParameterType);
        }
    }

    static Step StepOf(Type kind, Reader r)
    {
        const BindingFlags any = BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance;
        var s = new Step();
        r.Next();
        string name = r.Text();
        r.Next();
        s.Number = r.Int();
        var all = new List<MethodBase>();
        if (name == "new") all.AddRange(kind.GetConstructors(any));
        else
            foreach (string[] row in Methods.Where(row => row[0] == name))
            {
                s.Takes = row[2] == "" ? new string[0] : row[2].Split(';');
                s.Returns = row[3];
                all.AddRange(kind.GetMethods(any).Where(m => row[1].Split(',').Contains(m.Name)));
            }
        s.Called = all.Where(m => m.GetParameters().Length == s.Takes.Length).OrderBy(m => m.GetParameters().Where((p, i) => !Fits(p.ParameterType, s.Takes[i])).Count()).FirstOrDefault();
        if (s.Called == null) throw new Misfit(kind.Name + " has no " + (name == "new" ? "constructor" : "method " + name) + " with " + s.Takes.Length + " parameters");
        s.Args = new object[s.Takes.Length];
        r.Pass(",[");
        for (int i = 0; i < s.Args.Length; i++)
        {
            if (i > 0) r.Next();
            s.Take(r, i);
        }
        r.Pass("],");
        s.Uses = r.Ints();
        r.Next();
        return s;
    }

    // Gathers what is computed only when it is read, which belongs to the call.
    static object Gathered(object v, int depth)
    {
        if (v == null || v is string || v is Array || v is IDictionary || !(v is IEnumerable) && !(v is System.Threading.Tasks.Task)) return v;
        if (depth > 500) throw new Misfit("it returned a value that is nested too deeply, or contains itself");
        var task = v as System.Threading.Tasks.Task;
        if (task != null)
        {
            if (!task.IsCompleted) Answer("awaits");
            task.GetAwaiter().GetResult();
            var result = v.GetType().GetProperty("Result");
            return Gathered(result == null ? null : result.GetValue(v), depth + 1);
        }
        var collections = v.GetType().GetInterfaces().Where(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(ICollection<>)).ToList();
        if (collections.Any(i => i.GetGenericArguments()[0].IsPrimitive || i.GetGenericArguments()[0] == typeof(string))) return v;
        bool lazy = !(v is ICollection) && collections.Count == 0;
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
        readonly byte[] piece;
        int at, end;
        public long Total;
        public int Parameter; // that is being read, from 1

        public Reader(int from)
        {
            fd = from;
            piece = new byte[1 << 16];
        }

        public Reader(string text)
        {
            fd = -1;
            piece = Encoding.UTF8.GetBytes(text);
            end = piece.Length;
        }

        public int Peek()
        {
            if (at == end)
            {
                end = Math.Max(0, (int)ColdDriver.Read(fd, piece, (IntPtr)piece.Length));
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

        public string Text()
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

        public int Int() { return int.Parse(Word(), CultureInfo.InvariantCulture); }

        public int[] Ints()
        {
            var all = new List<int>();
            Next();
            while (Peek() != ']' && Peek() >= 0)
            {
                if (all.Count > 0) Next();
                all.Add(Int());
            }
            Next();
            return all.ToArray();
        }

        public void Pass(string text) { foreach (char c in text) Next(); }

        public object Value(Type t)
        {
            string shape = Parameter <= Types.Length ? ShapeOf(Types[Parameter - 1]) : null;
            if (shape != null && Own(t)) return NodesOf(shape, t).Take(this);
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
            if (c == '{') return Map(t);
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

        // An object of JSON, in a dictionary.
        object Map(Type t)
        {
            Type of = t.IsGenericType ? t.GetGenericArguments().Last() : typeof(object), key = t.IsGenericType ? t.GetGenericArguments()[0] : typeof(string);
            bool sorted = t.IsGenericType && t.GetGenericTypeDefinition() == typeof(SortedDictionary<,>);
            var all = (IDictionary)Activator.CreateInstance((sorted ? typeof(SortedDictionary<,>) : typeof(Dictionary<,>)).MakeGenericType(key, of));
            Next();
            while (Peek() != '}' && Peek() >= 0)
            {
                if (all.Count > 0) Next();
                string name = Text();
                Next();
                object known = key == typeof(string) ? name : Convert.ChangeType(name, key, CultureInfo.InvariantCulture);
                all[known] = Value(of);
            }
            Next();
            if (!t.IsInstanceOfType(all)) throw Lacks(t, "an object");
            return all;
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
