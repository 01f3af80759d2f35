/**
 * Definition for a node:
 * function ListNode(val, next) { this.val = val; this.next = next }
 */
var reversedRope = function(head) {
    let before = null;
    while (head) [head.next, before, head] = [before, head, head.next];
    return before;
};
