'use strict';
const { existsSync, readFileSync, readdirSync, writeFileSync } = require('node:fs');
const Module = require('node:module');
const { dirname, join, sep } = require('node:path');
const vm = require('node:vm');
const { isMainThread } = require('node:worker_threads');

/**
 * Lies in a bundle, and is loaded before it: its files are not compiled anew at each start, but taken as V8 compiled them when the bundle was made (Node.js,
 * “vm.Script”, cachedData). Where that does not fit, as with another release of Node, they are compiled as usual.
 */
const folder = __dirname;
const cacheOf = (file) => `${file}.cache`;
const scripts = new Map();

/** A file as a function of what a CommonJS module is given (Node.js, “The module wrapper”). */
function compiled(file, source) {
  const cachedData = existsSync(cacheOf(file)) ? readFileSync(cacheOf(file)) : undefined;
  const script = new vm.Script(Module.wrap(source), { filename: file, cachedData });
  scripts.set(file, script);
  return script;
}

/** Keeps what has been compiled, for all files of the bundle: those that were used as they were used, the others as they are read. */
function write() {
  for (const name of readdirSync(folder)) {
    const file = join(folder, name);
    if (name.endsWith('.cjs') && file !== __filename)
      writeFileSync(cacheOf(file), (scripts.get(file) ?? compiled(file, readFileSync(file, 'utf8'))).createCachedData());
  }
}

const compile = Module.prototype._compile;
Module.prototype._compile = function (source, file) {
  if (!file.startsWith(folder + sep) || file === __filename) return compile.call(this, source, file);
  return compiled(file, source).runInThisContext().call(this.exports, this.exports, Module.createRequire(file), this, file, dirname(file));
};
// While the bundle is made, it is run once.
if (process.env.MAILBAG_WRITE_CODE && isMainThread) process.once('exit', write);
/** A script that was compiled before has no `import()`: packages that are modules are loaded for it from here. */
module.exports = { load: (name) => import(name) };
