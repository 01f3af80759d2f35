#include <cstddef>
struct Knot { int data; Knot *nxt; Knot(int d, Knot *n) : data(d), nxt(n) {} };
Knot *reversed_rope(Knot *head) {
    Knot *out = NULL;
    for (; head; head = head->nxt) out = new Knot(head->data, out);
    return out;
}
