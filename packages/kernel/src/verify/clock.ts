/** How long checks take, so that the bench can say what they cost. */
export class CheckClock {
  private spent = 0;
  private isRunning = false;

  /** ms so far. */
  get ms(): number {
    return this.spent;
  }

  /** Does the work, on the clock; a check within a check counts once. */
  time<T>(work: () => T): T {
    if (this.isRunning) return work();
    this.isRunning = true;
    const start = performance.now();
    try {
      return work();
    } finally {
      this.spent += performance.now() - start;
      this.isRunning = false;
    }
  }

  /** Does work that a check only happened to ask for, off the clock. */
  pause<T>(work: () => T): T {
    if (!this.isRunning) return work();
    const start = performance.now();
    try {
      return work();
    } finally {
      this.spent -= performance.now() - start;
    }
  }
}
