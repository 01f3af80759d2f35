# Characters by the locale.
{ print length($0) " " $0 }
