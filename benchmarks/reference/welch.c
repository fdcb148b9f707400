/*
 * The same work as the spectrum estimator's benchmark, in C with FFTW: Hann window, half overlap,
 * complex float, one core. Build: cc -O3 -march=native welch.c -lfftw3f -lm -o welch
 */
#include <complex.h>
#include <fftw3.h>
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

static double seconds(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return t.tv_sec + 1e-9 * t.tv_nsec;
}

static int larger(const void *a, const void *b) {
  double d = *(const double *)b - *(const double *)a;
  return (d > 0) - (d < 0);
}

int main(int count, char **arguments) {
  int samples = 1 << 20;
  for (int k = 1; k < count; k++) {
    int n = atoi(arguments[k]);
    if (n > samples / 2) samples = 2 * n;
    float complex *x = fftwf_malloc(sizeof(float complex) * samples);
    float complex *a = fftwf_malloc(sizeof(float complex) * n);
    float complex *b = fftwf_malloc(sizeof(float complex) * n);
    float *w = fftwf_malloc(sizeof(float) * n);
    float *sum = fftwf_malloc(sizeof(float) * n);
    fftwf_plan plan = fftwf_plan_dft_1d(n, a, b, FFTW_FORWARD, n > 1 << 16 ? FFTW_MEASURE : FFTW_PATIENT);
    for (int i = 0; i < samples; i++) {
      x[i] = (rand() / (float)RAND_MAX - 0.5f) + (rand() / (float)RAND_MAX - 0.5f) * I;
    }
    for (int i = 0; i < n; i++) {
      w[i] = (0.5 - 0.5 * cos(2 * M_PI * i / n)) / n;
      sum[i] = 0;
    }
    double rate[15];
    for (int r = 0; r < 15; r++) {
      double begin = seconds();
      for (int at = 0; at + n <= samples; at += n / 2) {
        for (int i = 0; i < n; i++) a[i] = x[at + i] * w[i];
        fftwf_execute(plan);
        for (int i = 0; i < n; i++) {
          float re = crealf(b[i]), im = cimagf(b[i]);
          sum[i] += re * re + im * im;
        }
      }
      rate[r] = samples / (seconds() - begin) / 1e6;
    }
    qsort(rate, 15, sizeof(double), larger);
    printf("FFTW, Hann, %d points, half overlap: %.1f MS/s (median of 15; sum %g)\n", n, rate[7], sum[1]);
  }
  return 0;
}
