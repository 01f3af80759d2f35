class Solution {
public:
    Node* turned(Node* head) {
        Node* last = nullptr;
        while (head) { Node *after = head->next; head->next = last; last = head; head = after; }
        return last;
    }
};
