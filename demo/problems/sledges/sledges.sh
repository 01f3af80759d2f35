# The same in Bash: sort puts the weights in order, once from below and once from above.
read -r n capacity
words=$(tr -s ' ' '\n' | grep .)
mapfile -t up < <(sort -n <<< "$words")
mapfile -t down < <(sort -rn <<< "$words")
light=0 taken=0
while ((light + taken < n)); do
  if ((light + taken < n - 1 && up[light] + down[taken] <= capacity)); then ((light++)); fi
  ((taken++))
done
echo "$taken"
