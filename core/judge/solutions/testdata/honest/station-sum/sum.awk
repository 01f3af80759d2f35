# Fields.
NR > 1 { for (i = 1; i <= NF; i++) sum += $i }
END { printf "%.0f", sum }
