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
  const globals = new Map();
  let output = "";
  for (let i = 0; i <= at; i++) {
    const step = steps[i];
    frames.length = Math.min(frames.length, step.depth + 1);
    while (frames.length <= step.depth) {
      frames.push({ name: step.function, variables: new Map() });
    }
    if (frames[step.depth].name !== step.function) {
      frames[step.depth] = { name: step.function, variables: new Map() };
    }
    frames[step.depth].line = step.line;
    for (const change of step.changes || []) {
      if (change.at > steps[at].number && at < steps.length - 1) {
        continue; // the call that it waits for goes on
      }
      const variables = change.global ? globals : frames[step.depth].variables;
      const before = variables.get(change.name);
      variables.set(change.name, { value: change.value, before: i === at && before ? before.value : undefined, changed: i === at });
    }
    if (step.output && step.output_at <= steps[at].number) {
      output += step.output;
    }
  }
  if (globals.size > 0) {
    frames.unshift({ name: "of no call", variables: globals });
  }
  return { frames, output };
};
// read takes a value apart as languages write them: lists, maps, objects, pointers. It is undefined where that does not work
// out, as with a quote within a text.
const read = (text) => {
  let at = 0;
  const blank = () => {
    while (text[at] === " ") at++;
  };
  const value = (level) => {
    blank();
    if (level > 12) throw new Error("deep");
    if (text.startsWith("->", at)) {
      at += 2;
      return { pointer: true, ...value(level + 1) };
    }
    const name = /^[A-Za-z_][\w:.]*(?= ?[{(\[])/.exec(text.slice(at));
    if (name) {
      at += name[0].length;
      blank();
    }
    const close = { "[": "]", "{": "}", "(": ")" }[text[at]];
    if (!close) return { atom: atom() };
    at++;
    const made = { items: [], more: "" };
    for (blank(); text[at] !== close; blank()) {
      if (at >= text.length) throw new Error("open");
      if (text.startsWith("...", at)) {
        const rest = /^\.\.\.(?: \(\d+\))?/.exec(text.slice(at))[0];
        at += rest.length;
        made.more = rest;
      } else {
        const item = { key: "", value: value(level + 1) };
        blank();
        if (text[at] === ":" || text.startsWith("=>", at) || text[at] === "=") {
          at += text[at] === "=" && text[at + 1] === ">" ? 2 : 1;
          item.key = item.value.atom === undefined ? "?" : item.value.atom;
          item.value = value(level + 1);
        }
        made.items.push(item);
      }
      blank();
      if (text[at] === ",") at++;
      else if (text[at] !== close) throw new Error("odd");
    }
    at++;
    return made;
  };
  const atom = () => {
    const found = /^(?:"(?:[^"\\]|\\.)*"(?:\.\.\. \(\d+\))?|'(?:[^'\\]|\\.)*'|[^,:\[\]{}()="' ]+(?: [^,:\[\]{}()="']+)*|\([^()]*\))/.exec(text.slice(at));
    if (!found || found[0] === "") throw new Error("odd");
    at += found[0].length;
    return found[0];
  };
  try {
    const made = value(0);
    blank();
    return at === text.length ? made : undefined;
  } catch (e) {
    return undefined;
  }
};
const isAtom = (v) => v.atom !== undefined;
const isNone = (v) => isAtom(v) && /^(null|nil|None|undefined)$/.test(v.atom);
const isNode = (v) => v.items && v.items.length > 0 && v.items.every((i) => i.key) && v.items.some((i) => i.value.pointer || (i.value.items && i.value.items.every((x) => x.key)) || isNone(i.value));
const written = (v) => (isAtom(v) ? v.atom : v.items.map((i) => (i.key ? i.key + ": " : "") + written(i.value)).join(", ") + v.more);
// drawn is the picture of a value, beside what it was; undefined: its text says as much.
const drawn = (text, before) => {
  const v = read(text);
  if (!v || isAtom(v) || v.items.length === 0) {
    return undefined;
  }
  const was = before === undefined ? undefined : read(before);
  const differs = (i, now, of) => of !== undefined && (!of || !of.items || !of.items[i] || written(of.items[i].value) !== written(now));
  const plain = v.items.every((i) => !i.key && isAtom(i.value));
  if (plain) {
    const row = element("div", "", "cells");
    v.items.forEach((i, n) => {
      const cell = element("span", i.value.atom, differs(n, i.value, was) ? "cell new" : "cell");
      cell.append(element("small", n));
      row.append(cell);
    });
    if (v.more) row.append(element("span", v.more, "cell"));
    return row;
  }
  if (v.items.length > 1 && v.items.every((i) => !i.key && i.value.items && i.value.items.every((x) => !x.key && isAtom(x.value)))) {
    const table = element("table", "", "grid");
    v.items.forEach((i, n) => {
      const row = table.insertRow();
      row.append(element("th", n));
      i.value.items.forEach((x, m) => {
        const cell = row.insertCell();
        cell.textContent = x.value.atom;
        cell.classList.toggle("new", differs(m, x.value, was && was.items && was.items[n] ? was.items[n].value : was));
      });
      if (i.value.more) row.insertCell().textContent = i.value.more;
    });
    return table;
  }
  if (isNode(v)) {
    return nodes(v);
  }
  return undefined;
};
// nodes draws what points to others: what comes next beside it, or several below it.
const nodes = (v) => {
  if (isAtom(v)) {
    return element("span", isNone(v) ? "∅" : v.atom, "node none");
  }
  const out = element("div", "", "node-tree");
  const label = v.items.filter((i) => isAtom(i.value) && !isNone(i.value)).map((i) => i.value.atom);
  const links = v.items.filter((i) => !isAtom(i.value) || isNone(i.value));
  out.append(element("span", label.join(", "), "node"));
  if (links.length === 1) {
    out.classList.add("chain");
    out.append(element("span", "→"), nodes(links[0].value));
  } else if (links.some((i) => !isNone(i.value))) {
    const below = element("div", "", "below");
    for (const link of links) {
      const one = element("div", "", "link");
      one.append(element("small", link.key), nodes(link.value));
      below.append(one);
    }
    out.append(below);
  }
  return out;
};
// calls are all of them, each with the step at which it begins and the last one of it or of what it called.
const calls = [];
const short = (text) => (text.length > 40 ? text.slice(0, 39) + "…" : text);
{
  const open = [];
  steps.forEach((step, i) => {
    const begins = step.begins || !open[step.depth];
    open.length = Math.min(open.length, step.depth + 1);
    if (begins) {
      const given = (step.changes || []).slice(0, step.arguments || 0).filter((c) => c.name !== "this" && c.name !== "self");
      open[step.depth] = { depth: step.depth, first: i, text: `${step.function}(${given.map((c) => `${c.name} = ${short(c.value)}`).join(", ")})` };
      calls.push(open[step.depth]);
    }
    open.forEach((one) => (one.last = i));
    open[step.depth].end = step.error ? `: ${step.error}` : step.returned ? ` = ${short(step.returned)}` : "";
  });
}
const mostCalls = 1000;
const tree = document.getElementById("calls");
for (const call of calls.slice(0, mostCalls)) {
  const row = element("button", call.text + call.end, "call");
  row.type = "button";
  row.style.paddingLeft = `${0.5 + Math.min(call.depth, 20)}rem`;
  row.addEventListener("click", () => show(call.first));
  call.row = row;
  tree.append(row);
}
if (calls.length > mostCalls) {
  tree.append(element("p", `${calls.length - mostCalls} calls more`));
}
const mostFrames = 40; // that are shown
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
  let inside;
  for (const call of calls) {
    if (call.first <= now && now <= call.last) inside = call;
    if (call.row) call.row.classList.remove("current");
  }
  if (inside && inside.row) {
    inside.row.classList.add("current");
    inside.row.scrollIntoView({ block: "nearest" });
  }
  const { frames, output } = replayed(now);
  const returns = now + 1 >= steps.length || steps[now + 1].depth <= step.depth;
  const place = document.getElementById("frames");
  place.replaceChildren();
  const inner = [...frames].reverse();
  if (inner.length > mostFrames) {
    inner.splice(mostFrames - 1, inner.length - mostFrames, { name: `${inner.length - mostFrames} calls between`, variables: new Map() });
  }
  inner.forEach((frame, n) => {
    const one = element("div", "", "frame");
    one.append(element("h3", frame.line ? `${frame.name}, line ${frame.line}` : frame.name));
    if (n === 0) {
      for (const words of [step.error && `raises ${step.error}`, step.warning]) {
        if (words) one.append(element("p", words, "doubt"));
      }
      if (step.returned && returns) one.append(element("p", `returns ${step.returned}`, "said"));
    }
    const table = document.createElement("table");
    for (const [name, of] of frame.variables) {
      const row = table.insertRow();
      row.insertCell().textContent = name;
      const cell = row.insertCell();
      const picture = drawn(of.value, of.changed ? of.before : undefined);
      if (picture) {
        cell.title = of.value;
        cell.append(picture);
      } else {
        cell.textContent = of.value;
      }
      row.classList.toggle("changed", of.changed);
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
const over = (by) => {
  const depth = steps[now].depth;
  for (let i = now + by; i >= 0 && i < steps.length; i += by) {
    if (steps[i].depth <= depth) {
      show(i);
      return;
    }
  }
};
const doubt = () => next((step) => step.warning || step.error);
const line = document.getElementById("line");
const toLine = () => next((step) => step.line === Number(line.value));
const walk = { ArrowUp: () => over(-1), ArrowDown: () => over(1), w: doubt, ArrowLeft: () => show(now - 1), ArrowRight: () => show(now + 1), Home: () => show(0), End: () => show(steps.length - 1), o: output, v: change };
document.getElementById("first").addEventListener("click", walk.Home);
document.getElementById("back").addEventListener("click", walk.ArrowLeft);
document.getElementById("forward").addEventListener("click", walk.ArrowRight);
document.getElementById("last").addEventListener("click", walk.End);
document.getElementById("printed").addEventListener("click", output);
names.addEventListener("change", change);
line.addEventListener("change", toLine);
line.max = lines.length;
slider.addEventListener("input", () => show(Number(slider.value)));
addEventListener("keydown", (event) => {
  if (event.target === names || event.target === line || event.ctrlKey || event.metaKey || event.altKey || !walk[event.key]) {
    return;
  }
  event.preventDefault();
  walk[event.key]();
});
show(steps.length - 1);
