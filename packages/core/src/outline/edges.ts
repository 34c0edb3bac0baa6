/** Finds which straight edges between points of a closed line stay near all points between. */
import type { Corner } from "./polygon";

/** Steps looked at in each direction, of all points together, at most: edges of very long lines go no further than their share of it. */
const MOST_STEPS = 600_000;

/** For what floating point leaves of an exact fit. */
const SLACK = 1e-9;

export class Edges {
  /** Of the point k, the edges first[k] to first[k + 1]. */
  readonly first: Int32Array;
  /** How many points further each ends, in order. */
  to = new Int32Array(1 << 12);
  /** The sum of squared distances of the points between. */
  error = new Float64Array(1 << 12);
  total = 0;

  private readonly xs: Float64Array;
  private readonly ys: Float64Array;

  constructor(
    line: readonly Corner[],
    private readonly within: ArrayLike<number>,
  ) {
    const count = line.length;
    this.xs = Float64Array.from(line, ({ x }) => x);
    this.ys = Float64Array.from(line, ({ y }) => y);
    this.first = new Int32Array(count + 1);
    const sums = new Sums(this.xs, this.ys);
    const back = this.backward();
    const reach = new Uint8Array(count);
    for (let from = 0; from < count; from++) {
      this.first[from] = this.total;
      const furthest = this.reachOf(from, 1, reach);
      if (this.total + furthest > this.to.length) this.grow(furthest);
      for (let step = 1; step < furthest; step++) {
        if (reach[step] !== 1) continue;
        const end = from + step < count ? from + step : from + step - count;
        const start = back.first[end] as number;
        if (step >= (back.first[end + 1] as number) - start || back.reach[start + step] !== 1) continue;
        this.to[this.total] = step;
        this.error[this.total++] = step === 1 ? 0 : sums.squares(from, step);
      }
    }
    this.first[count] = this.total;
  }

  errorOf(from: number, steps: number): number {
    for (let k = this.first[from] as number; k < (this.first[from + 1] as number); k++)
      if (this.to[k] === steps) return this.error[k] as number;
    return Number.POSITIVE_INFINITY;
  }

  /** The shortest stretch of points that contains a corner of every polygon of these edges. */
  stretchWithCorner(): number[] {
    const count = this.first.length - 1;
    // How far beyond a point the edges over it reach; twice around, so that edges from before the first point count.
    let [best, from, end] = [count, 0, 0];
    for (let at = 0; at < count * 2; at++) {
      const place = at % count;
      if (at >= count && end - at < best) [best, from] = [Math.max(0, end - at), place];
      end = Math.max(end, at + (this.to[(this.first[place + 1] as number) - 1] as number));
    }
    return Array.from({ length: Math.min(count, best + 1) }, (_, k) => (from + k) % count);
  }

  private grow(room: number): void {
    const size = Math.max(this.to.length * 2, this.total + room);
    const [to, error] = [new Int32Array(size), new Float64Array(size)];
    to.set(this.to);
    error.set(this.error);
    [this.to, this.error] = [to, error];
  }

  private backward(): { first: Int32Array; reach: Uint8Array } {
    const count = this.xs.length;
    const first = new Int32Array(count + 1);
    let reach = new Uint8Array(count * 32);
    const own = new Uint8Array(count);
    for (let from = 0; from < count; from++) {
      const furthest = this.reachOf(from, -1, own);
      const end = (first[from] as number) + furthest;
      if (end > reach.length) {
        const larger = new Uint8Array(Math.max(end, reach.length * 2));
        larger.set(reach);
        reach = larger;
      }
      reach.set(own.subarray(0, furthest), first[from]);
      first[from + 1] = end;
    }
    return { first, reach };
  }

  /** Writes for each number of steps whether the ray to that point is near enough to all between; gives up to where any may be. */
  private reachOf(from: number, way: 1 | -1, out: Uint8Array): number {
    const { xs, ys, within } = this;
    const count = Math.min(xs.length, Math.max(64, Math.ceil(MOST_STEPS / xs.length)));
    const startX = xs[from] as number;
    const startY = ys[from] as number;
    // The wedge is between two directions, not yet there while every point is nearer than its tolerance.
    let lx = 0;
    let ly = 0;
    let rx = 0;
    let ry = 0;
    let isOpen = true;
    let place = from;
    let step = 1;
    for (; step < count; step++) {
      place += way;
      if (place === xs.length) place = 0;
      else if (place < 0) place = xs.length - 1;
      const dx = (xs[place] as number) - startX;
      const dy = (ys[place] as number) - startY;
      const squared = dx * dx + dy * dy;
      const far = Math.sqrt(squared);
      const near = within[place] as number;
      if (isOpen) {
        out[step] = 1;
        if (far <= near + SLACK) continue;
      } else {
        const slack = -SLACK * far;
        const isNear = far > 0 && rx * dy - ry * dx >= slack && dx * ly - dy * lx >= slack && (rx + lx) * dx + (ry + ly) * dy > 0;
        out[step] = isNear ? 1 : 0;
        if (far <= near + SLACK) continue;
      }
      // The two directions that pass by the point at just its tolerance: its own, turned by the angle whose sine is near / far.
      const cosine = Math.sqrt(squared - near * near) / squared;
      const sine = near / squared;
      const ax = dx * cosine + dy * sine;
      const ay = dy * cosine - dx * sine;
      const bx = dx * cosine - dy * sine;
      const by = dy * cosine + dx * sine;
      if (isOpen) {
        rx = ax;
        ry = ay;
        lx = bx;
        ly = by;
        isOpen = false;
        continue;
      }
      if ((rx + lx) * dx + (ry + ly) * dy <= 0) break;
      if (rx * ay - ry * ax > 0) {
        rx = ax;
        ry = ay;
      }
      if (bx * ly - by * lx > 0) {
        lx = bx;
        ly = by;
      }
      if (rx * ly - ry * lx < -SLACK) break;
    }
    return Math.min(count, step + 1);
  }
}

/** Prefix sums over the line, so that squared distances from any edge take constant time. */
class Sums {
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private readonly xx: Float64Array;
  private readonly xy: Float64Array;
  private readonly yy: Float64Array;

  constructor(
    private readonly xs: Float64Array,
    private readonly ys: Float64Array,
  ) {
    const count = xs.length;
    const sum = (a: Float64Array | null, b: Float64Array) => {
      const out = new Float64Array(count * 2 + 1);
      for (let k = 0; k < count * 2; k++) {
        const place = k < count ? k : k - count;
        out[k + 1] = (out[k] as number) + (a ? (a[place] as number) : 1) * (b[place] as number);
      }
      return out;
    };
    this.x = sum(null, xs);
    this.y = sum(null, ys);
    this.xx = sum(xs, xs);
    this.xy = sum(xs, ys);
    this.yy = sum(ys, ys);
  }

  /** Of the points between two, from the straight line through both. */
  squares(from: number, steps: number): number {
    const { xs, ys } = this;
    const to = (from + steps) % xs.length;
    const [ax, ay] = [xs[from] as number, ys[from] as number];
    const [dx, dy] = [(xs[to] as number) - ax, (ys[to] as number) - ay];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length === 0) return 0;
    const [nx, ny] = [-dy / length, dx / length];
    const c = -(nx * ax + ny * ay);
    const start = from + 1;
    const end = from + steps;
    const square =
      nx * nx * between(this.xx, start, end) + 2 * nx * ny * between(this.xy, start, end) + ny * ny * between(this.yy, start, end);
    return Math.max(0, square + 2 * c * (nx * between(this.x, start, end) + ny * between(this.y, start, end)) + (steps - 1) * c * c);
  }
}

function between(sums: Float64Array, start: number, end: number): number {
  return (sums[end] as number) - (sums[start] as number);
}
