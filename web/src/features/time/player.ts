/** What of an AudioContext is needed to play. */
type Context = Pick<
  AudioContext,
  "currentTime" | "destination" | "createBuffer" | "createBufferSource"
>;

/**
 * Plays pieces of sound one behind the other, without a gap between them. Some of it always waits,
 * so that a piece that comes late is not missed; the clocks of the receiver and of the sound device
 * differ, so it is played a little faster or slower while too much or too little waits.
 */
export class Player {
  static readonly RATE_HZ = 48_000;

  /** So much waits before the first is heard, and after a dropout, seconds. */
  private static readonly LEAD = 0.12;

  /** Each dropout makes it wait longer, up to this. */
  private static readonly MOST_LEAD = 0.5;

  /** More than this is too old to be heard. */
  private static readonly TOO_OLD = 1;

  /** Nobody hears this difference of pitch. */
  private static readonly MOST_FASTER = 0.004;

  /** What waits when the newest pieces came, seconds. */
  private usual = Number.NaN;
  private lead = Player.LEAD;
  private next = 0;

  /** How often nothing was there to be heard, or something was too old for it. */
  dropouts = 0;

  constructor(private readonly context: Context) {}

  /** Seconds that wait to be heard. */
  waits(): number {
    return Math.max(0, this.next - this.context.currentTime);
  }

  take(samples: Float32Array) {
    const now = this.context.currentTime;
    const begins = this.next === 0;
    if (begins || this.next < now) {
      this.dropouts += begins ? 0 : 1;
      this.lead = begins ? Player.LEAD : Math.min(Player.MOST_LEAD, 1.5 * this.lead);
      this.next = now + this.lead;
      this.usual = Number.NaN;
    }
    const waits = this.next - now;
    if (waits > Player.TOO_OLD) {
      this.dropouts++;
      return;
    }
    // Pieces come in turns: what waits is what does so on average.
    this.usual = Number.isNaN(this.usual) ? waits : this.usual + 0.05 * (waits - this.usual);
    const off = (this.usual - 2 * this.lead) * 0.05;
    const faster = Math.max(-Player.MOST_FASTER, Math.min(Player.MOST_FASTER, off));
    const buffer = this.context.createBuffer(1, samples.length, Player.RATE_HZ);
    buffer.getChannelData(0).set(samples);
    const node = this.context.createBufferSource();
    node.buffer = buffer;
    node.playbackRate.value = 1 + faster;
    node.connect(this.context.destination);
    node.start(this.next);
    this.next += buffer.duration / (1 + faster);
  }
}
