/**
 * class _Node {
 *     val: number
 *     children: _Node[]
 * }
 */
function inOrder(branch: _Node | null): number[] {
    return branch === null ? [] : [branch.val, ...branch.children.flatMap(inOrder)];
}
