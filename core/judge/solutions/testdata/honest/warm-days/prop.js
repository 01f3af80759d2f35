// A field holds the method.
class Solution { warmDays = (temps, limit) => temps.filter((t) => t > limit).length; }
