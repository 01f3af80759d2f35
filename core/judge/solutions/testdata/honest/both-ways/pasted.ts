function turned(head: Node | null): Node | null {
    let cur = head, last: Node | null = null;
    while (cur) {
        const next = cur.next;
        cur.next = cur.prev; cur.prev = next;
        last = cur; cur = next;
    }
    return last;
}
