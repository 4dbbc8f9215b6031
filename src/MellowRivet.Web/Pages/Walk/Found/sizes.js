// What is measured on a picture, by two points a known distance apart: reckoned as the shop's PhotoScale does, where the shop hasn't the
// picture yet.
import { rounded } from '../../../Browser/Judging/number.js';

const [millimetre, inch] = [0.001, 0.0254];
const square = value => value * value;
const far = (one, other) => Math.sqrt(square(other.x - one.x) + square(other.y - one.y));
const steps = points => points.slice(1).map((point, at) => [points[at], point]);

/** Whether all of an annotation's points lie on one another. */
export const hasNoLength = ({ points }) => steps(points).every(([from, to]) => far(from, to) < 1);

const isKnown = ({ knownMm, knownUncertaintyMm: off, pickPixels }) =>
  knownMm > 0 && knownMm <= 5000 && off >= 0 && off < knownMm && pickPixels > 0 && pickPixels <= 500;

const scaleOf = annotations => {
  const scale = annotations.find(({ kind }) => kind === 'scale');
  if (!scale || !isKnown(scale) || hasNoLength(scale)) return undefined;
  const pixels = far(...scale.points);
  return {
    mmPerPixel: scale.knownMm / pixels,
    relative: Math.sqrt(square((Math.sqrt(2) * scale.pickPixels) / pixels) + square(scale.knownUncertaintyMm / scale.knownMm)),
  };
};

const towards = (from, to) => {
  const length = far(from, to);
  return length === 0 ? [0, 0] : [(to.x - from.x) / length, (to.y - from.y) / length];
};
const lengthOf = ({ mmPerPixel, relative }, { points, pickPixels }) => {
  const pixels = steps(points).reduce((sum, [from, to]) => sum + far(from, to), 0);
  const variance = points.reduce((sum, here, at) => {
    const [fromX, fromY] = at === 0 ? [0, 0] : towards(points[at - 1], here);
    const [toX, toY] = at === points.length - 1 ? [0, 0] : towards(here, points[at + 1]);
    return sum + (square(fromX - toX) + square(fromY - toY)) * square(pickPixels);
  }, 0);
  const length = pixels * mmPerPixel;
  return { value: length, off: 2 * length * Math.sqrt(variance / square(pixels) + square(relative)) };
};
const patchOf = ({ mmPerPixel, relative }, { points, pickPixels }) => {
  const around = at => points[(at + points.length) % points.length];
  let [twice, variance] = [0, 0];
  for (const [at, here] of points.entries()) {
    const [before, after] = [around(at - 1), around(at + 1)];
    twice += here.x * after.y - after.x * here.y;
    variance += (square(far(before, after)) / 4) * square(pickPixels);
  }
  const area = (Math.abs(twice) / 2) * mmPerPixel * mmPerPixel;
  return { value: area, off: 2 * Math.sqrt(variance * square(mmPerPixel * mmPerPixel) + square(2 * relative * area)) };
};

// Two figures of the uncertainty, and the value to the same place.
const pair = (value, off) => {
  const places = off <= 0 ? 3 : Math.min(4, Math.max(0, 1 - Math.floor(Math.log10(off))));
  return [value, off].map(one => rounded(one, places).toFixed(places)).join(' ± ');
};
// Between two ends that lie on one another there is nothing to measure.
const inWords = ({ value, off }, unit, other, of) =>
  Number.isNaN(off) ? 'no length' : `${pair(value, off)} ${unit} (${pair(of(value), of(off))} ${other})`;

/** The size of each annotation in words; null for one that has none, and a hint while there is no scale. */
export const sizesOf = annotations => {
  const scale = scaleOf(annotations);
  return annotations.map(annotation => {
    if (!['length', 'patch'].includes(annotation.kind)) return null;
    if (!scale) return 'draw a scale first';
    return annotation.kind === 'length'
      ? inWords(lengthOf(scale, annotation), 'mm', 'in', value => (value * millimetre) / inch)
      : inWords(patchOf(scale, annotation), 'mm²', 'in²', value => (value * 0.000_001) / (inch * inch));
  });
};
