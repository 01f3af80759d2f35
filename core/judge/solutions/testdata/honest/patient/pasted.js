// It returns a promise that takes a moment.
var patient = async function (n) {
  await new Promise((done) => setTimeout(done, 2));
  return n + 1;
};
