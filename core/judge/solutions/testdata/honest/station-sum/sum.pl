# A pipe's words, and no strictness.
<STDIN>;
$sum += $_ for map { split } <STDIN>;
printf "%d", $sum;
