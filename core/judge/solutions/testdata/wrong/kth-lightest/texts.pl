# It sorts by text.
sub kth {
    my ($weights, $k) = @_;
    return (sort @$weights)[-$k];
}
