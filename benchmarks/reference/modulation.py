"""The reference beside the benchmarks of carriers: the same work in NumPy and SciPy, one core.

Samples of 10,000 symbols of 64-QAM at unknown timing, phase and frequency become symbols, the eleven
causes of their least-squares fit, what bends with the power, echoes, lines, eyes and statistics.
"""

import time

import numpy as np
from scipy import fft

N = 10_000
SPS = 4
ALPHA = 0.35
GUARD = 30
rng = np.random.default_rng(1)


def clock(name, work, times=9):
    work()
    spans = []
    for _ in range(times):
        begin = time.perf_counter()
        work()
        spans.append(1e3 * (time.perf_counter() - begin))
    print(f"{name}: {np.median(spans):.1f} ms (median of {times}, best {min(spans):.1f})")


def rrc(f):
    edge = (1 - ALPHA) / 2
    x = np.clip((np.abs(f) - edge) / ALPHA, 0, 1)
    return np.sqrt((1 + np.cos(np.pi * x)) / 2)


LEVELS = (2 * np.arange(8) - 7) / np.sqrt(42)
sent = rng.choice(LEVELS, N + 2 * GUARD) + 1j * rng.choice(LEVELS, N + 2 * GUARD)
length = 1 << int(np.ceil(np.log2(len(sent) * SPS)))
up = np.zeros(length, complex)
up[: len(sent) * SPS : SPS] = sent * SPS
f = fft.fftfreq(length, 1 / SPS)
x = fft.ifft(fft.fft(up) * rrc(f) * np.exp(-2j * np.pi * f * 0.37))
x *= 0.3 * np.exp(1j * (1.1 + 2 * np.pi * 0.01 / SPS * np.arange(length)))
x += 0.3 * 10 ** (-35 / 20) * np.sqrt(SPS / 2) * (
    rng.standard_normal(length) + 1j * rng.standard_normal(length)
)
x = x.astype(np.complex64)

TAPS = np.arange(-5, 7)


def read(y, at):
    """Twelve weights of a windowed sinc at each place."""
    whole = np.floor(at).astype(int)
    d = TAPS - (at - whole)[:, None]
    w = np.sinc(d) * np.cos(np.pi * d / 12.5) ** 2
    return np.einsum("ij,ij->i", w, y[whole[:, None] + TAPS])


def decide(z):
    step = LEVELS[1] - LEVELS[0]
    i = np.clip(np.rint((z.real - LEVELS[0]) / step), 0, 7)
    q = np.clip(np.rint((z.imag - LEVELS[0]) / step), 0, 7)
    return LEVELS[i.astype(int)] + 1j * LEVELS[q.astype(int)]


SLOPE_AT = np.arange(-16, 17)
with np.errstate(divide="ignore", invalid="ignore"):
    t = SLOPE_AT.astype(float)
    SLOPE = np.where(
        t == 0, 0, np.cos(np.pi * t) / t * np.cos(np.pi * ALPHA * t) / (1 - (2 * ALPHA * t) ** 2)
    )


def columns(u):
    k = np.linspace(-1, 1, len(u))
    du = np.convolve(u, SLOPE, "same")
    return np.stack(
        [
            u,
            1j * u,
            1j * u * k,
            -du,
            -du * k,
            u * k,
            np.conj(u) / 2,
            -1j * np.conj(u) / 2,
            np.ones(len(u), complex),
            1j * np.ones(len(u)),
            np.conj(du) / 2,
        ]
    )


def causes(c, e):
    a = np.concatenate([c.real, c.imag], axis=1)
    v = np.linalg.solve(a @ a.T, a @ np.concatenate([e.real, e.imag]))
    return v, e - v @ c


def measure():
    spectrum = fft.fft(x)
    # The middle of its spectrum, then the filter there.
    power = np.abs(spectrum) ** 2
    shape = rrc(f) ** 2
    match = fft.ifft(fft.fft(power) * np.conj(fft.fft(shape))).real
    reach = int(0.25 * length / SPS)
    near = np.concatenate([match[:reach], match[-reach:]])
    best = int(np.argmax(near))
    centre = best if best < reach else best - 2 * reach
    y = fft.ifft(np.roll(spectrum, -centre) * rrc(f))
    at0 = np.exp(-2j * np.pi * np.arange(length) / SPS)
    late = -np.angle(np.sum(np.abs(y) ** 2 * at0)) / 2 / np.pi % 1
    places = SPS * (GUARD + late + np.arange(N))
    z = read(y, places)
    z /= np.sqrt(np.mean(np.abs(z) ** 2))
    line = fft.fft(z**4, 32768)
    k = int(np.argmax(np.abs(line)))
    turn = 2 * np.pi * (k if k < 16384 else k - 32768) / 32768 / 4
    z4 = np.sum((z * np.exp(-1j * turn * np.arange(N))) ** 4)
    phase = (np.angle(z4) - np.pi) / 4
    gain = 1.0
    for _ in range(3):
        z = read(y, places)
        z /= np.sqrt(np.mean(np.abs(z) ** 2)) * gain
        z *= np.exp(-1j * (phase + turn * np.arange(N)))
        u = decide(z)
        c = columns(u)
        v, left = causes(c, z - u)
        gain *= 1 + v[0]
        half = (N - 1) / 2
        phase += v[1] - v[2]
        turn += v[2] / half
        places = places + SPS * (v[3] - v[4]) + SPS * v[4] / half * np.arange(N)
    e = z - u
    # What bends with the power, four times as fine.
    ring = 1 << 14
    big = np.zeros(4 * ring, complex)
    padded = fft.fft(u, ring)
    fine = fft.fftfreq(4 * ring, 0.25)
    big[:] = np.tile(padded, 4) * rrc(fine) * 4
    wave = fft.ifft(big)
    cube = fft.ifft(fft.fft(wave * np.abs(wave) ** 2) * rrc(fine))[::4][:N]
    for _ in range(3):
        v, left = causes(c, e)
        bend = np.vdot(cube, left) / np.vdot(cube, cube)
        left = left - bend * cube
        for d in range(-6, 7):
            if d:
                echo = np.roll(u, d)
                left = left - np.vdot(echo, left) / np.vdot(echo, echo) * echo
    lines = np.abs(fft.fft(left * np.hanning(N), 32768)) ** 2
    way = read(y, places[0] + SPS / 24 * np.arange(600 * 24))
    column = np.tile(np.arange(24), 600)
    eyes = [np.histogram2d(column, part, [24, 64])[0] for part in (way.real, way.imag)]
    error = np.abs(e)
    bins = np.add.reduceat(power, np.arange(0, length, length // 801))
    return (
        np.sqrt(np.mean(error**2)),
        np.quantile(error, 0.95),
        np.sort(np.abs(way))[::50],
        np.angle(z * np.conj(u)).std(),
        lines.max(),
        eyes,
        10 * np.log10(bins),
    )


evm = 100 * measure()[0]
print(f"EVM {evm:.2f} % of {100 * 10 ** (-35 / 20):.2f} % put in")
clock("10,000 symbols of 64-QAM, samples to readings", measure)


def make():
    symbols = rng.choice(LEVELS, 1_000_000) + 1j * rng.choice(LEVELS, 1_000_000)
    spectrum = np.tile(fft.fft(symbols), SPS)
    return fft.ifft(spectrum * rrc(fft.fftfreq(4_000_000, 1 / SPS)))


clock("1,000,000 symbols at 4 samples each, by one transform", make, 3)

bits = rng.integers(0, 256, 12_500_000, dtype=np.uint8)
other = bits.copy()
other[77] ^= 1
COUNT = np.array([bin(i).count("1") for i in range(256)], dtype=np.uint8)
clock("10^8 bits compared", lambda: int(COUNT[bits ^ other].sum()))
