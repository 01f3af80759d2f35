# Runes.
import unicode
for line in stdin.lines: echo line.runeLen, " ", line
