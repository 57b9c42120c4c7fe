/** Starts a TypeScript program of the project and hands signals and exit status through. */
import { spawn } from 'node:child_process';
import { ROOT } from './root.mjs';

export function runProgram(file, args) {
  const child = spawn(process.execPath, ['--import', 'tsx', file, ...args], { cwd: ROOT, stdio: 'inherit' });
  // Ctrl-C reaches the child by itself; this process only has to wait for it.
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      if (signal === 'SIGTERM') child.kill(signal);
    });
  child.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
}
