# Raw lines.
[inputs][1:] | [.[] | split(" ")[] | select(. != "") | tonumber] | add // 0 | tostring
