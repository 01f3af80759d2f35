<?php
// The same in PHP.
$words = preg_split('/\s+/', trim(stream_get_contents(STDIN)));
$least = (int)$words[0];
$n = (int)$words[1];
$weights = array_map('intval', array_slice($words, 2, $n));
sort($weights);
$light = 0;
$heavy = $n - 1;
$teams = 0;
while ($light < $heavy) {
    if ($weights[$light] + $weights[$heavy] >= $least) { $heavy--; $teams++; }
    $light++;
}
echo $teams, "\n";
