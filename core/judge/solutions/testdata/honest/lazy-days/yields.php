<?php
// It is a generator.
function lazyDays($n) { for ($i = 0; $i < $n; $i++) yield 2 * $i + 1; }
