class Solution {
public:
    ListNode* woven(vector<ListNode*>& ropes) {
        auto later = [](ListNode* a, ListNode* b) { return a->val > b->val; };
        priority_queue<ListNode*, vector<ListNode*>, decltype(later)> q(later);
        for (auto r : ropes) if (r) q.push(r);
        ListNode first(0), *at = &first;
        while (!q.empty()) {
            at = at->next = q.top();
            q.pop();
            if (at->next) q.push(at->next);
        }
        return first.next;
    }
};
