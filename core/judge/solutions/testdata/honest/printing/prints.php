<?php
// It prints on its way.
function loud($n) { echo "n is $n\n"; return $n * $n; }
