// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
'use strict';
const fs = require('fs'), path = require('path'), Module = require('module');

const NAMES = @NAMES@;
const TAKES = @TAKES@; // types of the arguments
const CLASSES = @CLASSES@; // that the source declares, the last first
const NODES = @NODES@; // classes that may be those of nodes
const GIVEN = @GIVEN@; // functions that the site provides: our name, its spellings, and the type of what it returns
const UNDECLARED = @UNDECLARED@; // classes from which others are made, and which the source does not declare
const ARGUMENTS = @ARGUMENTS@; // their names
const CHANGES = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
const BOTH = @BOTH@ !== 0; // what is returned is a result, too
const NODE_OF = @NODE_OF@; // the argument of which a node is returned, from 1; 0: none
const PLACES_OF = @PLACES_OF@; // the argument of which others are nodes, from 1; 0: none
const COPY_OF = @COPY_OF@; // the argument of which a copy is returned, from 1; 0: none

const RESULTS = @RESULTS@; // and of what is returned

const CLASS = @CLASS@; // whose objects are made and called; empty: it is a function
const METHODS = @METHODS@; // of the class, by our names
const NEW = @NEW@; // types of what an object is made with

const SCRIPTED = @SCRIPTED@; // it takes or returns functions, and a call has steps on them
const RETURNS_FUNCTION = @RETURNS_FUNCTION@ !== 0;

const take = lines();
const token = take().split(' ')[2];
const mark = Buffer.from('\0' + token + '\n');

// lines reads standard input line by line, in pieces.
function lines() {
  const piece = Buffer.allocUnsafe(1 << 16);
  let kept = [], rest = Buffer.alloc(0);
  return function next() {
    for (;;) {
      const end = rest.indexOf(10);
      if (end >= 0) {
        kept.push(rest.subarray(0, end));
        rest = rest.subarray(end + 1);
        const line = kept.length === 1 ? kept[0].toString() : Buffer.concat(kept).toString();
        kept = [];
        return line;
      }
      if (rest.length) kept.push(Buffer.from(rest));
      const n = fs.readSync(0, piece, 0, piece.length, null);
      if (n === 0) return null;
      rest = piece.subarray(0, n);
    }
  };
}

function put(fd, data) {
  for (let at = 0; at < data.length;) {
    try {
      at += fs.writeSync(fd, data, at);
    } catch (error) {
      if (error.code !== 'EAGAIN') return; // the function has closed it
    }
  }
}

// Each answer begins with the word that only this driver knows, and with how many
// calls were answered before.
let count = 0;
const answer = (text) => put(3, Buffer.from(token + ' ' + count + ' ' + text + '\n'));
// The mark stands where the call ended: what it returned is written behind it.
let settled = false;
function settle() {
  if (settled) return;
  settled = true;
  put(1, mark);
  put(2, mark);
}

const isClass = (f) => typeof f === 'function' && /^class\b/.test(Function.prototype.toString.call(f));

// A clock of its own, on which the timers of the source run: no time passes but by its steps.
const clock = {
  now: 0,
  last: 0,
  timers: new Map(),
  tick: ((later) => () => new Promise((resolve) => later(resolve)))(setImmediate), // all that is ready is done

  add(every, f, ms, args) {
    const wait = Math.max(every ? 1 : 0, Number(ms) || 0);
    this.timers.set(++this.last, { at: this.now + wait, every: every ? wait : 0, run: () => f(...args) });
    return this.last;
  },

  next() {
    let found = null;
    for (const [id, timer] of this.timers) if (found === null || timer.at < this.timers.get(found).at) found = id;
    return found;
  },

  async advance(to) {
    await this.tick();
    for (let id = this.next(); id !== null && this.timers.get(id).at <= to; id = this.next()) {
      const timer = this.timers.get(id);
      this.now = timer.at;
      this.timers.delete(id);
      if (timer.every) this.timers.set(id, { ...timer, at: this.now + timer.every });
      try {
        timer.run();
      } catch (error) {
        throw new Threw(error);
      }
      await this.tick();
    }
    this.now = Math.max(this.now, to);
  },

  install() {
    globalThis.setTimeout = (f, ms, ...args) => this.add(false, f, ms, args);
    globalThis.setInterval = (f, ms, ...args) => this.add(true, f, ms, args);
    globalThis.clearTimeout = globalThis.clearInterval = (id) => { this.timers.delete(id); };
    const clock = this, Real = Date;
    globalThis.Date = class Date extends Real {
      constructor(...args) {
        if (args.length) super(...args);
        else super(clock.now);
      }
      static now() { return clock.now; }
    };
    performance.now = () => this.now;
  },
};

// given are the functions that the site provides, which the judge answers, by all their names.
const given_ = {};
let ready = false;
for (const [name, names, returns] of GIVEN)
  for (const spelling of names)
    given_[spelling] = (...args) => {
      if (!ready) throw new Error(name + ' is called before there is a case');
      answer('asks ' + name + ' ' + written(args, 0));
      return argument(returns, JSON.parse(take()));
    };

// handedIn calls a function with what the site provides, and returns the function that it returns; null: it returns none.
function handedIn(f) {
  if (!GIVEN.length || f.length !== GIVEN.length) return null;
  try {
    const inner = f(...GIVEN.map(([, names]) => given_[names[0]]));
    return typeof inner === 'function' ? inner : null;
  } catch {
    return null;
  }
}

// load runs the source as a module to whose end a look for the function is added,
// so that it need not be exported. The rules are those of all drivers: a method of the class
// Solution, a function, a method of another class, the last before the first. What takes
// other arguments, or is of a class that cannot be made without any, comes behind all others.
function load() {
  if (SCRIPTED) clock.install();
  Object.assign(globalThis, given_);
  for (const name of UNDECLARED) {
    globalThis[name] = class {};
    Object.assign(globalThis[name].prototype, given_);
  }
  const file = path.join(__dirname, @SCRIPT_TEXT@);
  const source = fs.readFileSync(file, 'utf8');
  const module_ = new Module(file, module);
  module_.filename = file;
  module_.paths = Module._nodeModulePaths(__dirname);
  module_._compile(`${source}\n;{ const cold_own = module.exports; module.exports = { own: cold_own, look: (name) => { try { return eval(name); } catch { return undefined; } } }; }`, file);
  const { own, look } = module_.exports;
  lookUp = look;
  if (CLASS) {
    const kind = [...NAMES.map(look), ...NAMES.map((n) => own && own[n]), own, own && own.default].find((k) => typeof k === 'function' && k.prototype);
    return kind ? new OfClass(kind) : null;
  }
  const found = [];
  const offer = (f, belongs, place, fits) => found.push({ f, rank: [fits ? 0 : 1, belongs, place] });
  const exported = own && typeof own === 'object' ? Object.values(own) : [];
  const free = [...NAMES.map(look), ...NAMES.map((n) => own && own[n]), own, own && own.default].filter((f) => typeof f === 'function' && !isClass(f));
  for (const f of GIVEN.length ? [...free, look('solution')] : []) {
    const inner = typeof f === 'function' ? handedIn(f) : null;
    if (inner) return new OfFunction(inner);
  }
  for (const f of free) offer(f, 1, found.length, f.length <= TAKES.length);
  const kinds = [...new Set([...CLASSES.map(look), own, ...exported])].filter((k) => typeof k === 'function' && k.prototype);
  for (const kind of GIVEN.length ? kinds : [])
    for (const [name, f] of Object.entries(given_)) if (!(name in kind.prototype)) kind.prototype[name] = f;
  for (const kind of kinds)
    for (const name of NAMES) {
      const belongs = kind.name === 'Solution' ? 0 : 2;
      if (typeof kind[name] === 'function') offer((...args) => kind[name](...args), belongs, found.length, kind[name].length <= TAKES.length);
      else if (made(kind, name)) offer((...args) => new kind()[name](...args), belongs, found.length, made(kind, name).length <= TAKES.length);
      else if (typeof kind.prototype[name] === 'function') offer((...args) => new kind()[name](...args), belongs, found.length, kind.prototype[name].length <= TAKES.length && kind.length === 0);
    }
  found.sort((a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.rank[2] - b.rank[2]);
  return found.length ? new (SCRIPTED ? OfScript : OfFunction)(found[0].f) : null;
}

// made is a method that objects of a class get only when they are made; null: they have none.
function made(kind, name) {
  if (kind.length > 0 || !isClass(kind) || typeof kind.prototype[name] === 'function') return null;
  try {
    const object = new kind();
    return typeof object[name] === 'function' ? object[name] : null;
  } catch {
    return null;
  }
}

// wide turns integers that a number does not hold, which come as texts, into
// BigInts.
function wide(type, value) {
  if (value === null) return null;
  if (type.endsWith('?')) return wide(type.slice(0, -1), value);
  if (type.startsWith('map(') && type.endsWith(')')) {
    const of = type.slice(type.indexOf(', ') + 2, -1);
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, wide(of, v)]));
  }
  if (type.endsWith('[]')) {
    const of = type.slice(0, -2);
    for (let i = 0; i < value.length; i++) value[i] = wide(of, value[i]);
    return value;
  }
  if (Array.isArray(value)) return value.map((v) => wide(type, v)); // of nodes
  return typeof value === 'string' ? BigInt(value) : value;
}

// real turns what JSON has no number for, which comes as a text, into that.
function real(value) {
  if (Array.isArray(value)) return value.map(real);
  return typeof value === 'string' ? Number(value) : value;
}

const kindsOf = new Map();

// argument makes what a function takes of what JSON has for it.
function argument(type, value) {
  if (!kindsOf.has(type)) kindsOf.set(type, /^(map\(\w+, |\w+\()?(long|bigint)/.test(type) ? 'wide' : /^(\w+\()?real/.test(type) ? 'real' : '');
  const kind = kindsOf.get(type);
  return taken(type, kind === 'wide' ? wide(type, value) : kind === 'real' ? real(value) : value);
}

// Fields of nodes, by the names that people give them.
const FIELDS = {
  value: ['val', 'value', 'data', 'key', 'item'],
  next: ['next', 'nxt'],
  prev: ['prev', 'previous'],
  left: ['left'],
  right: ['right'],
  children: ['children', 'kids'],
  neighbors: ['neighbors', 'neighbours', 'adjacent'],
};
const SHAPES = { list: ['value', 'next'], list2: ['value', 'prev', 'next'], tree: ['value', 'left', 'right'], nary: ['value', 'children'], graph: ['value', 'neighbors'] };
const USUAL = { list: 'ListNode', tree: 'TreeNode', list2: 'Node', nary: 'Node', graph: 'Node' };
const nodeTypes = {};
let visited = new Map(); // the places of the nodes of what was written last
let lookUp = () => undefined;

const shapeOf = (type) => { const end = type.indexOf('('); return end > 0 && type.endsWith(')') && !type.startsWith('map(') ? type.slice(0, end) : ''; };

// nodeType is the class of the nodes of a shape, the source's own before the usual one, and the names of its fields.
function nodeType(shape) {
  if (nodeTypes[shape]) return nodeTypes[shape];
  for (const name of [...CLASSES, ...NODES, USUAL[shape]]) {
    const kind = lookUp(name);
    if (typeof kind !== 'function') continue;
    const text = Function.prototype.toString.call(kind);
    const has = (field) => new RegExp('\\bthis\\.' + field + '\\s*=|[{;\\n]\\s*' + field + '\\s*[=;:]').test(text);
    const own = Object.fromEntries(SHAPES[shape].map((f) => [f, FIELDS[f].find(has)]));
    if (Object.values(own).every(Boolean) && !(shape === 'list' && FIELDS.prev.some(has))) return nodeTypes[shape] = [kind, own];
  }
  throw new Misfit('the source has no class of nodes with the fields ' + SHAPES[shape].map((f) => FIELDS[f][0]).join(', '));
}

// nodeMaker is what makes nodes of a shape of their values.
function nodeMaker(shape) {
  const [kind, own] = nodeType(shape), held = own.value;
  const links = Object.entries(own).filter(([f]) => f !== 'value' && f !== 'children' && f !== 'neighbors').map(([, name]) => name);
  const many = own.children || own.neighbors;
  return (value) => {
    const node = new kind(value);
    node[held] = value;
    for (const name of links) node[name] = null;
    if (many) node[many] = [];
    return node;
  };
}

// taken makes nodes of a value, where its type says that it is made of them.
function taken(type, value) {
  if (value === null) return null;
  if (type.endsWith('?')) return taken(type.slice(0, -1), value);
  if (type.endsWith('[]')) return type.includes('(') ? value.map((v) => taken(type.slice(0, -2), v)) : value;
  const shape = shapeOf(type);
  if (!shape) return value;
  let cycle = -1;
  if (!Array.isArray(value)) [value, cycle] = [value.list, value.cycle];
  if (value.length === 0) return null;
  const own = nodeType(shape)[1], made = nodeMaker(shape);
  if (shape === 'list' || shape === 'list2') {
    const nodes = value.map((v) => made(v));
    for (let i = 0; i + 1 < nodes.length || i + 1 === nodes.length && cycle >= 0; i++) {
      const other = nodes[i + 1] || nodes[cycle];
      nodes[i][own.next] = other;
      if (own.prev) other[own.prev] = nodes[i];
    }
    return nodes[0];
  }
  if (shape === 'graph') {
    const nodes = value.map((_, i) => made(i + 1));
    nodes.forEach((node, i) => { node[own.neighbors] = value[i].map((n) => nodes[n - 1]); });
    return nodes[0];
  }
  const nodes = [made(value[0])];
  let at = shape === 'tree' ? 1 : 2;
  const child = () => { const one = made(value[at]); nodes.push(one); return one; };
  for (const node of nodes) {
    if (shape === 'tree')
      for (const side of [own.left, own.right]) {
        if (at < value.length && value[at] !== null) node[side] = child();
        at++;
      }
    else {
      for (; at < value.length && value[at] !== null; at++) node[own.children].push(child());
      at++;
    }
  }
  return nodes[0];
}

// given makes values of nodes, where the type says that they are nodes.
function given(type, value) {
  if (type.endsWith('?')) return value === null || value === undefined ? null : given(type.slice(0, -1), value);
  if (type.endsWith('[]')) return type.includes('(') && Array.isArray(value) ? value.map((v) => given(type.slice(0, -2), v)) : value;
  const shape = shapeOf(type);
  if (!shape) return value;
  if (value === null || value === undefined) return [];
  const own = nodeType(shape)[1];
  const field = (node, f) => {
    if (node === null || typeof node !== 'object' || !(own[f] in node)) throw new Misfit(`it returned ${Array.isArray(node) ? 'an array' : node === null ? 'nothing' : 'a ' + typeof node} where a node was expected`);
    return node[own[f]] === undefined ? null : node[own[f]];
  };
  const seen = new Map(), values = [];
  visited = seen;
  if (shape === 'list' || shape === 'list2') {
    for (let node = value, before = null; node !== null; [node, before] = [field(node, 'next'), node]) {
      if (seen.has(node)) return { list: values, cycle: seen.get(node) };
      if (own.prev && field(node, 'prev') !== before) throw new Misfit(`it returned a list in which the link backwards of node ${values.length}, counted from 0, does not lead to the node before it`);
      seen.set(node, values.length);
      values.push(field(node, 'value'));
    }
    return values;
  }
  const nodes = [value];
  if (shape === 'graph') {
    seen.set(value, 0);
    for (const node of nodes) for (const other of field(node, 'neighbors')) if (!seen.has(other)) { seen.set(other, 0); nodes.push(other); }
    nodes.sort((a, b) => field(a, 'value') - field(b, 'value'));
    nodes.forEach((node, i) => seen.set(node, i + 1));
    return nodes.map((node) => field(node, 'neighbors').map((other) => seen.get(other)));
  }
  const once = (node) => {
    if (seen.has(node)) throw new Misfit(`it returned a tree in which the node with the value ${field(node, 'value')} has two parents`);
    seen.set(node, values.length);
    return field(node, 'value');
  };
  values.push(once(value));
  if (shape === 'nary') values.push(null);
  for (const node of nodes) {
    for (const child of shape === 'tree' ? [field(node, 'left'), field(node, 'right')] : field(node, 'children') || []) {
      values.push(child === null || child === undefined ? null : once(child));
      if (child) nodes.push(child);
    }
    if (shape === 'nary') values.push(null);
  }
  while (values.length && values[values.length - 1] === null) values.pop();
  return values;
}

function outcome(value) {
  if (RESULTS.length === 1) return given(RESULTS[0], value);
  return Array.isArray(value) && RESULTS.some((t) => t.includes('(')) ? value.map((v, i) => given(RESULTS[i] || '', v)) : value;
}

// gathered gathers what is computed only when it is read, which belongs to the call.
function gathered(value, depth) {
  if (value === null || typeof value !== 'object' || ArrayBuffer.isView(value)) return value;
  if (Array.isArray(value)) return depth < 100 && value.length > 0 && typeof value[0] === 'object' ? value.map((v) => gathered(v, depth + 1)) : value;
  return typeof value.next === 'function' && typeof value[Symbol.iterator] === 'function' ? Array.from(value, (v) => gathered(v, depth + 1)) : value;
}

class Misfit extends Error {}

// written writes a value as JSON, with what JSON has no word for.
function written(value, depth) {
  if (depth > 1000) throw new Misfit('it returned a value that is nested too deeply, or contains itself');
  switch (typeof value) {
    case 'undefined': return 'null';
    case 'bigint': return value.toString();
    case 'boolean': return value ? 'true' : 'false';
    case 'number': return Object.is(value, -0) ? '-0' : String(value); // an int as well as a real
    case 'string': return JSON.stringify(value);
    case 'object': break;
    default: throw new Misfit(`it returned a ${typeof value}, which is none of the problem's types`);
  }
  if (value === null) return 'null';
  if (value instanceof Map) return '{' + [...value].map(([k, v]) => JSON.stringify(String(k)) + ':' + written(v, depth + 1)).join() + '}';
  if (Array.isArray(value) || typeof value[Symbol.iterator] === 'function') {
    let text = '', i = 0;
    for (const item of value) text += (i++ ? ',' : '') + written(item, depth + 1);
    return '[' + text + ']';
  }
  return '{' + Object.entries(value).map(([k, v]) => JSON.stringify(k) + ':' + written(v, depth + 1)).join() + '}';
}

const now = () => { const used = process.cpuUsage(); return (used.user + used.system) * 1000; };

// Threw is what the source threw.
class Threw {
  constructor(error) { this.error = error; }
}

// Stalled says that nothing more will happen, and the promise that was returned has not settled.
class Stalled {}
let idle = null; // to be called then
process.on('beforeExit', ((later) => () => { if (idle) later(() => idle(new Stalled())); })(setImmediate));

// done does what the source is asked for, and notes how long that took.
async function done(times, work) {
  const began = now();
  try {
    let result = work();
    if (result && typeof result.then === 'function') result = await Promise.race([result, new Promise((resolve, reject) => { idle = reject; })]);
    return gathered(result, 0);
  } catch (error) {
    throw error instanceof Misfit || error instanceof Stalled ? error : new Threw(error);
  } finally {
    times.push(now() - began);
  }
}

// What each line asks for where the source has a function.
class OfFunction {
  constructor(f) { this.f = f; }

  read(values) {
    this.args = values.map((value, i) => argument(TAKES[i], value));
    this.originals = new Map();
    const of = NODE_OF || COPY_OF || PLACES_OF;
    if (of && this.args[of - 1]) {
      given(TAKES[of - 1], this.args[of - 1]);
      this.originals = visited;
    }
    if (PLACES_OF) {
      const nodes = new Map([...this.originals].map(([node, at]) => [at, node]));
      this.args = this.args.map((value, i) => TAKES[i].startsWith('node of ') ? nodes.get(value) || null : value);
    }
  }

  async text(times) {
    const result = await done(times, () => this.f(...this.args));
    settle();
    if (NODE_OF) {
      if (result && !this.originals.has(result)) throw new Misfit(`it returned a node that is none of argument ${NODE_OF}'s, even if one of these has the same value`);
      return result ? String(this.originals.get(result)) : 'null';
    }
    if (!CHANGES) return written(outcome(result), 0);
    if (!BOTH) return written(given(TAKES[CHANGES - 1], this.args[CHANGES - 1]), 0);
    const first = given(RESULTS[0], result);
    if (COPY_OF && result && [...visited.keys()].some((node) => this.originals.has(node))) throw new Misfit(`it returned nodes of argument ${COPY_OF} themselves, where a copy was asked for`);
    return written([first, given(TAKES[CHANGES - 1], this.args[CHANGES - 1])], 0);
  }
}

// large says that to write a value takes long enough to matter.
function large(value) {
  if (typeof value !== 'string' && !Array.isArray(value)) return false;
  return value.length > 2000 || Array.isArray(value) && value.some((one) => one && one.length > 100);
}

// What each line asks for where the source has a class: a sequence of calls of its objects. What a call
// returned is written at once, since later calls may change it.
class OfClass {
  constructor(kind) { this.kind = kind; }

  read([calls]) {
    this.steps = calls.map(([name, number, args, uses]) => {
      const takes = name === 'new' ? NEW : METHODS[name].takes;
      return { name, number, takes, args: args.map((value, i) => argument(takes[i], value)), uses };
    });
  }

  async text(times) {
    const objects = [], texts = [];
    let long = false;
    for (const { name, number, takes, args, uses } of this.steps) {
      if (long) answer('goes-on');
      long = false;
      for (let i = 0; i < uses.length; i += 2) args[uses[i]] = argument(takes[uses[i]], JSON.parse(texts[uses[i + 1]]));
      if (name === 'new') {
        await done(times, () => { objects[number] = new this.kind(...args); });
        texts.push('null');
        continue;
      }
      const method = METHODS[name], object = objects[number];
      const found = method.names.find((n) => typeof object[n] === 'function');
      if (!found) throw new Misfit(`${this.kind.name} has no method ${name}`);
      const result = await done(times, () => object[found](...args));
      long = method.returns && large(result);
      if (long) answer('writes');
      texts.push(method.returns ? written(given(method.returns, result), 0) : 'null');
    }
    return `[[${texts}],[${times}]]`;
  }
}

// What each line asks for where the source has a function that takes or returns functions: a call, and steps
// on what it returned.
class OfScript {
  constructor(f) { this.f = f; }

  read(values) {
    this.steps = values.pop();
    this.seen = {};
    this.args = values.map((value, i) => {
      if (TAKES[i] !== 'function') return argument(TAKES[i], value);
      const seen = this.seen[ARGUMENTS[i]] = { calls: 0, last: null };
      return (...args) => {
        seen.calls++;
        seen.last = args;
        return value === null ? undefined : value;
      };
    });
  }

  async text(times) {
    const texts = [], began = now();
    let open = 0;
    const keep = (i, result) => { texts[i] = written(gathered(result, 0), 0); };
    const threw = (i, error) => { texts[i] = JSON.stringify({ threw: error instanceof Error ? error.message : String(error) }); };
    const note = (i, work) => {
      let result;
      try {
        result = work();
      } catch (error) {
        return threw(i, error);
      }
      if (!result || typeof result.then !== 'function') return keep(i, result);
      texts[i] = '{"never settles":true}';
      open++;
      result.then((value) => { open--; keep(i, value); }, (error) => { open--; threw(i, error); });
    };
    clock.now = 0;
    clock.timers.clear();
    try {
      let made;
      try {
        made = this.f(...this.args);
        if (RETURNS_FUNCTION && made && typeof made.then === 'function') made = await made;
      } catch (error) {
        throw new Threw(error);
      }
      for (const [i, [at, what, name, calls]] of this.steps.entries()) {
        if (at >= 0) await clock.advance(at);
        if (what === 'calls') texts[i] = String(this.seen[name].calls);
        else if (what === 'last') texts[i] = written(this.seen[name].last, 0);
        else if (what === 'returned') note(i, () => made);
        else if (name && typeof (made || {})[name] !== 'function') throw new Misfit(`what it returned has no function ${name}`);
        else if (!name && typeof made !== 'function') throw new Misfit('it returned no function');
        else note(i, () => calls.slice(1).reduce((f, args) => f(...args), name ? made[name](...calls[0]) : made(...calls[0])));
        await clock.tick();
      }
      while (open > 0 && clock.timers.size > 0) await clock.advance(clock.timers.get(clock.next()).at);
    } finally {
      times.push(now() - began);
    }
    return `[${texts}]`;
  }
}

// answered makes what was read, and returns the answer.
async function answered(served) {
  const times = [], spent = () => times.reduce((a, b) => a + b, 0);
  try {
    const text = await served.text(times);
    return `done ${spent()} ${text}`;
  } catch (e) {
    if (e instanceof Stalled) return `stalled ${spent()} the promise that it returned never settles`;
    if (!(e instanceof Threw)) return `misfit ${spent()} ${e instanceof Misfit ? e.message : String(e).replace(/\n/g, ' ')}`;
    const { error } = e;
    put(2, Buffer.from((error instanceof Error ? error.stack : 'Uncaught ' + String(error)).split('\n').filter((line) => !line.includes('cold_driver')).join('\n') + '\n'));
    return `failed ${spent()} ${times.length}`;
  }
}

async function serve() {
  const served = load();
  if (!served) return answer('unserved there is no function ' + NAMES[0] + ' in @FILE@' + @NEARLY_TEXT@);
  settle();
  ready = true;
  answer('ready');
  for (let line = take(); line !== null; line = take()) {
    served.read(JSON.parse(line));
    if (line.length > 100000) answer('begin');
    settled = false;
    const words = await answered(served);
    settle();
    answer(words);
    count++;
  }
}

serve().then(() => process.exit(0), (error) => { console.error(error && error.stack || error); process.exit(1); });
