// By events.
let text = '';
process.stdin.setEncoding('utf8');
process.stdin.on('data', (d) => { text += d; });
process.stdin.on('end', () => {
  const values = text.split(/\s+/).filter(Boolean).slice(1).map(Number);
  process.stdout.write(String(values.reduce((a, b) => a + b, 0)));
});
