<?php
// It turns bytes round.
function isMirrored($word) { return $word === strrev($word); }
