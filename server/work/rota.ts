/** A bounded queue that is fair between owners: whoever has much waiting does not keep the others from their turn. */
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

  /** Takes something in, behind its owner's other things; false when there is no room. */
  push(owner: string, item: T): boolean {
    const own = this.byOwner.get(owner) ?? [];
    if (this.n >= this.most || own.length >= this.mostOfOne) return false;
    own.push(item);
    this.byOwner.set(owner, own);
    this.n++;
    return true;
  }

  /** The next thing of the owner whose turn it is; that owner's next turn comes after everybody else's. */
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

  /** Takes out everything that is left. */
  drain(): T[] {
    const all = [...this.byOwner.values()].flat();
    this.byOwner.clear();
    this.n = 0;
    return all;
  }
}
