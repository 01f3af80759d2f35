// Wrong: the last sledge that was turned still leads to the one that is now before it.
class Solution {
public:
    ListNode *rehitched(ListNode *first, int k) {
        ListNode *last = first;
        for (int i = 0; i < k; i++, last = last->next)
            if (!last) return first;
        ListNode *turned = first, *node = first->next;
        while (node != last) {
            ListNode *behind = node->next;
            node->next = turned;
            turned = node;
            node = behind;
        }
        if (last) first->next = rehitched(last, k);
        return turned;
    }
};
