<?php
// It says what is wrong.
function fuel_for($days, $huts) {
    if ($huts === 0) throw new InvalidArgumentException('no huts');
    return intdiv($days, $huts);
}
