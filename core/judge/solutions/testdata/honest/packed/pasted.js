var packed = function(temps, missing) { let k = 0; for (const t of temps) if (t !== missing) temps[k++] = t; return k; };
