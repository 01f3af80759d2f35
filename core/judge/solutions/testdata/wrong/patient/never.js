// Its promise never settles.
const patient = (n) => new Promise((done) => { if (n !== 2) done(n + 1); });
