// The trend call against an independent implementation of Theil–Sen from the npm registry, on the same data. Its median of
// an even count is the lower middle one and not the mean of the two, so the series have a count that leaves odd numbers of
// residuals and of pairs (7, 11, 15 …); even counts are held by the hand calculation in TrendTests.
import { TheilSenRegression } from 'ml-regression-theil-sen';
import { expect, test } from './shop.mjs';

// A small generator, so that every run sees the same series.
function* chance(seed) {
  for (let state = seed; ;) {
    state = (state * 1103515245 + 12345) % 2147483648;
    yield state / 2147483648;
  }
}

const median = values => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
};

test('slope, intercept and noise agree with a reference implementation', async ({ request }) => {
  const next = chance(2026);
  const draw = () => next.next().value;
  for (let series = 0; series < 25; series += 1) {
    const points = Array.from({ length: 7 + 4 * Math.floor(draw() * 8) }, (_, i) => ({
      hours: i * 90 + Math.floor(draw() * 60),
      value: 78 - i * draw() + (draw() < 0.15 ? -20 : draw() * 2),
    }));
    const [x, y] = [points.map(point => point.hours), points.map(point => point.value)];
    const reference = new TheilSenRegression(x, y);
    const noise = 1.4826 * median(x.map((hours, i) => Math.abs(y[i] - reference.predict(hours))));

    const answer = await (await request.post('/api/v1/trend', { data: { points, limit: 60 } })).json();
    expect(answer.n).toBe(points.length);
    expect(answer.slopePer100Hours).toBeCloseTo(reference.slope * 100, 9);
    expect(answer.intercept).toBeCloseTo(reference.intercept, 8);
    expect(answer.noise).toBeCloseTo(noise, 9);
  }
});
