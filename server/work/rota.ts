/** A bounded queue that is fair between owners: much work of one owner does not delay the others. */
export class Rota<T> {
  private readonly byOwner = new Map<string, T[]>();
  private n = 0;

  constructor(
    private readonly most: number,
    private readonly mostOfOne: number,
  ) {}

  get size(): number {
    return this.n;
  }

  /** Adds an item behind its owner's others; false if there is no room. */
  push(owner: string, item: T): boolean {
    const own = this.byOwner.get(owner) ?? [];
    if (this.n >= this.most || own.length >= this.mostOfOne) return false;
    own.push(item);
    this.byOwner.set(owner, own);
    this.n++;
    return true;
  }

  /** Returns the next item of the owner whose turn it is; that owner's next turn comes after all others'. */
  shift(): T | undefined {
    for (const [owner, own] of this.byOwner) {
      const item = own.shift();
      this.byOwner.delete(owner);
      if (own.length) this.byOwner.set(owner, own);
      if (item === undefined) continue;
      this.n--;
      return item;
    }
    return undefined;
  }

  /** Removes and returns everything. */
  drain(): T[] {
    const all = [...this.byOwner.values()].flat();
    this.byOwner.clear();
    this.n = 0;
    return all;
  }
}
