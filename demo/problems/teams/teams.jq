# The same in jq, on raw lines: the state walks through the sorted weights.
[inputs | split(" ")[] | select(. != "") | tonumber]
| .[0] as $least
| (.[2:] | sort) as $weights
| [0, (($weights | length) - 1), 0]
| until(.[0] >= .[1];
    if $weights[.[0]] + $weights[.[1]] >= $least
    then [.[0] + 1, .[1] - 1, .[2] + 1]
    else [.[0] + 1, .[1], .[2]] end)
| .[2]
