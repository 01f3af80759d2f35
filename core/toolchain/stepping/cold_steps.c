/* Records what a program does, line by line, from within it. At the addresses of a table, which is read out of the
   program's own debugging information before it starts, instructions give way to breakpoints; whoever meets one writes to
   descriptor 3 which line is about to run, and which variables have changed. Then the instruction runs from a copy.
   Nothing traces the program, and nothing of it needs to be stepped through.

   The table is an array of 64-bit integers: see core/steps/native. This file is C and C++ alike. */
#ifndef _GNU_SOURCE
#define _GNU_SOURCE
#endif
#if defined(__GNUC__) && !defined(__clang__)
#pragma GCC optimize("O1")
#endif
#include <errno.h>
#include <fcntl.h>
#include <setjmp.h>
#include <signal.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/syscall.h>
#include <sys/uio.h>
#include <ucontext.h>
#include <unistd.h>

typedef struct { int64_t address, line, function, kind, slot, target, back; } cold_site;
typedef struct { int64_t name, result, first, count, base; } cold_function;
typedef struct { int64_t name, type, place, offset, low, high, line, argument, more; } cold_variable; /* more: so many behind it are further addresses of it */
typedef struct { int64_t kind, size, element, a, b, c, first, count; } cold_type;
typedef struct { int64_t name, type, offset, value; } cold_field;

enum { head_sites = 1, head_functions = 3, head_variables = 5, head_types = 7, head_fields = 9, head_strings = 11, head_slots, head_slot_bytes, head_most, head_style, head_globals, head_from = head_globals + 2 };
enum { site_line, site_end, site_return, site_write, site_writev, site_exit, site_index, site_raise };
enum { base_cfa, base_rbp, base_rsp };
enum { place_frame, place_address, place_pointer };
enum {
    type_other, type_signed, type_unsigned, type_bool, type_char, type_float, type_pointer, type_struct, type_array, type_enum,
    type_range, type_text, type_tree, type_hash, type_deque, type_list, type_optional, type_bits, type_bitset, type_wrapper,
    type_slice, type_tuple, type_variant, type_utf32, type_iterator,
    type_ring, type_buckets, type_leaves, type_short, type_behind
};

/* Room for the copies of instructions, within reach of the program's own. Its address is in the symbols. */
enum { cold_room = 4 << 20 };
#ifdef __cplusplus
extern "C" {
#endif
char cold_slots[cold_room] __attribute__((aligned(4096), used));

static const int64_t *table;
static const cold_site *sites;
static const cold_function *functions;
static const cold_variable *variables;
static const cold_type *types;
static const cold_field *fields;
static const char *strings;
static int64_t site_count, left;
static char open_list = '{', close_list = '}';
static volatile int over;        /* nothing more is told */
static pid_t main_thread;

/* What was told and not written yet. */
static char told[1 << 16];
static size_t told_length;

static long call(long number, long a, long b, long c)
{
    long result;
    __asm__ volatile("syscall" : "=a"(result) : "a"(number), "D"(a), "S"(b), "d"(c) : "rcx", "r11", "memory");
    return result;
}

static void hand_over(void)
{
    for (size_t at = 0; at < told_length;) {
        long n = call(SYS_write, 3, (long)(told + at), (long)(told_length - at));
        if (n == -EINTR)
            continue;
        if (n <= 0)
            break;
        at += (size_t)n;
    }
    told_length = 0;
}

static void tell(const char *text, size_t length)
{
    if (told_length + length > sizeof told)
        hand_over();
    if (length > sizeof told)
        length = sizeof told;
    memcpy(told + told_length, text, length);
    told_length += length;
}

static void tell_text(const char *text) { tell(text, strlen(text)); }

static void tell_number(int64_t n)
{
    char text[24];
    char *at = text + sizeof text;
    uint64_t rest = n < 0 ? 0 - (uint64_t)n : (uint64_t)n;
    do
        *--at = (char)('0' + rest % 10);
    while (rest /= 10);
    if (n < 0)
        *--at = '-';
    tell(at, (size_t)(text + sizeof text - at));
}

/* tell_clean writes a text in which no line ends. */
static void tell_clean(const char *text, size_t length)
{
    for (size_t i = 0; i < length; i++) {
        char c = text[i];
        if (c == '\\')
            tell("\\\\", 2);
        else if (c == '\n')
            tell("\\n", 2);
        else if (c == '\t')
            tell("\\t", 2);
        else if (c == '\r')
            tell("\\r", 2);
        else if (c)
            tell(&c, 1);
    }
}

static void restore_all(void);

static void end(void)
{
    hand_over();
    over = 1;
    restore_all();
}

/* may_tell counts what is told; the last one says that it is too much. */
static int may_tell(void)
{
    if (over)
        return 0;
    if (--left > 0)
        return 1;
    tell_text("M\n");
    end();
    return 0;
}

/* A value as text, shortened. */
enum { most_text = 2400, most_elements = 24, most_characters = 80, most_levels = 6 };
static char value[most_text + 64];
static size_t value_length;
static sigjmp_buf unreadable;
static volatile int reading;

static void put(const char *text, size_t length)
{
    if (value_length >= most_text)
        return;
    if (length > most_text - value_length)
        length = most_text - value_length;
    memcpy(value + value_length, text, length);
    value_length += length;
}

static void puts_(const char *text) { put(text, strlen(text)); }

static void put_number(uint64_t n, int negative)
{
    char text[24];
    char *at = text + sizeof text;
    do
        *--at = (char)('0' + n % 10);
    while (n /= 10);
    if (negative)
        *--at = '-';
    put(at, (size_t)(text + sizeof text - at));
}

static void put_count(uint64_t n)
{
    puts_("... (");
    put_number(n, 0);
    puts_(")");
}

static void put_characters(const char *text, uint64_t length)
{
    uint64_t most = length > (uint64_t)most_characters ? (uint64_t)most_characters : length;
    puts_("\"");
    put(text, most);
    puts_("\"");
    if (length > most)
        put_count(length);
}

static int64_t load(const char *at, int64_t size, int is_signed)
{
    int64_t n = 0;
    if (size > 8)
        size = 8;
    memcpy(&n, at, (size_t)size);
    if (is_signed && size < 8) {
        int shift = (int)(64 - 8 * size);
        n = (int64_t)((uint64_t)n << shift) >> shift;
    }
    return n;
}

static const char *load_pointer(const char *at)
{
    const char *p;
    memcpy(&p, at, sizeof p);
    return p;
}

static void put_wide(const char *at, int is_signed)
{
    unsigned __int128 n;
    char text[48];
    char *end = text + sizeof text, *p = end;
    memcpy(&n, at, 16);
    int negative = is_signed && (n >> 127);
    if (negative)
        n = 0 - n;
    do
        *--p = (char)('0' + (int)(n % 10));
    while (n /= 10);
    if (negative)
        *--p = '-';
    put(p, (size_t)(end - p));
}

static void put_float(const char *at, int64_t size)
{
    char text[64];
    if (size == 4) {
        float f;
        memcpy(&f, at, 4);
        for (int digits = 6; digits <= 9; digits++) {
            snprintf(text, sizeof text, "%.*g", digits, (double)f);
            if (strtof(text, 0) == f || f != f)
                break;
        }
    } else if (size == 8) {
        double d;
        memcpy(&d, at, 8);
        for (int digits = 15; digits <= 17; digits++) {
            snprintf(text, sizeof text, "%.*g", digits, d);
            if (strtod(text, 0) == d || d != d)
                break;
        }
    } else {
        long double d;
        memcpy(&d, at, sizeof d);
        snprintf(text, sizeof text, "%.18Lg", d);
    }
    puts_(text);
    if (!strpbrk(text, ".enia"))
        puts_(".0");
}

static void put_char(int64_t c)
{
    if (c >= 32 && c < 127) {
        char text[3] = {'\'', (char)c, '\''};
        put(text, 3);
    } else {
        put_number((uint64_t)(c < 0 ? -c : c), c < 0);
    }
}

static void put_value(const cold_type *t, const char *at, int level);

/* item writes what stands between two elements, and says whether there is room for one more. */
static int item(uint64_t n)
{
    if (n)
        puts_(", ");
    return n < most_elements && value_length < most_text;
}

static void put_rest(uint64_t shown, uint64_t count)
{
    if (count > shown)
        put_count(count);
}

static void put_row(const cold_type *element, const char *at, uint64_t count, int level)
{
    uint64_t i;
    put(&open_list, 1);
    for (i = 0; i < count && item(i); i++)
        put_value(element, at + i * (uint64_t)element->size, level + 1);
    put_rest(i, count);
    put(&close_list, 1);
}

static void put_entry(const cold_type *t, const char *at, int level)
{
    const cold_type *element = &types[t->element];
    if (t->count && element->count == 2) { /* of a map */
        const cold_field *f = &fields[element->first];
        put_value(&types[f[0].type], at + f[0].offset, level + 1);
        puts_(": ");
        put_value(&types[f[1].type], at + f[1].offset, level + 1);
    } else {
        put_value(element, at, level + 1);
    }
}

/* next_node is the one behind it in a red-black tree whose nodes are colour, parent, left, right. */
static const char *next_node(const char *node)
{
    const char *right = load_pointer(node + 24);
    if (right) {
        for (node = right; load_pointer(node + 16);)
            node = load_pointer(node + 16);
        return node;
    }
    const char *parent = load_pointer(node + 8);
    while (node == load_pointer(parent + 24)) {
        node = parent;
        parent = load_pointer(parent + 8);
    }
    return load_pointer(node + 24) == parent ? node : parent;
}

static void put_fields(const cold_type *t, const char *at, int level)
{
    for (int64_t i = 0; i < t->count && item((uint64_t)i); i++) {
        const cold_field *f = &fields[t->first + i];
        if (t->kind == type_struct && strings[f->name]) {
            puts_(strings + f->name);
            puts_(": ");
        }
        put_value(&types[f->type], at + f->offset, level + 1);
    }
}

static void put_bits(const char *words, uint64_t from, uint64_t count, int last_first)
{
    uint64_t most = count > (uint64_t)most_characters ? (uint64_t)most_characters : count;
    for (uint64_t i = 0; i < most; i++) {
        uint64_t bit = last_first ? count - 1 - i : from + i;
        puts_((words[bit / 8] >> (bit % 8)) & 1 ? "1" : "0");
    }
    put_rest(most, count);
}

/* put_leaves writes a B-tree in its order. Fields are those of a node: keys, values, its length, its children. */
static int put_leaves(const cold_type *t, const char *node, int64_t height, uint64_t *shown, int level)
{
    const cold_field *f = &fields[t->first];
    const cold_type *key = &types[f[0].type], *entry = &types[f[1].type];
    int64_t count = load(node + f[2].offset, 2, 0);
    for (int64_t i = 0; i <= count; i++) {
        if (height > 0 && !put_leaves(t, load_pointer(node + f[3].offset + 8 * i), height - 1, shown, level))
            return 0;
        if (i == count)
            break;
        if (!item(*shown))
            return 0;
        ++*shown;
        put_value(key, node + f[0].offset + i * key->size, level + 1);
        if (entry->size > 0) {
            puts_(": ");
            put_value(entry, node + f[1].offset + i * entry->size, level + 1);
        }
    }
    return 1;
}

static void put_value(const cold_type *t, const char *at, int level)
{
    const cold_type *element = t->element >= 0 ? &types[t->element] : 0;
    if (value_length >= most_text)
        return;
    if (level > most_levels && t->kind >= type_pointer && t->kind != type_enum) {
        puts_("...");
        return;
    }
    switch (t->kind) {
    case type_signed:
    case type_unsigned: {
        if (t->size == 16) {
            put_wide(at, t->kind == type_signed);
            return;
        }
        int64_t n = load(at, t->size, t->kind == type_signed);
        int negative = t->kind == type_signed && n < 0;
        put_number(negative ? 0 - (uint64_t)n : (uint64_t)n, negative);
        return;
    }
    case type_bool: {
        unsigned char b = (unsigned char)*at;
        if (b > 1)
            put_number(b, 0);
        else
            puts_(b ? "true" : "false");
        return;
    }
    case type_char:
    case type_utf32:
        put_char(load(at, t->size, t->a == 0));
        return;
    case type_float:
        put_float(at, t->size);
        return;
    case type_enum: {
        int64_t n = load(at, t->size, 1);
        for (int64_t i = 0; i < t->count; i++)
            if (fields[t->first + i].value == n) {
                puts_(strings + fields[t->first + i].name);
                return;
            }
        put_number((uint64_t)(n < 0 ? -n : n), n < 0);
        return;
    }
    case type_pointer: {
        const char *p = load_pointer(at + t->a);
        if (!p)
            puts_("null");
        else if (!element || element->kind == type_other)
            puts_("->");
        else if (t->c) /* a reference */
            put_value(element, p, level);
        else if (element->kind == type_char) {
            uint64_t n = 0;
            while (n < 1000 && p[n])
                n++;
            put_characters(p, n);
        } else {
            puts_("-> ");
            put_value(element, p, element->kind == type_pointer ? level + 1 : level); /* else that adds one */
        }
        return;
    }
    case type_iterator: { /* of a tree: its end is the head, whose parent is the root; of hashed nodes: its end is none */
        const char *node = load_pointer(at);
        int is_end = !node;
        if (node && t->b) {
            const char *parent = load_pointer(node + 8);
            is_end = !parent || (load(node, 4, 0) == 0 && load_pointer(parent + 8) == node);
        }
        if (is_end) {
            puts_("end");
            return;
        }
        puts_("-> ");
        put_entry(t, node + t->c, level);
        return;
    }
    case type_struct:
        if (t->b > 0) {
            puts_(strings + t->b);
            if (t->count == 0)
                return;
            puts_(" ");
        }
        puts_("{");
        put_fields(t, at, level);
        puts_("}");
        return;
    case type_tuple:
        if (t->b >= 0 && strings[t->b]) {
            puts_(strings + t->b);
            if (t->count == 0)
                return;
        }
        puts_("(");
        put_fields(t, at, level);
        puts_(")");
        return;
    case type_array:
        if (element->kind == type_char) {
            uint64_t n = 0;
            while (n < (uint64_t)t->a && at[n])
                n++;
            put_characters(at, n);
        } else {
            put_row(element, at, (uint64_t)t->a, level);
        }
        return;
    case type_range: {
        const char *begin = load_pointer(at + t->a), *end = load_pointer(at + t->b);
        int64_t bytes = end - begin;
        if (bytes < 0 || element->size <= 0 || bytes % element->size || (!begin && bytes))
            puts_("(not set)");
        else
            put_row(element, begin, (uint64_t)(bytes / element->size), level);
        return;
    }
    case type_slice: {
        const char *begin = load_pointer(at + t->a);
        uint64_t count = (uint64_t)load(at + t->b, 8, 0);
        if (element->kind == type_char)
            put_characters(begin, count);
        else
            put_row(element, begin, count, level);
        return;
    }
    case type_text: {
        uint64_t count = (uint64_t)load(at + t->b, 8, 0);
        if (count >> 40)
            puts_("(not set)");
        else
            put_characters(load_pointer(at + t->a), count);
        return;
    }
    case type_short: /* its length is its first byte */
        put_characters(at + 1, (unsigned char)*at);
        return;
    case type_behind: { /* a pointer; what stands before that says how many */
        const char *begin = load_pointer(at);
        uint64_t count = begin ? (uint64_t)(load(begin - 8, 8, 0) + t->a) : 0;
        if (count >> 40)
            puts_("(not set)");
        else if (element->kind == type_char)
            put_characters(begin, count);
        else
            put_row(element, begin, count, level);
        return;
    }
    case type_tree: {
        uint64_t count = (uint64_t)load(at + t->b, 8, 0), i;
        const char *node = load_pointer(at + t->a);
        puts_("{");
        for (i = 0; i < count && item(i); i++, node = next_node(node))
            put_entry(t, node + t->c, level);
        put_rest(i, count);
        puts_("}");
        return;
    }
    case type_hash:
    case type_list: {
        uint64_t count = t->b >= 0 ? (uint64_t)load(at + t->b, 8, 0) : ~(uint64_t)0, i;
        const char *node = load_pointer(at + t->a), *first = at + t->a;
        int is_list = t->kind == type_list;
        put(is_list ? &open_list : "{", 1);
        for (i = 0; i < count && node && !(is_list && node == first) && item(i); i++, node = load_pointer(node))
            put_entry(t, node + t->c, level);
        if (t->b >= 0)
            put_rest(i, count);
        else if (node)
            puts_("...");
        put(is_list ? &close_list : "}", 1);
        return;
    }
    case type_ring: { /* an array whose first element is anywhere */
        const char *begin = load_pointer(at + t->a);
        uint64_t count = (uint64_t)load(at + t->b, 8, 0), head = (uint64_t)load(at + t->c, 8, 0), room = (uint64_t)load(at + t->first, 8, 0), i;
        put(&open_list, 1);
        for (i = 0; i < count && item(i); i++)
            put_value(element, begin + (head + i) % room * (uint64_t)element->size, level + 1);
        put_rest(i, count);
        put(&close_list, 1);
        return;
    }
    case type_buckets: { /* entries lie before a row of bytes that say which are taken, the first one last */
        const char *taken = load_pointer(at + t->a);
        uint64_t count = (uint64_t)load(at + t->b, 8, 0), most = (uint64_t)load(at + t->c, 8, 0), shown = 0;
        puts_("{");
        for (uint64_t i = 0; i <= most && shown < count; i++)
            if (taken[i] >= 0) {
                if (!item(shown))
                    break;
                put_entry(t, taken - (i + 1) * (uint64_t)element->size, level);
                shown++;
            }
        put_rest(shown, count);
        puts_("}");
        return;
    }
    case type_leaves: {
        uint64_t count = (uint64_t)load(at + t->b, 8, 0), shown = 0;
        puts_("{");
        if (count)
            put_leaves(t, load_pointer(at + t->a), load(at + t->c, 8, 0), &shown, level);
        put_rest(shown, count);
        puts_("}");
        return;
    }
    case type_deque: { /* iterators are current, first, last, node */
        const char *current = load_pointer(at + t->a), *last = load_pointer(at + t->a + 16), *node = load_pointer(at + t->a + 24);
        const char *end = load_pointer(at + t->b), *end_first = load_pointer(at + t->b + 8), *end_node = load_pointer(at + t->b + 24);
        int64_t block = last - load_pointer(at + t->a + 8), size = element->size;
        if (size <= 0 || block <= 0 || end_node < node) {
            puts_("(not set)");
            return;
        }
        uint64_t count = (uint64_t)(((end_node - node) / 8 - 1) * (block / size) + (last - current) / size + (end - end_first) / size), i;
        if (node == end_node)
            count = (uint64_t)((end - current) / size);
        put(&open_list, 1);
        for (i = 0; i < count && item(i); i++) {
            put_value(element, current, level + 1);
            current += size;
            if (current == last) {
                node += 8;
                current = load_pointer(node);
                last = current + block;
            }
        }
        put_rest(i, count);
        put(&close_list, 1);
        return;
    }
    case type_optional:
        if (at[t->b])
            put_value(element, at + t->a, level);
        else
            puts_("nothing");
        return;
    case type_bits: {
        const char *begin = load_pointer(at + t->a), *end = load_pointer(at + t->b);
        uint64_t count = (uint64_t)(end - begin) * 8 + (uint64_t)load(at + t->c, 4, 0);
        put(&open_list, 1);
        put_bits(begin, 0, count, 0);
        put(&close_list, 1);
        return;
    }
    case type_bitset:
        put_bits(at, 0, (uint64_t)t->a, 1);
        return;
    case type_wrapper:
        put_value(element, at + t->a, level);
        return;
    case type_variant: {
        int64_t which = load(at + t->a, t->b, 0);
        const cold_field *otherwise = 0;
        for (int64_t i = 0; i < t->count; i++) {
            const cold_field *f = &fields[t->first + i];
            if (f->value == -1)
                otherwise = f;
            else if (f->value == which) {
                otherwise = f;
                break;
            }
        }
        if (otherwise)
            put_value(&types[otherwise->type], at + otherwise->offset, level);
        return;
    }
    default:
        puts_("...");
    }
}

static void write_value(const cold_type *t, const char *at)
{
    value_length = 0;
    reading = 1;
    if (sigsetjmp(unreadable, 0) == 0) {
        put_value(t, at, 1);
    } else {
        puts_("(no memory there)");
    }
    reading = 0;
}

/* What is known of the variables of each call that goes on. */
typedef struct { uint64_t hash; uint8_t set; } cold_known;
enum { most_seen = 8 };
typedef struct {
    const char *base;
    int64_t function, line;
    int64_t seen[most_seen]; /* addresses of the line that were come by since it was told */
    int count;
    cold_known *known;
} cold_frame;
enum { most_frames = 1 << 16, most_known = 1 << 20, most_globals = 4096 };
static cold_frame frames[most_frames];
static cold_known known[most_known], known_globals[most_globals];
static int64_t depth = -1, known_used;

static uint64_t hash_value(void)
{
    uint64_t h = 14695981039346656037u;
    for (size_t i = 0; i < value_length; i++)
        h = (h ^ (unsigned char)value[i]) * 1099511628211u;
    return h | 1;
}

static void tell_change(int64_t level, const cold_variable *v)
{
    if (!may_tell())
        return;
    if (level < 0) {
        tell_text("G ");
    } else {
        tell_text("V ");
        tell_number(level);
        tell_text(" ");
    }
    tell_text(strings + v->name);
    tell_text("\t");
    tell_clean(value, value_length);
    tell_text("\n");
}

static void look(int64_t level, const cold_variable *v, const char *base, cold_known *k)
{
    const char *at = v->place == place_address ? (const char *)v->offset : base + v->offset;
    if (v->place == place_pointer)
        at = load_pointer(at);
    write_value(&types[v->type], at);
    uint64_t h = hash_value();
    if (k->hash != h) {
        k->hash = h;
        tell_change(level, v);
    }
}

static int begins_late; /* the first line that is told is in the midst of its call */

static void look_all(const cold_frame *f, int64_t level, int64_t address, int64_t line, int is_end)
{
    const cold_function *of = &functions[f->function];
    for (int64_t i = 0; i < of->count; i++) {
        const cold_variable *v = &variables[of->first + i];
        cold_known *k = &f->known[i];
        int is_there = address >= v->low && address < v->high;
        for (int64_t more = v->more; more > 0; more--) {
            const cold_variable *other = &variables[of->first + ++i];
            is_there |= address >= other->low && address < other->high;
        }
        if (!f->line && !v->argument && !begins_late) /* no line of the call has run */
            continue;
        if (!is_there) {
            k->set = 0;
            k->hash = 0;
            continue;
        }
        if (!k->set && (v->argument || (line != v->line && (f->line == v->line || (line > v->line && !is_end)))))
            k->set = 1;
        if (k->set)
            look(level, v, f->base, k);
    }
    int64_t first = table[head_globals], count = table[head_globals + 1];
    for (int64_t i = 0; i < count && i < most_globals; i++)
        look(-1, &variables[first + i], 0, &known_globals[i]);
}

static const char *base_of(const cold_function *f, const greg_t *r)
{
    switch (f->base) {
    case base_cfa:
        return (const char *)r[REG_RBP] + 16;
    case base_rsp:
        return (const char *)r[REG_RSP];
    }
    return (const char *)r[REG_RBP];
}

/* leave takes calls that have ended off the stack: those whose frames lie below. */
static void leave(const char *base, int64_t function)
{
    while (depth >= 0 && (frames[depth].base < base || (frames[depth].base == base && frames[depth].function != function))) {
        known_used = frames[depth].known - known;
        depth--;
    }
}

static void tell_step(const cold_site *s)
{
    if (!may_tell())
        return;
    tell_text("S ");
    tell_number(s->line);
    tell_text(" ");
    tell_number(depth);
    tell_text(" ");
    tell_text(strings + functions[s->function].name);
    tell_text("\n");
    static uint64_t last;
    uint64_t now = __builtin_ia32_rdtsc();
    if (now - last > 100000) { /* who is ended in the next line shall have told this one */
        hand_over();
        last = now;
    }
}

static char own_stack[1 << 18];
static struct sigaction before[65];

static void handle(int number, void (*with)(int, siginfo_t *, void *))
{
    struct sigaction action;
    memset(&action, 0, sizeof action);
    action.sa_sigaction = with;
    action.sa_flags = SA_SIGINFO | SA_NODEFER | SA_ONSTACK;
    sigaction(number, &action, &before[number]);
}

static void catch_faults(void);

/* Streams of C++, where there are any, hand on at once what is printed, so that it belongs to the line that printed it:
   flag "unitbuf" of std::cout. Its flags lie behind precision and width of what it inherits virtually (Itanium C++ ABI). */
extern char _ZSt4cout[] __attribute__((weak));

/* Likewise "output" of Pascal: it writes at the end of each statement where it has a function for that. */
extern char *pascal_output[] __asm__("U_$SYSTEM_$$_OUTPUT") __attribute__((weak));

static void unbuffer(void)
{
    if (pascal_output) {
        char **text = pascal_output + 1; /* behind its number as a variable of each thread */
        text[8] = text[7];
    }
    if (!_ZSt4cout)
        return;
    const char *methods = load_pointer(_ZSt4cout);
    if (methods)
        *(int *)(_ZSt4cout + load(methods - 24, 8, 1) + 24) |= 1 << 13;
}

static void at_line(const cold_site *s, const greg_t *r)
{
    static int has_begun;
    if (!has_begun) { /* all that is set up before main is, a runtime's own handlers among it */
        has_begun = 1;
        unbuffer();
        catch_faults();
    }
    const cold_function *of = &functions[s->function];
    const char *base = base_of(of, r);
    leave(base, s->function);
    if (depth < 0 || frames[depth].base != base) {
        if (depth + 1 >= most_frames || known_used + of->count > most_known) {
            tell_text("D\n");
            end();
            return;
        }
        depth++;
        cold_frame *f = &frames[depth];
        f->base = base;
        f->function = s->function;
        f->line = 0;
        f->count = 0;
        f->known = known + known_used;
        memset(f->known, 0, sizeof f->known[0] * (size_t)of->count);
        known_used += of->count;
    }
    cold_frame *f = &frames[depth];
    if (s->kind == site_line && f->line == s->line && f->count < most_seen) {
        int i = 0; /* a line has several places; come by again, one of them is another round of a loop */
        while (i < f->count && f->seen[i] != s->address)
            i++;
        if (i == f->count) {
            f->seen[f->count++] = s->address;
            return;
        }
    }
    look_all(f, depth, s->address, s->line, s->kind == site_end);
    begins_late = 0;
    f->line = s->line;
    f->seen[0] = s->address;
    f->count = 1;
    if (s->kind == site_line)
        tell_step(s);
}

/* at_return tells what a function returns: its frame is gone but for the address that it returns to. */
static void at_return(const cold_site *s, ucontext_t *u)
{
    const greg_t *r = u->uc_mcontext.gregs;
    const cold_function *of = &functions[s->function];
    const char *end = (const char *)r[REG_RSP] + 8;
    while (depth >= 0 && frames[depth].function != s->function && frames[depth].base < end)
        depth--;
    if (depth < 0 || frames[depth].function != s->function)
        return;
    if (may_tell()) {
        tell_text("R ");
        tell_number(depth);
        tell_text(" ");
        if (of->result >= 0) {
            const cold_type *t = &types[of->result];
            char room[16];
            const char *at = room;
            memcpy(room, &r[REG_RAX], 8);
            memcpy(room + 8, &r[REG_RDX], 8);
            if (t->kind == type_float && t->size <= 8)
                memcpy(room, u->uc_mcontext.fpregs->_xmm[0].element, 8);
            else if (t->size > 16 || (t->kind >= type_range && t->kind <= type_wrapper))
                at = (const char *)r[REG_RAX];
            if (t->kind != type_float || t->size <= 8) {
                write_value(t, at);
                tell_clean(value, value_length);
            }
        }
        tell_text("\n");
    }
    known_used = frames[depth].known - known;
    if (--depth < 0) /* who called it may end the process at any time */
        hand_over();
}

static void at_write(const char *text, size_t length)
{
    if (!may_tell())
        return;
    tell_text("O ");
    for (size_t at = 0; at < length; at += 4096)
        tell_clean(text + at, length - at > 4096 ? 4096 : length - at);
    tell_text("\n");
    hand_over();
}

static void warn(const char *text, size_t length)
{
    if (!may_tell())
        return;
    tell_text("W ");
    tell_number(depth);
    tell_text(" ");
    tell_clean(text, length);
    tell_text("\n");
}

/* at_raise tells of an exception: in C++ the class, whose name is written as _ZTS, is what the second argument says. */
static void at_raise(const cold_site *s, const greg_t *r)
{
    const char *name = "";
    int length = 0;
    if (s->line == 1) {
        name = load_pointer((const char *)r[REG_RSI] + 8);
        name += strspn(name, "*NKSt");
        length = (int)strtol(name, (char **)&name, 10);
    }
    if (!may_tell())
        return;
    tell_text("X 0 ");
    tell_number(depth);
    tell_text(length ? " throws " : s->line == 1 ? " throws a value" : " ");
    if (s->line == 1)
        tell(name, (size_t)length);
    else
        tell_text(strings + s->line);
    tell_text("\n");
    if (s->line != 1) { /* what runs from here on tidies up */
        hand_over();
        over = 1;
    }
}

static void at_index(const cold_site *s, const greg_t *r)
{
    const cold_type *t = &types[s->line]; /* of the container */
    const char *container = (const char *)r[REG_RDI];
    uint64_t index = (uint64_t)r[REG_RSI], count;
    if (t->kind == type_array)
        count = (uint64_t)t->a;
    else if (t->kind == type_text)
        count = (uint64_t)load(container + t->b, 8, 0) + 1;
    else
        count = (uint64_t)(load_pointer(container + t->b) - load_pointer(container + t->a)) / (uint64_t)types[t->element].size;
    if (index < count)
        return;
    char text[96];
    int length = snprintf(text, sizeof text, "index %lld of %lld elements", (long long)index, (long long)count);
    warn(text, (size_t)length);
}

/* Where the library of C is not in the program, its functions that write are found when the program starts. They begin
   with an instruction that does nothing (endbr64), or with one that compares a byte with 0, which is done in its place. */
extern void *dlsym(void *, const char *) __attribute__((weak));
static struct { unsigned char *address; int64_t kind; int compares; } found[2];

static void find(int i, const char *name, int64_t kind)
{
    unsigned char *at = dlsym ? (unsigned char *)dlsym((void *)-1l, name) : 0;
    if (!at || (memcmp(at, "\xf3\x0f\x1e\xfa", 4) && !(at[0] == 0x80 && at[1] == 0x3d && at[6] == 0)))
        return;
    char *page = (char *)((uintptr_t)at & ~(uintptr_t)4095);
    if (mprotect(page, 4096, PROT_READ | PROT_WRITE | PROT_EXEC))
        return;
    found[i].address = at;
    found[i].kind = kind;
    found[i].compares = *at == 0x80;
    *at = 0xcc;
}

static void at_found(int64_t kind, const greg_t *r)
{
    if (r[REG_RDI] != 1)
        return;
    if (kind == site_write) {
        at_write((const char *)r[REG_RSI], (size_t)r[REG_RDX]);
        return;
    }
    for (int64_t i = 0; i < r[REG_RDX]; i++) {
        const struct iovec *v = (const struct iovec *)r[REG_RSI] + i;
        at_write((const char *)v->iov_base, v->iov_len);
    }
}

static const cold_site *site_at(int64_t address)
{
    int64_t low = 0, high = site_count;
    while (low < high) {
        int64_t middle = (low + high) / 2;
        if (sites[middle].address < address)
            low = middle + 1;
        else
            high = middle;
    }
    return low < site_count && sites[low].address == address ? &sites[low] : 0;
}

static void restore_all(void)
{
    for (int64_t i = 0; i < site_count; i++)
        *(volatile char *)sites[i].address = (char)(sites[i].back >> 56);
}

/* arm puts breakpoints everywhere, or, where the recording begins with a line, only there and where the program prints and
   ends. */
static int is_armed;

static void arm(int64_t from)
{
    is_armed = !from;
    for (int64_t i = 0; i < site_count; i++) {
        int64_t kind = sites[i].kind;
        if (!from || (kind == site_line && sites[i].line == from) || kind == site_write || kind == site_writev || kind == site_exit)
            *(volatile unsigned char *)sites[i].address = 0xcc;
    }
}

static void at_trap(int number, siginfo_t *info, void *context)
{
    ucontext_t *u = (ucontext_t *)context;
    greg_t *r = u->uc_mcontext.gregs;
    int saved = errno;
    const cold_site *s = site_at(r[REG_RIP] - 1);
    (void)info;
    for (int i = 0; !s && i < 2; i++)
        if (found[i].address && r[REG_RIP] - 1 == (greg_t)(uintptr_t)found[i].address) {
            if (!over)
                at_found(found[i].kind, r);
            r[REG_RIP] += 3;
            if (found[i].compares) {
                int32_t far;
                memcpy(&far, found[i].address + 2, 4);
                r[REG_RIP] += 3;
                unsigned char byte = *(unsigned char *)(r[REG_RIP] + far);
                r[REG_EFL] &= ~0x8d5; /* carry, parity, adjust, zero, sign, overflow */
                r[REG_EFL] |= (byte == 0) << 6 | (byte & 0x80) | !__builtin_parity(byte) << 2;
            }
            errno = saved;
            return;
        }
    if (!s) { /* the program's own */
        hand_over();
        signal(number, SIG_DFL);
        return;
    }
    if (!over && (pid_t)call(SYS_gettid, 0, 0, 0) == main_thread) {
        if (!is_armed && s->kind == site_line) {
            arm(0);
            begins_late = 1;
        }
        switch (s->kind) {
        case site_line:
        case site_end:
            at_line(s, r);
            break;
        case site_return:
            at_return(s, u);
            break;
        case site_write:
        case site_writev:
            at_found(s->kind, r);
            break;
        case site_exit:
            hand_over();
            break;
        case site_index:
            at_index(s, r);
            break;
        case site_raise:
            at_raise(s, r);
            break;
        }
    }
    if (s->target) { /* a call: it returns to where it would have */
        r[REG_RSP] -= 8;
        *(int64_t *)r[REG_RSP] = s->back & 0xffffffffffffff;
        r[REG_RIP] = s->target;
    } else {
        r[REG_RIP] = s->slot;
    }
    errno = saved;
}

static void at_fault(int number, siginfo_t *info, void *context)
{
    (void)context;
    if (reading)
        siglongjmp(unreadable, 1);
    const char *text = number == SIGFPE    ? "division by zero"
                       : number == SIGABRT ? "aborted"
                       : number == SIGILL  ? "illegal instruction"
                                           : "it read or wrote memory that is not its own";
    if (number == SIGSEGV && info->si_addr == 0)
        text = "it followed a null pointer";
    if (may_tell()) {
        tell_text("X 0 ");
        tell_number(depth);
        tell_text(" ");
        tell_text(text);
        tell_text("\n");
    }
    hand_over();
    sigaction(number, &before[number], 0); /* what the program itself makes of it comes next */
    if (number == SIGABRT)
        raise(number);
}

/* A compiler calls these where an integer does not fit, or an index leaves its array (-fsanitize=... without a runtime). */
typedef struct { const char *file; uint32_t line, column; } cold_place;
typedef struct { uint16_t kind, info; char name[1]; } cold_kind;
typedef struct { cold_place place; const cold_kind *type; } cold_overflow;
typedef struct { cold_place place; const cold_kind *array, *index; } cold_bounds;
typedef struct { cold_place place; const cold_kind *left, *right; } cold_shift;

static int64_t number_of(const cold_kind *k, uintptr_t n, int *known_kind)
{
    int bits = 1 << (k->info >> 1);
    *known_kind = k->kind == 0 && bits <= 64;
    if (!*known_kind)
        return 0;
    if (k->info & 1 && bits < 64)
        return (int64_t)((uint64_t)n << (64 - bits)) >> (64 - bits);
    return (int64_t)n;
}

static void warn_operation(const cold_overflow *d, uintptr_t a, const char *sign, uintptr_t b)
{
    char text[160];
    int is_known, is_other;
    int64_t x = number_of(d->type, a, &is_known), y = number_of(d->type, b, &is_other);
    int length;
    if (is_known)
        length = snprintf(text, sizeof text, "%lld %s %lld does not fit in %s", (long long)x, sign, (long long)y, d->type->name);
    else
        length = snprintf(text, sizeof text, "the result does not fit in %s", d->type->name);
    warn(text, (size_t)length < sizeof text ? (size_t)length : sizeof text - 1);
}

void __ubsan_handle_add_overflow(cold_overflow *d, uintptr_t a, uintptr_t b) { warn_operation(d, a, "+", b); }
void __ubsan_handle_sub_overflow(cold_overflow *d, uintptr_t a, uintptr_t b) { warn_operation(d, a, "-", b); }
void __ubsan_handle_mul_overflow(cold_overflow *d, uintptr_t a, uintptr_t b) { warn_operation(d, a, "*", b); }
void __ubsan_handle_negate_overflow(cold_overflow *d, uintptr_t a) { warn_operation(d, 0, "-", a); }
void __ubsan_handle_divrem_overflow(cold_overflow *d, uintptr_t a, uintptr_t b)
{
    if (b != 0) /* the signal tells the other */
        warn_operation(d, a, "/", b);
}

void __ubsan_handle_out_of_bounds(cold_bounds *d, uintptr_t index)
{
    char text[160];
    int is_known;
    int64_t i = number_of(d->index, index, &is_known);
    int length = snprintf(text, sizeof text, "index %lld of %s", (long long)i, d->array->name);
    warn(text, (size_t)length < sizeof text ? (size_t)length : sizeof text - 1);
}

void __ubsan_handle_shift_out_of_bounds(cold_shift *d, uintptr_t a, uintptr_t b)
{
    char text[160];
    int is_known, is_other;
    int64_t x = number_of(d->left, a, &is_known), y = number_of(d->right, b, &is_other);
    int length = snprintf(text, sizeof text, "%lld shifted by %lld does not fit in %s", (long long)x, (long long)y, d->left->name);
    warn(text, (size_t)length < sizeof text ? (size_t)length : sizeof text - 1);
}

__attribute__((destructor)) void cold_end(void) { hand_over(); }

static void catch_faults(void)
{
    handle(SIGSEGV, at_fault);
    handle(SIGBUS, at_fault);
    handle(SIGFPE, at_fault);
    handle(SIGILL, at_fault);
    handle(SIGABRT, at_fault);
}

__attribute__((constructor)) void cold_begin(void)
{
    if (table)
        return;
    const char *name = getenv("COLD_STEPS");
    int file = name ? open(name, O_RDONLY) : -1;
    off_t size = file < 0 ? 0 : lseek(file, 0, SEEK_END);
    if (size <= 0)
        return;
    table = (const int64_t *)mmap(0, (size_t)size, PROT_READ, MAP_PRIVATE, file, 0);
    close(file);
    if (table == (const int64_t *)MAP_FAILED)
        return;
    const char *text = (const char *)table;
    sites = (const cold_site *)(text + table[head_sites + 1]);
    functions = (const cold_function *)(text + table[head_functions + 1]);
    variables = (const cold_variable *)(text + table[head_variables + 1]);
    types = (const cold_type *)(text + table[head_types + 1]);
    fields = (const cold_field *)(text + table[head_fields + 1]);
    strings = text + table[head_strings];
    left = table[head_most];
    if (table[head_style]) {
        open_list = '[';
        close_list = ']';
    }
    int64_t count = table[head_sites];
    if (table[head_slot_bytes] > cold_room || count == 0)
        return;
    memcpy(cold_slots, text + table[head_slots], (size_t)table[head_slot_bytes]);
    mprotect(cold_slots, cold_room, PROT_READ | PROT_WRITE | PROT_EXEC);
    int64_t low = sites[0].address & ~4095, high = (sites[count - 1].address + 4096) & ~4095;
    if (mprotect((void *)low, (size_t)(high - low), PROT_READ | PROT_WRITE | PROT_EXEC))
        return;
    main_thread = (pid_t)call(SYS_gettid, 0, 0, 0);
    stack_t stack;
    memset(&stack, 0, sizeof stack);
    stack.ss_sp = own_stack;
    stack.ss_size = sizeof own_stack;
    sigaltstack(&stack, 0); /* a program whose stack is full can still say so */
    setvbuf(stdout, 0, _IONBF, 0);
    handle(SIGTRAP, at_trap);
    find(0, "write", site_write);
    find(1, "writev", site_writev);
    site_count = count;
    arm(table[head_from]);
}

#ifdef __cplusplus
}
#endif
