# It prints on its way.
sub loud { print "n is $_[0]\n"; return $_[0] ** 2 }
