# The same in Perl.
use strict;
use warnings;

my ($least, $n, @weights) = map { split } <STDIN>;
@weights = sort { $a <=> $b } @weights;
my ($light, $heavy, $teams) = (0, $n - 1, 0);
while ($light < $heavy) {
    if ($weights[$light] + $weights[$heavy] >= $least) { $heavy--; $teams++; }
    $light++;
}
print "$teams\n";
