// It has room for one digit.
string packed(string word) {
    string out;
    for (size_t i = 0, j; i < word.size(); i = j) {
        for (j = i; j < word.size() && word[j] == word[i]; j++) {}
        out += word[i];
        if (j - i > 1) out += char('0' + (j - i));
    }
    return out;
}
