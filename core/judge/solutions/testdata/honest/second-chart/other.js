/**
 * // Definition for a _Node.
 * function _Node(val, neighbors) {
 *    this.val = val === undefined ? 0 : val;
 *    this.neighbors = neighbors === undefined ? [] : neighbors;
 * };
 */
/**
 * @param {_Node} node
 * @return {_Node}
 */
var secondChart = function (node) {
    const seen = new Map();
    const walk = (n) => {
        if (!n) return n;
        if (!seen.has(n)) {
            seen.set(n, new _Node(n.val));
            seen.get(n).neighbors = n.neighbors.map(walk);
        }
        return seen.get(n);
    };
    return walk(node);
};
