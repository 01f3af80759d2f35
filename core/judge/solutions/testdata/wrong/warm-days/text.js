// A text.
const warmDays = (temps, limit) => `${temps.filter((t) => t > limit).length}`;
