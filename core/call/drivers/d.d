// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
module cold_driver;
static import @MODULE@;
import core.sys.linux.time, core.sys.posix.unistd, core.sys.posix.fcntl, core.stdc.stdio : fflush;
import std.stdio : stderr, stdout;
import std.bigint, std.conv, std.format, std.range, std.string, std.traits, std.typecons, std.utf;

enum changes = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
enum both = @BOTH@ > 0; // what is returned is a result, too
immutable names = @NAMES@;

class Misfit : Exception
{
    this(string why) { super(why); }
}

struct Input
{
    int fd;
    ubyte[65_536] piece;
    size_t at, end, total, parameter; // the last one from 1

    int peek()
    {
        if (at == end)
        {
            const n = read(fd, piece.ptr, piece.length);
            at = 0;
            end = n > 0 ? n : 0;
            total += end;
            if (end == 0) return -1;
        }
        return piece[at];
    }

    int next()
    {
        const c = peek();
        at++;
        return c;
    }

    string word()
    {
        string s;
        for (int c; (c = peek()) >= '0' && c <= '9' || c == '-' || c == '+' || c == '.' || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z'; at++) s ~= cast(char) c;
        return s;
    }

    Misfit lacks(string declared, string given) { return new Misfit(format("parameter %s is declared as %s, and the problem gives it %s", parameter, declared, given)); }

    string text()
    {
        char[] s;
        next();
        for (;;)
        {
            int c = next();
            if (c == '"' || c < 0) return s.idup;
            if (c == '\\')
            {
                c = next();
                if (c == 'n') c = '\n';
                else if (c == 't') c = '\t';
                else if (c == 'u')
                {
                    string code;
                    foreach (i; 0 .. 4) code ~= cast(char) next();
                    c = code.to!int(16);
                }
            }
            s ~= cast(char) c;
        }
    }

    T take(T)()
    {
        static if (is(T == bool)) return word() == "true";
        else static if (is(T == BigInt)) return BigInt(word());
        else static if (is(T : const(char)[]) || is(T : const(dchar)[]) || is(T : const(wchar)[]))
        {
            if (peek() != '"') throw lacks(T.stringof, "something else");
            return text().to!T;
        }
        else static if (isSomeChar!T)
        {
            const s = text().to!dstring;
            if (s.length != 1 || is(T == char) && s[0] > 127) throw lacks(T.stringof, "a character that it does not hold");
            return cast(T) s[0];
        }
        else static if (isIntegral!T)
        {
            const s = word();
            try return s.to!T;
            catch (ConvException) throw lacks(T.stringof, s == "" ? "something else" : s ~ ", which it does not hold");
        }
        else static if (isFloatingPoint!T)
        {
            const s = word();
            return s == "NaN" ? T.nan : s == "Infinity" ? T.infinity : s == "-Infinity" ? -T.infinity : s.to!T;
        }
        else static if (isInstanceOf!(Nullable, T))
        {
            if (peek() != 'n') return T(take!(typeof(T.init.get))());
            word();
            return T.init;
        }
        else static if (isDynamicArray!T)
        {
            alias E = Unqual!(ElementEncodingType!T);
            if (peek() != '[') throw lacks(T.stringof, "something else");
            auto list = appender!(E[]);
            size_t n;
            next();
            while (peek() != ']' && peek() >= 0)
            {
                if (n++ > 0) next();
                list ~= take!E();
            }
            next();
            return cast(T) list[];
        }
        else static assert(false, "a parameter is declared as " ~ T.stringof ~ ", which arguments of this problem cannot be");
    }
}

void give(T)(ref Appender!string b, T v)
{
    static if (is(Unqual!T == bool)) b ~= v ? "true" : "false";
    else static if (is(T : const(char)[]) || is(T : const(dchar)[]) || is(T : const(wchar)[]) || isSomeChar!T)
    {
        b ~= '"';
        foreach (char c; v.to!string)
            if (c == '"' || c == '\\') b ~= ['\\', c];
            else if (c < ' ') b ~= format("\\u%04x", c);
            else b ~= c;
        b ~= '"';
    }
    else static if (isFloatingPoint!T) b ~= v != v ? "NaN" : v == T.infinity ? "Infinity" : v == -T.infinity ? "-Infinity" : format("%.17g", v);
    else static if (isIntegral!T || is(Unqual!T == BigInt)) b ~= v.to!string;
    else static if (isInstanceOf!(Nullable, T))
    {
        if (v.isNull) b ~= "null";
        else give(b, v.get);
    }
    else static if (isInstanceOf!(Tuple, T))
    {
        b ~= '[';
        foreach (i, one; v.expand)
        {
            if (i > 0) b ~= ',';
            give(b, one);
        }
        b ~= ']';
    }
    else static if (isInputRange!T || isArray!T)
    {
        b ~= '[';
        bool first = true;
        foreach (one; v)
        {
            if (!first) b ~= ',';
            first = false;
            give(b, one);
        }
        b ~= ']';
    }
    else static assert(false, "the result is declared as " ~ T.stringof ~ ", which results of this problem cannot be");
}

__gshared int[2] streams;
__gshared string token;
__gshared long count;

void put(int fd, const(char)[] text)
{
    while (text.length > 0)
    {
        const n = write(fd, text.ptr, text.length);
        if (n <= 0) return;
        text = text[n .. $];
    }
}

void answer(string text) { put(3, format("%s %s %s\n", token, count, text)); }

// The mark stands where the call ended: what it returned is written behind it.
bool settled;
void settle()
{
    if (settled) return;
    settled = true;
    stdout.flush();
    stderr.flush();
    fflush(null);
    foreach (fd; streams) put(fd, "\0" ~ token ~ "\n");
}

long now()
{
    timespec t;
    clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &t);
    return t.tv_sec * 1_000_000_000L + t.tv_nsec;
}

void serve(alias f)(ref Input r)
{
    alias P = Parameters!f;
    static assert(P.length == @COUNT@, "the function takes @COUNT@ arguments in this problem");
    settle();
    answer("ready");
    while (r.peek() == '[')
    {
        const from = r.total;
        settled = false;
        staticMap!(Unqual, P) args;
        string said;
        long spent;
        try
        {
            foreach (i, ref arg; args)
            {
                r.next();
                r.parameter = i + 1;
                arg = r.take!(typeof(arg))();
            }
        }
        catch (Misfit e) said = "misfit 0 " ~ e.msg;
        while (r.peek() >= 0 && r.next() != '\n') {}
        if (said == "")
        {
            if (r.total - from > 100_000) answer("begin");
            auto text = appender!string;
            const began = now();
            try
            {
                static if (is(ReturnType!f == void)) f(args);
                else
                {
                    auto result = f(args);
                    static if (isInputRange!(typeof(result)) && !isArray!(typeof(result))) auto whole = result.array;
                    else alias whole = result;
                }
                spent = now() - began;
                settle();
                static if (changes > 0)
                {
                    static if (both)
                    {
                        text ~= '[';
                        give(text, whole);
                        text ~= ',';
                    }
                    give(text, args[changes - 1]);
                    if (both) text ~= ']';
                }
                else static if (is(ReturnType!f == void)) text ~= "null";
                else give(text, whole);
                said = format("done %s %s", spent, text[]);
            }
            catch (Throwable e)
            {
                put(streams[1], e.toString() ~ "\n");
                said = format("failed %s 1", now() - began);
            }
        }
        settle();
        answer(said);
        count++;
    }
}

import std.meta : staticMap;

void main()
{
    Input r;
    r.fd = fcntl(0, F_DUPFD, 10);
    dup2(open("/dev/null", O_RDONLY), 0);
    streams = [fcntl(1, F_DUPFD, 10), fcntl(2, F_DUPFD, 10)];
    string first;
    for (int c; (c = r.next()) >= 0 && c != '\n';) first ~= cast(char) c;
    token = first.split(" ")[2];
    @SERVE@
    stdout.flush();
    _exit(0);
}
