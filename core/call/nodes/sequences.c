/* Sequences of calls of a class: each call is read with its arguments, and made. Of what
 * each one gave the text is kept: a later call may be handed it. */
static OBJECT *cold_objects;
static long long *cold_spent;
static size_t *cold_ends;
static long cold_steps, cold_objects_room, cold_steps_room, cold_object;
static long *cold_used, cold_used_count, cold_used_room;
static char *cold_kept_bytes;
static size_t cold_kept_at, cold_kept_end;

static void cold_uses(void) {
    cold_next();
    cold_used_count = 0;
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0) {
        if (cold_used_count > 0) cold_next();
        if (cold_used_count == cold_used_room) cold_used = realloc(cold_used, (cold_used_room = 2 * cold_used_room + 8) * sizeof *cold_used);
        cold_used[cold_used_count++] = cold_integer(0, INT_MAX);
    }
    cold_next();
}

/* cold_handed reports that an argument is what an earlier call returned, which is read next. */
static bool cold_handed(int argument) {
    for (long i = 0; i + 1 < cold_used_count; i += 2)
        if (cold_used[i] == argument) {
            size_t from = cold_used[i + 1] == 0 ? 2 : cold_ends[cold_used[i + 1] - 1] + 1, to = cold_ends[cold_used[i + 1]];
            cold_kept_bytes = cold_bytes, cold_kept_at = cold_at, cold_kept_end = cold_end;
            cold_bytes = malloc(to - from + 1);
            memcpy(cold_bytes, cold_answer + from, to - from);
            cold_at = 0, cold_end = to - from;
            cold_bytes[cold_end++] = ']';
            return true;
        }
    return false;
}

static void cold_back(void) {
    free(cold_bytes);
    cold_bytes = cold_kept_bytes, cold_at = cold_kept_at, cold_end = cold_kept_end;
}

HELPERSstatic void cold_step(const char *cold_name) {
STEPS}

static void cold_sequence(void) {
    cold_steps = 0;
    long objects = 0;
    cold_say("[[");
    cold_next();
    cold_next();
    while (cold_peek() != ']' && cold_peek() >= 0 && !cold_misfit[0]) {
        if (cold_steps > 0) {
            cold_next();
            cold_say(",");
        }
        if (cold_steps == cold_steps_room) {
            cold_steps_room = 2 * cold_steps_room + 32;
            cold_spent = realloc(cold_spent, cold_steps_room * sizeof *cold_spent);
            cold_ends = realloc(cold_ends, cold_steps_room * sizeof *cold_ends);
        }
        cold_next();
        char *name = cold_text();
        cold_next();
        cold_object = cold_integer(0, INT_MAX);
        cold_next();
        if (cold_object >= cold_objects_room) {
            long room = 2 * cold_object + 8;
            cold_objects = realloc(cold_objects, room * sizeof *cold_objects);
            memset(cold_objects + cold_objects_room, 0, (room - cold_objects_room) * sizeof *cold_objects);
            cold_objects_room = room;
        }
        if (cold_object >= objects) objects = cold_object + 1;
        cold_step(name);
        free(name);
        cold_ends[cold_steps++] = cold_size;
        cold_next();
    }
    cold_say("],[");
    for (long i = 0; i < cold_steps; i++) {
        if (i > 0) cold_say(",");
        cold_give_integer(cold_spent[i]);
    }
    cold_say("]]");
    for (long i = 0; i < objects; i++) {
FREE        cold_objects[i] = NULL;
    }
}

static void cold_spent_in_all(long long *spent) {
    for (long i = 0; i < cold_steps; i++) *spent += cold_spent[i];
}

