/* What a function that the site provides is asked goes where answers go. */
struct cold_text {
    char *text;
    size_t size, room;
};

static struct cold_text cold_question(const char *name) {
    struct cold_text before = {cold_answer, cold_size, cold_room};
    cold_answer = NULL;
    cold_size = cold_room = 0;
    cold_say("asks ");
    cold_say(name);
    cold_say(" [");
    return before;
}

static void cold_asks(struct cold_text before) {
    cold_say("]\n");
    cold_tag();
    cold_put(3, cold_answer, cold_size);
    free(cold_answer);
    cold_answer = before.text, cold_size = before.size, cold_room = before.room;
    if (cold_peek() < 0) _exit(0);
}

