function packed(temps, missing) { temps = temps.filter(t => t !== missing); return temps.length; }
