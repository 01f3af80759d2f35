# Characters, decoded by hand.
use utf8;
use open qw(:std :encoding(UTF-8));
while (<STDIN>) { chomp; print length($_), " $_\n"; }
