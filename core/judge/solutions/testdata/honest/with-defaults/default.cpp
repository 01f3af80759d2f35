// A third parameter has a default.
string padded(string word, int width, char fill = '.') {
    while ((int)word.size() < width) word += fill;
    return word;
}
