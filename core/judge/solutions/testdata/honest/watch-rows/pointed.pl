sub watch_rows {
    my $hours = shift;
    my @rows;
    for my $i (0 .. $#$hours) {
        push @rows, [] if $i % 2 == 0;
        push @{ $rows[-1] }, $hours->[$i];
    }
    [@rows];
}
