/** Stands for a history of all looks. */
export const ALL_LOOKS = Number.POSITIVE_INFINITY;

/** Most looks that are drawn for a history of all. */
export const MOST_LOOKS = 256;

/** Looks before the present one, as long as they have its points. */
export class PastLooks {
  private looks: ArrayLike<number>[] = [];
  private grid = "";
  private every = 1;
  private seen = 0;

  /**
   * Takes a look and answers with those before it, the newest first.
   *
   * @param grid another one begins anew: what has other points cannot lie under these
   * @param count how many, ALL_LOOKS for some of all the time, 0 for none
   */
  take(level: ArrayLike<number>, grid: string, count: number): ArrayLike<number>[] {
    if (grid !== this.grid || count === 0) {
      this.looks = [];
      this.grid = grid;
      this.every = 1;
      this.seen = 0;
    }
    if (count > 0 && this.looks[0] !== level) {
      if (count === ALL_LOOKS) {
        this.takeOfAll(level);
      } else {
        this.looks = [level, ...this.looks].slice(0, count + 1);
      }
    }
    return this.looks.slice(1);
  }

  /** Keeps looks over all of the time: when there are too many, every other one goes. */
  private takeOfAll(newest: ArrayLike<number>) {
    const [, ...older] = this.looks;
    // The newest is always the first; it stays as history only when its turn has come.
    const kept = this.seen++ % this.every === 0 ? this.looks : older;
    this.looks = [newest, ...kept];
    if (this.looks.length > MOST_LOOKS) {
      this.looks = this.looks.filter((_, i) => i % 2 === 0);
      this.every *= 2;
    }
  }
}
