# The same in Bash: sort puts the weights in order, once from below and once from above.
read -r least n
words=$(tr -s ' ' '\n' | grep .)
mapfile -t up < <(sort -n <<< "$words")
mapfile -t down < <(sort -rn <<< "$words")
light=0 teams=0
while ((light + teams < n - 1)); do
  if ((up[light] + down[teams] >= least)); then ((teams++)); fi
  ((light++))
done
echo "$teams"
