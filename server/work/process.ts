/** The program of a worker process: takes a task, runs it, answers. See pool.ts for the calling side. */
import { DamagedFile } from '../files/stored';
import { tasks, type TaskName } from './tasks';
import type { Reply } from './hand';
import { messageOf } from '../errors';

const answer = (reply: Reply) => process.send!(reply);

process.on('message', (job: { task: TaskName; input: never }) => {
  const at = (where: string) => answer({ at: where });
  void (async () => {
    try {
      const value = await (tasks[job.task] as (input: never, at: (where: string) => void) => unknown)(job.input, at);
      answer({ value });
    } catch (error) {
      answer({
        error: messageOf(error).slice(0, 500),
        ...(error instanceof DamagedFile ? { damaged: error.sha256 } : {}),
      });
    }
  })();
});
// Without a server there is nobody to work for.
process.on('disconnect', () => process.exit(0));
answer({ ready: true });
