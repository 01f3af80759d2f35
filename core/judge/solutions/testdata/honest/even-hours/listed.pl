sub even_hours { my $n = shift; return grep { $_ % 2 == 0 } 0 .. $n - 1; }
