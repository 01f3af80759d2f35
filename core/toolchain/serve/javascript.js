// Runs a source on many inputs for Cold Verdict, each in a context of its own, with standard streams of its own.
// What goes in and out is described in python.py. A run that fails in any way ends the server.
'use strict';
const fs = require('fs'), vm = require('vm'), path = require('path'), { createRequire } = require('module'), { Readable, Writable } = require('stream');

const leave = () => process.reallyExit(75);
const all = fs.readFileSync(0);
const file = path.resolve(process.argv[1]);
const source = fs.readFileSync(file, 'utf8').replace(/^#!.*/, '');
const script = new vm.Script('(function (exports, require, module, __filename, __dirname) {' + source + '\n})', { filename: file });
const start = new vm.Script('coldMain()');
const usual = createRequire(file);
let at = 0;

function line() {
  const end = all.indexOf(10, at);
  if (end < 0) return null;
  const text = all.toString('latin1', at, end);
  at = end + 1;
  return text;
}

const [wall, , most] = line().split(' ').map(Number);
const isInput = (name) => name === 0 || name === '/dev/stdin' || name === '/dev/fd/0' || name === '/proc/self/fd/0';
const output = { 1: 0, 2: 1, '/dev/stdout': 0, '/dev/stderr': 1 };

class Exit {}

// A Run is one input on its way.
class Run {
  constructor(text) {
    this.text = text;
    this.read = 0;
    this.parts = [[], []];
    this.size = 0;
    this.endings = [];
    this.spent = process.cpuUsage();
  }

  print(stream, chunk, encoding) {
    const bytes = typeof chunk === 'string' ? Buffer.from(chunk, typeof encoding === 'string' ? encoding : 'utf8') : Buffer.from(chunk);
    if ((this.size += bytes.length) > most) leave();
    this.parts[stream].push(bytes);
  }

  stream(which) {
    return new Writable({ decodeStrings: false, highWaterMark: 1 << 30, write: (chunk, encoding, done) => { this.print(which, chunk, encoding); done(); } });
  }

  input() {
    return this.stdin ||= Object.assign(new Readable({
      read() { this.push(this.left.length > this.from ? this.left.subarray(this.from, this.from += 1 << 16) : null); },
    }), { left: this.text, from: 0, fd: 0 });
  }

  rest(encoding) {
    const bytes = this.text.subarray(this.read);
    this.read = this.text.length;
    return encoding && encoding !== 'buffer' ? bytes.toString(encoding) : Buffer.from(bytes);
  }

  // files are the module fs, with the streams of this run.
  files() {
    const run = this, own = Object.create(fs);
    const encodingOf = (o) => typeof o === 'string' ? o : o && o.encoding;
    return Object.assign(own, {
      readFileSync: (name, o) => isInput(name) ? run.rest(encodingOf(o)) : fs.readFileSync(name, o),
      readFile: (name, o, done) => isInput(name) ? setImmediate(done || o, null, run.rest(done && encodingOf(o))) : fs.readFile(name, o, done),
      openSync: (name, ...more) => isInput(name) ? 0 : fs.openSync(name, ...more),
      closeSync: (fd) => fd > 2 ? fs.closeSync(fd) : undefined,
      fstatSync: (fd, ...more) => fd === 0 ? Object.assign(fs.fstatSync(0), { size: run.text.length }) : fs.fstatSync(fd, ...more),
      readSync(fd, buffer, from, length, position) {
        if (fd !== 0) return fs.readSync(fd, buffer, from, length, position);
        if (typeof from === 'object' && from) ({ offset: from, length, position } = from);
        const begin = typeof position === 'number' && position >= 0 ? position : run.read;
        from = from || 0;
        const bytes = run.text.subarray(begin, begin + (length === undefined ? buffer.byteLength - from : length));
        Buffer.from(buffer.buffer, buffer.byteOffset, buffer.byteLength).set(bytes, from);
        if (begin === run.read) run.read += bytes.length;
        return bytes.length;
      },
      createReadStream: (name, o) => isInput(name) || o && o.fd === 0 ? run.input() : fs.createReadStream(name, o),
      writeSync(fd, chunk, ...more) {
        if (!(fd in output)) return fs.writeSync(fd, chunk, ...more);
        run.print(output[fd], chunk, more[1]);
        return chunk.length;
      },
      writeFileSync: (name, chunk, o) => name in output ? run.print(output[name], chunk, encodingOf(o)) : fs.writeFileSync(name, chunk, o),
      appendFileSync: (name, chunk, o) => name in output ? run.print(output[name], chunk, encodingOf(o)) : fs.appendFileSync(name, chunk, o),
    });
  }

  begin() {
    const run = this, stdout = this.stream(0), stderr = this.stream(1);
    this.process = Object.create(process, {
      stdin: { get: () => run.input() },
      stdout: { value: stdout },
      stderr: { value: stderr },
      argv: { value: [process.argv[0], file, ...process.argv.slice(2)] },
      exitCode: { value: undefined, writable: true },
      exit: { value: (code) => { run.exited = true; if (Number(code ?? this.process.exitCode ?? 0) !== 0) leave(); throw new Exit(); } },
      on: { value: (event, does) => { (event === 'exit' || event === 'beforeExit') && run.endings.push(does); return run.process; } },
    });
    this.process.once = this.process.addListener = this.process.on;
    const files = this.files(), module = { exports: {}, filename: file, id: '.', loaded: false, children: [], paths: [] };
    const supplied = (name) => name === 'fs' || name === 'node:fs' ? files : name === 'process' || name === 'node:process' ? run.process : usual(name);
    Object.assign(supplied, usual, { main: module });
    const context = vm.createContext({
      Buffer, URL, URLSearchParams, TextEncoder, TextDecoder, AbortController, performance, structuredClone, queueMicrotask,
      setTimeout, clearTimeout, setInterval, clearInterval, setImmediate, clearImmediate,
      console: new console.Console({ stdout, stderr }), process: this.process,
    });
    context.global = context.globalThis = vm.runInContext('this', context);
    const main = script.runInContext(context);
    context.coldMain = () => { delete context.coldMain; main.call(module.exports, module.exports, supplied, module, file, path.dirname(file)); };
    try {
      start.runInContext(context, { timeout: wall });
    } catch (e) {
      if (!(e instanceof Exit)) leave();
    }
  }

  end() {
    for (const does of this.exited ? [] : this.endings) does.call(this.process, 0);
    if (Number(this.process.exitCode ?? 0) !== 0) leave();
    const [printed, errors] = this.parts.map((p) => Buffer.concat(p));
    const kept = errors.subarray(0, 65536);
    const { user, system } = process.cpuUsage(this.spent);
    const reply = Buffer.concat([Buffer.from(`0 ${user + system} 0 ${printed.length} ${kept.length}\n`), printed, kept]);
    for (let sent = 0; sent < reply.length;) sent += fs.writeSync(1, reply, sent);
  }
}

let run = null, watch = null;
process.on('uncaughtException', (e) => { if (!(e instanceof Exit)) leave(); });
process.on('unhandledRejection', (e) => { if (!(e instanceof Exit)) leave(); });
process.on('beforeExit', () => {
  if (run) run.end();
  clearTimeout(watch);
  const size = line();
  if (size === null) process.reallyExit(0);
  run = new Run(all.subarray(at, at += Number(size)));
  watch = setTimeout(leave, wall);
  watch.unref();
  setImmediate(() => run.begin());
});
