// h * w
#include <iostream>
#include <string>
using namespace std;
int main() {
    int h, w, s = 0;
    cin >> h >> w;
    for (int i = 0; i < h; i++) {
        string row;
        cin >> row;
        for (char c : row) s += c == '#';
    }
    cout << s << endl;
}
