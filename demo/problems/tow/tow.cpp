// The same; ListNode is there, as judges declare it.
class Solution {
public:
    ListNode *rehitched(ListNode *first, int k) {
        ListNode *last = first;
        for (int i = 0; i < k; i++, last = last->next)
            if (!last) return first;
        ListNode *turned = rehitchedRest(last, k), *node = first;
        while (node != last) {
            ListNode *behind = node->next;
            node->next = turned;
            turned = node;
            node = behind;
        }
        return turned;
    }

private:
    ListNode *rehitchedRest(ListNode *first, int k) { return rehitched(first, k); }
};
