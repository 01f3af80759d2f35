<?php
function even_hours($n) { for ($i = 0; $i < $n; $i += 2) yield $i; }
