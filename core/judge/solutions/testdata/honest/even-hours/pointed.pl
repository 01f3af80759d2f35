sub even_hours {
    my ($n) = @_;
    my @hours;
    for (my $i = 0; $i < $n; $i += 2) { push @hours, $i }
    return \@hours;
}
