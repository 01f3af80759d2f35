# It takes each kind of value that every language has.
use List::Util qw(sum0);
sub tally_up {
    my ($rows, $names, $big, $scale, $flag, $mark, $huge, $maybe) = @_;
    my $sum = $big + sum0(map { @$_ } @$rows);
    return ($sum, [map { "$_$mark" } @$names], $scale * 2, [map { [reverse @$_] } reverse @$rows], $huge, !$flag, defined $maybe ? $maybe / 2 : undef);
}
