<?php
// It turns it round.
function isMirrored($word) { preg_match_all('/./us', $word, $m); return $m[0] === array_reverse($m[0]); }
