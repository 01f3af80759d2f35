<?php
// As a script that is not closed.
fscanf(STDIN, "%d", $n);
$sum = 0;
foreach (preg_split('/\s+/', stream_get_contents(STDIN), -1, PREG_SPLIT_NO_EMPTY) as $x) $sum += (int) $x;
echo $sum, PHP_EOL;
