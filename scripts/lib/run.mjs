import { spawn } from 'node:child_process';

/**
 * Runs a command to its end; its output is shown only when it fails. Answers stdout.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {object} [options]
 * @returns {Promise<string>}
 */
export function quietly(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let out = '';
    let all = '';
    child.stdout.on('data', (data) => {
      out += data;
      all += data;
    });
    child.stderr.on('data', (data) => {
      all += data;
    });
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) resolve(out);
      else reject(new Error(`${command} ${args.join(' ')} ended with ${code}:\n${all.slice(-6000)}`));
    });
  });
}

/** Runs a command with its output shown; answers its exit code. */
export function shown(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('close', (code, signal) => resolve(code ?? (signal === null ? 0 : 1)));
  });
}
