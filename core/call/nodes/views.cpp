#if __cplusplus >= 202002L
namespace cold_driver {
/* What is computed only when it is read is read as a part of the call. */
template <class R> requires(std::ranges::view<std::remove_cvref_t<R>> && !std::convertible_to<R, std::string_view>) struct Timed<R> {
    template <class F> static void run(F call, bool gives, std::string &text, long long &spent) {
        long long began = now();
        auto lazy = call();
        std::vector<std::ranges::range_value_t<decltype(lazy)>> result;
        for (auto &&value : lazy) result.push_back(value);
        spent += now() - began;
        if (alone) settle();
        if (gives) give(text, result);
    }
};
}
#endif
