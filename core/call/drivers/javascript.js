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
const CHANGES = @CHANGES@; // the argument that is the result, from 1; 0: what is returned
const BOTH = @BOTH@ !== 0; // what is returned says how much of that argument counts, and is a result, too

const RESULTS = @RESULTS@; // and of what is returned

const CLASS = @CLASS@; // whose objects are made and called; empty: it is a function
const METHODS = @METHODS@; // of the class, by our names
const NEW = @NEW@; // types of what an object is made with

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
const settle = () => { put(1, mark); put(2, mark); };

const isClass = (f) => typeof f === 'function' && /^class\b/.test(Function.prototype.toString.call(f));

// load runs the source as a module to whose end a look for the function is added,
// so that it need not be exported. The rules are those of all drivers: a method of the class
// Solution, a function, a method of another class, the last before the first. What takes
// other arguments, or is of a class that cannot be made without any, comes behind all others.
function load() {
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
    return kind ? sequence(kind) : null;
  }
  const found = [];
  const offer = (f, belongs, place, fits) => found.push({ f, rank: [fits ? 0 : 1, belongs, place] });
  const exported = own && typeof own === 'object' ? Object.values(own) : [];
  for (const f of [...NAMES.map(look), ...NAMES.map((n) => own && own[n]), own, own && own.default])
    if (typeof f === 'function' && !isClass(f)) offer(f, 1, found.length, f.length <= TAKES.length);
  const kinds = [...new Set([...CLASSES.map(look), own, ...exported])].filter((k) => typeof k === 'function' && k.prototype);
  for (const kind of kinds)
    for (const name of NAMES) {
      const belongs = kind.name === 'Solution' ? 0 : 2;
      if (typeof kind[name] === 'function') offer((...args) => kind[name](...args), belongs, found.length, kind[name].length <= TAKES.length);
      else if (made(kind, name)) offer((...args) => new kind()[name](...args), belongs, found.length, made(kind, name).length <= TAKES.length);
      else if (typeof kind.prototype[name] === 'function') offer((...args) => new kind()[name](...args), belongs, found.length, kind.prototype[name].length <= TAKES.length && kind.length === 0);
    }
  found.sort((a, b) => a.rank[0] - b.rank[0] || a.rank[1] - b.rank[1] || a.rank[2] - b.rank[2]);
  return found.length ? found[0].f : null;
}

// sequence is a function that makes objects of a class and calls their methods, one after the other.
function sequence(kind) {
  return async (calls) => {
    const results = [];
    let object = null;
    for (const [name, args] of calls) {
      if (name === 'new') {
        object = new kind(...args.map((v, i) => taken(NEW[i], v)));
        results.push(null);
        continue;
      }
      const method = METHODS[name];
      const found = method.names.find((n) => typeof object[n] === 'function');
      if (!found) throw new Misfit(`${kind.name} has no method ${name}`);
      let result = object[found](...args.map((v, i) => taken(method.takes[i], v)));
      if (result && typeof result.then === 'function') result = await result;
      results.push(method.returns ? given(method.returns, gathered(result, 0)) : null);
    }
    return results;
  };
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

const widened = TAKES.map((type) => /^(\w+\()?(long|bigint)/.test(type));
const reals = TAKES.map((type) => /^(\w+\()?real/.test(type));

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
let lookUp = () => undefined;

const shapeOf = (type) => { const end = type.indexOf('('); return end > 0 && type.endsWith(')') ? type.slice(0, end) : ''; };

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

function newNode(shape, value) {
  const [kind, own] = nodeType(shape);
  const node = new kind(value);
  node[own.value] = value;
  for (const [f, name] of Object.entries(own)) if (f !== 'value') node[name] = f === 'children' || f === 'neighbors' ? [] : null;
  return node;
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
  const own = nodeType(shape)[1];
  if (shape === 'list' || shape === 'list2') {
    const nodes = value.map((v) => newNode(shape, v));
    for (let i = 0; i + 1 < nodes.length || i + 1 === nodes.length && cycle >= 0; i++) {
      const other = nodes[i + 1] || nodes[cycle];
      nodes[i][own.next] = other;
      if (own.prev) other[own.prev] = nodes[i];
    }
    return nodes[0];
  }
  if (shape === 'graph') {
    const nodes = value.map((_, i) => newNode(shape, i + 1));
    nodes.forEach((node, i) => { node[own.neighbors] = value[i].map((n) => nodes[n - 1]); });
    return nodes[0];
  }
  const nodes = [newNode(shape, value[0])];
  let at = shape === 'tree' ? 1 : 2;
  const child = () => { const one = newNode(shape, value[at]); nodes.push(one); return one; };
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
    seen.set(node, true);
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
  if (Array.isArray(value) || typeof value[Symbol.iterator] === 'function') {
    let text = '', i = 0;
    for (const item of value) text += (i++ ? ',' : '') + written(item, depth + 1);
    return '[' + text + ']';
  }
  return '{' + Object.entries(value).map(([k, v]) => JSON.stringify(k) + ':' + written(v, depth + 1)).join() + '}';
}

const now = () => { const used = process.cpuUsage(); return (used.user + used.system) * 1000; };

async function call(f, args) {
  const began = now();
  let result;
  try {
    result = f(...args);
    if (result && typeof result.then === 'function') result = await result;
    result = gathered(result, 0);
  } catch (error) {
    if (error instanceof Misfit) return `misfit 0 ${error.message}`;
    const spent = now() - began;
    put(2, Buffer.from((error instanceof Error ? error.stack : 'Uncaught ' + String(error)).split('\n').filter((line) => !line.includes('cold_driver')).join('\n') + '\n'));
    return `failed ${spent}`;
  }
  const spent = now() - began;
  try {
    return `done ${spent} ${written(BOTH ? [result, args[CHANGES - 1]] : CHANGES ? given(TAKES[CHANGES - 1], args[CHANGES - 1]) : outcome(result), 0)}`;
  } catch (error) {
    return `misfit ${spent} ${error instanceof Misfit ? error.message : String(error).replace(/\n/g, ' ')}`;
  }
}

async function serve() {
  const f = load();
  if (!f) return answer('unserved there is no function ' + NAMES[0] + ' in @FILE@' + @NEARLY_TEXT@);
  settle();
  answer('ready');
  for (let line = take(); line !== null; line = take()) {
    const args = JSON.parse(line);
    if (line.length > 100000) answer('begin');
    args.forEach((value, i) => { args[i] = widened[i] ? wide(TAKES[i], value) : reals[i] ? real(value) : value; args[i] = taken(TAKES[i], args[i]); });
    const words = await call(f, args);
    settle();
    answer(words);
    count++;
  }
}

serve().then(() => process.exit(0), (error) => { console.error(error && error.stack || error); process.exit(1); });
