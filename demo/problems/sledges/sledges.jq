# The same in jq, on raw lines: the state walks through the sorted weights.
[inputs | split(" ")[] | select(. != "") | tonumber]
| .[1] as $capacity
| (.[2:] | sort) as $weights
| [0, (($weights | length) - 1), 0]
| until(.[0] > .[1];
    if .[0] < .[1] and $weights[.[0]] + $weights[.[1]] <= $capacity
    then [.[0] + 1, .[1] - 1, .[2] + 1]
    else [.[0], .[1] - 1, .[2] + 1] end)
| .[2]
