// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
//
// An array is passed as a pointer and, behind it, its length; an array of arrays
// as pointers to rows, their number, and a pointer to the lengths of the rows. A
// text ends with '\0'. A result that is an array has its length written to a last
// parameter; a pointer to a result that is null is an absent one.
#define _GNU_SOURCE
#include <errno.h>
#include <fcntl.h>
#include <limits.h>
#include <math.h>
#include <stdbool.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>

#pragma GCC diagnostic error "-Wincompatible-pointer-types"
#pragma GCC diagnostic error "-Wint-conversion"
@PRELUDE@
#define main cold_unused_main
#include @FILE_TEXT@
#undef main

#pragma GCC diagnostic ignored "-Wunused-function"
#pragma GCC diagnostic ignored "-Wunused-parameter"
#pragma GCC diagnostic ignored "-Wunused-variable"
#pragma GCC diagnostic ignored "-Wunused-but-set-variable"
#pragma GCC diagnostic ignored "-Wtype-limits"

enum { cold_piece = 1 << 16 };
static int cold_in, cold_streams[2];
static char cold_buffer[cold_piece], *cold_bytes = cold_buffer, cold_misfit[200], cold_mark[80];
static size_t cold_at, cold_end, cold_mark_size;
static long long cold_total;
static int cold_parameter;

static int cold_peek(void) {
    if (cold_at == cold_end) {
        if (cold_bytes != cold_buffer) return -1;
        ssize_t n = read(cold_in, cold_buffer, cold_piece);
        cold_at = 0;
        cold_end = n > 0 ? n : 0;
        cold_total += cold_end;
        if (cold_end == 0) return -1;
    }
    return (unsigned char)cold_bytes[cold_at];
}

static int cold_next(void) {
    int c = cold_peek();
    cold_at++;
    return c;
}

static void cold_lacks(const char *why) {
    if (!cold_misfit[0]) snprintf(cold_misfit, sizeof cold_misfit, "parameter %d %s", cold_parameter, why);
}

static void cold_skip(void) {
    int c, depth = 0;
    do {
        c = cold_peek();
        if (c < 0 || c == '\n') return;
        if (c == '"') {
            cold_at++;
            while ((c = cold_next()) != '"' && c >= 0)
                if (c == '\\') cold_next();
        } else if (depth == 0 && (c == ',' || c == ']')) {
            return;
        } else {
            depth += c == '[' ? 1 : c == ']' ? -1 : 0;
            cold_at++;
        }
        c = cold_peek();
    } while (depth > 0 || (c != ',' && c != ']'));
}

static char *cold_digits(char *word, size_t room) {
    size_t n = 0;
    for (int c; (c = cold_peek()) == '-' || c == '+' || c == '.' || (c >= '0' && c <= '9') || (c >= 'A' && c <= 'Z') || (c >= 'a' && c <= 'z'); cold_at++)
        if (n + 1 < room) word[n++] = c;
    word[n] = 0;
    return word;
}

static long long cold_integer(long long least, long long most) {
    int c = cold_peek(), negative = c == '-';
    if (!negative && (c < '0' || c > '9')) {
        cold_lacks("is declared as an integer, and the problem gives it something else");
        cold_skip();
        return 0;
    }
    char word[40];
    errno = 0;
    long long x = strtoll(cold_digits(word, sizeof word), NULL, 10);
    if (errno || x < least || x > most) cold_lacks("is declared too small for an integer that the problem gives it");
    return x;
}

static double cold_real(void) {
    char word[400];
    return strtod(cold_digits(word, sizeof word), NULL);
}

static bool cold_truth(void) {
    char word[8];
    return *cold_digits(word, sizeof word) == 't';
}

// cold_text reads a text, or the digits of a bigint.
static char *cold_text(void) {
    size_t n = 0, room = 16;
    char *s = malloc(room);
    int c = cold_peek(), quoted = c == '"';
    if (quoted) cold_at++;
    while ((c = cold_peek()) >= 0 && (quoted ? c != '"' : c == '-' || (c >= '0' && c <= '9'))) {
        cold_at++;
        if (c == '\\') {
            c = cold_next();
            if (c == 'n') c = '\n';
            else if (c == 't') c = '\t';
            else if (c == 'u') {
                char hex[5] = {0};
                for (int i = 0; i < 4; i++) hex[i] = cold_next();
                c = strtol(hex, NULL, 16);
            }
        }
        if (n + 2 > room) s = realloc(s, room *= 2);
        s[n++] = c;
    }
    if (quoted) cold_at++;
    s[n] = 0;
    return s;
}

static char cold_char(void) {
    char *s = cold_text();
    if (strlen(s) > 1) cold_lacks("is declared as char, which does not hold a character that the problem gives it");
    char c = s[0];
    free(s);
    return c;
}

static void cold_put(int fd, const char *text, size_t n) {
    while (n > 0) {
        ssize_t done = write(fd, text, n);
        if (done < 0 && errno != EINTR) return;
        if (done > 0) text += done, n -= done;
    }
}

static char *cold_answer;
static size_t cold_size, cold_room;

static void cold_add(const char *text, size_t n) {
    if (cold_size + n + 1 > cold_room) cold_answer = realloc(cold_answer, cold_room = 2 * (cold_size + n + 1));
    memcpy(cold_answer + cold_size, text, n);
    cold_size += n;
}
static void cold_say(const char *text) { cold_add(text, strlen(text)); }

static void cold_give_integer(long long x) {
    char word[40];
    cold_add(word, snprintf(word, sizeof word, "%lld", x));
}
static void cold_give_real(double x) {
    char word[40];
    if (isnan(x)) cold_say("NaN");
    else if (isinf(x)) cold_say(x < 0 ? "-Infinity" : "Infinity");
    else cold_add(word, snprintf(word, sizeof word, "%.17g", x));
}
static void cold_give_truth(bool x) { cold_say(x ? "true" : "false"); }
static void cold_give_digits(const char *s) { cold_say(s ? s : "null"); }
static void cold_give_quoted(const char *s, size_t n) {
    cold_say("\"");
    for (size_t i = 0; i < n; i++) {
        unsigned char c = s[i];
        char word[8] = {'\\', (char)c};
        if (c == '"' || c == '\\') cold_add(word, 2);
        else if (c < ' ') cold_add(word, snprintf(word, sizeof word, "\\u%04x", c));
        else cold_add(s + i, 1);
    }
    cold_say("\"");
}
static void cold_give_text(const char *s) {
    if (s) cold_give_quoted(s, strlen(s));
    else cold_say("null");
}
static void cold_give_char(char c) { cold_give_quoted(&c, 1); }

/* The mark stands where the call ended: what it returned is written behind it. */
static bool cold_settled;
static void cold_settle(void) {
    if (cold_settled) return;
    cold_settled = true;
    fflush(NULL);
    cold_put(cold_streams[0], cold_mark, cold_mark_size);
    cold_put(cold_streams[1], cold_mark, cold_mark_size);
}

/* Each answer begins with the word that only this driver knows, and with how many
 * calls were answered before. */
static long cold_count;
static void cold_tag(void) {
    char tag[120];
    cold_put(3, tag, snprintf(tag, sizeof tag, "%.*s %ld ", (int)cold_mark_size - 2, cold_mark + 1, cold_count));
}

static long long cold_now(void) {
    struct timespec t;
    clock_gettime(CLOCK_PROCESS_CPUTIME_ID, &t);
    return t.tv_sec * 1000000000LL + t.tv_nsec;
}

static void cold_begin(void) {
    cold_in = fcntl(0, F_DUPFD_CLOEXEC, 10);
    int none = open("/dev/null", O_RDONLY);
    dup2(none, 0);
    if (none != 0) close(none);
    cold_streams[0] = fcntl(1, F_DUPFD_CLOEXEC, 10);
    cold_streams[1] = fcntl(2, F_DUPFD_CLOEXEC, 10);
    for (int c; (c = cold_next()) >= 0 && c != '\n';) {
        if (c == ' ') cold_mark_size = 1;
        else if (cold_mark_size > 0 && cold_mark_size < sizeof cold_mark - 1) cold_mark[cold_mark_size++] = c;
    }
    cold_mark[cold_mark_size++] = '\n';
    cold_settle();
    cold_tag();
    cold_put(3, "ready\n", 6);
}

@NODES@@HELPERS@
int main(void) {
    cold_begin();
    while (cold_peek() == '[') {
        long long cold_from = cold_total, cold_began = 0, cold_spent = 0;
        cold_misfit[0] = 0;
        cold_size = 0;
        cold_settled = false;
@TAKE@
        while (cold_peek() >= 0 && cold_next() != '\n') {}
        if (!cold_misfit[0]) {
            if (cold_total - cold_from > 100000) {
                cold_tag();
                cold_put(3, "begin\n", 6);
            }
@CALL@
        }
        cold_settle();
        char cold_head[300];
        cold_tag();
        cold_count++;
        if (cold_misfit[0]) {
            cold_put(3, cold_head, snprintf(cold_head, sizeof cold_head, "misfit 0 %s\n", cold_misfit));
        } else {
            cold_put(3, cold_head, snprintf(cold_head, sizeof cold_head, "done %lld ", cold_spent));
            cold_add("\n", 1);
            cold_put(3, cold_answer, cold_size);
        }
@FREE@
    }
    fflush(NULL);
    _exit(0);
}
