/* The work of the engine's voices in plain C: the same tables, glide, filter, level and place, for bench/kernel.ts. */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

enum { BLOCK = 128, CELL = 256, PLACES = 512, TABLES = 12, RATE = 48000, CLIPS = 256, CLIP_FRAMES = 65536, GUARD = 48 };
#define MIX_FROM 0.85
static const double PI = 3.141592653589793;

static float *tables[TABLES];
static int taps_of[TABLES];

static double bessel(double squared) {
  double sum = 1, term = 1;
  for (int k = 1; k < 60; k++) sum += term *= squared / (4.0 * k * k);
  return sum;
}

static void make_table(int table) {
  const double stop = 0.5465 / exp2(1 / 32.0), beta = 0.1102 * (100 - 8.7);
  const int taps = 4 * (int)ceil(10 * exp2(table / 32.0) - 1e-9);
  const double half = taps / 2.0, cutoff = (stop - 92 / (2.285 * 2 * PI * 39) / 2) / exp2(table / 32.0);
  taps_of[table] = taps;
  tables[table] = malloc(sizeof(float) * taps * (PLACES + 1));
  for (int place = 0; place <= PLACES; place++) {
    double row[128], sum = 0;
    for (int tap = 0; tap < taps; tap++) {
      const double t = tap - (half - 1) - (double)place / PLACES, u = fabs(t) / half, a = 2 * PI * cutoff * t;
      row[tap] = u >= 1 ? 0 : (a == 0 ? 1 : sin(a) / a) * bessel(beta * beta * (1 - u * u));
      sum += row[tap];
    }
    for (int tap = 0; tap < taps; tap++) tables[table][place * taps + tap] = (float)(row[tap] / sum);
  }
}

typedef struct {
  const float *samples[2];
  double position, rate, ratio, place, step, one[2], two[2], left, right, from[3], to[3];
} Voice;

static float *clips[CLIPS][2];

/* Reads a block of one channel through a table; rates and positions are worked out beforehand. */
static void read_through(const float *samples, int table, const double *positions, int count, double *out) {
  const int taps = taps_of[table];
  for (int i = 0; i < count; i++) {
    const int whole = (int)positions[i];
    const double place = (positions[i] - whole) * PLACES;
    const int row = (int)place;
    const float share = (float)(place - row), *c = tables[table] + row * taps, *n = c + taps, *s = samples + whole - taps / 2 + 1;
    float here[8] = {0}, next[8] = {0};
    int j = 0;
    for (; j + 8 <= taps; j += 8)
      for (int lane = 0; lane < 8; lane++) {
        here[lane] += c[j + lane] * s[j + lane];
        next[lane] += n[j + lane] * s[j + lane];
      }
    for (; j < taps; j += 4)
      for (int lane = 0; lane < 4; lane++) {
        here[lane] += c[j + lane] * s[j + lane];
        next[lane] += n[j + lane] * s[j + lane];
      }
    for (int lane = 0; lane < 4; lane++) {
      here[lane] += here[lane + 4];
      next[lane] += next[lane + 4];
    }
    const float first = (here[0] + here[2]) + (here[1] + here[3]), last = (next[0] + next[2]) + (next[1] + next[3]);
    out[i] = first + share * (last - first);
  }
}

/* The filter falls by two octaves over the strike. */
static void coefficients(double *to, double k, double frame, double end) {
  const double octaves = frame < end ? 2 * (1 - frame / end) : 0, g = tan(PI * 3000 * exp2(octaves) / RATE);
  to[0] = 1 / (1 + g * (g + k));
  to[1] = g * to[0];
  to[2] = g * to[1];
}

static void render(Voice *v, int channels, long frame, double (*bus)[BLOCK], double *peak) {
  static double positions[BLOCK], block[2][BLOCK], other[BLOCK];
  const double k = 2 - 1.95 * 0.3;
  const double attack = 0.005 * RATE, end = 1.2 * RATE;
  if (fmod(frame, CELL) == 0) {
    if (frame == 0) coefficients(v->to, k, 0, end);
    for (int i = 0; i < 3; i++) v->from[i] = v->to[i];
    coefficients(v->to, k, frame + CELL, end);
  }
  double cell[3], step[3];
  for (int i = 0; i < 3; i++) step[i] = (v->to[i] - v->from[i]) / CELL, cell[i] = v->from[i] + fmod(frame, CELL) * step[i];
  const double first = v->place, last = v->place + v->step * (BLOCK - 1);
  for (int i = 0; i < BLOCK; i++) {
    positions[i] = v->position;
    v->position += v->rate;
    v->rate *= v->ratio;
  }
  v->place += v->step * BLOCK;
  for (int c = 0; c < channels; c++) {
    int table = (int)fmax(0, floor(first));
    const int to = (int)fmax(0, floor(last));
    if (table != to) table = to;
    read_through(v->samples[c], table, positions, BLOCK, block[c]);
    if (first - table > MIX_FROM || last - table > MIX_FROM) {
      read_through(v->samples[c], table + 1, positions, BLOCK, other);
      for (int i = 0; i < BLOCK; i++) {
        const double share = fmax(0, (first + v->step * i - table - MIX_FROM) / (1 - MIX_FROM));
        block[c][i] += share * (other[i] - block[c][i]);
      }
    }
    double one = v->one[c], two = v->two[c];
    for (int i = 0; i < BLOCK; i++) {
      const double a1 = cell[0] + i * step[0], a2 = cell[1] + i * step[1], a3 = cell[2] + i * step[2];
      const double rest = block[c][i] - two, next_one = (2 * a1 - 1) * one + 2 * a2 * rest, next_two = two + 2 * a2 * one + 2 * a3 * rest;
      block[c][i] = 0.5 * (next_two + two);
      one = next_one;
      two = next_two;
    }
    v->one[c] = one;
    v->two[c] = two;
    for (int i = 0; i < BLOCK; i++) {
      const double t = frame + i;
      block[c][i] *= t < attack ? t / attack : t < end ? 1 - (t - attack) / (end - attack) : 0;
    }
  }
  for (int side = 0; side < 2; side++) {
    const double gain = side ? v->right : v->left, *from = block[channels == 2 ? side : 0];
    for (int i = 0; i < BLOCK; i++) {
      const double value = from[i] * gain;
      bus[side][i] += value;
      if (fabs(value) > *peak) *peak = fabs(value);
    }
  }
}

/* voices, channels: prints seconds of processor time for ten seconds of all of them. */
int main(int argc, char **argv) {
  const int voices = atoi(argv[1]), channels = atoi(argv[2]), seconds = 10, every = 60000;
  (void)argc;
  for (int table = 0; table < TABLES; table++) make_table(table);
  for (int i = 0; i < CLIPS; i++)
    for (int c = 0; c < channels; c++) {
      unsigned state = (unsigned)(i * 2 + c + 1) * 2654435761u;
      clips[i][c] = (float *)calloc(CLIP_FRAMES * 2 + 2 * GUARD, sizeof(float)) + GUARD;
      for (int f = 0; f < CLIP_FRAMES; f++) clips[i][c][f] = (float)((state = state * 1664525u + 1013904223u) / 2147483648.0 - 1);
    }
  Voice *all = calloc(voices, sizeof(Voice));
  static double bus[2][BLOCK];
  double sum = 0, peak = 0;
  const clock_t from = clock();
  for (long frame = 0, turn = 0; frame < (long)seconds * RATE; frame += every, turn++) {
    for (int i = 0; i < voices; i++) {
      const double pan = (double)(i / 2) / (voices / 2.0) * 2 - 1, step = -400 / (1.1 * RATE);
      const int clip = (int)((turn * voices + i) % CLIPS);
      all[i] = (Voice){{clips[clip][0], clips[clip][channels - 1]}, 0, exp2(300 / 1200.0), exp2(step / 1200), 8, step * 32 / 1200,
                       {0, 0}, {0, 0}, 0.004 * sqrt(1 - pan), 0.004 * sqrt(1 + pan)};
    }
    for (long at = 0; at < every && frame + at < (long)seconds * RATE && at < 1.2 * RATE; at += BLOCK) {
      for (int i = 0; i < BLOCK; i++) bus[0][i] = bus[1][i] = 0;
      for (int i = 0; i < voices; i++) render(&all[i], channels, at, bus, &peak);
      sum += bus[0][5] + bus[1][7];
    }
  }
  printf("%.6f %g\n", (double)(clock() - from) / CLOCKS_PER_SEC, sum + peak);
  return 0;
}
