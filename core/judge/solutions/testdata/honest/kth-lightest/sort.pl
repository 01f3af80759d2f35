# It sorts by number.
sub kth {
    my ($weights, $k) = @_;
    return (sort { $a <=> $b } @$weights)[$k - 1];
}
