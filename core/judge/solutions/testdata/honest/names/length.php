<?php
// Characters of a text, without a library.
while (($line = fgets(STDIN)) !== false) {
    $line = rtrim($line, "\n");
    echo preg_match_all('/./us', $line), " $line\n";
}
