// The library has it.
const firstFrost = (temps) => temps.findIndex((t) => t < 0);
