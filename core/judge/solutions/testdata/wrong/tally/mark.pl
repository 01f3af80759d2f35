# It forgets what is marked.
use List::Util qw(sum0);
sub tally_up {
    my ($rows, $names, $big, $scale, $flag, $mark, $huge, $maybe) = @_;
    my $sum = $big + sum0(map { @$_ } @$rows);
    return ($sum, [map { "$_" } @$names], $scale * 2, [map { [reverse @$_] } reverse @$rows], $huge, !$flag, defined $maybe ? $maybe / 2 : undef);
}
