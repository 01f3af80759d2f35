// Wrong: probes half metres, of which the interactor knows nothing.
const lines = [];
let wake = null;
require("readline").createInterface({ input: process.stdin })
    .on("line", line => { lines.push(line); if (wake) wake(); })
    .on("close", () => process.exit(0));
const hear = async () => {
    while (lines.length === 0) await new Promise(resolve => { wake = resolve; });
    return lines.shift();
};
(async () => {
    const [n] = (await hear()).split(" ").map(Number);
    let low = 1, high = n;
    while (high - low > 0.4) {
        const middle = (low + high) / 2;
        console.log("probe " + middle);
        if (await hear() === "deeper") low = middle;
        else high = middle;
    }
    console.log("depth " + Math.round(high));
    process.exit(0);
})();
