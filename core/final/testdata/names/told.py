def told(word, next, lines, rest, left, used, len, text):
    return lines + [rest, text, str(int(word + sum(next) + left * 2 + sum(used) + len - 5))]
