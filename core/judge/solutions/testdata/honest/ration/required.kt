fun ration(food: Int, team: Int): Int { require(team > 0) { "nobody to feed" }; return food / team }
