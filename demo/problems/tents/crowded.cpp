// Wrong: leaves d - 1 paces between two tents where d is asked for.
#include <iostream>
#include <string>

int main() {
    int n, k, d;
    std::string ground;
    std::cin >> n >> k >> d >> ground;
    std::string answer;
    for (int pace = 0, next = 0; pace < n; pace++)
        if (ground[pace] == '.' && pace >= next && k > 0) {
            answer += std::to_string(pace + 1) + ' ';
            next = pace + d - 1;
            k--;
        }
    std::cout << (k == 0 ? answer : "0") << '\n';
}
