<?php
// The same in PHP.
$words = preg_split('/\s+/', trim(stream_get_contents(STDIN)));
$n = (int)$words[0];
$capacity = (int)$words[1];
$weights = array_map('intval', array_slice($words, 2, $n));
sort($weights);
$light = 0;
$heavy = $n - 1;
$sledges = 0;
while ($light <= $heavy) {
    if ($light < $heavy && $weights[$light] + $weights[$heavy] <= $capacity) $light++;
    $heavy--;
    $sledges++;
}
echo $sledges, "\n";
