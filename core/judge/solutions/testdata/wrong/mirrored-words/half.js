// It looks at the ends alone.
function isMirrored(word) { return word[0] === word[word.length - 1]; }
