import { describe, expect, it } from "vitest";
import { Player } from "./player";

/** A context whose time is set by hand, and what was played in it. */
function standIn() {
  const played: { at: number; seconds: number }[] = [];
  const context = {
    currentTime: 10,
    destination: {},
    createBuffer: (_: number, n: number, rate: number) => ({
      duration: n / rate,
      getChannelData: () => new Float32Array(n),
    }),
    createBufferSource: () => {
      const node = {
        buffer: { duration: 0 },
        playbackRate: { value: 1 },
        connect: () => {},
        start: (at: number) =>
          played.push({ at, seconds: node.buffer.duration / node.playbackRate.value }),
      };
      return node;
    },
  };
  return { context, played };
}

const make = () => {
  const { context, played } = standIn();
  return { context, played, player: new Player(context as unknown as AudioContext) };
};
const piece = (seconds: number) => new Float32Array(Math.round(seconds * 48_000));

describe("sound as it is received", () => {
  it("is played without gaps, and some of it waits", () => {
    const { context, played, player } = make();
    for (let i = 0; i < 200; i++) {
      player.take(piece(0.02));
      context.currentTime += 0.02;
    }
    for (let i = 1; i < played.length; i++) {
      expect(played[i].at).toBeCloseTo(played[i - 1].at + played[i - 1].seconds, 9);
    }
    expect(played[0].at).toBeLessThan(10.15);
    expect(player.dropouts).toBe(0);
    expect(player.waits()).toBeGreaterThan(0.08);
  });

  it("keeps what waits though the clocks differ", () => {
    for (const clock of [0.999, 1.001]) {
      const { context, player } = make();
      for (let i = 0; i < 20_000; i++) {
        player.take(piece(0.1));
        context.currentTime += 0.1 * clock;
      }
      expect(player.dropouts).toBe(0);
      expect(player.waits()).toBeGreaterThan(0.05);
      expect(player.waits()).toBeLessThan(0.5);
    }
  });

  it("counts what came too late, and then waits longer", () => {
    const { context, played, player } = make();
    player.take(piece(0.02));
    context.currentTime += 1;
    player.take(piece(0.02));
    expect(player.dropouts).toBe(1);
    expect(played[1].at - context.currentTime).toBeCloseTo(0.18, 6);
  });

  it("drops what is too old to be heard", () => {
    const { played, player } = make();
    for (let i = 0; i < 100; i++) {
      player.take(piece(0.1));
    }
    expect(played.length).toBeLessThan(12);
    expect(player.dropouts).toBe(100 - played.length);
  });
});
