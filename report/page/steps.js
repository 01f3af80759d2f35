"use strict";
const steps = JSON.parse(document.getElementById("steps").textContent);
const lines = [...document.querySelectorAll("#source .line")];
const slider = document.getElementById("slider");
const names = document.getElementById("variable");
for (const name of new Set(steps.flatMap((s) => (s.changes || []).map((c) => c.name)))) {
  names.add(new Option(name, name));
}
slider.max = Math.max(0, steps.length - 1);
const element = (tag, text, of) => {
  const made = document.createElement(tag);
  made.textContent = text;
  if (of) {
    made.className = of;
  }
  return made;
};
// Frames are replayed from the first step: what a step changed shows once its line has run.
const replayed = (at) => {
  const frames = [];
  let output = "";
  for (let i = 0; i <= at; i++) {
    const step = steps[i];
    frames.length = Math.min(frames.length, step.depth + 1);
    while (frames.length <= step.depth) {
      frames.push({ name: step.function, variables: new Map(), changed: new Set() });
    }
    const frame = frames[step.depth];
    if (frame.name !== step.function) {
      frames[step.depth] = { name: step.function, variables: new Map(), changed: new Set() };
    }
    frames.forEach((one) => one.changed.clear());
    for (const change of step.changes || []) {
      frames[step.depth].variables.set(change.name, change.value);
      frames[step.depth].changed.add(change.name);
    }
    if (step.output && step.output_at <= steps[at].number) {
      output += step.output;
    }
  }
  return { frames, output };
};
let now = 0;
const show = (at) => {
  now = Math.min(Math.max(0, at), steps.length - 1);
  const step = steps[now];
  if (!step) {
    return;
  }
  slider.value = now;
  document.getElementById("at").textContent = `step ${step.number} of ${document.body.dataset.total || steps[steps.length - 1].number}, line ${step.line}`;
  lines.forEach((line) => line.classList.toggle("current", Number(line.dataset.line) === step.line));
  const current = lines[step.line - 1];
  if (current) {
    current.scrollIntoView({ block: "nearest" });
  }
  const { frames, output } = replayed(now);
  const place = document.getElementById("frames");
  place.replaceChildren();
  [...frames].reverse().forEach((frame, n) => {
    const one = element("div", "", "frame");
    one.append(element("h3", frame.name));
    if (n === 0 && (step.error || step.returned)) {
      one.append(element("p", step.error ? `raises ${step.error}` : `returns ${step.returned}`, "said"));
    }
    const table = document.createElement("table");
    for (const [name, value] of frame.variables) {
      const row = table.insertRow();
      row.insertCell().textContent = name;
      row.insertCell().textContent = value;
      row.classList.toggle("changed", n === 0 && frame.changed.has(name));
    }
    one.append(table);
    place.append(one);
  });
  document.getElementById("printed-so-far").textContent = output;
};
const next = (is) => {
  const found = steps.findIndex((step, i) => i > now && is(step));
  if (found >= 0) {
    show(found);
  }
};
const printed = new Set(steps.filter((step) => step.output).map((step) => step.output_at));
const output = () => next((step) => printed.has(step.number));
const change = () => next((step) => (step.changes || []).some((c) => c.name === names.value));
const walk = { ArrowLeft: () => show(now - 1), ArrowRight: () => show(now + 1), Home: () => show(0), End: () => show(steps.length - 1), o: output, v: change };
document.getElementById("first").addEventListener("click", walk.Home);
document.getElementById("back").addEventListener("click", walk.ArrowLeft);
document.getElementById("forward").addEventListener("click", walk.ArrowRight);
document.getElementById("last").addEventListener("click", walk.End);
document.getElementById("printed").addEventListener("click", output);
names.addEventListener("change", change);
slider.addEventListener("input", () => show(Number(slider.value)));
addEventListener("keydown", (event) => {
  if (event.target === names || event.ctrlKey || event.metaKey || event.altKey || !walk[event.key]) {
    return;
  }
  event.preventDefault();
  walk[event.key]();
});
show(steps.length - 1);
