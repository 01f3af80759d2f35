// It returns nothing.
class Solution {
    function tallyUp($rows, $names, $big, $scale, $flag, $mark, $huge, $maybe) {
        $sum = $big;
        foreach ($rows as $row) $sum += array_sum($row);
        [$sum, array_map(fn($n) => $n . $mark, $names), $scale * 2, array_map('array_reverse', array_reverse($rows)), $huge, !$flag, $maybe === null ? null : $maybe / 2];
    }
}
