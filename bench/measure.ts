/** One measured row: both times in milliseconds (medians), and ours over theirs. */
export interface Row {
  what: string;
  ours: number;
  peer: string;
  theirs: number;
  ratio: number;
  /** Growth of the process's memory meanwhile, in MB, where it was watched. */
  memory?: number;
  /** What ours and theirs are counted in; milliseconds when absent. */
  unit?: 'bytes';
}

/** Returns the median time of `runs` calls in milliseconds, after one that does not count. */
export async function median(run: () => unknown, runs = 7): Promise<number> {
  await run();
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await run();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

export function rowOf(what: string, ours: number, peer: string, theirs: number): Row {
  return { what, ours, peer, theirs, ratio: ours / theirs };
}
