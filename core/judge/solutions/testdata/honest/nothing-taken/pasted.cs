public class Solution { public string[] StationNames() { return new[] { "Hoarfrost", "Rime" }; } }
