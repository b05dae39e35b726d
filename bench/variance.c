/* Variance in a window of neighbouring traces with running sums, as plainly as it is written: what the compiled kernel is
   measured against. Prints the median seconds of a pass over a made-up volume. */
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

static double now(void) {
  struct timespec t;
  clock_gettime(CLOCK_MONOTONIC, &t);
  return t.tv_sec + 1e-9 * t.tv_nsec;
}

int main(int argc, char **argv) {
  const int ni = atoi(argv[1]), nj = atoi(argv[2]), nk = atoi(argv[3]), r = atoi(argv[4]), half = atoi(argv[5]);
  const int mi = ni + 2 * r, mj = nj + 2 * r;
  (void)argc;
  float *data = malloc(sizeof(float) * mi * mj * nk), *out = malloc(sizeof(float) * ni * nj * nk);
  float *columns = calloc(2 * (size_t)mj * nk, sizeof(float)), *window = malloc(2 * sizeof(float) * nk);
  unsigned state = 3;
  for (long n = 0; n < (long)mi * mj * nk; n++) {
    state = state * 1664525u + 1013904223u;
    data[n] = state / 2147483648.0f - 1;
  }
  double times[5];
  for (int pass = 0; pass < 5; pass++) {
    memset(columns, 0, 2 * sizeof(float) * (size_t)mj * nk);
    double began = now();
    for (int i = 0; i < mi; i++) {
      /* a line enters the sums over lines, and one leaves them */
      for (int sign = 1; sign >= -1; sign -= 2) {
        int line = sign > 0 ? i : i - 2 * r - 1;
        if (line < 0) continue;
        for (long n = 0; n < (long)mj * nk; n++) {
          float v = data[(long)line * mj * nk + n];
          columns[n] += sign * v;
          columns[(long)mj * nk + n] += sign * v * v;
        }
      }
      if (i < 2 * r) continue;
      memset(window, 0, 2 * sizeof(float) * nk);
      for (int j = 0; j < mj; j++) {
        for (int sign = 1; sign >= -1; sign -= 2) {
          int trace = sign > 0 ? j : j - 2 * r - 1;
          if (trace < 0) continue;
          for (int k = 0; k < nk; k++) {
            window[k] += sign * columns[(long)trace * nk + k];
            window[nk + k] += sign * columns[((long)mj + trace) * nk + k];
          }
        }
        if (j < 2 * r) continue;
        float *to = out + ((long)(i - 2 * r) * nj + j - 2 * r) * nk;
        const float count = (2 * r + 1) * (2 * r + 1);
        double a = 0, b = 0;
        for (int k = -half; k < nk; k++) {
          if (k + half < nk) {
            a += window[nk + k + half] - window[k + half] * window[k + half] / count;
            b += window[nk + k + half];
          }
          if (k - half - 1 >= 0) {
            a -= window[nk + k - half - 1] - window[k - half - 1] * window[k - half - 1] / count;
            b -= window[nk + k - half - 1];
          }
          if (k >= 0) to[k] = b > 0 ? a / b : 0;
        }
      }
    }
    double took = now() - began;
    int n = pass;
    for (; n > 0 && times[n - 1] > took; n--) times[n] = times[n - 1];
    times[n] = took;
  }
  fprintf(stderr, "%g\n", out[12345 % ((long)ni * nj * nk)]);
  printf("%.6f\n", times[2]);
  return 0;
}
