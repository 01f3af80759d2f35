# Code points.
[inputs]|.[]|"\(length) \(.)"
