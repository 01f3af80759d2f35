// A promise that is refused.
const warmDays = async (temps, limit) => { if (!temps.length) throw new Error('none'); return temps.filter((t) => t > limit).length; };
