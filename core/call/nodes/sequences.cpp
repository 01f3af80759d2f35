// Sequences of calls of a class: each call is read with its arguments, and made later.
template <class O> struct Step {
    virtual ~Step() {}
    virtual void make(O *&object, std::string &text, long long &spent) = 0;
};

template <class... P, size_t... i> void takeAll(std::tuple<Held<P>...> &args, std::index_sequence<i...>) {
    if (sizeof...(P) == 0) next();
    int order[] = {0, (next(), parameter = i + 1, std::get<i>(args).take(), 0)...};
    (void)order;
    next();
}

template <class R> struct Result {
    template <class F> static void of(F call, bool gives, std::string &text, long long &spent) {
        long long began = now();
        typename std::remove_cv<typename std::remove_reference<R>::type>::type result = call();
        spent += now() - began;
        if (gives) give(text, result);
        else text += "null";
    }
};
template <> struct Result<void> {
    template <class F> static void of(F call, bool, std::string &text, long long &spent) {
        long long began = now();
        call();
        spent += now() - began;
        text += "null";
    }
};

template <class O, class F, class R, class... P> struct MethodStep : Step<O> {
    F method;
    bool gives;
    std::tuple<Held<P>...> args;
    MethodStep(F method, bool gives) : method(method), gives(gives) { takeAll<P...>(args, std::index_sequence_for<P...>{}); }
    template <size_t... i> void call(O *object, std::string &text, long long &spent, std::index_sequence<i...>) {
        Result<R>::of([&]() -> R { return (object->*method)(std::get<i>(args).pass()...); }, gives, text, spent);
    }
    void make(O *&object, std::string &text, long long &spent) override { call(object, text, spent, std::index_sequence_for<P...>{}); }
};
template <class O, class C, class R, class... P> Step<O> *methodStep(R (C::*method)(P...), bool gives) { return new MethodStep<O, R (C::*)(P...), R, P...>(method, gives); }
template <class O, class C, class R, class... P> Step<O> *methodStep(R (C::*method)(P...) const, bool gives) { return new MethodStep<O, R (C::*)(P...) const, R, P...>(method, gives); }

template <class O, class... P> struct MakerStep : Step<O> {
    std::tuple<Held<P>...> args;
    MakerStep() { takeAll<P...>(args, std::index_sequence_for<P...>{}); }
    template <size_t... i> O *made(std::index_sequence<i...>) { return new O(std::get<i>(args).pass()...); }
    void make(O *&object, std::string &text, long long &spent) override {
        long long began = now();
        delete object;
        object = nullptr;
        object = made(std::index_sequence_for<P...>{});
        spent += now() - began;
        text += "null";
    }
};

template <class O, class Read> void runSequences(Read read) {
    begin();
    while (peek() == '[') {
        std::vector<Step<O> *> steps;
        long long from = total, spent = 0;
        misfit.clear();
        next();
        next();
        while (peek() != ']' && peek() >= 0 && misfit.empty()) {
            if (!steps.empty()) next();
            next();
            std::string name;
            take(name);
            next();
            steps.push_back(read(name));
            next();
        }
        while (peek() >= 0 && next() != '\n') {}
        std::string text = "[", said;
        if (misfit.empty()) {
            if (total - from > 100000) answer("begin");
            O *object = nullptr;
            for (size_t i = 0; i < steps.size(); i++) {
                if (i > 0) text += ',';
                steps[i]->make(object, text, spent);
            }
            delete object;
        }
        for (auto step : steps) delete step;
        said = misfit.empty() ? "done " + std::to_string(spent) + " " + text + "]" : "misfit " + std::to_string(spent) + " " + misfit;
        settle();
        answer(said);
        count++;
    }
}

