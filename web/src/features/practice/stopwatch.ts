/** A clock that can stand still: seconds since it was started, without those in which it was paused. */
export class Stopwatch {
  private since: number | null;
  private spent = 0;

  constructor(private readonly now: () => number = () => performance.now()) {
    this.since = this.now();
  }

  restart() {
    this.spent = 0;
    this.since = this.now();
  }

  pause() {
    if (this.since !== null) this.spent += this.now() - this.since;
    this.since = null;
  }

  goOn() {
    this.since ??= this.now();
  }

  /** in tenths */
  get seconds() {
    const running = this.since === null ? 0 : this.now() - this.since;
    return Math.round((this.spent + running) / 100) / 10;
  }
}
