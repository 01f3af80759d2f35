use strict;
sub watch_rows {
    my @hours = @{ shift() };
    my @rows;
    while (my @row = splice @hours, 0, 2) { push @rows, [@row] }
    return @rows;
}
