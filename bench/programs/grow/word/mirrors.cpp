// |name|^2
#include <iostream>
#include <string>
using namespace std;
int main() {
    string t;
    cin >> t;
    long long s = 0;
    int n = t.size();
    for (int i = 0; i < n; i++)
        for (int k = 0; k < n; k++) s += t[i] == t[(i + k) % n];
    cout << s << endl;
}
