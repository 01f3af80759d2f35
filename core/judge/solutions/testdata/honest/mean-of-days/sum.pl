# Nothing is undef.
sub mean_of_days {
    my ($days) = @_;
    my $sum = 0;
    $sum += $_ for @$days;
    return @$days ? $sum / @$days : undef;
}
