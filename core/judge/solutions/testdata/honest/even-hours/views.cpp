#include <ranges>
auto even_hours(int n) { return std::views::iota(0, n) | std::views::filter([](int i) { return i % 2 == 0; }); }
