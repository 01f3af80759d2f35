<?php
// From the first on.
function first_frost($temps) {
    foreach ($temps as $i => $t) if ($t < 0) return $i;
    return -1;
}
