// Calls the function of @FILE@ for Cold Verdict. Each line of standard input
// after the first holds the arguments of one call, as JSON; the answer to each goes
// to descriptor 3. What the function prints stays what it prints; a mark behind it
// says which call it belongs to.
'use strict';
const fs = require('fs'), path = require('path'), Module = require('module');

const NAMES = @NAMES@;
const TAKES = @TAKES@; // types of the arguments
const CLASSES = @CLASSES@; // that the source declares, the last first
const CHANGES = @CHANGES@; // the argument that is the result, from 1; 0: what is returned

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
  return typeof value === 'string' ? BigInt(value) : value;
}

// real turns what JSON has no number for, which comes as a text, into that.
function real(value) {
  if (Array.isArray(value)) return value.map(real);
  return typeof value === 'string' ? Number(value) : value;
}

const widened = TAKES.map((type) => /^(long|bigint)/.test(type));
const reals = TAKES.map((type) => /^real/.test(type));

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
    const spent = now() - began;
    put(2, Buffer.from((error instanceof Error ? error.stack : 'Uncaught ' + String(error)).split('\n').filter((line) => !line.includes('cold_driver')).join('\n') + '\n'));
    return `failed ${spent}`;
  }
  const spent = now() - began;
  try {
    return `done ${spent} ${written(CHANGES ? args[CHANGES - 1] : result, 0)}`;
  } catch (error) {
    return `misfit ${spent} ${error instanceof Misfit ? error.message : String(error).replace(/\n/g, ' ')}`;
  }
}

async function serve() {
  const f = load();
  if (!f) return answer('unserved there is no function ' + NAMES[0] + ' in @FILE@');
  settle();
  answer('ready');
  for (let line = take(); line !== null; line = take()) {
    const args = JSON.parse(line);
    if (line.length > 100000) answer('begin');
    args.forEach((value, i) => { args[i] = widened[i] ? wide(TAKES[i], value) : reals[i] ? real(value) : value; });
    const words = await call(f, args);
    settle();
    answer(words);
    count++;
  }
}

serve().then(() => process.exit(0), (error) => { console.error(error && error.stack || error); process.exit(1); });
