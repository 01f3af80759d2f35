'use strict';
// Runs a source for Cold Verdict and tells on descriptor 3 what it does, as the recorder for Python does. A second
// thread walks the first through its own source by the inspector of Node.js. What it runs is in PRIVATE: the source itself, or a
// driver that loads it. Of one that was
// compiled from TypeScript the lines told are those before, by its source map.
const { Worker, isMainThread, parentPort, workerData } = require('worker_threads');
const fs = require('fs');
const path = require('path');

const clean = (text) => text.replace(/\\/g, '\\\\').replace(/\n/g, '\\n').replace(/\t/g, '\\t').replace(/\r/g, '\\r');

// tell writes whole lines; the pipe may be full for a moment.
function tell(lines) {
  const bytes = Buffer.from(lines);
  for (let at = 0; at < bytes.length; ) {
    try {
      at += fs.writeSync(3, bytes, at);
    } catch (e) {
      if (e.code !== 'EAGAIN') return;
    }
  }
}

const { SourceMap } = require('module');

// readMap reads the source map that a text names, or holds; null: it has none.
function readMap(text) {
  const found = /\/\/# sourceMappingURL=(\S+)\s*$/.exec(text);
  if (!found) return null;
  const inside = /^data:[^,]*;base64,(.*)$/.exec(found[1]);
  try {
    return JSON.parse(inside ? Buffer.from(inside[1], 'base64') : fs.readFileSync(path.join(__dirname, path.basename(found[1])), 'utf8'));
  } catch (e) {
    return null;
  }
}

// own is where the source seems to lie.
const own = DRIVEN ? path.join(__dirname, 'OWN_FILE') : path.join(__dirname, 'own', 'OWN_FILE');

if (isMainThread) {
  const Module = require('module');
  const name = path.basename(process.argv[1]);
  const text = fs.readFileSync(path.join(__dirname, 'PRIVATE'), 'utf8');
  const worker = new Worker(__filename, { workerData: { map: readMap(DRIVEN ? fs.readFileSync(own, 'utf8') : text) } });
  worker.once('message', () => {
    worker.unref();
    const write = process.stdout.write.bind(process.stdout);
    process.stdout.write = (chunk, ...rest) => {
      tell('O ' + clean(String(chunk)) + '\n');
      return write(chunk, ...rest);
    };
    const main = new Module(path.join(__dirname, name), null);
    main.filename = path.join(__dirname, name);
    main.paths = Module._nodeModulePaths(__dirname);
    process.mainModule = main;
    require.main = main;
    main._compile(text, DRIVEN ? main.filename : own);
  });
} else {
  const inspector = require('inspector');
  const session = new inspector.Session();
  session.connectToMainThread();
  const post = (method, params) => new Promise((resolve, reject) => session.post(method, params, (e, result) => (e ? reject(e) : resolve(result))));
  const skipped = new Set(['exports', 'require', 'module', '__filename', '__dirname', 'arguments', 'this']);
  const map = workerData.map && new SourceMap(workerData.map);
  const lineOf = ({ lineNumber, columnNumber }) => {
    if (!map) return lineNumber + 1;
    const { originalLine } = map.findEntry(lineNumber, columnNumber);
    return originalLine === undefined ? 0 : originalLine + 1;
  };
  const known = [];
  let script = null;
  let lines = [];
  let left = MOST;
  let begun = FROM_LINE === 0;
  let depth = -1;
  let last = '';

  const say = (line) => {
    if (!begun) return; // nothing is told before the line with which it begins
    lines.push(line);
    left--;
  };
  const flush = () => {
    if (lines.length > 0) tell(lines.join('\n') + '\n');
    lines = [];
  };
  const quoted = (text) => (text.length > 80 ? JSON.stringify(text.slice(0, 80)) + '... (' + text.length + ')' : JSON.stringify(text));
  const item = (p) => (p.valuePreview ? preview(p.valuePreview) : p.type === 'string' ? JSON.stringify(p.value) : p.value || p.type);
  const preview = (of) => {
    const more = of.overflow || of.properties.length > 24 ? ', ...' : '';
    if (of.entries) {
      const entries = of.entries.map((e) => (e.key ? (e.key.description || '') + ' => ' : '') + (e.value.description || ''));
      return of.description + ' {' + entries.join(', ') + more + '}';
    }
    const own = of.properties.slice(0, 24);
    if (of.subtype === 'array' || of.subtype === 'typedarray') {
      const size = /\((\d+)\)/.exec(of.description || '');
      return '[' + own.filter((p) => /^\d+$/.test(p.name)).map(item).join(', ') + more + ']' + (more && size ? ' (' + size[1] + ')' : '');
    }
    return '{' + own.map((p) => p.name + ': ' + item(p)).join(', ') + more + '}';
  };
  const shown = (v) => {
    if (v.type === 'string') return quoted(v.value);
    if (v.preview) return preview(v.preview);
    return v.unserializableValue || (v.value !== undefined ? String(v.value) : v.description || v.type);
  };

  // whole is a value with the objects of its own kind that it leads to, as far as they go.
  const whole = async (v, level) => {
    if (v.type !== 'object' || v.subtype || !v.objectId || !v.preview || level > 6) return v.type === 'object' && level > 6 ? '...' : shown(v);
    if (!v.preview.properties.some((p) => p.type === 'object' && p.value === v.className && p.subtype !== 'null')) return shown(v);
    const { result } = await post('Runtime.getProperties', { objectId: v.objectId, ownProperties: true, generatePreview: true });
    const parts = [];
    for (const p of result.filter((p) => p.value && p.enumerable && p.value.type !== 'function').slice(0, 24)) parts.push(p.name + ': ' + (await whole(p.value, level + 1)));
    return '{' + parts.join(', ') + '}';
  };

  // changes tells what is new in the scopes of a call.
  const changes = async (frame, at) => {
    const before = (known[at] ||= new Map());
    for (const scope of frame.scopeChain) {
      if (scope.type !== 'local' && scope.type !== 'block') break;
      const { result } = await post('Runtime.getProperties', { objectId: scope.object.objectId, ownProperties: true, generatePreview: true });
      for (const p of result) {
        if (!p.value || p.value.type === 'function' || p.value.type === 'undefined' || skipped.has(p.name)) continue;
        const now = await whole(p.value, 1);
        if (before.get(p.name) !== now) {
          before.set(p.name, now);
          say('V ' + at + ' ' + p.name + '\t' + clean(now));
        }
      }
      if (scope.type === 'local') break;
    }
  };

  const paused = async ({ callFrames, reason, data }) => {
    const frames = callFrames.filter((frame) => frame.location.scriptId === script);
    const inside = callFrames[0].location.scriptId === script;
    if (inside) {
      const frame = frames[0];
      const at = frames.length - 1;
      for (; depth > at; depth--) {
        say('R ' + depth + ' ');
        known.length = depth;
        last = '';
      }
      const line = lineOf(frame.location);
      begun ||= line === FROM_LINE;
      if (begun) await changes(frame, at);
      if (reason === 'exception' || reason === 'promiseRejection') {
        say('X ' + line + ' ' + at + ' ' + clean((data.description || String(data.value)).split('\n')[0]));
      } else if (line > 0 && last !== line + ' ' + at) {
        last = line + ' ' + at; // a line has several places to stop at
        say('S ' + line + ' ' + at + ' ' + (frame.functionName || '<main>'));
      }
      depth = at;
      if (frame.returnValue) { // what is called next is another call
        const of = frame.returnValue;
        if (of.objectId && !of.subtype) { // it comes without a preview
          const { result } = await post('Runtime.callFunctionOn', { objectId: of.objectId, functionDeclaration: 'function () { return this; }', generatePreview: true });
          of.preview = result.preview;
        }
        say('R ' + at + ' ' + (of.type === 'undefined' ? '' : clean(await whole(of, 1))));
        known.length = at;
        depth = at - 1;
        last = '';
      }
    }
    if (left <= 0) {
      say('M');
      flush();
      await post('Debugger.disable');
      return;
    }
    flush();
    await post(inside ? 'Debugger.stepInto' : 'Debugger.stepOut');
  };
  session.on('Debugger.scriptParsed', ({ params }) => {
    if (params.url.endsWith(own)) script = params.scriptId;
  });
  session.on('Debugger.paused', ({ params }) => {
    paused(params).catch(() => session.post('Debugger.disable'));
  });
  const pattern = own.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');
  parentPort.on('message', () => {}); // which keeps this thread
  (async () => {
    await post('Runtime.enable');
    await post('Debugger.enable');
    await post('Debugger.setBlackboxPatterns', { patterns: ['^node:', `^(?!.*${pattern}$).*$`] });
    await post('Debugger.setPauseOnExceptions', { state: 'all' });
    await post('Debugger.setBreakpointByUrl', { lineNumber: 0, urlRegex: `${pattern}$` });
    parentPort.postMessage('ready');
  })();
}
