/** Requests that must reach the server one after the other, in the order they were asked for. */
export class Line {
  private last: Promise<unknown> = Promise.resolve();

  /** Does the work when all that was asked for before is done, well or not. */
  after<T>(work: () => Promise<T>): Promise<T> {
    const done = this.last.then(work);
    this.last = done.catch(() => undefined);
    return done;
  }
}

const lines = new Map<string, Line>();

/** The one line of everything that is asked of this address, whoever on the screen asks. */
export function lineOf(address: string): Line {
  const line = lines.get(address) ?? new Line();
  lines.set(address, line);
  return line;
}
