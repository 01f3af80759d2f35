class Solution:
    def surveyCamp(self, limit, names, table, open, weight, sign, note, total):
        longest = max(names, key=len, default=note)
        return [[x + limit for x in row] for row in table], longest, (weight + total) / 2, any(open) and sign == "x", open[::-1]
