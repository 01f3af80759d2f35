# The same in Perl.
use strict;
use warnings;

my ($n, $capacity, @weights) = map { split } <STDIN>;
@weights = sort { $a <=> $b } @weights;
my ($light, $heavy, $sledges) = (0, $n - 1, 0);
while ($light <= $heavy) {
    $light++ if $light < $heavy && $weights[$light] + $weights[$heavy] <= $capacity;
    $heavy--;
    $sledges++;
}
print "$sledges\n";
