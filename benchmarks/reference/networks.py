"""The reference beside the benchmarks of networks: the same work in plain NumPy, one core."""

import io
import time

import numpy as np

POINTS = 20_001
rng = np.random.default_rng(1)


def clock(name, work, times=9):
    spans = []
    for _ in range(times):
        begin = time.perf_counter()
        work()
        spans.append(1e3 * (time.perf_counter() - begin))
    print(f"{name}: {np.median(spans):.1f} ms (median of {times})")


def noise(*shape):
    return 0.3 * (rng.standard_normal(shape) + 1j * rng.standard_normal(shape))


m = noise(4, POINTS)  # S11, S12, S21, S22
ed, es, er, el, et, ex = [noise(POINTS) + (i in (2, 4)) for i in range(6)]
fd, fs, fr, fl, ft, fx = [noise(POINTS) + (i in (2, 4)) for i in range(6)]


def twelve_terms():
    a = (m[0] - ed) / er
    b = (m[3] - fd) / fr
    c = (m[2] - ex) / et
    d = (m[1] - fx) / ft
    below = (1 + a * es) * (1 + b * fs) - c * d * el * fl
    return np.stack(
        [
            (a * (1 + b * fs) - el * c * d) / below,
            d * (1 + a * (es - fl)) / below,
            c * (1 + b * (fs - el)) / below,
            (b * (1 + a * es) - fl * c * d) / below,
        ]
    )


window = np.kaiser(2 * POINTS - 1, 6)
spectrum = np.concatenate([noise(POINTS)])


half = window[POINTS - 1 :]


def step_response():
    # As many times as Rovnik shows: three or more in the width of one reflection.
    return np.cumsum(np.fft.irfft(spectrum * half, 1 << 17))


def short_step_response():
    whole = np.concatenate([np.conj(spectrum[:0:-1]), spectrum]) * window
    return np.cumsum(np.fft.ifft(np.fft.ifftshift(whole), 1 << 16).real)


weights = np.zeros(1 << 16)
weights[:2000] = 1
restore = noise(POINTS)


def gate():
    t = np.fft.ifft(spectrum, 1 << 16)
    t *= weights
    return np.fft.fft(t)[:POINTS] * restore


table = np.column_stack([np.arange(1, POINTS + 1) * 0.1, rng.random((POINTS, 32))])
text = io.StringIO()
np.savetxt(text, table, fmt="%.6f")
written = text.getvalue()


def parse():
    return np.fromstring(written, sep=" ").reshape(POINTS, 33)


clock("correction by twelve terms, 20,001 points", twelve_terms)
clock("step response of 20,001 points, windowed", step_response)
clock("the same with half as many times", short_step_response)
clock("gate of 20,001 points, there and back", gate)
clock("the numbers of a .s4p of 20,001 points from text", parse)
