const ration = async (food, team) => { if (team <= 0) throw new RangeError('nobody to feed'); return Math.floor(food / team); };
