// It loses the last run.
function packed(word) {
  let out = '', n = 1;
  for (let i = 1; i < word.length; i++)
    if (word[i] === word[i - 1]) n++;
    else { out += word[i - 1] + (n > 1 ? n : ''); n = 1; }
  return out;
}
