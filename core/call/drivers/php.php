<?php
// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
final class ColdMisfit extends Exception {}

final class ColdDriver
{
    const NAMES = @NAMES@;
    const COUNT = @COUNT@; // arguments
    const CHANGES = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
    const BOTH = @BOTH@ > 0; // what is returned is a result, too
    const TAKES = @TAKES@; // types of the arguments
    const RESULTS = @RESULTS@; // and of what is returned

    private static $calls, $none, $answers, $streams, $token, $count = 0;

    private static function answer($text)
    {
        fwrite(self::$answers, self::$token . ' ' . self::$count . ' ' . $text . "\n");
    }

    /** The mark stands where the call ended: what it returned is written behind it. */
    private static $settled = false;
    private static function settle()
    {
        if (self::$settled) return;
        self::$settled = true;
        while (ob_get_level() > 0) ob_end_flush();
        foreach (self::$streams as $stream) fwrite($stream, "\0" . self::$token . "\n");
    }

    /** Says that a function can be called with so many arguments. */
    private static function fits(ReflectionFunctionAbstract $f)
    {
        return $f->getNumberOfRequiredParameters() <= self::COUNT && ($f->getNumberOfParameters() >= self::COUNT || $f->isVariadic());
    }

    /** What to call, by the rules that all drivers have in common: a method of the class Solution, a function, a method
     *  of another class, the last before the first. What takes other arguments comes behind all others. */
    private static function find(array $before)
    {
        $best = null;
        $offer = function ($rank, $call) use (&$best) {
            if ($best === null || $rank < $best[0]) $best = [$rank, $call];
        };
        foreach (self::NAMES as $name)
            if (function_exists($name)) {
                $f = new ReflectionFunction($name);
                if ($f->isUserDefined()) $offer([!self::fits($f), 1, 0], fn(&$args) => $f->invokeArgs(self::lent($args)));
            }
        foreach (array_reverse(array_diff(get_declared_classes(), $before)) as $place => $kind) {
            $class = new ReflectionClass($kind);
            foreach (self::NAMES as $name) {
                if (!$class->hasMethod($name) || $class->isAbstract()) continue;
                $m = $class->getMethod($name);
                $m->setAccessible(true);
                $made = $class->getConstructor();
                $bound = $m->isStatic() || $made === null || $made->getNumberOfRequiredParameters() === 0;
                $offer([!(self::fits($m) && $bound), strcasecmp($kind, 'Solution') === 0 ? 0 : 2, $place],
                    fn(&$args) => $m->invokeArgs($m->isStatic() ? null : $class->newInstance(), self::lent($args)));
                break;
            }
        }
        return $best;
    }

    private static function lent(array &$args)
    {
        $lent = [];
        foreach (array_keys($args) as $i) $lent[$i] = &$args[$i];
        return $lent;
    }

    private static function now()
    {
        $t = getrusage();
        return ($t['ru_utime.tv_sec'] + $t['ru_stime.tv_sec']) * 1000000000 + ($t['ru_utime.tv_usec'] + $t['ru_stime.tv_usec']) * 1000;
    }

    private static function given($type, $v, $depth = 0)
    {
        if ($depth > 500) throw new ColdMisfit('it returned a value that is nested too deeply, or contains itself');
        if ($v === null) return 'null';
        if (substr($type, -1) === '?') return self::given(substr($type, 0, -1), $v, $depth);
        if ($v instanceof Traversable) $v = iterator_to_array($v, false);
        if (is_array($v)) {
            $of = substr($type, -2) === '[]' ? substr($type, 0, -2) : $type;
            return '[' . implode(',', array_map(fn($one) => self::given($of, $one, $depth + 1), array_values($v))) . ']';
        }
        if (is_bool($v)) return $v ? 'true' : 'false';
        if (is_int($v)) return (string) $v;
        if (is_float($v)) {
            if (is_nan($v)) return 'NaN';
            if (is_infinite($v)) return $v < 0 ? '-Infinity' : 'Infinity';
            if (preg_match('/^(int|long)/', $type) && floor($v) === $v && abs($v) < 9.2e18) return sprintf('%d', $v);
            return json_encode($v);
        }
        if (is_string($v)) {
            if ($type === 'bigint' && preg_match('/^-?\d+$/', $v)) return $v;
            $text = json_encode($v, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
            if ($text === false) throw new ColdMisfit('it returned a text that is no UTF-8');
            return $text;
        }
        throw new ColdMisfit('it returned a value of type ' . (is_object($v) ? get_class($v) : gettype($v)) . ', which is none of the problem\'s');
    }

    /** Gathers what is computed only when it is read, which belongs to the call. */
    private static function gathered($v)
    {
        return $v instanceof Traversable ? iterator_to_array($v, false) : $v;
    }

    private static function call($call, array $args)
    {
        $began = self::now();
        try {
            $result = self::gathered($call($args));
        } catch (Throwable $e) {
            $spent = self::now() - $began;
            fwrite(self::$streams[1], 'PHP Fatal error:  Uncaught ' . get_class($e) . ': ' . $e->getMessage() . ' in ' . $e->getFile() . ':' . $e->getLine() . "\n");
            return "failed $spent 1";
        }
        $spent = self::now() - $began;
        self::settle();
        try {
            if (self::CHANGES > 0) {
                $text = self::given(self::TAKES[self::CHANGES - 1], $args[self::CHANGES - 1]);
                if (self::BOTH) $text = '[' . self::given(self::RESULTS[0], $result) . ',' . $text . ']';
            } elseif (count(self::RESULTS) === 1) $text = self::given(self::RESULTS[0], $result);
            elseif (!is_array($result)) throw new ColdMisfit('it returned one value, and several were expected');
            else $text = '[' . implode(',', array_map(fn($t, $v) => self::given($t ?? 'any', $v), self::RESULTS, array_values($result))) . ']';
            return "done $spent $text";
        } catch (ColdMisfit $e) {
            return "misfit $spent " . $e->getMessage();
        }
    }

    /** Reals that JSON has no word for come as texts, and are numbers again. */
    private static function real($v)
    {
        if (is_array($v)) return array_map([self::class, 'real'], $v);
        return ['NaN' => NAN, 'Infinity' => INF, '-Infinity' => -INF][is_string($v) ? $v : ''] ?? $v;
    }

    private static function arguments($line)
    {
        $plain = preg_replace('/"(?:[^"\\\\]|\\\\.)*+"(*SKIP)(*FAIL)|-?Infinity|NaN/', '"$0"', $line, -1, $unusual);
        $args = json_decode($plain ?? $line, false, 100000, JSON_BIGINT_AS_STRING);
        if ($unusual) foreach (self::TAKES as $i => $type) if (strpos($type, 'real') === 0) $args[$i] = self::real($args[$i]);
        return $args;
    }

    public static function main()
    {
        self::$calls = fopen('php://stdin', 'r');
        fclose(STDIN);
        self::$none = fopen('/dev/null', 'r');
        self::$answers = fopen('php://fd/3', 'w');
        self::$streams = [fopen('php://fd/1', 'w'), fopen('php://fd/2', 'w')];
        self::$token = explode(' ', trim(fgets(self::$calls)))[2];
        $before = get_declared_classes();
        cold_load(__DIR__ . '/' . @FILE_TEXT@);
        $found = self::find($before);
        if ($found === null) {
            self::answer('unserved there is no function ' . self::NAMES[0] . ' in @FILE@' . @NEARLY_TEXT@);
            return;
        }
        if ($found[0][0]) {
            self::answer('unserved the function in @FILE@ cannot be called with ' . self::COUNT . ' arguments, which it has in this problem');
            return;
        }
        self::settle();
        self::answer('ready');
        while (($line = fgets(self::$calls)) !== false) {
            $args = self::arguments($line);
            if (strlen($line) > 100000) self::answer('begin');
            unset($line);
            self::$settled = false;
            $words = self::call($found[1], $args);
            self::settle();
            self::answer($words);
            self::$count++;
        }
    }
}

function cold_load($file) { require_once $file; }

ColdDriver::main();
