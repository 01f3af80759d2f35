#!/bin/bash
# A pipe of several programs, in the background.
read -r n
sum=0
for x in $(cat); do sum=$((sum + x)); done
wait
printf '%s' "$sum"
