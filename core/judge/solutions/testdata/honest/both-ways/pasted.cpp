class Solution {
public:
    Node* turned(Node* head) {
        Node* last = nullptr;
        while (head) { swap(head->prev, head->next); last = head; head = head->prev; }
        return last;
    }
};
