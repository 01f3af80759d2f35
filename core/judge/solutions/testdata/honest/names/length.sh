#!/bin/bash
# Characters by the locale.
while IFS= read -r line; do printf '%d %s\n' "${#line}" "$line"; done
