// Sequences of calls of a class: each call is read with its arguments, and made later.
template <class O> struct Step {
    size_t number = 0;                            // of its object
    std::vector<std::pair<size_t, size_t>> uses; // arguments, and the calls that returned them
    virtual ~Step() {}
    virtual void take(size_t argument) = 0; // reads one anew
    virtual void make(O *&object, std::string &text, long long &spent) = 0;
};

template <class O, class... P> struct StepWith : Step<O> {
    std::tuple<Held<P>...> args;
    StepWith() { takeAll(std::index_sequence_for<P...>{}); }
    template <size_t... i> void takeAll(std::index_sequence<i...>) {
        if (sizeof...(P) == 0) next();
        int order[] = {0, (next(), parameter = i + 1, std::get<i>(args).take(), 0)...};
        (void)order;
        next();
    }
    template <size_t... i> void takeOne(size_t argument, std::index_sequence<i...>) {
        int order[] = {0, (i == argument ? (parameter = i + 1, std::get<i>(args) = {}, std::get<i>(args).take(), 0) : 0)...};
        (void)order;
        (void)argument;
    }
    void take(size_t argument) override { takeOne(argument, std::index_sequence_for<P...>{}); }
};

template <class O, class F, class R, class... P> struct MethodStep : StepWith<O, P...> {
    F method;
    bool gives;
    MethodStep(F method, bool gives) : method(method), gives(gives) {}
    template <size_t... i> void call(O *object, std::string &text, long long &spent, std::index_sequence<i...>) {
        Timed<R>::run([&]() -> R { return (object->*method)(std::get<i>(this->args).pass()...); }, gives, text, spent);
        if (!gives) text = "null";
    }
    void make(O *&object, std::string &text, long long &spent) override { call(object, text, spent, std::index_sequence_for<P...>{}); }
};
template <class O, class C, class R, class... P> Step<O> *methodStep(R (C::*method)(P...), bool gives) { return new MethodStep<O, R (C::*)(P...), R, P...>(method, gives); }
template <class O, class C, class R, class... P> Step<O> *methodStep(R (C::*method)(P...) const, bool gives) { return new MethodStep<O, R (C::*)(P...) const, R, P...>(method, gives); }

template <class O, class... P> struct MakerStep : StepWith<O, P...> {
    template <size_t... i> O *made(std::index_sequence<i...>) { return new O(std::get<i>(this->args).pass()...); }
    void make(O *&object, std::string &text, long long &spent) override {
        long long began = now();
        object = made(std::index_sequence_for<P...>{});
        spent += now() - began;
        text = "null";
    }
};

template <class O, class Read> struct Sequence : Asked {
    Read read;
    std::vector<Step<O> *> steps;
    Sequence(Read read) : read(read) {}
    void take() override {
        word("[[");
        while (peek() != ']' && peek() >= 0 && misfit.empty()) {
            if (!steps.empty()) next();
            next();
            std::string name;
            cold_driver::take(name);
            next();
            size_t number = 0;
            cold_driver::take(number);
            next();
            Step<O> *step = read(name);
            steps.push_back(step);
            step->number = number;
            std::vector<size_t> uses;
            next();
            cold_driver::take(uses);
            for (size_t i = 0; i + 1 < uses.size(); i += 2) step->uses.push_back({uses[i], uses[i + 1]});
            next();
        }
    }
    void make(std::string &text, long long &spent) override {
        std::vector<O *> objects;
        std::vector<std::string> texts;
        std::string times;
        for (auto step : steps) {
            for (auto use : step->uses) {
                Elsewhere from(texts[use.second]);
                step->take(use.first);
            }
            if (objects.size() <= step->number) objects.resize(step->number + 1);
            long long began = spent;
            std::string said;
            if (misfit.empty()) step->make(objects[step->number], said, spent);
            texts.push_back(said);
            times += (times.empty() ? "" : ",") + std::to_string(spent - began);
        }
        text = "[[";
        for (auto &one : texts) text += (&one == &texts[0] ? "" : ",") + one;
        text += "],[" + times + "]]";
        for (auto object : objects) delete object;
    }
    void forget() override {
        for (auto step : steps) delete step;
        steps.clear();
    }
};

template <class O, class Read> void runSequences(Read read) {
    Sequence<O, Read> asked(read);
    answerAll(asked);
}

