# A pattern finds runs.
sub packed {
    my ($word) = @_;
    $word =~ s/(.)(\1+)/$1 . (1 + length $2)/ge;
    return $word;
}
